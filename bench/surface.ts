import { areaOf, boxRing, intersect, squareToEdge, unite, type Ring, type Rings } from '../core/geometry/index.js';
import { taperMap, tile, unwarpPoint, warpRings } from '../core/engines/surface/index.js';
import { patchRecipe } from '../core/recipe/index.js';
import { seeded } from '../core/testing/seeded.js';
import { openBrowser } from '../e2e/browser.js';
import { jobWith, openBench } from '../server/testing/bench.js';
import { fastestMs, ms, print, quantile, times } from './measure.js';

const FRAMES = 120;

/** Wavy rings with so many points in all, on a design of 160 × 70 mm. */
function wavy(points: number): Ring[] {
  const random = seeded(4);
  const each = 50;
  return Array.from({ length: points / each }, () => {
    const [x, y, r] = [10 + random() * 140, 8 + random() * 54, 2 + random() * 5];
    return Float64Array.from({ length: 2 * each }, (_, i) =>
      i % 2 === 0
        ? x + r * (1 + 0.2 * Math.sin(i)) * Math.cos((Math.PI * i) / each)
        : y + r * Math.sin((Math.PI * (i - 1)) / each),
    );
  });
}

/** Bending, splitting, and turning a thing on the page. */
export async function surfaceBench(): Promise<void> {
  const map = taperMap({ d1Mm: 102, d2Mm: 86, slantMm: 118, wide: 'top' }, { widthMm: 160, heightMm: 70 });
  const [ten, hundred] = [wavy(10_000), wavy(100_000)];
  let worst = 0;
  for (const [k, ring] of warpRings(map, ten).entries())
    for (let i = 0; i < ring.length; i += 2)
      worst = Math.max(worst, fromRing(ten[k]!, ...unwarpPoint(map, ring[i]!, ring[i + 1]!)));
  const one = fastestMs(() => warpRings(map, ten));
  print('Bending for a taper', [
    ['10,000 points', ms(one)],
    ['100,000 points, by 10,000 (10 × asked)', times(fastestMs(() => warpRings(map, hundred), 3) / one)],
    ['the farthest point of 10,000 from the formula (0.02 mm)', `${worst.toFixed(6)} mm`],
  ]);

  const signs = [20, 200].map(
    (letters) =>
      [
        unite(
          Array.from({ length: letters }, (_, i) =>
            wavy(50).map((ring) =>
              ring.map((v, k) => (k % 2 === 0 ? (v * 4000) / letters / 160 + (i * 4000) / letters : v * 5)),
            ),
          ).flat(),
        ),
      ] as Rings[],
  );
  const wish = { widthMm: 4000, rollMm: 590, lapMm: 10 };
  const [few, many] = signs.map((areas) => ({ ms: fastestMs(() => tile(areas, wish), 3), tiling: tile(areas, wish)! }));
  const laps =
    many!.tiling.panels.reduce(
      (sum, { x0, x1 }) =>
        sum + areaOf(intersect(signs[1]![0]!, [boxRing({ minX: x0, minY: -100, maxX: x1, maxY: 1000 })])),
      0,
    ) - areaOf(signs[1]![0]!);
  print('Panels of a sign of 4 m', [
    [
      '1,000 points',
      `${ms(few!.ms)}, ${few!.tiling.panels.length} panels, ${few!.tiling.crossedMm.toFixed(1)} mm crossed`,
    ],
    ['10,000 points, by 1,000', times(many!.ms / few!.ms)],
    ['panels less the layer: their laps', `${(laps / 100).toFixed(1)} cm²`],
  ]);
  await turningBench();
}

/** A jug with a design of 5,000 points, turned by the mouse. */
async function turningBench(): Promise<void> {
  const bench = await openBench({ pagesFolder: 'dist/web/' });
  const browser = await openBrowser();
  try {
    const rings = wavy(5000);
    const paths = rings.map(
      (ring, i) =>
        `<path fill="${i % 2 === 0 ? '#1d4e89' : '#f2b632'}" d="M${Array.from({ length: ring.length / 2 }, (_, k) => `${ring[2 * k]!.toFixed(3)} ${ring[2 * k + 1]!.toFixed(3)}`).join('L')}Z"/>`,
    );
    const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="160mm" height="70mm" viewBox="0 0 160 70">${paths.join('')}</svg>`;
    const job = await jobWith(bench, drawing, (recipe) =>
      patchRecipe(recipe, {
        surface: {
          kind: 'cylinder',
          cylinder: { ...recipe.surface.cylinder, girthMm: 372, straightHeightMm: 150, gapMm: 50, side: 'both' },
          size: { mode: 'fit' },
        },
      }),
    );
    await browser.driver.get(`${bench.server.url}/jobs/${job.id}/surface`);
    await browser.sees('as the room sees it');
    await browser.driver.wait(async () => !(await browser.text()).includes('planning …'), 120_000);
    await browser.driver.manage().setTimeouts({ script: 120_000 });
    const [frames, tasks] = await browser.driver.executeAsyncScript<[number[], number[]]>(`
      const done = arguments[arguments.length - 1];
      const thing = document.querySelector('[aria-label^="The design on the thing"]');
      const tasks = [];
      new PerformanceObserver((list) => tasks.push(...list.getEntries().map((entry) => entry.duration))).observe({ type: 'longtask' });
      const at = thing.getBoundingClientRect();
      const times = [];
      let [last, frames] = [performance.now(), 0];
      thing.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, pointerId: 1, clientX: at.left + 200, clientY: at.top + 200 }));
      const step = (now) => {
        times.push(now - last);
        last = now;
        frames += 1;
        if (frames > ${FRAMES}) return setTimeout(() => done([times.slice(2), tasks]), 200);
        thing.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, pointerId: 1, clientX: at.left + 200 + 4 * frames, clientY: at.top + 200 + 20 * Math.sin(frames / 9) }));
        requestAnimationFrame(step);
      };
      requestAnimationFrame(step);`);
    print('Turning a jug with a design of 5,000 points on both sides, seen twice', [
      [
        'a frame, median / p95 / longest (50 ms)',
        `${ms(quantile(frames, 0.5))} / ${ms(quantile(frames, 0.95))} / ${ms(Math.max(...frames))}`,
      ],
      ['tasks over 50 ms (0)', `${tasks.length}${tasks.length > 0 ? `, the longest ${ms(Math.max(...tasks))}` : ''}`],
    ]);
  } finally {
    await browser.close();
    await bench.close();
  }
}

/** How far a point lies from an outline, mm. */
function fromRing(ring: Ring, px: number, py: number): number {
  let best = Infinity;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    best = Math.min(best, squareToEdge(px, py, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
  }
  return Math.sqrt(best);
}
