import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { paintRegions, readSvg } from '../core/engines/artwork/index.js';
import { areaOf, boundsOf, countPieces, grow, intersect, subtract, unite, type Rings } from '../core/geometry/index.js';
import type { Job } from '../core/recipe/index.js';
import { BENCH_SHOP } from '../core/testing/bench-shop.js';
import { loadKernelInNode } from '../platform/load-kernel.js';
import { openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/*
 * Ten jobs as a maker does them, from “New job” to a build that needs nobody, in no more actions each than it took before, at most eleven: a press, a choice, a figure or words typed, a file given.
 * What is held against the wish is the geometry of the files that the build gives.
 */

let bench: Bench;
let browser: Browser;
let actions = 0;
const folder = mkdtempSync(join(tmpdir(), 'lantern-ten-'));
beforeAll(async () => {
  await loadKernelInNode();
  bench = await openBench({ pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});
beforeEach(() => {
  actions = 0;
});

const act = async (what: Promise<unknown>) => {
  actions += 1;
  await what;
};
const press = (name: string) => act(browser.press(name));
const choose = (label: string, option: string) => act(browser.choose(label, option));
const write = (label: string, text: string) => act(browser.write(label, text));
const sees = (text: string | RegExp) => browser.sees(text);

async function newJob(): Promise<void> {
  await browser.driver.get(bench.server.url);
  await sees('New job');
  await press('New job');
  await sees('Drop a drawing');
}

async function give(name: string, content: string | Uint8Array, at = 0): Promise<void> {
  const path = join(folder, name);
  writeFileSync(path, content);
  await act(browser.driver.findElements(By.css('input[type=file]')).then((inputs) => inputs[at]!.sendKeys(path)));
}

async function words(text: string): Promise<void> {
  await write('Words to add', text);
  await press('Add the words');
  await sees('lettering,');
}

async function to(station: string): Promise<void> {
  const link = await browser.driver.findElement(
    By.xpath(`//nav[@aria-label="Stations of this job"]//a[contains(., "${station}")]`),
  );
  await act(link.click());
  await browser.find(`section[aria-label="${station}: decisions"]`);
}
const toBuild = () => to('Build');

const jobId = async () => /\/jobs\/([^/]+)/.exec(await browser.driver.getCurrentUrl())![1]!;

/** The job once all that was decided is kept, and nothing is being planned. */
async function settled(holds: (job: Job) => boolean = () => true): Promise<Job> {
  const id = await jobId();
  let job: Job | null = null;
  await browser.driver.wait(async () => {
    job = (await bench.api<Job>('GET', `/api/jobs/${id}`)).body;
    const text = await browser.text();
    return holds(job) && text.includes('saved') && !text.includes('planning …');
  }, 60_000);
  return job!;
}

/** What each film is cut to, by its name, from the file that the build gives; the marks, which all of them have, taken off. */
async function cuts(): Promise<Map<string, Rings>> {
  const response = await fetch(`${bench.server.url}/api/jobs/${await jobId()}/build?format=svg`);
  const file = await response.text();
  expect(response.status, file).toBe(200);
  const frame = /^<svg[^>]*>/.exec(file)![0];
  const layers = [...file.matchAll(/ d="([^"]*)"><title>([^<]*)</g)].map(([, d, name]) => ({
    name: name!,
    outlines: d!.split(/(?=M)/),
  }));
  const marks = new Set(
    layers.length < 2
      ? []
      : layers[0]!.outlines.filter((outline) => layers.every(({ outlines }) => outlines.includes(outline))),
  );
  return new Map(
    layers.map(({ name, outlines }) => {
      const d = outlines.filter((outline) => !marks.has(outline)).join('');
      const { regions } = paintRegions(
        readSvg(new TextEncoder().encode(`${frame}<path fill-rule="evenodd" d="${d}"/></svg>`), 'layer.svg'),
        1,
      );
      return [name, unite(regions.flatMap(({ rings }) => [...rings]))] as const;
    }),
  );
}

