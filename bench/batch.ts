import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { planBatch, type BatchJob } from '../core/batch/index.js';
import { NEW_LAY_WISH } from '../core/stations/sheets/index.js';
import { Planner } from '../core/plan/index.js';
import type { Shop } from '../core/shop/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { openDatabase } from '../server/db/open-database.js';
import { makeServices } from '../server/services.js';
import { ms, percent, print } from './measure.js';

const MM2_PER_CM2 = 100;

/** All jobs of the demo shop, laid job by job as the Sheets station does, and together. */
export async function batchBench(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  try {
    spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed.ts', '--data', data], { stdio: 'ignore' });
    const db = await openDatabase(data);
    const services = await makeServices(db, 0);
    const planner = new Planner(resourcesInNode);
    const { jobs: listed } = await services.jobs.list({ search: '', state: null, from: 0, most: 100 });
    const jobs: BatchJob[] = [];
    let [shop, aloneMm2, loadings] = [null as Shop | null, 0, 0];
    for (const { id } of listed) {
      const source = await services.planJob(id);
      shop = source.shop;
      // What of it is cut already is laid out, too: the list as it was before anything was cut.
      const { prepare, sheets } = await planner.plan({ recipe: source.recipe, shop, sources: await source.loadSources() });
      if (!prepare || !sheets) continue;
      jobs.push({ id, prepare, isInside: source.recipe.surface.kind === 'glass', copies: source.recipe.sheets.copies, taken: {}, lies: {}, due: source.recipe.due });
      aloneMm2 += sheets.sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
      loadings += sheets.sheets.length;
    }
    const begun = performance.now();
    const together = await planBatch(jobs, shop!, { ...NEW_LAY_WISH, spares: { single: 0, layered: 0 } });
    const took = performance.now() - begun;
    const taken = together.sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
    const kept = together.sheets.reduce((sum, { groups }) => sum + groups.reduce((own, { keptMm2 }) => own + keptMm2, 0), 0);
    print(`The ${jobs.length} jobs of the demo shop, job by job and together`, [
      ['film taken job by job, what is left over spent', `${Math.round(aloneMm2 / MM2_PER_CM2)} cm²`],
      ['film taken together, leftovers back on the rack (a third)', `${Math.round(taken / MM2_PER_CM2)} cm², ${percent(taken / aloneMm2)}`],
      ['of which stays on the work', percent(kept / taken)],
      ['loadings job by job, and together', `${loadings}, ${together.sheets.length}`],
      ['copies that find no place', String(together.unplaced.reduce((sum, { quantity }) => sum + quantity, 0))],
      ['laid out in', ms(took)],
    ]);
    await services.compute.close();
    await db.destroy();
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
}
