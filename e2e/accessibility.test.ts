import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AT_ORIGIN, newLettering } from '../core/stations/artwork/index.js';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { STATIONS } from '../core/words/index.js';
import { cutUntil, jobWith, openBench, runUntil, startCut, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';
import { violations } from './violations.js';

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 1, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
  job = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) =>
    patchRecipe(recipe, { build: { trapMm: 0.1 }, surface: { size: { mode: 'width', mm: 150 } } }),
  );
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

async function show(path: string, seen: string | RegExp): Promise<void> {
  await browser.driver.get(bench.server.url + path);
  await browser.sees(seen);
}

describe.each(['light', 'dark'] as const)('in the %s', (theme) => {
  beforeAll(async () => {
    await browser.driver.get(bench.server.url);
    await browser.driver.executeScript(`localStorage.setItem('lantern.theme', '${theme}')`);
  });

  it('the jobs have nothing axe objects to', async () => {
    await show('/', 'Test');
    expect(await violations(browser)).toEqual([]);
  });

  it.each(STATIONS)('the station %s has nothing axe objects to', async (stage) => {
    await show(`/jobs/${job.id}/${stage}`, '4 sheets');
    expect(await violations(browser)).toEqual([]);
  });

  it.each([
    ['a board with places kept free', { kind: 'flat', free: true }],
    ['a mug', { kind: 'cylinder' }],
    ['a taper', { kind: 'taper' }],
    ['a dome', { kind: 'compound' }],
    ['glass', { kind: 'glass' }],
    ['garments in sizes', { kind: 'garment' }],
  ] as const)('the surface of %s has nothing axe objects to', async (_, how) => {
    const own = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) => {
      const { flat, garment } = recipe.surface;
      const places = [
        { shape: 'circle', what: 'hook', xMm: 40, yMm: 40, diameterMm: 12 } as const,
        { shape: 'rectangle', what: '', xMm: 200, yMm: 20, widthMm: 30, heightMm: 60 } as const,
      ];
      return patchRecipe(recipe, {
        surface: {
          kind: how.kind,
          flat: { ...flat, free: 'free' in how ? places : [] },
          garment: {
            ...garment,
            sizes: [
              { size: 'S', copies: 1, widthMm: null },
              { size: 'L', copies: 2, widthMm: 200 },
            ],
          },
          ground: { matter: 'wood', colour: '#a97c4f' },
          readFromMm: 3000,
          size: { mode: 'fit' },
        },
      });
    });
    await show(`/jobs/${own.id}/surface`, /\d sheets/);
    expect(await violations(browser)).toEqual([]);
  });

  it('a cut that failed, a weed map to be ticked off and a refused edit have nothing axe objects to', async () => {
    const cut = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) =>
      patchRecipe(recipe, { surface: { size: { mode: 'width', mm: 150 } }, preparation: { labels: false } }),
    );
    const run = await cutUntil(bench, cut.id, 'chalk', 0.8);
    await bench.api('POST', '/api/cutter/control', { do: 'power-cut' });
    await runUntil(bench, run.id, (r) => r.state === 'failed');
    await show(`/jobs/${cut.id}/cut`, 'the cut failed');
    await browser.press('Cut all of it again');
    await browser.sees('What is loaded?');
    expect(await violations(browser)).toEqual([]);
    await show(`/jobs/${cut.id}/prepare`, '3 sheets');
    await browser.press('Chalk white');
    await browser.sees('done.');
    expect(await violations(browser)).toEqual([]);
    const { body: now } = await bench.api<Job>('GET', `/api/jobs/${cut.id}`);
    await browser.deafen(true);
    await show(`/jobs/${cut.id}/sheets`, '3 sheets');
    await bench.api('PUT', `/api/jobs/${cut.id}/recipe`, {
      recipe: { ...now.recipe, customer: 'Other' },
      revision: now.revision,
    });
    await browser.write('Copies', '2');
    await browser.sees('changed somewhere else');
    expect(await violations(browser)).toEqual([]);
    await browser.deafen(false);
  });

  it('lettering among other parts, with fonts and forms of letters open, has nothing axe objects to', async () => {
    const words = await jobWith(bench, readFileSync('demo/artwork/marsh-wren.svg'), (recipe) => ({
      ...recipe,
      artworks: [
        ...recipe.artworks,
        {
          kind: 'lettering',
          id: 'w',
          group: null,
          lettering: {
            ...newLettering('Heron'),
            font: 'great-vibes',
            arc: { radiusMm: 200, bend: 'up' },
            colourBy: 'word',
          },
          fontSource: null,
          place: { ...AT_ORIGIN, yMm: 200 },
        },
      ],
    }));
    await show(`/jobs/${words.id}/artwork`, 'lettering,');
    await browser.driver.executeScript(
      `[...document.querySelectorAll('li label')].find((row) => row.textContent.includes('“Heron”')).click()`,
    );
    await browser.press('Another font');
    await browser.sees('Letters that have other forms');
    await browser.press('H');
    expect(await violations(browser)).toEqual([]);
  });

  it('the gap trial, the schools, pairs and outlines have nothing axe objects to', async () => {
    const own = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) =>
      patchRecipe(recipe, { surface: { size: { mode: 'width', mm: 150 } } }),
    );
    await show(`/jobs/${own.id}/build`, 'Where two layers meet');
    await browser.press('The layers from the top down');
    await browser.find('[aria-label="Layers, the uppermost first"]');
    await browser.press('Add an outline');
    await browser.sees('An outline in');
    await browser.press('Gap trial');
    await browser.sees('bare surface shows');
    expect(await violations(browser)).toEqual([]);
    await browser.press('Three ways to build');
    await browser.sees('Edges that must meet exactly');
    expect(await violations(browser)).toEqual([]);
  });

  it('a new job, the command search and the keys have nothing axe objects to', async () => {
    const { body: empty } = await bench.api<Job>('POST', '/api/jobs', { title: 'Empty' });
    await show(`/jobs/${empty.id}/artwork`, 'Drop a drawing (SVG, PDF');
    expect(await violations(browser)).toEqual([]);
    await browser.press('Keys');
    await browser.sees('On the light table');
    expect(await violations(browser)).toEqual([]);
    await browser.press('Close');
    await browser.press('Find an action Ctrl K');
    await browser.sees('Go to Sheets');
    expect(await violations(browser)).toEqual([]);
  });

  it('an address that leads nowhere has nothing axe objects to', async () => {
    await show('/nowhere', 'nothing at this address');
    expect(await violations(browser)).toEqual([]);
  });
});

describe('a sheet being cut and its record', () => {
  it('have nothing axe objects to', async () => {
    await bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor: 1 });
    const run = await startCut(bench, job.id, 'narrow-blue');
    await show(`/jobs/${job.id}/cut`, 'of cutting left');
    expect(await violations(browser)).toEqual([]);
    await bench.api('POST', `/api/runs/${run.body.id}/cancel`);
    await show(`/jobs/${job.id}/record`, 'cancelled');
    expect(await violations(browser)).toEqual([]);
  });
});