const cut = async (filmId: string): Promise<Rings> => {
  const name = BENCH_SHOP.films.find(({ id }) => id === filmId)!.name;
  const found = (await cuts()).get(name);
  if (!found) throw new Error(`Nothing is cut of ${name}: there are ${[...(await cuts()).keys()].join(', ')}.`);
  return found;
};

/** The card's word on Build: settled, or what it needs. */
async function buildIsSettled(): Promise<boolean> {
  const card = await browser.driver.findElement(
    By.xpath('//nav[@aria-label="Stations of this job"]//a[contains(., "Build")]'),
  );
  return (await card.getText()).includes('✓');
}

const svg = (body: string, width = 120, height = 60) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`;

/** A build that nothing blocks and nobody is needed for, in no more actions than it took before: they may become fewer, never more. */
async function isDone(most: number): Promise<void> {
  await browser.driver.wait(buildIsSettled, 60_000).catch(async () => {
    throw new Error(`Build is not settled after ${actions} actions:\n${await browser.text()}`);
  });
  expect(actions).toBeLessThanOrEqual(most);
}

const shapesOf = (rings: Rings) => countPieces(rings).pieces;

describe('ten jobs', { timeout: 240_000 }, () => {
  it('words out of a traced picture', async () => {
    const bars = [20, 32, 44, 70, 82, 94].map((x) => `<path d="M${x} 20h8v22h-8z" fill="#f7f5ef"/>`).join('');
    const picture = new Resvg(
      `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="480" viewBox="0 0 120 60"><rect width="120" height="60" fill="#1d4e89"/>${bars}</svg>`,
    )
      .render()
      .asPng();
    await newJob();
    await give('board.png', picture);
    await sees('traced picture');
    await press('All of it is film');
    await sees('2 films');
    await toBuild();
    await press('Cut one film out of another');
    await choose('Letters of a word, 1', 'Its letters move together');
    await choose('Inside and between, 1', 'goes too, all of it');
    const job = await settled(
      ({ recipe }) => recipe.build.knockOuts[0]?.joinWords === true && recipe.build.knockOuts[0].fillBelowMm > 1000,
    );
    const { shapeFilmId, baseFilmId, clearanceMm } = job.recipe.build.knockOuts[0]!;
    const [shapes, base] = [await cut(shapeFilmId), await cut(baseFilmId)];
    // Two words of three letters each are two pieces; the ground is clear of them all round, and whole but for that.
    expect(shapesOf(shapes)).toBe(2);
    expect(areaOf(intersect(base, grow(shapes, clearanceMm - 0.02)))).toBeLessThan(0.05);
    expect(countPieces(base)).toEqual({ pieces: 1, holes: 2 });
    await isDone(7);
  });

  it('a script name with the least outline, filled and flush', async () => {
    await newJob();
    await words('Wick');
    await press('Another font');
    await act(browser.tap('input[aria-label^="Lobster"]'));
    await toBuild();
    await press('Add an outline');
    await choose('Holes of the outline in Chalk white', 'all holes filled');
    await press('Inlay');
    await settled(({ recipe }) => recipe.build.school === 'inlay' && recipe.build.outlines[0]!.fillBelowMm > 1000);
    const [name, outline] = [await cut('tar'), await cut('chalk')];
    expect(areaOf(intersect(name, outline))).toBeLessThan(0.01);
    const whole = unite([...name, ...grow(outline, 0.005)]);
    expect(shapesOf(whole)).toBe(1);
    expect(countPieces(whole).holes).toBe(0);
    expect(shapesOf(outline)).toBe(1);
    await isDone(9);
  });

  it('lettering in bands, and fading', async () => {
    await newJob();
    await words('Towpath');
    await press('In bands');
    await press('Fading');
    await toBuild();
    await settled(({ recipe }) =>
      recipe.artworks.some((part) => part.kind === 'lettering' && part.lettering.share.kind === 'fade'),
    );
    const made = [...(await cuts()).values()];
    expect(made.length).toBeGreaterThanOrEqual(3);
    // Together the films are the lettering as it is without bands.
    expect(shapesOf(unite(made.flatMap((rings) => [...grow(rings, 0.005)])))).toBe(7);
    await isDone(6);
  });

  it('a messy drawing of six colours', async () => {
    const messy = svg(
      '<rect width="120" height="60" fill="#1d4e89"/><rect x="10" y="10" width="40" height="40" fill="#b3262b"/><rect x="12" y="12" width="36" height="36" fill="#b42a2e"/><circle cx="85" cy="30" r="20" fill="#f2b632"/><circle cx="85" cy="30" r="12" fill="#f3b938"/><path d="M60 5h1v50h-1z" fill="#1f6b45"/><circle cx="112" cy="5" r=".2" fill="#f7f5ef"/><circle cx="20" cy="56" r="3" fill="#f7f5ef"/><rect x="10" y="10" width="40" height="40" fill="#b3262b" opacity="0"/>',
    );
    await newJob();
    await give('messy.svg', messy);
    await sees('colours');
    await press('Make the 7 colours 5');
    await sees('5 films');
    await toBuild();
    // A dark film under a light one is told; where they only touch there is nothing to see.
    await press('Let these edges only touch');
    await settled(({ recipe }) => Object.keys(recipe.build.pairs).length > 0);
    const made = await cuts();
    expect(made.size).toBe(5);
    // The two reds are one square, the two yellows one disc.
    expect([countPieces(made.get('Lock-gate red')!), countPieces(made.get('Wick yellow')!)]).toEqual([
      { pieces: 1, holes: 0 },
      { pieces: 1, holes: 0 },
    ]);
    await isDone(5);
  });

  it('forty dots out of a base', async () => {
    const dots = Array.from(
      { length: 40 },
      (_, i) => `<circle cx="${12 + 14 * (i % 10)}" cy="${12 + 14 * Math.floor(i / 10)}" r="4" fill="#f2b632"/>`,
    ).join('');
    await newJob();
    await give('dots.svg', svg(`<rect width="150" height="66" fill="#1d4e89"/>${dots}`, 150, 66));
    await sees('2 films');
    await toBuild();
    await press('Cut one film out of another');
    await settled(({ recipe }) => recipe.build.knockOuts.length === 1);
    const base = await cut('narrow-blue');
    expect(countPieces(base)).toEqual({ pieces: 1, holes: 40 });
    expect(areaOf(base) / (150 * 66 - 40 * Math.PI * 25)).toBeCloseTo(1, 2);
    expect(shapesOf(await cut('wick-yellow'))).toBe(40);
    await isDone(4);
  });

  it('a textured film at the bottom', async () => {
    await newJob();
    await give(
      'plate.svg',
      svg('<rect width="120" height="60" rx="6" fill="#b08d3f"/><circle cx="60" cy="30" r="18" fill="#16181a"/>'),
    );
    await sees('2 films');
    await to('Films');
    const field = await browser.find('button[aria-haspopup="listbox"][aria-label*="#b08d3f"]');
    await choose((await field.getAttribute('aria-label'))!.split(': ')[0]!, 'Brushed brass');
    await toBuild();
    await settled(({ recipe }) => recipe.films.byColour['#b08d3f'] === 'brass');
    // Nothing sticks on it, so it lies on top, with its edge as drawn, and what was drawn over it runs under it by the trap.
    const [brass, black] = [await cut('brass'), await cut('tar')];
    const lap = areaOf(intersect(brass, black));
    expect(areaOf(brass) / (120 * 60 - (4 - Math.PI) * 36 - Math.PI * 18 ** 2)).toBeCloseTo(1, 2);
    expect(lap).toBeGreaterThan(2 * Math.PI * 18 * 0.25);
    expect(lap).toBeLessThan(2 * Math.PI * 18 * 0.8);
    await isDone(5);
  });

  it('the contour of a print', async () => {
    await newJob();
    await words('Heron');
    await toBuild();
    await press('It is printed: only cut around it');
    await choose('Side of the cut line', 'outside');
    const job = await settled(({ recipe }) => recipe.build.contour?.side === 'outside');
    const contour = await cut(job.recipe.build.contour!.filmId);
    expect(shapesOf(contour)).toBe(1);
    await isDone(6);
  });

  it('six copies in six colours with a word', async () => {
    await newJob();
    await give('leaf.svg', svg('<path d="M0 10C10 -6 30 -6 40 10C30 26 10 26 0 10z" fill="#1f6b45"/>', 40, 20));
    await sees('1 film');
    await words('Mint');
    await act(
      browser.driver
        .findElement(By.xpath('//section[@aria-label="On the design"]//li[contains(., "leaf.svg")]//input'))
        .then((box) => box.click()),
    );
    await press('Repeat them');
    await write('A word or number for each', 'Mint\nSage\nDill\nThyme\nBasil\nChive');
    await press('A colour for each');
    await press('Films in stock, in turn');
    await press('Make it 6 in all');
    await sees('“Chive”');
    await toBuild();
    const job = await settled(({ recipe }) => recipe.artworks.length === 12);
    const leaves = job.recipe.artworks.flatMap((part) => (part.kind === 'drawing' ? [part.recolour['#1f6b45']] : []));
    expect(new Set(leaves).size).toBe(6);
    expect(job.recipe.artworks.flatMap((part) => (part.kind === 'lettering' ? [part.lettering.text] : []))).toEqual([
      'Mint',
      'Sage',
      'Dill',
      'Thyme',
      'Basil',
      'Chive',
    ]);
    await isDone(11);
  });

  it('a new version of what was given', async () => {
    await newJob();
    await give(
      'sign.svg',
      svg('<rect width="120" height="60" fill="#f2b632"/><circle cx="40" cy="30" r="20" fill="#1d4e89"/>'),
    );
    await sees('2 films');
    await toBuild();
    await write('Trap width', '0.8');
    await settled(({ recipe }) => recipe.build.trapMm === 0.8);
    const before = areaOf(await cut('narrow-blue'));
    await to('Artwork');
    await sees('Replace with a new version');
    const inputs = await browser.driver.findElements(By.css('input[type=file]'));
    await give(
      'sign-2.svg',
      svg('<rect width="120" height="60" fill="#f2b632"/><circle cx="40" cy="30" r="25" fill="#1d4e89"/>'),
      inputs.length - 1,
    );
    await sees('sign-2.svg');
    await toBuild();
    const job = await settled(
      ({ recipe }) =>
        recipe.artworks.length === 1 &&
        recipe.artworks[0]!.kind === 'drawing' &&
        recipe.artworks[0]!.source.fileName === 'sign-2.svg',
    );
    expect(job.recipe.build.trapMm).toBe(0.8);
    expect(areaOf(await cut('narrow-blue')) / before).toBeCloseTo(625 / 400, 2);
    await isDone(7);
  });

  it('the slips that can be made up to here are impossible, or told', async () => {
    // Overlaps of one film, a pinhole, colours that nearly are one, an upper shape in halves, and a width given after an offset.
    await newJob();
    await give(
      'slips.svg',
      svg(
        '<rect width="120" height="60" fill="#1d4e89"/><path d="M10 10h40v10h-40zM25 5h10v40h-10z" fill="#f2b632"/><path d="M70 10h40v40h-40zM90 30h.3v.3h-.3z" fill-rule="evenodd" fill="#b3262b"/><path d="M88 4h4v50h-4z" fill="#f7f5ef"/>',
      ),
    );
    await sees('4 films');
    await toBuild();
    await press('Add an outline');
    await settled(({ recipe }) => recipe.build.outlines.length === 1);
    await to('Surface');
    await write('Width of the design', '240');
    await toBuild();
    await press('Let these edges only touch');
    const job = await settled(
      ({ recipe }) => recipe.surface.size.mode === 'width' && Object.keys(recipe.build.pairs).length > 0,
    );
    const outline = await cut(job.recipe.build.outlines[0]!.filmId);
    const yellow = await cut('wick-yellow');
    // The outline is as wide as it was ruled, not twice that; the cross is one shape; the pinhole is gone; the red halves are told apart from each other by the white bar above them.
    const box = boundsOf(outline)!;
    expect(box.maxX - box.minX).toBeGreaterThan(240);
    expect(box.maxX - box.minX).toBeLessThan(250);
    expect(shapesOf(yellow)).toBe(1);
    expect(areaOf(subtract(yellow, outline))).toBeGreaterThan(0);
    await isDone(8);
  });
});
