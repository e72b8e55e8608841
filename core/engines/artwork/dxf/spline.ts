import { boundsOf, longestSide } from '../../../geometry/index.js';

/** Stretches that a span is looked at in, before those that bend are halved. */
const PER_SPAN = 4;
/** A curve is followed to this share of its own size, as curves in a drawing are to its. */
const TRUE_SHARE = 1 / 80_000;
/** A stretch is halved so often at most. */
const MOST_HALVINGS = 12;

type Point = readonly [number, number];

/** Points of a curve from one parameter to another, the first left out, so close that straight lines between them keep within `reach` of it. */
function followed(at: (t: number) => Point, from: number, to: number, reach: number): number[] {
  const out: number[] = [];
  const go = (t0: number, p0: Point, t1: number, p1: Point, halvings: number): void => {
    const t = (t0 + t1) / 2;
    const p = at(t);
    // A curve may cross its chord in the middle; at the first stretches it is not believed.
    if (
      halvings < MOST_HALVINGS &&
      (halvings < 1 || Math.hypot(p[0] - (p0[0] + p1[0]) / 2, p[1] - (p0[1] + p1[1]) / 2) > reach)
    ) {
      go(t0, p0, t, p, halvings + 1);
      go(t, p, t1, p1, halvings + 1);
    } else out.push(p1[0], p1[1]);
  };
  let [t0, p0] = [from, at(from)];
  for (let s = 1; s <= PER_SPAN; s += 1) {
    const t1 = from + ((to - from) * s) / PER_SPAN;
    const p1 = at(t1);
    go(t0, p0, t1, p1, 0);
    [t0, p0] = [t1, p1];
  }
  return out;
}

/** How near a curve is followed whose points lie among these. */
function reachOf(points: readonly number[]): number {
  const box = boundsOf([Float64Array.from(points)]);
  return box ? Math.max(longestSide(box) * TRUE_SHARE, 1e-9) : 1e-9;
}

/**
 * A rational B-spline as points, ends included (de Boor's algorithm). `control` is x0, y0, x1, y1, …; missing weights are 1, a missing or
 * wrong knot vector is taken as clamped and even.
 */
export function splinePoints(
  degree: number,
  control: readonly number[],
  knots: readonly number[],
  weights: readonly number[],
): number[] {
  const n = control.length / 2;
  const p = Math.min(Math.max(1, Math.round(degree)), n - 1);
  if (n < 2) return [...control];
  const u =
    knots.length === n + p + 1 && knots.every((k, i) => i === 0 || k >= knots[i - 1]!) ? knots : clampedKnots(n, p);
  const reach = reachOf(control);
  const out: number[] = [];
  for (let span = p; span < n; span += 1) {
    const [from, to] = [u[span]!, u[span + 1]!];
    if (!(to > from)) continue;
    const at = (t: number) => pointAt(t, span, p, u, control, weights);
    if (out.length === 0) out.push(...at(from));
    out.push(...followed(at, from, to, reach));
  }
  return out;
}

function clampedKnots(n: number, p: number): number[] {
  return Array.from({ length: n + p + 1 }, (_, i) => Math.min(Math.max(i - p, 0), n - p));
}

function pointAt(
  t: number,
  span: number,
  p: number,
  u: readonly number[],
  control: readonly number[],
  weights: readonly number[],
): [number, number] {
  const d = Array.from({ length: p + 1 }, (_, j) => {
    const i = span - p + j;
    const w = weights[i] ?? 1;
    return [control[2 * i]! * w, control[2 * i + 1]! * w, w];
  });
  for (let r = 1; r <= p; r += 1) {
    for (let j = p; j >= r; j -= 1) {
      const i = span - p + j;
      const wide = u[i + p - r + 1]! - u[i]!;
      const a = wide > 0 ? (t - u[i]!) / wide : 0;
      d[j] = d[j]!.map((v, k) => (1 - a) * d[j - 1]![k]! + a * v);
    }
  }
  const [x, y, w] = d[p]!;
  return [x! / (w || 1), y! / (w || 1)];
}

/**
 * A smooth curve through points (x0, y0, x1, y1, …), itself as points: a cubic spline by the lengths of its chords, with an even bend all
 * along. It runs round where it is closed; else it leaves its ends along the tangents given, or unbent where none are.
 */
