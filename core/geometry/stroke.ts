import type { Polyline } from './curves.js';
import { unite } from './kernel.js';
import { reversed, signedArea, type Ring } from './rings.js';

export interface StrokeStyle {
  readonly width: number;
  readonly join: 'miter' | 'round' | 'bevel';
  readonly cap: 'butt' | 'round' | 'square';
  /** Longest mitre as a multiple of the width; beyond it the join is bevelled, as the SVG specification says. */
  readonly miterLimit: number;
}

/**
 * The area that a stroke covers: each polyline's left and right sides, joined and capped, then united.
 * Works in the user space the stroke is stated in, so that a later transform shears the stroke as it should.
 * A one-point line gives a dot under round and square caps and nothing under butt caps. Width 0 gives nothing.
 *
 * @param tolerance largest distance between a round join and its true arc, in the same unit as the points
 */
export function strokeArea(lines: readonly Polyline[], style: StrokeStyle, tolerance: number): Ring[] {
  const half = style.width / 2;
  if (!(half > 0)) return [];
  const outlines: Ring[] = [];
  for (const line of lines) outlines.push(...outlineOf(line, half, style, tolerance));
  // Joins on the inner side fold back on themselves; the non-zero union of equally wound outlines absorbs the folds.
  return unite(outlines, 'nonzero');
}

function outlineOf(line: Polyline, half: number, style: StrokeStyle, tolerance: number): Ring[] {
  let p = line.points;
  const n = p.length / 2;
  const meets = n > 2 && p[0] === p[2 * n - 2] && p[1] === p[2 * n - 1];
  if (line.closed && meets) p = p.subarray(0, p.length - 2);
  const count = p.length / 2;
  // Within a curve there is no corner to mitre, not even where it turns back on itself.
  const within: StrokeStyle = { ...style, join: 'round' };
  const styleAt = (i: number) => (line.inner?.[i] === 1 ? within : style);
  if (count === 1) return dot(p[0]!, p[1]!, half, style.cap, tolerance);
  if (line.closed) {
    const left: number[] = [];
    const right: number[] = [];
    for (let i = 0; i < count; i += 1) {
      joinAt(left, p, (i + count - 1) % count, i, (i + 1) % count, half, styleAt(i), tolerance);
    }
    for (let i = count - 1; i >= 0; i -= 1) {
      joinAt(right, p, (i + 1) % count, i, (i + count - 1) % count, half, styleAt(i), tolerance);
    }
    return ringBetween(Float64Array.from(left), Float64Array.from(right));
  }
  const side: number[] = [];
  for (let i = 1; i < count - 1; i += 1) joinAt(side, p, i - 1, i, i + 1, half, styleAt(i), tolerance);
  capAt(side, p, count - 2, count - 1, half, style.cap, tolerance);
  for (let i = count - 2; i > 0; i -= 1) joinAt(side, p, i + 1, i, i - 1, half, styleAt(i), tolerance);
  capAt(side, p, 1, 0, half, style.cap, tolerance);
  return [positive(Float64Array.from(side))];
}

/** A closed stroke is the band between its two sides: they run against each other, so non-zero fill keeps the hole. */
function ringBetween(left: Ring, right: Ring): Ring[] {
  return Math.abs(signedArea(left)) >= Math.abs(signedArea(right)) ? orient(left, right) : orient(right, left);
}

function orient(outside: Ring, inside: Ring): Ring[] {
  return signedArea(outside) >= 0 ? [outside, inside] : [reversed(outside), reversed(inside)];
}

function positive(ring: Ring): Ring {
  return signedArea(ring) >= 0 ? ring : reversed(ring);
}

/** Adds the side's points at corner i, coming from point h and going to point j. */
function joinAt(
  side: number[],
  p: Float64Array,
  h: number,
  i: number,
  j: number,
  half: number,
  style: StrokeStyle,
  tolerance: number,
): void {
  const [x, y] = [p[2 * i]!, p[2 * i + 1]!];
  const a = unit(x - p[2 * h]!, y - p[2 * h + 1]!);
  const b = unit(p[2 * j]! - x, p[2 * j + 1]! - y);
  // Left normal in a y-down plane: (dy, -dx).
  const na = [a[1], -a[0]] as const;
  const nb = [b[1], -b[0]] as const;
  const cross = a[0] * b[1] - a[1] * b[0];
  const dot = a[0] * b[0] + a[1] * b[1];
  side.push(x + half * na[0], y + half * na[1]);
  const outer = cross > 0 || (cross === 0 && dot < 0);
  if (!outer) {
    // The inner side goes through the corner itself, so that the fold stays within the stroke.
    if (cross !== 0) side.push(x, y);
  } else if (style.join === 'round') {
    arc(side, x, y, half, Math.atan2(na[1], na[0]), Math.atan2(cross, dot), tolerance);
  } else if (style.join === 'miter') {
    const cosHalf = Math.sqrt(Math.max(0, (1 + dot) / 2));
    if (cosHalf > 1e-9 && 1 / cosHalf <= style.miterLimit) {
      const m = unit(na[0] + nb[0], na[1] + nb[1]);
      side.push(x + (half / cosHalf) * m[0], y + (half / cosHalf) * m[1]);
    }
  }
  side.push(x + half * nb[0], y + half * nb[1]);
}

function capAt(
  side: number[],
  p: Float64Array,
  h: number,
  i: number,
  half: number,
  cap: StrokeStyle['cap'],
  tolerance: number,
): void {
  const [x, y] = [p[2 * i]!, p[2 * i + 1]!];
  const d = unit(x - p[2 * h]!, y - p[2 * h + 1]!);
  const n = [d[1], -d[0]] as const;
  side.push(x + half * n[0], y + half * n[1]);
  if (cap === 'round') arc(side, x, y, half, Math.atan2(n[1], n[0]), Math.PI, tolerance);
  if (cap === 'square') {
    side.push(x + half * (n[0] + d[0]), y + half * (n[1] + d[1]), x + half * (d[0] - n[0]), y + half * (d[1] - n[1]));
  }
  side.push(x - half * n[0], y - half * n[1]);
}

function dot(x: number, y: number, half: number, cap: StrokeStyle['cap'], tolerance: number): Ring[] {
  if (cap === 'butt') return [];
  if (cap === 'square') {
    return [Float64Array.of(x - half, y - half, x + half, y - half, x + half, y + half, x - half, y + half)];
  }
  const ring: number[] = [];
  arc(ring, x, y, half, 0, 2 * Math.PI, tolerance);
  return [positive(Float64Array.from(ring))];
}

function arc(side: number[], x: number, y: number, r: number, from: number, sweep: number, tolerance: number): void {
  const step = 2 * Math.acos(Math.max(0, 1 - tolerance / r));
  const steps = Math.min(720, Math.max(1, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3))));
  for (let s = 1; s < steps; s += 1) {
    const t = from + (sweep * s) / steps;
    side.push(x + r * Math.cos(t), y + r * Math.sin(t));
  }
}

function unit(x: number, y: number): readonly [number, number] {
  const length = Math.hypot(x, y) || 1;
  return [x / length, y / length];
}
