import { useState } from 'react';
import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import type { PairDecision, PairPlan } from '../../../core/stations/build/index.js';
import { Reason } from '../../ui/reason.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Select } from '../../ui/plain-fields.js';
import { Swatch } from '../../ui/swatch.js';

const NAMES = { overlay: 'overlay', inlay: 'inlay', trapped: 'trapped inlay' } as const;

const PARTS = [['drawBack', 'draw-back'], ['shrink', 'shrink'], ['slip', 'slip'], ['turn', 'turning'], ['cutter', 'cutter']] as const;

/** Every two layers that meet: how the lower runs under the upper, why, and otherwise. */
export function PairsTable() {
  const { plan } = useJobContext();
  const pairs = plan?.pairs ?? [];
  if (pairs.length === 0) return null;
  return (
    <section aria-label="Pairs of layers">
      <h3>Where two layers meet</h3>
      <List>
        {pairs.map((pair) => (
          <Pair key={pair.key} pair={pair} />
        ))}
      </List>
    </section>
  );
}

function Pair({ pair }: { readonly pair: PairPlan }) {
  const { recipe, handle, unit } = useJobContext();
  const [open, setOpen] = useState(false);
  const { pairs } = recipe.build;
  const decide = (next: Partial<PairDecision>) => handle.change({ build: { pairs: { ...pairs, [pair.key]: { school: null, trapMm: null, ...pairs[pair.key], ...next } } } });
  const follow = () => handle.change({ build: { pairs: Object.fromEntries(Object.entries(pairs).filter(([key]) => key !== pair.key)) } });
  // As decided, also while the build with it is still being made.
  const school = pairs[pair.key]?.school ?? pair.school;
  const names = `${pair.lower.name} under ${pair.upper.name}`;
  return (
    <Item>
      <p>
        <Swatch film={pair.lower} size={16} /> {pair.lower.name} under <Swatch film={pair.upper} size={16} /> {pair.upper.name}
      </p>
      <Row>
        <Select aria-label={`Way of building ${names}`} value={school} onChange={(event) => decide({ school: event.target.value as PairDecision['school'] })}>
          {(['overlay', 'inlay', 'trapped'] as const).map((one) => (
            <option key={one} value={one}>
              {NAMES[one]}
              {one === pair.ruledSchool ? ', as ruled' : ''}
            </option>
          ))}
        </Select>
        {school === 'trapped' && (
          <span>
            by <FigureField label={`Trap of ${names}`} mm={pairs[pair.key]?.trapMm ?? pair.trapMm} unit={unit} max={20} stepMm={0.05} onChange={(trapMm) => decide({ trapMm })} />
          </span>
        )}
        <WordButton aria-expanded={open} aria-label={`${open ? 'Hide reasons' : 'Why?'} ${names}`} onPress={() => setOpen(!open)}>
          {open ? 'Hide reasons' : 'Why?'}
        </WordButton>
        {pair.overridden && (
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
            By the formula this pair needs {formatLength(pair.width.mm, unit)} {unit}: {PARTS.filter(([part]) => pair.width.parts[part] > 0).map(([part, name]) => `${formatLength(pair.width.parts[part], unit)} ${name}`).join(', ')}. <Reason text="(docs/trap.md)" />
          </li>
        </Reasons>
      )}
    </Item>
  );
}

const List = styled.ul`list-style: none; display: grid; gap: ${space.s}; font-size: ${type.small};`;
const Item = styled.li`border-bottom: 1px solid ${colour.faint}; padding-bottom: ${space.s};`;
const Row = styled.div`display: flex; flex-wrap: wrap; gap: ${space.s}; align-items: center; padding-top: 3px; select { min-height: 28px; }`;
const Reasons = styled.ul`color: ${colour.quiet}; padding: ${space.xs} 0 0 ${space.l};`;
