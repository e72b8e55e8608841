import { transformRing, translation, type Ring } from '../../geometry/index.js';

/** What marks look like. A notched bar has no mirror symmetry: with it a set can be turned neither round nor over, not even about its own line. */
export const PLAIN_SHAPES = ['diamond', 'square', 'bar', 'cross', 'ring'] as const;
export type PlainShape = (typeof PLAIN_SHAPES)[number];
export type MarkShape = PlainShape | 'notched bar';

/** A round mark is drawn by so many corners. */
const ROUND = 24;
/** Bars are this much as high as they are long; arms of a cross this much as wide. */
const SLIM = 0.5;
const ARM = 1 / 3;
/** A notch takes so much of a bar's length off one corner, and so much of its height. */
const NOTCH = { along: 0.3, down: 0.5 };

/** The outline of a mark about a middle, `sizeMm` across; `lengthMm` for a bar that is longer than it is usual. */
export function markRing(shape: MarkShape, xMm: number, yMm: number, sizeMm: number, lengthMm = sizeMm): Ring {
  const [r, l, h] = [sizeMm / 2, lengthMm / 2, (sizeMm * SLIM) / 2];
  const at = (points: readonly number[]) => transformRing(Float64Array.from(points), translation(xMm, yMm));
  switch (shape) {
    case 'diamond':
      return at([0, -r, r, 0, 0, r, -r, 0]);
    case 'square':
      return at([-r, -r, r, -r, r, r, -r, r]);
    case 'bar':
      return at([-l, -h, l, -h, l, h, -l, h]);
    case 'cross': {
      const a = r * ARM;
      return at([-a, -r, a, -r, a, -a, r, -a, r, a, a, a, a, r, -a, r, -a, a, -r, a, -r, -a, -a, -a]);
    }
    case 'ring':
      return at(
        Array.from({ length: 2 * ROUND }, (_, i) =>
          i % 2 === 0 ? r * Math.cos((Math.PI * i) / ROUND) : r * Math.sin((Math.PI * (i - 1)) / ROUND),
        ),
      );
    case 'notched bar': {
      const [notch, down] = [Math.min(2 * l * NOTCH.along, 3 * sizeMm), 2 * h * NOTCH.down];
      return at([-l, -h, l - notch, -h, l - notch, -h + down, l, -h + down, l, h, -l, h]);
    }
  }
}
