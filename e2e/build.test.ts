import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Job } from '../core/recipe/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

const THREE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><rect width="70" height="60" fill="#b3262b"/><rect x="70" width="50" height="60" fill="#1d4e89"/><circle cx="30" cy="30" r="12" fill="#f2b632"/></svg>';

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  job = await jobWith(bench, THREE, (recipe) => ({ ...recipe, surface: { ...recipe.surface, size: { mode: 'own' } } }));
  await browser.driver.get(`${bench.server.url}/jobs/${job.id}/build`);
  await browser.sees('Where two layers meet');
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const build = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe.build;
const until = (holds: (recipe: Job['recipe']['build']) => boolean) =>
  browser.driver.wait(async () => holds(await build()), 60_000);

it('rules every pair of layers, says why, and lets one be built otherwise', async () => {
  const { press, sees, choose } = browser;
  await sees('Lock-gate red under Wick yellow');
  await press('Why? Lock-gate red under Wick yellow');
  await sees('Lock-gate red is darker, and Wick yellow hides only 92 %');
  await choose('Way of building Lock-gate red under Wick yellow', 'inlay');
  await until(({ pairs }) => pairs['lock-gate > wick-yellow']?.school === 'inlay');
  await press('Let the app decide Lock-gate red under Wick yellow');
  await until(({ pairs }) => Object.keys(pairs).length === 0);
  await press('Plan for the worst case');
  await until(({ trapForm }) => trapForm === 'worst');
  await press('Undo');
});

it('changes what the trap is reckoned from where it belongs', async () => {
  const { press, write, driver } = browser;
  await press('Figures behind the trap');
  const before = await (await browser.find('[aria-label="Trap width"]')).getAttribute('value');
  await write('Repeatability of the cutter', '0.3');
  await driver.wait(
    async () => (await (await browser.find('input[aria-label="Trap width"]')).getAttribute('value')) !== before,
    60_000,
  );
  await write('Repeatability of the cutter', '0.05');
  await write('Placement error', '0.5');
  await until(({ placementErrorMm }) => placementErrorMm === 0.5);
  await press('Undo');
  const trap = async () => Number(await (await browser.find('input[aria-label="Trap width"]')).getAttribute('value'));
  await driver.wait(async () => String(await trap()) === before, 60_000);
  await write('Distance of the marks', '900');
  await driver.wait(async () => (await trap()) < Number(before), 60_000);
  await press('Undo');
});

it('draws where edges open, the oftener the thicker', async () => {
  const { press, sees, driver } = browser;
  await press('Gap trial');
  await press('Inlay');
  await sees('where gaps showed');
  const drawn = await driver.executeScript<number>(
    'return [...document.querySelectorAll(\'svg[aria-label="The build"] g[stroke-linecap="round"] path:not([stroke="#ffffff"])\')].reduce((sum, path) => sum + (path.getAttribute("d") ?? "").length, 0)',
  );
  expect(drawn).toBeGreaterThan(500);
  await press('Undo');
  await sees('no gap opened');
});

it('shows another film in place of a colour’s before it is taken', async () => {
  const { find, sees, driver } = browser;
  await driver.get(`${bench.server.url}/jobs/${job.id}/films`);
  await sees('cut from 3 films');
  const other = await find('[aria-label^="Ember orange, differs by"]');
  await driver.executeScript('arguments[0].focus()', other);
  await sees('as it would look with Ember orange');
  const fills = () =>
    driver.executeScript<string[]>(
      'return [...document.querySelectorAll(\'svg[aria-label="The artwork in its films"] path\')].map((path) => path.getAttribute("fill"))',
    );
  await driver.wait(async () => (await fills()).includes('#dd6b20'), 60_000);
  expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe.films.byColour).toEqual({});
  await driver.executeScript('arguments[0].blur()', other);
  await sees('in the colours of the films');
  await driver.get(`${bench.server.url}/jobs/${job.id}/build`);
  await sees('Where two layers meet');
});

