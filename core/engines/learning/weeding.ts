import { inverse, Matrix, solve } from 'ml-matrix';
import { unitsOf, WEEDING_FIGURES, type WeedingFigures, type WeedingWork } from '../weeding/index.js';

/** Weeding that was done, and how long it took. */
export interface LoggedWeeding extends WeedingWork {
  readonly minutes: number;
}

/** How far a hand may be from the starting figures, as shares of them: as a whole, and in one figure by itself (standard deviations). */
const SPREAD = { whole: 0.5, each: 0.35 };
/** The same, seconds, of a figure that starts at nothing. */
const FROM_NOTHING_S = 4;
/** How far times scatter about what a hand usually takes, as a share of them. */
const NOISE = 0.18;
/** A log further off than this many standard deviations counts less, and the less the further it is (Huber's weights). */
const ODD = 1.8;
/** Weights settle long before. */
const ROUNDS = 12;

const KEYS = Object.keys(WEEDING_FIGURES) as (keyof WeedingFigures)[];

/**
 * The figures of a shop, from its log: ridge regression towards the starting figures. Hands are faster or slower as a whole more often than in one thing, so the
 * ridge lets all figures move together more easily than each alone; logs scatter in proportion to their length, and odd ones count little. Without a log the
 * starting figures. No figure comes out below nothing.
 */
export function learnWeeding(log: readonly LoggedWeeding[]): WeedingFigures {
  const usable = log.filter(({ minutes }) => minutes > 0);
  if (usable.length === 0) return WEEDING_FIGURES;
  const start = KEYS.map((key) => WEEDING_FIGURES[key]);
  const spread = Matrix.zeros(KEYS.length, KEYS.length);
  start.forEach((a, i) =>
    start.forEach((b, k) =>
      spread.set(
        i,
        k,
        a * b * SPREAD.whole ** 2 + (i === k ? (a === 0 ? FROM_NOTHING_S ** 2 : (a * SPREAD.each) ** 2) : 0),
      ),
    ),
  );
  const held = inverse(spread);
  const units = usable.map((work) => KEYS.map((key) => unitsOf(work)[key]));
  let figures = start;
  for (let round = 0; round < ROUNDS; round += 1) {
    const left = held.clone();
    const right = held.mmul(Matrix.columnVector(start));
    usable.forEach(({ minutes }, n) => {
      const expected = Math.max(
        1,
        units[n]!.reduce((sum, unit, i) => sum + unit * figures[i]!, 0),
      );
      const deviation = Math.abs(minutes * 60 - expected) / (NOISE * expected);
      const weight = Math.min(1, ODD / Math.max(deviation, 1e-9)) / (NOISE * expected) ** 2;
      units[n]!.forEach((a, i) => {
        right.set(i, 0, right.get(i, 0) + weight * a * minutes * 60);
        units[n]!.forEach((b, k) => left.set(i, k, left.get(i, k) + weight * a * b));
      });
    });
    figures = solve(left, right)
      .to1DArray()
      .map((figure) => Math.max(0, figure));
  }
  return Object.fromEntries(KEYS.map((key, i) => [key, figures[i]!])) as unknown as WeedingFigures;
}
