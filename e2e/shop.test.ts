import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { newMaker, type ShopFile } from '../core/shop/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';
import { violations } from './violations.js';

const PATIENCE_MS = 60_000;

const folder = mkdtempSync(join(tmpdir(), 'lantern-shop-'));
const file = (name: string, content: string | Buffer) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};

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

type Shop = ShopFile & { revision: number };
const shop = async () => (await bench.api<Shop>('GET', '/api/shop')).body;
const until = async (what: string, holds: (now: Shop) => boolean) => {
  await browser.driver
    .wait(async () => holds(await shop()), PATIENCE_MS)
    .catch(() => {
      throw new Error(`It never came to be that ${what}`);
    });
};
const go = (path: string) => browser.driver.get(bench.server.url + path);
const give = async (label: string, path: string) =>
  (await browser.driver.findElement(By.css(`input[type=file][aria-label="${label}"]`))).sendKeys(path);
const row = (text: string) => By.xpath(`//*[@role="row"][contains(., "${text}")]`);

describe('films', () => {
  it('are added with what is typical of their family, changed, undone and retired', async () => {
    await go('/shop/films');
    await browser.sees('Tar black');
    await browser.press('New film');
    await browser.write('Name', 'Weir blue');
    await browser.choose('Family', 'flock');
    await browser.write('Colour', '2a5f8f');
    await browser.write('Cost', '21,50');
    await browser.press('Add');
    await until('the film is there', ({ films }) => films.some(({ name }) => name === 'Weir blue'));
    const film = (await shop()).films.find(({ name }) => name === 'Weir blue')!;
    expect(film).toMatchObject({
      family: 'flock',
      colour: '#2a5f8f',
      costPerM2: 21.5,
      thicknessUm: 420,
      mirrored: true,
      takesOnTop: false,
      adhesive: null,
      press: { tempC: 160, seconds: 16, peel: 'cold' },
    });
    await browser.sees('Weir blue is added.');
    await browser.write('Thinnest stroke', '2.5');
    await browser.press('Save');
    await until('it is changed', ({ films }) => films.find(({ id }) => id === film.id)?.thinnestMm === 2.5);
    await browser.driver.findElement(By.xpath('//button[.="Undo"]')).click();
    await until('it is undone', ({ films }) => films.find(({ id }) => id === film.id)?.thinnestMm === 2);
    await browser.press('Retire');
    await until('it is retired', ({ films }) => films.find(({ id }) => id === film.id)!.retired);
  });

  it('with a wrong figure are not saved: it is said at the field, and what was typed stays, also over a reload', async () => {
    await go('/shop/films/tar');
    await browser.sees('What it bears');
    await browser.write('Cost', 'x');
    await browser.sees('Write a number, not “x”.');
    await browser.write('Thickness', '99999');
    await browser.press('Save');
    await browser.sees('It must be from 10 to 2000.');
    expect((await shop()).films.find(({ id }) => id === 'tar')).toMatchObject({ costPerM2: 8.9, thicknessUm: 75 });
    await browser.driver.navigate().refresh();
    await browser.sees('What it bears');
    const typed = await browser.find('input[aria-label="Cost"]');
    await browser.driver.wait(async () => (await typed.getAttribute('value')) === 'x', PATIENCE_MS);
    await browser.press('Drop what I typed');
    await browser.driver.wait(async () => (await typed.getAttribute('value')) === '8.9', PATIENCE_MS);
  });

  it('that another tab changed meanwhile are told, and neither hand’s figures are lost', async () => {
    await go('/shop/films/tar');
    await browser.sees('What it bears');
    await browser.write('Cost', '9.75');
    const { films, revision } = await shop();
    await bench.api('POST', '/api/shop/changes', {
      revision,
      changes: [{ kind: 'films', value: { ...films.find(({ id }) => id === 'tar'), supplier: 'Towpath Sign Supply' } }],
    });
    await browser.sees('This was changed somewhere else in the meantime.');
    await browser.press('Save');
    await browser.sees('was not saved');
    await browser.press('Lay what I typed over it');
    await browser.press('Save');
    await until('both are there', (now) => {
      const tar = now.films.find(({ id }) => id === 'tar')!;
      return tar.costPerM2 === 9.75 && tar.supplier === 'Towpath Sign Supply';
    });
  });

  it('have a pattern, which is no pattern when it is no picture', async () => {
    await go('/shop/films/brass');
    await browser.sees('Pattern');
    await give('Picture of the pattern', file('films.csv', 'name,family'));
    await browser.sees('This file is no picture that can be shown.');
    await give('Picture of the pattern', resolve('demo/artwork/quay-tiles.svg'));
    await browser.sees('It begins anew every');
    await browser.write('Width of the repeat', '6 cm');
    await browser.press('Save');
    await until('the pattern is kept', ({ films }) => films.find(({ id }) => id === 'brass')?.pattern?.repeatMm === 60);
  });

  it('show their pattern at its true scale in a job, where it is dragged and kept', async () => {
    const picture = (
      await bench.api<{ picture: { id: string; fileName: string; sha256: string } }>(
        'POST',
        '/api/shop/pictures?fileName=tiles.svg',
        readFileSync('demo/artwork/quay-tiles.svg'),
      )
    ).body.picture;
    const { films, revision } = await shop();
    await bench.api('POST', '/api/shop/changes', {
      revision,
      changes: [
        {
          kind: 'films',
          value: { ...films.find(({ id }) => id === 'heron'), pattern: { picture, repeatMm: 60, ratio: 1 } },
        },
      ],
    });
    const job = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100"><rect width="200" height="100" fill="#b3262b"/></svg>',
      (recipe) => patchRecipe(recipe, { films: { byColour: { '#b3262b': 'heron' } } }),
    );
    await go(`/jobs/${job.id}/films`);
    await browser.sees('The pattern of Heron grey is shown at its true scale. It begins anew every 60 mm.');
    const says = (name: string) =>
      browser.driver.executeScript<string>(
        `return document.getElementById('film-pattern-heron').getAttribute('${name}')`,
      );
    expect([await says('width'), await says('height'), await says('patternUnits')]).toEqual([
      '60',
      '60',
      'userSpaceOnUse',
    ]);
    const handle = await browser.find('button[aria-label="Drag the pattern of Heron grey"]');
    await browser.driver
      .actions()
      .move({ origin: handle })
      .press()
      .move({ origin: handle, x: 30, y: 15 })
      .release()
      .perform();
    const places = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe.films.patterns;
    await browser.driver.wait(async () => (await places())['heron'] !== undefined, PATIENCE_MS);
    const { xMm, yMm } = (await places())['heron']!;
    expect(xMm / yMm).toBeCloseTo(2, 0);
    await browser.write('Across: the pattern of Heron grey', '25');
    await browser.driver.wait(async () => (await places())['heron']!.xMm === 25, PATIENCE_MS);
    await browser.driver.wait(async () => (await says('patternTransform')).startsWith('translate(25 '), PATIENCE_MS);
  });

  it('get their colour out of a photograph', async () => {
    const photo = file(
      'film.png',
      new Resvg(
        '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><rect width="100" height="100" fill="#2a5f8f"/><rect x="100" width="100" height="100" fill="#c01f2e"/></svg>',
      )
        .render()
        .asPng(),
    );
    await go('/shop/films/new');
    await browser.sees('What it is');
    await give('Photograph of the film', photo);
    const canvas = await browser.find('canvas');
    const { width } = await canvas.getRect();
    await browser.driver
      .actions()
      .move({ origin: canvas, x: Math.round(-width / 4), y: 0 })
      .click()
      .perform();
    const colour = await browser.find('input[aria-label="Colour"]');
    await browser.driver.wait(async () => (await colour.getAttribute('value')) === '#2a5f8f', PATIENCE_MS);
    await browser.press('Done');
  });

  it('come in from a table, or not at all', async () => {
    await go('/shop/films');
    await browser.sees('Tar black');
    await give('Table of films', file('bad.csv', 'name,family,cost per m²\nSea,cast,3\nHay,cast,x\n'));
    await browser.sees('Line 3: cost per m²: Write a number, not “x”.');
    expect((await shop()).films.some(({ name }) => name === 'Sea')).toBe(false);
    await give('Table of films', file('good.csv', 'name,family,cost per m²\nSea,cast,3\nHay,cast,4\n'));
    await browser.sees('2 films added, 0 changed.');
    await browser.sees('Hay');
  });

  it('are found by words and sorted by a head, with the keyboard alone', async () => {
    await go('/shop/films');
    const search = await browser.find('input[aria-label^="Search films"]');
    await search.sendKeys('polymeric tar');
    await browser.driver.wait(
      async () => (await browser.driver.findElements(row('Chalk white'))).length === 0,
      PATIENCE_MS,
    );
    await search.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE);
    await browser.driver.wait(
      async () => (await browser.driver.findElements(row('Chalk white'))).length > 0,
      PATIENCE_MS,
    );
    const first = async () => (await browser.driver.findElements(By.css('[role="row"]')))[0]!.getText();
    const head = await browser.find('[aria-label="Order of the list"] button:last-child');
    await browser.driver.executeScript('arguments[0].focus()', head);
    await head.sendKeys(Key.ENTER);
    await browser.driver.wait(
      async () => (await head.getAttribute('aria-label')) === 'Per m², sorted upwards',
      PATIENCE_MS,
    );
    await browser.driver.actions().sendKeys(Key.TAB).perform();
    await browser.driver.wait(
      async () =>
        (await browser.driver.executeScript<string>('return document.activeElement.getAttribute("role")')) === 'row',
      PATIENCE_MS,
    );
    const cheapest = await first();
    await browser.driver.actions().sendKeys(Key.ENTER).perform();
    await browser.driver.wait(async () => /\/shop\/films\/.+/.test(await browser.driver.getCurrentUrl()), PATIENCE_MS);
    expect(cheapest).toContain((await browser.driver.findElement(By.css('section > div h2')).getText()).trim());
  });
});

