import { type Matrix, stretchOf } from './matrix.js';
import { SAME_POINT_MM } from './tolerances.js';

/**
 * A path as commands with flat coordinates, in its own user space:
 * M x y · L x y · C x1 y1 x2 y2 x y · A cx cy rx ry phi theta sweep (radians, an exact elliptical arc) · Z.
 */
export interface Curves {
  readonly ops: readonly ('M' | 'L' | 'C' | 'A' | 'Z')[];
  readonly coords: readonly number[];
}

/** A flattened run of points; `closed` when the path said so, not when its ends happen to meet. */
export interface Polyline {
  readonly points: Float64Array;
  readonly closed: boolean;
  /** 1 for points within a curve, which are no corners of the path; absent where that is not known. */
  readonly inner?: Uint8Array;
}

/**
 * The path as polylines after `matrix`, nowhere further than `toleranceMm` from the true curve.
 * Arcs and Bézier curves are cut into equal parameter steps from a bound of their second derivative.
 * Points that fall together are merged; a subpath of one point keeps it (a dot that a round cap may draw).
 *
 * A stroke ends square to the first and last of these steps, and is joined there to the next curve. Given half its width, those steps are made so short
 * that its corners too are no further than the tolerance from where they belong.
 */
export function flatten(curves: Curves, matrix: Matrix, toleranceMm: number, halfStroke = 0): Polyline[] {
  const lines: Polyline[] = [];
  const stretch = Math.max(stretchOf(matrix), 1e-12);
  const [a, b, c, d, e, f] = matrix;
  let points: number[] = [];
  let inner: number[] = [];
  let x = 0;
  let y = 0;
  let startX = 0;
  let startY = 0;

  const push = (px: number, py: number, isInner = 0) => {
    x = px;
    y = py;
    const qx = a * px + c * py + e;
    const qy = b * px + d * py + f;
    const n = points.length;
    if (n > 0 && Math.abs(points[n - 2]! - qx) < SAME_POINT_MM && Math.abs(points[n - 1]! - qy) < SAME_POINT_MM) {
      if (isInner === 0) inner[inner.length - 1] = 0;
      return;
    }
    points.push(qx, qy);
    inner.push(isInner);
  };
  const cut = (at: (t: number) => Point, steps: number, directions: () => Directions) => {
    const shorter = halfStroke > 0 ? shorterSteps(at, steps, directions(), toleranceMm / halfStroke) : NO_STEPS;
    for (const t of shorter.first) push(...at(t), 1);
    for (let s = 1; s < steps; s += 1) push(...at(s / steps), 1);
    for (const t of shorter.last) push(...at(t), 1);
  };
  const finish = (closed: boolean) => {
    if (points.length > 0) lines.push({ points: Float64Array.from(points), closed, inner: Uint8Array.from(inner) });
    points = [];
    inner = [];
  };

  const v = curves.coords;
  let i = 0;
  for (const op of curves.ops) {
    if (op !== 'M' && op !== 'Z' && points.length === 0) push(startX, startY);
    if (op === 'M') {
      finish(false);
      startX = v[i]!;
      startY = v[i + 1]!;
      push(startX, startY);
      i += 2;
    } else if (op === 'L') {
      push(v[i]!, v[i + 1]!);
      i += 2;
    } else if (op === 'C') {
      const [x0, y0] = [x, y];
      const [x1, y1, x2, y2, x3, y3] = [v[i]!, v[i + 1]!, v[i + 2]!, v[i + 3]!, v[i + 4]!, v[i + 5]!];
      const bend = Math.max(
        Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2),
        Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3),
      );
      const steps = stepCount(6 * bend * stretch, toleranceMm);
      const at = (t: number): Point => {
        const u = 1 - t;
        const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
        return [w0 * x0 + w1 * x1 + w2 * x2 + w3 * x3, w0 * y0 + w1 * y1 + w2 * y2 + w3 * y3];
      };
      cut(at, steps, () => ({
        first: wayOf([x1 - x0, y1 - y0], [x2 - x0, y2 - y0], [x3 - x0, y3 - y0]),
        last: wayOf([x2 - x3, y2 - y3], [x1 - x3, y1 - y3], [x0 - x3, y0 - y3]),
      }));
      push(x3, y3);
      i += 6;
    } else if (op === 'A') {
      const [cx, cy, rx, ry, phi, theta, sweep] = [
        v[i]!,
        v[i + 1]!,
        v[i + 2]!,
        v[i + 3]!,
        v[i + 4]!,
        v[i + 5]!,
        v[i + 6]!,
      ];
      const steps = stepCount(Math.max(rx, ry) * sweep * sweep * stretch, toleranceMm);
      const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
      const at = (t: number): Point => {
        const [ex, ey] = [rx * Math.cos(theta + sweep * t), ry * Math.sin(theta + sweep * t)];
        return [cx + cos * ex - sin * ey, cy + sin * ex + cos * ey];
      };
      const along = (t: number): Point => {
        const [ex, ey] = [-rx * Math.sin(theta + sweep * t) * sweep, ry * Math.cos(theta + sweep * t) * sweep];
        return [cos * ex - sin * ey, sin * ex + cos * ey];
      };
      cut(at, steps, () => ({ first: along(0), last: wayOf([-along(1)[0], -along(1)[1]]) }));
      push(...at(1));
      i += 7;
    } else {
      finish(true);
      x = startX;
      y = startY;
    }
  }
  finish(false);
  return lines;
}

