import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import type { Batch, BatchView } from '../core/batch/index.js';
import { patchRecipe, type Job, type RecipePatch } from '../core/recipe/index.js';
import type { ShopFile } from '../core/shop/index.js';
import type { SparesOfKinds } from '../core/engines/learning/index.js';
import type { FrozenSheet, SpoiledOfJob } from '../core/stations/cut/index.js';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';
import { violations } from './violations.js';

/* The cutting list: jobs that wait are put together, cut on shared sheets, and what is left over is used again. */

const TAG = `<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="50mm" viewBox="0 0 70 50"><rect x="2" y="2" width="66" height="46" fill="#f7f5ef"/><path d="M12 20h46v10h-46z" fill="#16181a"/></svg>`;
const NAME = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="30mm" viewBox="0 0 120 30"><path d="M4 4h50v22h-50z M66 4h50v22h-50z" fill="#f7f5ef"/></svg>`;

let bench: Bench;
let browser: Browser;
let jobs: readonly Job[];
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});
beforeEach(async () => {
  await bench.server.services.shop.fill({
    ...BENCH_SHOP_FILE,
    cutters: (await bench.server.services.shop.get()).cutters,
  });
  for (const { id, revision } of await batches()) await bench.api('POST', `/api/batches/${id}/end`, { revision });
  for (const { id } of (await bench.api<Job[]>('GET', '/api/jobs')).body) await bench.api('DELETE', `/api/jobs/${id}`);
  const own: RecipePatch = { surface: { size: { mode: 'own' } }, preparation: { border: 'box' } };
  jobs = [
    await jobWith(bench, TAG, (recipe) => patchRecipe(recipe, { ...own, title: 'Tag for a gate' })),
    await jobWith(bench, NAME, (recipe) => patchRecipe(recipe, { ...own, title: 'Name for a punt' })),
  ];
});

const batches = async () => (await bench.api<Batch[]>('GET', '/api/batches')).body;
const shop = async () => (await bench.api<ShopFile>('GET', '/api/shop')).body;
const open = (path: string) => browser.driver.get(bench.server.url + path);
/** Presses a tick box by its name. */
const tick = async (css: string) => {
  const box = await browser.find(css);
  await browser.driver.executeScript('arguments[0].click()', box);
};

it('two jobs are put together, cut on one mat of pieces, and what is left goes back to the rack with a number', async () => {
  await open('/cutting-list');
  await browser.sees('2 jobs wait');
  expect(await violations(browser)).toEqual([]);
  await browser.press('Tick all that are apart');
  await browser.press('Cut 2 jobs together');
  await browser.sees('To cut');
  const [batch] = await batches();
  expect(batch!.jobs.map(({ title }) => title).sort()).toEqual(['Name for a punt', 'Tag for a gate']);
  // Both films are cut with the same settings: one pass with a piece of each.
  await browser.sees('Does each piece lie in its place?');
  // Each piece names what is really on it.
  const fetched = await browser.driver.findElements(By.css('section[aria-label="Pick list"] li'));
  const lines = await Promise.all(fetched.map((one) => one.getText()));
  const namesOn = (film: string) => {
    const line = lines.find((text) => text.includes(film))!;
    return ['Name for a punt', 'Tag for a gate'].filter((title) => line.includes(title));
  };
  expect(namesOn('Tar black')).toEqual(['Tag for a gate']);
  expect(namesOn('Chalk white')).toEqual(['Name for a punt', 'Tag for a gate']);
  expect(await violations(browser)).toEqual([]);
  const mat = await browser.find('[role="group"][aria-label^="Mat with 2 pieces"]');
  expect(await mat.isDisplayed()).toBe(true);
  const cut = await browser.find('section[aria-label="What is left to cut"] li button + section button');
  expect(await cut.isEnabled()).toBe(false);
  for (const i of [1, 2]) await tick(`section[aria-label="What is left to cut"] ol ol li:nth-child(${i}) input`);
  await browser.press('Cut this sheet');
  await browser.sees('Put back');
  await browser.sees('✓ cut');
  const [sheet] = (await bench.api<FrozenSheet[]>('GET', `/api/batches/${batch!.id}/cuts`)).body;
  expect(new Set(sheet!.groups.map(({ jobId }) => jobId)).size).toBe(2);
  const before = (await shop()).stock.length;
  expect(await violations(browser)).toEqual([]);
  const kept = sheet!.leftovers.filter(({ keep }) => keep).length;
  await browser.press(kept === 1 ? 'Put back this piece' : `Put back ${kept} pieces`);
  // Each number stands beside its offcut, also when one comes back later, until it is written on it.
  await browser.sees(/Write (this number|these numbers)/);
  const { stock } = await shop();
  expect(stock.length).toBe(before + kept);
  const numbers = stock.slice(-kept).map(({ number }) => String(number));
  await browser.driver.navigate().refresh();
  await browser.sees(/Write (this number|these numbers)/);
  const list = await browser.find('section[aria-label="Numbers to write on offcuts"] ul');
  for (const number of numbers) expect(await list.getText()).toContain(number);
  expect(await violations(browser)).toEqual([]);
  await browser.press(kept === 1 ? 'It is written on it' : 'They are written on them');
  await browser.driver.wait(async () => !/Write (this number|these numbers)/.test(await browser.text()), 60_000);
  const offcut = stock.filter(({ number }) => number !== null).sort((a, b) => b.number! - a.number!)[0]!;
  expect(offcut.left).toBe(1);
  await browser.sees('Everything of this batch is cut.');

  // The offcut is used: the same once more finds it before any roll.
  const again = await jobWith(bench, NAME, (recipe) =>
    patchRecipe(recipe, { surface: { size: { mode: 'own' } }, title: 'Name for a skiff' }),
  );
  await open(`/cutting-list/job/${again.id}`);
  await browser.sees('It stands on the cutting list with 1 layer');
  await browser.press('Lay it out by itself');
  await browser.sees('To fetch from the rack');
  const own = (await batches()).find((one) => one.jobs.some(({ id }) => id === again.id))!;
  const plan = (await bench.api<{ sheets: { pieces: { kind: string }[] }[] }>('GET', `/api/batches/${own.id}/plan`))
    .body;
  expect(plan.sheets[0]!.pieces.map(({ kind }) => kind)).toEqual(['offcut']);
});

it('from the artwork straight to the cutting list, and its stations show the batch', async () => {
  await open(`/jobs/${jobs[0]!.id}/artwork`);
  await browser.press('Straight to the cutting list');
  await browser.sees('It stands on the cutting list with 2 layers');
  await browser.sees('What it will be');
  expect(await violations(browser)).toEqual([]);
  await browser.press('Cut it together with others');
  await browser.sees('2 jobs wait');
  await browser.press('Lay out this job');
  await browser.sees('To fetch from the rack');
  for (const station of ['sheets', 'cut']) {
    await open(`/jobs/${jobs[0]!.id}/${station}`);
    await browser.sees('from the cutting list, in');
    expect(await violations(browser)).toEqual([]);
  }
  await browser.press(`batch ${(await batches())[0]!.number}`);
  await browser.press('Take the batch apart');
  await browser.sees('2 jobs wait');
  expect(await batches()).toEqual([]);
});

it('is told by another page, works on a phone, and keeps what is decided', async () => {
  await open('/cutting-list');
  await browser.sees('2 jobs wait');
  const { body: batch } = await bench.api<Batch>('POST', '/api/batches', { jobIds: jobs.map(({ id }) => id) });
  await browser.sees(`Batch ${batch.number}`);
  await browser.resize(390, 844);
  await open(`/cutting-list/${batch.id}`);
  await browser.sees('To cut');
  expect(await browser.driver.executeScript('return document.documentElement.scrollWidth <= innerWidth')).toBe(true);
  expect(await violations(browser)).toEqual([]);
  await browser.resize(1280, 800);
  await browser.write('Spacing on the sheets', '9');
  await browser.driver.wait(async () => (await batches())[0]!.wish.spacingMm === 9, 60_000);
  await browser.press('shared by neighbours');
  await browser.driver.wait(async () => (await batches())[0]!.wish.sharesBorders, 60_000);
  await browser.sees('the line between two is cut once');
  await browser.sees('In this batch none does');
  await browser.press('nothing lies');
  await browser.driver.wait(async () => !(await batches())[0]!.wish.inCounters, 60_000);
  await browser.sees('Counters stay empty');
  await browser.press('by any angle');
  await browser.driver.wait(async () => (await batches())[0]!.wish.anyTurn, 60_000);
  await browser.press('one by one');
  await browser.driver.wait(async () => !(await batches())[0]!.wish.zones, 60_000);
  await browser.sees('What is loaded?');
  const order = () =>
    browser.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('ol[aria-label="Sheets to cut"] > li > button > span:not(:last-child)')].map((one) => one.textContent)`,
    );
  const before = await order();
  await browser.press('Cut later: sheet 1');
  await browser.driver.wait(
    async () => JSON.stringify(await order()) === JSON.stringify([...before].reverse()),
    60_000,
  );
  expect((await batches())[0]!.wish.order).toBe('by hand');
  await browser.write('Seconds to look', '1');
  await browser.press('Look for less film');
  await browser.sees(/less film is taken|Nothing better was found/);
  await browser.press('each as it fits');
  await browser.driver.wait(async () => !(await batches())[0]!.wish.oneDirection, 60_000);
  await browser.press(`Take out ${jobs[1]!.recipe.title}`);
  await browser.driver.wait(async () => (await batches())[0]!.jobs.length === 1, 60_000);
});