describe('stock', () => {
  const leftOf = (id: string) => (now: Shop) => now.stock.find((piece) => piece.id === id)!.left;

  it('is received, counted, used and taken back, each a line with who and why', async () => {
    const { revision } = await shop();
    await bench.api('POST', '/api/shop/changes', {
      revision,
      changes: [{ kind: 'makers', value: { ...newMaker('ilse'), name: 'Ilse' } }],
    });
    await go('/shop/stock/tar-roll');
    await browser.choose('At work', 'Ilse');
    await browser.sees('22 m');
    await browser.write('There is, metres', '-3');
    await browser.press('Book it');
    await browser.sees('What is there cannot be less than nothing.');
    await browser.write('There is, metres', '20.5');
    await browser.write('Why', 'counted on Friday');
    await browser.press('Book it');
    await until('it is counted', (now) => leftOf('tar-roll')(now) === 20_500);
    await browser.sees('counted: counted on Friday');
    await browser.sees('Ilse');
    await browser.driver
      .findElement(By.xpath('//ul[@aria-label="Stock book"]/li[1]//button[starts-with(., "take back")]'))
      .click();
    await until('it is taken back', (now) => leftOf('tar-roll')(now) === 22_000);
  });

  it('gets an offcut with a number to write on it', async () => {
    await go('/shop/stock/new');
    await browser.choose('Film', 'Chalk white');
    await browser.press('offcut');
    await browser.press('Take it, and give it a number');
    await browser.sees('Measure it, and write it here.');
    await browser.write('Usable width', '18 cm');
    await browser.write('Length', '240');
    await browser.press('Take it, and give it a number');
    await browser.sees('Write 2 on this offcut');
    await until('it is there', ({ stock }) =>
      stock.some(
        ({ kind, number, widthMm, left }) => kind === 'offcut' && number === 2 && widthMm === 180 && left === 1,
      ),
    );
  });

  it('that runs short is told on the first screen', async () => {
    const { films, revision } = await shop();
    await bench.api('POST', '/api/shop/changes', {
      revision,
      changes: [{ kind: 'films', value: { ...films.find(({ id }) => id === 'reed'), reorderM2: 5 } }],
    });
    await go('/');
    await browser.sees('Short in stock');
    await browser.press('Reed brown');
    await browser.sees('Receive a piece');
  });
});

