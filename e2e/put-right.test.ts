import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Job } from '../core/recipe/index.js';
import { NO_REPAIR } from '../core/stations/artwork/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/** Everything at once: paper, a shape twice, a hairline bridge, two reds, a speck and a pinhole. */
const SPOILT = `<svg xmlns="http://www.w3.org/2000/svg" width="180mm" height="120mm" viewBox="0 0 180 120"><rect width="180" height="120" fill="#fff"/>
  <rect x="10" y="10" width="70" height="70" fill="#b3262b"/><rect x="10" y="10" width="70" height="70" fill="#b3262b"/><path d="M80 44h60v.6H80z" fill="#b3262b"/>
  <circle cx="150" cy="45" r="16" fill="#b5282d"/><circle cx="100" cy="100" r=".35" fill="#16181a"/><path fill="#16181a" fill-rule="evenodd" d="M110 92h40v16h-40zM129.700 99.700v.6h.6v-.6z"/></svg>`;

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  job = await jobWith(bench, SPOILT, (recipe) => ({
    ...recipe,
    surface: { ...recipe.surface, size: { mode: 'own' } },
  }));
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const gone = (text: string) => browser.driver.wait(async () => !(await browser.text()).includes(text), 60_000);

it('finds what would spoil the cut, shows where, and puts it right, all of it undoable', async () => {
  const { driver, sees, press } = browser;
  await driver.get(`${bench.server.url}/jobs/${job.id}/artwork`);
  await sees('painted twice');
  await sees('Specks come off');
  await sees('Pinholes');
  await press('Show where');
  await browser.find('svg[aria-label="The artwork"] rect[stroke-dasharray="5 3"]');

  await press('Fix everything that is safe');
  await sees('Hidden and doubled shapes are left out.');
  await gone('painted twice');
  await press('The white ground is not film');
  await sees('is not film: the surface');
  await press('Use vivid red (#b3262b) for both');
  await sees('is cut together with the');
  await press('Thicken to 1 mm');
  await gone('Parts are too thin');
  await press('Drop below 1 mm²');
  await gone('Specks come off');
  await gone('Pinholes');

  await press('What changed');
  const changed = await driver.findElements(By.css('svg[aria-label="The artwork"] path[stroke="#1f6145"]'));
  await driver.wait(async () => ((await changed[0]!.getAttribute('d')) ?? '').length > 0, 60_000);
  await press('Undo: Parts thinner than 1 mm are thickened.');
  await sees('Parts are too thin');
  await press('Undo');
  await gone('Parts are too thin');
  expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe.repair).toEqual({
    ...NO_REPAIR,
    recolour: { '#b5282d': '#b3262b' },
    noFilm: ['#ffffff'],
    tidy: true,
    speckMm2: 1,
    thickenMm: 1,
  });
});

it('lets a finding be by one press, keeps a reason for it, and shows it again', async () => {
  const { sees, press } = browser;
  await press('Undo');
  await sees('Specks come off');
  const message = (await browser.text()).match(/Specks come off[^\n]*/)![0];
  await press(`Leave as it is: ${message}`);
  await sees('Left as they are');
  await press(`Add a reason: ${message}`);
  await press('Too small to be seen');
  await sees('Too small to be seen.');
  await press(`Show again: ${message}`);
  await gone('Show again');
});

it('puts right one place and lets another be, place by place', async () => {
  const { driver, sees, press } = browser;
  const dots =
    '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><rect x="10" y="10" width="60" height="60" fill="#b3262b"/><circle cx="90" cy="20" r=".35" fill="#b3262b"/><circle cx="90" cy="40" r=".35" fill="#b3262b"/><circle cx="90" cy="60" r=".35" fill="#b3262b"/></svg>';
  const { id } = await jobWith(bench, dots, (recipe) => ({
    ...recipe,
    surface: { ...recipe.surface, size: { mode: 'own' } },
  }));
  await driver.get(`${bench.server.url}/jobs/${id}/artwork`);
  await sees('(3 times)');
  const message = (await browser.text()).match(/Specks come off[^\n]*(?= \(3)/)![0];
  await press(`Show where: ${message}`);
  await sees('all 3 places');
  await press('The next place');
  await sees('place 1 of 3');
  await press('Drop below 1 mm², only here');
  await sees('place 1 of 2');
  await sees('are dropped and filled, at 1 place.');
  await press('The next place');
  await sees('place 2 of 2');
  await press(`Leave this one: ${message}`);
  await sees('Specks and pinholes stay, at 1 place.');
  await press('Add a reason: Specks and pinholes stay, at 1 place.');
  await press('The customer wants it');
  await sees('Specks and pinholes stay, at 1 place. The customer wants it.');
  await gone('place 2 of');
  const { repair } = (await bench.api<Job>('GET', `/api/jobs/${id}`)).body.recipe;
  expect([repair.only.specks?.map((place) => place.yMm), repair.spared.specks?.map((place) => place.yMm)]).toEqual([
    [20],
    [60],
  ]);
  // The reason, then that it was left.
  await press('Undo');
  await sees('Add a reason');
  await press('Undo');
  await sees('place 2 of 2');
  await press('Drop below 1 mm²');
  await gone('Specks come off');
  await sees('are dropped and filled.');

  // What was looked at before does not call its maker back from another station.
  await browser.tap('a[href$="/build"]');
  await press('Undo');
  await driver.wait(async () => (await (await browser.find('a[href$="/artwork"]')).getText()).includes('!'), 60_000);
  expect(await driver.getCurrentUrl()).toMatch(/\/build$/);
});

it('shows what a merge of two near colours would look like', async () => {
  const { id } = await jobWith(bench, SPOILT);
  await browser.driver.get(`${bench.server.url}/jobs/${id}/artwork`);
  const merged = await browser.find('svg[aria-label^="as one colour"]');
  const fills = async () =>
    new Set(await Promise.all((await merged.findElements(By.css('path'))).map((path) => path.getAttribute('fill'))));
  await browser.driver.wait(async () => (await fills()).size > 1, 60_000);
  expect((await fills()).has('#b5282d')).toBe(false);
});

it('takes a DXF as it takes an SVG', async () => {
  const line = (x0: number, y0: number, x1: number, y1: number) =>
    `0\nLINE\n8\n0\n62\n1\n10\n${x0}\n20\n${y0}\n11\n${x1}\n21\n${y1}\n`;
  const path = join(mkdtempSync(join(tmpdir(), 'lantern-dxf-')), 'plate.dxf');
  writeFileSync(
    path,
    `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${line(0, 0, 80, 0)}${line(80, 40, 80, 0)}${line(80, 40, 0, 40)}${line(0, 0, 0, 40)}${line(100, 0, 120, 5)}0\nENDSEC\n0\nEOF\n`,
  );
  const { body: made } = await bench.api<Job>('POST', '/api/jobs', { title: 'A plate' });
  await browser.driver.get(`${bench.server.url}/jobs/${made.id}/artwork`);
  await browser.sees('Drop a drawing (SVG, PDF');
  await browser.driver.findElement(By.css('input[type=file]')).sendKeys(path);
  await browser.sees('do not close');
  await browser.sees('1 colour');
  // The line that does not close is not cut, so it does not count.
  await browser.sees('80 × 40 mm');
});
