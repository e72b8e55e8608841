import type { Ring } from '../../geometry/index.js';

/**
 * A line that is not closed (x, y, x, y, …; at least two points) as a ring that goes there and back, so that it lies among the outlines of a sheet like any of
 * them. It encloses nothing, and is cut once.
 */
export function thereAndBack(line: readonly number[]): Ring {
  const count = line.length / 2;
  return Float64Array.from({ length: 2 * Math.max(2, 2 * count - 2) }, (_, o) => {
    const i = Math.floor(o / 2);
    return line[2 * (i < count ? i : 2 * count - 2 - i) + (o % 2)]!;
  });
}

/** The line of a ring that goes there and back, wherever it begins and whichever way it runs; null for an outline. */
export function lineOf(ring: Ring): Float64Array | null {
  const count = ring.length / 2;
  if (count < 2 || count % 2 !== 0) return null;
  for (const end of [0, count - 1]) {
    const at = (i: number) => 2 * ((end + i + count) % count);
    let isLine = true;
    for (let i = 1; i < count / 2 && isLine; i += 1)
      isLine = ring[at(i)] === ring[at(-i)] && ring[at(i) + 1] === ring[at(-i) + 1];
    if (isLine) return Float64Array.from({ length: count + 2 }, (_, o) => ring[at(Math.floor(o / 2)) + (o % 2)]!);
  }
  return null;
}

/** Whether a ring among those of a sheet goes round something, and is no line that goes there and back. */
export function isOutline(ring: Ring): boolean {
  return lineOf(ring) === null;
}