describe('tools, makers and blanks', () => {
  it('are added and used: a mat, another cutter, a maker, a blank with two readings', async () => {
    await go('/shop/tools?kind=mats');
    await browser.press('New mat');
    await browser.write('Name', 'wide mat');
    await browser.write('Width', '60 cm');
    await browser.press('Add');
    await until('the mat is there', ({ mats }) =>
      mats.some(({ name, widthMm }) => name === 'wide mat' && widthMm === 600),
    );
    await go('/shop/tools?kind=cutters');
    await browser.press('New cutter');
    await browser.write('Name', 'files only');
    await browser.press('Add');
    await browser.press('Cut with this one');
    await until(
      'it is the one in use',
      ({ settings, cutters }) => cutters.find(({ id }) => id === settings.cutterId)?.name === 'files only',
    );
    await browser.driver.findElement(By.xpath('//button[.="Undo"]')).click();
    await until('the other one is', ({ settings }) => settings.cutterId === 'bench');
    await go('/shop/makers/new');
    await browser.write('Name', 'Oren');
    await browser.write('Places within, with marks', '0.15');
    await browser.press('Add');
    await until('Oren is there', ({ makers }) =>
      makers.some(({ name, placementWithMarksMm }) => name === 'Oren' && placementWithMarksMm === 0.15),
    );
    await go('/shop/blanks/new');
    await browser.write('Name', 'Enamel mug');
    await browser.choose('Kind', 'cylinder');
    await browser.press('Add a reading');
    await browser.choose('What was measured, 1', 'circumference');
    await browser.write('Reading 1', '258');
    await browser.press('Add a reading');
    await browser.write('Reading 2', '256.5');
    await browser.sees('Of the readings of the circumference the smallest counts: 256.5 mm.');
    await browser.press('Add');
    await until('the mug is there', ({ blanks }) =>
      blanks.some(({ name, readings }) => name === 'Enamel mug' && readings.length === 2),
    );
  });
});

