import { afterAll, beforeAll, expect, it } from 'vitest';
import { patchRecipe, type Job, type Recipe } from '../core/recipe/index.js';
import { cutsOf, jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { Key } from 'selenium-webdriver';
import { openBrowser, type Browser } from './browser.js';

/* Weeding: how the waste is parted, and the map that is worked from at the bench. */

const WIDE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="220mm" viewBox="0 0 420 220"><path fill="#b3262b" fill-rule="evenodd" d="M0 0h110v220H0z M20 20h30v30h-30z M60 100h30v40h-30z M340 60h80v90h-80z M360 80h30v30h-30z"/></svg>';

let bench: Bench;
let browser: Browser;
let other: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  other = await openBrowser();
  job = await jobWith(bench, WIDE, (recipe) =>
    patchRecipe(recipe, { surface: { size: { mode: 'own' } }, preparation: { border: 'box' } }),
  );
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
  const click = (x: number, y: number) =>
    browser.driver
      .actions()
      .move({ origin: map, x: Math.round(x * width), y: Math.round(y * height) })
      .click()
      .perform();
  await click(0.05, -0.2);
  await browser.sees('now choose where the line ends');
  await click(0.05, 0.2);
  await until(({ preparation }) => preparation.relief.drawn.length === 1);
  // It was set onto the border, and is known as drawn all the same: taken away, it leaves no place where none may be.
  await browser.sees('Your line A');
  await browser.press('Take away line A');
  await until(({ preparation }) => preparation.relief.drawn.length === 0 && preparation.relief.gone.length === 1);
  // An end of a line that the app laid is moved by keys: the line is the maker's from then on.
  const end = await browser.find('button[aria-label^="Line A, first end"]');
  await browser.driver.executeScript('arguments[0].focus()', end);
  for (let i = 0; i < 3; i += 1) await end.sendKeys(Key.ARROW_RIGHT);
  await end.sendKeys(Key.ENTER);
  await until(({ preparation }) => preparation.relief.drawn.length === 1 && preparation.relief.gone.length === 2);
  await browser.press('As the app would part it');
  await until(({ preparation }) => preparation.relief.drawn.length === 0 && preparation.relief.gone.length === 0);
});

it('marks are moved on all layers at once, by keys and by figures, and put back', async () => {
  const two = await jobWith(
    bench,
    '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="0 0 200 120"><path fill="#b3262b" d="M0 0h200v120H0z"/><path fill="#f7f5ef" d="M60 40h80v40H60z"/></svg>',
    (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }),
  );
  const places = async () => (await bench.api<Job>('GET', `/api/jobs/${two.id}`)).body.recipe.preparation;
  const untilPlaces = (is: (now: Recipe['preparation']) => boolean) =>
    browser.driver.wait(async () => is(await places()), 60_000);
  await browser.driver.get(`${bench.server.url}/jobs/${two.id}/prepare`);
  await browser.sees('They move on all layers at once');
  const mark = await browser.find('button[aria-label^="Mark 1."]');
  await browser.driver.executeScript('arguments[0].focus()', mark);
  await mark.sendKeys(Key.chord(Key.SHIFT, Key.ARROW_LEFT), Key.ARROW_UP, Key.ENTER);
  await untilPlaces(({ marksAt }) => marksAt.length === 2);
  await browser.sees('The marks stand where you put them');
  await browser.write('Mark 1, from the left', '100');
  await browser.write('Mark 1, from the top', '20');
  await browser.sees('A mark lies on what is cut of a layer.');
  await browser.press('Put the marks back');
  await untilPlaces(({ marksAt }) => marksAt.length === 0);
  await browser.choose('Shape of the marks', 'ring');
  await browser.sees('A ring and a notched bar');
  await browser.press('Would it do by eye?');
  await browser.sees('Laid a thousand times');
  await browser.press('Write nothing into the waste');
  await untilPlaces(({ labels }) => !labels);
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

const MANY = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="0 0 200 120"><path fill="#f7f5ef" fill-rule="evenodd" d="M0 0h200v120H0z${Array.from({ length: 60 }, (_, i) => `M${8 + (i % 12) * 16} ${10 + Math.floor(i / 12) * 22}h8v8h-8z`).join('')}"/></svg>`;

it('many counters are ticked by the area and by a stroke; the clock runs on whatever happens to the page', async () => {
  const many = await jobWith(bench, MANY, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
  const { body: run } = await startCut(bench, many.id, 'chalk');
  await runUntil(bench, run.id, (one) => one.state === 'finished');
  const ticked = async () => (await cutsOf(bench, many.id))[0]!.groups[0]!.ticked.length;
  const open = () => browser.driver.get(`${bench.server.url}/jobs/${many.id}/prepare`);
  await open();
  await browser.sees('60 left');
  await browser.press('Time it');
  await browser.sees('Stop the clock');
  await browser.press('Area 1');
  await browser.press('All of area 1 is out');
  // 60 are parted into four areas.
  const first = 15;
  await browser.driver.wait(async () => (await ticked()) === first, 30_000);
  // Loaded again, the map and the clock are as they were.
  await open();
  await browser.sees(`${60 - first} left`);
  await browser.sees('Stop the clock');
  await browser.press('Tick by a stroke');
  // Along a row of numbers, from one to the next.
  const row = await browser.driver.executeScript<[number, number][]>(`
    const boxes = [...document.querySelectorAll('svg[role="img"] g text')].filter((text) => /^[0-9]+$/.test(text.textContent)).map((text) => text.getBoundingClientRect());
    const y = boxes.at(-1).y;
    return boxes.filter((box) => Math.abs(box.y - y) < 2).sort((a, b) => a.x - b.x).map((box) => [Math.round(box.x + box.width / 2), Math.round(box.y + box.height / 2)]);`);
  expect(row.length).toBeGreaterThan(3);
  const stroke = browser.driver.actions({ async: true }).move({ x: row[0]![0], y: row[0]![1] }).press();
  for (const [x, y] of row.slice(1)) stroke.move({ x, y, duration: 80 });
  await stroke.release().perform();
  await browser.driver.wait(async () => (await ticked()) > first + 3, 30_000);
  const places = (await cutsOf(bench, many.id))[0]!.groups[0]!.weedPlaces;
  await bench.api('PUT', `/api/sheets/${(await cutsOf(bench, many.id))[0]!.id}/ticks`, {
    places: places.map((place) => ({ position: 0, ...place })),
    ticked: true,
  });
  await browser.sees('All is out: stop the clock.');
  await browser.press('Stop the clock');
  await browser.sees('Forget this time');
  await browser.driver.get(`${bench.server.url}/jobs/${many.id}/record`);
  await browser.sees('by the starting figures');
});
