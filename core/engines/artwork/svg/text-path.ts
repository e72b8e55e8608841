import {
  compose,
  flatten,
  rotation,
  translation,
  type Curves,
  type Matrix,
  type Polyline,
} from '../../../geometry/index.js';

/** A path that text runs along, as a line in the text's user space with the length gone up to each point. */
export interface Baseline {
  readonly points: Float64Array;
  readonly gone: Float64Array;
  /** Where on it the text begins. */
  readonly startAt: number;
}

/** Baselines are true to this share of their length, in a thousand: letters on them then stand as on the curve. */
const TRUE_TO = 2e-5;

export interface BaselineWish {
  /** Where the text begins: a length, or a share of the whole in per cent. */
  readonly offset: string;
  /** The path's own pathLength, which lengths are then in. */
  readonly statedLength: number | null;
  /** Text on the right of the path runs the other way. */
  readonly isRightSide: boolean;
}

/** The baseline of a path; text goes on from one of its runs to the next. Null for a path of no length. */
export function baselineOf(
  curves: Curves,
  matrix: Matrix,
  { offset, statedLength, isRightSide }: BaselineWish,
): Baseline | null {
  const rough = lengthsAlong(flatten(curves, matrix, 1), isRightSide);
  if (!rough) return null;
  const line = lengthsAlong(flatten(curves, matrix, Math.max(rough.gone.at(-1)! * TRUE_TO, 1e-9)), isRightSide);
  if (!line) return null;
  const long = line.gone.at(-1)!;
  const asked = Number.parseFloat(offset) || 0;
  const startAt = offset.trim().endsWith('%')
    ? (asked / 100) * long
    : statedLength !== null && statedLength > 0
      ? (asked / statedLength) * long
      : asked;
  return { ...line, startAt };
}

/** All runs as one line: between two of them no length is gone. */
function lengthsAlong(
  lines: readonly Polyline[],
  isReversed: boolean,
): { points: Float64Array; gone: Float64Array } | null {
  const runs = lines
    .filter((line) => line.points.length >= 4)
    .map(({ points, closed }) => (closed ? Float64Array.of(...points, points[0]!, points[1]!) : points));
  const ordered = isReversed ? runs.map(backwards).reverse() : runs;
  const points = Float64Array.from(ordered.flatMap((run) => [...run]));
  const gone = new Float64Array(points.length / 2);
  let i = 0;
  for (const run of ordered) {
    for (let k = 0; k < run.length; k += 2, i += 1)
      gone[i] =
        i === 0 ? 0 : gone[i - 1]! + (k === 0 ? 0 : Math.hypot(run[k]! - run[k - 2]!, run[k + 1]! - run[k - 1]!));
  }
  return gone.length > 0 && gone.at(-1)! > 0 ? { points, gone } : null;
}

function backwards(points: Float64Array): Float64Array {
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2)
    out.set([points[points.length - 2 - i]!, points[points.length - 1 - i]!], i);
  return out;
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
  return [rotation(turn), translation(-middle, 0)].reduce(
    compose,
    translation(points[2 * low]! + t * dx, points[2 * low + 1]! + t * dy),
  );
}
