import { useState } from 'react';
import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import type { PairDecision, PairPlan } from '../../../core/stations/layers/index.js';
import { Reason } from '../../ui/reason.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { Swatch } from '../../ui/swatch.js';
import { FilmPairs } from './film-pairs.js';
import { WAYS_OF_BUILDING, wayOptions } from './ways-of-building.js';

const PARTS = [
  ['drawBack', 'draw-back'],
  ['shrink', 'shrink'],
  ['slip', 'slip'],
  ['turn', 'turning'],
  ['cutter', 'cutter'],
] as const;

/** Every two layers that meet: how the lower runs under the upper, why, and otherwise. Several can be decided together, and one film against all others. */
export function PairsTable() {
  const { plan, recipe, handle } = useJobContext();
  const pairs = plan?.pairs ?? [];
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  if (pairs.length === 0) return null;
  const chosen = pairs.filter(({ key }) => marked.has(key));
  const decideAll = (school: string) => {
    const others = Object.entries(recipe.build.pairs).filter(([key]) => !marked.has(key));
    const own = WAYS_OF_BUILDING.flatMap(([way]) =>
      way === school
        ? chosen.map(({ key }) => [key, { school: way, trapMm: recipe.build.pairs[key]?.trapMm ?? null }] as const)
        : [],
    );
    handle.change({ build: { pairs: Object.fromEntries([...others, ...own]) } });
    setMarked(new Set());
  };
  return (
    <section aria-label="Pairs of layers">
      <h3>Where two layers meet</h3>
      {pairs.length > 1 && <FilmPairs />}
      {pairs.length > 1 && (
        <Together>
          <WordButton
            onPress={() => setMarked(chosen.length === pairs.length ? new Set() : new Set(pairs.map(({ key }) => key)))}
          >
            {chosen.length === pairs.length ? 'Choose none' : `Choose all ${pairs.length} pairs`}
          </WordButton>
          {chosen.length > 0 && (
            <Picker
              label={`Way of building the ${chosen.length} chosen pairs`}
              value=""
              placeholder={`Build the ${chosen.length} chosen as …`}
              options={[...wayOptions(), { id: 'app', text: 'the app decides' }]}
              onChange={decideAll}
            />
          )}
        </Together>
      )}
      <List>
        {pairs.map((pair) => (
          <Pair
            key={pair.key}
            pair={pair}
            {...(pairs.length > 1
              ? {
                  isMarked: marked.has(pair.key),
                  onMark: (is: boolean) =>
                    setMarked(new Set(is ? [...marked, pair.key] : [...marked].filter((key) => key !== pair.key))),
                }
              : {})}
          />
        ))}
      </List>
    </section>
  );
}

function Pair({
  pair,
  isMarked = false,
  onMark,
}: {
  readonly pair: PairPlan;
  readonly isMarked?: boolean;
  readonly onMark?: (is: boolean) => void;
}) {
  const { recipe, handle, unit } = useJobContext();
  const [open, setOpen] = useState(false);
  const { pairs } = recipe.build;
  const decide = (next: Partial<PairDecision>) =>
    handle.change({
      build: { pairs: { ...pairs, [pair.key]: { school: null, trapMm: null, ...pairs[pair.key], ...next } } },
    });
  const follow = () =>
    handle.change({ build: { pairs: Object.fromEntries(Object.entries(pairs).filter(([key]) => key !== pair.key)) } });
  // As decided, also while the build with it is still being made.
  const school = pairs[pair.key]?.school ?? pair.school;
  const names = `${pair.lower.name} under ${pair.upper.name}`;
  return (
    <Item>
      <p>
        {onMark && (
          <>
            <input
              type="checkbox"
              aria-label={`Choose ${names}`}
              checked={isMarked}
              onChange={(event) => onMark(event.target.checked)}
            />{' '}
          </>
        )}
        <Swatch film={pair.lower} size={16} /> {pair.lower.name} under <Swatch film={pair.upper} size={16} />{' '}
        {pair.upper.name}
      </p>
      <Row>
        <Picker
          label={`Way of building ${names}`}
          value={school}
          options={wayOptions(pair.ruledSchool)}
          onChange={(way) => decide({ school: way as PairDecision['school'] })}
        />
        {school === 'trapped' && (
          <span>
            by{' '}
            <FigureField
              label={`Trap of ${names}`}
              mm={pairs[pair.key]?.trapMm ?? pair.trapMm}
              unit={unit}
              max={20}
              stepMm={0.05}
              onChange={(trapMm) => decide({ trapMm })}
            />
          </span>
        )}
        <WordButton
          aria-expanded={open}
          aria-label={`${open ? 'Hide reasons' : 'Why?'} ${names}`}
          onPress={() => setOpen(!open)}
        >
          {open ? 'Hide reasons' : 'Why?'}
        </WordButton>
        {pair.decidedFor === 'pair' && (
          <WordButton aria-label={`Let the app decide ${names}`} onPress={follow}>
            Let the app decide
          </WordButton>
        )}
      </Row>
      {open && (
        <Reasons>
          {pair.because.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
          <li>
            By the formula this pair needs {formatLength(pair.width.mm, unit)} {unit}:{' '}
            {PARTS.filter(([part]) => pair.width.parts[part] > 0)
              .map(([part, name]) => `${formatLength(pair.width.parts[part], unit)} ${name}`)
              .join(', ')}
            . <Reason text="(docs/trap.md)" />
          </li>
        </Reasons>
      )}
    </Item>
  );
}

const Together = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.m};
  align-items: center;
  font-size: ${type.small};
  min-height: 32px;
  button[aria-haspopup] {
    min-height: 28px;
  }
`;
const List = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
`;
const Item = styled.li`
  border-bottom: 1px solid ${colour.faint};
  padding-bottom: ${space.s};
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
  align-items: center;
  padding-top: 3px;
  button[aria-haspopup] {
    min-height: 28px;
  }
`;
const Reasons = styled.ul`
  color: ${colour.quiet};
  padding: ${space.xs} 0 0 ${space.l};
`;
