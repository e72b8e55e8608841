import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { prepareJobs, type PreparedJob } from '../core/batch/index.js';
import { patchRecipe, type RecipePatch } from '../core/recipe/index.js';
import { CLOSE_BORDERS } from '../core/stations/prepare/close-borders.js';
import {
  itemsOf,
  loadablesOf,
  NEW_LAY_WISH,
  nestItemOf,
  placed,
  roomOn,
  smallestFirst,
  type LaidSheets,
  type LayItem,
  layJobs,
} from '../core/laying/index.js';
import { nest } from '../core/engines/nesting/index.js';
import { boundsOf } from '../core/geometry/index.js';
import { Planner } from '../core/plan/index.js';
import type { Shop } from '../core/shop/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { openDatabase } from '../server/db/open-database.js';
import { makeServices } from '../server/services.js';
import { ms, percent, print } from './measure.js';

const MM2_PER_CM2 = 100;
const SEARCH_STEPS = 400;

/** What one layer takes when it is laid alone, the smallest piece first, and what is left over counts as spent: so a shop without a plan works. */
async function takenAlone(item: LayItem, shop: Shop): Promise<number> {
  const rack = loadablesOf(item.film, shop).sort((a, b) => smallestFirst(a.piece, b.piece));
  const { placements } = await nest({
    sheets: rack.map(roomOn),
    spacingMm: NEW_LAY_WISH.spacingMm,
    items: [nestItemOf(item, { borders: 'apart', spacingMm: NEW_LAY_WISH.spacingMm, insetMm: 0 })],
  });
  const passes = new Map<string, number>();
  for (const { sheet, sheetIndex, x, y, rotation } of placements) {
    const { piece, edges } = rack.find((on) => on.piece.id === sheet)!;
    const { contours, borders } = placed(item.group, {
      item: item.id,
      copy: 0,
      sheet,
      sheetIndex,
      x: x + edges.sides,
      y: y + edges.bottom,
      rotation,
    });
    const highest = boundsOf([...contours, ...borders])!.maxY + edges.top;
    const key = `${sheet}#${sheetIndex}`;
    passes.set(key, Math.max(passes.get(key) ?? 0, piece.widthMm * (piece.kind === 'roll' ? highest : piece.lengthMm)));
  }
  return [...passes.values()].reduce((sum, area) => sum + area, 0);
}

/** All jobs of the demo shop, laid layer by layer, job by job as the Sheets station does, and together. */
export async function batchBench(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  try {
    spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed.ts', '--data', data], { stdio: 'ignore' });
    const db = await openDatabase(data);
    const services = await makeServices(db, 0);
    const planner = new Planner(resourcesInNode);
    const { jobs: listed } = await services.jobs.list({ search: '', state: null, from: 0, most: 100 });
    const jobs: PreparedJob[] = [];
    const following: PreparedJob[] = [];
    const close: PreparedJob[] = [];
    let [shop, layersMm2, aloneMm2, loadings] = [null as Shop | null, 0, 0, 0];
    for (const { id } of listed) {
      const source = await services.sourceOfJob(id);
      const { recipe } = source;
      shop = source.shop;
      // What of it is cut already is laid out, too: the list as it was before anything was cut.
      const input = { shop, sources: await source.loadSources() };
      const bordered = async (preparation: RecipePatch['preparation']) =>
        (await prepareJobs(planner, [{ ...input, id, recipe: patchRecipe(recipe, { preparation }) }])).ready;
      const { sheets } = await planner.plan({ ...input, recipe });
      const [job] = await bordered({});
      if (!job || !sheets) continue;
      jobs.push(job);
      following.push(...(await bordered({ border: CLOSE_BORDERS.border })));
      close.push(...(await bordered(CLOSE_BORDERS)));
      aloneMm2 += sheets.sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
      loadings += sheets.sheets.length;
      for (const item of itemsOf(job, 0, shop, { ...NEW_LAY_WISH, spares: { single: 0, layered: 0 } }))
        layersMm2 += await takenAlone(item, shop);
    }
    const wish = { ...NEW_LAY_WISH, spares: { single: 0, layered: 0 } };
    const takenBy = ({ sheets }: LaidSheets) => sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
    const begun = performance.now();
    const together = await layJobs(jobs, shop!, wish);
    const took = performance.now() - begun;
    const taken = takenBy(together);
    const films = [...new Set(jobs.flatMap(({ prepare }) => prepare.layers.map(({ layer }) => layer.film.id)))];
    const searched = { steps: films.map((filmId) => ({ filmId, steps: SEARCH_STEPS })) };
    const shared = takenBy(await layJobs(jobs, shop!, { ...wish, sharesBorders: true }));
    const followed = takenBy(await layJobs(following, shop!, { ...wish, sharesBorders: true }));
    const searchedFor = takenBy(await layJobs(following, shop!, { ...wish, ...searched, sharesBorders: true }));
    const closest = await layJobs(close, shop!, { ...wish, ...searched, sharesBorders: true });
    const ofLayers = (mm2: number) => `${Math.round(mm2 / MM2_PER_CM2)} cm², ${percent(mm2 / layersMm2)}`;
    const kept = together.sheets.reduce(
      (sum, { groups }) => sum + groups.reduce((own, { keptMm2 }) => own + keptMm2, 0),
      0,
    );
    print(`The ${jobs.length} jobs of the demo shop, job by job and together`, [
      ['film taken layer by layer, what is left over spent', `${Math.round(layersMm2 / MM2_PER_CM2)} cm²`],
      ['film taken job by job, leftovers back on the rack', ofLayers(aloneMm2)],
      ['film taken together, leftovers back on the rack', ofLayers(taken)],
      ['the same with borders shared by neighbours', ofLayers(shared)],
      ['the same with borders that follow what stays, in all jobs', ofLayers(followed)],
      [`and searched for less, ${SEARCH_STEPS} steps a film`, ofLayers(searchedFor)],
      [`and with these borders ${CLOSE_BORDERS.borderGapMm} mm clear (a third)`, ofLayers(takenBy(closest))],
      ['of which stays on the work', percent(kept / taken)],
      ['loadings job by job, and together', `${loadings}, ${together.sheets.length}`],
      [
        'copies that find no place',
        String([...together.unplaced, ...closest.unplaced].reduce((sum, { quantity }) => sum + quantity, 0)),
      ],
      ['laid out in', ms(took)],
    ]);
    await services.compute.close();
    await db.destroy();
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
}
