import Flatbush from 'flatbush';
import type { CutPath } from './cut-path.js';

/** Lines nearer than this to each other are one line: under a cutter's step. */
const SAME_LINE_MM = 0.02;
/** Shorter overlaps are crossings, not lines cut twice. */
const LEAST_OVERLAP_MM = 0.05;

/** A part of a straight stretch, by distances from its first point, mm. */
interface Part {
  readonly from: number;
  readonly to: number;
}

/**
 * The paths with every stretch that an earlier one already cuts left out, so that no line is cut twice. A path that loses a stretch falls
 * into open runs; one that shares no edge with an earlier one is given back as it was, the same object. Two straight stretches are one line
 * where, at both ends of what they have in common, they lie within SAME_LINE_MM of each other, whichever way they run and wherever on the
 * sheet. A path is never held against itself: it may cross or touch itself.
 *
 * Cost: paths are looked up by box, and stretches by box only where a whole path has some in the other's box.
 */
export function cutOnce(paths: readonly CutPath[]): CutPath[] {
  if (paths.length < 2) return [...paths];
  const stretches = paths.map((path) => new Stretches(path.points));
  const boxes = new Flatbush(paths.length);
  for (const { box } of stretches) boxes.add(box[0], box[1], box[2], box[3]);
  boxes.finish();
  return paths.flatMap((path, i) => {
    const mine = stretches[i]!;
    const [x0, y0, x1, y1] = widened(mine.box);
    const others = boxes.search(x0, y0, x1, y1, (at) => at < i).map((at) => stretches[at]!);
    // Asked of this path first: a border has others all over its box, and itself lies near none of them.
    const near = others.filter((other) => mine.anyIn(widened(other.box)) && other.anyIn(widened(mine.box)));
    return near.length === 0 ? [path] : withoutShared(path, near);
  });
}

type Corners = readonly [minX: number, minY: number, maxX: number, maxY: number];

function widened([x0, y0, x1, y1]: Corners): Corners {
  return [x0 - SAME_LINE_MM, y0 - SAME_LINE_MM, x1 + SAME_LINE_MM, y1 + SAME_LINE_MM];
}

/** The straight stretches of one path, found by where they lie. */
class Stretches {
  readonly box: Corners;
  #index: Flatbush | null = null;

  constructor(readonly points: Float64Array) {
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < points.length; i += 2) {
      x0 = Math.min(x0, points[i]!);
      y0 = Math.min(y0, points[i + 1]!);
      x1 = Math.max(x1, points[i]!);
      y1 = Math.max(y1, points[i + 1]!);
    }
    this.box = [x0, y0, x1, y1];
  }

  anyIn(corners: Corners): boolean {
    return this.near(corners).length > 0;
  }

  /** Numbers of the points at which stretches that touch a box begin. */
  near([x0, y0, x1, y1]: Corners): number[] {
    return this.#made().search(x0, y0, x1, y1);
  }

  #made(): Flatbush {
    if (this.#index) return this.#index;
    const { points } = this;
    const index = new Flatbush(Math.max(1, points.length / 2 - 1));
    if (points.length < 4) index.add(points[0]!, points[1]!, points[0]!, points[1]!);
    for (let i = 0; i + 3 < points.length; i += 2) {
      index.add(
        Math.min(points[i]!, points[i + 2]!),
        Math.min(points[i + 1]!, points[i + 3]!),
        Math.max(points[i]!, points[i + 2]!),
        Math.max(points[i + 1]!, points[i + 3]!),
      );
    }
    index.finish();
    return (this.#index = index);
  }
}

function withoutShared(path: CutPath, others: readonly Stretches[]): CutPath[] {
  const { points } = path;
  const runs: number[][] = [];
  let run: number[] = [];
  let lost = false;
  const finish = () => {
    if (run.length >= 4) runs.push(run);
    run = [];
  };
  for (let i = 2; i < points.length; i += 2) {
    const [x0, y0, x1, y1] = [points[i - 2]!, points[i - 1]!, points[i]!, points[i + 1]!];
    const length = Math.hypot(x1 - x0, y1 - y0);
    if (length === 0) continue;
    const free = freeParts(x0, y0, x1, y1, length, others);
    for (const { from, to } of free) {
      const [ax, ay] = [x0 + (x1 - x0) * (from / length), y0 + (y1 - y0) * (from / length)];
      if (run.length === 0) run.push(ax, ay);
      else if (Math.hypot(run.at(-2)! - ax, run.at(-1)! - ay) > SAME_LINE_MM) {
        finish();
        run.push(ax, ay);
      }
      run.push(x0 + (x1 - x0) * (to / length), y0 + (y1 - y0) * (to / length));
    }
    const whole = free.length === 1 && free[0]!.from === 0 && free[0]!.to === length;
    if (!whole) {
      lost = true;
      if (free.at(-1)?.to !== length) finish();
    }
  }
  if (!lost) return [path];
  finish();
  return runs.map((points) => ({
    points: Float64Array.from(points),
    closed: false,
    ...(path.contour === undefined ? {} : { contour: path.contour }),
  }));
}

/** What of a straight stretch no other lies on, in its own direction. */
function freeParts(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  length: number,
  others: readonly Stretches[],
): Part[] {
  const [dx, dy] = [(x1 - x0) / length, (y1 - y0) / length];
  const corners = widened([Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)]);
  const taken: Part[] = [];
  for (const other of others) {
    for (const at of other.near(corners)) {
      const p = other.points;
      const [ax, ay, bx, by] = [p[2 * at]!, p[2 * at + 1]!, p[2 * at + 2]!, p[2 * at + 3]!];
      // Along this stretch, and across it, of both ends of the other.
      const [ua, ub] = [(ax - x0) * dx + (ay - y0) * dy, (bx - x0) * dx + (by - y0) * dy];
      const [va, vb] = [(ay - y0) * dx - (ax - x0) * dy, (by - y0) * dx - (bx - x0) * dy];
      const [from, to] = [Math.max(0, Math.min(ua, ub)), Math.min(length, Math.max(ua, ub))];
      if (to - from <= Math.min(LEAST_OVERLAP_MM, length / 2)) continue;
      const acrossAt = (u: number) => va + ((vb - va) * (u - ua)) / (ub - ua);
      if (Math.abs(acrossAt(from)) <= SAME_LINE_MM && Math.abs(acrossAt(to)) <= SAME_LINE_MM) taken.push({ from, to });
    }
  }
  if (taken.length === 0) return [{ from: 0, to: length }];
  taken.sort((p, q) => p.from - q.from);
  const free: Part[] = [];
  let at = 0;
  for (const { from, to } of taken) {
    if (from - at > LEAST_OVERLAP_MM) free.push({ from: at, to: from });
    at = Math.max(at, to);
  }
  if (length - at > LEAST_OVERLAP_MM) free.push({ from: at, to: length });
  return free;
}
