import type { NoFits } from './no-fit.js';
import { Separation, type Lying, type Room } from './separate.js';
import type { Orientation } from './shape.js';

/** How much shorter the room is made to begin with, and at least, as shares of its length. */
const SHORTER = 0.02;
const LEAST_SHORTER = 0.001;
/** A room is given up when so many rounds have made nothing better, once so often from where the search stands and once more after it was shaken. */
const ROUNDS = 60;
const SHAKES = 3;

/** What the caller of a search lends it: whether it may go on, asked again and again, and an ear for what is better than all before. */
export interface SearchHooks<Found> {
  readonly mayGoOn: () => Promise<boolean>;
  readonly onBetter: (found: Found) => void;
}

export interface Compressed {
  readonly layout: readonly Lying[];
  readonly lengthMm: number;
}

/**
 * A layout in less length: the room is made shorter, what sticks out pushed in, and the groups drawn apart until nothing overlaps; then it is made shorter again. Goes on as long as `mayGoOn`, which is
 * asked once a round; what it gives is always a layout in which nothing overlaps. The same for the same layout, random numbers and count of rounds.
 */
export async function compress(
  turns: readonly (readonly Orientation[])[],
  room: Omit<Room, 'lengthMm'>,
  from: Compressed,
  noFits: NoFits,
  random: () => number,
  { mayGoOn, onBetter }: SearchHooks<Compressed>,
): Promise<Compressed> {
  const separation = new Separation(turns, { ...room, lengthMm: from.lengthMm }, noFits, random);
  let best = from;
  let shorter = SHORTER;
  while (turns.length > 0) {
    const lengthMm = best.lengthMm * (1 - shorter);
    if (!separation.holds(lengthMm)) {
      if (shorter <= LEAST_SHORTER) return best;
      shorter = Math.max(LEAST_SHORTER, shorter / 2);
      continue;
    }
    separation.begin(best.layout, lengthMm);
    let found = false;
    for (let shake = 0; shake < SHAKES && !found; shake += 1) {
      if (shake > 0) shakeUp(separation, turns, random);
      let [least, since] = [Infinity, 0];
      while (since < ROUNDS) {
        if (!(await mayGoOn())) return best;
        const depth = separation.round();
        if (depth === 0) {
          found = true;
          break;
        }
        since += 1;
        if (depth < least * 0.98) [least, since] = [depth, 0];
      }
    }
    if (found) {
      const { layout } = separation;
      best = { layout, lengthMm: Math.max(...layout.map(({ orientation, y }) => y + orientation.height)) };
      onBetter(best);
    }
    shorter = found ? Math.min(SHORTER, shorter * 1.2) : Math.max(LEAST_SHORTER, shorter * 0.6);
  }
  return best;
}

/** Two of the larger groups change places. */
function shakeUp(separation: Separation, turns: readonly (readonly Orientation[])[], random: () => number): void {
  const bySize = turns.map(([first], i) => ({ i, size: first!.width * first!.height })).sort((a, b) => b.size - a.size);
  const large = bySize.slice(0, Math.max(2, Math.ceil(bySize.length / 2)));
  const [a, b] = [large[Math.floor(random() * large.length)]!, bySize[Math.floor(random() * bySize.length)]!];
  if (a.i !== b.i) separation.exchange(a.i, b.i);
}
