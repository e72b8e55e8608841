import { boundsOf, joinBoxes, pointCell, type Box, type Polyline, type Rings } from '../geometry/index.js';
import { atPlaces, type Finding } from '../job/index.js';
import { JOIN_MM, joiningRemedies, type OpenLine } from './join-loops.js';

/** Strokes thinner than this at the size of the job no blade can follow on both sides: its own play and the film's give are more, mm. */
export const HAIRLINE_STROKE_MM = 0.3;

/** What was noticed while painting. */
export interface Said {
  readonly outside: Box[];
  readonly hairlines: Box[];
  readonly crossings: Box[];
  readonly refused: { readonly why: 'out-of-range' | 'too-tangled'; readonly element: string }[];
  readonly open: { readonly colour: string; readonly lines: readonly OpenLine[] }[];
}

export function nothingSaid(): Said {
  return { outside: [], hairlines: [], crossings: [], refused: [], open: [] };
}

const REFUSED = {
  'out-of-range': 'reaches further than a kilometre',
  'too-tangled': 'crosses itself millions of times',
} as const;

/** It as findings. `joinedMm` is how far apart ends were joined already. */
export function findingsOf({ outside, hairlines, crossings, refused, open }: Said, joinedMm: number): Finding[] {
  const findings: Finding[] = refused.map(({ why, element }) => ({ code: why, severity: 'warning', stage: 'artwork', message: `${element} ${REFUSED[why]}; it was left out.` }));
  if (outside.length > 0) {
    findings.push({
      code: 'outside-frame',
      severity: 'note',
      stage: 'artwork',
      message: 'Something reaches beyond the artboard; what lies outside is not cut.',
      count: outside.length,
      where: outside.reduce<Box | null>(joinBoxes, null)!,
    });
  }
  if (hairlines.length > 0) {
    findings.push({
      code: 'hairlines',
      severity: 'warning',
      stage: 'artwork',
      message: `Strokes are thinner than ${HAIRLINE_STROKE_MM} mm at this size: a blade cannot follow both their sides.`,
      ...atPlaces(hairlines),
      remedies: [
        { label: 'Fill what they enclose', patch: { repair: { hairlines: 'fill' } }, acts: 'hairlines' },
        { label: 'Leave them out', patch: { repair: { hairlines: 'drop' } }, acts: 'hairlines' },
      ],
    });
  }
  for (const { colour, lines } of open) {
    findings.push({
      code: 'open-outline',
      severity: 'warning',
      stage: 'artwork',
      message: `Hairlines in ${colour} do not close; what they enclose is filled up to a straight line between their ends.`,
      ...atPlaces(lines.map((line) => boundsOf([Float64Array.from(line)])!)),
      remedies: joiningRemedies(lines, Math.max(JOIN_MM, joinedMm)),
    });
  }
  if (crossings.length > 0) {
    findings.push({
      code: 'self-crossing',
      severity: 'note',
      stage: 'artwork',
      message: 'Outlines of one shape cross themselves. They are joined as their drawing paints them, so that no cut runs across.',
      ...atPlaces(crossings),
      remedies: [{ label: 'Fill them whole', patch: { repair: { fillCrossings: true } }, acts: 'crossings' }],
    });
  }
  return findings;
}

/** Round where a shape's area has corners that its outlines did not have: there they cross. Null when they do not. */
export function boxOfCrossings(lines: readonly Polyline[], rings: Rings): Box | null {
  // Far under the kernel's own rounding two points are one; a cell's four corners are tried, since a point may lie by its edge.
  const corners = new Set<number>();
  for (const { points } of lines) for (let i = 0; i < points.length; i += 2) corners.add(pointCell(points[i]!, points[i + 1]!));
  const near = 2e-7;
  const isOld = (x: number, y: number) => [-near, near].some((dx) => [-near, near].some((dy) => corners.has(pointCell(x + dx, y + dy))));
  const crossings: number[] = [];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      if (!isOld(x, y)) crossings.push(x, y);
    }
  }
  return crossings.length > 0 ? boundsOf([Float64Array.from(crossings)]) : null;
}
