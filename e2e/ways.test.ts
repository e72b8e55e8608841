import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import type { Batch } from '../core/batch/index.js';
import { cutsOf, jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { STATIONS } from '../core/words/index.js';
import { openBrowser, type Browser } from './browser.js';

/* Every way that leads from a station to somewhere else leads there: of a job that is cut and half weeded, of one in a batch, and of one for which there is too little film. */

const DRAWING =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><path fill="#b3262b" fill-rule="evenodd" d="M0 0h120v60H0z M20 20h10v10h-10z M60 20h20v20h-20z"/><path fill="#f7f5ef" d="M90 20h20v20h-20z"/></svg>';

let bench: Bench;
let browser: Browser;
const jobs: Job[] = [];
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  const own = (job: Parameters<typeof patchRecipe>[0]) => patchRecipe(job, { surface: { size: { mode: 'own' } } });
  for (let i = 0; i < 3; i += 1) jobs.push(await jobWith(bench, DRAWING, own));
  const { body: run } = await startCut(bench, jobs[0]!.id, 'lock-gate');
  await runUntil(bench, run.id, ({ state }) => state === 'finished');
  await bench.api<Batch>('POST', '/api/batches', { jobIds: [jobs[1]!.id] });
  // There is not as much film.
  const { body: job } = await bench.api<Job>('GET', `/api/jobs/${jobs[2]!.id}`);
  const { status } = await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
    recipe: patchRecipe(job.recipe, { surface: { size: { mode: 'width', mm: 500 } }, sheets: { copies: 100 } }),
    revision: job.revision,
  });
  expect(status).toBe(200);
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const isMissing = async () => (await browser.text()).includes('There is nothing at this address');
const linksHere = () =>
  browser.driver.executeScript<{ href: string; isFile: boolean; text: string }[]>(
    `return [...document.querySelectorAll('a[href]')].map((a) => ({ href: a.href, isFile: a.hasAttribute('download'), text: a.textContent }));`,
  );

it('by every link of every station', async () => {
  const pages = jobs.flatMap(({ id }) => STATIONS.map((station) => `${bench.server.url}/jobs/${id}/${station}`));
  const found = new Map<string, { readonly isFile: boolean; readonly text: string }>();
  for (const page of [...pages, `${bench.server.url}/cutting-list`, bench.server.url]) {
    await browser.driver.get(page);
    // The plan is there, and with it all that it leads to.
    await browser.driver.wait(
      async () => (await browser.driver.findElements(By.css('[role="progressbar"]'))).length === 0,
      60_000,
    );
    await browser.find('h1, h2');
    for (const link of await linksHere()) found.set(link.href.split('#')[0]!, link);
  }
  expect(found.size).toBeGreaterThan(3 * STATIONS.length);
  for (const [href, { isFile, text }] of found) {
    if (isFile || new URL(href).pathname.startsWith('/api/')) {
      const response = await fetch(href);
      expect(response.status, `${text}: ${href}`).toBe(200);
      await response.arrayBuffer();
      continue;
    }
    await browser.driver.get(href);
    await browser.find('h1, h2');
    expect(await isMissing(), `${text}: ${href}`).toBe(false);
  }
});

it('by a worker whose modules never ask for their own address, with which Chromium may lose the tab', async () => {
  await browser.driver.get(`${bench.server.url}/jobs/${jobs[0]!.id}/artwork`);
  const workers = () =>
    browser.driver.executeScript<string[]>(
      `return performance.getEntriesByType('resource').map(({ name }) => name).filter((name) => name.includes('plan-worker'));`,
    );
  await browser.driver.wait(async () => (await workers()).length > 0, 60_000);
  for (const worker of await workers()) {
    const code = await (await fetch(worker)).text();
    expect(code).toContain('self.location.href');
    expect(code).not.toContain('import.meta.url');
  }
});

it('from Assemble to the weed map and back, and all of it is weeded in one press', async () => {
  const [{ id }] = jobs as [Job];
  const at = (station: string) => browser.driver.get(`${bench.server.url}/jobs/${id}/${station}`);
  const ticked = async () => (await cutsOf(bench, id)).flatMap(({ groups }) => groups.flatMap((one) => one.ticked));
  await at('assemble');
  await browser.sees('Not all is out yet.');
  await browser.press('To the weed map');
  await browser.sees('left');
  expect(new URL(await browser.driver.getCurrentUrl()).pathname).toBe(`/jobs/${id}/prepare`);
  await browser.press('This layer is weeded');
  await browser.sees('All out.');
  await browser.driver.wait(async () => (await ticked()).length > 0, 60_000);
  await browser.press('Take the ticks back');
  await browser.driver.wait(async () => (await ticked()).length === 0, 60_000);
  await at('assemble');
  await browser.press('The whole job is weeded');
  await browser.driver.wait(async () => (await ticked()).length > 0, 60_000);
  await browser.driver.wait(async () => !(await browser.text()).includes('Not all is out yet.'), 60_000);
});

it('straight to the cutting list only where nothing stops the job', async () => {
  const open = (job: Job) => browser.driver.get(`${bench.server.url}/jobs/${job.id}/artwork`);
  await open(jobs[1]!);
  await browser.press('Straight to the cutting list');
  await browser.sees('It is cut in');
  await browser.press('batch 1');
  await browser.sees('Batch 1');
  await open(jobs[2]!);
  await browser.sees(', blocked');
  expect(await browser.text()).not.toContain('Nothing stops this job');
});
