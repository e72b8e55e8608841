/*
 * Rectangles in a strip: laid one after the other into the lowest gap of what lies already, the one that fills it best first. Which is taken of those that fill it equally well is given by an order, and
 * the orders are searched.
 */

import type { SearchHooks } from './compress.js';
import { joinedWhole } from './join-rectangles.js';

/** A rectangle that may lie in one of some ways, upright or turned by a quarter, mm. */
export interface StripRectangle {
  readonly ways: readonly { readonly widthMm: number; readonly lengthMm: number }[];
}

/** Where each lies, by its number: the way it is turned, and its lower left corner. */
export interface StripLayout {
  readonly lengthMm: number;
  readonly places: readonly { readonly way: number; readonly xMm: number; readonly yMm: number }[];
}

/** Sides that differ by less are equal. */
const SAME_MM = 1e-6;
/** A change is kept when it is no worse than what was kept so many tries ago. */
const LOOK_BACK = 80;
/** Orders that are tried between two questions whether to go on. */
const TRIES = 50;
/** How much film that is lost below the edge counts beside the length itself. */
const LOST_SHARE = 0.02;

/**
 * A short layout of rectangles in a strip of this width. Those of one whole are joined again; else it begins with the largest first, goes on as long as `mayGoOn`, and gives the shortest. Null when one of them is wider than the strip. The same
 * for the same random numbers and number of questions.
 */
export async function layRectangles(
  rectangles: readonly StripRectangle[],
  widthMm: number,
  random: () => number,
  { mayGoOn, onBetter }: SearchHooks<StripLayout>,
): Promise<StripLayout | null> {
  const n = rectangles.length;
  const fitting = rectangles.map(({ ways }) =>
    ways.flatMap((way, number) => (way.widthMm <= widthMm + SAME_MM ? [{ ...way, number }] : [])),
  );
  if (fitting.some((ways) => ways.length === 0)) return null;
  const whole = joinedWhole(rectangles, widthMm);
  if (whole) {
    onBetter(whole);
    return whole;
  }
  const strip = new Strip(fitting, widthMm);
  const areaOf = (i: number) => fitting[i]![0]!.widthMm * fitting[i]![0]!.lengthMm;
  const longest = (i: number) => Math.max(fitting[i]![0]!.widthMm, fitting[i]![0]!.lengthMm);
  const all = Array.from({ length: n }, (_, i) => i);
  const starts = [
    [...all].sort((a, b) => areaOf(b) - areaOf(a)),
    [...all].sort((a, b) => longest(b) - longest(a)),
    [...all].sort((a, b) => fitting[b]![0]!.widthMm - fitting[a]![0]!.widthMm),
  ];
  let order = starts[0]!;
  let cost = Infinity;
  for (const start of starts) {
    const own = strip.lay(start, Infinity);
    if (own < cost) [order, cost] = [start, own];
  }
  let best = strip.layoutOf(order);
  let bestCost = cost;
  const least = Math.max(
    all.reduce((sum, i) => sum + areaOf(i), 0) / widthMm,
    ...fitting.map((ways) => Math.min(...ways.map(({ lengthMm }) => lengthMm))),
  );
  const before = new Array<number>(LOOK_BACK).fill(cost);
  for (let tries = 0; n > 1 && best.lengthMm > least + SAME_MM; tries += 1) {
    if (tries % TRIES === 0 && !(await mayGoOn())) break;
    const next = [...order];
    const [a, b] = [Math.floor(random() * n), Math.floor(random() * n)];
    if (random() < 0.5) [next[a], next[b]] = [next[b]!, next[a]!];
    else next.splice(b, 0, ...next.splice(a, 1));
    const own = strip.lay(next, Math.max(cost, before[tries % LOOK_BACK]!));
    if (own <= before[tries % LOOK_BACK]! || own <= cost) [order, cost] = [next, own];
    if (cost < before[tries % LOOK_BACK]!) before[tries % LOOK_BACK] = cost;
    if (own >= bestCost - SAME_MM) continue;
    bestCost = own;
    const found = strip.layoutOf(next);
    // Less lost below the edge is a better place to go on from, but only what is shorter is taken.
    if (found.lengthMm >= best.lengthMm - SAME_MM) continue;
    best = found;
    onBetter(best);
  }
  return best;
}

interface Way {
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly number: number;
}

/** The strip as it fills: the upper edge of what lies in it, as steps from left to right. */
class Strip {
  readonly #ways: readonly (readonly Way[])[];
  readonly #areaMm2: number;
  readonly #narrowest: readonly number[];
  readonly #widthMm: number;
  readonly #steps: { x: number; width: number; y: number }[] = [];

