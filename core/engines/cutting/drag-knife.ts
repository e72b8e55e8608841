import type { CutPath } from './cut-path.js';

/** Turns sharper than this need a swivel; gentler ones the knife follows by itself within a step. */
const SWIVEL_DEG = 8;
/** Largest gap between a swivel's chord and its arc, mm: half a cutter step. */
const SWIVEL_MM = 0.0125;

/** A direction of travel as a unit vector; the knife's tip points the other way. */
export type Heading = readonly [x: number, y: number];

/** How the knife stands once it was turned. */
export const FIRST_HEADING: Heading = [1, 0];

/** Lengths of the two legs that turn the knife, in blade offsets. */
const TURN_LEGS = { up: 4, right: 8 } as const;

/**
 * Where the holder goes to turn a knife that stands anyhow, as the last cut or a hand left it: up, then right. A dragged tip falls in behind
 * its holder as tan(φ/2) = tan(φ₀/2)·e^(−s/r) (the tractrix). One that stands straight against the first leg is square to the second,
 * and eight offsets of that leave an angle under 0.001 rad. Ends standing as FIRST_HEADING. x, y: the lower left corner of the
 * holder's way, mm; the tip stays within an offset of it.
 */
export function turningPath(x: number, y: number, offsetMm: number): Float64Array {
  const top = y + TURN_LEGS.up * offsetMm;
  return Float64Array.of(x, y, x, top, x + TURN_LEGS.right * offsetMm, top);
}

/** Clear film between the turning of the knife and the nearest cut, mm. */
const TURN_CLEAR_MM = 0.5;

/** Height of the strip of waste below all that is cut in which the knife is turned, mm: its legs, and an offset each way for its tip. */
export function turningStrip(offsetMm: number): number {
  return offsetMm > 0 ? (TURN_LEGS.up + 2) * offsetMm + TURN_CLEAR_MM : 0;
}

/**
 * Where the knife's holder must go so that its trailing tip follows the path: it comes down with the tip on the first point, standing
 * as the last cut left it (`before`), runs `offsetMm` ahead of the tip, swivels round it at every sharp corner, and on closed contours
 * runs on past the beginning by `overcutMm`, so that the cut closes. With offset 0 only the overcut is added.
 */
export function holderPath(
  path: CutPath,
  offsetMm: number,
  overcutMm: number,
  before: Heading = FIRST_HEADING,
): { points: Float64Array; heading: Heading } {
  const tip = withOvercut(merged(path.points), path.closed ? overcutMm : 0);
  if (offsetMm <= 0 || tip.length < 4) return { points: tip, heading: before };
  const out = [tip[0]! + offsetMm * before[0], tip[1]! + offsetMm * before[1]];
  let heading = before;
  for (let i = 0; i + 3 < tip.length; i += 2) {
    const [x0, y0, x1, y1] = [tip[i]!, tip[i + 1]!, tip[i + 2]!, tip[i + 3]!];
    const length = Math.hypot(x1 - x0, y1 - y0);
    if (length < 1e-9) continue;
    const d = [(x1 - x0) / length, (y1 - y0) / length] as const;
    swivel(out, x0, y0, heading, d, offsetMm);
    out.push(x1 + offsetMm * d[0], y1 + offsetMm * d[1]);
    heading = d;
  }
  return { points: Float64Array.from(out), heading };
}

function swivel(out: number[], x: number, y: number, a: Heading, b: Heading, r: number): void {
  const turn = Math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]);
  if (Math.abs(turn) < (SWIVEL_DEG * Math.PI) / 180) return;
  const steps = Math.max(1, Math.ceil(Math.abs(turn) / (2 * Math.acos(Math.max(0, 1 - SWIVEL_MM / r)))));
  const from = Math.atan2(a[1], a[0]);
  for (let s = 1; s <= steps; s += 1) {
    const t = from + (turn * s) / steps;
    out.push(x + r * Math.cos(t), y + r * Math.sin(t));
  }
}

function merged(points: Float64Array): number[] {
  const out = [points[0]!, points[1]!];
  for (let i = 2; i < points.length; i += 2) {
    if (Math.hypot(points[i]! - out.at(-2)!, points[i + 1]! - out.at(-1)!) >= 0.01)
      out.push(points[i]!, points[i + 1]!);
  }
  // The end is where the cut must close, so it is kept in place of its last neighbour.
  if (out.length > 2) {
    out[out.length - 2] = points.at(-2)!;
    out[out.length - 1] = points.at(-1)!;
  }
  return out;
}

function withOvercut(points: number[], overcutMm: number): Float64Array {
  const out = [...points];
  let left = overcutMm;
  for (let i = 0; left > 0 && i + 3 < points.length; i += 2) {
    const [x0, y0, x1, y1] = [points[i]!, points[i + 1]!, points[i + 2]!, points[i + 3]!];
    const length = Math.hypot(x1 - x0, y1 - y0);
    const t = Math.min(1, left / length);
    out.push(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
    left -= length;
  }
  return Float64Array.from(out);
}
