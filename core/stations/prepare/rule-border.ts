import { weedingBorders, type BorderKind } from '../../engines/weeding/index.js';
import { areaOf, boundsOf, perimeter, type Rings } from '../../geometry/index.js';

/** What a minute at the bench is worth in film, in the shop's money. Source: trade practice. */
export const MINUTE_COST = 0.5;
/** A metre of border, and lifting what one border frees, take so long, s. Source: trade practice, as a metre of outline and a counter. */
const METRE_S = 12;
const LIFT_S = 5;
/** A sheet takes so long whatever its border is, s. Source: trade practice. */
const SHEET_S = 40;
/** Film between a border and the box round it is used by a neighbour only half the time. */
const USED = 0.5;
/** A box is straight to cut and easy to lift at a corner: another border has to make the layer cheaper by more than this share. */
const CHEAPER_BY = 0.01;

/** The border of a layer, and what it saves against the box: film, and minutes. */
export interface RuledBorder {
  readonly kind: Exclude<BorderKind, 'none'>;
  readonly rings: Rings;
  readonly savedMm2: number;
  readonly savedMin: number;
}

/**
 * The border with which a layer costs least, film and minutes together, of all kinds: a box, one smooth line, or one round each group.
 * All go round what stays of this layer and its marks (kernel-clean rings), `gapMm` away from it. `costPerM2` is the film's price.
 */
export function ruledBorder(
  stays: Rings,
  { gapMm, costPerM2 }: { readonly gapMm: number; readonly costPerM2: number },
): RuledBorder {
  const box = weedingBorders('box', stays, gapMm);
  const boxMm2 = areaOf(box);
  const costOf = (mm2: number, minutes: number) =>
    ((USED * mm2 + (1 - USED) * boxMm2) / 1e6) * costPerM2 + (SHEET_S / 60 + minutes) * MINUTE_COST;
  const dear = costOf(boxMm2, minutesOf(box)) * (1 - CHEAPER_BY);
  const asBox: RuledBorder = { kind: 'box', rings: box, savedMm2: 0, savedMin: 0 };
  // No line goes closer round than what it goes round, and one has to be lifted at least.
  if (costOf(areaOf(stays), LIFT_S / 60) >= dear) return asBox;
  const made = (kind: 'groups' | 'contour') => {
    const rings = weedingBorders(kind, stays, gapMm);
    return { kind: rings.length === 1 ? 'contour' : kind, rings, costs: costOf(areaOf(rings), minutesOf(rings)) };
  };
  const groups = made('groups');
  // Round one group the line round each is the line round all. A line round several is at least twice as long as the box's diagonal: where that costs more already, none is made.
  const { minX, minY, maxX, maxY } = boundsOf(stays)!;
  const shortestMin = ((2 * Math.hypot(maxX - minX, maxY - minY)) / 1000 / 60) * METRE_S + LIFT_S / 60;
  const isWorthMaking = groups.rings.length > 1 && costOf(areaOf(stays), shortestMin) < Math.min(dear, groups.costs);
  const whole = isWorthMaking ? made('contour') : groups;
  const { kind, rings, costs } = whole.costs < groups.costs ? whole : groups;
  return costs < dear
    ? { kind, rings, savedMm2: boxMm2 - areaOf(rings), savedMin: minutesOf(box) - minutesOf(rings) }
    : asBox;
}

function minutesOf(border: Rings): number {
  return (border.reduce((sum, ring) => sum + (perimeter(ring) / 1000) * METRE_S, 0) + border.length * LIFT_S) / 60;
}
