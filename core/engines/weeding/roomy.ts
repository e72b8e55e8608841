import Delaunator from 'delaunator';
import { squareToEdge, type Edges, type Rings } from '../../geometry/index.js';

/** A circle that fits between outlines: no outline comes nearer to its middle than `radiusMm`. */
export interface Roomy {
  readonly xMm: number;
  readonly yMm: number;
  readonly radiusMm: number;
}

/** Points on outlines, x, y, x, y, …: all corners, and on long edges so many that none is further than `stepMm` from the next. */
export function pointsAlong(rings: Rings, lines: readonly (readonly number[])[], stepMm: number): Float64Array {
  const points: number[] = [];
  const edge = (x0: number, y0: number, x1: number, y1: number) => {
    const steps = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / stepMm));
    for (let k = 0; k < steps; k += 1) points.push(x0 + ((x1 - x0) * k) / steps, y0 + ((y1 - y0) * k) / steps);
  };
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      edge(ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!);
  for (const line of lines) {
    for (let i = 2; i < line.length; i += 2) edge(line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!);
    points.push(line.at(-2)!, line.at(-1)!);
  }
  return Float64Array.from(points);
}

/**
 * The largest circles between points: those round the triangles of their Delaunay triangulation, whose middles are the corners of the points' medial axis.
 * Only circles of more than `overMm` radius. For points `stepMm` apart on edges a circle of radius r reaches over an edge by at most stepMm² / 8r.
 *
 * @see delaunator
 */
export function roomyCircles(points: Float64Array, overMm: number): Roomy[] {
  const { triangles } = new Delaunator(points);
  const circles: Roomy[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [2 * triangles[t]!, 2 * triangles[t + 1]!, 2 * triangles[t + 2]!];
    const [ax, ay] = [points[a]!, points[a + 1]!];
    const [dx, dy, ex, ey] = [points[b]! - ax, points[b + 1]! - ay, points[c]! - ax, points[c + 1]! - ay];
    const twice = 2 * (dx * ey - dy * ex);
    if (twice === 0) continue;
    const [d, e] = [dx * dx + dy * dy, ex * ex + ey * ey];
    const [x, y] = [(ey * d - dy * e) / twice, (dx * e - ex * d) / twice];
    const radiusMm = Math.hypot(x, y);
    if (radiusMm > overMm && Number.isFinite(radiusMm)) circles.push({ xMm: ax + x, yMm: ay + y, radiusMm });
  }
  return circles;
}

/** Circles stop growing when a step this small, mm, does not let them. */
const SETTLED_MM = 0.004;

/** A circle between edges, its middle moved while that lets it grow, in smaller and smaller steps; its radius is exact for where it comes to lie. */
export function settled(edges: Edges, { xMm, yMm, radiusMm }: Roomy, holds: (x: number, y: number) => boolean): Roomy {
  const at = (x: number, y: number): Roomy => ({ xMm: x, yMm: y, radiusMm: toEdges(edges, x, y) });
  let best = at(xMm, yMm);
  for (let step = Math.max(0.05, radiusMm / 20); step > SETTLED_MM;) {
    const better = [
      [step, 0],
      [-step, 0],
      [0, step],
      [0, -step],
    ]
      .map(([dx, dy]) => at(best.xMm + dx!, best.yMm + dy!))
      .reduce((a, b) => (b.radiusMm > a.radiusMm ? b : a));
    if (better.radiusMm > best.radiusMm && holds(better.xMm, better.yMm)) best = better;
    else step /= 2;
  }
  return best;
}

function toEdges(edges: Edges, x: number, y: number): number {
  let least = Infinity;
  for (const [x0, y0, x1, y1] of edges) least = Math.min(least, squareToEdge(x, y, x0, y0, x1, y1));
  return Math.sqrt(least);
}
