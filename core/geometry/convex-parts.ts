import earcut from 'earcut';
import { reversed, signedArea, type Ring } from './rings.js';

/** Corners that turn back by no more than this share of the product of their sides are straight. */
const STRAIGHT = 1e-9;

/**
 * A simple outline in convex parts that share edges: its triangles, put together wherever the two of them are convex together (Hertel and Mehlhorn: at most four times as many parts as the fewest
 * there are). All of positive area. A convex outline comes back by itself; one without area gives none.
 */
export function convexParts(ring: Ring): Ring[] {
  if (Math.abs(signedArea(ring)) < 1e-12) return [];
  const own = signedArea(ring) > 0 ? ring : reversed(ring);
  const all = cornersOf(own);
  if (isConvex(own, all)) return [own];
  const flat = earcut(own);
  const parts: (number[] | null)[] = [];
  /** Each directed edge between two corners, and the part whose edge it is. */
  const owner = new Map<number, number>();
  const key = (a: number, b: number) => a * all.length + b;
  for (let t = 0; t < flat.length; t += 3) {
    const corners = [flat[t]!, flat[t + 1]!, flat[t + 2]!];
    if (turn(own, corners[0]!, corners[1]!, corners[2]!) < 0) corners.reverse();
    corners.forEach((corner, i) => owner.set(key(corner, corners[(i + 1) % 3]!), parts.length));
    parts.push(corners);
  }
  for (const edge of [...owner.keys()]) {
    const [a, b] = [Math.floor(edge / all.length), edge % all.length];
    const other = owner.get(key(b, a));
    if (a > b || other === undefined) continue;
    const [one, two] = [owner.get(edge)!, other];
    if (one === two) continue;
    const joined = join(parts[one]!, parts[two]!, a, b);
    if (!isConvex(own, joined)) continue;
    parts[one] = joined;
    parts[two] = null;
    owner.delete(edge);
    owner.delete(key(b, a));
    joined.forEach((corner, i) => owner.set(key(corner, joined[(i + 1) % joined.length]!), one));
  }
  return parts
    .filter((part) => part !== null)
    .map((part) => Float64Array.from(part.flatMap((corner) => [own[2 * corner]!, own[2 * corner + 1]!])));
}

/** Whether an outline of positive area is convex; straight corners are. */
export function isConvexRing(ring: Ring): boolean {
  return isConvex(ring, cornersOf(ring));
}

function cornersOf(ring: Ring): number[] {
  return Array.from({ length: ring.length / 2 }, (_, i) => i);
}

/** Two parts that share the edge from a to b, as one: `one` has it in this direction, `two` the other way round. */
function join(one: readonly number[], two: readonly number[], a: number, b: number): number[] {
  const from = (part: readonly number[], first: number) => [
    ...part.slice(part.indexOf(first)),
    ...part.slice(0, part.indexOf(first)),
  ];
  // From b all round to a, then from a all round to b in the other, without naming both twice.
  return [...from(one, b), ...from(two, a).slice(1, -1)];
}

function isConvex(ring: Ring, corners: readonly number[]): boolean {
  return corners.every(
    (corner, i) =>
      turn(ring, corners.at(i - 1)!, corner, corners[(i + 1) % corners.length]!) >=
      -STRAIGHT * sides(ring, corners.at(i - 1)!, corner, corners[(i + 1) % corners.length]!),
  );
}

function turn(ring: Ring, a: number, b: number, c: number): number {
  return (
    (ring[2 * b]! - ring[2 * a]!) * (ring[2 * c + 1]! - ring[2 * b + 1]!) -
    (ring[2 * b + 1]! - ring[2 * a + 1]!) * (ring[2 * c]! - ring[2 * b]!)
  );
}

function sides(ring: Ring, a: number, b: number, c: number): number {
  return (
    Math.hypot(ring[2 * b]! - ring[2 * a]!, ring[2 * b + 1]! - ring[2 * a + 1]!) *
    Math.hypot(ring[2 * c]! - ring[2 * b]!, ring[2 * c + 1]! - ring[2 * b + 1]!)
  );
}

/** All sums of a point of one convex outline and a point of another, both of positive area: their edges in the order of their directions. */
export function convexSum(a: Ring, b: Ring): Ring {
  const [i0, j0] = [lowest(a), lowest(b)];
  const [n, m] = [a.length / 2, b.length / 2];
  const out: number[] = [];
  for (let i = 0, j = 0; i < n || j < m;) {
    const [ai, bj] = [(i0 + i) % n, (j0 + j) % m];
    out.push(a[2 * ai]! + b[2 * bj]!, a[2 * ai + 1]! + b[2 * bj + 1]!);
    const [an, bn] = [(ai + 1) % n, (bj + 1) % m];
    const cross =
      (a[2 * an]! - a[2 * ai]!) * (b[2 * bn + 1]! - b[2 * bj + 1]!) -
      (a[2 * an + 1]! - a[2 * ai + 1]!) * (b[2 * bn]! - b[2 * bj]!);
    if (j >= m || (i < n && cross > 0)) i += 1;
    else if (i >= n || cross < 0) j += 1;
    else [i, j] = [i + 1, j + 1];
  }
  return Float64Array.from(out);
}

/** The lowest corner, of several the leftmost. */
function lowest(ring: Ring): number {
  let at = 0;
  for (let i = 1; i < ring.length / 2; i += 1)
    if (ring[2 * i + 1]! < ring[2 * at + 1]! || (ring[2 * i + 1] === ring[2 * at + 1] && ring[2 * i]! < ring[2 * at]!))
      at = i;
  return at;
}
