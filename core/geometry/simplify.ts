import type { Ring } from './rings.js';

/**
 * The ring with fewer points, none of the dropped ones further than `toleranceMm` from the new outline (Douglas and Peucker).
 * The two points furthest apart along the ring are always kept. Rings of up to four points come back as they are.
 */
export function simplifyRing(ring: Ring, toleranceMm: number): Ring {
  const n = ring.length / 2;
  if (n <= 4) return ring;
  let far = 0;
  let farthest = -1;
  for (let i = 1; i < n; i += 1) {
    const d = Math.hypot(ring[2 * i]! - ring[0]!, ring[2 * i + 1]! - ring[1]!);
    if (d > farthest) [far, farthest] = [i, d];
  }
  const keep = new Uint8Array(n + 1);
  keep[0] = keep[far] = keep[n] = 1;
  keepBent(ring, keep, toleranceMm, [
    [0, far],
    [far, n],
  ]);
  const out: number[] = [];
  for (let i = 0; i < n; i += 1) if (keep[i]) out.push(ring[2 * i]!, ring[2 * i + 1]!);
  return Float64Array.from(out);
}

/** The same of a line that is open: x, y, x, y, …. Its ends are always kept. */
export function simplifyLine(line: Float64Array, toleranceMm: number): Float64Array {
  const n = line.length / 2;
  if (n <= 2) return line;
  const keep = new Uint8Array(n);
  keep[0] = keep[n - 1] = 1;
  keepBent(line, keep, toleranceMm, [[0, n - 1]]);
  return line.filter((_, i) => keep[Math.floor(i / 2)] === 1);
}

/** Marks the points to keep between the ends of some spans, which are kept. */
function keepBent(points: Ring, keep: Uint8Array, toleranceMm: number, spans: [number, number][]): void {
  const n = points.length / 2;
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    let worst = toleranceMm;
    let at = -1;
    for (let i = from + 1; i < to; i += 1) {
      const d = distanceToSegment(points, i, from, to % n);
      if (d > worst) [worst, at] = [d, i];
    }
    if (at >= 0) {
      keep[at] = 1;
      spans.push([from, at], [at, to]);
    }
  }
}

function distanceToSegment(ring: Ring, p: number, a: number, b: number): number {
  const [ax, ay] = [ring[2 * a]!, ring[2 * a + 1]!];
  const [dx, dy] = [ring[2 * b]! - ax, ring[2 * b + 1]! - ay];
  const [px, py] = [ring[2 * p]! - ax, ring[2 * p + 1]! - ay];
  const t = Math.min(1, Math.max(0, (px * dx + py * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(px - t * dx, py - t * dy);
}
