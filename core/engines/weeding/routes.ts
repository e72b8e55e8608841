import earcut from 'earcut';
import Flatbush from 'flatbush';
import FlatQueue from 'flatqueue';
import { backwards, edgeIndex, edgesOf, squareToEdge, type Region, type Rings } from '../../geometry/index.js';

/** Points of an area nearer to its border than this lie on it, mm. */
const ON_BORDER_MM = 1e-3;

/** Shortest ways through an area that keep to it, to where it meets the border. */
export interface Routes {
  /** From the border to a place in the area: x, y, x, y, …; null when there is no way. It bends at corners of the area only. */
  readonly fromBorder: (x: number, y: number) => number[] | null;
}

/**
 * Ways through one piece of an area, over a triangulation of it: the nearest border by the middles of triangles' sides, pulled tight between them. The area is
 * triangulated when the first way is asked for.
 *
 * @see earcut
 */
export function routesIn({ outer, holes }: Region, isOnBorderAt: OnBorder): Routes {
  let mesh: Mesh | null = null;
  return {
    fromBorder(x, y) {
      mesh ??= meshOf([outer, ...holes], isOnBorderAt);
      const start = mesh.at(x, y);
      return start < 0 ? null : pulled(mesh, start, x, y);
    },
  };
}

type Point = readonly [number, number];

interface Mesh {
  readonly points: Float64Array;
  readonly triangles: readonly number[];
  /** Beyond each side of each triangle: another triangle, −1 for nothing, −2 for the border. */
  readonly beyond: Int32Array;
  /** Through which side the shortest way to the border goes. */
  readonly home: Int32Array;
  readonly at: (x: number, y: number) => number;
}

const NOTHING = -1;
const BORDER = -2;

function meshOf(rings: Rings, isOnBorderAt: OnBorder): Mesh {
  const points = new Float64Array(rings.reduce((sum, ring) => sum + ring.length, 0));
  const starts: number[] = [];
  let filled = 0;
  for (const ring of rings) {
    if (filled > 0) starts.push(filled / 2);
    points.set(ring, filled);
    filled += ring.length;
  }
  const triangles = earcut(points, starts);
  const count = points.length / 2;
  const isOnBorder = Array.from({ length: count }, (_, i) => isOnBorderAt(points[2 * i]!, points[2 * i + 1]!));
  const beyond = new Int32Array(triangles.length).fill(NOTHING);
  const open = new Map<number, number>();
  for (let side = 0; side < triangles.length; side += 1) {
    const [a, b] = endsOf(triangles, side);
    const key = Math.min(a, b) * count + Math.max(a, b);
    const other = open.get(key);
    if (other === undefined) open.set(key, side);
    else {
      beyond[side] = Math.floor(other / 3);
      beyond[other] = Math.floor(side / 3);
      open.delete(key);
    }
  }
  for (const side of open.values()) {
    const [a, b] = endsOf(triangles, side);
    if (
      isOnBorder[a] &&
      isOnBorder[b] &&
      isOnBorderAt((points[2 * a]! + points[2 * b]!) / 2, (points[2 * a + 1]! + points[2 * b + 1]!) / 2)
    )
      beyond[side] = BORDER;
  }
  const index = new Flatbush(triangles.length / 3);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [2 * triangles[t]!, 2 * triangles[t + 1]!, 2 * triangles[t + 2]!];
    index.add(
      Math.min(points[a]!, points[b]!, points[c]!),
      Math.min(points[a + 1]!, points[b + 1]!, points[c + 1]!),
      Math.max(points[a]!, points[b]!, points[c]!),
      Math.max(points[a + 1]!, points[b + 1]!, points[c + 1]!),
    );
  }
  index.finish();
  const at = (x: number, y: number) =>
    index.search(x, y, x, y).find((t) => {
      const turns = [0, 1, 2].map((k) => {
        const [a, b] = endsOf(triangles, 3 * t + k);
        return (
          (points[2 * b]! - points[2 * a]!) * (y - points[2 * a + 1]!) -
          (points[2 * b + 1]! - points[2 * a + 1]!) * (x - points[2 * a]!)
        );
      });
      return turns.every((turn) => turn >= 0) || turns.every((turn) => turn <= 0);
    }) ?? -1;
  return { points, triangles, beyond, home: homewards({ points, triangles, beyond }), at };
}

function endsOf(triangles: readonly number[], side: number): [number, number] {
  return [triangles[side]!, triangles[side % 3 === 2 ? side - 2 : side + 1]!];
}

/** Tells whether a point lies on a border. */
export type OnBorder = (x: number, y: number) => boolean;

export function onBorderOf(border: Rings): OnBorder {
  const edges = edgesOf(border, []);
  if (edges.length === 0) return () => false;
  const index = edgeIndex(edges);
  return (x, y) =>
    index
      .search(x - ON_BORDER_MM, y - ON_BORDER_MM, x + ON_BORDER_MM, y + ON_BORDER_MM)
      .some((i) => squareToEdge(x, y, ...edges[i]!) < ON_BORDER_MM ** 2);
}

