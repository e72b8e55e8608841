import { arrange, placementOf, type Arrangement, type Candidate } from './arrange.js';
import type { NestHooks, NestRequest, NestResult } from './nest-request.js';
import { NoFits } from './no-fit.js';
import { groupArea, orientationsOf, shapeOf } from './shape.js';

/**
 * Places rigid groups on sheets: nothing overlaps, all keep the spacing, and sheets are filled in the order given; what is pinned stays. Three orders of the items are tried first (the largest first in
 * three senses), of few copies more, and the best kept: fewest left over, then least film, or least cost where the caller reckons it. Then, while `mayTryMore` allows it, what lies on each sheet is drawn together step by step. The same for the same request and number
 * of steps.
 */
export function nest({ sheets, pinned, ...what }: NestRequest, hooks: NestHooks = {}): Promise<NestResult> {
  return nesterOf(what)({ sheets, ...(pinned && { pinned }) }, hooks);
}

/** The same for one set of items that is laid on one set of sheets after the other: what is known of how they fit beside each other is kept. */
export function nesterOf({ items, spacingMm }: Pick<NestRequest, 'items' | 'spacingMm'>): (on: Pick<NestRequest, 'sheets' | 'pinned'>, hooks?: NestHooks) => Promise<NestResult> {
  const noFits = new NoFits();
  const known = items
    .filter((item) => item.quantity > 0 && item.group.length > 0)
    .map((item, number) => {
      const shape = shapeOf(item.group, number, spacingMm);
      return { item, area: groupArea(item.group), shape, orientations: orientationsOf(item.group, item.rotations, shape) };
    });
  return async (on, hooks = {}) => {
    const request: NestRequest = { ...on, items, spacingMm };
    const pinned = new Map<string, Set<number>>();
    for (const { item, copy } of request.pinned ?? []) pinned.set(item, (pinned.get(item) ?? new Set()).add(copy));
    const candidates = known.map((one): Candidate => ({ ...one, copies: Array.from({ length: one.item.quantity }, (_, copy) => copy).filter((copy) => !pinned.get(one.item.id)?.has(copy)) }));
    let steps = 0;
    const resultOf = (arrangement: Arrangement): NestResult => ({
      placements: arrangement.sheets.flatMap((sheet) => sheet.laid.map((laid) => placementOf(sheet, laid))),
      ...figuresOf(arrangement),
      unplaced: arrangement.missing.map(({ candidate, quantity }) => ({ item: candidate.item.id, quantity, reason: whyNot(candidate, request) })),
      steps,
    });
    const costOf = (arrangement: Arrangement) => hooks.costOf?.(resultOf(arrangement)) ?? arrangement.score;
    let best: { readonly arrangement: Arrangement; readonly lostMm2: number; readonly cost: number } | null = null;
    for (const order of ordersOf(candidates)) {
      const arrangement = await arrange(order, request, noFits, hooks);
      const lostMm2 = arrangement.missing.reduce((sum, { quantity, candidate }) => sum + quantity * candidate.area, 0);
      if (best && lostMm2 > best.lostMm2 + 1e-6) continue;
      const cost = costOf(arrangement);
      if (!best || lostMm2 < best.lostMm2 - 1e-6 || cost < best.cost - 1e-9) best = { arrangement, lostMm2, cost };
    }
    const first = best!.arrangement;
    const step = async () => {
      await hooks.breathe?.();
      if (!hooks.mayTryMore?.(steps)) return false;
      steps += 1;
      return true;
    };
    if (hooks.mayTryMore) {
      // Only who asks for the search loads it.
      const { improve } = await import('./improve.js');
      return resultOf(await improve(first, { spacingMm, noFits, random: seededRandom(1), step, onBetter: (found) => hooks.onBetter?.(() => resultOf(found())) }));
    }
    return resultOf(first);
  };
}

function figuresOf({ sheets }: Arrangement): Pick<NestResult, 'usedLengthMm' | 'density'> {
  const used = sheets.filter(({ open }) => open.usedLength > 0);
  const filmArea = used.reduce((sum, { open }) => sum + open.usedLength * open.sheet.widthMm, 0);
  const placedArea = sheets.reduce((sum, { laid }) => sum + laid.reduce((own, { candidate }) => own + candidate.area, 0), 0);
  return { usedLengthMm: used.reduce((sum, { open }) => sum + open.usedLength, 0), density: filmArea > 0 ? placedArea / filmArea : 0 };
}

function whyNot(candidate: Candidate, request: NestRequest): string {
  const fits = request.sheets.some((s) => candidate.orientations.some((o) => o.width <= s.widthMm + 1e-6 && o.height <= (s.lengthMm ?? Infinity) + 1e-6));
  return fits ? 'no room is left on the sheets there are' : 'it is larger than every sheet';
}

const longest = (c: Candidate) => Math.max(c.orientations[0]!.width, c.orientations[0]!.height);

const ORDERS: readonly ((a: Candidate, b: Candidate) => number)[] = [
  (a, b) => b.area - a.area,
  (a, b) => longest(b) - longest(a),
  (a, b) => b.orientations[0]!.height - a.orientations[0]!.height,
];

/** Up to so many copies, so many more orders are tried: each takes little time, and where they differ the film they take does, too. */
const FEW_COPIES = 24;
const MORE_ORDERS = 20;
/** By so much, up and down, a size is taken for larger or smaller than it is. */
const BLUR = 0.4;

/** The orders in which items are laid: the largest first in three senses, and of few copies some more, in which sizes are blurred. */
function ordersOf(candidates: readonly Candidate[]): Candidate[][] {
  const sorted = ORDERS.map((order) => [...candidates].sort(order));
  const random = seededRandom(1);
  const isFew = candidates.reduce((sum, { copies }) => sum + copies.length, 0) <= FEW_COPIES;
  const blurred = Array.from({ length: isFew ? MORE_ORDERS : 0 }, (_, k) => {
    const sizes = new Map(candidates.map((one) => [one, (k % 2 === 0 ? Math.sqrt(one.area) : longest(one)) * (1 - BLUR + 2 * BLUR * random())]));
    return [...candidates].sort((a, b) => sizes.get(b)! - sizes.get(a)!);
  });
  // Each once: of two or three items there are no more than two or six.
  return [...new Map([...sorted, ...blurred].map((order) => [order.map(({ item }) => item.id).join(' '), order])).values()];
}

/** A small seeded generator (mulberry32): core has no random source of its own. */
function seededRandom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
