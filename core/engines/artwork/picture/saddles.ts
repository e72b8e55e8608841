import type { Labels } from './labels.js';

/** Which two of the four pixels round a corner hold together across it: the upper left and lower right, the upper right and lower left, or none. */
export type Saddle = 'falling' | 'rising' | null;

/** So far round a corner pixels are counted where two labels cross there. */
const AROUND = 3;

/**
 * Tells what holds together at a corner (x, y) of the pixel grid where pixels of one label touch only there: a line one pixel wide that runs aslant is such a
 * row of pixels. Where two labels both touch so, the one of which there is less nearby is the line, and the other what it lies on.
 */
export function saddleFinder({ width, height, of }: Labels): (x: number, y: number) => Saddle {
  const label = (x: number, y: number) => (x < 0 || y < 0 || x >= width || y >= height ? 0 : of[y * width + x]!);
  return (x, y) => {
    const [upperLeft, upperRight, lowerLeft, lowerRight] = [
      label(x - 1, y - 1),
      label(x, y - 1),
      label(x - 1, y),
      label(x, y),
    ];
    const isFalling = upperLeft === lowerRight && upperLeft !== upperRight && upperLeft !== lowerLeft;
    const isRising = upperRight === lowerLeft && upperRight !== upperLeft && upperRight !== lowerRight;
    if (!isFalling || !isRising) return isFalling ? 'falling' : isRising ? 'rising' : null;
    let falling = 0;
    let rising = 0;
    for (let v = y - AROUND; v < y + AROUND; v += 1) {
      for (let u = x - AROUND; u < x + AROUND; u += 1) {
        const one = label(u, v);
        if (one === upperLeft) falling += 1;
        else if (one === upperRight) rising += 1;
      }
    }
    // Of as much of both, what is no bare surface is the line.
    return falling < rising || (falling === rising && upperLeft > upperRight) ? 'falling' : 'rising';
  };
}