/** From every triangle the side through which the shortest way to the border goes, by the middles of sides; −1 where there is none. Worked out from the border inwards, once. */
function homewards({ points, triangles, beyond }: Omit<Mesh, 'home' | 'at'>): Int32Array {
  const home = new Int32Array(triangles.length / 3).fill(NOTHING);
  const cost = new Float64Array(home.length).fill(Infinity);
  const middle = new Float64Array(2 * home.length);
  const queue = new FlatQueue<number>();
  const sideMiddle = (side: number): [number, number] => {
    const [a, b] = endsOf(triangles, side);
    return [(points[2 * a]! + points[2 * b]!) / 2, (points[2 * a + 1]! + points[2 * b + 1]!) / 2];
  };
  const reach = (t: number, side: number, from: readonly [number, number], total: number) => {
    if (total >= cost[t]!) return;
    cost[t] = total;
    home[t] = side;
    [middle[2 * t], middle[2 * t + 1]] = from;
    queue.push(t, total);
  };
  for (let side = 0; side < beyond.length; side += 1)
    if (beyond[side] === BORDER) reach(Math.floor(side / 3), side, sideMiddle(side), 0);
  while (queue.length > 0) {
    const spent = queue.peekValue()!;
    const t = queue.pop()!;
    if (spent > cost[t]!) continue;
    for (let k = 0; k < 3; k += 1) {
      const to = beyond[3 * t + k]!;
      if (to < 0) continue;
      const [x, y] = sideMiddle(3 * t + k);
      // The way home leaves the triangle beyond by the side that the two share.
      const shared = [0, 1, 2].map((other) => 3 * to + other).find((other) => beyond[other] === t)!;
      reach(to, shared, [x, y], spent + Math.hypot(x - middle[2 * t]!, y - middle[2 * t + 1]!));
    }
  }
  return home;
}

/** The way from the border to a place in a triangle, pulled tight. */
function pulled({ points, triangles, beyond, home }: Mesh, start: number, x: number, y: number): number[] | null {
  const sides: number[] = [];
  for (let t = start; ; t = beyond[sides.at(-1)!]!) {
    if (home[t]! < 0) return null;
    sides.push(home[t]!);
    if (beyond[home[t]!] === BORDER) break;
  }
  const doors = sides.map((side) => endsOf(triangles, side));
  const [lastA, lastB] = doors.at(-2) ?? [];
  const before: Point =
    lastA === undefined || lastB === undefined
      ? [x, y]
      : [(points[2 * lastA]! + points[2 * lastB]!) / 2, (points[2 * lastA + 1]! + points[2 * lastB + 1]!) / 2];
  const goal = nearestOn(points, doors.at(-1)!, ...before);
  return backwards(
    tight(
      [x, y],
      doors.slice(0, -1).map(([a, b]) => [points[2 * a]!, points[2 * a + 1]!, points[2 * b]!, points[2 * b + 1]!]),
      goal,
    ),
  );
}

function nearestOn(points: Float64Array, [a, b]: readonly [number, number], x: number, y: number): [number, number] {
  const [ax, ay, dx, dy] = [
    points[2 * a]!,
    points[2 * a + 1]!,
    points[2 * b]! - points[2 * a]!,
    points[2 * b + 1]! - points[2 * a + 1]!,
  ];
  const square = dx * dx + dy * dy;
  const share = square === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / square));
  return [ax + share * dx, ay + share * dy];
}

/** A line from a place through doors (left x, y, right x, y in walking direction) to a goal, as short as the doors allow: a funnel that is narrowed door by door. */
function tight(from: Point, doors: readonly (readonly number[])[], goal: Point): number[] {
  const gates = [
    ...doors.map(([ax, ay, bx, by]) => ({ l: [ax!, ay!] as Point, r: [bx!, by!] as Point })),
    { l: goal, r: goal },
  ];
  const turn = (a: Point, b: Point, c: Point) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  const same = (a: Point, b: Point) => Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]) < 1e-9;
  const line: number[] = [...from];
  let apex = from;
  // Which end of a side is on which hand hangs on how triangles run round; the first door tells.
  const isTurned = turn(from, gates[0]!.l, gates[0]!.r) < 0;
  const sided = (i: number) => (isTurned ? { l: gates[i]!.r, r: gates[i]!.l } : gates[i]!);
  let { l: left, r: right } = sided(0);
  let [leftAt, rightAt] = [0, 0];
  for (let i = 1; i < gates.length; i += 1) {
    const { l, r } = sided(i);
    if (turn(apex, right, r) <= 0) {
      if (same(apex, right) || turn(apex, left, r) > 0) [right, rightAt] = [r, i];
      else {
        line.push(...left);
        apex = left;
        i = leftAt;
        [left, right, leftAt, rightAt] = [apex, apex, i, i];
        continue;
      }
    }
    if (turn(apex, left, l) >= 0) {
      if (same(apex, left) || turn(apex, right, l) < 0) [left, leftAt] = [l, i];
      else {
        line.push(...right);
        apex = right;
        i = rightAt;
        [left, right, leftAt, rightAt] = [apex, apex, i, i];
        continue;
      }
    }
  }
  line.push(...goal);
  return deduped(line);
}

/** The same line without points that repeat the one before. */
function deduped(line: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < line.length; i += 2)
    if (i === 0 || Math.abs(line[i]! - out.at(-2)!) + Math.abs(line[i + 1]! - out.at(-1)!) > 1e-9)
      out.push(line[i]!, line[i + 1]!);
  return out;
}
