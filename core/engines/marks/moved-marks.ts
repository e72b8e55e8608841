import { containsPoint, edgesOf, translateRings, type Rings } from '../../geometry/index.js';
import type { Mark } from './marks.js';
import { squareBetween } from './place-marks.js';

/** Marks with the first of them where the first place says, and so on; those without a place stay. */
export function movedMarks(
  marks: readonly Mark[],
  places: readonly { readonly xMm: number; readonly yMm: number }[],
): Mark[] {
  return marks.map((mark, i) => {
    const place = places[i];
    return place
      ? { ...mark, ...place, ring: translateRings([mark.ring], place.xMm - mark.xMm, place.yMm - mark.yMm)[0]! }
      : mark;
  });
}

/** How marks that a hand has put somewhere stand. */
export interface MarkFaults {
  /** Those that lie on what is cut. */
  readonly onArtwork: readonly Mark[];
  /** Those that come nearer to it than they should. */
  readonly near: readonly Mark[];
  /** Whether a layer that is turned over or round could look right all the same. */
  readonly areAlike: boolean;
}

/** Two sides of a triangle of marks are told apart when one is longer by this share. */
const UNLIKE = 0.1;
/** Two marks stand on one line across or down when they are off it by less than this share of a mark. */
const LEVEL = 0.5;

/** What is wrong with where marks stand, over the artwork of all layers (kernel-clean rings). */
export function faultsOfMarks(marks: readonly Mark[], artwork: readonly Rings[], gapMm: number): MarkFaults {
  const onArtwork: Mark[] = [];
  const near: Mark[] = [];
  const layers = artwork.map((rings) => ({ rings, edges: edgesOf(rings, []) }));
  for (const mark of marks) {
    const { ring } = mark;
    const reach = layers.map(({ rings, edges }) => {
      const isOn = containsPoint(rings, ring[0]!, ring[1]!) || edges.some(([x, y]) => containsPoint([ring], x, y));
      return isOn ? 0 : edges.reduce((least, edge) => Math.min(least, squareBetween(ring, edge)), Infinity);
    });
    const square = Math.min(...reach);
    if (square === 0) onArtwork.push(mark);
    else if (square < (gapMm * 0.99) ** 2) near.push(mark);
  }
  return { onArtwork, near, areAlike: couldBeTurned(marks) };
}

function couldBeTurned(marks: readonly Mark[]): boolean {
  // What has no mirror symmetry looks wrong from its back.
  if (marks.some(({ shape }) => shape === 'notched bar')) return false;
  const [a, b, c] = marks as readonly [Mark, Mark, Mark?];
  const apart = (p: Mark, q: Mark) => Math.hypot(p.xMm - q.xMm, p.yMm - q.yMm);
  if (c) {
    const sides = [apart(a, b), apart(b, c), apart(c, a)].sort((p, q) => p - q);
    return sides[1]! < sides[0]! * (1 + UNLIKE) || sides[2]! < sides[1]! * (1 + UNLIKE);
  }
  const size =
    Math.sqrt(
      Math.max(
        ...marks.flatMap(({ ring, xMm, yMm }) =>
          Array.from({ length: ring.length / 2 }, (_, i) => (ring[2 * i]! - xMm) ** 2 + (ring[2 * i + 1]! - yMm) ** 2),
        ),
      ),
    ) * 2;
  return Math.min(Math.abs(a.xMm - b.xMm), Math.abs(a.yMm - b.yMm)) < size * LEVEL;
}
