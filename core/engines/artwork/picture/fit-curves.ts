import { CurvesBuilder, type Curves } from '../../../geometry/index.js';
import type { Chain } from './chains.js';

/*
 * A row of points, about one to a pixel, becomes corners, straight runs and smooth curves. Curves are fitted by least squares and split
 * where they miss most, after P. J. Schneider, "An algorithm for automatically fitting digitized curves" (Graphics Gems, 1990).
 */

/** No fitted curve misses a point by more than this, px: under what a picture's own edges wander, over the steps of its grid. */
const MISS_PX = 0.42;
/** A run is straight when no point is further from it than this, px. */
const STRAIGHT_PX = 0.2;
/** A corner turns by more than this within its arms. */
const CORNER_RAD = 0.66;
/** How far a corner's arms reach, px, and where they begin: pixels round the very tip off. */
const ARM_PX = 6;
const TIP_PX = 1.2;
/** An arm bends no more than this, px: tighter bends are curves, not corners. */
const ARM_SAG_PX = 0.42;
/** A row turns back where a corner is narrower than a pixel, so half a pixel over the tangent of half its angle before the tip; and a little for the grid. */
const HALF_PX = 0.5;
const GRID_PX = 0.3;
/** No tip lies further from the row than this, px. */
export const FARTHEST_TIP_PX = 4;

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A piece of the outline: a straight run (no handles) or a cubic curve to `to`. */
export interface Piece {
  readonly handles: readonly [Point, Point] | null;
  readonly to: Point;
}

/** A fitted chain: where it begins and its pieces in order. A closed one ends where it begins. */
export interface FittedChain {
  readonly from: Point;
  readonly pieces: readonly Piece[];
}

/** Fits a chain; its ends stay where they are. */
export function fitChain(chain: Chain): FittedChain {
  const points = pointsOf(chain);
  if (points.length < 3) return { from: points[0]!, pieces: points.slice(1).map((to) => ({ handles: null, to })) };
  const corners = cornersOf(points, chain.closed);
  if (!chain.closed) return fitOpen(points, corners);
  // A closed row is opened at its first corner, or anywhere when it has none.
  const start = corners.keys().next().value ?? 0;
  const turned = [...points.slice(start), ...points.slice(0, start), points[start]!];
  const moved = new Map([...corners].map(([i, tip]) => [(i - start + points.length) % points.length, tip]));
  const tip = moved.get(0);
  if (tip) moved.set(turned.length - 1, tip);
  return fitOpen(turned, moved, corners.size === 0);
}

function pointsOf({ points }: Chain): Point[] {
  const out: Point[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const point = { x: points[i]!, y: points[i + 1]! };
    const last = out.at(-1);
    if (!last || Math.hypot(point.x - last.x, point.y - last.y) > 1e-6) out.push(point);
  }
  return out;
}

const minus = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });
const length = (a: Point) => Math.hypot(a.x, a.y);
const dot = (a: Point, b: Point) => a.x * b.x + a.y * b.y;
const unit = (a: Point): Point => {
  const l = length(a) || 1;
  return { x: a.x / l, y: a.y / l };
};
const along = (a: Point, d: Point, by: number): Point => ({ x: a.x + d.x * by, y: a.y + d.y * by });

/** An arm from a point of the row: the points between the tip and its end, and the way it goes. */
function armOf(points: readonly Point[], at: number, step: 1 | -1, closed: boolean): readonly Point[] | null {
  const arm: Point[] = [];
  let far = 0;
  let last = points[at]!;
  for (let n = 1; n < points.length; n += 1) {
    const i = at + step * n;
    if (!closed && (i < 0 || i >= points.length)) break;
    const point = points[(i + points.length) % points.length]!;
    far += length(minus(point, last));
    last = point;
    if (far >= TIP_PX) arm.push(point);
    if (far >= ARM_PX) break;
  }
  return far >= 0.6 * ARM_PX && arm.length >= 3 ? arm : null;
}

