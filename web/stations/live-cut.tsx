import { useMemo } from 'react';
import type { RunProgress } from '../../core/records/index.js';
import type { ProgramView } from '../plan/plan-view.js';

const UNITS_PER_MM = 40;

/** What the knife has driven so far and where the head is, over a sheet's picture (y down). */
export function LiveCut({ program, progress, usedLengthMm }: { readonly program: ProgramView; readonly progress: RunProgress; readonly usedLengthMm: number }) {
  const runs = useMemo(() => {
    let first = 0;
    return program.runs.map((run) => {
      const pairs = run.length / 2;
      const from = first;
      first += pairs;
      return { from, pairs, path: pathOf(run, pairs, usedLengthMm) };
    });
  }, [program, usedLengthMm]);
  const done = runs.filter((run) => run.from + run.pairs <= progress.pairsDone);
  const at = done.length;
  const current = runs[at];
  const partial = current && progress.pairsDone > current.from ? pathOf(program.runs[at]!, progress.pairsDone - current.from, usedLengthMm) : '';
  const [x, y] = [progress.xMm, usedLengthMm - progress.yMm];
  const tail = partial && progress.knifeDown ? `L${x.toFixed(2)} ${y.toFixed(2)}` : '';
  return (
    <g>
      <path d={done.map((run) => run.path).join('') + partial + tail} fill="none" stroke="#9c3d0c" strokeWidth="2.500" vectorEffect="non-scaling-stroke" />
      <g stroke="#182325" strokeWidth="1.5" fill="none">
        <path d={`M${x - 7} ${y}H${x + 7}M${x} ${y - 7}V${y + 7}`} vectorEffect="non-scaling-stroke" />
        <circle cx={x} cy={y} r="3.500" fill={progress.knifeDown ? '#9c3d0c' : '#ffffff'} vectorEffect="non-scaling-stroke" data-testid="head" />
      </g>
    </g>
  );
}

function pathOf(run: Int32Array, pairs: number, usedLengthMm: number): string {
  let d = '';
  for (let i = 0; i < 2 * pairs; i += 2) d += `${i === 0 ? 'M' : 'L'}${(run[i]! / UNITS_PER_MM).toFixed(2)} ${(usedLengthMm - run[i + 1]! / UNITS_PER_MM).toFixed(2)}`;
  return d;
}
