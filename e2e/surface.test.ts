import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { patchRecipe, type Job, type Recipe } from '../core/recipe/index.js';
import { AT_ORIGIN, letteringPart, newLettering } from '../core/stations/artwork/index.js';
import { newBlank } from '../core/shop/index.js';
import { cutsOf, jobWith, openBench, runUntil, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* Every kind of thing, from its measures to a cut sheet. */

const LABEL =
  '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="30mm" viewBox="0 0 80 30"><path fill="#b3262b" d="M0 0h80v30H0z"/><path fill="#f7f5ef" d="M10 10h20v10H10zM50 8h16v14H50z"/></svg>';

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 200, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});
beforeEach(async () => {
  job = await jobWith(bench, LABEL, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
});

const open = (station: string) => browser.driver.get(`${bench.server.url}/jobs/${job.id}/${station}`);
const now = async () => (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe;
const until = (is: (recipe: Recipe) => boolean) => browser.driver.wait(async () => is(await now()), 60_000);
const cutOne = async (done: (words: string) => boolean = () => true) => {
  await open('cut');
  await browser.sees('What is loaded?');
  const words = await browser.text();
  expect(done(words)).toBe(true);
  await browser.choose('Film in the cutter', /This sheet needs ([^,]+),/.exec(words)![1]!);
  await browser.press(/It lies (?:liner|carrier) down[^\n]*/.exec(words)![0].trim());
  await browser.press('Cut this sheet');
  await browser.driver.wait(async () => (await cutsOf(bench, job.id)).some(({ runs }) => runs.length > 0), 60_000);
  const [sheet] = await cutsOf(bench, job.id);
  await runUntil(bench, sheet!.runs[0]!.id, (run) => run.state === 'finished');
  return sheet!;
};

it('a board with a hole: the design keeps clear of it', async () => {
  await open('surface');
  await browser.choose('What it goes on', 'a board');
  await browser.write('Width', '240');
  await browser.write('Height', '120');
  await browser.press('Keep a round place free');
  await browser.sees('lies beside the middle');
  await browser.write('Place 1 across', '400');
  await browser.sees('which must stay free');
  await browser.press('Take away place 1');
  await until(({ surface }) => surface.flat.free.length === 0);
  await browser.press('Fit to the board');
  await browser.sees('220 × 82.5');
  await cutOne();
});

it('a mug: measured by tape, faces the room or its holder, and is seen from both sides', async () => {
  await open('surface');
  await browser.choose('What it goes on', 'a mug');
  await browser.write('Circumference', '257');
  await browser.write('Below the lip', '200');
  await browser.sees('Lip and foot together take all of the 90 mm');
  // What was typed stays where it is, and the job waits.
  expect((await now()).surface.cylinder.lipMm).toBe(200);
  await browser.write('Below the lip', '12');
  await browser.sees('as the room sees it');
  await browser.sees('From in front it looks');
  await browser.press('Turn it to its holder');
  await browser.sees('It faces its holder.');
  await browser.press('in the left');
  await until(({ surface }) => surface.cylinder.hand === 'left');
  await browser.press('Measure across instead');
  await until(
    ({ surface }) => surface.cylinder.girthBy === 'diameter' && Math.abs(surface.cylinder.girthMm - 81.81) < 0.01,
  );
  await cutOne();
});

it('a mug with two designs: parts are given to its sides, each is sized, weeded and cut by itself', async () => {
  job = await jobWith(bench, LABEL, (recipe) =>
    patchRecipe(recipe, {
      artworks: [
        ...recipe.artworks,
        {
          ...letteringPart('name', { ...newLettering('Wick'), capHeightMm: 15, colours: ['#b3262b'] }),
          place: { ...AT_ORIGIN, yMm: 60 },
        },
      ],
      surface: { kind: 'cylinder', size: { mode: 'fit' } },
    }),
  );
  await open('surface');
  await browser.press('Different designs on its sides');
  await browser.choose('What “Wick” belongs to', 'facing its holder');
  await browser.sees('It carries 2 designs.');
  await until(({ surface }) => surface.several.others.length === 1 && surface.several.others[0]!.parts[0] === 'name');
  await browser.write('Width of design 2', '31');
  await until(({ surface }) => surface.several.others[0]!.widthMm === 31);
  await open('prepare');
  await browser.press('“Wick”');
  await cutOne((words) => words.includes('“Wick”') || words.includes('.svg'));
  await open('surface');
  await browser.choose('What “Wick” belongs to', 'facing the room');
  await until(({ surface }) => surface.several.others.length === 0);
});

it('a board with two designs, each twice: balanced, and one design again by one press', async () => {
  job = await jobWith(bench, LABEL, (recipe) =>
    patchRecipe(recipe, {
      artworks: [
        ...recipe.artworks,
        {
          ...letteringPart('name', { ...newLettering('Wick'), capHeightMm: 15, colours: ['#b3262b'] }),
          place: { ...AT_ORIGIN, yMm: 60 },
        },
      ],
      surface: { kind: 'flat', size: { mode: 'own' } },
    }),
  );
  await open('surface');
  await browser.write('Width', '400');
  await browser.write('Height', '300');
  await browser.press('Several designs on it');
  await browser.choose('What “Wick” belongs to', 'a design of its own');
  await browser.sees('It carries 2 designs.');
  await browser.write('How often on the board', '2');
  await browser.sees('It carries 4 designs.');
  await browser.write('Between two designs', '8');
  await until(({ surface }) => surface.several.betweenMm === 8 && surface.several.copies === 2);
  await browser.press('Make all of it one design');
  await until(({ surface }) => surface.several.others.length === 0 && surface.several.copies === 1);
});

it('a tumbler: measured upright or along its side, bent, turned by keys, and its template downloaded', async () => {
  await open('surface');
  await browser.choose('What it goes on', 'a tin or tumbler');
  await browser.write('Larger diameter', '65');
  await browser.sees('that is no taper');
  await browser.write('Larger diameter', '88');
  await browser.press('Measure it upright instead');
  await browser.sees('mm along the side');
  await browser.sees('Level lines become arcs');
  const figure = () => browser.driver.executeScript<string>('return document.querySelector("figure svg").innerHTML');
  const before = await figure();
  await browser.driver.executeScript('document.querySelector(\'[aria-label^="The design on the thing"]\').focus()');
  await browser.driver.actions().sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT).perform();
  await browser.driver.wait(async () => (await figure()) !== before, 60_000);
  await browser.driver.actions().sendKeys('0').perform();
  await browser.driver.wait(async () => (await figure()) === before, 60_000);
  await browser.press('rolled out flat');
  await browser.find('svg[aria-label="The surface with the design on it"]');
  await browser.choose('What to print', 'the wrap template');
  const links = await browser.driver.executeScript<string[]>(
    'return [...document.querySelectorAll("a[download]")].map((link) => link.getAttribute("href"))',
  );
  for (const on of ['a4', 'svg', 'dxf', 'pdf']) {
    const answer = await fetch(`${bench.server.url}/api/jobs/${job.id}/print/wrap?on=${on}`);
    expect([answer.status, (await answer.arrayBuffer()).byteLength > 400]).toEqual([200, true]);
  }
  expect(links).toContain(`/api/jobs/${job.id}/print/wrap?on=a4`);
  await cutOne();
});

it('a dome: strain is shaded, and a safe size is one key away', async () => {
  await open('surface');
  await browser.choose('What it goes on', 'a dome');
  await browser.write('Chord across', '100');
  await browser.write('Height of the arc across', '80');
  await browser.sees('at most half as high');
  await browser.write('Height of the arc across', '14');
  await browser.write('Chord downwards', '100');
  await browser.write('Height of the arc downwards', '14');
  await browser.write('Width of the design', '120');
  await browser.sees('Lock-gate red stretches by about 1 %');
  await browser.sees('to 1 % (calendered)');
  const { surface } = await now();
  const safe = (await browser.text()).match(/Make the design ([\d.]+) mm wide/)![1]!;
  await browser.press(`Make the design ${safe} mm wide`);
  await until((recipe) => recipe.surface.size.mode === 'width' && recipe.surface.size.mm === Number(safe));
  expect(surface.compound.across.heightMm).toBe(14);
  await cutOne();
});

it('decals that stand apart on one drawing are laid each by itself, those alike as copies', async () => {
  job = await jobWith(
    bench,
    '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="100mm" viewBox="0 0 120 100"><g fill="#1d4e89"><path d="M0 0h40v40h-40z"/><path d="M60 0h40v40h-40z"/><circle cx="30" cy="80" r="18"/></g></svg>',
    (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }),
  );
  await open('surface');
  await browser.sees('Its parts are laid in one go.');
  await browser.press('They are decals of their own');
  await browser.sees('Its parts are 3 decals.');
  await open('sheets');
  await browser.sees(/Part 1.*; Part 2/);
  const { groups } = await cutOne((words) => words.includes('It carries Part 1 and Part 2.'));
  expect(groups).toHaveLength(3);
});

