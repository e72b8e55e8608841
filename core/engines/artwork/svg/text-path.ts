import { compose, flatten, rotation, translation, type Curves, type Matrix } from '../../../geometry/index.js';

/** A path that text runs along, as a line in the text's user space with the length gone up to each point. */
export interface Baseline {
  readonly points: Float64Array;
  readonly gone: Float64Array;
  /** Where on it the text begins. */
  readonly startAt: number;
}

/** Baselines are true to this share of their length, in a thousand: letters on them then stand as on the curve. */
const TRUE_TO = 2e-5;

/**
 * The baseline of a path. Only its first run counts where it has several. `offset` is what the text asks for: a length, or a share of the
 * whole in per cent; `statedLength` is the path's own pathLength, which lengths are then in. Null for a path of no length.
 */
export function baselineOf(curves: Curves, matrix: Matrix, offset: string, statedLength: number | null): Baseline | null {
  const rough = lengthsAlong(firstRun(curves, matrix, 1));
  if (!rough) return null;
  const line = lengthsAlong(firstRun(curves, matrix, Math.max(rough.gone.at(-1)! * TRUE_TO, 1e-9)));
  if (!line) return null;
  const long = line.gone.at(-1)!;
  const asked = Number.parseFloat(offset) || 0;
  const startAt = offset.trim().endsWith('%') ? (asked / 100) * long : statedLength !== null && statedLength > 0 ? (asked / statedLength) * long : asked;
  return { ...line, startAt };
}

function firstRun(curves: Curves, matrix: Matrix, tolerance: number): { points: Float64Array; closed: boolean } | undefined {
  return flatten(curves, matrix, tolerance).find((line) => line.points.length >= 4);
}

function lengthsAlong(line: { points: Float64Array; closed: boolean } | undefined): { points: Float64Array; gone: Float64Array } | null {
  if (!line) return null;
  const points = line.closed ? Float64Array.of(...line.points, line.points[0]!, line.points[1]!) : line.points;
  const gone = new Float64Array(points.length / 2);
  for (let i = 1; i < gone.length; i += 1) gone[i] = gone[i - 1]! + Math.hypot(points[2 * i]! - points[2 * i - 2]!, points[2 * i + 1]! - points[2 * i - 1]!);
  return gone.at(-1)! > 0 ? { points, gone } : null;
}

/** From a letter's own space, its baseline along x and the middle of its advance at `middle`, to where it stands on a baseline; null beyond its ends. */
export function standingOn({ points, gone, startAt }: Baseline, at: number, middle: number): Matrix | null {
  const along = startAt + at + middle;
  if (along < 0 || along > gone.at(-1)!) return null;
  let [low, high] = [0, gone.length - 1];
  while (high - low > 1) {
    const half = (low + high) >> 1;
    if (gone[half]! <= along) low = half;
    else high = half;
  }
  const [dx, dy] = [points[2 * high]! - points[2 * low]!, points[2 * high + 1]! - points[2 * low + 1]!];
  const t = (along - gone[low]!) / (gone[high]! - gone[low]! || 1);
  const turn = (Math.atan2(dy, dx) * 180) / Math.PI;
  return [rotation(turn), translation(-middle, 0)].reduce(compose, translation(points[2 * low]! + t * dx, points[2 * low + 1]! + t * dy));
}
