import { useMemo } from 'react';
import { UNITS_PER_MM } from '../../../core/engines/cutting/index.js';
import type { RunProgress } from '../../../core/stations/cut/index.js';
import type { FrozenDrawing } from '../../job/use-frozen-drawing.js';

interface LiveCutProps {
  readonly runs: FrozenDrawing['runs'];
  /** How far the knife is, by the cutter's own count. */
  readonly pairsDone: number;
  /** Where the head is; null when nothing is under way. */
  readonly head: RunProgress | null;
  readonly usedLengthMm: number;
}

/** What the knife has driven so far and where the head is, over the picture of the frozen sheet (y down). */
export function LiveCut({ runs: frozen, pairsDone, head, usedLengthMm }: LiveCutProps) {
  const runs = useMemo(() => {
    let first = 0;
    return frozen.map((run) => {
      const pairs = run.length / 2;
      const from = first;
      first += pairs;
      return { from, pairs, path: pathOf(run, pairs, usedLengthMm) };
    });
  }, [frozen, usedLengthMm]);
  const done = runs.filter((run) => run.from + run.pairs <= pairsDone);
  const at = done.length;
  const current = runs[at];
  const partial =
    current && pairsDone > current.from ? pathOf(frozen[at]!, pairsDone - current.from, usedLengthMm) : '';
  const [x, y] = head ? [head.xMm, usedLengthMm - head.yMm] : [0, 0];
  const tail = head && partial && head.knifeDown ? `L${x.toFixed(2)} ${y.toFixed(2)}` : '';
  return (
    <g>
      <path
        d={done.map((run) => run.path).join('') + partial + tail}
        fill="none"
        stroke="#9c3d0c"
        strokeWidth="2.500"
        vectorEffect="non-scaling-stroke"
      />
      {head && (
        <g stroke="#182325" strokeWidth="1.5" fill="none">
          <path d={`M${x - 7} ${y}H${x + 7}M${x} ${y - 7}V${y + 7}`} vectorEffect="non-scaling-stroke" />
          <circle
            cx={x}
            cy={y}
            r="3.500"
            fill={head.knifeDown ? '#9c3d0c' : '#ffffff'}
            vectorEffect="non-scaling-stroke"
            data-testid="head"
          />
        </g>
      )}
    </g>
  );
}

function pathOf(run: Int32Array, pairs: number, usedLengthMm: number): string {
  let d = '';
  for (let i = 0; i < 2 * pairs; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${(run[i]! / UNITS_PER_MM).toFixed(2)} ${(usedLengthMm - run[i + 1]! / UNITS_PER_MM).toFixed(2)}`;
  return d;
}
