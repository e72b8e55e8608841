import { setTimeout as sleep } from 'node:timers/promises';
import { Key } from 'selenium-webdriver';
import { drawingPart } from '../core/stations/artwork/index.js';
import { emptyRecipe } from '../core/recipe/index.js';
import { openBrowser } from '../e2e/browser.js';
import { describeFile } from '../server/stores/artwork-store.js';
import { openBench } from '../server/testing/bench.js';
import { ms, print, quantile } from './measure.js';

const JOBS = 1000;
const NAMES = ['Heron', 'Marsh Wren', 'Otter', 'Kingfisher', 'Bittern', 'Lapwing', 'Curlew'];
const KINDS = ['window', 'boat name', 'van', 'labels', 'door plate'];

/** Notes when the list says another number of jobs than before, from the key that asked for it. */
const WATCH = `
  window.__times = [];
  const status = () => document.querySelector('h1 + [role=status]').textContent + [...document.querySelectorAll('ul[aria-label=Jobs] a')].slice(0, 4).map((a) => a.textContent).join();
  document.querySelector('input[type=search]').addEventListener('keydown', () => {
    const [start, before] = [performance.now(), status()];
    const look = () => (status() === before && performance.now() - start < 3000 ? requestAnimationFrame(look) : window.__times.push(performance.now() - start));
    requestAnimationFrame(look);
  }, true);
`;

/** The list of a shop with many jobs. */
export async function listBench(): Promise<void> {
  const bench = await openBench({ pagesFolder: 'dist/web/' });
  const browser = await openBrowser();
  try {
    const { jobs, artworks } = bench.server.services;
    for (let i = 0; i < JOBS; i += 1) {
      const bytes = new TextEncoder().encode(
        `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><circle cx="${20 + (i % 50)}" cy="30" r="20" fill="#b3262b"/><rect x="50" y="10" width="40" height="30" fill="#1d4e89"/></svg>`,
      );
      const source = describeFile(`job-${i}.svg`, bytes);
      await artworks.add(source, bytes);
      await jobs.create({
        ...emptyRecipe(`${NAMES[i % NAMES.length]!} ${i}, ${KINDS[i % KINDS.length]!}`),
        customer: `Customer ${i % 40}`,
        artworks: [drawingPart(source)],
      });
    }
    const open = async () => {
      await browser.driver.get(`${bench.server.url}/`);
      await browser.sees(`${JOBS} jobs`);
      // Until the browser had put the list on the screen, the page's own loading counted.
      return browser.driver.executeAsyncScript<number>(
        `const done = arguments[0]; const look = () => (document.querySelectorAll('ul[aria-label=Jobs] li').length > 3 ? requestAnimationFrame(() => done(window.__shown ??= performance.now())) : requestAnimationFrame(look)); look();`,
      );
    };
    await open();
    await sleep(3000);
    const answer = await browser.driver.executeAsyncScript<number>(
      `const done = arguments[0]; const start = performance.now(); fetch('/api/jobs?search=&from=0&most=100').then((r) => r.json()).then(() => done(performance.now() - start));`,
    );
    await browser.driver.navigate().refresh();
    await browser.sees(`${JOBS} jobs`);
    const shown = await browser.driver.executeScript<number>(
      `return performance.getEntriesByType('resource').filter((e) => e.name.includes('/api/jobs')).map((e) => e.responseEnd)[0]`,
    );
    const items = await browser.driver.executeScript<number>(
      `return document.querySelectorAll('ul[aria-label=Jobs] li').length`,
    );
    await browser.driver.executeScript(WATCH);
    const field = await browser.find('input[type=search]');
    await field.click();
    for (const [i, key] of [...'otter 5', ...Array.from({ length: 6 }, () => Key.BACK_SPACE)].entries()) {
      await field.sendKeys(key);
      await browser.driver.wait(
        () => browser.driver.executeScript<boolean>(`return window.__times.length > ${i}`),
        10_000,
      );
    }
    // A blank asks for nothing else: it waits to its end and is left out.
    const times = (await browser.driver.executeScript<number[]>('return window.__times')).filter((time) => time < 3000);
    print(`The list of ${JOBS} jobs`, [
      ['the list is answered in', ms(answer)],
      ['from the beginning of loading the page until the list is there (500 ms)', ms(shown)],
      ['dockets on the page', String(items)],
      [
        'a key in the search: list changed after, median / longest (100 ms)',
        `${ms(quantile(times, 0.5))} / ${ms(Math.max(...times))}`,
      ],
    ]);
  } finally {
    await browser.close();
    await bench.close();
  }
}
