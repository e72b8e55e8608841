import { patchRecipe } from '../core/recipe/index.js';
import { seeded } from '../core/testing/seeded.js';
import { openBrowser } from '../e2e/browser.js';
import { jobWith, openBench } from '../server/testing/bench.js';
import { ms, print, quantile } from './measure.js';

const PATHS = 3000;
const FRAMES = 120;

/** A drawing of 3,000 leaves, about 2 MB. */
export function largeDrawing(paths = PATHS): string {
  const random = seeded(7);
  const colours = ['#16181a', '#f7f5ef', '#b3262b', '#f2b632', '#1f6b45'];
  const columns = Math.ceil(Math.sqrt(paths * 1.5));
  const leaf = (i: number) => {
    const [x, y] = [10 + (i % columns) * 12, 10 + Math.floor(i / columns) * 12];
    // Between points on a wavy ring, each with a handle along its tangent.
    const n = 18;
    const radii = Array.from({ length: n }, () => 4 + 1.4 * random());
    const point = (k: number, r = radii[k % n]!, turn = 0) => {
      const angle = (2 * Math.PI * (k + turn)) / n;
      return `${(x + r * Math.cos(angle)).toFixed(3)} ${(y + r * Math.sin(angle)).toFixed(3)}`;
    };
    let d = `M${point(0)}`;
    for (let k = 0; k < n; k += 1)
      d += `C${point(k, undefined, 0.33)} ${point(k + 1, undefined, -0.33)} ${point(k + 1)}`;
    return `<path fill="${colours[i % colours.length]!}" d="${d}z"/>`;
  };
  const size = columns * 12 + 20;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 ${size} ${size}">${Array.from({ length: paths }, (_, i) => leaf(i)).join('')}</svg>`;
}

/** Moves the picture once a frame and notes how long each frame took; then how long it took to be crisp again. */
const MOVE = (way: 'pan' | 'zoom' | 'stop and go') => `
  const done = arguments[arguments.length - 1];
  const glass = document.querySelector('[role=group][aria-label^="The build"]');
  const at = glass.getBoundingClientRect();
  const [x, y] = [at.left + at.width / 2, at.top + at.height / 2];
  const times = [];
  let [last, frames] = [performance.now(), 0];
  const g = () => document.querySelector('svg[aria-label="The build"] > g').getAttribute('transform');
  const step = (now) => {
    times.push(now - last);
    last = now;
    frames += 1;
    if (frames > ${FRAMES}) {
      const before = g();
      const start = performance.now();
      const look = () => (g() === before ? requestAnimationFrame(look) : requestAnimationFrame(() => setTimeout(() => done([times.slice(2), performance.now() - start]))));
      return look();
    }
    ${
      way !== 'zoom'
        ? `if (frames === 1) glass.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, pointerId: 1, button: 0, clientX: x, clientY: y }));
    glass.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, pointerId: 1, clientX: x + 150 * Math.sin(frames / 12), clientY: y + 90 * Math.sin(frames / 17) }));
    if (frames === ${FRAMES}) glass.dispatchEvent(new PointerEvent('pointerup', { bubbles: true, pointerId: 1, clientX: x, clientY: y }));`
        : `glass.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, deltaY: 60 * Math.cos(frames / 10), clientX: x, clientY: y }));`
    }
    ${way === 'stop and go' ? 'if (frames % 25 === 0) setTimeout(() => { last = performance.now(); requestAnimationFrame(step); }, 180); else' : ''} requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
`;

/** How it feels to look at a large drawing. */
export async function lookingBench(): Promise<void> {
  const bench = await openBench({ pagesFolder: 'dist/web/' });
  const browser = await openBrowser();
  try {
    const drawing = largeDrawing();
    const job = await jobWith(bench, drawing, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
    await browser.driver.get(`${bench.server.url}/jobs/${job.id}/build`);
    await browser.driver.wait(
      () =>
        browser.driver.executeScript<boolean>(
          `return document.querySelectorAll('svg[aria-label="The build"] path').length > 2 && !document.body.innerText.includes('planning …')`,
        ),
      180_000,
    );
    const characters = await browser.driver.executeScript<number>(
      `return [...document.querySelectorAll('svg[aria-label="The build"] path')].reduce((sum, path) => sum + path.getAttribute('d').length, 0)`,
    );
    await browser.driver.manage().setTimeouts({ script: 120_000 });
    // At rest first, and once to warm up.
    await browser.driver.executeAsyncScript(MOVE('pan'));
    const rows: [string, string][] = [['path data on the page', `${(characters / 1e6).toFixed(1)} M characters`]];
    for (const way of ['pan', 'zoom', 'stop and go'] as const) {
      const [times, rest] = await browser.driver.executeAsyncScript<[number[], number]>(MOVE(way));
      rows.push(
        [
          `${way}: a frame, median / p95 / longest (33 ms)`,
          `${ms(quantile(times, 0.5))} / ${ms(quantile(times, 0.95))} / ${ms(Math.max(...times))}`,
        ],
        [`${way}: drawn anew after the last move`, ms(rest)],
      );
    }
    print(`Looking at a drawing of ${PATHS} paths, ${(drawing.length / 1e6).toFixed(1)} MB`, rows);
  } finally {
    await browser.close();
    await bench.close();
  }
}
