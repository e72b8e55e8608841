import type { Rings } from '../../geometry/index.js';

/**
 * How much artwork an upright line crosses, for every place of the line: the length of the line inside each area, summed over the areas. Between two places
 * where outlines have corners it runs straight, and it jumps where an outline runs upright. Areas must be kernel-clean, each by itself.
 */
export class CrossedLength {
  /** Where outlines have corners, from left to right, each once. */
  readonly corners: readonly number[];
  /** Between corner i and the next: crossed = slope · (x − middle) + level, with its value in the middle, which cancels no digits. */
  readonly #slopes: Float64Array;
  readonly #levels: Float64Array;

  /** Cost: points times their logarithm. */
  constructor(areas: readonly Rings[]) {
    const edges: {
      readonly from: number;
      readonly to: number;
      readonly slope: number;
      readonly x: number;
      readonly y: number;
      readonly sign: number;
    }[] = [];
    const xs: number[] = [];
    for (const ring of areas.flat()) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [x0, y0, x1, y1] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
        xs.push(x1);
        // Along the lower edge of an area its outline runs one way, along the upper the other: the signed heights add up to what lies between.
        if (x0 !== x1)
          edges.push({
            from: Math.min(x0, x1),
            to: Math.max(x0, x1),
            slope: (y1 - y0) / (x1 - x0),
            x: x0,
            y: y0,
            sign: x1 > x0 ? -1 : 1,
          });
      }
    }
    this.corners = [...new Set(xs)].sort((a, b) => a - b);
    const count = Math.max(0, this.corners.length - 1);
    this.#slopes = new Float64Array(count);
    this.#levels = new Float64Array(count);
    const starts = [...edges].sort((a, b) => a.from - b.from);
    const open = new Set<(typeof edges)[number]>();
    let next = 0;
    for (let i = 0; i < count; i += 1) {
      const [low, high] = [this.corners[i]!, this.corners[i + 1]!];
      while (next < starts.length && starts[next]!.from <= low) open.add(starts[next++]!);
      const middle = (low + high) / 2;
      let [slope, level] = [0, 0];
      for (const edge of open) {
        if (edge.to <= low) {
          open.delete(edge);
          continue;
        }
        slope += edge.sign * edge.slope;
        level += edge.sign * (edge.y + edge.slope * (middle - edge.x));
      }
      this.#slopes[i] = slope;
      this.#levels[i] = level;
    }
  }

  /** What a line at x crosses, mm. Along an upright outline it counts what lies on the side where more does. */
  at(x: number): number {
    const { corners } = this;
    const after = firstAbove(corners, x) - 1;
    const before = corners[after] === x ? after - 1 : after;
    return Math.max(this.#within(before, x), after === before ? 0 : this.#within(after, x));
  }

  #within(i: number, x: number): number {
    if (i < 0 || i >= this.#slopes.length) return 0;
    const middle = (this.corners[i]! + this.corners[i + 1]!) / 2;
    return Math.max(0, this.#levels[i]! + this.#slopes[i]! * (x - middle));
  }
}

/** The index of the first of some numbers, in ascending order, that is above a limit; their count when none is. */
export function firstAbove(numbers: ArrayLike<number>, limit: number): number {
  let [low, high] = [0, numbers.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (numbers[middle]! > limit) high = middle;
    else low = middle + 1;
  }
  return low;
}