it('glass from inside: everything mirrored, said on every station, and cut so', async () => {
  await open('surface');
  await browser.choose('What it goes on', 'glass, from inside');
  await browser.sees('Everything is cut mirrored');
  await open('assemble');
  await browser.sees('on the inner face of the glass');
  await open('sheets');
  await browser.sees('It is cut mirrored.');
  const { groups } = await cutOne((words) => words.includes('film side up, cut mirrored: it goes inside the glass.'));
  const [a, b, c, d] = groups[0]!.matrix;
  // From y down to y up without turning over: a mirror image.
  expect(a * d - b * c).toBeGreaterThan(0);
});

it('a sign of 3 m: in panels that are numbered, weeded one by one, and said when they are cut', async () => {
  await open('surface');
  await browser.write('Width of the design', '3 m');
  await browser.sees(/It is made in \d panels/);
  await browser.choose('What it goes on', 'a board');
  await browser.write('Width', '320 cm');
  await browser.write('Height', '130 cm');
  await browser.press('from the right');
  await browser.sees('Panels lap by');
  await open('prepare');
  await browser.press('panel 2');
  await open('assemble');
  await browser.sees('Lay the panels in this order: 1, 2');
  const { groups } = await cutOne((words) => /It (is|carries) panels? \d/.test(words));
  expect(groups.length).toBeGreaterThan(0);
});