/** Runs `act` while the page waits for the answer to a move of a copy. Then that move fails, so nothing has moved. */
async function whileOneIsLaid(act: () => Promise<void>): Promise<void> {
  await browser.driver.executeScript(`
    const ask = window.fetch;
    window.fetch = (...asked) => String(asked[0]?.url ?? asked[0]).includes('/pins') ? new Promise((_, fail) => { window.answer = () => { window.fetch = ask; fail(new TypeError('It was not asked.')); }; }) : ask(...asked);
  `);
  await act();
  await browser.driver.executeScript('window.answer()');
  await browser.driver.wait(async () => !(await browser.text()).includes('Laying it …'), 60_000);
}

it('a copy is dragged, comes to lie at the spacing, stays there when the rest is laid anew, and is let go', async () => {
  const { body: batch } = await bench.api<Batch>('POST', '/api/batches', { jobIds: jobs.map(({ id }) => id) });
  await bench.api('PATCH', `/api/batches/${batch.id}`, {
    revision: batch.revision,
    wish: { ...batch.wish, zones: false },
  });
  await open(`/cutting-list/${batch.id}`);
  await browser.sees('To cut');
  const chalk = await browser.driver.executeScript<number>(
    `const entries = [...document.querySelectorAll('ol[aria-label="Sheets to cut"] > li > button')]; const at = entries.findIndex((one) => one.textContent.includes('Chalk white')); entries[at].click(); return at;`,
  );
  expect(chalk).toBeGreaterThanOrEqual(0);
  await browser.press('Lay by hand');
  const grip = await browser.find('button[aria-label^="Chalk white of Tag for a gate, copy 1."]');
  expect(await violations(browser)).toEqual([]);
  await browser.driver
    .actions()
    .move({ origin: grip })
    .press()
    .move({ origin: grip, x: 40, y: -60 })
    .release()
    .perform();
  await browser.driver.wait(async () => (await batches())[0]!.wish.pins.length === 1, 60_000);
  await browser.sees('pin: laid by hand');
  // It is still the same sheet that is looked at, and the copy that was moved is the one that can be turned.
  expect(
    await (await browser.find('ol[aria-label="Sheets to cut"] > li > button[aria-pressed="true"]')).getText(),
  ).toContain('Chalk white');
  await browser.press('Turn by half');
  await browser.driver.wait(async () => (await batches())[0]!.wish.pins[0]?.rotation === 180, 60_000);
  const [first] = (await batches())[0]!.wish.pins;
  // By keys: so far over the other copy that it comes to touch it at the spacing, or goes where there is room.
  const again = await browser.find('button[aria-label^="Chalk white of Tag for a gate, copy 1."]');
  await browser.driver.executeScript('arguments[0].focus()', again);
  for (let i = 0; i < 3; i += 1) await again.sendKeys(Key.ARROW_RIGHT);
  await again.sendKeys(Key.ENTER);
  await browser.driver.wait(async () => (await batches())[0]!.wish.pins[0]!.xMm !== first!.xMm, 60_000);
  const [second] = (await batches())[0]!.wish.pins;
  await whileOneIsLaid(async () => {
    const waiting = await browser.find('button[aria-label^="Chalk white of Tag for a gate, copy 1."]');
    const nudge = (key: string) => waiting.sendKeys(key, Key.ENTER);
    await nudge(Key.ARROW_RIGHT);
    await browser.sees('Laying it …');
    await nudge(Key.ARROW_LEFT);
    await browser.sees('The copy that you moved before is still being laid.');
  });
  await browser.write('Spacing on the sheets', '6');
  await browser.driver.wait(async () => (await batches())[0]!.wish.spacingMm === 6, 60_000);
  const plan = (
    await bench.api<{ sheets: { laid: { isPinned: boolean; jobId: string }[] }[]; loose: number }>(
      'GET',
      `/api/batches/${batch.id}/plan`,
    )
  ).body;
  expect(plan.loose).toBe(0);
  expect(
    plan.sheets
      .flatMap(({ laid }) => laid)
      .filter(({ isPinned }) => isPinned)
      .map(({ jobId }) => jobId),
  ).toEqual([jobs[0]!.id]);
  expect((await batches())[0]!.wish.pins).toEqual([second]);
  await browser.press('Let all go that was laid by hand');
  await browser.driver.wait(async () => (await batches())[0]!.wish.pins.length === 0, 60_000);
  // The sheets are laid out again, and the page never hears what came of it.
  await browser.sees('To cut');
  await browser.driver.executeScript(`window.EventSource = class extends EventTarget { close() {} };`);
  await browser.write('Spacing on the sheets', '7');
  await browser.driver.wait(async () => (await batches())[0]!.wish.spacingMm === 7, 60_000);
  const old = await browser.find('button[aria-label^="Chalk white of Tag for a gate, copy 1."]');
  await old.sendKeys(Key.ARROW_RIGHT, Key.ENTER);
  await browser.sees('The sheets are still being laid out.');
  expect((await batches())[0]!.wish.pins).toEqual([]);
});