describe.each(['light', 'dark'] as const)('in the %s, axe has nothing to object to', (theme) => {
  it.each([
    ['films', '/shop/films/tar', 'What it bears'],
    ['stock', '/shop/stock/tar-roll', 'Why so much is left'],
    ['receiving', '/shop/stock/new', 'It gets its first line'],
    ['tools', '/shop/tools/mat-long', 'Uses before'],
    ['makers', '/shop/makers/new', 'Places within'],
    ['blanks', '/shop/blanks/new', 'What worked on it'],
    ['devices', '/shop/devices', 'Other devices at the bench'],
    ['the first day', '/shop/begin', 'Films, by family'],
  ])('%s', async (_, path, seen) => {
    await go('/');
    await browser.driver.executeScript(`localStorage.setItem('lantern.theme', '${theme}')`);
    await go(path);
    await browser.sees(seen);
    expect(await violations(browser)).toEqual([]);
  });

  it('a list that is open', async () => {
    await go('/shop/stock/new');
    await browser.sees('It gets its first line');
    await browser.press('Film: choose a film …');
    await browser.find('[role="option"]');
    expect(await violations(browser)).toEqual([]);
  });
});

describe('narrower screens', () => {
  it.each([
    [1024, 768],
    [390, 844],
  ])('%i wide nothing of the shop sticks out sideways', async (width, height) => {
    // With makers there is one thing more at the head of the page.
    const { makers, revision } = await shop();
    if (makers.length === 0)
      await bench.api('POST', '/api/shop/changes', {
        revision,
        changes: [{ kind: 'makers', value: { ...newMaker('ilse'), name: 'Ilse' } }],
      });
    await browser.driver.get('about:blank');
    await browser.resize(width, height);
    for (const [path, seen] of [
      ['/shop/films', 'Chalk white'],
      ['/shop/stock/tar-roll', 'Why so much is left'],
      ['/shop/films/tar', 'What it bears'],
      ['/shop/devices', 'Other devices'],
    ] as const) {
      await go(path);
      await browser.sees(seen);
      expect([
        path,
        await browser.driver.executeScript(
          'return document.documentElement.scrollWidth - document.documentElement.clientWidth',
        ),
      ]).toEqual([path, 0]);
    }
    await browser.driver.get('about:blank');
    await browser.resize(1280, 800);
  });
});

