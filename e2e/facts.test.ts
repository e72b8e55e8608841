import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { cutsOf, cutUntil, jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* What a maker is told when a cut fails, when film must be cut again, when two pages change one job, and when the server goes away. */

const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">
  <rect x="2" y="2" width="96" height="56" fill="#b3262b"/>
  ${Array.from({ length: 12 }, (_, i) => `<circle cx="${12 + (i % 6) * 15}" cy="${18 + Math.floor(i / 6) * 24}" r="${4 + (i % 3)}" fill="#f7f5ef"/>`).join('')}
</svg>`;

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 60, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});
beforeEach(async () => {
  // Labels and smooth borders are cut after the parts: without them half of the way is half of the parts.
  job = await jobWith(bench, DRAWING, (recipe) =>
    patchRecipe(recipe, { surface: { size: { mode: 'own' } }, preparation: { labels: false, border: 'box' } }),
  );
});

const open = (station: string) => browser.driver.get(`${bench.server.url}/jobs/${job.id}/${station}`);
const hurry = (factor: number) => bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor });
const saved = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body;
const load = async (film: string, action: string) => {
  await browser.choose('Film in the cutter', film);
  await browser.press('It lies liner down, film side up.');
  await browser.press(action);
};

describe('a cut that fails', () => {
  it('stays told, with what is whole and what can be done, and its rest is cut on a new piece', async () => {
    await cutUntil(bench, job.id, 'chalk', 0.5);
    await open('cut');
    await browser.sees('Chalk white: The cutter needs you');
    await bench.api('POST', '/api/cutter/control', { do: 'power-cut' });
    await browser.sees('Chalk white: the cut failed');
    await browser.sees(/On the piece \d+ parts of 12 are whole/);
    // It is told on another day too.
    await open('cut');
    await browser.sees('Chalk white: the cut failed');
    const { whole } = (await cutsOf(bench, job.id))[0]!.runs[0]!;
    await browser.press(`Cut the rest: ${whole!.ofParts - whole!.parts} parts`);
    await load('Chalk white', 'Cut the rest');
    await browser.sees('Chalk white, the rest');
    const rest = (await cutsOf(bench, job.id)).find((sheet) => sheet.restOf !== null)!;
    await runUntil(bench, rest.runs[0]!.id, (r) => r.state === 'finished');
    await browser.sees('1 of 2 cut');
    expect(await browser.text()).not.toContain('the cut failed');
  });

  it('is not forgotten when cutting again is cancelled before the knife came down: the rest of it can still be cut', async () => {
    await cutUntil(bench, job.id, 'chalk', 0.7);
    await open('cut');
    await browser.press('Cancel this sheet');
    await browser.sees('Chalk white: the cut was cancelled');
    await bench.api('POST', '/api/cutter/control', { do: 'clear' });
    const { whole } = (await cutsOf(bench, job.id))[0]!.runs[0]!;
    await bench.api('POST', '/api/cutter/control', { do: 'fail', how: 'jammed' });
    await browser.press('Cut all of it again');
    await load('Chalk white', 'Cut it again');
    await browser.sees('Chalk white: The cutter needs you');
    await browser.press('Cancel this sheet');
    await browser.sees('It was stopped before anything was cut. What counts is the piece that was cut before.');
    await browser.sees(`On the piece ${whole!.parts} parts of ${whole!.ofParts} are whole`);
    await browser.sees(`Cut the rest: ${whole!.ofParts - whole!.parts} parts`);
    const plan = (await bench.api<{ sheets: { film: string }[] }>('GET', `/api/jobs/${job.id}/plan`)).body;
    expect(plan.sheets.map(({ film }) => film)).toEqual(['lock-gate']);
    await bench.api('POST', '/api/cutter/control', { do: 'clear' });
    await browser.press('Throw it away');
    await browser.sees('thrown away');
  });

  it('and was thrown away cannot be taken back, and cut once more, when its copies were cut again', async () => {
    await cutUntil(bench, job.id, 'chalk', 0.5);
    await open('cut');
    await browser.press('Cancel this sheet');
    await browser.sees('Chalk white: the cut was cancelled');
    await bench.api('POST', '/api/cutter/control', { do: 'clear' });
    await browser.press('Throw it away');
    await browser.sees('thrown away');
    await hurry(400);
    const { body: run } = await startCut(bench, job.id, 'chalk');
    await runUntil(bench, run.id, (r) => r.state === 'finished');
    const [first] = await cutsOf(bench, job.id);
    const back = await bench.api<{ code: string }>('POST', `/api/sheets/${first!.id}/decide`, { decided: null });
    expect([back.status, back.body.code]).toEqual([409, 'copies-cut-again']);
    await open('cut');
    await browser.sees('1 of 2 cut');
    expect(await browser.text()).not.toContain('Cut all of it again');
    await hurry(60);
  });

  it('keeps another job from the cutter, and leads there', async () => {
    await hurry(1);
    const { body: run } = await startCut(bench, job.id, 'chalk');
    const other = await jobWith(bench, DRAWING);
    await browser.driver.get(`${bench.server.url}/jobs/${other.id}/cut`);
    await browser.sees('The cutter is busy with Chalk white of Test');
    await browser.press('Test');
    await browser.sees('Chalk white: Cutting');
    await browser.press('Cancel this sheet');
    await browser.sees('Chalk white: the cut was cancelled');
    await runUntil(bench, run.id, (r) => r.state === 'cancelled');
    await browser.press('Throw it away');
    await browser.sees('thrown away');
  });
});

it('a sheet that is to be remade is back among what is to be cut; one whose job has changed says so', async () => {
  await hurry(400);
  const { body: run } = await startCut(bench, job.id, 'chalk');
  await runUntil(bench, run.id, (r) => r.state === 'finished');
  await open('record');
  await browser.sees('1 of 2 cut');
  await browser.press('Make again');
  await browser.sees('will be cut again');
  await open('cut');
  await browser.sees('spoiled: cut again');
  const left = async () => (await browser.driver.findElements(By.css('ol[aria-label="Sheets to cut"] li'))).length;
  await browser.driver.wait(async () => (await left()) === 2, 60_000);
  await bench.api('PUT', `/api/sheets/${run.sheetId}/verdicts`, { positions: [0], verdict: 'good' });
  await browser.driver.wait(async () => (await left()) === 1, 60_000);
  const now = await saved();
  await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
    recipe: patchRecipe(now.recipe, { surface: { size: { mode: 'width', mm: 70 } } }),
    revision: now.revision,
  });
  await open('cut');
  await browser.sees('no longer fits: the job has changed since');
});

it('ticks of the weed map are kept with the piece', async () => {
  await hurry(400);
  const { body: run } = await startCut(bench, job.id, 'lock-gate');
  await runUntil(bench, run.id, (r) => r.state === 'finished');
  await open('prepare');
  await browser.sees(/0 of \d+ done/);
  await browser.press('3. counter');
  await browser.sees(/1 of \d+ done/);
  await browser.driver.wait(async () => (await cutsOf(bench, job.id))[0]!.groups[0]!.ticked.length === 1, 60_000);
  await browser.driver.get('about:blank');
  await open('prepare');
  await browser.sees(/1 of \d+ done/);
});

describe('a job that is changed elsewhere', () => {
  it('overwrites nothing: the change is shown and can be put on top', async () => {
    await browser.deafen(true);
    await open('sheets');
    await browser.sees('2 sheets');
    const seen = await saved();
    await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: { ...seen.recipe, customer: 'Someone else' },
      revision: seen.revision,
    });
    await browser.write('Copies', '3');
    await browser.sees('changed somewhere else in the meantime');
    await browser.sees('copies and spacing (3)');
    expect((await saved()).recipe).toMatchObject({ customer: 'Someone else', sheets: { copies: 1 } });
    await browser.press('Make my change again');
    await browser.driver.wait(async () => (await saved()).recipe.sheets.copies === 3, 60_000);
    expect((await saved()).recipe.customer).toBe('Someone else');
    await browser.deafen(false);
  });

  it('refuses copies that are out of range, in a sentence', async () => {
    await open('sheets');
    await browser.sees('2 sheets');
    await browser.write('Copies', '9000');
    await browser.sees('It must be from 1 to 500');
    await browser.write('Copies', 'many');
    await browser.sees('“many” is not a whole number');
    expect((await saved()).recipe.sheets.copies).toBe(1);
  });
});

describe('a server that goes away in the middle of an edit', () => {
  it('gets the edit when it is back, and until then the page says so', async () => {
    await open('sheets');
    await browser.sees('2 sheets');
    await browser.sees('saved');
    await bench.stopServer();
    await browser.write('Copies', '2');
    await browser.sees('not saved yet: the server is away');
    await browser.sees('The bench computer has not answered since');
    await browser.write('Title', 'Written meanwhile');
    await bench.startServer();
    await browser.driver.wait(
      async () => (await browser.driver.findElement(By.css('[data-saving]')).getText()).startsWith('saved'),
      60_000,
    );
    expect((await saved()).recipe).toMatchObject({ title: 'Written meanwhile', sheets: { copies: 2 } });
    expect((await saved()).revision).toBe(job.revision + 2);
  });

  it('gets it also when the page was closed before it came back', async () => {
    await open('sheets');
    await browser.sees('2 sheets');
    await bench.stopServer();
    await browser.write('Copies', '4');
    await browser.sees('not saved yet');
    await browser.driver.get('about:blank');
    await bench.startServer();
    expect((await saved()).recipe.sheets.copies).toBe(1);
    await open('sheets');
    await browser.driver.wait(async () => (await saved()).recipe.sheets.copies === 4, 60_000);
  });
});
