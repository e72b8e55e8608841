import { patchesOf } from './labels.js';
import type { Pixels } from './pixels.js';

/** Where two lines of three pixels cross aslant, so many pixels at most are flat. */
const MOST_PIXELS = 24;

/**
 * The flat pixels of a picture without those where thin lines cross: there nothing is mixed, and yet it is no area. A patch is such a crossing where it has few
 * pixels and nowhere three by three of them. `labelAt` is the colour of a pixel.
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
