import { containsPoint, squareToEdge, type Rings } from '../geometry/index.js';

/** By its own means: how near two sets of outlines come to each other; 0 where they cross or one lies in the other. */
export function gapBetween(a: Rings, b: Rings): number {
  if (containsPoint(b, a[0]![0]!, a[0]![1]!) || containsPoint(a, b[0]![0]!, b[0]![1]!)) return 0;
  return Math.min(...a.flatMap((ring) => b.map((other) => gapToEdges(ring, other))));
}

/** The least distance between the edges of two outlines or lines, wherever they lie to each other. */
export function gapToEdges(a: Rings[number], b: Rings[number]): number {
  const edges = (ring: Rings[number]) =>
    Array.from(
      { length: ring.length / 2 },
      (_, i) =>
        [ring[2 * i]!, ring[2 * i + 1]!, ring[(2 * i + 2) % ring.length]!, ring[(2 * i + 3) % ring.length]!] as const,
    );
  const [p, q] = [edges(a), edges(b)];
  let square = Infinity;
  for (const e of p)
    for (const f of q) square = Math.min(square, squareToEdge(e[0], e[1], ...f), squareToEdge(f[0], f[1], ...e));
  return Math.sqrt(square);
}
