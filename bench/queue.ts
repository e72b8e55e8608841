import type { Batch } from '../core/batch/index.js';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { jobWith, openBench } from '../server/testing/bench.js';
import { ms, print, quantile } from './measure.js';

const PLANS = 300;
/** So many dots: a plan of some seconds, while others have their turn of a quarter of a minute. */
const DOTS = 1500;

const dots = (count: number, colour: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="900mm" height="900mm" viewBox="0 0 900 900">${Array.from(
    { length: count },
    (_, i) =>
      `<circle cx="${8 + (i % 56) * 16}" cy="${8 + Math.floor(i / 56) * 16}" r="${3 + (i % 4)}" fill="${colour}"/>`,
  ).join('')}</svg>`;

/** How soon a small plan is answered while two large plans and a search for less film go on. */
export async function queueBench(): Promise<void> {
  const bench = await openBench();
  try {
    await bench.server.services.compute.warmUp(await bench.server.services.shop.forPlans());
    const large = [await jobWith(bench, dots(DOTS, '#20252b')), await jobWith(bench, dots(DOTS + 1, '#f7f5ef'))];
    const small = await jobWith(bench, dots(12, '#b3262b'));
    const searched = [await jobWith(bench, dots(40, '#20252b')), await jobWith(bench, dots(41, '#20252b'))];
    const { body: batch } = await bench.api<Batch>('POST', '/api/batches', { jobIds: searched.map(({ id }) => id) });
    let isOver = false;
    let title = 0;
    /** Plans it again and again, each time as another recipe: nothing is known of it beforehand. */
    const again = async (job: Job): Promise<number> => {
      const { body: now } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
      const recipe = patchRecipe(now.recipe, { sheets: { copies: 1 + ((title += 1) % 3) }, title: `Job ${title}` });
      await bench.api('PUT', `/api/jobs/${job.id}/recipe`, { recipe, revision: now.revision });
      const begun = performance.now();
      await bench.api('GET', `/api/jobs/${job.id}/plan`);
      return performance.now() - begun;
    };
    const resized = async (job: Job) => {
      const { body: now } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
      const recipe = patchRecipe(now.recipe, { surface: { size: { mode: 'width', mm: 700 + (title += 1) } } });
      await bench.api('PUT', `/api/jobs/${job.id}/recipe`, { recipe, revision: now.revision });
      await bench.api('GET', `/api/jobs/${job.id}/plan`);
    };
    let largePlans = 0;
    const busy = large.map(async (job) => {
      while (!isOver) {
        await resized(job);
        largePlans += 1;
      }
    });
    const search = (async () => {
      while (!isOver)
        await bench.api('POST', `/api/batches/${batch.id}/search`, {
          revision: (await bench.api<Batch>('GET', `/api/batches/${batch.id}`)).body.revision,
          seconds: 5,
        });
    })();
    const alone: number[] = [];
    const took: number[] = [];
    for (let i = 0; i < PLANS; i += 1) took.push(await again(small));
    isOver = true;
    bench.server.services.compute.searchedEnough(batch.id);
    await Promise.all([...busy, search]);
    for (let i = 0; i < 30; i += 1) alone.push(await again(small));
    print('A small plan while two large plans and a search for less film go on', [
      ['by itself, median', ms(quantile(alone, 0.5))],
      [
        'beside them: median / 99 of 100 / longest (goal: 99 of 100 under 1 s)',
        `${ms(quantile(took, 0.5))} / ${ms(quantile(took, 0.99))} / ${ms(Math.max(...took))}`,
      ],
      ['large plans that were answered meanwhile', String(largePlans)],
    ]);
  } finally {
    await bench.close();
  }
}