it('lays the build a thousand times and takes the trap that is enough', async () => {
  const { press, sees, find } = browser;
  await press('Gap trial');
  await sees('by eye');
  await find('[aria-label^="Risk of a gap by trap width"] svg');
  await press('Use it');
  await until(({ trapMm }) => trapMm !== null);
  await press('Undo');
});

it('sets the schools side by side and builds another', async () => {
  const { press, sees } = browser;
  await press('Three ways to build');
  await sees('Edges that must meet exactly');
  await press('Use this: inlay');
  await until(({ school }) => school === 'inlay');
  await press('Undo');
  await until(({ school }) => school === 'trapped');
});

it('goes round the work with an outline, knocks out, backs a film, and takes all away again', async () => {
  const { press, sees, choose, write } = browser;
  await press('Add an outline');
  await sees('An outline in');
  await until(({ outlines }) => outlines.length === 1);
  await sees('4 films');
  const name = 'Chalk white';
  await write(`Width of the outline in ${name}`, '6');
  await until(({ outlines }) => outlines[0]!.widthMm === 6);
  await choose(`Corners of the outline in ${name}`, 'sharp (mitred)');
  await until(({ outlines }) => outlines[0]!.join === 'mitred');
  // Around one film only, then around everything again.
  await choose(`Around what: the outline in ${name}`, 'Lock-gate red only');
  await until(({ outlines }) => outlines[0]!.around?.ids.join() === 'lock-gate');
  await press(`Not around Lock-gate red: the outline in ${name}`);
  await until(({ outlines }) => outlines[0]!.around === null);
  await press('Cut one film out of another');
  await until(({ knockOuts }) => knockOuts.length === 1);
  await choose('Inside and between, 1', 'goes too, all of it');
  await choose('Pieces that come off, 1', 'where they are small');
  await write('Side of the square below which pieces are dropped, 1', '8');
  await until(({ knockOuts }) => knockOuts[0]!.fillBelowMm > 1000 && knockOuts[0]!.dropBelowMm2 === 64);
  await press('Put a backing under a film');
  await until(({ blockOut }) => blockOut !== null);
  await press('Remove the backing');
  await press('Remove: knock-out 1');
  await press(`Remove: the outline in ${name}`);
  await until(({ outlines, knockOuts, blockOut }) => outlines.length + knockOuts.length === 0 && blockOut === null);
});

it('decides one film against all that it meets, and several pairs together', async () => {
  const { press, sees, choose } = browser;
  await choose('Decide for one film and all that it meets', 'Lock-gate red');
  await sees('Lock-gate red and all that it meets');
  // To choose the film changes nothing yet.
  await press('Leave it as it is');
  await until(({ filmPairs }) => Object.keys(filmPairs).length === 0);
  await choose('Decide for one film and all that it meets', 'Lock-gate red');
  await choose('How Lock-gate red should meet all others', 'inlay');
  await until(({ filmPairs }) => filmPairs['lock-gate']?.school === 'inlay');
  await choose('Way of building all pairs of Lock-gate red', 'overlay');
  await until(({ filmPairs }) => filmPairs['lock-gate']?.school === 'overlay');
  await press('Choose all 2 pairs');
  await choose('Way of building the 2 chosen pairs', 'inlay');
  await until(
    ({ pairs }) =>
      Object.values(pairs)
        .map(({ school }) => school)
        .join() === 'inlay,inlay',
  );
  // Each pair has its own decision now, so the one for the film does nothing: it says so, and the remedy takes it back.
  await sees('it does nothing');
  await press('Take this decision back');
  await until(({ filmPairs }) => Object.keys(filmPairs).length === 0);
  await press('Choose all 2 pairs');
  await choose('Way of building the 2 chosen pairs', 'the app decides');
  await until(({ pairs }) => Object.keys(pairs).length === 0);
});

