import {
  boundsOf,
  containsPoint,
  regionsOf,
  signedArea,
  subtract,
  unite,
  type Box,
  type Ring,
  type Rings,
} from '../../geometry/index.js';

/** The waste of a layer as it is pulled off: inside its border, without what lies in counters. */
export interface Waste {
  /** Round everything that frees the waste. */
  readonly border: Rings;
  /** All that stays, marks with it, without its holes: counters come out by themselves. */
  readonly stays: Rings;
  /** What is left between them. */
  readonly rings: Rings;
}

/** The waste inside a border (kernel-clean rings, as all are) round what stays. What stays may reach the border. */
export function wasteOf(border: Rings, stays: Rings): Waste {
  const filled = unite(stays.filter((ring) => signedArea(ring) > 0));
  return { border, stays: filled, rings: subtract(border, filled) };
}

/** Tells whether a point lies in an area, by the boxes of its pieces first. */
export function insideOf(rings: Rings): (x: number, y: number) => boolean {
  const regions = regionsOf(rings).map(({ outer, holes }) => ({
    box: boundsOf([outer])!,
    rings: [outer, ...holes] as readonly Ring[],
  }));
  const within = ({ minX, minY, maxX, maxY }: Box, x: number, y: number) =>
    x > minX && x < maxX && y > minY && y < maxY;
  return (x, y) => regions.some(({ box, rings: of }) => within(box, x, y) && containsPoint(of, x, y));
}
