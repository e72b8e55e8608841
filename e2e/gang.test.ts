import { afterAll, beforeAll, expect, it } from 'vitest';
import { patchRecipe, type Job, type RecipePatch } from '../core/recipe/index.js';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { newMaker } from '../core/shop/index.js';
import { cutsOf, jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';
import { violations } from './violations.js';

/* A run of stickers, aligned strip by strip: from the proposal to the map at the bench. */

const STICKER =
  '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path fill="#b3262b" fill-rule="evenodd" d="M0 0h60v40H0z M4 4h8v8H4z"/><path fill="#f7f5ef" d="M20 10h30v20H20z"/></svg>';
const own: RecipePatch = { surface: { size: { mode: 'own' } } };

let bench: Bench;
let browser: Browser;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  await bench.server.services.shop.fill({
    ...BENCH_SHOP_FILE,
    makers: [{ ...newMaker('ilse'), name: 'Ilse', stripBulkMm: 50 }],
    cutters: (await bench.server.services.shop.get()).cutters,
  });
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const recipeOf = async (id: string) => (await bench.api<Job>('GET', `/api/jobs/${id}`)).body.recipe;

it('strips are proposed, taken with one press, changed, cut, weeded as one, and parted at the end', async () => {
  const job = await jobWith(bench, STICKER, (recipe) =>
    patchRecipe(recipe, { ...own, sheets: { copies: 24 }, build: { school: 'overlay' } }),
  );
  const go = (station: string) => browser.driver.get(`${bench.server.url}/jobs/${job.id}/${station}`);
  await go('sheets');
  await browser.sees('24 copies in 2 films are aligned one by one, which takes about 36 minutes.');
  const offered = /Make strips of (\d+) × (\d+)/.exec(await browser.text())!;
  await browser.press(offered[0]);
  await browser.sees(
    `24 copies are cut as ${Math.ceil(24 / (Number(offered[1]) * Number(offered[2])))} strips of ${Number(offered[1]) * Number(offered[2])}.`,
  );
  expect(await browser.text()).not.toContain('aligned one by one');
  await go('prepare');
  await browser.sees('One set of marks holds a strip of');
  await browser.write('Copies across a strip', '3');
  await browser.write('Copies down a strip', '2');
  await browser.driver.wait(async () => {
    const { gang } = (await recipeOf(job.id)).preparation;
    return gang?.across === 3 && gang.down === 2;
  }, 60_000);
  await browser.sees('Weeding one strip of 6 takes about');
  expect(await violations(browser)).toEqual([]);
  // One strip has six counters, and they are ticked as one piece.
  const { body: run } = await startCut(bench, job.id, 'lock-gate');
  await runUntil(bench, run.id, (one) => one.state === 'finished');
  const [sheet] = await cutsOf(bench, job.id);
  expect(sheet!.groups.every(({ perStrip, weedPlaces }) => perStrip === 6 && weedPlaces.length === 6)).toBe(true);
  await go('prepare');
  await browser.sees('6 left');
  await browser.press('1. counter');
  await browser.sees('5 left');
  await go('assemble');
  await browser.sees('That lays all 6 of a strip at once.');
  await browser.press('Next step');
  await browser.sees('Part the strips');
  expect(await violations(browser)).toEqual([]);
  // Cut already, it is not taken apart by a proposal; each by itself is one press away.
  await go('prepare');
  await browser.press('Align each copy by itself');
  await browser.driver.wait(async () => (await recipeOf(job.id)).preparation.gang === null, 60_000);
});

it('a few copies can be laid in strips too', async () => {
  const few = await jobWith(bench, STICKER, (recipe) => patchRecipe(recipe, { ...own, sheets: { copies: 3 } }));
  await browser.driver.get(`${bench.server.url}/jobs/${few.id}/sheets`);
  await browser.press('Align them in strips');
  await browser.sees('3 copies are cut as 1 strip of 3.');
});

it('who is at work takes strips of waste as they like them, and the app’s come back', async () => {
  const job = await jobWith(
    bench,
    '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="160mm" viewBox="0 0 300 160"><path fill="#b3262b" d="M0 0h60v160H0z M250 40h50v70h-50z"/></svg>',
    (recipe) => patchRecipe(recipe, { ...own, preparation: { border: 'box' } }),
  );
  await browser.driver.get(`${bench.server.url}/jobs/${job.id}/prepare`);
  await browser.choose('At work', 'Ilse');
  await browser.press('Take Ilse’s 50');
  await browser.driver.wait(async () => (await recipeOf(job.id)).preparation.relief.bulkMm === 50, 60_000);
  await browser.press('As the app would part it');
  await browser.driver.wait(async () => (await recipeOf(job.id)).preparation.relief.bulkMm === null, 60_000);
});
