import { Fragment, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import {
  aligned,
  boxRound,
  distributed,
  moved,
  spaced,
  type Alignment,
  type Placement,
} from '../../../core/stations/artwork/index.js';
import { LARGER_WORK, LONGEST_DESIGN_MM } from '../../../core/stations/surface/index.js';
import { boxesTouch } from '../../../core/geometry/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Picker } from '../../ui/picker.js';
import { count } from '../../../core/words/index.js';
import { RepeatParts } from './repeat-parts.js';
import { MOST_OVERLAP_MM, type ArrangedPart, type Arrangement } from './use-arrangement.js';
import { newId } from '../../api/new-id.js';

/** As far as a part may lie from where the design begins, mm. */
const FARTHEST_MM = 100_000;

const COLUMN: readonly (readonly [Alignment, string])[] = [
  ['left', 'left edges'],
  ['centre', 'middles'],
  ['right', 'right edges'],
];
const ROW: readonly (readonly [Alignment, string])[] = [
  ['top', 'tops'],
  ['middle', 'middles'],
  ['bottom', 'feet'],
];

const EDGES: readonly (readonly [Alignment, string])[] = [
  ['left', 'left'],
  ['centre', 'middle across'],
  ['right', 'right'],
  ['top', 'top'],
  ['middle', 'middle down'],
  ['bottom', 'foot'],
];

/** Where the chosen parts stand, in figures; several of them brought to one line or set out evenly. */
export function Placing({ arrangement }: { readonly arrangement: Arrangement }) {
  const { chosen, change, choose, parts, room } = arrangement;
  const [wanted, setWith] = useState('each other');
  if (chosen.length === 0) return null;
  const others = parts.filter((part) => !chosen.includes(part));
  const units = new Set(chosen.map((part) => part.group ?? part.id)).size;
  const isOneGroup = units === 1 && chosen[0]!.group !== null;
  // What was chosen to be in line with may have gone, or be moved itself.
  const can = [
    ...(units > 1 ? ['each other'] : []),
    ...(others.length > 0 ? ['rest', ...others.map(({ id }) => id)] : []),
    ...(room ? ['surface'] : []),
  ];
  const base = can.includes(wanted) ? wanted : can[0];
  const frame =
    base === 'each other'
      ? undefined
      : base === 'surface'
        ? room!
        : // What is moved does not count: brought to its line once more it stays where it is.
          boxRound(base === 'rest' ? others : parts.filter((part) => part.id === base))!;
  // Between the margins a part stays where it was brought, whatever that makes of the design's middle.
  const lining = base === 'surface' ? { ...arrangement, place: arrangement.placeOnSurface } : arrangement;
  const group = (id: string | null) => {
    const ids = new Set(chosen.map((part) => part.id));
    change((all) => all.map((part) => (ids.has(part.id) ? { ...part, group: id } : part)));
  };
  const remove = () => {
    const ids = chosen.map((part) => part.id);
    choose([]);
    change((all) => all.filter((part) => !ids.includes(part.id)));
  };
  return (
    <Box aria-label="Placing">
      {chosen.length === 1 ? (
        <One key={chosen[0]!.id} part={chosen[0]!} arrangement={arrangement} />
      ) : (
        <>
          <h3>{count(chosen.length, 'part')} together</h3>
          {isOneGroup ? (
            <p>
              They are one group, and move as one.{' '}
              <WordButton onPress={() => group(null)}>Take the group apart</WordButton>
            </p>
          ) : (
            <p>
              <WordButton onPress={() => group(newId())}>Make them one group</WordButton>
            </p>
          )}
          {units > 1 && <EvenGaps arrangement={arrangement} />}
          {units > 2 && (
            <Lines
              said="Spread evenly, the first and the last staying:"
              arrangement={arrangement}
              ways={[
                ['gaps across', 'gaps across', distributed(chosen, 'x', 'gaps')],
                ['gaps down', 'gaps down', distributed(chosen, 'y', 'gaps')],
                ['middles across', 'middles evenly across', distributed(chosen, 'x', 'middles')],
                ['middles down', 'middles evenly down', distributed(chosen, 'y', 'middles')],
              ]}
            />
          )}
        </>
      )}
      {can.length > 0 && (
        <>
          <p>
            In line with{' '}
            <Picker
              label="In line with"
              value={base ?? ''}
              options={[
                ...(units > 1 ? [{ id: 'each other', text: 'each other' }] : []),
                ...(others.length > 0 ? [{ id: 'rest', text: 'the rest of the design' }] : []),
                ...(room ? [{ id: 'surface', text: 'the surface, between its margins' }] : []),
                ...others.map((part) => ({ id: part.id, text: part.name })),
              ]}
              onChange={setWith}
            />
          </p>
          {frame ? (
            <Lines
              said={chosen.length === 1 ? 'Bring it to the' : 'Bring them to the'}
              arrangement={lining}
              ways={EDGES.map(([to, words]) => [words, `to the ${words}`, aligned(chosen, to, frame)])}
            />
          ) : (
            <>
              <Lines
                said="One below the other, by their"
                arrangement={lining}
                ways={COLUMN.map(([to, words]) => [words, `${words}, one below the other`, aligned(chosen, to)])}
              />
              <Lines
                said="Side by side, by their"
                arrangement={lining}
                ways={ROW.map(([to, words]) => [words, `${words}, side by side`, aligned(chosen, to)])}
              />
            </>
          )}
          <Tried role="status">{sayTried(arrangement)}</Tried>
        </>
      )}
      <RepeatParts arrangement={arrangement} />
      <p>
        <WordButton onPress={remove}>
          {chosen.length === 1 ? 'Remove it from the design' : 'Remove them from the design'}
        </WordButton>
      </p>
    </Box>
  );
}

/** The same gap between each two, by figure. */
function EvenGaps({ arrangement }: { readonly arrangement: Arrangement }) {
  const { unit } = useJobContext();
  const [gapMm, setGapMm] = useState(5);
  const { chosen, scale } = arrangement;
  const ways = (['x', 'y'] as const).map(
    (axis) =>
      [
        axis === 'x' ? 'across' : 'down',
        `this gap between each two, ${axis === 'x' ? 'across' : 'down'}`,
        spaced(chosen, axis, gapMm / scale),
      ] as const,
  );
  return (
    <Lines
      said={
        <>
          <FigureField
            label="Gap between each two"
            min={-MOST_OVERLAP_MM}
            mm={gapMm}
            unit={unit}
            stepMm={1}
            onChange={setGapMm}
          />{' '}
          between each two, the first staying:
        </>
      }
      arrangement={arrangement}
      ways={ways}
    />
  );
}

interface LinesProps {
  readonly said: ReactNode;
  readonly arrangement: Arrangement;
  /** What stands on the button, what it is called by itself, and where the parts go. */
  readonly ways: readonly (readonly [words: string, name: string, places: ReadonlyMap<string, Placement>])[];
}

/** Ways to bring parts into order, each shown on the light table while it is looked at. */
function Lines({ said, arrangement: { place, tryOut, isUnread }, ways }: LinesProps) {
  return (
    <p>
      {said}{' '}
      {ways.map(([words, name, places], i) => (
        <Fragment key={name}>
          <Way>
            <WordButton
              aria-label={name}
              isDisabled={isUnread}
              onPress={() => place(places)}
              onLook={(isLooked) => tryOut(isLooked ? places : null)}
            >
              {words}
            </WordButton>
            {i < ways.length - 1 ? ' ·' : '.'}
          </Way>{' '}
        </Fragment>
      ))}
    </p>
  );
}

/** What would come of the way that is looked at: above all, parts that would lie on each other. */
function sayTried({ parts, tried, isUnread }: Arrangement): string {
  if (isUnread) return 'What was just added is still being read.';
  if (!tried) return '';
  if (tried.size === 0) return 'They stand so already.';
  const then = parts.map((part) => ({ part, box: tried.get(part.id) ?? part.shown }));
  const stacked = then.filter(({ part, box }) =>
    then.some(
      (other) => other.part !== part && boxesTouch(box, other.box) && !boxesTouch(part.shown, other.part.shown),
    ),
  ).length;
  return `Moves ${count(tried.size, 'part')}, as the dashed boxes show.${stacked > 0 ? ` ${stacked} parts would then lie on each other.` : ''}`;
}

function One({ part, arrangement }: { readonly part: ArrangedPart; readonly arrangement: Arrangement }) {
  const { unit } = useJobContext();
  const { place, parts, scale } = arrangement;
  const { minX, minY, maxX, maxY } = part.shown;
  const set = (next: Partial<Placement>) => place(new Map([[part.id, { ...part.place, ...next }]]));
  const shift = (x: number, y: number) =>
    place(new Map([[part.id, moved(part.place, { x: x / scale, y: y / scale })]]));
  const size = (factor: number) => set({ scale: Math.min(10_000, Math.max(0.0001, part.place.scale * factor)) });
  const several = parts.length > 1;
  return (
    <>
      {several && (
        <p>
          It stands{' '}
          <FigureField
            label="From the left"
            min={-FARTHEST_MM}
            mm={minX}
            unit={unit}
            stepMm={1}
            onChange={(mm) => shift(mm - minX, 0)}
          />{' '}
          from the left and{' '}
          <FigureField
            label="From the top"
            min={-FARTHEST_MM}
            mm={minY}
            unit={unit}
            stepMm={1}
            onChange={(mm) => shift(0, mm - minY)}
          />{' '}
          from the top,{' '}
          <FigureField
            label="Its width"
            mm={maxX - minX}
            unit={unit}
            min={1}
            max={LONGEST_DESIGN_MM}
            whyMax={LARGER_WORK}
            stepMm={1}
            onChange={(mm) => size(mm / (maxX - minX))}
          />{' '}
          wide and{' '}
          <FigureField
            label="Its height"
            mm={maxY - minY}
            unit={unit}
            min={1}
            max={LONGEST_DESIGN_MM}
            whyMax={LARGER_WORK}
            stepMm={1}
            onChange={(mm) => size(mm / (maxY - minY))}
          />{' '}
          high.
        </p>
      )}
      <p>
        It is turned by{' '}
        <NumberField
          label="Turned, degrees"
          value={part.place.turnDeg}
          min={-360}
          max={360}
          onChange={(turnDeg) => set({ turnDeg })}
        />
        ° and{' '}
        <WordButton onPress={() => set({ mirrored: !part.place.mirrored })}>
          {part.place.mirrored ? 'mirrored' : 'not mirrored'}
        </WordButton>
        .
      </p>
    </>
  );
}

/** Room is kept for it: what grew while a way is looked at would move the way from under the pointer. */
const Tried = styled.p`
  min-height: 3.8em;
`;

/** A sign stays beside the word that it follows. */
const Way = styled.span`
  white-space: nowrap;
`;

const Box = styled.section`
  display: grid;
  gap: ${space.xs};
  font-size: ${type.small};
  line-height: 1.9;
  padding-left: ${space.m};
  border-left: 2px solid ${colour.accent};
  h3 {
    margin: 0;
    font-size: ${type.small};
  }
`;
