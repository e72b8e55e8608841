import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Job } from '../core/recipe/index.js';
import { jobWith, openBench, type Bench } from '../server/testing/bench.js';
import { openBrowser, type Browser } from './browser.js';

/* After an action the focus is where the work goes on, on something that has a name to be read out, and never on the page's body. */

let bench: Bench;
let browser: Browser;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 1, pagesFolder: 'dist/web/' });
  browser = await openBrowser();
});
beforeEach(async () => {
  job = await jobWith(bench, readFileSync('demo/artwork/weir-anglers.svg'));
});
afterAll(async () => {
  await browser.close();
  await bench.close();
});

const at = async (station: string, text: string) => {
  await browser.driver.get(`${bench.server.url}/jobs/${job.id}/${station}`);
  await browser.sees(text);
};

/** What has the focus and what it stands in, by their names, from the inside out; `body` alone when nothing has it. */
const focusPath = () =>
  browser.driver.executeScript<string>(`
    const names = [];
    for (let e = document.activeElement; e && e !== document.documentElement; e = e.parentElement) {
      const name = e === document.body ? 'body' : e.getAttribute('aria-label') || (e === document.activeElement ? (e.innerText || e.value || e.tagName).replace(/\\s+/g, ' ').trim() : '');
      if (name) names.push(name);
    }
    return names.join(' < ');`);

/** Waits until the focus is where it should be; the page may still be drawing itself. */
async function focusIsIn(place: RegExp): Promise<void> {
  let path = '';
  await browser.driver
    .wait(async () => place.test((path = await focusPath())) && !path.startsWith('body'), 60_000)
    .catch(() => {});
  expect(path).toMatch(place);
  expect(path.startsWith('body')).toBe(false);
}

describe('the focus', () => {
  it('goes along to a station, by a press and by a key', async () => {
    await at('artwork', 'Your files are kept');
    await browser.tap('a[href$="/build"]');
    await focusIsIn(/^Build: decisions/);
    await browser.driver.actions().keyDown('\uE00A').sendKeys('3').keyUp('\uE00A').perform();
    await focusIsIn(/^Surface: decisions/);
  });

  it('stays with a ruling that is chosen otherwise, and with findings that are put right', async () => {
    await at('build', 'layers are built as');
    await browser.press('Overlay');
    await browser.sees('Trapped inlay');
    await focusIsIn(/The \d layers are built as overlay.* < What was decided/);
    await at('artwork', 'Fix everything that is safe');
    await browser.press('Fix everything that is safe');
    await browser.sees('Undo this');
    await focusIsIn(/Fixes|Artwork: decisions/);
  });

  it('is with the design when a file was given', async () => {
    await browser.driver.get(bench.server.url);
    await browser.press('New job');
    await browser.sees('Start with a drawing');
    await browser.driver
      .findElement(By.xpath('//button[.="Choose a file"]'))
      .then((button) => browser.driver.executeScript('arguments[0].focus()', button));
    await browser.driver.findElement(By.css('input[type=file]')).sendKeys(resolve('demo/artwork/heron-window.svg'));
    await browser.sees('4 colours');
    await focusIsIn(/Artwork: decisions/);
  });

  it('is with the cut that was begun, held, resumed and cancelled', async () => {
    await at('cut', 'What is loaded?');
    const film = (
      await browser.driver.executeScript<string>(`return /This sheet needs ([^,]+),/.exec(document.body.innerText)[1]`)
    ).trim();
    await browser.choose('Film in the cutter', film);
    await browser.driver.findElement(By.css('input[type=checkbox]')).click();
    await browser.press('Cut this sheet');
    await browser.sees('of cutting left');
    await focusIsIn(/Cut: decisions/);
    await browser.press('Pause');
    await browser.sees('Paused');
    await focusIsIn(/The cut of /);
    await browser.press('Resume');
    await browser.sees('Cutting');
    await focusIsIn(/The cut of /);
    await browser.press('Cancel this sheet');
    await browser.sees('the cut was cancelled');
    await focusIsIn(/Cut: decisions/);
  });
});
