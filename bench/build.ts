import { readFileSync } from 'node:fs';
import { paintRegions, readSvg } from '../core/engines/artwork/index.js';
import { areaOf, grow, intersect, pointCount, subtract, unite, type Ring, type Rings } from '../core/geometry/index.js';
import { drawingPart } from '../core/stations/artwork/index.js';
import { emptyRecipe, patchRecipe } from '../core/recipe/index.js';
import { Planner } from '../core/plan/index.js';
import { tryGaps } from '../core/stations/layers/index.js';
import { buildLayers, neighboursOf, recompose, separate, type LayerPaint } from '../core/engines/layers/index.js';
import { openArtwork } from '../core/testing/open-artwork.js';
import { disc, rectangle, seeded } from '../core/testing/seeded.js';
import { BENCH_SHOP } from '../core/testing/bench-shop.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { fastestMs, median, ms, print, quantile, times } from './measure.js';

const TRAP_MM = 0.4;

/** Thirty layers of wavy shapes over each other on a sheet of 400 mm, together of so many points. */
function manyLayers(points: number): LayerPaint[] {
  const random = seeded(11);
  const count = Math.round(points / 60);
  return Array.from({ length: count }, (_, i) => {
    const [x, y, r] = [400 * random(), 400 * random(), 6 + 18 * random()];
    const ring = disc(x, y, r, 60);
    for (let k = 0; k < ring.length; k += 2) {
      const wave = 1 + 0.12 * Math.sin((k / 2) * 0.7);
      ring[k] = x + (ring[k]! - x) * wave;
      ring[k + 1] = y + (ring[k + 1]! - y) * wave;
    }
    return { layer: `film-${i % 30}`, rings: unite([ring]) };
  });
}

/** The Booleans and offsets that a trapped build cannot do without, each once on the whole of its layer, straight from the kernel. */
function bareKernel(paints: readonly LayerPaint[], keys: readonly string[]): void {
  let above: Rings = [];
  for (const key of [...keys].reverse()) {
    const own = unite(paints.filter((paint) => paint.layer === key).flatMap((paint) => paint.rings as Ring[]));
    const visible = subtract(own, above);
    intersect(grow(visible, TRAP_MM), unite([...own, ...above]));
    above = unite([...above, ...own]);
  }
}

function large(): void {
  const paints = manyLayers(20_000);
  const separation = separate(paints);
  const keys = separation.layers.map((layer) => layer.key);
  const before = process.memoryUsage().rss;
  const build = fastestMs(
    () => buildLayers(separate(paints), { school: 'trapped', trapMm: TRAP_MM, thinnestMm: () => 0.8 }),
    3,
  );
  const bare = fastestMs(() => bareKernel(paints, keys), 3);
  const neighbours = fastestMs(() => neighboursOf(separation), 1);
  const dots = Array.from({ length: 5000 }, (_, i) => ({
    layer: 'dots',
    rings: [disc((i % 100) * 4 + 2, Math.floor(i / 100) * 4 + 2, 1.2, 24)],
  }));
  const base = [{ layer: 'base', rings: [rectangle(0, 0, 400, 200)] }, ...dots];
  print(`A build of ${keys.length} layers, ${paints.reduce((sum, paint) => sum + pointCount(paint.rings), 0)} points`, [
    ['taken apart and built, trapped (at most 2 s)', ms(build)],
    ['  against the Booleans and offsets it needs, bare (at most 3 ×)', times(build / bare)],
    ['who meets whom, once for an artwork', ms(neighbours)],
    [
      'memory of the process beyond what it had (under 500 MB)',
      `${Math.round((process.memoryUsage().rss - before) / 1e6)} MB`,
    ],
    [
      '5,000 dots cut from a base',
      ms(fastestMs(() => buildLayers(separate(base), { school: 'trapped', trapMm: TRAP_MM }), 2)),
    ],
  ]);
}

/** What the layers of drawings that no test was tuned on get wrong, worst of all. */
function properties(): void {
  const rows = openArtwork(50, 7).flatMap(({ name, svg }) => {
    const { regions } = paintRegions(readSvg(new TextEncoder().encode(svg), name), 4);
    const paints = regions.map((region) => ({ layer: region.colour, rings: region.rings }));
    if (new Set(paints.map((paint) => paint.layer)).size < 2) return [];
    const separation = separate(paints);
    const inlay = buildLayers(separation, { school: 'inlay', trapMm: 0 }).layers;
    const trapped = buildLayers(separation, { school: 'trapped', trapMm: TRAP_MM }).layers;
    const whole = unite(paints.flatMap((paint) => paint.rings as Ring[]));
    const all = (layers: typeof inlay) => unite(layers.flatMap((layer) => layer.cut as Ring[]));
    const overlap = inlay.reduce((sum, layer) => sum + areaOf(layer.cut), 0) - areaOf(all(inlay));
    const beyond = areaOf(subtract(all(trapped), whole));
    const missing = Math.abs(areaOf(all(trapped)) - areaOf(whole));
    const looks = recompose(trapped).reduce(
      (sum, { key, shows }) =>
        sum + Math.abs(areaOf(shows) - areaOf(trapped.find((layer) => layer.key === key)!.visible)),
      0,
    );
    // A lap deeper than the trap would be wider than a band of it round what shows.
    const deep = trapped.reduce(
      (sum, layer) => sum + areaOf(subtract(layer.cut, grow(layer.visible, TRAP_MM + 0.02))),
      0,
    );
    return [{ overlap, beyond, missing, looks, deep, area: areaOf(whole) }];
  });
  const worst = (pick: (row: (typeof rows)[number]) => number) => Math.max(...rows.map(pick));
  const line = (pick: (row: (typeof rows)[number]) => number) => `${worst(pick).toFixed(4)} mm²`;
  print(`${rows.length} open drawings at four times their size, ${TRAP_MM} mm trap; worst of all`, [
    ['inlay layers overlap', line((row) => row.overlap)],
    ['trapped layers reach beyond the design', line((row) => row.beyond)],
    ['union of the layers differs from the artwork', line((row) => row.missing)],
    ['what the layers show differs from what should be seen', line((row) => row.looks)],
    ['laps deeper than the trap by more than 0.02 mm', line((row) => row.deep)],
    ['area of a drawing, median', `${Math.round(median(rows.map((row) => row.area)))} mm²`],
  ]);
}

async function trial(): Promise<void> {
  const recipe = patchRecipe(emptyRecipe('Bench'), {
    artworks: [drawingPart({ id: 'a', fileName: 'heron.svg', sha256: '0'.repeat(64) })],
    surface: { size: { mode: 'width', mm: 230 } },
  });
  const plan = await new Planner(resourcesInNode).plan({
    recipe,
    shop: BENCH_SHOP,
    sources: new Map([['a', new Uint8Array(readFileSync('demo/artwork/heron-window.svg'))]]),
  });
  const took: number[] = [];
  for (let i = 0; i < 5; i += 1) {
    const start = performance.now();
    tryGaps(
      { panels: plan.panels!, build: plan.build!, recipe, repeatabilityMm: BENCH_SHOP.cutter.repeatabilityMm },
      { placements: 1000, seed: i, readingMm: 1000, risk: 0.01 },
    );
    took.push(performance.now() - start);
  }
  print('Gap trial of the demo job', [
    [
      '1,000 placements, with marks and again by eye: median / slowest',
      `${ms(median(took))} / ${ms(quantile(took, 1))}`,
    ],
  ]);
}

export async function buildBench(): Promise<void> {
  large();
  properties();
  await trial();
}
