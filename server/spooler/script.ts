import { HPGL_TAIL, hpglHead, hpglRun } from '../../core/cutting/index.js';
import type { StoredProgram } from '../stores/run-store.js';

/** A program from coordinate pair `done` on, command by command. The head (force, speed) is sent again; it moves nothing. */
export function scriptFrom(program: StoredProgram, done: number): string[] {
  const lines = [hpglHead(program)];
  let before = 0;
  for (const run of program.runs) {
    const pairs = run.length / 2;
    const skip = Math.min(Math.max(0, done - before), pairs);
    before += pairs;
    if (skip < pairs) lines.push(...hpglRun(Int32Array.from(run), skip));
  }
  if (done <= before) lines.push(HPGL_TAIL);
  return lines;
}

/** Share of the cutting length that is done once each pair has been driven to, 0 to 1: what time left is reckoned by. */
export function lengthShares(program: StoredProgram): Float64Array {
  const pairs = program.runs.reduce((sum, run) => sum + run.length / 2, 0) + 1;
  const shares = new Float64Array(pairs + 1);
  let [x, y, at] = [0, 0, 0];
  const go = (toX: number, toY: number) => {
    at += 1;
    shares[at] = shares[at - 1]! + Math.hypot(toX - x, toY - y) + 40;
    [x, y] = [toX, toY];
  };
  for (const run of program.runs) for (let i = 0; i < run.length; i += 2) go(run[i]!, run[i + 1]!);
  go(0, 0);
  const all = shares[pairs]!;
  return shares.map((v) => v / all);
}
