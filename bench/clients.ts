import { setTimeout as sleep } from 'node:timers/promises';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { ms, print, quantile } from './measure.js';
import { openRealShop, type RealShop } from './processes.js';

const CLIENTS = 50;
const PLANS_AT_ONCE = 4;
const SECONDS = 20;
/** A client looks at its answer for so long before it asks again: sixty times as eager as a page, which asks every three seconds. */
const PAUSE_MS = 50;

const LEAVES = (n: number) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200"><rect width="300" height="200" fill="#16181a"/>${Array.from({ length: 400 }, (_, i) => `<path fill="${['#f7f5ef', '#b3262b', '#f2b632'][(i + n) % 3]}" d="M${8 + (i % 25) * 11.6} ${8 + Math.floor(i / 25) * 12}c4 -6 8 -4 9 2s-6 8 -9 -2z"/>`).join('')}</svg>`;

async function jobOf(shop: RealShop, n: number): Promise<Job> {
  const { body: job } = await shop.api<Job>('POST', '/api/jobs', { title: `Load ${n}` });
  return (
    await shop.api<Job>('POST', `/api/jobs/${job.id}/artwork?fileName=a.svg`, new TextEncoder().encode(LEAVES(n)))
  ).body;
}

/** The API as pages feel it while the server’s workers are at large plans. */
export async function clientsBench(): Promise<void> {
  const shop = await openRealShop(9520, 10);
  try {
    const jobs = await Promise.all(Array.from({ length: PLANS_AT_ONCE }, (_, n) => jobOf(shop, n)));
    const ends = performance.now() + SECONDS * 1000;
    const times: number[] = [];
    let [errors, plans] = [0, 0];
    const plan = async (n: number) => {
      let job = jobs[n]!;
      for (let i = 0; performance.now() < ends; i += 1) {
        // Another width each time, so that nothing is remembered.
        const changed = await shop.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
          recipe: patchRecipe(job.recipe, { surface: { size: { mode: 'width', mm: 200 + i } } }),
          revision: job.revision,
        });
        job = changed.body;
        const { status } = await shop.api('GET', `/api/jobs/${job.id}/plan`);
        if (status === 200) plans += 1;
        else errors += 1;
      }
    };
    const paths = [
      '/api/jobs',
      `/api/jobs/${jobs[0]!.id}`,
      '/api/shop',
      `/api/jobs/${jobs[1]!.id}/cuts`,
      '/api/cutter',
    ];
    const client = async (n: number) => {
      for (let i = n; performance.now() < ends; i += 1) {
        const start = performance.now();
        const response = await fetch(shop.url + paths[i % paths.length]!);
        await response.arrayBuffer();
        times.push(performance.now() - start);
        if (!response.ok) errors += 1;
        await sleep(PAUSE_MS);
      }
    };
    await Promise.all([
      ...Array.from({ length: PLANS_AT_ONCE }, (_, n) => plan(n)),
      ...Array.from({ length: CLIENTS }, (_, n) => client(n)),
    ]);
    print(
      `The API for ${CLIENTS} clients, each asking ${PAUSE_MS} ms after its last answer, while ${PLANS_AT_ONCE} plans are made at a time (p99 under 200 ms, no error)`,
      [
        ['answers in half of the cases within', ms(quantile(times, 0.5))],
        ['answers in 99 of 100 within', ms(quantile(times, 0.99))],
        ['answers, plans, errors', `${times.length}, ${plans}, ${errors}`],
      ],
    );
  } finally {
    await shop.close();
  }
}