export function fittedPoints(
  given: readonly number[],
  closed: boolean,
  tangents: { readonly start: readonly number[]; readonly end: readonly number[] },
): number[] {
  const points = withoutRepeats(given, closed);
  const n = points.length / 2;
  if (n < 3) return points;
  const spans = closed ? n : n - 1;
  const h = Array.from({ length: spans }, (_, i) =>
    Math.hypot(points[(2 * i + 2) % (2 * n)]! - points[2 * i]!, points[(2 * i + 3) % (2 * n)]! - points[2 * i + 1]!),
  );
  const slopes = [0, 1].map((axis) =>
    slopesThrough(
      points.filter((_, i) => i % 2 === axis),
      h,
      closed,
      [tangents.start[axis] ?? null, tangents.end[axis] ?? null],
    ),
  );
  const reach = reachOf(points);
  const out = [points[0]!, points[1]!];
  for (let i = 0; i < spans; i += 1) {
    const j = (i + 1) % n;
    const at = (t: number): Point => {
      const [a, b] = [t * t * (3 - 2 * t), t * (1 - t)];
      const along = (axis: 0 | 1) => {
        const [from, to] = [points[2 * i + axis]!, points[2 * j + axis]!];
        // Hermite's form: both ends, and the slopes there.
        return from + (to - from) * a + h[i]! * b * ((1 - t) * slopes[axis]![i]! - t * slopes[axis]![j]!);
      };
      return [along(0), along(1)];
    };
    out.push(...followed(at, 0, 1, reach));
  }
  return out;
}

function withoutRepeats(given: readonly number[], closed: boolean): number[] {
  const out: number[] = [];
  for (let i = 0; i < given.length; i += 2)
    if (i === 0 || given[i] !== out.at(-2) || given[i + 1] !== out.at(-1)) out.push(given[i]!, given[i + 1]!);
  return closed && out.length > 4 && out[0] === out.at(-2) && out[1] === out.at(-1) ? out.slice(0, -2) : out;
}

/** The slopes of the cubic spline through values at distances `h`: bend and slope go on unbroken at every one. Solved by elimination; closed curves have two more corners of the matrix. */
function slopesThrough(
  values: readonly number[],
  h: readonly number[],
  closed: boolean,
  ends: readonly (number | null)[],
): number[] {
  const n = values.length;
  const rows = Array.from({ length: n }, () => new Float64Array(n));
  const right = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    const row = rows[i]!;
    const isEnd = !closed && (i === 0 || i === n - 1);
    if (isEnd && ends[i === 0 ? 0 : 1] !== null) {
      row[i] = 1;
      right[i] = ends[i === 0 ? 0 : 1]!;
    } else if (isEnd) {
      const [other, span] = i === 0 ? [1, h[0]!] : [n - 2, h.at(-1)!];
      row[i] = 2;
      row[other] = 1;
      right[i] = (3 * (values[Math.max(i, other)]! - values[Math.min(i, other)]!)) / span;
    } else {
      const [before, after] = [(i + n - 1) % n, (i + 1) % n];
      const [near, far] = [h[(i + h.length - 1) % h.length]!, h[i]!];
      row[before]! += 1 / near;
      row[i]! += 2 / near + 2 / far;
      row[after]! += 1 / far;
      right[i] = (3 * (values[i]! - values[before]!)) / near ** 2 + (3 * (values[after]! - values[i]!)) / far ** 2;
    }
  }
  return solved(rows, right, closed ? n : 1);
}

/** Gauss without exchange of rows, which a matrix whose middle outweighs its sides does not need; `band` is how far below the middle there is anything. */
function solved(rows: readonly Float64Array[], right: Float64Array, band: number): number[] {
  const n = rows.length;
  for (let i = 0; i < n; i += 1) {
    for (let k = i + 1; k < Math.min(n, i + band + 1); k += 1) {
      const share = rows[k]![i]! / rows[i]![i]!;
      if (share === 0) continue;
      for (let c = i; c < n; c += 1) rows[k]![c]! -= share * rows[i]![c]!;
      right[k]! -= share * right[i]!;
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = right[i]!;
    for (let c = i + 1; c < n; c += 1) sum -= rows[i]![c]! * out[c]!;
    out[i] = sum / rows[i]![i]!;
  }
  return out;
}
