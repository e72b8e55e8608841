import {
  areaOf,
  boundsOf,
  boxRing,
  joinBoxes,
  pointCount,
  squareToEdge,
  unite,
  widenBox,
  type Ring,
  type Rings,
} from '../core/geometry/index.js';
import { learnWeeding } from '../core/engines/learning/index.js';
import { placeMarks } from '../core/engines/marks/index.js';
import {
  centreTicks,
  labelLines,
  reliefLines,
  stripsOf,
  wasteOf,
  WEEDING_FIGURES,
  weedingMinutes,
  type WeedingFigures,
  type WeedingWork,
} from '../core/engines/weeding/index.js';
import { ruledBorder } from '../core/stations/prepare/rule-border.js';
import { openWaste } from '../core/testing/open-waste.js';
import { seeded } from '../core/testing/seeded.js';
import { fastestMs, ms, print, times } from './measure.js';

const LAYERS = 300;

/** Stars in rows with so many points in all, on a sheet of 900 × 700 mm; every third is missing, so that there is waste to part. */
function stars(points: number): Ring[] {
  const random = seeded(1);
  const each = 240;
  const count = Math.ceil(points / each);
  const across = Math.ceil(Math.sqrt(1.5 * count * 1.3));
  const step = 900 / across;
  return unite(
    Array.from({ length: count }, (_, i) => {
      const at = Math.floor(1.5 * i);
      const [x, y, r, inner] = [
        (at % across) * step,
        Math.floor(at / across) * step,
        (0.25 + random() * 0.2) * step,
        0.6 + random() * 0.4,
      ];
      return Float64Array.from(
        Array.from({ length: each }, (_, i) => [
          x + r * (i % 2 === 0 ? 1 : inner) * Math.cos((2 * Math.PI * i) / each),
          y + r * (i % 2 === 0 ? 1 : inner) * Math.sin((2 * Math.PI * i) / each),
        ]).flat(),
      );
    }),
  );
}

const bordered = (rings: Rings) => wasteOf([boxRing(widenBox(boundsOf(rings)!, 4))], rings);

function nearest(line: readonly number[], stays: Rings): number {
  let square = Infinity;
  for (let i = 2; i < line.length; i += 2) {
    for (const ring of stays) {
      for (let k = 0, j = ring.length - 2; k < ring.length; j = k, k += 2) {
        square = Math.min(
          square,
          squareToEdge(ring[k]!, ring[k + 1]!, line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!),
          squareToEdge(line[i]!, line[i + 1]!, ring[j]!, ring[j + 1]!, ring[k]!, ring[k + 1]!),
        );
      }
    }
  }
  return Math.sqrt(square);
}

