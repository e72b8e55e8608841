import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { STATIONS } from '../core/words/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  job = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) =>
    patchRecipe(recipe, { build: { trapMm: 0.1 }, surface: { size: { mode: 'width', mm: 150 } } }),
  );
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

/** Waits for all of the plan: a page that is left while its worker computes takes its tab with it now and then. */
async function show(path: string, seen: string): Promise<void> {
  await browser.driver.get(bench.server.url + path);
  await browser.sees(seen);
}

describe('on narrower screens', () => {
  const overflow = 'return document.documentElement.scrollWidth - document.documentElement.clientWidth';

  it.each([
    [1024, 768, STATIONS],
    [390, 844, ['prepare', 'assemble', 'cut'] as const],
  ])('%i wide nothing sticks out sideways', async (width, height, stages) => {
    // A page that is being drawn does not always survive that its window changes under it.
    await browser.driver.get('about:blank');
    await browser.resize(width, height);
    for (const stage of stages) {
      await show(`/jobs/${job.id}/${stage}`, '4 sheets');
      expect([stage, await browser.driver.executeScript(overflow)]).toEqual([stage, 0]);
    }
    await browser.driver.get('about:blank');
    await browser.resize(1280, 800);
  });

  it('at 1280 × 800 the page itself does not scroll', async () => {
    for (const stage of STATIONS) {
      await show(`/jobs/${job.id}/${stage}`, '4 sheets');
      expect([
        stage,
        await browser.driver.executeScript('return document.documentElement.scrollHeight - innerHeight'),
      ]).toEqual([stage, 0]);
    }
  });
});
