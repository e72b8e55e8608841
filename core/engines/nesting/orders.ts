import type { Arrangement, Candidate, Turn } from './arrange.js';
import { seededRandom } from './seeded-random.js';

/** An order with what comes of it: how much of the work found no place, mm², and what the rest costs. */
export interface Tried {
  readonly order: readonly Turn[];
  readonly arrangement: Arrangement;
  readonly lostMm2: number;
  readonly cost: number;
}

/** Whether less is left over, or as little and it costs less. */
export function isCheaper(one: Tried, other: Tried): boolean {
  return Math.abs(one.lostMm2 - other.lostMm2) > 1e-6 ? one.lostMm2 < other.lostMm2 : one.cost < other.cost - 1e-9;
}

const longest = ({ orientations: [first] }: Candidate) => Math.max(first!.width, first!.height);

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

/** The orders in which candidates are laid first: the largest first in three senses, and of few copies some more, in which sizes are blurred. */
export function firstOrders(candidates: readonly Candidate[]): Turn[][] {
  const sorted = ORDERS.map((order) => [...candidates].sort(order));
  const random = seededRandom(1);
  const isFew = candidates.reduce((sum, { copies }) => sum + copies.length, 0) <= FEW_COPIES;
  const blurred = Array.from({ length: isFew ? MORE_ORDERS : 0 }, (_, k) => {
    const sizes = new Map(
      candidates.map((one) => [
        one,
        (k % 2 === 0 ? Math.sqrt(one.area) : longest(one)) * (1 - BLUR + 2 * BLUR * random()),
      ]),
    );
    return [...candidates].sort((a, b) => sizes.get(b)! - sizes.get(a)!);
  });
  // Each once: of two or three items there are no more than two or six.
  const once = new Map([...sorted, ...blurred].map((order) => [order.map(({ item }) => item.id).join(' '), order]));
  return [...once.values()].map((order) =>
    order.map((candidate) => ({
      candidate,
      count: candidate.copies.length,
      orientations: candidate.orientations,
      isAside: false,
    })),
  );
}
