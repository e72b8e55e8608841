import { Resvg } from '@resvg/resvg-js';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { SHIPPED_FONTS } from '../core/engines/artwork/index.js';
import type { Job } from '../core/recipe/index.js';
import type { ArtworkPart, LetteringPart, PicturePart } from '../core/stations/artwork/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

let bench: Bench;
let browser: Browser;
let job: Job;
const folder = mkdtempSync(join(tmpdir(), 'lantern-artwork-'));
beforeAll(async () => {
  bench = await openBench({ pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});
beforeEach(async () => {
  job = (await bench.api<Job>('POST', '/api/jobs', { title: 'A sign' })).body;
  await browser.driver.get(`${bench.server.url}/jobs/${job.id}/artwork`);
  await browser.sees('Choose a file');
});

const saved = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe;
/** Waits until what the server keeps is as it should be. */
const until = (holds: (recipe: Job['recipe']) => boolean) =>
  browser.driver.wait(async () => holds(await saved()), 60_000);
const give = async (name: string, content: string | Uint8Array, which = 0) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  await (await browser.driver.findElements(By.css('input[type=file]')))[which]!.sendKeys(path);
};
const type = async (label: string, text: string) => {
  const field = await browser.find(`[aria-label="${label}"]`);
  // Clearing a field would also leave it, and an empty one then takes its words back.
  await field.click();
  await browser.driver.executeScript('arguments[0].select()', field);
  await field.sendKeys(text, Key.TAB);
};
const setWords = async (words: string) => {
  await type('Words to add', words);
  await browser.press('Add the words');
  await browser.sees(`“${words}”`);
};
const LOGO = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 60" width="100mm" height="60mm"><circle cx="30" cy="30" r="22" fill="#b3262b"/><rect x="60" y="18" width="30" height="24" fill="#1d4e89"/></svg>`;
const png = (svg: string, width = 900) =>
  new Uint8Array(new Resvg(svg, { fitTo: { mode: 'width', value: width } }).render().asPng());

it('a figure that cannot be is refused at its field; where it came in otherwise, the station says so and the fields stay', async () => {
  const { press, sees, write, driver } = browser;
  await setWords('Kiln');
  await sees('1 sheet');
  await driver.get(`${bench.server.url}/jobs/${job.id}/surface`);
  await write('Width of the design', '99999');
  await sees('It must be from 1 to 10000 mm. Larger work is cut and laid as several jobs.');
  expect((await saved()).surface.size.mode).not.toBe('width');
  const { body: before } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
  const { status } = await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
    recipe: { ...before.recipe, surface: { ...before.recipe.surface, size: { mode: 'width', mm: 99_999 } } },
    revision: before.revision,
  });
  expect(status).toBe(200);
  await driver.navigate().refresh();
  await sees('A job is planned up to 10000 mm.');
  expect(await (await browser.find('[aria-label="Width of the design"]')).getAttribute('value')).toBe('99999');
  await driver.get(`${bench.server.url}/jobs/${job.id}/artwork`);
  await sees('“Kiln”');
  await browser.find('[aria-label="Cap height"]');
  await driver.get(`${bench.server.url}/jobs/${job.id}/surface`);
  await press('Make it 10000 mm wide');
  await until(({ surface }) => surface.size.mode === 'width' && surface.size.mm === 10_000);
  await write('Width of the design', '300');
  await sees('1 sheet');
});

