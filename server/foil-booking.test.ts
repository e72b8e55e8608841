import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newFilm, type StockPiece } from '../core/shop/index.js';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { seeded } from '../core/testing/seeded.js';
import { openDatabase } from './db/open-database.js';
import { takeBack } from './stock-acts.js';
import type { NewSheet } from './stores/sheet-store.js';
import { storesOn } from './testing/stores-on.js';

const [COPPER, SHIMMER] = [newFilm('copper', 'foil'), newFilm('shimmer', 'foil')].map((film) => ({
  ...film,
  costPerM2: 20,
}));
const GLUE = { ...newFilm('glue', 'heatAdhesive'), costPerM2: 10 };
const [SHEETS_AT_FIRST, ROLL_AT_FIRST, GLUE_AT_FIRST] = [500, 500_000, 500_000];
const piece = (id: string, filmId: string, rest: Partial<StockPiece>): StockPiece => ({
  id,
  filmId,
  kind: 'roll',
  number: null,
  widthMm: 300,
  lengthMm: ROLL_AT_FIRST,
  edgeMm: 0,
  place: '',
  note: '',
  retired: false,
  left: ROLL_AT_FIRST,
  ...rest,
});
const PIECES = [
  piece('glue-roll', 'glue', { left: GLUE_AT_FIRST, lengthMm: GLUE_AT_FIRST }),
  piece('copper-sheets', 'copper', { kind: 'sheet', lengthMm: 290, left: SHEETS_AT_FIRST }),
  piece('shimmer-roll', 'shimmer', {}),
];
const asPiece = ({ id, filmId, kind, number, widthMm, lengthMm, edgeMm, left }: StockPiece) => ({
  id,
  filmId,
  kind,
  number,
  widthMm,
  lengthMm,
  edgeMm,
  quantity: kind === 'roll' ? 1 : left,
});

