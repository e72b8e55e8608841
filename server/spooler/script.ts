import {
  HPGL_TAIL,
  hpglHead,
  hpglRun,
  hpglSettings,
  programPairs,
  UNITS_PER_MM,
} from '../../core/engines/cutting/index.js';

/** What the cutter is told of one sheet: holder positions in plotter units, a run of the knife each. */
export interface SheetProgram {
  readonly runs: readonly Int32Array[];
  readonly forceG: number;
  readonly speedMmS: number;
}

/**
 * A program from coordinate pair `done` on, command by command. Force and speed are sent again, which moves nothing; the machine itself is only
 * started anew at the beginning, since that lifts a knife that stands in the middle of a line.
 */
export function* scriptFrom(program: SheetProgram, done: number): Generator<string> {
  yield done === 0 ? hpglHead(program) : hpglSettings(program);
  let before = 0;
  for (const run of program.runs) {
    const pairs = run.length / 2;
    const skip = Math.min(Math.max(0, done - before), pairs);
    before += pairs;
    if (skip < pairs) yield* hpglRun(run, skip);
  }
  if (done <= before) yield HPGL_TAIL;
}

/** What lifting the knife counts for, as a way in plotter units: a milimetre. */
const PER_PAIR_UNITS = 40;

/** Share of the way that is gone once each pair has been driven to, 0 to 1: what progress and time left are reckoned by. */
export function lengthShares({ runs }: SheetProgram): Float64Array {
  const pairs = programPairs(runs);
  const shares = new Float64Array(pairs + 1);
  let [x, y, at] = [0, 0, 0];
  const go = (toX: number, toY: number) => {
    at += 1;
    shares[at] = shares[at - 1]! + Math.hypot(toX - x, toY - y) + PER_PAIR_UNITS;
    [x, y] = [toX, toY];
  };
  for (const run of runs) for (let i = 0; i < run.length; i += 2) go(run[i]!, run[i + 1]!);
  go(0, 0);
  const all = shares[pairs]!;
  return shares.map((v) => v / all);
}

/** Where the holder stands once so many pairs were driven to, mm; null before the first, and after the last, when it is on its way home. */
export function placeAfter({ runs }: Pick<SheetProgram, 'runs'>, pairs: number): readonly [number, number] | null {
  let before = 0;
  for (const run of runs) {
    const at = pairs - before;
    if (at >= 1 && at <= run.length / 2) return [run[2 * at - 2]! / UNITS_PER_MM, run[2 * at - 1]! / UNITS_PER_MM];
    before += run.length / 2;
  }
  return null;
}
