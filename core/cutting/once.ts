import type { CutPath } from './cut-path.js';

/** Lines nearer than this to each other are one line: under a cutter's step. */
const SAME_LINE_MM = 0.02;
/** Shorter overlaps are crossings, not lines cut twice. */
const LEAST_OVERLAP_MM = 0.05;

interface Stretch {
  readonly from: number;
  readonly to: number;
}

/**
 * The paths with every stretch that an earlier one already cuts left out, so that no line is cut twice; a path that loses a stretch
 * falls into open runs. Straight stretches are compared by the line they lie on, whichever way they run.
 */
export function cutOnce(paths: readonly CutPath[]): CutPath[] {
  const lines = new Map<number, Stretch[]>();
  const out: CutPath[] = [];
  for (const path of paths) {
    const { points } = path;
    let run: number[] = [];
    let lost = false;
    const finish = () => {
      if (run.length >= 4) out.push({ points: Float64Array.from(run), closed: false });
      run = [];
    };
    const claims: Claim[] = [];
    for (let i = 2; i < points.length; i += 2) {
      const [x0, y0, x1, y1] = [points[i - 2]!, points[i - 1]!, points[i]!, points[i + 1]!];
      const length = Math.hypot(x1 - x0, y1 - y0);
      if (length === 0) continue;
      const free = freeStretches(lines, x0, y0, x1, y1, length, claims);
      for (const { from, to } of free) {
        const [ax, ay] = [x0 + (x1 - x0) * (from / length), y0 + (y1 - y0) * (from / length)];
        const [bx, by] = [x0 + (x1 - x0) * (to / length), y0 + (y1 - y0) * (to / length)];
        if (run.length === 0) run.push(ax, ay);
        else if (Math.hypot(run.at(-2)! - ax, run.at(-1)! - ay) > SAME_LINE_MM) {
          finish();
          run.push(ax, ay);
        }
        run.push(bx, by);
      }
      const whole = free.length === 1 && free[0]!.from === 0 && free[0]!.to === length;
      if (!whole) {
        lost = true;
        if (free.at(-1)?.to !== length) finish();
      }
    }
    // A path may cross or touch itself; only others count, so its own stretches are claimed when it is through.
    for (const { key, stretch } of claims) {
      const known = lines.get(key);
      if (known) known.push(stretch);
      else lines.set(key, [stretch]);
    }
    if (lost) finish();
    else out.push(path);
  }
  return out;
}

/** A stretch that is cut once its path is through, and the line it lies on. */
interface Claim {
  readonly key: number;
  readonly stretch: Stretch;
}

/** One number for a line: its direction in steps of a thousandth and its distance from the origin in steps of SAME_LINE_MM. */
const lineKey = (angle: number, offset: number) => (angle + 2000) * 2 ** 31 + offset + 2 ** 30;

function freeStretches(lines: ReadonlyMap<number, readonly Stretch[]>, x0: number, y0: number, x1: number, y1: number, length: number, claims: Claim[]): Stretch[] {
  // Direction folded into a half turn, so that both ways along a line are one.
  let [dx, dy] = [(x1 - x0) / length, (y1 - y0) / length];
  const backwards = dx < -1e-9 || (Math.abs(dx) <= 1e-9 && dy < 0);
  if (backwards) [dx, dy] = [-dx, -dy];
  const angle = Math.round(Math.atan2(dy, dx) / 1e-3);
  const offset = Math.round((x0 * dy - y0 * dx) / SAME_LINE_MM);
  const [a, b] = [x0 * dx + y0 * dy, x1 * dx + y1 * dy];
  const [low, high] = [Math.min(a, b), Math.max(a, b)];
  claims.push({ key: lineKey(angle, offset), stretch: { from: low, to: high } });
  const taken: Stretch[] = [];
  // A line may fall on either side of a rounding step, so the neighbouring keys are looked at too.
  for (let da = -1; da <= 1; da += 1) {
    for (let o = -1; o <= 1; o += 1) {
      for (const s of lines.get(lineKey(angle + da, offset + o)) ?? []) {
        const [from, to] = [Math.max(s.from, low), Math.min(s.to, high)];
        if (to - from > Math.min(LEAST_OVERLAP_MM, length / 2)) taken.push({ from, to });
      }
    }
  }
  if (taken.length === 0) return [{ from: 0, to: length }];
  taken.sort((p, q) => p.from - q.from);
  const free: Stretch[] = [];
  let at = low;
  for (const t of taken) {
    if (t.from - at > LEAST_OVERLAP_MM) free.push({ from: at, to: t.from });
    at = Math.max(at, t.to);
  }
  if (high - at > LEAST_OVERLAP_MM) free.push({ from: at, to: high });
  // Back to distances from the stretch's own first point.
  const own = free.map(({ from, to }) => (a <= b ? { from: from - low, to: to - low } : { from: high - to, to: high - from }));
  return a <= b ? own : own.reverse();
}