it('gives each piece an outline, lays a film under everything, and cuts around a print', async () => {
  const { press, sees, choose } = browser;
  await press('Add an outline');
  await choose('How many outlines in Chalk white', 'one for each piece');
  await until(({ outlines }) => outlines[0]?.each === 'piece');
  await press('Remove: the outline in Chalk white');
  await press('Lay one film under everything');
  await until(({ base }) => base !== null);
  await choose('Film that lies under everything', 'Tar black');
  await sees('Tar black lies in one piece under everything');
  await sees('4 films');
  await press('Build without a base');
  await press('It is printed: only cut around it');
  await until(({ contour }) => contour?.side === 'inside' && contour.byMm === null);
  await choose('Side of the cut line', 'on its edge');
  await sees('is cut on its edge, and printed');
  await press('Cut it from film instead');
  await until(({ base, contour, outlines }) => base === null && contour === null && outlines.length === 0);
});

it('moves layers apart and exactly back, and into another order by keys', async () => {
  const { press, driver } = browser;
  await press('Cross-section');
  const picture = () =>
    driver.executeScript<string>(
      `return [...document.querySelectorAll('svg[aria-label="The build"] path')].map((path) => path.getAttribute('d') + path.getAttribute('transform')).join()`,
    );
  await browser.sees('3 films');
  await driver.wait(async () => !(await browser.text()).includes('planning …'), 60_000);
  const before = await picture();
  await press('Pull the layers apart');
  await driver.wait(async () => (await picture()).includes('translate'), 60_000);
  await press('Lay all layers back');
  await driver.wait(async () => (await picture()) === before, 60_000);
  await press('The layers from the top down');
  // Enter picks a layer up, arrows carry it, Enter lays it down.
  const grip = await browser.find('[aria-label="Drag Narrow blue"]');
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" }); arguments[0].focus()', grip);
  await grip.sendKeys(Key.ENTER);
  await driver.switchTo().activeElement().sendKeys(Key.ARROW_DOWN);
  await driver.switchTo().activeElement().sendKeys(Key.ARROW_DOWN);
  await driver.switchTo().activeElement().sendKeys(Key.ENTER);
  await until(({ order }) => order.length === 3 && order.at(-1) !== 'narrow-blue');
  await press('Undo');
});

it('is put into another order in the cross-section, by keys and by dragging', async () => {
  const { press, find, driver, sees } = browser;
  await press('Cross-section');
  await sees('at the thickest place here');
  const order = async () =>
    (await driver.findElements(By.css('ul[aria-label^="Layers in the section"] button'))).length > 0 &&
    driver.executeScript<string[]>(
      'return [...document.querySelectorAll(\'ul[aria-label^="Layers in the section"] button\')].map((b) => b.textContent.trim())',
    );
  expect(await order()).toEqual(['Narrow blue', 'Wick yellow', 'Lock-gate red']);
  await (await find('button[aria-label^="Lock-gate red, layer 1 of 3"]')).sendKeys(Key.ARROW_UP);
  await until((recipe) => recipe.order.join() === 'wick-yellow,lock-gate,narrow-blue');
  await driver.wait(async () => String(await order()) === 'Narrow blue,Lock-gate red,Wick yellow', 60_000);
  await press('Undo');
  await driver.wait(async () => String(await order()) === 'Narrow blue,Wick yellow,Lock-gate red', 60_000);
  const bar = await find('svg[aria-label^="Cross-section at"] rect[fill="#b3262b"]');
  await driver.actions().move({ origin: bar }).press().move({ origin: bar, x: 0, y: -60 }).perform();
  await sees('Lock-gate red goes 2 up');
  await driver.actions().release().perform();
  await until((recipe) => recipe.order.join() === 'wick-yellow,narrow-blue,lock-gate');
  await press('Undo');
});

it('gives the layers as files', async () => {
  for (const format of ['svg', 'dxf', 'pdf']) {
    const response = await fetch(`${bench.server.url}/api/jobs/${job.id}/build?format=${format}&layer=lock-gate`);
    expect([response.status, response.headers.get('content-disposition')?.endsWith(`.${format}`)]).toEqual([200, true]);
    expect((await response.arrayBuffer()).byteLength).toBeGreaterThan(200);
  }
  const link = await browser.driver.findElement(By.xpath('//section[@aria-label="Save the layers as files"]//a'));
  expect(await link.getAttribute('href')).toContain('format=svg');
  expect(await browser.complaints()).toEqual([]);
});
