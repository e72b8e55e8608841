import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* A drawing that no other test knows, taken by a maker from an empty bench to the record. */
const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60">
  <style>.hull { fill: #b3262b } .sail { fill: #f7f5ef }</style>
  <path class="hull" d="M5 40h80l-14 16H18z"/>
  <g transform="translate(2 0)"><path class="sail" d="M42 4v32H14z"/><path class="sail" d="M46 10v26h22z"/></g>
  <circle cx="24" cy="47" r="3.5" fill="#f2b632"/><circle cx="44" cy="47" r="3.5" fill="#f2b632"/><circle cx="64" cy="47" r="3.5" fill="#f2b632"/>
  <text x="10" y="58">not outlined</text>
</svg>`;

let bench: Bench;
let browser: Browser;
const folder = mkdtempSync(join(tmpdir(), 'lantern-art-'));
beforeAll(async () => {
  bench = await openBench({ timeLapse: 40, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const go = async (name: string) => {
  const link = await browser.driver.findElement(
    By.xpath(`//nav[@aria-label="Stations of this job"]//a[contains(., "${name}")]`),
  );
  await link.click();
  await browser.find(`section[aria-label="${name}: decisions"]`);
};
const give = async (name: string, content: string) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  // The file field is hidden behind its button, as a browser's own is.
  const input = await browser.driver.findElement(By.css('input[type=file]'));
  await input.sendKeys(path);
};

it(
  'takes a new drawing through every station, with its maker’s mistakes on the way',
  { timeout: 300_000 },
  async () => {
    const { driver, press, sees, write, choose } = browser;
    await driver.get(bench.server.url);
    await sees('There are no jobs yet');
    await press('New job');
    await sees('Drop a drawing (SVG, PDF');
    await write('Title', 'Sailing club, trailer');
    await write('Customer', 'The sailing club');

    // A file that cannot be read is refused, and nothing is lost.
    await give('notes.svg', 'Remember the milk.');
    await sees('not well-formed XML');
    await give('boat.svg', DRAWING);
    await sees('3 colours');
    await sees('this font is not here');
    await sees('boat.svg');

    // Films: two colours onto one film are one layer; then that is taken back.
    await go('Films');
    await sees('Lock-gate red');
    await choose('Film for bright orange yellow #f2b632', 'Chalk white');
    await sees('are joined into one layer of');
    await press('Undo');
    await sees('cut from 3 films');

    // Surface: lengths as people say them, and one that is none.
    await go('Surface');
    await sees('Nothing is measured yet');
    await browser.choose('What it goes on', 'a board, a wall, a van’s side');
    await write('Width', '20 cm');
    await write('Height', 'tall');
    await sees('is not a length');
    await write('Height', '6 1/2"');
    await sees('The design is');
    await write('Width of the design', '300');
    await sees('larger than the board');
    await press('Fit it to the board');
    await sees('180 × 117');

    // Build: the three schools, the trap by formula and by hand, the section.
    await go('Build');
    await sees('trapped inlay');
    await press('Inlay');
    await sees('built as inlay');
    await press('Trapped inlay');
    await write('Trap width', '0.1');
    await sees('Bare surface may show');
    await press('Let the app decide');
    await sees(/Lower layers run/);
    await press('Why? Trap width');
    await sees('rounded up to');
    await write('Place of the cross-section', '94');
    await sees(/\d+ µm at the thickest place/);

    await go('Prepare');
    await sees(/A diamond and a (notched )?bar stand/);
    await press('Chalk white');
    await sees('To weed out of Chalk white');

    await go('Sheets');
    await sees('To fetch from the rack');
    await write('Copies', '2');
    await sees(/Lock-gate red is cut from/);
    await write('Copies', '1');

    // Cut: the wrong film is not cut.
    await go('Cut');
    await sees('What is loaded?');
    await choose('Film in the cutter', 'Tar black');
    await sees('That is not the film of this sheet');
    const sheets = await driver.findElements(By.css('ol[aria-label="Sheets to cut"] li'));
    expect(sheets).toHaveLength(2);
    const hurry = (factor: number) => bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor });
    const isCut = (count: number) =>
      driver.wait(
        async () => (await driver.findElements(By.xpath('//li[contains(., "✓ cut")]'))).length === count,
        60_000,
      );
    await hurry(1);
    await choose('Film in the cutter', 'Wick yellow');
    await press('It lies liner down, film side up.');
    await press('Cut this sheet');
    await press('Pause');
    await sees('Paused');
    await browser.find('[data-testid="head"]');
    await press('Resume');
    await hurry(60);
    await isCut(1);
    // White and red are cut with the same settings, on pieces side by side: nothing is cut before each lies in its place.
    await sees('Does each piece lie in its place?');
    const cutIt = () => driver.findElement(By.xpath('//button[.="Cut this sheet"]'));
    await browser.tap('main li:nth-child(1) > label > input[type=checkbox]');
    expect(await (await cutIt()).isEnabled()).toBe(false);
    await browser.tap('main li:nth-child(2) > label > input[type=checkbox]');
    await press('Cut this sheet');
    await isCut(2);

    await go('Assemble');
    await sees('Lay Chalk white on the surface');
    await press('On tape, to apply in one go');
    await sees('Pick up');
    // How it is laid decides the trap: what was cut fits the way it was cut for.
    await press('Undo');
    await sees('Lay Chalk white on the surface');

    await go('Record');
    await sees('3 of 3 cut');
    await press('Good');
    await write('Title', 'Sailing club, boat trailer');
    await driver.findElement(By.css('textarea')).sendKeys('Weeded in one pull.', '\uE004');
    await driver.wait(async () => (await browser.text()).includes('good'), 60_000);

    // A restart of the server and of the page loses nothing.
    await bench.restartServer();
    await driver.get(bench.server.url);
    await sees('Sailing club, boat trailer');
    await sees('cut');
    await press('Sailing club, boat trailer');
    await sees('180 × 117');
    await go('Record');
    await sees('Weeded in one pull.');
    expect((await browser.complaints()).filter((line) => !/ 4(09|22) /.test(line))).toEqual([]);
  },
);

it('deletes a job and brings it back', async () => {
  const { driver, press, sees } = browser;
  await driver.get(bench.server.url);
  await press('Duplicate Sailing club, boat trailer');
  await sees('Sailing club, boat trailer (copy)');
  await press('Delete Sailing club, boat trailer (copy)');
  await sees('was deleted.');
  await driver.wait(async () => !/\(copy\)\n/.test(await browser.text()), 60_000);
  await press('Bring it back');
  await driver.wait(async () => /\(copy\)\n/.test(await browser.text()), 60_000);
});