describe('a phone at the bench', () => {
  it('is let in by a code, works there, cannot change the shop, and is sent away', async () => {
    await go('/shop/devices');
    await browser.sees('Only this computer is answered.');
    const { body } = await bench.api<{ open: { url: string } }>('PUT', '/api/devices/sharing', {
      address: '127.0.0.2',
      port: 0,
      certificate: null,
      privateKey: null,
    });
    await browser.sees(`Shared on ${body.open.url}`);
    await browser.sees('It is plain HTTP');
    await browser.press('Let a device in');
    await browser.find('svg[aria-label="Code to scan with the phone’s camera"]');
    await browser.press('The address, to type it in');
    const url = (await (await browser.find('code')).getText()).trim();
    const phone = await openBrowser();
    try {
      await phone.resize(390, 844);
      // Without a code there is one thing to see.
      await phone.driver.get(`${body.open.url}/shop/stock`);
      await phone.sees('Scan the code that the bench computer shows');
      await phone.driver.get('about:blank');
      await phone.driver.get(url);
      await phone.write('Name of this device', 'Oren’s phone');
      await phone.press('Let it in');
      await phone.sees('Jobs');
      expect(await phone.driver.executeScript('return document.cookie')).toBe('');
      await browser.sees('Oren’s phone');
      await phone.driver.get(`${body.open.url}/shop/stock/chalk-roll`);
      await phone.choose('What happened', 'used');
      await phone.write('Went, metres', '1.4');
      await phone.press('Book it');
      await until('it is booked', ({ stock }) => stock.find(({ id }) => id === 'chalk-roll')!.left === 17_000);
      await phone.driver.get(`${body.open.url}/shop/films/chalk`);
      await phone.sees('What it bears');
      await phone.write('Cost', '1');
      await phone.press('Save');
      await phone.sees('This can be done on the bench computer only.');
      expect((await shop()).films.find(({ id }) => id === 'chalk')!.costPerM2).toBe(8.9);
      await browser.press('Send Oren’s phone away');
      await browser.driver.wait(
        async () => (await bench.api<{ devices: unknown[] }>('GET', '/api/devices')).body.devices.length === 0,
        PATIENCE_MS,
      );
      await phone.driver.get(`${body.open.url}/`);
      await phone.sees('Scan the code that the bench computer shows');
      // The code was good once.
      await phone.driver.get('about:blank');
      await phone.driver.get(url);
      await phone.press('Let it in');
      await phone.sees('This code is not good any more.');
    } finally {
      await phone.close();
      await bench.api('PUT', '/api/devices/sharing', { address: null, port: 0, certificate: null, privateKey: null });
    }
  });
});

describe('a first day', () => {
  it('goes from an empty shop to a sheet that is cut', async () => {
    const own = await openBench({ pagesFolder: 'dist/web/', isEmpty: true, timeLapse: 400 });
    try {
      await browser.driver.get(own.server.url);
      await browser.sees('This shop has no films yet.');
      await browser.press('Set the shop up');
      await browser.write('Name of the shop', 'Lock Street Signs');
      await browser.write('Who is at work', 'Ada');
      await browser.write('Address of the cutter', '127.0.0.1');
      await browser.write('Port of the cutter', String(own.cutterPort));
      await browser.press('cast adhesive');
      await browser.press('Begin with 7 films');
      await browser.sees('The shop is set up.');
      await browser.sees('Lock Street Signs');
      await browser.driver.get(own.server.url);
      await browser.press('New job');
      await browser.sees('Start with a drawing');
      await browser.driver
        .findElement(By.css('input[type=file]'))
        .sendKeys(
          file(
            'plate.svg',
            '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="50mm" viewBox="0 0 80 50"><rect width="80" height="50" rx="5" fill="#b8232f"/></svg>',
          ),
        );
      await browser.sees('1 film');
      await browser.driver.get((await browser.driver.getCurrentUrl()).replace(/artwork$/, 'cut'));
      await browser.sees('What is loaded?');
      await browser.choose('Film in the cutter', 'Red, calendered');
      await browser.driver.findElement(By.css('main input[type=checkbox]')).click();
      await browser.press('Cut this sheet');
      const cut = async () =>
        (await own.api<{ why: string; who: string }[]>('GET', '/api/shop/lines')).body.some(
          ({ why, who }) => why === 'used' && who === 'Ada',
        );
      await browser.driver.wait(cut, PATIENCE_MS);
      await browser.driver.wait(
        async () => (await own.api<{ busy: unknown }>('GET', '/api/cutter')).body.busy === null,
        PATIENCE_MS,
      );
      await browser.driver.get(`${own.server.url}/`);
      await browser.sees('cut');
    } finally {
      await own.close();
    }
  });
});

it('choosing a film lists what is left of each, nearest colour first', async () => {
  expect(BENCH_SHOP_FILE.films.length).toBeGreaterThan(9);
  await go('/shop/stock/new');
  await browser.sees('It gets its first line');
  await browser.press('Film: choose a film …');
  const options = async () =>
    Promise.all((await browser.driver.findElements(By.css('[role="option"]'))).map((option) => option.getText()));
  await browser.driver.wait(async () => (await options()).length > 5, PATIENCE_MS);
  expect((await options()).every((text) => /m²|none left/.test(text))).toBe(true);
});
