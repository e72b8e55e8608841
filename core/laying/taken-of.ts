import { isKept, leftoversAround, type LeftoverRule } from '../shop/index.js';
import { spentOf } from './choose-pieces.js';
import type { Laid } from './lay-film.js';
import type { Leftover, SheetPlan } from './sheet-plan.js';

/** How much of its piece a layout takes (mm², without what is kept of it), what is left of it, and what is spent, in the shop's money. */
export function takenOf(
  { on: { piece }, film, used }: Pick<Laid, 'on' | 'film' | 'used'>,
  rule: LeftoverRule,
): Pick<SheetPlan, 'usedMm2' | 'leftovers' | 'value'> {
  const { costPerM2 } = film;
  const taken =
    piece.kind === 'roll'
      ? { widthMm: piece.widthMm, lengthMm: used.lengthMm }
      : { widthMm: piece.widthMm, lengthMm: piece.lengthMm };
  const leftovers = leftoversAround(taken, used.groups, costPerM2, rule).map((left): Leftover => ({
    ...left,
    piece,
    keep: isKept(left, rule),
  }));
  const kept = leftovers.reduce((sum, { keep, widthMm, lengthMm }) => sum + (keep ? widthMm * lengthMm : 0), 0);
  return {
    usedMm2: taken.widthMm * taken.lengthMm - kept,
    leftovers,
    value: spentOf({ kind: piece.kind, widthMm: piece.widthMm, lengthMm: piece.lengthMm, costPerM2 }, used, rule),
  };
}
