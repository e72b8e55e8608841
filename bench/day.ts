import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { Key } from 'selenium-webdriver';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import { openBrowser, type Browser } from '../e2e/browser.js';
import { jobWith, openBench } from '../server/testing/bench.js';
import { print } from './measure.js';

const JOBS = Number(process.env['LANTERN_DAY_JOBS'] ?? 200);
const EDITS_PER_JOB = 10;
/** Memory is looked at so often. */
const SAMPLES = 10;

interface Memory {
  /** The page's own heap, after what is not needed was cleared away. */
  readonly pageMb: number;
  /** The browser's process that shows it, its planning worker included. */
  readonly rendererMb: number;
  /** This process: the server with its workers. */
  readonly serverMb: number;
}

const mb = (bytes: number) => Math.round(bytes / 1e6);

/** The largest of the processes that show pages, by what it holds. */
function rendererMb(): number {
  const ids = execFileSync('pgrep', ['-f', 'type=renderer'], { encoding: 'utf8' }).trim().split('\n');
  return Math.max(
    ...ids.map((id) => {
      try {
        return mb(1024 * Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${id}/status`, 'utf8'))![1]));
      } catch {
        return 0;
      }
    }),
  );
}

async function memoryOf({ driver }: Browser): Promise<Memory> {
  const ask = driver as unknown as {
    sendAndGetDevToolsCommand(name: string, options: object): Promise<{ metrics: { name: string; value: number }[] }>;
  };
  await ask.sendAndGetDevToolsCommand('HeapProfiler.collectGarbage', {});
  const { metrics } = await ask.sendAndGetDevToolsCommand('Performance.getMetrics', {});
  global.gc?.();
  return {
    pageMb: mb(metrics.find((metric) => metric.name === 'JSHeapUsedSize')!.value),
    rendererMb: rendererMb(),
    serverMb: mb(process.memoryUsage().rss),
  };
}

const sign = (i: number) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200"><rect width="300" height="200" fill="#16181a"/>${Array.from({ length: 120 }, (_, n) => `<circle cx="${12 + (n % 15) * 19}" cy="${14 + Math.floor(n / 15) * 23}" r="${5 + ((n + i) % 5)}" fill="${['#b3262b', '#f7f5ef', '#f2b632'][(n + i) % 3]}"/>`).join('')}</svg>`;

/** Eight hours of a shop in fast motion: jobs opened one after the other in one page that is never loaded anew, each changed some times. */
export async function dayBench(): Promise<void> {
  const bench = await openBench({ pagesFolder: 'dist/web/' });
  const browser = await openBrowser();
  try {
    const jobs: Job[] = [];
    for (let i = 0; i < 20; i += 1)
      jobs.push(
        await jobWith(bench, sign(i), (recipe) =>
          patchRecipe({ ...recipe, title: `Day ${i}` }, { surface: { size: { mode: 'own' } } }),
        ),
      );
    const { driver } = browser;
    await driver.get(`${bench.server.url}/jobs/${jobs[0]!.id}/surface`);
    await browser.sees('The panel is');
    await (
      driver as unknown as { sendDevToolsCommand(name: string, options: object): Promise<void> }
    ).sendDevToolsCommand('Performance.enable', {});
    const samples: Memory[] = [];
    let edits = 0;
    for (let i = 0; i < JOBS; i += 1) {
      const job = jobs[i % jobs.length]!;
      const station = ['surface', 'build'][i % 2]!;
      await driver.executeScript(
        `window.history.pushState({}, '', '/jobs/${job.id}/${station}'); window.dispatchEvent(new PopStateEvent('popstate', { state: {} }))`,
      );
      await driver.wait(
        () =>
          driver.executeScript<boolean>(
            `return document.querySelector('input[aria-label="Title"]')?.value === ${JSON.stringify(job.title)}`,
          ),
        60_000,
      );
      const label = station === 'surface' ? 'Width of the design' : 'Trap width';
      for (let n = 0; n < EDITS_PER_JOB; n += 1) {
        const text = station === 'surface' ? String(500 + ((i + n) % 50)) : (0.3 + ((i + n) % 12) / 20).toFixed(2);
        // By script and keys alone: what is found through the driver is kept by it, with the page round it.
        await driver.wait(
          () =>
            driver.executeScript<boolean>(
              `const field = document.querySelector('input[aria-label="${label}"]:not([type=range])'); field?.focus(); field?.select(); return Boolean(field)`,
            ),
          60_000,
        );
        await driver.actions().sendKeys(text, Key.ENTER).perform();
        edits += 1;
      }
      await driver.wait(
        () => driver.executeScript<boolean>(`return document.querySelector('[data-saving]')?.textContent === 'saved'`),
        60_000,
      );
      if (i % Math.ceil(JOBS / SAMPLES) === Math.ceil(JOBS / SAMPLES) - 1) samples.push(await memoryOf(browser));
    }
    const row = (of: keyof Memory) => samples.map((sample) => sample[of]).join(', ');
    print(`A day in fast motion: ${JOBS} jobs opened, ${edits} changes, in one page (memory flat)`, [
      ['heap of the page, MB', row('pageMb')],
      ['the browser’s process with the planning worker, MB', row('rendererMb')],
      ['the server with its workers, MB', row('serverMb')],
    ]);
  } finally {
    await browser.close();
    await bench.close();
  }
}
