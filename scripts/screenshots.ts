import { mkdirSync, writeFileSync } from 'node:fs';
import { openBrowser } from '../e2e/browser.js';

/* One picture of each main view, of the demo as `npm run demo` shows it; that must be running. */
const URL_OF_DEMO = 'http://127.0.0.1:4310';
const FOLDER = 'docs/screenshots';

const jobs = (await (await fetch(`${URL_OF_DEMO}/api/jobs`)).json()) as { id: string; title: string }[];
const idOf = (title: string) => jobs.find((job) => job.title.startsWith(title))!.id;
const [heron, wren, bakery, jug, tin, club, lantern] = [
  idOf('Heron'),
  idOf('Marsh Wren'),
  idOf('Lockside'),
  idOf('Kingfisher'),
  idOf('Quay Blend'),
  idOf('Rowing club'),
  idOf('Quay Lantern'),
];
const [{ id: batch }] = (await (await fetch(`${URL_OF_DEMO}/api/batches`)).json()) as [{ id: string }];

/** Name, path, what must be seen first, what is done before the picture is taken, what is pressed after it, and how large the window is. */
const VIEWS: readonly (readonly [
  name: string,
  path: string,
  seen: RegExp,
  script?: string,
  after?: string,
  size?: readonly [number, number],
])[] = [
  [
    'jobs',
    '/',
    /Marsh Wren/,
    `while (document.images.length < 4 || [...document.images].some((image) => !image.complete)) await new Promise((done) => setTimeout(done, 50))`,
  ],
  ['artwork', `/jobs/${heron}/artwork`, /\d sheets?/],
  [
    'lettering',
    `/jobs/${bakery}/artwork`,
    /\d sheets?/,
    `[...document.querySelectorAll('li label')].find((row) => row.textContent.includes('“Lockside')).click(); await new Promise((done) => setTimeout(done, 1500))`,
  ],
  ['films', `/jobs/${heron}/films`, /\d sheets?/],
  ['surface', `/jobs/${jug}/surface`, /as the room sees it/],
  [
    'surface-tin',
    `/jobs/${tin}/surface`,
    /\d sheets?/,
    `[...document.querySelectorAll('label')].find((label) => label.textContent === 'rolled out flat').click(); document.querySelector('ul[aria-label="What was decided"]').scrollIntoView({ block: 'start' }); await new Promise((done) => setTimeout(done, 500))`,
  ],
  ['build', `/jobs/${heron}/build`, /\d sheets?/],
  [
    'gap-trial',
    `/jobs/${heron}/build`,
    /\d sheets?/,
    `[...document.querySelectorAll('label')].find((label) => label.textContent === 'Gap trial').click(); [...document.querySelectorAll('button')].find((button) => button.textContent === 'Inlay').click(); await new Promise((done) => setTimeout(done, 4000))`,
    'Undo',
  ],
  ['prepare', `/jobs/${wren}/prepare`, /\d sheets?/],
  [
    'weed-map',
    `/jobs/${heron}/prepare`,
    /10 left/,
    `await new Promise((done) => setTimeout(done, 600))`,
    undefined,
    [390, 844],
  ],
  ['sheets', `/jobs/${club}/sheets`, /Sheets that carry this job/],
  ['cutting-list', '/cutting-list', /\d+ jobs wait, in/],
  [
    'mat',
    `/cutting-list/${batch}`,
    /To cut, in this order/,
    `[...document.querySelectorAll('ol[aria-label="Sheets to cut"] > li > button')].find((entry) => entry.textContent.includes('pieces on the mat')).click(); await new Promise((done) => setTimeout(done, 500)); [...document.querySelectorAll('h3')].find((head) => head.textContent.startsWith('Does each piece')).scrollIntoView({ block: 'center' }); await new Promise((done) => setTimeout(done, 400))`,
  ],
  ['cut', `/jobs/${heron}/cut`, /\d sheets?/],
  ['assemble', `/jobs/${lantern}/assemble`, /Part the strips/, `document.querySelectorAll('ol li button')[3].click()`],
  ['record', `/jobs/${heron}/record`, /of 4 cut/],
  [
    'shop-films',
    '/shop/films/quay-tiles',
    /It begins anew every/,
    `document.querySelector('[aria-label="Pattern"]').scrollIntoView({ block: 'center' }); await new Promise((done) => setTimeout(done, 400))`,
  ],
  ['stock', '/shop/stock/narrow-blue-sheets', /Why so much is left/],
  ['blanks', '/shop/blanks/flask-blue', /What worked on it/],
];

mkdirSync(FOLDER, { recursive: true });
const browser = await openBrowser();
try {
  for (const [name, path, seen, script, after, [width, height] = [1280, 800]] of VIEWS) {
    await browser.resize(width, height);
    await browser.driver.get(URL_OF_DEMO + path);
    await browser.sees(seen);
    await browser.driver.wait(async () => !(await browser.text()).includes('planning …'), 20_000);
    if (script) await browser.driver.executeAsyncScript(`(async () => { ${script} })().then(arguments[0])`);
    // Two frames: what was just computed is drawn in the first.
    await browser.driver.executeAsyncScript('requestAnimationFrame(() => requestAnimationFrame(arguments[0]))');
    writeFileSync(`${FOLDER}/${name}.png`, Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
    if (after) await browser.press(after);
    console.log(`${FOLDER}/${name}.png`);
  }
} finally {
  await browser.close();
}
