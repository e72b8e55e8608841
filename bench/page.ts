import { existsSync, readFileSync, statSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { Key } from 'selenium-webdriver';
import { patchRecipe } from '../core/recipe/index.js';
import { openBrowser } from '../e2e/browser.js';
import { jobWith, openBench } from '../server/testing/bench.js';
import { ms, print, quantile } from './measure.js';

/** As it is sent to a browser that reads brotli. */
function wireBytes(file: string): number {
  const path = `dist/web${file}`;
  return statSync(existsSync(`${path}.br`) ? `${path}.br` : path).size;
}

/** Moves the trap and notes when the picture has changed, frame by frame, and every long task meanwhile. */
const WATCH = `
  window.__long = [];
  new PerformanceObserver((list) => list.getEntries().forEach((e) => window.__long.push(e.duration))).observe({ entryTypes: ['longtask'] });
  window.__times = [];
  const picture = () => document.querySelector('svg[aria-label="The build"] > g').innerHTML.length + ':' + (document.querySelector('path[fill="url(#hatch-lap)"]')?.getAttribute('d') ?? '').slice(0, 400);
  const slider = document.querySelector('input[type=range]');
  slider.addEventListener('keydown', () => {
    const [start, before] = [performance.now(), picture()];
    const look = () => (picture() === before ? requestAnimationFrame(look) : window.__times.push(performance.now() - start));
    requestAnimationFrame(look);
  }, true);
  slider.focus();
`;

export async function pageBench(): Promise<void> {
  const bench = await openBench({ pagesFolder: 'dist/web/' });
  const browser = await openBrowser();
  try {
    const job = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) =>
      patchRecipe(recipe, { surface: { size: { mode: 'width', mm: 230 } } }),
    );
    await browser.driver.get(`${bench.server.url}/jobs/${job.id}`);
    await browser.sees('4 sheets');
    await browser.driver.get(`${bench.server.url}/jobs/${job.id}/build`);
    await browser.sees('4 sheets');
    const loaded = await browser.driver.executeScript<string[]>(
      `return performance.getEntriesByType('resource').map((e) => new URL(e.name).pathname).filter((p) => !p.startsWith('/api/'))`,
    );
    // What the worker fetches is not in the page's own list.
    const [newest] = JSON.parse(readFileSync('dist/web/versions.json', 'utf8')) as string[][];
    const worker = newest!.filter((file) => /-worker-.*\.js$|clipper2z-.*\.wasm$/.test(file)).map((file) => `/${file}`);
    const files = [...new Set(['/index.html', ...loaded, ...worker])];
    // Once all is shown, what was read is held against a picture of it.
    const afterwards = newest!.filter((file) => /index_bg-.*\.wasm$/.test(file)).map((file) => `/${file}`);
    await browser.driver.executeScript(WATCH);
    for (let i = 0; i < 24; i += 1) {
      await browser.driver
        .actions()
        .sendKeys(i % 2 === 0 ? Key.ARROW_RIGHT : Key.ARROW_LEFT)
        .perform();
      await browser.driver.wait(
        () => browser.driver.executeScript<boolean>(`return window.__times.length > ${i}`),
        5000,
      );
    }
    const [moved, long] = await browser.driver.executeScript<[number[], number[]]>(
      'return [window.__times, window.__long]',
    );
    print('The page', [
      [
        'first load of a build page: its scripts, gzipped, workers among them (285 kB)',
        `${(files.filter((file) => /\.js$/.test(file)).reduce((sum, file) => sum + gzipSync(readFileSync(`dist/web${file}`), { level: 9 }).length, 0) / 1000).toFixed(1)} kB`,
      ],
      [
        '  all of it over the wire, as browsers take it',
        `${(files.reduce((sum, file) => sum + wireBytes(file), 0) / 1000).toFixed(1)} kB`,
      ],
      [
        '  of that, scripts / fonts / the rest',
        [/\.js$/, /\.woff2$/, /\.(?!js$|woff2$)\w+$/]
          .map(
            (kind) =>
              `${(files.filter((file) => kind.test(file)).reduce((sum, file) => sum + wireBytes(file), 0) / 1000).toFixed(0)} kB`,
          )
          .join(' / '),
      ],
      [
        'fetched once, after all is shown, for checking drawings',
        `${(afterwards.reduce((sum, file) => sum + wireBytes(file), 0) / 1000).toFixed(0)} kB`,
      ],
      [
        'trap moved by hand, demo job: picture changed after, median / p95 (150 ms)',
        `${ms(quantile(moved, 0.5))} / ${ms(quantile(moved, 0.95))}`,
      ],
      [
        'longest task on the main thread meanwhile (50 ms)',
        long.length === 0 ? 'none over 50 ms' : ms(Math.max(...long)),
      ],
    ]);
  } finally {
    await browser.close();
    await bench.close();
  }
}