/** Relief lines, marks, and what a log of weeding teaches. */
export async function weedingBench(): Promise<void> {
  let [lines, worstMm, bulkMm, idle, longestMs] = [0, Infinity, 0, 0, 0];
  for (let seed = 1; seed <= LAYERS; seed += 1) {
    const random = seeded(10_000 + seed);
    const rings = openWaste(random, {
      widthMm: 150 + random() * 900,
      heightMm: 120 + random() * 600,
      shapes: 1 + Math.floor(random() * 16),
    });
    const waste = bordered(rings);
    const before = performance.now();
    const relief = reliefLines(waste);
    longestMs = Math.max(longestMs, performance.now() - before);
    lines += relief.length;
    for (const line of relief) worstMm = Math.min(worstMm, nearest(line, waste.stays));
    const bulkOf = (some: typeof relief) => Math.max(0, ...stripsOf(waste, some).map((strip) => strip.bulkMm));
    bulkMm = Math.max(bulkMm, bulkOf(relief));
    for (const line of relief) if (bulkOf(relief.filter((other) => other !== line)) <= 80) idle += 1;
    await Promise.resolve();
  }
  const [small, large] = [stars(10_000), stars(40_000)];
  const lined = reliefLines(bordered(small));
  const ten = fastestMs(() => reliefLines(bordered(small)), 2);
  print(`Relief lines on ${LAYERS} layers of open artwork`, [
    ['lines', String(lines)],
    ['the nearest to what stays (0.19 mm at least)', `${worstMm.toFixed(3)} mm`],
    ['the bulkiest strip (80 mm)', `${bulkMm.toFixed(2)} mm`],
    ['lines that could be taken away', String(idle)],
    ['the slowest layer', ms(longestMs)],
    [`${pointCount(small)} points on outlines (1 s)`, ms(ten)],
    [
      `labels and ticks in the waste of ${pointCount(small)} points`,
      ms(
        fastestMs(
          () => [
            labelLines(bordered(small), lined, { words: ['A boat’s name', 'Chalk white', '2/5'], isMirrored: false }),
            centreTicks(bordered(small), 0.2),
          ],
          2,
        ),
      ),
    ],
    ['the border of that layer, ruled', ms(fastestMs(() => ruledBorder(small, { gapMm: 4, costPerM2: 9 }), 2))],
    [`${pointCount(large)} points, by those`, times(fastestMs(() => reliefLines(bordered(large)), 1) / ten)],
  ]);

  const marked = Array.from({ length: 40 }, (_, k) => {
    const random = seeded(500 + k);
    return Array.from({ length: 4 }, () => openWaste(random, { widthMm: 300, heightMm: 220, shapes: 6 }));
  });
  const slowest = (['ends', 'edge', 'bar', 'three'] as const).map((school) => {
    const all = marked.map((layers) =>
      fastestMs(() => placeMarks(layers, { school, shape: 'diamond', sizeMm: 6, gapMm: 3, placementErrorMm: 0.25 }), 1),
    );
    return [`marks, ${school}: the slowest of 40 designs (300 ms)`, ms(Math.max(...all))] as [string, string];
  });
  const saved = marked.map((layers) => {
    const found = placeMarks(layers, {
      school: 'ends',
      shape: 'diamond',
      sizeMm: 6,
      gapMm: 3,
      placementErrorMm: 0.25,
    })!;
    const film = layers.reduce((sum, rings) => sum + areaOf([boxRing(boundsOf(rings)!)]), 0);
    const all = layers.reduce((box, rings) => joinBoxes(box, boundsOf(rings)), boundsOf(layers[0]!));
    return { share: found.extraFilmMm2 / film, size: all };
  });
  print('Marks', [
    ...slowest,
    [
      'film they cost, of that of the layers, in the mean',
      `${((100 * saved.reduce((sum, { share }) => sum + share, 0)) / saved.length).toFixed(1)} %`,
    ],
  ]);

  const errors = Array.from({ length: 200 }, (_, k) => errorOf(k + 1));
  print('Minutes from ten logs with 15 % of noise, 200 makers', [
    [
      'mean absolute error on new work (10 %)',
      `${((100 * errors.reduce((sum, error) => sum + error, 0)) / errors.length).toFixed(1)} %`,
    ],
    ['makers over 10 %', `${errors.filter((error) => error > 0.1).length}`],
  ]);
}

function errorOf(seed: number): number {
  const random = seeded(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const whole = 0.5 + random() * 1.3;
  const own = Object.fromEntries(
    Object.entries(WEEDING_FIGURES).map(([key, figure]) => [key, figure * whole * (0.65 + random() * 0.7)]),
  ) as unknown as WeedingFigures;
  const work = (): WeedingWork => {
    const looseParts = 1 + Math.floor(random() * 60);
    const outlineMm = 300 + random() * 12_000;
    return {
      sheets: 1 + Math.floor(random() * 3),
      counters: Math.floor(random() * 80),
      looseParts,
      smallParts: Math.floor(random() * looseParts * 0.5),
      strips: 1 + Math.floor(random() * 8),
      outlineMm,
      thinMm: random() * 0.6 * outlineMm,
    };
  };
  const learned = learnWeeding(
    Array.from({ length: 10 }, () => {
      const done = work();
      return { ...done, minutes: Math.max(0.1, weedingMinutes(done, own) * (1 + 0.15 * normal())) };
    }),
  );
  const fresh = Array.from({ length: 40 }, work);
  return (
    fresh.reduce((sum, one) => sum + Math.abs(weedingMinutes(one, learned) / weedingMinutes(one, own) - 1), 0) /
    fresh.length
  );
}