it('a job alone leaves a piece alone, and is laid by hand, at its own Sheets station', async () => {
  const job = jobs[0]!;
  const wish = async () => (await bench.api<Batch>('GET', `/api/jobs/${job.id}/batch`)).body.wish;
  await browser.driver.get(`${bench.server.url}/jobs/${job.id}/sheets`);
  await browser.tap('section[aria-label="Pick list"] button[aria-label^="Do not use it"]');
  await browser.driver.wait(async () => (await wish()).avoid.length === 1, 60_000);
  await browser.tap('button[aria-label^="Use again"]');
  await browser.driver.wait(async () => (await wish()).avoid.length === 0, 60_000);
  await browser.press('Lay by hand');
  const { sheets } = (await bench.api<BatchView>('GET', `/api/batches/${job.id}/plan`)).body;
  await browser.choose('Copy', `${sheets[0]!.films[0]!.name}, copy 1`);
  await browser.press('Turn by half');
  await browser.driver.wait(async () => (await wish()).pins.length === 1, 60_000);
  await browser.press('Let it go');
  await browser.driver.wait(async () => (await wish()).pins.length === 0, 60_000);
});

it('what was spoiled is said at Record, and new batches cut spares by it', async () => {
  const stickers = await jobWith(bench, NAME, (recipe) =>
    patchRecipe(recipe, { surface: { size: { mode: 'own' } }, sheets: { copies: 12 } }),
  );
  const { body: run } = await startCut(bench, stickers.id, 'chalk');
  await runUntil(bench, run.id, ({ state }) => state === 'finished');
  await open(`/jobs/${stickers.id}/record`);
  await browser.sees('Of 12 copies that are cut');
  expect(await violations(browser)).toEqual([]);
  await browser.press('None was spoiled');
  await browser.sees('New batches cut spares by it');
  await browser.write('Copies that were spoiled', '3');
  await browser.driver.wait(
    async () => (await bench.api<SpoiledOfJob>('GET', `/api/jobs/${stickers.id}/spoiled`)).body.spoiled === 3,
    60_000,
  );
  const { body: batch } = await bench.api<Batch>('POST', '/api/batches', { jobIds: jobs.map(({ id }) => id) });
  const { single } = (await bench.api<SparesOfKinds>('GET', '/api/spares')).body;
  expect(batch.wish.spares.single).toBe(single.share);
  await open(`/cutting-list/${batch.id}`);
  await browser.sees('Of 12 copies of single films that you recorded, 3 were spoiled. The spares follow from that.');
  await browser.write('Spares of single films, percent', '2');
  await browser.press(`Cut ${Math.round(single.share * 1000) / 10} % more of single films`);
  await browser.driver.wait(async () => (await batches())[0]!.wish.spares.single === single.share, 60_000);
  expect(await violations(browser)).toEqual([]);
});