function sagOf(arm: readonly Point[]): number {
  const [a, b] = [arm[0]!, arm.at(-1)!];
  const d = unit(minus(b, a));
  return Math.max(...arm.map((p) => Math.abs((p.x - a.x) * d.y - (p.y - a.y) * d.x)));
}

/** Line through an arm by least squares: a point on it and its direction away from the tip. */
function lineOf(arm: readonly Point[]): { readonly at: Point; readonly way: Point } {
  const n = arm.length;
  const at = { x: arm.reduce((s, p) => s + p.x, 0) / n, y: arm.reduce((s, p) => s + p.y, 0) / n };
  let [xx, xy, yy] = [0, 0, 0];
  for (const p of arm) {
    xx += (p.x - at.x) ** 2;
    xy += (p.x - at.x) * (p.y - at.y);
    yy += (p.y - at.y) ** 2;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const way = { x: Math.cos(angle), y: Math.sin(angle) };
  return { at, way: dot(way, minus(arm.at(-1)!, arm[0]!)) < 0 ? { x: -way.x, y: -way.y } : way };
}

/** The corners of a row by index, each with its tip: where the lines of its arms meet, if that is near. */
function cornersOf(points: readonly Point[], closed: boolean): Map<number, Point> {
  const turns = new Float64Array(points.length);
  const tips: (Point | null)[] = new Array<Point | null>(points.length).fill(null);
  for (let i = closed ? 0 : 1; i < points.length - (closed ? 0 : 1); i += 1) {
    const [before, after] = [armOf(points, i, -1, closed), armOf(points, i, 1, closed)];
    if (!before || !after) continue;
    const [a, b] = [lineOf(before), lineOf(after)];
    const turn = Math.acos(Math.min(1, Math.max(-1, -dot(a.way, b.way))));
    if (turn < CORNER_RAD || sagOf(before) > ARM_SAG_PX || sagOf(after) > ARM_SAG_PX) continue;
    const tip = meeting(a, b);
    const shift = tip ? length(minus(tip, points[i]!)) : Infinity;
    // A tip further off than that is no corner but a tight bend.
    if (shift > Math.min(FARTHEST_TIP_PX, GRID_PX + HALF_PX / Math.tan((Math.PI - turn) / 2))) continue;
    tips[i] = tip;
    // The sharper and the nearer to its tip, the more of a corner.
    turns[i] = turn - 0.25 * shift;
  }
  const corners = new Map<number, Point>();
  const reach = 3;
  for (let i = 0; i < points.length; i += 1) {
    if (!tips[i]) continue;
    let best = true;
    for (let n = -reach; n <= reach && best; n += 1) {
      const j = closed ? (i + n + points.length) % points.length : i + n;
      if (
        n !== 0 &&
        j >= 0 &&
        j < points.length &&
        tips[j] &&
        (turns[j]! > turns[i]! || (turns[j]! === turns[i]! && n < 0))
      )
        best = false;
    }
    if (best) corners.set(i, tips[i]!);
  }
  return corners;
}

function meeting(
  a: { readonly at: Point; readonly way: Point },
  b: { readonly at: Point; readonly way: Point },
): Point | null {
  const cross = a.way.x * b.way.y - a.way.y * b.way.x;
  if (Math.abs(cross) < 0.2) return null;
  const d = minus(b.at, a.at);
  return along(a.at, a.way, (d.x * b.way.y - d.y * b.way.x) / cross);
}

function fitOpen(points: readonly Point[], corners: ReadonlyMap<number, Point>, smoothEnds = false): FittedChain {
  const stops = [...new Set([0, ...corners.keys(), points.length - 1])].sort((a, b) => a - b);
  const at = (i: number) => corners.get(i) ?? points[i]!;
  const pieces: Piece[] = [];
  for (let s = 1; s < stops.length; s += 1) {
    const [from, to] = [stops[s - 1]!, stops[s]!];
    // The pixels beside a sharpened tip were rounded off: they no longer bind the curve.
    const blunt = (i: number) =>
      (corners.has(from) && length(minus(points[i]!, at(from))) < TIP_PX) ||
      (corners.has(to) && length(minus(points[i]!, at(to))) < TIP_PX);
    const row: Point[] = [at(from)];
    for (let i = from + 1; i < to; i += 1) if (!blunt(i)) row.push(points[i]!);
    row.push(at(to));
    const spread = Math.min(8, points.length >> 3) + 1;
    const round = smoothEnds ? unit(minus(points[spread]!, points.at(-1 - spread)!)) : null;
    fitRow(row, 0, row.length - 1, round, round && { x: -round.x, y: -round.y }, pieces);
  }
  return { from: at(0), pieces };
}

/** Fits the points from `first` to `last`, splitting where one curve does not do. Tangents point into the row. */
function fitRow(
  row: readonly Point[],
  first: number,
  last: number,
  startWay: Point | null,
  endWay: Point | null,
  into: Piece[],
): void {
  const [a, d] = [row[first]!, row[last]!];
  if (last - first < 2 || isStraight(row, first, last)) {
    into.push({ handles: null, to: d });
    return;
  }
  const start = startWay ?? wayFrom(row, first, last, 1);
  const end = endWay ?? wayFrom(row, last, first, -1);
  let u = chordShares(row, first, last);
  let worst = { miss: Infinity, at: (first + last) >> 1 };
  for (let round = 0; round < 4; round += 1) {
    const handles = leastSquares(row, first, last, u, start, end);
    worst = worstMiss(row, first, last, u, [a, handles[0], handles[1], d]);
    if (worst.miss <= MISS_PX) {
      into.push({ handles, to: d });
      return;
    }
    if (worst.miss > 4 * MISS_PX) break;
    u = u.map((t, i) => nearer([a, handles[0], handles[1], d], row[first + i]!, t));
  }
  const split = Math.min(last - 1, Math.max(first + 1, worst.at));
  // The longer the run, the further apart the points that tell its direction: near ones wander by the steps of the grid.
  const spread = Math.min(12, Math.max(2, Math.round((last - first) / 12)), split - first, last - split);
  const way = unit(minus(row[split + spread]!, row[split - spread]!));
  fitRow(row, first, split, start, { x: -way.x, y: -way.y }, into);
  fitRow(row, split, last, way, end, into);
}

function isStraight(row: readonly Point[], first: number, last: number): boolean {
  const [a, b] = [row[first]!, row[last]!];
  if (length(minus(b, a)) < 1e-9) return false;
  const d = unit(minus(b, a));
  for (let i = first + 1; i < last; i += 1)
    if (Math.abs((row[i]!.x - a.x) * d.y - (row[i]!.y - a.y) * d.x) > STRAIGHT_PX) return false;
  return true;
}

/** The way a row sets out from an end: towards its points within a few pixels. */
function wayFrom(row: readonly Point[], from: number, to: number, step: 1 | -1): Point {
  const start = row[from]!;
  let sum = { x: 0, y: 0 };
  for (let i = from + step, n = 0; n < 5 && (step > 0 ? i <= to : i >= to); i += step, n += 1)
    sum = along(sum, unit(minus(row[i]!, start)), 1);
  return unit(sum);
}

function chordShares(row: readonly Point[], first: number, last: number): number[] {
  const u = [0];
  for (let i = first + 1; i <= last; i += 1) u.push(u.at(-1)! + length(minus(row[i]!, row[i - 1]!)));
  const whole = u.at(-1)! || 1;
  return u.map((v) => v / whole);
}

function leastSquares(
  row: readonly Point[],
  first: number,
  last: number,
  u: readonly number[],
  start: Point,
  end: Point,
): [Point, Point] {
  const [a, d] = [row[first]!, row[last]!];
  let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
  for (let i = first; i <= last; i += 1) {
    const t = u[i - first]!;
    const s = 1 - t;
    const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
    const [p, q] = [along({ x: 0, y: 0 }, start, b1), along({ x: 0, y: 0 }, end, b2)];
    c00 += dot(p, p);
    c01 += dot(p, q);
    c11 += dot(q, q);
    const rest = { x: row[i]!.x - a.x * (b0 + b1) - d.x * (b2 + b3), y: row[i]!.y - a.y * (b0 + b1) - d.y * (b2 + b3) };
    x0 += dot(p, rest);
    x1 += dot(q, rest);
  }
  const det = c00 * c11 - c01 * c01;
  const chord = length(minus(d, a));
  let [alpha, beta] = det > 1e-12 ? [(x0 * c11 - x1 * c01) / det, (x1 * c00 - x0 * c01) / det] : [0, 0];
  // Handles that point backwards make loops: a third of the chord is the usual stand-in.
  if (alpha < 1e-3 * chord || beta < 1e-3 * chord || alpha > 3 * chord || beta > 3 * chord) alpha = beta = chord / 3;
  return [along(a, start, alpha), along(d, end, beta)];
}

type Cubic = readonly [Point, Point, Point, Point];

function pointAt([a, b, c, d]: Cubic, t: number): Point {
  const s = 1 - t;
  const [w0, w1, w2, w3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return { x: w0 * a.x + w1 * b.x + w2 * c.x + w3 * d.x, y: w0 * a.y + w1 * b.y + w2 * c.y + w3 * d.y };
}

function worstMiss(
  row: readonly Point[],
  first: number,
  last: number,
  u: readonly number[],
  cubic: Cubic,
): { miss: number; at: number } {
  let worst = { miss: 0, at: (first + last) >> 1 };
  for (let i = first + 1; i < last; i += 1) {
    const miss = length(minus(pointAt(cubic, u[i - first]!), row[i]!));
    if (miss > worst.miss) worst = { miss, at: i };
  }
  return worst;
}

/** One step of Newton towards the parameter of the curve's point nearest to `p`. */
function nearer([a, b, c, d]: Cubic, p: Point, t: number): number {
  const s = 1 - t;
  const at = pointAt([a, b, c, d], t);
  const first = (k: 'x' | 'y') => 3 * (s * s * (b[k] - a[k]) + 2 * s * t * (c[k] - b[k]) + t * t * (d[k] - c[k]));
  const second = (k: 'x' | 'y') => 6 * (s * (c[k] - 2 * b[k] + a[k]) + t * (d[k] - 2 * c[k] + b[k]));
  const off = minus(at, p);
  const slope = { x: first('x'), y: first('y') };
  const below = dot(slope, slope) + off.x * second('x') + off.y * second('y');
  return Math.abs(below) < 1e-12 ? t : Math.min(1, Math.max(0, t - dot(off, slope) / below));
}

/** The same chain walked the other way. */
export function reversedChain({ from, pieces }: FittedChain): FittedChain {
  const ends = [from, ...pieces.map((piece) => piece.to)];
  return {
    from: ends.at(-1)!,
    pieces: pieces
      .map((piece, i): Piece => ({
        handles: piece.handles ? [piece.handles[1], piece.handles[0]] : null,
        to: ends[i]!,
      }))
      .reverse(),
  };
}

/** Closed rows of fitted chains as curves. */
export function curvesOf(loops: readonly (readonly FittedChain[])[]): Curves {
  const out = new CurvesBuilder();
  for (const loop of loops) {
    out.add('M', loop[0]!.from.x, loop[0]!.from.y);
    for (const { handles, to } of loop.flatMap((chain) => chain.pieces)) {
      if (handles) out.add('C', handles[0].x, handles[0].y, handles[1].x, handles[1].y, to.x, to.y);
      else out.add('L', to.x, to.y);
    }
    out.add('Z');
  }
  return out.build();
}
