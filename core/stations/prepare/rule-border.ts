import { weedingBorders, type BorderKind } from '../../engines/weeding/index.js';
import { areaOf, perimeter, type Rings } from '../../geometry/index.js';

/** What a minute at the bench is worth in film, in the shop's money. Source: trade practice. */
export const MINUTE_COST = 0.5;
/** A metre of border, and lifting what one border frees, take so long, s. Source: trade practice, as a metre of outline and a counter. */
const METRE_S = 12;
const LIFT_S = 5;
/** Film beside a border that is no box is used by a neighbour only half the time. */
const USED = 0.5;
/** A box is straight to cut and easy to lift at a corner: another border has to be worth so much more, minutes. */
const LEAST_MIN = 0.25;

/** The border of a layer, and what it saves against the box: film, and minutes. */
export interface RuledBorder {
  readonly kind: Exclude<BorderKind, 'none'>;
  readonly rings: Rings;
  readonly savedMm2: number;
  readonly savedMin: number;
}

interface BorderWish {
  readonly box: Rings;
  readonly gapMm: number;
  readonly costPerM2: number;
}

/** The border of a layer that costs least, film and minutes together: the box that all layers share, or smooth lines round what stays (kernel-clean rings): one round all of it, or where that lies far apart one round each group. */
export function ruledBorder(stays: Rings, { box, gapMm, costPerM2 }: BorderWish): RuledBorder {
  const boxMm2 = areaOf(box);
  const boxMin = minutesOf(box);
  const asBox: RuledBorder = { kind: 'box', rings: box, savedMm2: 0, savedMin: 0 };
  const worth = ({ savedMm2, savedMin }: RuledBorder) => ((savedMm2 / 1e6) * costPerM2 * USED) / MINUTE_COST + savedMin;
  // Not even a border as tight as what it goes round would be worth it.
  if ((((boxMm2 - areaOf(stays)) / 1e6) * costPerM2 * USED) / MINUTE_COST + boxMin < LEAST_MIN) return asBox;
  // Round parts that lie far apart one line would go a long way to save little: there each group has its own.
  const rings = weedingBorders('groups', stays, gapMm);
  const other: RuledBorder = {
    kind: rings.length === 1 ? 'contour' : 'groups',
    rings,
    savedMm2: boxMm2 - areaOf(rings),
    savedMin: boxMin - minutesOf(rings),
  };
  return worth(other) > LEAST_MIN ? other : asBox;
}

function minutesOf(border: Rings): number {
  return (border.reduce((sum, ring) => sum + (perimeter(ring) / 1000) * METRE_S, 0) + border.length * LIFT_S) / 60;
}
