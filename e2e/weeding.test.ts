import { afterAll, beforeAll, expect, it } from 'vitest';
import { patchRecipe, type Job, type Recipe } from '../core/recipe/index.js';
import { cutsOf, jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* Weeding: how the waste is parted, and the map that is worked from at the bench. */

const WIDE = '<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="220mm" viewBox="0 0 420 220"><path fill="#b3262b" fill-rule="evenodd" d="M0 0h110v220H0z M20 20h30v30h-30z M60 100h30v40h-30z M340 60h80v90h-80z M360 80h30v30h-30z"/></svg>';

let bench: Bench;
let browser: Browser;
let other: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  other = await openBrowser();
  job = await jobWith(bench, WIDE, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
});
afterAll(async () => {
  await browser.close();
  await other.close();
  await bench.close();
});

const now = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe;
const until = (is: (recipe: Recipe) => boolean) => browser.driver.wait(async () => is(await now()), 60_000);
const prepare = () => browser.driver.get(`${bench.server.url}/jobs/${job.id}/prepare`);
const reliefLines = async () => Number(/parted by (\d+) relief line/.exec(await browser.text())?.[1] ?? 0);

it('waste is parted by relief lines; one is taken away, one drawn by its two ends, and the app’s put back', async () => {
  await prepare();
  await browser.sees(/The waste is parted by \d+ relief lines?\./);
  const before = await reliefLines();
  expect(before).toBeGreaterThan(1);
  await browser.press('Take away line A');
  await until(({ preparation }) => preparation.relief.gone.length === 1);
  await browser.driver.wait(async () => (await reliefLines()) === before - 1, 60_000);
  await browser.press('Draw a relief line');
  await browser.sees('choose where the line begins');
  const map = await browser.find('[role="group"][aria-label^="Weed map of"]');
  const { width, height } = await map.getRect();
  const click = (x: number, y: number) => browser.driver.actions().move({ origin: map, x: Math.round(x * width), y: Math.round(y * height) }).click().perform();
  await click(0.05, -0.2);
  await browser.sees('now choose where the line ends');
  await click(0.05, 0.2);
  await until(({ preparation }) => preparation.relief.drawn.length === 1);
  await browser.press('As the app would part it');
  await until(({ preparation }) => preparation.relief.drawn.length === 0 && preparation.relief.gone.length === 0);
});

it('another border and other marks are one press away', async () => {
  await prepare();
  await browser.press('One round each group');
  await browser.sees('goes round each group of parts');
  await until(({ preparation }) => preparation.border === 'groups');
  await browser.press('A box');
  await until(({ preparation }) => preparation.border === 'box');
});

it('two devices work on one map: what is tapped on the phone is out on the other, until all is out', async () => {
  const { body: run } = await startCut(bench, job.id, 'lock-gate');
  await runUntil(bench, run.id, (one) => one.state === 'finished');
  await browser.driver.get('about:blank');
  await browser.resize(390, 844);
  await prepare();
  await browser.sees('3 left');
  await other.driver.get(`${bench.server.url}/jobs/${job.id}/prepare`);
  await other.sees('3 left');
  // The picture comes first, and is tapped: no list has to be gone through.
  const map = await browser.find('[role="group"][aria-label^="Weed map of"]');
  expect((await map.getRect()).y).toBeLessThan(844 / 2);
  await browser.press('Show the next one');
  const { width } = await map.getRect();
  expect(width).toBeGreaterThan(300);
  await browser.driver.actions().move({ origin: map, x: 0, y: 0 }).click().perform();
  await browser.sees('2 left');
  await other.sees('2 left');
  await browser.driver.get(`${bench.server.url}/jobs/${job.id}/assemble`);
  await browser.sees('Not all is out yet.');
  await browser.sees('2 left');
  await prepare();
  await browser.sees('2 left');
  await other.press('2. counter');
  await browser.sees('1 left');
  await other.press('3. counter');
  await browser.sees('All out.');
  expect((await cutsOf(bench, job.id))[0]!.groups[0]!.ticked).toHaveLength(3);
  await other.driver.get(`${bench.server.url}/jobs/${job.id}/assemble`);
  await other.sees(/\d steps/);
  expect(await other.text()).not.toContain('Not all is out yet.');
  await browser.driver.get('about:blank');
  await browser.resize(1280, 800);
});
