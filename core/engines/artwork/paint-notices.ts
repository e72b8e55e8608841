import { boundsOf, joinBoxes, pointCell, type Box, type Polyline, type Rings } from '../../geometry/index.js';
import { atPlaces } from '../../words/index.js';
import { JOIN_MM, joiningReach, type OpenLine } from './join-loops.js';
import type { Noticed } from './noticed.js';

/** Strokes thinner than this at the size of the job no blade can follow on both sides: its own play and the film's give are more, mm. */
export const HAIRLINE_STROKE_MM = 0.3;

/** What was noticed while painting. */
export interface Said {
  readonly outside: Box[];
  readonly hairlines: Box[];
  readonly crossings: Box[];
  readonly refused: { readonly why: 'out-of-range' | 'too-tangled'; readonly element: string }[];
  readonly open: { readonly colour: string; readonly lines: readonly OpenLine[] }[];
  /** Points of all outlines so far. */
  points: number;
}

export function nothingSaid(): Said {
  return { outside: [], hairlines: [], crossings: [], refused: [], open: [], points: 0 };
}

/** It by code, with its figures. `joinedMm` is how far apart ends were joined already. */
export function noticedOf({ outside, hairlines, crossings, refused, open }: Said, joinedMm: number): Noticed[] {
  return [
    ...refused.map(({ why, element }): Noticed =>
      why === 'out-of-range' ? { code: why, what: element, why: 'far' } : { code: why, element },
    ),
    ...(outside.length > 0
      ? [{ code: 'outside-frame', count: outside.length, where: outside.reduce<Box | null>(joinBoxes, null)! } as const]
      : []),
    ...(hairlines.length > 0
      ? [{ code: 'hairlines', thinnestMm: HAIRLINE_STROKE_MM, ...atPlaces(hairlines) } as const]
      : []),
    ...open.map(({ colour, lines }): Noticed => ({
      code: 'open-outline',
      colour,
      fills: true,
      reachMm: joiningReach(lines, Math.max(JOIN_MM, joinedMm)),
      ...atPlaces(lines.map((line) => boundsOf([Float64Array.from(line)])!)),
    })),
    ...(crossings.length > 0 ? [{ code: 'self-crossing', ...atPlaces(crossings) } as const] : []),
  ];
}

/** Round where a shape's area has corners that its outlines did not have: there they cross. Null when they do not. */
export function boxOfCrossings(lines: readonly Polyline[], rings: Rings): Box | null {
  // Far under the kernel's own rounding two points are one; a cell's four corners are tried, since a point may lie by its edge.
  const corners = new Set<number>();
  for (const { points } of lines)
    for (let i = 0; i < points.length; i += 2) corners.add(pointCell(points[i]!, points[i + 1]!));
  const near = 2e-7;
  const isOld = (x: number, y: number) =>
    [-near, near].some((dx) => [-near, near].some((dy) => corners.has(pointCell(x + dx, y + dy))));
  const crossings: number[] = [];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      if (!isOld(x, y)) crossings.push(x, y);
    }
  }
  return crossings.length > 0 ? boundsOf([Float64Array.from(crossings)]) : null;
}
