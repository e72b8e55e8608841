import type { Turn } from './arrange.js';
import { isCheaper, type Tried } from './orders.js';

/** More copies are laid in the order they have: each step lays all of them anew. */
const MOST_COPIES = 60;
/** The search ends when so many steps in a row have found nothing cheaper than all before. */
const PATIENCE = 100;
/** An order is gone on from when it is no dearer than the one so many steps ago, which leads out of dead ends (late acceptance: Burke and Bykov). */
const LATE = 5;

interface OrderSearch {
  readonly tryOrder: (order: readonly Turn[]) => Promise<Tried>;
  readonly random: () => number;
  /** Counts a step; false when no further one may be made. */
  readonly step: () => Promise<boolean>;
  /** Told of every order that is cheaper than all before. */
  readonly onBetter: (found: Tried) => void;
}

/** An order of copies that costs less, found by moving, exchanging and turning single ones; the same for the same order, random numbers and count of steps. */
export async function betterOrder(from: Tried, { tryOrder, random, step, onBetter }: OrderSearch): Promise<Tried> {
  // What is pinned down to its last copy stays in the order with none: it is known there.
  const order = from.order.flatMap((turn) =>
    turn.count === 0 ? [turn] : Array.from({ length: turn.count }, (): Turn => ({ ...turn, count: 1 })),
  );
  if (order.length === 0 || order.length > MOST_COPIES) return from;
  let best = from;
  let current: Pick<Tried, 'order' | 'cost'> = { order, cost: from.cost };
  const late = Array.from({ length: LATE }, () => from.cost);
  for (let k = 0, idle = 0; idle < PATIENCE && (await step()); k = (k + 1) % LATE, idle += 1) {
    const tried = await tryOrder(changed(current.order, random));
    if (tried.lostMm2 <= best.lostMm2 + 1e-6 && (tried.cost <= current.cost || tried.cost < late[k]!)) current = tried;
    late[k] = current.cost;
    if (isCheaper(tried, best)) {
      best = tried;
      idle = -1;
      onBetter(best);
    }
  }
  return best;
}

/** One copy moved to another place in the order, two exchanged, or one in another orientation or at another edge. */
function changed(order: readonly Turn[], random: () => number): Turn[] {
  const anywhere = (length: number) => Math.floor(random() * length);
  const [at, other, dice] = [anywhere(order.length), anywhere(order.length), random()];
  const one = order[at]!;
  if (dice < 0.3) return order.toSpliced(at, 1).toSpliced(other, 0, one);
  if (dice < 0.6) return order.with(at, order[other]!).with(other, one);
  const { orientations } = one.candidate;
  return order.with(at, {
    ...one,
    orientations: random() < 0.3 ? orientations : [orientations[anywhere(orientations.length)]!],
    isAside: random() < 0.5,
  });
}
