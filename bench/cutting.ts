import { readFileSync } from 'node:fs';
import { cutProgram, writeHpgl, type CutProgram } from '../core/engines/cutting/index.js';
import { drawingPart } from '../core/stations/artwork/index.js';
import { emptyRecipe, patchRecipe } from '../core/recipe/index.js';
import { Planner } from '../core/plan/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { disc, rectangle, seeded } from '../core/testing/seeded.js';
import { DEVICE_DEFAULTS } from '../cutter/device.js';
import { runOffline } from '../cutter/run-offline.js';
import { BENCH_SHOP } from '../core/testing/bench-shop.js';
import { percent, print, times } from './measure.js';

/** Length of the minimum spanning tree of points (Prim): no tour that visits all of them is shorter. */
function spanningTreeMm(points: readonly (readonly [number, number])[]): number {
  const far = points.map(() => Infinity);
  const done = points.map(() => false);
  far[0] = 0;
  let sum = 0;
  for (let n = 0; n < points.length; n += 1) {
    let next = -1;
    far.forEach((d, i) => {
      if (!done[i] && (next < 0 || d < far[next]!)) next = i;
    });
    done[next] = true;
    sum += far[next]!;
    points.forEach(([x, y], i) => {
      far[i] = Math.min(far[i]!, Math.hypot(x - points[next]![0], y - points[next]![1]));
    });
  }
  return sum;
}

const startsOf = (program: CutProgram): [number, number][] => [
  [0, 0],
  ...program.paths.map((path): [number, number] => [path.points[0]!, path.points[1]!]),
];

async function demoPrograms(fileName: string, widthMm: number): Promise<readonly CutProgram[]> {
  const recipe = patchRecipe(emptyRecipe('Bench'), {
    artworks: [drawingPart({ id: 'a', fileName, sha256: '0'.repeat(64) })],
    surface: { size: { mode: 'width', mm: widthMm } },
  });
  const plan = await new Planner(resourcesInNode).plan({
    recipe,
    shop: BENCH_SHOP,
    sources: new Map([['a', readFileSync(`demo/artwork/${fileName}`)]]),
  });
  return plan.cut!.programs;
}

export async function cuttingBench(): Promise<void> {
  const random = seeded(7);
  const dots = cutProgram({
    groups: [
      {
        contours: Array.from({ length: 400 }, () => disc(10 + random() * 500, 10 + random() * 500, 2 + random() * 3)),
        borders: [rectangle(0, 0, 520, 520)],
      },
    ],
    settings: { forceG: 90, speedMmS: 200, bladeOffsetMm: 0.25, overcutMm: 0.5 },
    motion: DEVICE_DEFAULTS,
  });
  const jobs: readonly (readonly [string, readonly CutProgram[]])[] = [
    ['heron window', await demoPrograms('heron-window.svg', 230)],
    ['Marsh Wren', await demoPrograms('marsh-wren.svg', 1400)],
    ['400 dots strewn over half a metre', [dots]],
  ];
  print(
    'Travel with the knife lifted against the minimum spanning tree of where the cuts begin',
    jobs.map(([name, programs]) => [
      name,
      times(
        programs.reduce((sum, p) => sum + p.travelMm, 0) /
          programs.reduce((sum, p) => sum + spanningTreeMm(startsOf(p)), 0),
      ),
    ]),
  );
  print(
    'Estimated time against the simulated cutter’s (within 5 %)',
    jobs.map(([name, programs]) => {
      const simulated = programs.reduce((sum, program) => sum + runOffline(writeHpgl(program)).status.busySeconds, 0);
      return [name, percent(programs.reduce((sum, program) => sum + program.seconds, 0) / simulated - 1)];
    }),
  );
}
