import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Job } from '../core/recipe/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* The main way with the keyboard alone: nothing here points or clicks. */

let bench: Bench;
let browser: Browser;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 60, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const keys = (...pressed: string[]) =>
  browser.driver
    .actions()
    .sendKeys(...pressed)
    .perform();
const chord = (modifier: string, key: string) =>
  browser.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform();
const focused = () =>
  browser.driver.executeScript<string>(
    `const e = document.activeElement; return (e.getAttribute('aria-label') || (e.labels && e.labels[0] && e.labels[0].innerText) || e.innerText || e.value || e.tagName).replace(/\\s+/g, ' ').trim()`,
  );

/** Tabs on until the thing of this name has the focus, as a person would, and sees to it that the focus shows. */
async function tabTo(name: RegExp): Promise<void> {
  const met: string[] = [];
  for (let i = 0; i < 120; i += 1) {
    await keys(Key.TAB);
    const here = await focused();
    met.push(here.slice(0, 40));
    if (!name.test(here)) continue;
    const visible = await browser.driver.executeScript<boolean>(
      `const e = document.activeElement; const n = [e, e.nextElementSibling].filter(Boolean).map((x) => getComputedStyle(x)); return n.some((s) => (s.outlineStyle !== 'none' && parseFloat(s.outlineWidth) >= 2) || s.boxShadow !== 'none')`,
    );
    expect([here, visible]).toEqual([here, true]);
    return;
  }
  throw new Error(`Tabbed 120 times and never came to ${String(name)}; met: ${met.join(' · ')}`);
}

it('a job is made, built, prepared and cut without a mouse', { timeout: 300_000 }, async () => {
  const { driver, sees } = browser;
  await driver.get(bench.server.url);
  await sees('There are no jobs yet');
  await chord(Key.ALT, 'n');
  await sees('Drop a drawing (SVG, PDF');
  await tabTo(/^Choose a file$/);
  // The file dialogue is the browser's own and out of reach here; its answer is not.
  await driver.findElement(By.css('input[type=file]')).sendKeys(resolve('demo/artwork/heron-window.svg'));
  await sees('4 colours');

  await chord(Key.ALT, '3');
  await tabTo(/^What it goes on: /);
  await keys(Key.ENTER);
  await sees('a board, a wall');
  await keys(Key.ARROW_DOWN, Key.ENTER);
  await sees('The board is');
  await tabTo(/^Width$/);
  await keys('300', Key.ENTER);
  await tabTo(/^Width of the design$/);
  await keys('15 cm', Key.ENTER);
  await sees('150 × 150');

  await chord(Key.ALT, '4');
  await sees('Lower layers run');
  await tabTo(/^Trap width$/);
  await keys(Key.ARROW_UP, Key.ARROW_UP, Key.ENTER);
  await sees('Your decision');
  await tabTo(/^The build\. Arrow keys/);
  await keys('+', '+', Key.ARROW_LEFT, '0');
  await chord(Key.CONTROL, 'z');
  await driver.wait(async () => !(await browser.text()).includes('Your decision'), 60_000);

  await chord(Key.CONTROL, 'k');
  await sees('Go to Sheets');
  await keys('go to prep', Key.ARROW_DOWN, Key.ENTER);
  await sees('A diamond and a bar');

  await chord(Key.ALT, '7');
  // Two films of one maker lie on a mat side by side.
  await sees('Does each piece lie in its place?');
  for (const film of ['Narrow blue', 'Wick yellow']) {
    await tabTo(new RegExp(`${film}, \\d`));
    await keys(Key.SPACE);
  }
  await tabTo(/^Cut this sheet$/);
  await keys(Key.ENTER);
  await sees('✓ cut');

  // What was cut is weeded, and ticked off.
  await chord(Key.ALT, '5');
  await sees('done.');
  await tabTo(/counter$/);
  await keys(Key.SPACE);
  await sees('1 of');
});

it('findings are gone round by a key and their remedies taken by one more', async () => {
  const job: Job = await jobWith(bench, readFileSync('demo/artwork/heron-window.svg'), (recipe) => ({
    ...recipe,
    build: { ...recipe.build, trapMm: 0.1 },
  }));
  const { driver, sees } = browser;
  await driver.get(`${bench.server.url}/jobs/${job.id}/films`);
  await sees('trap 0.1');
  // One after the other, whichever there are, until the one that is meant.
  await driver.wait(async () => {
    await chord(Key.ALT, 'n');
    return (await browser.text()).includes('Bare surface may show');
  }, 60_000);
  await sees('Bare surface may show');
  await tabTo(/^Use 0\.\d+ mm$/);
  await keys(Key.ENTER);
  await driver.wait(async () => !(await browser.text()).includes('Bare surface may show'), 60_000);
});