let folder: string;
let db: Knex;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'lantern-foil-'));
  db = await openDatabase(folder);
  await storesOn(db).shop.fill({
    ...BENCH_SHOP_FILE,
    films: [...BENCH_SHOP_FILE.films, GLUE, COPPER!, SHIMMER!],
    stock: [...BENCH_SHOP_FILE.stock, ...PIECES],
  });
});
afterAll(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

/** A sheet of adhesive with some sheets of copper and a length of shimmer. */
function sheetWith(copper: number, shimmerMm: number): NewSheet {
  const cut = { xMm: 0, yMm: 0, widthMm: 60, lengthMm: 60 };
  const [glue, sheets, roll] = PIECES.map(asPiece);
  return {
    batchId: null,
    film: GLUE,
    piece: glue!,
    mat: null,
    zones: null,
    foils: [
      ...Array.from({ length: copper }, () => ({ film: COPPER!, piece: sheets!, cuts: [cut], usedLengthMm: 60 })),
      ...(shimmerMm > 0 ? [{ film: SHIMMER!, piece: roll!, cuts: [cut], usedLengthMm: shimmerMm }] : []),
    ],
    usedLengthMm: 100,
    keptMm2: 1,
    filmMm2: 1,
    filmCost: 1,
    cutMm: 1,
    estimateSeconds: 1,
    pairsTotal: 10,
    restOf: null,
    jobs: [],
    weedWork: null,
    leftovers: [
      { ...cut, pieceId: 'glue-roll', filmId: 'glue', edgeMm: 0, keep: true },
      ...(copper > 0 ? [{ ...cut, pieceId: 'copper-sheets', filmId: 'copper', edgeMm: 0, keep: true }] : []),
    ],
    groups: [],
    program: {
      forceG: 1,
      speedMmS: 1,
      bladeOffsetMm: 0.25,
      overcutMm: 0,
      runs: [],
      wholeAt: new Int32Array(),
      partOf: new Int32Array(),
      outlines: [],
    },
  };
}

/** A sheet as this test keeps account of it. */
interface Accounted {
  readonly id: string;
  readonly copper: number;
  readonly shimmerMm: number;
  /** How many runs of it the knife came down in. */
  runs: number;
  isFinished: boolean;
  isThrownAway: boolean;
  isSettled: boolean;
  /** What is left of its pieces was booked while its foil was in use. */
  isCutUp: boolean;
}

async function run(sheetId: string, state: 'finished' | 'failed' | 'cancelled', pairsDone: number): Promise<void> {
  const { runs } = storesOn(db);
  const { id } = await runs.create({ sheetId, who: '' });
  await runs.save(id, {
    state,
    message: '',
    pairsDone,
    bearings: null,
    share: pairsDone / 10,
    actualSeconds: 1,
    whole: null,
  });
}

describe('foil in the stock book', () => {
  it.each(Array.from({ length: 25 }, (_, seed) => seed))(
    'is taken once for a sheet that was cut, and is there again when that is thrown away, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const { book, sheets, shop } = storesOn(db);
      const before = await book.left();
      const known: Accounted[] = [];
      for (let step = 0; step < 30; step += 1) {
        const one = known[Math.floor(random() * known.length)];
        const dice = random();
        if (!one || dice < 0.25) {
          const [copper, shimmerMm] = [Math.floor(random() * 3), Math.floor(random() * 3) * 60.5];
          const id = await sheets.freeze(sheetWith(copper, shimmerMm));
          known.push({
            id,
            copper,
            shimmerMm,
            runs: 0,
            isFinished: false,
            isThrownAway: false,
            isSettled: false,
            isCutUp: false,
          });
        } else if (dice < 0.65 && !one.isFinished && !one.isThrownAway) {
          const how = random();
          if (how < 0.3) await run(one.id, 'cancelled', 0);
          else {
            await run(one.id, how < 0.7 ? 'failed' : 'finished', how < 0.7 ? 4 : 10);
            one.runs += 1;
            one.isFinished = how >= 0.7;
          }
        } else if (dice < 0.9 && one.runs > 0 && !one.isFinished) {
          await sheets.decide(one.id, one.isThrownAway ? null : 'thrown-away', '');
          one.isThrownAway = !one.isThrownAway;
        } else if (one.runs > 0 && !one.isSettled) {
          await shop.putBack([], one.id, { revision: (await shop.get()).revision, who: '' });
          one.isSettled = true;
          one.isCutUp = !one.isThrownAway;
        }
        const laid = known.filter(({ runs, isThrownAway, isCutUp }) => runs > 0 && (!isThrownAway || isCutUp));
        const left = await book.left();
        const gone = (id: string) => before.get(id)! - left.get(id)!;
        expect(gone('copper-sheets')).toBe(laid.reduce((sum, { copper }) => sum + copper, 0));
        expect(gone('shimmer-roll')).toBeCloseTo(
          laid.reduce((sum, { shimmerMm }) => sum + shimmerMm, 0),
          3,
        );
        expect(gone('glue-roll')).toBeCloseTo(
          known.reduce((sum, { runs }) => sum + 100 * runs, 0),
          3,
        );
        for (const { id, copper, shimmerMm, runs, isThrownAway, isCutUp } of known) {
          const kept = await sheets.get(id);
          const isLaid = runs > 0 && (!isThrownAway || isCutUp);
          const foilMm2 = isLaid ? copper * 300 * 290 + shimmerMm * 300 : 0;
          const booked = kept.runs.reduce((sum, { bookedMm2 }) => sum + (bookedMm2 ?? 0), 0);
          expect(booked - kept.backMm2).toBeCloseTo(runs * 100 * 300 + foilMm2, 0);
          const cost = kept.runs.reduce((sum, { bookedCost }) => sum + (bookedCost ?? 0), 0) - kept.backCost;
          expect(cost).toBeCloseTo((runs * 100 * 300 * 10 + foilMm2 * 20) / 1e6, 6);
          // What went back whole leaves nothing over.
          expect(kept.leftovers.some(({ filmId }) => filmId === 'copper')).toBe(
            copper > 0 && !(isThrownAway && !isCutUp),
          );
        }
      }
    },
  );

  it('counts an offcut that was put back and taken back again as never put back', async () => {
    const { book, sheets, shop } = storesOn(db);
    const id = await sheets.freeze(sheetWith(0, 0));
    await run(id, 'finished', 10);
    const edit = async () => ({ revision: (await shop.get()).revision, who: '' });
    const offcut = { id: 'back-1', filmId: 'glue', kind: 'offcut' as const, widthMm: 60, lengthMm: 60, edgeMm: 0 };
    await shop.putBack([{ ...offcut, place: '', note: '', retired: false, worth: 1 }], id, await edit());
    expect((await sheets.get(id)).backMm2).toBe(3600);
    const [line] = await book.lines({ pieceId: 'back-1', most: 1 });
    await takeBack({ shop, book }, line!.id, await edit());
    expect([(await sheets.get(id)).backMm2, (await sheets.get(id)).backCost]).toEqual([0, 0]);
  });
});