type Point = readonly [x: number, y: number];

/** The ways a curve goes from its beginning, and back from its end. */
interface Directions {
  readonly first: Point;
  readonly last: Point;
}

/** The first of some ways that leads anywhere: a handle may lie on its end. */
function wayOf(...ways: readonly Point[]): Point {
  return ways.find(([dx, dy]) => dx !== 0 || dy !== 0) ?? ways[0]!;
}

interface ShorterSteps {
  readonly first: readonly number[];
  readonly last: readonly number[];
}

const NO_STEPS: ShorterSteps = { first: [], last: [] };
/** A step is halved so often at most: then it is as short as the points that are taken for one. */
const MOST_HALVINGS = 20;

/** Where the outer two of a curve's equal steps are cut again, each time in half, until they lead as the curve does to within so many radians. */
function shorterSteps(
  at: (t: number) => Point,
  steps: number,
  directions: Directions,
  withinRad: number,
): ShorterSteps {
  const halvings = (end: Point, way: Point, step: (share: number) => number): number[] => {
    const made: number[] = [];
    for (
      let share = 1 / steps;
      made.length < MOST_HALVINGS && turnTo(end, at(step(share)), way) > withinRad;
      share /= 2
    )
      made.push(step(share / 2));
    return made;
  };
  return {
    first: halvings(at(0), directions.first, (share) => share).reverse(),
    last: halvings(at(1), directions.last, (share) => 1 - share),
  };
}

/** By how much the way from one point to another turns away from a given one, radians. */
function turnTo([x, y]: Point, [toX, toY]: Point, [dx, dy]: Point): number {
  const [ax, ay] = [toX - x, toY - y];
  return Math.abs(Math.atan2(ax * dy - ay * dx, ax * dx + ay * dy));
}

/** Chord error of n equal steps is |second derivative| / (8 n²); hence n. Capped so that absurd input cannot exhaust memory. */
function stepCount(secondDerivative: number, tolerance: number): number {
  return Math.min(2000, Math.max(1, Math.ceil(Math.sqrt(secondDerivative / (8 * tolerance)))));
}

/** Collects commands into Curves. */
export class CurvesBuilder {
  readonly #ops: Curves['ops'][number][] = [];
  readonly #coords: number[] = [];

  add(op: Curves['ops'][number], ...coords: number[]): this {
    this.#ops.push(op);
    this.#coords.push(...coords);
    return this;
  }

  build(): Curves {
    return { ops: this.#ops, coords: this.#coords };
  }
}
