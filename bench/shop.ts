import { By, Key } from 'selenium-webdriver';
import { FILM_FAMILIES, newFilm, type FilmFamily, type ShopFile } from '../core/shop/index.js';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { seeded } from '../core/testing/seeded.js';
import { openDatabase } from '../server/db/open-database.js';
import { openBench } from '../server/testing/bench.js';
import { openBrowser } from '../e2e/browser.js';
import { ms, print, quantile } from './measure.js';

const FILMS = 1000;
const PIECES = 5000;
const LINES = 50_000;

/** A shop a hundred times as large as a real one. */
function largeShop(): ShopFile {
  const random = seeded(1);
  const families = Object.keys(FILM_FAMILIES) as FilmFamily[];
  const hex = () =>
    `#${Math.floor(random() * 0x1000000)
      .toString(16)
      .padStart(6, '0')}`;
  const films = Array.from({ length: FILMS }, (_, i) => ({
    ...newFilm(`f${i}`, families[i % families.length]!),
    name: `Film ${i} ${['reed', 'heron', 'weir', 'lock', 'quay'][i % 5]!}`,
    colour: hex(),
    costPerM2: Math.round(random() * 3000) / 100,
  }));
  const stock = Array.from({ length: PIECES }, (_, i) => {
    const kind = (['roll', 'sheet', 'offcut'] as const)[i % 3]!;
    return {
      id: `p${i}`,
      filmId: `f${i % FILMS}`,
      kind,
      number: kind === 'offcut' ? i : null,
      widthMm: 300 + (i % 300),
      lengthMm: kind === 'roll' ? 25_000 : 290,
      edgeMm: 5,
      place: `rack ${i % 40}`,
      note: '',
      retired: false,
      left: kind === 'roll' ? 20_000 : 5,
    };
  });
  return { ...BENCH_SHOP_FILE, films, stock };
}

/** Lists and filters of a large shop, in the browser and on the server. */
export async function shopBench(): Promise<void> {
  const bench = await openBench({ pagesFolder: 'dist/web/' });
  const browser = await openBrowser();
  try {
    await bench.server.services.shop.fill(largeShop());
    await bench.stopServer();
    const db = await openDatabase(bench.dataFolder);
    const line = (i: number) => ({
      piece_id: `p${i % PIECES}`,
      at: new Date(0).toISOString(),
      who: 'Ilse',
      why: i % 2 === 0 ? 'received' : 'used',
      amount: i % 2 === 0 ? 1 : -1,
      note: '',
      revision: 2,
    });
    await db.batchInsert(
      'stock_lines',
      Array.from({ length: LINES - PIECES }, (_, i) => line(i)),
      100,
    );
    await db.destroy();
    await bench.startServer();
    const timed = async (act: () => Promise<unknown>) => {
      const start = performance.now();
      await act();
      return performance.now() - start;
    };
    const fetchShop = async () => (await fetch(`${bench.server.url}/api/shop`)).text();
    const first = await timed(fetchShop);
    const again = await median(7, () => timed(fetchShop));
    const size = (await fetchShop()).length;
    const booked = await median(7, async (i) =>
      timed(() =>
        bench.api('POST', `/api/shop/pieces/p0/lines`, {
          act: 'received',
          figure: 1,
          note: '',
          revision: 1,
          edit: `b${i}`,
        }),
      ),
    );
    const book = await median(7, () => timed(() => bench.api('GET', '/api/shop/lines?piece=p7')));
    const { driver } = browser;
    const page = async (path: string, seen: string) => {
      await driver.get(bench.server.url + path);
      await browser.sees(seen);
    };
    /** From a key to the list drawn anew, as the page sees it. */
    const typed = async (input: string, list: string, keys: readonly string[]) => {
      const element = await driver.findElement(By.css(input));
      const times: number[] = [];
      for (const key of keys) {
        await driver.executeScript(
          `window.__at = null; const list = document.querySelector(arguments[1]); const before = list.innerText;
           const input = document.querySelector(arguments[0]);
           input.addEventListener('keydown', () => { const start = performance.now(); const look = () => (document.querySelector(arguments[1])?.innerText === before ? requestAnimationFrame(look) : (window.__at = performance.now() - start)); requestAnimationFrame(look); }, { once: true, capture: true });`,
          input,
          list,
        );
        await element.sendKeys(key);
        await driver.wait(() => driver.executeScript('return window.__at !== null'), 5000);
        times.push(await driver.executeScript<number>('return window.__at'));
      }
      return times;
    };
    await page('/shop/films', 'Film 0');
    const films = await typed('input[aria-label^="Search films"]', '[role="grid"]', [
      '4',
      '2',
      Key.BACK_SPACE,
      Key.BACK_SPACE,
      '7',
      '1',
    ]);
    const sorted = await sortedBy(driver, 3);
    await page('/shop/stock', 'rack');
    const pieces = await typed('input[aria-label^="Search pieces"]', '[role="grid"]', [
      '7',
      '6',
      Key.BACK_SPACE,
      Key.BACK_SPACE,
      '3',
      '8',
    ]);
    await page('/shop/stock/new', 'It gets its first line');
    await browser.press('Film: choose a film …');
    await browser.find('[role="option"]');
    const chosen = await typed('[role="dialog"] input', '[role="listbox"]', [
      '4',
      '2',
      Key.BACK_SPACE,
      Key.BACK_SPACE,
      '3',
      '8',
    ]);
    print(`The shop: ${FILMS} films, ${PIECES} pieces, ${LINES} lines of the stock book`, [
      ['the whole shop read from the database and sent, first time', `${ms(first)}, ${(size / 1e6).toFixed(1)} MB`],
      ['the same again (100 ms)', ms(again)],
      ['a line booked, and all of it read anew', ms(booked)],
      ['the lines of one piece', ms(book)],
      [
        'a letter typed into the search of films, list drawn, median / most (100 ms)',
        `${ms(quantile(films, 0.5))} / ${ms(Math.max(...films))}`,
      ],
      ['films sorted by another head (100 ms)', ms(sorted)],
      [
        'a letter typed into the search of pieces, median / most (100 ms)',
        `${ms(quantile(pieces, 0.5))} / ${ms(Math.max(...pieces))}`,
      ],
      [
        'a letter typed to choose a film, median / most (100 ms)',
        `${ms(quantile(chosen, 0.5))} / ${ms(Math.max(...chosen))}`,
      ],
    ]);
  } finally {
    await browser.close();
    await bench.close();
  }
}

async function median(times: number, run: (i: number) => Promise<number>): Promise<number> {
  const all: number[] = [];
  for (let i = 0; i < times; i += 1) all.push(await run(i));
  return quantile(all, 0.5);
}

/** From Enter on a head of the list to the list drawn anew. */
async function sortedBy(driver: Awaited<ReturnType<typeof openBrowser>>['driver'], column: number): Promise<number> {
  return driver.executeAsyncScript<number>(
    `const [column, done] = arguments; const list = () => document.querySelector('[role="grid"]').innerText; const before = list(); const head = document.querySelectorAll('[aria-label="Order of the list"] button')[column];
     const start = performance.now();
     head.click();
     const look = () => (list() === before ? requestAnimationFrame(look) : done(performance.now() - start)); requestAnimationFrame(look);`,
    column,
  );
}
