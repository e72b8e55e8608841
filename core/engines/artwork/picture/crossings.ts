import { patchesOf } from './labels.js';
import type { Pixels } from './pixels.js';

/** Two lines of three pixels that cross at a sharp angle share at most this many flat pixels. */
const MOST_PIXELS = 24;

/**
 * The flat pixels of a picture without those where thin lines cross. Nothing is mixed at a crossing, and still it is no area. A patch counts as a crossing where it
 * has few pixels and nowhere a block of three by three. `labelAt` is the number of a pixel's colour.
 */
export function withoutCrossings(
  { width, height }: Pick<Pixels, 'width' | 'height'>,
  flat: Uint8Array,
  labelAt: (p: number) => number,
): Uint8Array {
  const of = Uint8Array.from(flat, (isFlat, p) => (isFlat ? labelAt(p) + 1 : 0));
  const patches = patchesOf({ width, height, of });
  const isThick = new Uint8Array(patches.area.length);
  for (let y = 1; y < height - 1; y += 1)
    for (let x = 1; x < width - 1; x += 1)
      if (isThickAt(y * width + x, width, patches.of)) isThick[patches.of[y * width + x]!] = 1;
  return flat.map((isFlat, p) => {
    const patch = patches.of[p]!;
    return isFlat && (isThick[patch] || patches.area[patch]! > MOST_PIXELS) ? 1 : 0;
  });
}

/** Whether a pixel and all eight round it are of one patch. */
function isThickAt(p: number, width: number, patch: Int32Array): boolean {
  for (let v = -width; v <= width; v += width)
    for (let u = -1; u <= 1; u += 1) if (patch[p + v + u] !== patch[p]) return false;
  return true;
}