  constructor(ways: readonly (readonly Way[])[], widthMm: number) {
    this.#ways = ways;
    this.#widthMm = widthMm;
    this.#narrowest = ways.map((own) => Math.min(...own.map((way) => way.widthMm)));
    this.#areaMm2 = ways.reduce((sum, own) => sum + own[0]!.widthMm * own[0]!.lengthMm, 0);
  }

  /** How long the strip gets, and a little more for what is lost below its edge; Infinity as soon as it is certain to be above the limit. */
  lay(order: readonly number[], limit: number, place?: (i: number, way: number, x: number, y: number) => void): number {
    const steps = this.#steps;
    steps.length = 0;
    steps.push({ x: 0, width: this.#widthMm, y: 0 });
    const left = [...order];
    let lengthMm = 0;
    let lost = 0;
    while (left.length > 0) {
      let at = 0;
      for (let k = 1; k < steps.length; k += 1) if (steps[k]!.y < steps[at]!.y) at = k;
      const gap = steps[at]!;
      const onLeft = at > 0 ? steps[at - 1]!.y - gap.y : Infinity;
      const onRight = at + 1 < steps.length ? steps[at + 1]!.y - gap.y : Infinity;
      let narrowest = Infinity;
      for (let k = 0; k < left.length; k += 1) narrowest = Math.min(narrowest, this.#narrowest[left[k]!]!);
      let [found, foundWay, score] = [-1, 0, -1];
      if (narrowest <= gap.width + SAME_MM) {
        for (let k = 0; k < left.length && score < 5; k += 1) {
          const ways = this.#ways[left[k]!]!;
          for (let w = 0; w < ways.length; w += 1) {
            const way = ways[w]!;
            const beside = gap.width - way.widthMm;
            if (beside < -SAME_MM) continue;
            // What fills the gap across, and ends flush with a neighbour, leaves the fewest steps; a rest that nothing fits is lost.
            const own =
              (beside < SAME_MM ? 3 : beside >= narrowest - SAME_MM ? 1 : 0) +
              (Math.abs(way.lengthMm - onLeft) < SAME_MM ? 1 : 0) +
              (Math.abs(way.lengthMm - onRight) < SAME_MM ? 1 : 0);
            if (own > score) [found, foundWay, score] = [k, w, own];
          }
        }
      }
      if (found < 0) {
        // Nothing fits: the gap is given up, up to its lower neighbour.
        const up = Math.min(onLeft, onRight);
        lost += gap.width * up;
        if ((this.#areaMm2 + lost) / this.#widthMm > limit) return Infinity;
        gap.y += up;
        this.#joinAt(at);
        continue;
      }
      const i = left[found]!;
      left.splice(found, 1);
      const way = this.#ways[i]![foundWay]!;
      const isFlushLeft = Math.abs(way.lengthMm - onLeft) < SAME_MM;
      // Beside the neighbour it is flush with, else beside the higher one.
      const isRight =
        gap.width - way.widthMm > SAME_MM &&
        !isFlushLeft &&
        (Math.abs(way.lengthMm - onRight) < SAME_MM || (onRight !== Infinity && onRight > onLeft));
      const x = isRight ? gap.x + gap.width - way.widthMm : gap.x;
      place?.(i, way.number, x, gap.y);
      const top = gap.y + way.lengthMm;
      if (top > lengthMm) lengthMm = top;
      if (lengthMm > limit) return Infinity;
      if (gap.width - way.widthMm < SAME_MM) gap.y = top;
      else if (isRight) {
        gap.width -= way.widthMm;
        steps.splice(at + 1, 0, { x, width: way.widthMm, y: top });
        at += 1;
      } else {
        steps.splice(at, 0, { x, width: way.widthMm, y: top });
        gap.x += way.widthMm;
        gap.width -= way.widthMm;
      }
      this.#joinAt(at);
    }
    return lengthMm + (LOST_SHARE * lost) / this.#widthMm;
  }

  layoutOf(order: readonly number[]): StripLayout {
    const places: { way: number; xMm: number; yMm: number }[] = new Array(order.length);
    let lengthMm = 0;
    this.lay(order, Infinity, (i, way, xMm, yMm) => {
      places[i] = { way, xMm, yMm };
      lengthMm = Math.max(lengthMm, yMm + this.#ways[i]!.find(({ number }) => number === way)!.lengthMm);
    });
    return { lengthMm, places };
  }

  /** Steps of one height beside each other are one. */
  #joinAt(at: number): void {
    const steps = this.#steps;
    const [left, own, right] = [steps[at - 1], steps[at]!, steps[at + 1]];
    if (right && Math.abs(right.y - own.y) < SAME_MM) {
      own.width += right.width;
      steps.splice(at + 1, 1);
    }
    if (left && Math.abs(left.y - own.y) < SAME_MM) {
      left.width += own.width;
      steps.splice(at, 1);
    }
  }
}
