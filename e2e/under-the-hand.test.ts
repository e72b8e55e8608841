import { By, Key, until as conditions } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { emptyRecipe, patchRecipe, type Job } from '../core/recipe/index.js';
import { BENCH_SHOP } from '../core/testing/bench-shop.js';
import { changeRecord, jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* What a hand does quickly, and what goes on meanwhile: edits are shown, kept and undone as one thing, and the page stays true. */

let bench: Bench;
let browser: Browser;
beforeAll(async () => {
  bench = await openBench({ pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const SIGN =
  '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100"><rect width="200" height="100" fill="#16181a"/><circle cx="60" cy="50" r="35" fill="#b3262b"/><rect x="110" y="20" width="70" height="60" fill="#f7f5ef"/></svg>';

let job: Job;
beforeEach(async () => {
  job = await jobWith(bench, SIGN, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
});

const go = async (station: string, of = job) => {
  await browser.driver.get(`${bench.server.url}/jobs/${of.id}/${station}`);
};
const now = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body;
const until = (holds: (job: Job) => boolean) => browser.driver.wait(async () => holds(await now()), 60_000);
const valueOf = async (label: string) => (await browser.find(`input[aria-label="${label}"]`)).getAttribute('value');
const waitForValue = (label: string, value: string) =>
  browser.driver.wait(async () => (await valueOf(label)) === value, 60_000);
const devTools = (name: string, options: object) => browser.devTools(name, options);

/** By the job card, as a hand does it. */
const toStation = async (name: string) =>
  (await browser.driver.wait(conditions.elementLocated(By.xpath(`//nav//a[contains(., "${name}")]`)), 60_000)).click();

describe('a figure under the hand', () => {
  it('that is tried by keys is one revision, also when its station is left in the middle', async () => {
    await go('build');
    await browser.sees('3 sheets');
    const before = await now();
    const field = await browser.find('input[aria-label="Trap width"]');
    const start = Number(await field.getAttribute('value'));
    for (let i = 0; i < 12; i += 1) await field.sendKeys(Key.ARROW_UP);
    await browser.sees('not saved yet');
    expect((await now()).revision).toBe(before.revision);
    await browser.driver.actions().keyDown(Key.ALT).sendKeys('2').keyUp(Key.ALT).perform();
    await browser.sees('films in stock');
    const meant = start + 0.6;
    await until(({ recipe }) => Math.abs((recipe.build.trapMm ?? 0) - meant) < 1e-6);
    expect((await now()).revision).toBe(before.revision + 1);
    await browser.driver.actions().keyDown(Key.ALT).sendKeys('4').keyUp(Key.ALT).perform();
    await waitForValue('Trap width', String(Number(meant.toFixed(2))));
    await browser.press('Undo');
    await until(({ recipe }) => recipe.build.trapMm === null);
    await waitForValue('Trap width', String(start));
  });

  it('on the slider is one revision for a row of arrow keys, and one for a drag', async () => {
    await go('build');
    await browser.sees('3 sheets');
    const before = await now();
    const slider = await browser.find('input[type=range][aria-label="Trap width"]');
    for (let i = 0; i < 10; i += 1) await slider.sendKeys(Key.ARROW_RIGHT);
    expect((await now()).revision).toBe(before.revision);
    await slider.sendKeys(Key.ENTER);
    await until(({ revision }) => revision === before.revision + 1);
    const byKeys = (await now()).recipe.build.trapMm!;
    // By its thumb, wherever that is, to the right.
    const [{ width }, most] = [await slider.getRect(), Number(await slider.getAttribute('max'))];
    const at = Math.round(9 + (width - 18) * (byKeys / most) - width / 2);
    await browser.driver
      .actions()
      .move({ origin: slider, x: at })
      .press()
      .move({ origin: slider, x: at + 20 })
      .move({ origin: slider, x: at + 45 })
      .release()
      .perform();
    await until(({ recipe }) => recipe.build.trapMm! > byKeys + 0.05);
    expect((await now()).revision).toBe(before.revision + 2);
  });

  it('with Enter and then Tab is one revision; one that cannot be read is asked about when its station is left', async () => {
    await go('surface');
    await browser.sees('3 sheets');
    await browser.choose('What it goes on', 'a board, a wall, a van’s side');
    await until(({ recipe }) => recipe.surface.kind === 'flat');
    const before = await now();
    const field = await browser.find('input[aria-label="Width"]');
    await field.click();
    await browser.driver.executeScript('arguments[0].select()', field);
    await field.sendKeys('42 cm', Key.ENTER, Key.TAB);
    await until(({ recipe }) => recipe.surface.flat.widthMm === 420);
    expect((await now()).revision).toBe(before.revision + 1);
    await browser.write('Height', '1,200');
    await browser.sees('can be read in two ways');
    await toStation('Build');
    await browser.sees('Height: “1,200” can be read in two ways');
    await browser.press('Go back and correct it');
    expect(await (await browser.driver.switchTo().activeElement()).getAttribute('aria-label')).toBe('Height');
    await browser.write('Height', '1200');
    await until(({ recipe }) => recipe.surface.flat.heightMm === 1200);
    await browser.write('Width', 'wide');
    await toStation('Films');
    await browser.press('Leave it as it was');
    await browser.sees('films in stock');
    expect((await now()).recipe.surface.flat.widthMm).toBe(420);
  });

  it('of a layer that is moved twice at once moves it twice', async () => {
    await go('build');
    await browser.sees('3 sheets');
    const before = await now();
    const films = async () =>
      (
        await Promise.all(
          (await browser.driver.findElements(By.css('[aria-label="Layers, the uppermost first"] [role=row]'))).map(
            (row) => row.getText(),
          ),
        )
      ).map((text) => text.split('\n')[1] ?? text);
    await browser.press('The layers from the top down');
    await browser.driver.wait(async () => (await films()).length === 3, 60_000);
    const down = await browser.find('[aria-label="Layers in the section, the uppermost first"] li:first-child button');
    await down.sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN);
    await until(({ revision }) => revision === before.revision + 2);
    const { order } = (await now()).recipe.build;
    const first = before.recipe.build.order;
    expect(order).toHaveLength(3);
    expect(order).not.toEqual(first);
    // What was on top is at the bottom.
    const name = (await down.getAttribute('aria-label'))!.split(',')[0]!;
    const shop = (await bench.api<{ films: { id: string; name: string }[] }>('GET', '/api/shop')).body;
    expect(order.indexOf(shop.films.find((film) => film.name === name)!.id)).toBe(0);
  });
});

describe('a page that others work beside', () => {
  it('plans with the shop’s figures as they are by now', async () => {
    await go('build');
    await browser.sees('3 sheets');
    await browser.driver.executeScript('document.querySelectorAll("details").forEach((one) => (one.open = true))');
    const { repeatabilityMm } = BENCH_SHOP.cutter;
    await changeRecord(bench, 'cutters', 'bench', { repeatabilityMm: 0.3 });
    await waitForValue('Repeatability of the cutter', '0.3');
    await changeRecord(bench, 'cutters', 'bench', { repeatabilityMm });
    await waitForValue('Repeatability of the cutter', String(repeatabilityMm));
  });

  it('shows what another hand changed in its job', async () => {
    await go('surface');
    await browser.sees('3 sheets');
    const { recipe, revision } = await now();
    await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: { ...recipe, title: 'Renamed elsewhere' },
      revision,
    });
    await waitForValue('Title', 'Renamed elsewhere');
  });

  it('goes on when the browser thinks that it is offline', async () => {
    await browser.driver.get(`${bench.server.url}/`);
    await browser.sees('New job');
    await devTools('Network.enable', {});
    await browser.driver.executeScript(
      'Object.defineProperty(navigator, "onLine", { get: () => false, configurable: true }); window.dispatchEvent(new Event("offline"))',
    );
    await browser.press('New job');
    await browser.sees('Choose a file');
    await browser.write('Title', 'Made offline');
    await browser.sees('saved');
    await toStation('Surface');
    await browser.sees('Nothing is measured yet');
    const { body } = await bench.api<{ title: string }[]>('GET', '/api/jobs?search=Made%20offline');
    expect(body).toHaveLength(1);
  });

  it('shows the section of its own job when another one is gone to at once', async () => {
    await jobWith(bench, SIGN.replace('#b3262b', '#1f6b45'), (recipe) =>
      patchRecipe({ ...recipe, title: 'The other' }, { surface: { size: { mode: 'own' } } }),
    );
    await go('build');
    await browser.sees('3 sheets');
    await browser.press('Wry Lantern');
    await browser.press('The other');
    await browser.sees('3 sheets');
    await browser.find('[aria-label="Cross-section"] svg[aria-label*="pieces of film"]');
    const colours = await browser.driver.executeScript<string[]>(
      `return [...new Set([...document.querySelectorAll('[aria-label="Cross-section"] svg rect')].map((rect) => rect.getAttribute('fill')))]`,
    );
    const films = await browser.driver.executeScript<string>(
      `return document.querySelector('[aria-label="Layers in the section, the uppermost first"]').innerText`,
    );
    expect(films).not.toContain('red');
    expect(colours.length).toBeGreaterThan(1);
  });
});

describe('parts of the page', () => {
  it('that cannot be fetched say so, and are fetched when it is tried again', async () => {
    await go('build');
    await browser.sees('3 sheets');
    await devTools('Network.enable', {});
    await devTools('Network.setBlockedURLs', { urls: ['*record-station*'] });
    await toStation('Record');
    await browser.sees('This station could not be fetched');
    await browser.sees('Load the page again');
    // The way to other stations stays.
    await toStation('Surface');
    await browser.sees('The design is');
    await devTools('Network.setBlockedURLs', { urls: [] });
    await toStation('Record');
    await browser.sees('Nothing has been cut for this job yet');
  });
});

describe('looking', () => {
  const camera = () =>
    browser.driver.executeScript<{ zoom: number; x: number; y: number }>(`
    const [, x, y, zoom] = /translate\\(([-\\d.]+) ([-\\d.]+)\\) scale\\(([-\\d.]+)\\)/.exec(document.querySelector('svg[aria-label="The build"] > g').getAttribute('transform')).map(Number);
    const layer = document.querySelector('svg[aria-label="The build"]').parentElement;
    return { zoom, x: x + layer.offsetLeft, y: y + layer.offsetTop, width: layer.parentElement.clientWidth, height: layer.parentElement.clientHeight };`) as Promise<{
      zoom: number;
      x: number;
      y: number;
      width: number;
      height: number;
    }>;
  const atRest = async (holds: (now: Awaited<ReturnType<typeof camera>>) => boolean) => {
    await browser.driver.wait(async () => holds(await camera()), 60_000);
    return camera();
  };
  const middle = ({ zoom, x, y, width, height }: Awaited<ReturnType<typeof camera>>) => ({
    x: (width / 2 - x) / zoom,
    y: (height / 2 - y) / zoom,
  });

  it('keeps zoom and middle when the window changes, and zooms with two fingers', async () => {
    await go('build');
    await browser.sees('3 sheets');
    const start = await camera();
    for (let i = 0; i < 3; i += 1) await browser.press('Zoom in');
    const near = await atRest((now) => now.zoom > start.zoom * 1.9);
    await browser.resize(1100, 700);
    const small = await atRest((now) => now.width < near.width);
    expect(small.zoom).toBeCloseTo(near.zoom, 6);
    expect(Math.hypot(middle(small).x - middle(near).x, middle(small).y - middle(near).y)).toBeLessThan(1);
    await browser.resize(1280, 800);
    const back = await atRest((now) => now.width === near.width);

    // Two fingers that move apart, one of which the system takes away in the end.
    const glass = await browser.find('[role=group][aria-label^="The build"]');
    const { x, y } = await glass.getRect();
    const touch = (type: string, points: readonly (readonly [number, number])[]) =>
      devTools('Input.dispatchTouchEvent', {
        type,
        touchPoints: points.map(([dx, dy], id) => ({ x: x + 300 + dx, y: y + 150 + dy, id })),
      });
    await touch('touchStart', [
      [-20, 0],
      [20, 0],
    ]);
    for (let d = 20; d <= 60; d += 10)
      await touch('touchMove', [
        [-d, 0],
        [d, 0],
      ]);
    await touch('touchCancel', []);
    const pinched = await atRest((now) => now.zoom > back.zoom * 2.5);
    expect(pinched.zoom / back.zoom).toBeCloseTo(3, 1);
    // A pointer that moves afterwards drags nothing along.
    await browser.driver.actions().move({ origin: glass, x: 40, y: 30 }).perform();
    expect(await camera()).toEqual(pinched);
  });

  it('shows colours of films as they are when the system forces its own', async () => {
    await devTools('Emulation.setEmulatedMedia', { features: [{ name: 'forced-colors', value: 'active' }] });
    await go('films');
    await browser.find('[aria-label="Colours and their films"] span[aria-hidden] span');
    const swatch = await browser.driver.executeScript<string>(
      `return getComputedStyle(document.querySelector('[aria-label="Colours and their films"] span[aria-hidden] span')).backgroundColor`,
    );
    expect(swatch).not.toBe('rgb(255, 255, 255)');
    expect(swatch).toMatch(/^rgb\(/);
    const chosen = await browser.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('fieldset input[type=radio] + span')].map((span) => getComputedStyle(span).borderBottomColor)`,
    );
    expect(new Set(chosen).size).toBe(2);
    await devTools('Emulation.setEmulatedMedia', { features: [] });
  });

  it('fits a page that is twice as large', async () => {
    await browser.resize(640, 400);
    await go('build');
    await browser.sees('3 sheets');
    const over = await browser.driver.executeScript<number>(
      'return document.documentElement.scrollWidth - document.documentElement.clientWidth',
    );
    expect(over).toBeLessThanOrEqual(0);
    await browser.tap('input[aria-label="Trap width"]');
    await browser.resize(1280, 800);
  });
});

describe('the list of jobs', () => {
  it('shows a thousand jobs, finds one by a few keys, and the last one at the end', async () => {
    const { jobs } = bench.server.services;
    for (let i = 0; i < 1000; i += 1)
      await jobs.create({
        ...emptyRecipe(`Rack ${String(i).padStart(4, '0')}`),
        due: `2030-${String(1 + Math.floor(i / 90)).padStart(2, '0')}-01`,
      });
    await browser.driver.get(`${bench.server.url}/`);
    await browser.sees(/1,?0\d\d jobs/);
    const items = () =>
      browser.driver.executeScript<number>('return document.querySelectorAll("ul[aria-label=Jobs] li").length');
    expect(await items()).toBeLessThan(60);
    const search = await browser.find('input[type=search]');
    await search.sendKeys('Rack 0731');
    await browser.sees('1 job');
    await browser.sees('Rack 0731');
    await browser.write('Search jobs by title or customer', 'Rack');
    await browser.sees('1000 jobs');
    // Scrolled down as far as it goes, as often as more comes.
    await browser.driver.wait(async () => {
      await browser.driver.executeScript(
        'const page = document.querySelector("ul[aria-label=Jobs]").parentElement; page.scrollTop = page.scrollHeight',
      );
      return (
        (await browser.text()).includes('due Mon 1 Dec 2031') ||
        (await browser.driver.executeScript<boolean>(
          'return document.querySelector("ul[aria-label=Jobs] li:last-child")?.getAttribute("aria-posinset") === "1000"',
        ))
      );
    }, 60_000);
    expect(await items()).toBeLessThan(60);
  });

  it('shows days as days, also with a clock of New York', async () => {
    await devTools('Emulation.setTimezoneOverride', { timezoneId: 'America/New_York' });
    await bench.server.services.jobs.create({ ...emptyRecipe('Due in winter'), due: '2026-12-01' });
    await browser.driver.get(`${bench.server.url}/`);
    await browser.write('Search jobs by title or customer', 'Due in winter');
    await browser.sees('due Tue 1 Dec');
    await browser.press('Due in winter');
    await browser.sees('Choose a file');
    await browser.press('Due date: Tue 1 Dec');
    const day = await browser.find('[aria-label^="day, Due date"], [role=spinbutton][aria-label*="day"]');
    expect(await day.getText()).toBe('01');
    // Typed: day, month and year are one change.
    const id = (await browser.driver.getCurrentUrl()).split('/').at(-2)!;
    const before = (await bench.api<Job>('GET', `/api/jobs/${id}`)).body;
    await day.sendKeys('24122027', Key.TAB, Key.TAB);
    await browser.driver.wait(
      async () => (await bench.api<Job>('GET', `/api/jobs/${id}`)).body.recipe.due === '2027-12-24',
      60_000,
    );
    expect((await bench.api<Job>('GET', `/api/jobs/${id}`)).body.revision).toBe(before.revision + 1);
    await devTools('Emulation.setTimezoneOverride', { timezoneId: '' });
  });
});
