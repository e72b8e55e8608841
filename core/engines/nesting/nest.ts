import { arrange, placementOf, type Arrangement, type Candidate, type Turn } from './arrange.js';
import type { NestHooks, NestRequest, NestResult } from './nest-request.js';
import { NoFits } from './no-fit.js';
import { firstOrders, isCheaper, type Tried } from './orders.js';
import { seededRandom } from './seeded-random.js';
import { groupArea, orientationsOf, shapeOf } from './shape.js';

/**
 * Places rigid groups on sheets: nothing overlaps, all keep the spacing, and sheets are filled in the order given; what is pinned stays. Three orders of the items are tried first (the largest first in
 * three senses), of few copies more, and the best kept: fewest left over, then least film, or least cost where the caller reckons it. Then, while `mayTryMore` allows it, the order is changed step by step where there is a cost, and what lies on each sheet drawn together. The same for the same request and number
 * of steps.
 */
export function nest({ sheets, pinned, ...what }: NestRequest, hooks: NestHooks = {}): Promise<NestResult> {
  return nesterOf(what)({ sheets, ...(pinned && { pinned }) }, hooks);
}

/** The same for one set of items that is laid on one set of sheets after the other: what is known of how they fit beside each other is kept. */
export function nesterOf({
  items,
  spacingMm,
}: Pick<NestRequest, 'items' | 'spacingMm'>): (
  on: Pick<NestRequest, 'sheets' | 'pinned'>,
  hooks?: NestHooks,
) => Promise<NestResult> {
  const noFits = new NoFits();
  const known = items
    .filter((item) => item.quantity > 0 && item.group.length > 0)
    .map((item, number) => {
      const shape = shapeOf(item.group, number, spacingMm);
      return {
        item,
        area: groupArea(item.group),
        shape,
        orientations: orientationsOf(item.group, item.rotations, shape),
      };
    });
  return async (on, hooks = {}) => {
    const request: NestRequest = { ...on, items, spacingMm };
    const pinned = new Map<string, Set<number>>();
    for (const { item, copy } of request.pinned ?? []) pinned.set(item, (pinned.get(item) ?? new Set()).add(copy));
    const candidates = known.map((one): Candidate => ({
      ...one,
      copies: Array.from({ length: one.item.quantity }, (_, copy) => copy).filter(
        (copy) => !pinned.get(one.item.id)?.has(copy),
      ),
    }));
    let steps = 0;
    const resultOf = (arrangement: Arrangement): NestResult => ({
      placements: arrangement.sheets.flatMap((sheet) => sheet.laid.map((laid) => placementOf(sheet, laid))),
      ...figuresOf(arrangement),
      unplaced: arrangement.missing.map(({ candidate, quantity }) => ({
        item: candidate.item.id,
        quantity,
        reason: whyNot(candidate, request),
      })),
      steps,
    });
    const costOf = (arrangement: Arrangement) => hooks.costOf?.(resultOf(arrangement)) ?? arrangement.score;
    const tryOrder = async (order: readonly Turn[]): Promise<Tried> => {
      const arrangement = await arrange(order, request, noFits, hooks);
      return {
        order,
        arrangement,
        lostMm2: arrangement.missing.reduce((sum, { quantity, candidate }) => sum + quantity * candidate.area, 0),
        cost: costOf(arrangement),
      };
    };
    let first: Tried | null = null;
    for (const order of firstOrders(candidates)) {
      const tried = await tryOrder(order);
      if (!first || isCheaper(tried, first)) first = tried;
    }
    const step = async () => {
      await hooks.breathe?.();
      if (!hooks.mayTryMore?.(steps)) return false;
      steps += 1;
      return true;
    };
    if (!hooks.mayTryMore) return resultOf(first!.arrangement);
    // Only who asks for the search loads it.
    const [{ improve }, { betterOrder }] = [await import('./improve.js'), await import('./better-order.js')];
    // Where film alone counts, drawing together does as much; an order can also leave more in one piece.
    const ordered = hooks.costOf
      ? await betterOrder(first!, {
          tryOrder,
          random: seededRandom(1),
          step,
          onBetter: ({ arrangement }) => hooks.onBetter?.(() => resultOf(arrangement)),
        })
      : first!;
    const cheaper = (improved: Arrangement) =>
      hooks.costOf && costOf(improved) > ordered.cost ? ordered.arrangement : improved;
    return resultOf(
      cheaper(
        await improve(ordered.arrangement, {
          spacingMm,
          noFits,
          random: seededRandom(1),
          step,
          onBetter: (found) => hooks.onBetter?.(() => resultOf(cheaper(found()))),
        }),
      ),
    );
  };
}

function figuresOf({ sheets }: Arrangement): Pick<NestResult, 'usedLengthMm' | 'density'> {
  const used = sheets.filter(({ open }) => open.usedLength > 0);
  const filmArea = used.reduce((sum, { open }) => sum + open.usedLength * open.sheet.widthMm, 0);
  const placedArea = sheets.reduce(
    (sum, { laid }) => sum + laid.reduce((own, { candidate }) => own + candidate.area, 0),
    0,
  );
  return {
    usedLengthMm: used.reduce((sum, { open }) => sum + open.usedLength, 0),
    density: filmArea > 0 ? placedArea / filmArea : 0,
  };
}

function whyNot(candidate: Candidate, request: NestRequest): string {
  const fits = request.sheets.some((s) =>
    candidate.orientations.some((o) => o.width <= s.widthMm + 1e-6 && o.height <= (s.lengthMm ?? Infinity) + 1e-6),
  );
  return fits ? 'no room is left on the sheets there are' : 'it is larger than every sheet';
}
