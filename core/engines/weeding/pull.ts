import type { Strip } from './strips.js';

/** How a strip is pulled: from which corner, and which way. */
export interface Pull {
  /** Where it is lifted, and where the hand goes, mm. */
  readonly fromX: number;
  readonly fromY: number;
  readonly toX: number;
  readonly toY: number;
}

/** An arrow is so long by how far the strip reaches in its direction, and by how bulky it is at most: it has to stay near its strip. */
const ARROW = { share: 0.3, bulks: 1.2 };

/**
 * The strips in the order in which they are pulled, each with its way: the one nearest to the upper left corner first, then always the one beside it. A strip is lifted
 * at its outermost corner and pulled along the edges of what stays, as most of their length runs: across them thin strokes come up with the waste (trade).
 */
export function pullOrder(strips: readonly Strip[]): { readonly strip: Strip; readonly pull: Pull }[] {
  const left = strips.map((strip) => ({ strip, pull: pullOf(strip) }));
  const ordered: typeof left = [];
  let [x, y] = [
    Math.min(...strips.flatMap(({ region }) => [...region.outer].filter((_, i) => i % 2 === 0))),
    Math.min(...strips.flatMap(({ region }) => [...region.outer].filter((_, i) => i % 2 === 1))),
  ];
  while (left.length > 0) {
    const nearest = left.reduce(
      (best, { pull }, k) =>
        Math.hypot(pull.fromX - x, pull.fromY - y) <
        Math.hypot(left[best]!.pull.fromX - x, left[best]!.pull.fromY - y) - 1e-9
          ? k
          : best,
      0,
    );
    const next = left.splice(nearest, 1)[0]!;
    ordered.push(next);
    [x, y] = [next.pull.fromX, next.pull.fromY];
  }
  return ordered;
}

function pullOf({ region: { outer, holes }, bulkMm }: Strip): Pull {
  // Doubled angles: an edge counts the same whichever way it runs.
  let [c, s] = [0, 0];
  const inner = holes.length > 0 ? holes : [outer];
  for (const ring of inner) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [dx, dy] = [ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!];
      const length = Math.hypot(dx, dy);
      if (length === 0) continue;
      c += (dx * dx - dy * dy) / length;
      s += (2 * dx * dy) / length;
    }
  }
  const angle = Math.atan2(s, c) / 2;
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  // From the corner furthest back, the upper or left one of two.
  const along = (x: number, y: number) => x * ux + y * uy;
  let [low, high] = [0, 0];
  for (let i = 0; i < outer.length; i += 2) {
    if (along(outer[i]!, outer[i + 1]!) < along(outer[low]!, outer[low + 1]!) - 1e-6) low = i;
    if (along(outer[i]!, outer[i + 1]!) > along(outer[high]!, outer[high + 1]!) + 1e-6) high = i;
  }
  const reach = (along(outer[high]!, outer[high + 1]!) - along(outer[low]!, outer[low + 1]!)) * ARROW.share;
  const length = Math.min(reach, Math.max(bulkMm * ARROW.bulks, 1));
  return {
    fromX: outer[low]!,
    fromY: outer[low + 1]!,
    toX: outer[low]! + ux * length,
    toY: outer[low + 1]! + uy * length,
  };
}
