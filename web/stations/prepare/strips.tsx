import { useState } from 'react';
import styled from 'styled-components';
import type { Box } from '../../../core/geometry/index.js';
import type { WeedView } from '../../../core/plan/page/plan-view.js';
import type { Recipe } from '../../../core/recipe/index.js';
import type { Film } from '../../../core/shop/index.js';
import { count, formatLength } from '../../../core/words/index.js';
import { useMakerAtWork } from '../../api/maker.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Small } from '../../ui/plain-fields.js';

/** Relief lines changed by hand: one is drawn by its two ends, any can be taken away. */
export interface ReliefByHand {
  readonly isDrawing: boolean;
  /** What is asked for next. */
  readonly asks: string;
  /** The first end of the line that is being drawn. */
  readonly from: readonly [number, number] | null;
  readonly begin: () => void;
  readonly stop: () => void;
  readonly pick: (x: number, y: number) => void;
  readonly takeAway: (line: ShownLine) => void;
  /** Puts one end of a line somewhere else; one that the app laid is the maker's from then on. */
  readonly moveEnd: (line: ShownLine, end: 'first' | 'last', x: number, y: number) => void;
}

/** A relief line as it is shown, and as the maker drew it; null for one that the app laid. */
export interface ShownLine {
  readonly line: readonly number[];
  readonly asDrawn: readonly number[] | null;
}

export function linesOf({ relief, asDrawn }: Pick<WeedView, 'relief' | 'asDrawn'>): ShownLine[] {
  return relief.map((line, i) => ({ line, asDrawn: asDrawn[i]! }));
}

const INK = '#8a1f4b';
/** How far towards its middle an arrow lies in its strip. */
const INTO = 0.12;
/** Lines are kept to this, mm. */
const round = (v: number) => Math.round(v * 100) / 100;

export function useReliefByHand(filmId: string | null): ReliefByHand {
  const { recipe, handle } = useJobContext();
  const { relief } = recipe.preparation;
  const [isDrawing, setDrawing] = useState(false);
  const [from, setFrom] = useState<readonly [number, number] | null>(null);
  const stop = () => {
    setDrawing(false);
    setFrom(null);
  };
  const set = (to: Partial<typeof relief>) => handle.change({ preparation: { relief: { ...relief, ...to } } });
  return {
    isDrawing,
    asks: from ? 'now choose where the line ends' : 'choose where the line begins: on the border, or beside it',
    from,
    begin: () => setDrawing(true),
    stop,
    pick: (x, y) => {
      if (!from) return setFrom([x, y]);
      if (filmId !== null) set({ drawn: [...relief.drawn, { filmId, line: [...from, x, y].map(round) }] });
      stop();
    },
    takeAway: (shown) => filmId !== null && set(without(relief, filmId, shown)),
    moveEnd: (shown, end, x, y) => {
      if (filmId === null) return;
      const { drawn, gone } = without(relief, filmId, shown);
      const line = shown.asDrawn ?? shown.line;
      const moved = end === 'first' ? [x, y, ...line.slice(2)] : [...line.slice(0, -2), x, y];
      set({ gone, drawn: [...drawn, { filmId, line: moved.map(round) }] });
    },
  };
}

type Relief = Recipe['preparation']['relief'];

/** What is left when a line is taken away: a drawn one is not drawn any more, and where the app laid one it lays none. */
function without(relief: Relief, filmId: string, { line, asDrawn }: ShownLine): Pick<Relief, 'drawn' | 'gone'> {
  const isIt = (drawn: Relief['drawn'][number]) =>
    asDrawn !== null &&
    drawn.filmId === filmId &&
    drawn.line.length === asDrawn.length &&
    drawn.line.every((v, i) => v === asDrawn[i]);
  if (asDrawn) return { drawn: relief.drawn.filter((drawn) => !isIt(drawn)), gone: relief.gone };
  return {
    drawn: relief.drawn,
    gone: [...relief.gone, { filmId, xMm: round((line[0]! + line[2]!) / 2), yMm: round((line[1]! + line[3]!) / 2) }],
  };
}