describe('garments', () => {
  it('in several sizes, each as wide as it is ruled or wished', async () => {
    await open('surface');
    // Cloth is not painted, so nobody is asked about it.
    await browser.choose('What it goes on', 'a board');
    await browser.find('[aria-label^="Fresh paint"]');
    await browser.choose('What it goes on', 'a garment');
    await browser.press('Several sizes, S to XXL');
    expect(await browser.driver.findElements(By.css('[aria-label^="Fresh paint"]'))).toEqual([]);
    await browser.sees('It is made in 5 sizes, for 5 garments in all');
    await browser.write('Pieces in M', '3');
    await browser.write('Width on XL', '333');
    await until(({ surface }) => surface.garment.sizes.some(({ size, widthMm }) => size === 'XL' && widthMm === 333));
    await browser.sees('for 7 garments in all');
    await browser.find('svg[aria-label="The print on the garment, on S"]');
    await browser.choose('Which print is shown', 'XL');
    await browser.find('svg[aria-label="The print on the garment, on XL"]');
    await browser.choose('What garment it is', 'trousers');
    await until(({ surface }) => surface.garment.piece === 'trousers' && surface.garment.spot === 'leg');
    await browser.choose('What garment it is', 'a shirt');
    await browser.press('all prints');
    await browser.find('svg[aria-label="The surface with the design on it"]');
    await cutOne((words) => words.includes('It carries S, M, L, XL and XXL.'));
  });

  it('for a team: a list is taken whole or not at all', async () => {
    const { recipe, revision } = (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body;
    const words = (id: string, text: string, yMm: number) => ({
      ...letteringPart(id, { ...newLettering(text), capHeightMm: 50, colours: ['#f7f5ef'] }),
      place: { ...AT_ORIGIN, yMm },
    });
    await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: patchRecipe(recipe, { artworks: [words('name', 'NAME', 0), words('number', '7', 90)] }),
      revision,
    });
    await open('surface');
    await browser.choose('What it goes on', 'a garment');
    await browser.press('Names and numbers of a team');
    const list = await browser.find('textarea');
    await list.sendKeys('ADA, 7\nBRAM, 12, huge');
    await browser.press('Take this list');
    await browser.sees('Line 2 has more than a name, a number and a size');
    expect((await now()).surface.team).toBeNull();
    await list.clear();
    await list.sendKeys('ADA, 7, S\nEVERDINGEN-LOUISE, 12, XL');
    await browser.press('Take this list');
    await browser.sees('It is made for 2 members');
    await until(({ surface }) => surface.team?.namePart === 'name' && surface.team.numberPart === 'number');
    await browser.sees('Names wider than 300 mm are condensed: 1 name');
    await cutOne((text) => text.includes('It carries 7 ADA (S) and 12 EVERDINGEN-LOUISE (XL).'));
  });
});