describe('words', () => {
  it('are set, changed, bent and coloured, and stay words', { timeout: 300_000 }, async () => {
    const { press, sees, write } = browser;
    await setWords('Lockside Bakery');
    await sees('1 sheet');
    await write('Cap height', '60');
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.capHeightMm === 60);
    await press('Another font');
    await browser.tap('input[aria-label="Great Vibes, script"]');
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.font === 'great-vibes');
    await press('Close the fonts');
    await press('Curved up');
    await press('By word');
    await sees('2 colours');
    // Another form of the first letter, then the text before it grows: the form stays with its letter.
    await sees('Letters that have other forms');
    await press('L');
    await press('Form 2 of L');
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.alternates['0'] !== undefined);
    await type('The words', 'The Lockside Bakery');
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.alternates['4'] !== undefined);
    const { lettering } = (await saved()).artworks[0] as LetteringPart;
    expect(lettering).toMatchObject({
      text: 'The Lockside Bakery',
      capHeightMm: 60,
      colourBy: 'word',
      arc: { bend: 'up' },
    });
    // However long the typing took, it is one step.
    await press('Undo');
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.text === 'Lockside Bakery');
    expect(await browser.complaints()).toEqual([]);
  });

  it(
    'come in bands and fades, at heights that can be moved, through films in stock',
    { timeout: 300_000 },
    async () => {
      const { press, sees, write, driver } = browser;
      await setWords('Marigold');
      await sees('1 sheet');
      await press('In bands');
      await press('add one');
      await sees('Cut from 3 films');
      await write('Height of change 1, %', '20');
      await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.bands.heights.length === 2);
      // A change does not pass its neighbour.
      await type('Height of change 1, %', '90');
      await sees('It must be from 2 to 65. Nothing was changed.');
      await driver.actions().sendKeys(Key.ESCAPE).perform();
      await press('By each letter’s height');
      await press('Fading');
      await sees('5 colours');
      await press('go through films in stock');
      await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.share.kind === 'turn');
      const films = (await saved()).artworks[0] as LetteringPart;
      const stock = (await bench.api<{ films: { colour: string }[] }>('GET', '/api/shop')).body.films.map(
        (film) => film.colour,
      );
      expect(films.lettering.colours.filter((colour) => !stock.includes(colour))).toEqual([]);
      expect(await browser.complaints()).toEqual([]);
    },
  );

  it('are offered only fonts that have their letters', async () => {
    const { press, sees, driver } = browser;
    const offered = () =>
      driver.executeScript<string[]>(
        `return [...document.querySelectorAll('fieldset input[name=font]')].map((input) => input.getAttribute('aria-label'))`,
      );
    const waiting = () =>
      driver.executeScript<number>(
        `return [...document.querySelectorAll('fieldset input[name=font] + span')].filter((words) => !words.style.fontFamily).length`,
      );
    await setWords('Wick');
    await press('Another font');
    expect(await offered()).toHaveLength(SHIPPED_FONTS.length);
    await driver.wait(async () => (await waiting()) === 0, 60_000);
    await type('The words', 'טל 0123');
    await sees('This font has no “ט”, “ל”');
    await sees('Only fonts that have these letters are shown.');
    expect((await offered()).filter((label) => !label.startsWith('Zilla Slab'))).toEqual([
      'Frank Ruhl Libre, roman',
      'Varela Round, rounded',
      'Fredoka, rounded',
      'Rubik, rounded',
    ]);
    await driver.wait(async () => (await waiting()) === 0, 60_000);
    await browser.tap('input[aria-label="Rubik, rounded"]');
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.font === 'rubik');
    await driver.wait(async () => !(await browser.text()).includes('This font has no'), 60_000);
    expect(await browser.complaints()).toEqual([]);
  });

  it('are set in a font of the maker’s own', async () => {
    await setWords('Wick');
    const file = createRequire(import.meta.url).resolve(
      '@expo-google-fonts/sansita-swashed/SansitaSwashed_700Bold.ttf',
    );
    await (await browser.find('input[type=file][accept*=".ttf"]')).sendKeys(file);
    await until(({ artworks }) => (artworks[0] as LetteringPart).lettering.font.startsWith('own:'));
    await browser.sees('It is set in Sansita');
    await browser.sees('1 sheet');
  });
});

