import type { Box } from '../../../geometry/index.js';
import { boxesOfPatches } from '../picture/labels.js';
import type { Pixels } from '../picture/pixels.js';

/** How the second of two pictures differs from the first: it lacks something, has more, or has another colour. */
export type Difference = 'missing' | 'extra' | 'colour';

/** A connected place where two pictures differ in one way; its box in pixels, the far sides of the last ones included. */
export interface DifferingPlace {
  readonly difference: Difference;
  readonly box: Box;
}

/** In the order of their labels, which count from 1: label 0 is where nothing differs. */
const DIFFERENCES: readonly Difference[] = ['missing', 'extra', 'colour'];

/** Alpha from which something is there, and up to which nothing is: between them lie edges, and what is see-through. */
const THERE = 128;
const NOTHING = 24;
/** Channels may differ by so much: gradients are cut in bands. */
const SAME_COLOUR = 72;
/** What differs on fewer pixels is an edge that was rounded in two ways. */
const LEAST_PIXELS = 4;

/**
 * The places where two pictures of one size differ. A pixel differs only when it is unlike all nine of the other picture round it, so that edges
 * may lie a pixel apart; the outermost pixels are not looked at.
 */
export function differingPlaces(drawn: Pixels, remade: Pixels): DifferingPlace[] {
  const { width, height } = drawn;
  const labels = new Uint8Array(width * height);
  const whole = ({ data }: Pixels) => new Uint32Array(data.buffer, data.byteOffset, width * height);
  const [a, b] = [whole(drawn), whole(remade)];
  for (let y = 1; y < height - 1; y += 1) {
    for (let p = y * width + 1; p < (y + 1) * width - 1; p += 1)
      if (a[p] !== b[p]) labels[p] = labelAt(drawn.data, remade.data, p, width);
  }
  return boxesOfPatches({ width, height, of: labels }, LEAST_PIXELS).map(({ label, box }) => ({
    difference: DIFFERENCES[label - 1]!,
    box,
  }));
}

/** Counted from 1; 0 where nothing differs. */
function labelAt(drawn: Uint8ClampedArray, remade: Uint8ClampedArray, p: number, width: number): number {
  const at = 4 * p;
  const [isDrawn, isRemade] = [drawn[at + 3]! >= THERE, remade[at + 3]! >= THERE];
  if (isDrawn && everyRound(p, width, (i) => remade[i + 3]! <= NOTHING)) return 1;
  if (isRemade && everyRound(p, width, (i) => drawn[i + 3]! <= NOTHING)) return 2;
  if (!isDrawn || !isRemade) return 0;
  const isUnlike = (from: Uint8ClampedArray, to: Uint8ClampedArray) =>
    everyRound(
      p,
      width,
      (i) =>
        Math.max(
          Math.abs(from[at]! - to[i]!),
          Math.abs(from[at + 1]! - to[i + 1]!),
          Math.abs(from[at + 2]! - to[i + 2]!),
        ) > SAME_COLOUR,
    );
  return isUnlike(drawn, remade) && isUnlike(remade, drawn) ? 3 : 0;
}

/** Whether something holds of a pixel and of all eight round it, told by where their bytes begin. */
function everyRound(p: number, width: number, holds: (i: number) => boolean): boolean {
  for (let row = p - width; row <= p + width; row += width) {
    for (let q = row - 1; q <= row + 1; q += 1) if (!holds(4 * q)) return false;
  }
  return true;
}
