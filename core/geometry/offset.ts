import type { Ring } from './rings.js';
import { ARC_MM, SAME_POINT_MM } from './tolerances.js';

/** A segment must be longer than what its corners take of it by this much, or rounding could turn it round. */
const SAFE = 0.999;

/**
 * The outline moved by `d` mm to its right hand (outwards for outer rings, into the hole for holes; the other way when negative), with
 * round corners true to `arcMm`, or corners cut off straight. It may cross itself: the area meant is where it winds round in the positive sense.
 *
 * A general offset sends every inward corner through the corner itself, which makes a small loop there, and an outline of a smooth
 * curve has thousands of them for the kernel to take out. Where the segments are long enough for their corners (always, unless the
 * curve is tighter than `d`) the two moved segments simply meet, and no loop is made.
 */
export function offsetOutline(ring: Ring, d: number, corners: 'round' | 'bevelled' = 'round', arcMm = ARC_MM): Ring {
  return movedOutline(ring, d, corners, arcMm).moved;
}

/** An outline and the same moved: which points of the moved one each corner became, `first` to the next corner's. */
export interface MovedOutline {
  /** The outline without points that repeat. */
  readonly points: Ring;
  readonly moved: Ring;
  /** Index of the first point of `moved` that each corner became, and one past the last. */
  readonly first: Int32Array;
}

/** The same as offsetOutline, with what became of each corner. */
export function movedOutline(ring: Ring, d: number, corners: 'round' | 'bevelled', arcMm: number): MovedOutline {
  const points = withoutRepeats(ring);
  const n = points.length / 2;
  if (n < 3) return { points, moved: new Float64Array(), first: new Int32Array(1) };
  const [dx, dy, length] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i += 1) {
    const j = (i + 1) % n;
    const [x, y] = [points[2 * j]! - points[2 * i]!, points[2 * j + 1]! - points[2 * i + 1]!];
    length[i] = Math.sqrt(x * x + y * y);
    dx[i] = x / length[i]!;
    dy[i] = y / length[i]!;
  }
  // Sine and cosine of the turn at each corner, and what each inward corner takes off the moved segments beside it: d·tan(turn / 2).
  const [sin, cos, taken] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0, h = n - 1; i < n; h = i, i += 1) {
    sin[i] = dx[h]! * dy[i]! - dy[h]! * dx[i]!;
    cos[i] = dx[h]! * dx[i]! + dy[h]! * dy[i]!;
    if (sin[i]! * d < 0) taken[i] = Math.abs((d * sin[i]!) / (1 + cos[i]!));
  }
  // Where a mitre sticks out over the arc by less than the arc's own tolerance, it is used: cos(turn / 2)² = (1 + cos(turn)) / 2.
  const flat = 2 * (1 + arcMm / 2 / Math.abs(d)) ** -2 - 1;
  const arcStep = 2 * Math.acos(Math.max(0, 1 - arcMm / Math.abs(d)));
  let out = new Float64Array(6 * n + 64);
  let size = 0;
  const push = (x: number, y: number) => {
    out[size] = x;
    out[size + 1] = y;
    size += 2;
  };
  // No corner takes more points than a full turn does, and the points that cut it off.
  const most = 2 * (4 + (corners === 'bevelled' ? 1 : Math.ceil(Math.PI / arcStep)));
  const first = new Int32Array(n + 1);
  for (let i = 0, h = n - 1; i < n; h = i, i += 1) {
    if (size + most > out.length) {
      const larger = new Float64Array(2 * out.length + most);
      larger.set(out);
      out = larger;
    }
    first[i] = size / 2;
    const next = i + 1 === n ? 0 : i + 1;
    const x = points[2 * i]!;
    const y = points[2 * i + 1]!;
    const ax = dy[h]! * d;
    const ay = -dx[h]! * d;
    const bx = dy[i]! * d;
    const by = -dx[i]! * d;
    const inward = sin[i]! * d < 0;
    const meets = inward
      ? taken[i]! + taken[h]! <= SAFE * length[h]! && taken[i]! + taken[next]! <= SAFE * length[i]!
      : cos[i]! > 0.5 && cos[i]! > flat;
    if (meets) {
      const k = 1 / (1 + cos[i]!);
      push(x + (ax + bx) * k, y + (ay + by) * k);
    } else if (inward) {
      push(x + ax, y + ay);
      push(x, y);
      push(x + bx, y + by);
    } else {
      const turn = Math.atan2(sin[i]!, cos[i]!);
      const steps = corners === 'bevelled' ? 1 : Math.max(1, Math.ceil(Math.abs(turn) / arcStep));
      push(x + ax, y + ay);
      for (let s = 1; s < steps; s += 1) {
        const [c, w] = [Math.cos((turn * s) / steps), Math.sin((turn * s) / steps)];
        push(x + ax * c - ay * w, y + ax * w + ay * c);
      }
      push(x + bx, y + by);
    }
  }
  first[n] = size / 2;
  return { points, moved: out.subarray(0, size), first };
}

function withoutRepeats(ring: Ring): Ring {
  const out = new Float64Array(ring.length);
  let size = 0;
  for (let i = 0; i < ring.length; i += 2) {
    const x = ring[i]!;
    const y = ring[i + 1]!;
    if (size > 0 && Math.abs(x - out[size - 2]!) + Math.abs(y - out[size - 1]!) <= SAME_POINT_MM) continue;
    out[size] = x;
    out[size + 1] = y;
    size += 2;
  }
  while (size >= 4 && Math.abs(out[0]! - out[size - 2]!) + Math.abs(out[1]! - out[size - 1]!) <= SAME_POINT_MM)
    size -= 2;
  return out.subarray(0, size);
}