it('a change of kind and back keeps all figures, and undo goes through it', async () => {
  await open('surface');
  await browser.choose('What it goes on', 'a mug');
  await browser.write('Circumference', '333');
  await browser.choose('What it goes on', 'glass, from inside');
  await browser.sees('Everything is cut mirrored');
  await browser.choose('What it goes on', 'a mug');
  await until(({ surface }) => surface.kind === 'cylinder' && surface.cylinder.girthMm === 333);
  await browser.press('Undo');
  await until(({ surface }) => surface.kind === 'glass' && surface.cylinder.girthMm === 333);
});

it('a blank of the shop gives its figures and what worked on it', async () => {
  const reading = { what: 'circumference' as const, mm: 229, on: '2026-04-20', by: 'Ilse', with: 'tape' as const };
  const trial = { what: 'a name', widthMm: 61, heightMm: null, on: '2026-04-22', held: 'well' as const, note: '' };
  const { revision } = (await bench.api<{ revision: number }>('GET', '/api/shop')).body;
  const flask = {
    ...newBlank('flask'),
    name: 'Blue flask',
    kind: 'cylinder',
    matter: 'powder coat',
    colour: '#2d4f7c',
    readings: [reading],
    trials: [trial],
  };
  expect(
    (await bench.api('POST', '/api/shop/changes', { revision, changes: [{ kind: 'blanks', value: flask }] })).status,
  ).toBe(200);
  await open('surface');
  await browser.choose('What it goes on', 'a mug');
  await browser.choose('Blank of the shop', 'Blue flask');
  await browser.sees('sat well');
  await browser.sees('Powder coat holds less');
  await browser.press('Make it 61 mm wide');
  await until(
    ({ surface }) =>
      surface.blankId === 'flask' &&
      surface.cylinder.girthMm === 229 &&
      surface.size.mode === 'width' &&
      surface.size.mm === 61,
  );
  // This one is a little smaller: that is written down, and counts from then on.
  await browser.write('Circumference', '227');
  await browser.press('Write these readings down with the blank');
  await browser.driver.wait(
    async () =>
      (
        await bench.api<{ blanks: { readings: { mm: number; what: string }[] }[] }>('GET', '/api/shop')
      ).body.blanks[0]!.readings.some(({ mm, what }) => mm === 227 && what === 'circumference'),
    60_000,
  );
  await browser.driver.wait(async () => !(await browser.text()).includes('Write these readings down'), 60_000);
});
