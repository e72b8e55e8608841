import type { DrawnPath } from '../../../core/plan/page/drawn-path.js';

/** The rings of an area as it is drawn, as fine as it is seen as a whole: path data of the plan are steps from point to point (ringsToPathData). */
export function ringsOfPath({ coarse, fine }: DrawnPath): Float64Array[] {
  return (coarse === null ? fine : [coarse]).flatMap((data) => data.split('M').slice(1).map(ringOfData));
}

function ringOfData(data: string): Float64Array {
  const numbers = data.match(/-?[\d.]+(?:e-?\d+)?/g) ?? [];
  const ring = new Float64Array(numbers.length - (numbers.length % 2));
  let [x, y] = [0, 0];
  for (let i = 0; i + 1 < numbers.length; i += 2) {
    ring[i] = x += Number(numbers[i]);
    ring[i + 1] = y += Number(numbers[i + 1]);
  }
  return ring;
}