describe('a picture', () => {
  it(
    'is traced, its colours and background ruled and overruled, and replaced by a new version',
    { timeout: 300_000 },
    async () => {
      const { press, sees, write } = browser;
      await give('logo.png', png(LOGO.replace('<circle', '<rect width="100" height="60" fill="#fff"/><circle')));
      await sees('traced picture');
      await sees('is traced in');
      await sees('2 colours');
      await press('All of it is film');
      await sees('3 colours');
      await press('Undo');
      await sees('2 films');
      await write('Colours to trace', '1');
      await sees('1 film');
      await press('Let the app decide');
      await sees('2 films');
      await write('Smallest speck', '2');
      await until(({ artworks }) => (artworks[0] as PicturePart).tracing.speckMm === 2);

      const replace = 1;
      const [{ id }] = (await saved()).artworks as [PicturePart];
      await give(
        'logo-2.png',
        png(
          LOGO.replace('<circle', '<rect width="100" height="60" fill="#fff"/><circle').replace('#1d4e89', '#1f6b45'),
        ),
        replace,
      );
      await sees('logo-2.png');
      await sees(/New colours: .*#1f6b45/);
      const [part] = (await saved()).artworks;
      expect([part!.id, (part as PicturePart).source.fileName]).toEqual([id, 'logo-2.png']);
    },
  );

  it('inside a drawing is traced when that is asked for', async () => {
    const inner = Buffer.from(png(LOGO, 300)).toString('base64');
    await give(
      'held.svg',
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 60"><image width="100" height="60" href="data:image/png;base64,${inner}"/><rect width="6" height="6" fill="#16181a"/></svg>`,
    );
    await browser.sees('embedded picture');
    await browser.press('Trace pictures inside the drawing');
    await browser.sees('3 colours');
  });
});

describe('several parts', () => {
  it(
    'are arranged by mouse, figures and keys, brought to a line, repeated, raised and taken off',
    { timeout: 300_000 },
    async () => {
      const { press, sees, write, driver } = browser;
      await give('logo.svg', LOGO);
      await sees('logo.svg');
      await setWords('Quay');
      await sees('lettering,');
      const handle = (name: string) => driver.findElement(By.css(`button[aria-label^="${name}"][aria-pressed]`));
      const places = async () => (await saved()).artworks.map((part) => part.place);
      const steady = async () => {
        await sees('saved');
        return places();
      };

      // By mouse: dragged right; the other stays.
      const before = await steady();
      await driver
        .actions()
        .dragAndDrop(await handle('“Quay”'), { x: 90, y: 3 })
        .perform();
      await until(({ artworks }) => Math.abs(artworks[1]!.place.xMm - before[1]!.xMm) > 5);
      expect((await places())[0]).toEqual(before[0]);

      // By keys: ten millimetres up, then one to the left.
      const dragged = await places();
      await (await handle('“Quay”')).sendKeys(Key.chord(Key.SHIFT, Key.ARROW_UP), Key.ENTER);
      await until(({ artworks }) => Math.abs(artworks[1]!.place.yMm - dragged[1]!.yMm + 10) < 1e-6);
      await (await handle('“Quay”')).sendKeys(Key.ARROW_LEFT, Key.ENTER);
      await until(({ artworks }) => Math.abs(artworks[1]!.place.xMm - dragged[1]!.xMm + 1) < 1e-6);

      // By figures: exact.
      await sees('wide and');
      await write('Its width', '120');
      await driver.wait(
        async () => (await (await browser.find('[aria-label="Its width"]')).getAttribute('value')) === '120',
        60_000,
      );
      await write('Turned, degrees', '90');
      await until(({ artworks }) => artworks[1]!.place.turnDeg === 90);
      await press('not mirrored');
      await until(({ artworks }) => artworks[1]!.place.mirrored);

      // To one line with the other.
      const placed = await steady();
      const logo = await driver.findElement(By.xpath('//li[.//strong[.="logo.svg"]]//input'));
      await logo.click();
      await sees('2 parts together');
      // Looked at first: what would move.
      const middles = await browser.find('button[aria-label="middles, side by side"]');
      await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', middles);
      await driver.actions().move({ origin: middles }).perform();
      await sees('as the dashed boxes show');
      await press('middles, one below the other');
      await until(
        ({ artworks }) => artworks[0]!.place.xMm !== placed[0]!.xMm || artworks[1]!.place.xMm !== placed[1]!.xMm,
      );
      const [one, other] = await Promise.all(
        ['logo.svg', '“Quay”'].map(async (name) => (await handle(name)).getRect()),
      );
      expect(Math.abs(one!.x + one!.width / 2 - other!.x - other!.width / 2)).toBeLessThan(2);

      await press('Lower “Quay”');
      await until(({ artworks }) => artworks[0]!.kind === 'lettering');

      // One of them repeated, set out evenly, and taken off again.
      await (await driver.findElement(By.xpath('//li[.//strong[.="logo.svg"]]//input'))).click();
      await sees('Repeat it');
      await press('Repeat it');
      await write('Times across', '3');
      await press('Make it 3 in all');
      await until(({ artworks }) => artworks.length === 4);
      await sees('3 parts together');
      await press('gaps across');
      await press('Remove them from the design');
      await until(({ artworks }) => artworks.length === 1);
      await press('Undo');
      await until(({ artworks }) => artworks.length === 4);
      expect(await browser.complaints()).toEqual([]);
    },
  );

  it('are brought into line with the surface, grouped, and set out by a figure', async () => {
    const { press, sees, choose, write, driver } = browser;
    const two = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40" width="60mm" height="40mm"><rect width="60" height="40" fill="#b3262b"/></svg>',
      (recipe) => ({
        ...recipe,
        artworks: [
          ...recipe.artworks,
          { ...recipe.artworks[0]!, id: 'second', place: { ...recipe.artworks[0]!.place, xMm: 120, yMm: 80 } },
        ],
        surface: {
          ...recipe.surface,
          kind: 'flat',
          flat: { ...recipe.surface.flat, widthMm: 400, heightMm: 300 },
          size: { mode: 'own' },
        },
      }),
    );
    const recipe = async () => (await bench.api<Job>('GET', `/api/jobs/${two.id}`)).body.recipe;
    const kept = (holds: (now: Job['recipe']) => boolean) => driver.wait(async () => holds(await recipe()), 60_000);
    await driver.get(`${bench.server.url}/jobs/${two.id}/artwork`);
    await sees('On the design');
    // The list may be drawn anew while it is ticked.
    const tick = (at: number) =>
      driver.wait(async () => {
        const box = (await driver.findElements(By.css('section[aria-label="On the design"] input[type=checkbox]')))[at];
        if (!box) return false;
        return box
          .isSelected()
          .then((isTicked) => isTicked || box.click().then(() => false))
          .catch(() => false);
      }, 60_000);
    // The lower one in the list is the first: it stands at the upper left.
    await tick(1);
    await choose('In line with', 'the surface');
    await press('to the left');
    await kept(({ surface }) => surface.at !== null);
    const { body } = await bench.api<{ design: { xMm: number; yMm: number } }>('GET', `/api/jobs/${two.id}/plan`);
    expect(body.design.xMm).toBeCloseTo(10, 1);
    await sees('saved');
    // Grouped, they are one thing, and apart again.
    await tick(0);
    await press('Make them one group');
    await kept(({ artworks }) => artworks[0]!.group !== null && artworks[0]!.group === artworks[1]!.group);
    await press('Take the group apart');
    await kept(({ artworks }) => artworks.every(({ group }) => group === null));
    await write('Gap between each two', '12');
    await press('this gap between each two, across');
    await kept(({ artworks }) => Math.abs(artworks[1]!.place.xMm - artworks[0]!.place.xMm - 72) < 1e-6);
  });

  it('are brought into line at the first press, in all directions, at any pace, and once more changes nothing', async () => {
    const { press, sees, driver } = browser;
    const drawn = (id: string, xMm: number, yMm: number, scale: number) => (one: ArtworkPart) => ({
      ...one,
      id,
      place: { ...one.place, xMm, yMm, scale },
    });
    const two = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40" width="60mm" height="40mm"><rect width="60" height="40" fill="#b3262b"/></svg>',
      (recipe) => ({
        ...recipe,
        artworks: [drawn('first', 0, 0, 1), drawn('second', 150, 90, 0.5)].map((as) => as(recipe.artworks[0]!)),
        // Scaled to the board: by the first change the size becomes the design's own.
        surface: {
          ...recipe.surface,
          kind: 'flat',
          flat: { ...recipe.surface.flat, widthMm: 400, heightMm: 300 },
          size: { mode: 'fit' },
        },
      }),
    );
    const parts = async () => (await bench.api<Job>('GET', `/api/jobs/${two.id}`)).body.recipe.artworks;
    const { body } = await bench.api<{ design: { scale: number } }>('GET', `/api/jobs/${two.id}/plan`);
    const { scale } = body.design;
    expect(Math.abs(scale - 1)).toBeGreaterThan(0.2);
    await driver.get(`${bench.server.url}/jobs/${two.id}/artwork`);
    await sees('1 sheet');
    await browser.tap('section[aria-label="On the design"] li input[type=checkbox]');
    await sees('the rest of the design');
    // As fast as a hand that does not wait for the picture.
    for (const name of ['left', 'middle across', 'right', 'top', 'middle down', 'foot']) await press(`to the ${name}`);
    await driver.wait(async () => Math.abs((await parts())[0]!.place.scale - scale) < 1e-9, 60_000);
    await sees('saved');
    const [lower, upper] = (await parts()).map(({ place }) => place);
    // Half as large as the other, its right edge and its foot on those of the other.
    expect(upper!.scale / scale).toBeCloseTo(0.5, 9);
    expect(upper!.xMm + 30 * upper!.scale).toBeCloseTo(lower!.xMm + 30 * lower!.scale, 6);
    expect(upper!.yMm + 20 * upper!.scale).toBeCloseTo(lower!.yMm + 20 * lower!.scale, 6);
    for (const name of ['middle across', 'middle down'] as const) {
      await press(`to the ${name}`);
      await sees('saved');
    }
    const middle = (await parts())[1]!.place;
    expect(middle.xMm - lower!.xMm).toBeCloseTo(0, 6);
    expect(middle.yMm - lower!.yMm).toBeCloseTo(0, 6);
    for (const name of ['middle across', 'middle down'] as const) await press(`to the ${name}`);
    await sees('saved');
    expect((await parts())[1]!.place).toEqual(middle);
  });

  it('are held against a picture of the file, and what is not as drawn is shown', async () => {
    const { sees } = browser;
    await give(
      'dot.svg',
      `<!DOCTYPE svg [<!ENTITY dot '<circle xmlns="http://www.w3.org/2000/svg" cx="150" cy="60" r="12" fill="#f2b632"/>'>]><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 120" width="200mm" height="120mm"><rect x="20" y="20" width="80" height="80" fill="#b3262b"/><circle cx="150" cy="60" r="36" fill="#1d4e89"/>&dot;</svg>`,
    );
    await sees('The colour here is another than in the drawing');
  });

  it('have near colours gathered by one finding, and by a slider', async () => {
    const { press, sees, driver } = browser;
    const square = (i: number, fill: string) =>
      `<rect x="${5 + 24 * i}" y="5" width="20" height="${40 - 3 * i}" fill="${fill}"/>`;
    await give(
      'near.svg',
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 150 60" width="150mm" height="60mm">${['#b3262b', '#b8282e', '#1d4e89', '#2a5d98', '#1f6b45', '#b02228'].map((fill, i) => square(i, fill)).join('')}</svg>`,
    );
    await sees('nearly');
    await sees('3 sheets and 3 alignments fewer');
    await press('6 colours found');
    const slider = await driver.findElement(By.css('input[type=range]'));
    await slider.sendKeys(Key.ARROW_RIGHT);
    await sees('up to a difference of 7');
    await sees('6 colours become 3');
    // Only looked at so far.
    expect((await saved()).repair.recolour).toEqual({});
    await press('Make them 3');
    await until(({ repair }) => Object.keys(repair.recolour).length === 3);
    await sees('3 colours, made of 6 in the artwork');
    expect(await browser.complaints()).toEqual([]);
  });

  it(
    'take a gradient, a pattern and text in an unknown font, each with its remedies',
    { timeout: 300_000 },
    async () => {
      const { press, sees } = browser;
      await give(
        'all.svg',
        `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 120" width="200mm" height="120mm"><linearGradient id="g"><stop stop-color="#f2b632"/><stop offset="1" stop-color="#b3262b"/></linearGradient><pattern id="p" width="10" height="10" patternUnits="userSpaceOnUse"><rect width="10" height="10" fill="#1f6b45"/></pattern><rect x="5" y="5" width="80" height="50" fill="url(#g)"/><rect x="95" y="5" width="80" height="50" fill="url(#p)"/><text x="10" y="100" font-family="Harbour Slab" font-size="24">Wick</text><rect x="100" y="70" width="60" height="40" fill="none" stroke="#16181a" stroke-width="0.05"/></svg>`,
      );
      await sees('Film has one colour');
      await press('Cut gradients as 5 bands');
      await sees('cut as bands of one colour each');
      await press('Cut patterns in their main colour');
      await press('Set “Harbour Slab” in Zilla Slab');
      await sees('Text in “Harbour Slab” is set in Zilla Slab.');
      await press('Fill what thin strokes enclose');
      await sees('What very thin strokes enclose is filled.');
      await sees('Gradients are cut as');
      await browser.write('Bands of a gradient', '7');
      await until(({ repair }) => repair.gradientBands === 7);
      await press('Undo: Gradients are cut as 7 bands.');
      await sees('Film has one colour');
    },
  );
});