/** The waste of a layer: its strips in the order in which they are pulled, and the lines that part it. */
export function StripList({
  film,
  weed,
  hand,
}: {
  readonly film: Film;
  readonly weed: WeedView;
  readonly hand: ReliefByHand;
}) {
  const { recipe, shop, handle, unit } = useJobContext();
  const { relief } = recipe.preparation;
  const atWork = useMakerAtWork();
  const maker = shop.makers.find(({ id }) => id === atWork);
  const setBulk = (bulkMm: number) => handle.change({ preparation: { relief: { ...relief, bulkMm } } });
  if (weed.border === '') return null;
  return (
    <section aria-label="Strips of waste">
      <h3>Waste of {film.name}</h3>
      <Small>
        {count(weed.strips.length, 'strip')}; strips may hold a circle of up to{' '}
        <FigureField
          label="Bulk of a strip"
          mm={relief.bulkMm ?? film.stripBulkMm}
          unit={unit}
          min={20}
          max={2000}
          stepMm={5}
          onChange={setBulk}
        />
        .{' '}
        {maker?.stripBulkMm && maker.stripBulkMm !== (relief.bulkMm ?? film.stripBulkMm) ? (
          <WordButton onPress={() => setBulk(maker.stripBulkMm!)}>
            Take {maker.name}’s {formatLength(maker.stripBulkMm, unit)}
          </WordButton>
        ) : null}
      </Small>
      {weed.strips.length > 1 && (
        <Strips>
          {weed.strips.map(({ areaMm2, bulkMm }, i) => (
            <li key={i}>
              <strong>{i + 1}</strong>: {Math.round(areaMm2 / 100)} cm², holds a circle of {formatLength(bulkMm, unit)}{' '}
              {unit}
            </li>
          ))}
        </Strips>
      )}
      {weed.relief.length > 0 && (
        <Strips aria-label="Relief lines">
          {linesOf(weed).map((shown, i) => (
            <li key={shown.line.join(' ')}>
              {shown.asDrawn ? 'Your line' : 'Line'} {String.fromCharCode(65 + (i % 26))}{' '}
              <WordButton
                aria-label={`Take away line ${String.fromCharCode(65 + (i % 26))}`}
                onPress={() => hand.takeAway(shown)}
              >
                Take away
              </WordButton>
            </li>
          ))}
        </Strips>
      )}
      <p>
        {hand.isDrawing ? (
          <WordButton onPress={hand.stop}>Do not draw a line</WordButton>
        ) : (
          <WordButton onPress={hand.begin}>Draw a relief line</WordButton>
        )}
      </p>
    </section>
  );
}

/** Relief lines, and on each strip its number and the way it is pulled. */
export function StripPicture({
  weed,
  box,
  from,
}: {
  readonly weed: WeedView;
  readonly box: Box;
  readonly from: ReliefByHand['from'];
}) {
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY) / 46;
  return (
    <>
      {weed.relief.map((line, i) => (
        <g key={line.join(' ')}>
          <polyline
            points={line.join(' ')}
            fill="none"
            stroke={INK}
            strokeWidth="2.5"
            strokeDasharray="9 4"
            vectorEffect="non-scaling-stroke"
          />
          <text
            x={line[0]}
            y={line[1]! - size * 0.4}
            fontSize={size}
            fontWeight="700"
            fill={INK}
            stroke="#ffffff"
            strokeWidth={size / 6}
            paintOrder="stroke"
            textAnchor="middle"
          >
            {String.fromCharCode(65 + (i % 26))}
          </text>
        </g>
      ))}
      {weed.strips.length > 1 &&
        weed.strips.map(({ xMm, yMm, pull }, i) => {
          const [dx, dy] = [pull.toX - pull.fromX, pull.toY - pull.fromY];
          const length = Math.hypot(dx, dy) || 1;
          const [ux, uy] = [dx / length, dy / length];
          // A little into the strip, so that arrows do not lie on its edges.
          const [fromX, fromY] = [pull.fromX + (xMm - pull.fromX) * INTO, pull.fromY + (yMm - pull.fromY) * INTO];
          const [toX, toY] = [fromX + dx, fromY + dy];
          return (
            <g key={i}>
              <g stroke={INK} strokeWidth="2" fill="none">
                <line x1={fromX} y1={fromY} x2={toX} y2={toY} vectorEffect="non-scaling-stroke" />
                <polyline
                  points={`${toX - size * (ux + 0.6 * uy)},${toY - size * (uy - 0.6 * ux)} ${toX},${toY} ${toX - size * (ux - 0.6 * uy)},${toY - size * (uy + 0.6 * ux)}`}
                  vectorEffect="non-scaling-stroke"
                />
              </g>
              <text
                x={xMm}
                y={yMm + size * 0.5}
                fontSize={size * 1.5}
                fontWeight="750"
                fill={INK}
                stroke="#ffffff"
                strokeWidth={size / 4}
                paintOrder="stroke"
                textAnchor="middle"
              >
                {i + 1}
              </text>
            </g>
          );
        })}
      {from && <circle cx={from[0]} cy={from[1]} r={size / 3} fill={INK} />}
    </>
  );
}

const Strips = styled.ul`
  list-style: none;
  margin-top: ${space.s};
  font-size: ${type.small};
  li {
    padding: 3px 0;
    border-bottom: 1px solid ${colour.faint};
  }
`;
