import Flatbush from 'flatbush';
import type { Rings } from './rings.js';

/** Edges of outlines and lines, each x, y, x, y. */
export type Edge = readonly [x: number, y: number, endX: number, endY: number];
export type Edges = readonly Edge[];

/** All edges of outlines, and of lines that are not closed. */
export function edgesOf(rings: Rings, lines: readonly (readonly number[])[]): Edges {
  return [
    ...rings.flatMap((ring) =>
      Array.from({ length: ring.length / 2 }, (_, i) => {
        const j = i === 0 ? ring.length / 2 - 1 : i - 1;
        return [ring[2 * j]!, ring[2 * j + 1]!, ring[2 * i]!, ring[2 * i + 1]!] as const;
      }),
    ),
    ...lines.flatMap((line) =>
      Array.from(
        { length: line.length / 2 - 1 },
        (_, i) => [line[2 * i]!, line[2 * i + 1]!, line[2 * i + 2]!, line[2 * i + 3]!] as const,
      ),
    ),
  ];
}

/** Edges looked up by box: the numbers of those whose own box touches it. At least one edge. */
export function edgeIndex(edges: Edges): Flatbush {
  const index = new Flatbush(edges.length);
  for (const [x, y, endX, endY] of edges)
    index.add(Math.min(x, endX), Math.min(y, endY), Math.max(x, endX), Math.max(y, endY));
  index.finish();
  return index;
}
