import {
  areaOf,
  edgesOf,
  grow,
  regionsOf,
  strokeArea,
  subtract,
  type Region,
  type Rings,
} from '../../geometry/index.js';
import type { ReliefLine } from './relief-wish.js';
import { pointsAlong, roomyCircles, settled, type Roomy } from './roomy.js';
import { insideOf, type Waste } from './waste.js';

/** A piece of waste that comes off in one pull. */
export interface Strip {
  readonly region: Region;
  readonly areaMm2: number;
  /** The largest circle that fits into it: how bulky it is in the hand, and where. */
  readonly bulkMm: number;
  readonly xMm: number;
  readonly yMm: number;
}

/** What hangs together by a neck no wider than this counts as cut, mm. Source: trade practice. */
export const NECK_MM = 0.25;
/** A cut is drawn so wide where it parts areas, mm. */
const CUT_MM = 0.004;
/** Corners of strips are round to this, mm. */
const ARC_MM = 0.02;
/** Smaller bits are no strips: they come off with their neighbours, mm². */
const LEAST_MM2 = 0.1;
/** Points on outlines lie this near for the largest circle, by the size of a strip, mm. */
const STEP = { share: 1 / 30, least: 0.3, most: 1.5 };
/** So many of the largest circles are looked at more closely. */
const CLOSER = 2;

/** The waste in the strips that its relief lines part it into; those of most area first. */
export function stripsOf({ rings }: Waste, lines: readonly ReliefLine[]): Strip[] {
  const cuts = strokeArea(
    lines.map((line) => ({ points: Float64Array.from(line), closed: false })),
    { width: CUT_MM, join: 'round', cap: 'butt', miterLimit: 1 },
    CUT_MM / 4,
  );
  const held = grow(subtract(rings, cuts), -NECK_MM / 2, ARC_MM);
  return regionsOf(held)
    .flatMap(({ outer, holes }) => regionsOf(grow([outer, ...holes], NECK_MM / 2, ARC_MM)))
    .map((region) => ({ region, areaMm2: areaOf([region.outer, ...region.holes]) }))
    .filter(({ areaMm2 }) => areaMm2 > LEAST_MM2)
    .map(({ region, areaMm2 }) => {
      const { xMm, yMm, radiusMm } = roomiest([region.outer, ...region.holes], areaMm2);
      return { region, areaMm2, bulkMm: 2 * radiusMm, xMm, yMm };
    })
    .sort((a, b) => b.areaMm2 - a.areaMm2);
}

/** The largest circle in one piece of an area, true to a hundredth of a millimetre. */
function roomiest(rings: Rings, areaMm2: number): Roomy {
  const stepMm = Math.min(STEP.most, Math.max(STEP.least, Math.sqrt(areaMm2) * STEP.share));
  const holds = insideOf(rings);
  const found = roomyCircles(pointsAlong(rings, [], stepMm), 0)
    .sort((a, b) => b.radiusMm - a.radiusMm)
    .reduce<Roomy[]>(
      (some, circle) => (some.length < CLOSER && holds(circle.xMm, circle.yMm) ? [...some, circle] : some),
      [],
    );
  const edges = edgesOf(rings, []);
  return found
    .map((circle) => settled(edges, circle, holds))
    .reduce((best, circle) => (circle.radiusMm > best.radiusMm ? circle : best), {
      xMm: rings[0]![0]!,
      yMm: rings[0]![1]!,
      radiusMm: 0,
    });
}
