import type { Knex } from 'knex';
import { sourcesOf } from '../core/job/index.js';
import { Compute } from './compute/compute.js';
import type { PlanJob } from './compute/tasks.js';
import { Spooler } from './spooler/spooler.js';
import { ArtworkStore } from './stores/artwork-store.js';
import { FontStore } from './stores/font-store.js';
import { JobStore } from './stores/job-store.js';
import { RunStore } from './stores/run-store.js';
import { ShopStore } from './stores/shop-store.js';

/** What the routes work with. */
export interface Services {
  readonly jobs: JobStore;
  readonly artworks: ArtworkStore;
  readonly fonts: FontStore;
  readonly shop: ShopStore;
  readonly runs: RunStore;
  readonly compute: Compute;
  readonly spooler: Spooler;
  readonly cutterControlPort: number;
  /** A job's recipe with the shop and the artwork's bytes: what a worker plans from. */
  readonly planJob: (jobId: string) => Promise<PlanJob>;
}

export async function makeServices(db: Knex, cutterControlPort: number): Promise<Services> {
  const [jobs, artworks, shop, runs] = [new JobStore(db), new ArtworkStore(db), new ShopStore(db), new RunStore(db)];
  const spooler = new Spooler(runs, async () => (await shop.get()).cutter);
  await spooler.recover();
  return {
    jobs,
    artworks,
    fonts: new FontStore(db),
    shop,
    runs,
    compute: new Compute(),
    spooler,
    cutterControlPort,
    planJob: async (jobId) => {
      const { recipe } = await jobs.get(jobId);
      const sources = new Map<string, Uint8Array>();
      for (const { id } of recipe.artworks.flatMap(sourcesOf)) sources.set(id, (await artworks.get(id)).bytes);
      return { recipe, shop: await shop.get(), sources };
    },
  };
}