it('borders are made close in all jobs of a batch by one press, but for stencils, and as they were by another', async () => {
  const mask = await jobWith(bench, NAME, (recipe) =>
    patchRecipe(recipe, { surface: { size: { mode: 'own' } }, films: { byColour: { '#f7f5ef': 'grainy-mask' } } }),
  );
  const { body: batch } = await bench.api<Batch>('POST', '/api/batches', {
    jobIds: [...jobs, mask].map(({ id }) => id),
  });
  const taken = async () =>
    (await bench.api<{ takenMm2: number }>('GET', `/api/batches/${batch.id}/plan`)).body.takenMm2;
  const borders = () =>
    Promise.all(
      [...jobs, mask].map(async ({ id }) => {
        const { border, borderGapMm } = (await bench.api<Job>('GET', `/api/jobs/${id}`)).body.recipe.preparation;
        return [border, borderGapMm];
      }),
    );
  const [before, first] = [await borders(), await taken()];
  await open(`/cutting-list/${batch.id}`);
  await browser.sees('To cut');
  await browser.press('Make borders close in all jobs');
  await browser.sees('Borders in 2 jobs now follow what stays, 3 mm clear.');
  expect(await borders()).toEqual([['groups', 3], ['groups', 3], before[2]]);
  expect(await taken()).toBeLessThan(first);
  expect(await violations(browser)).toEqual([]);
  await browser.press('Undo');
  await browser.sees('The borders are as they were.');
  expect([await borders(), await taken()]).toEqual([before, first]);
});

it('a deleted job is brought back at any time, into the batch that it was in', async () => {
  await open('/cutting-list');
  await browser.press('Tick all that are apart');
  await browser.press('Cut 2 jobs together');
  await browser.sees('To cut');
  const [batch] = await batches();
  await open('/');
  await browser.press('Delete Tag for a gate');
  await browser.sees(`“Tag for a gate” was deleted. Batch ${batch!.number} is laid out without it.`);
  expect((await batches())[0]!.jobs.map(({ title }) => title)).toEqual(['Name for a punt']);
  await browser.press('Dismiss');
  await browser.driver.navigate().refresh();
  await browser.press('Deleted');
  await browser.sees('Tag for a gate');
  expect(await violations(browser)).toEqual([]);
  await browser.press('Bring it back: Tag for a gate');
  await browser.sees('“Tag for a gate” is back.');
  expect((await batches())[0]!.jobs.map(({ title }) => title).sort()).toEqual(['Name for a punt', 'Tag for a gate']);
});
