import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { newFilm, type Film, type FilmPiece, type Shop } from '../shop/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { frozenSheet } from '../testing/frozen-sheet.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import { planReport } from './index.js';
import { Planner } from './planner.js';

const film = (id: string, family: Film['family'], colour: string): Film => ({
  ...newFilm(id, family),
  name: id,
  colour,
  costPerM2: 20,
});
const piece = (id: string, filmId: string, rest: Partial<FilmPiece>): FilmPiece => ({
  id,
  filmId,
  kind: 'sheet',
  number: null,
  widthMm: 290,
  lengthMm: 290,
  edgeMm: 0,
  quantity: 2,
  ...rest,
});
const SHOP: Shop = {
  ...BENCH_SHOP,
  films: [
    ...BENCH_SHOP.films,
    film('glue', 'heatAdhesive', '#e8e4da'),
    film('copper', 'foil', '#b86a3d'),
    film('shimmer', 'foil', '#c7ccd8'),
  ],
  pieces: [
    ...BENCH_SHOP.pieces,
    piece('glue-roll', 'glue', { kind: 'roll', widthMm: 480, lengthMm: 5000, quantity: 1 }),
    piece('copper-sheets', 'copper', {}),
    piece('shimmer-roll', 'shimmer', { kind: 'roll', widthMm: 300, lengthMm: 2000, quantity: 1 }),
  ],
};
const [CREAM, COPPER, SHIMMER] = ['#efe3c8', '#b86a3d', '#c7ccd8'];

/** A garment with three rectangles side by side; two of them in foil. */
function source(shop: Shop, w: number, h: number, patch: RecipePatch = {}) {
  const body = [CREAM, COPPER, SHIMMER]
    .map((colour, i) => `<rect x="${i * (w + 10)}" width="${w}" height="${h}" fill="${colour}"/>`)
    .join('');
  const [width, height] = [3 * w + 20, h];
  const bytes = new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`,
  );
  const id = `f${w}-${h}`;
  const recipe = parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Foil'), {
        artworks: [drawingPart({ id, fileName: 'foil.svg', sha256: id.replace(/[^0-9a-f]/g, 'e').padEnd(64, '0') })],
        surface: { kind: 'garment' },
        films: { byColour: { [COPPER!]: 'copper', [SHIMMER!]: 'shimmer' } },
      }),
      patch,
    ),
  );
  return { recipe, shop, sources: new Map([[id, bytes]]) };
}
const plan = (...asked: Parameters<typeof source>) => new Planner(resourcesInNode).plan(source(...asked));
const blockers = ({ findings }: Awaited<ReturnType<typeof plan>>) =>
  findings.filter(({ severity }) => severity === 'blocker');

describe('foil', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'is laid on heat adhesive that is cut in its place, and both are taken from the stock, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const [w, h] = [15 + Math.floor(random() * 40), 15 + Math.floor(random() * 60)];
      const copies = 1 + Math.floor(random() * 3);
      const made = await plan(SHOP, w, h, { sheets: { copies } });
      expect(blockers(made)).toEqual([]);
      const sheets = made.sheets!.sheets;
      // The blade never meets foil.
      expect(
        new Set(
          sheets.flatMap(({ films, zones }) =>
            [...films, ...(zones ?? []).map((zone) => zone.film)].map(({ id }) => id),
          ),
        ),
      ).toEqual(new Set(['apron-cream', 'glue']));
      const adhesive = sheets.flatMap(({ groups }) => groups.filter(({ filmId }) => filmId === 'glue'));
      expect(adhesive).toHaveLength(2 * copies);
      // Each rectangle covers its artwork with 10 to 15 mm to spare on each side, and none is laid on another.
      for (const id of ['copper', 'shimmer']) {
        const layer = made.prepare!.layers.find((one) => one.layer.film.id === id)!.layer;
        const xs = layer.cut.flatMap((ring) => [...ring].filter((_, i) => i % 2 === 0));
        const ys = layer.cut.flatMap((ring) => [...ring].filter((_, i) => i % 2 === 1));
        const [across, along] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
        const foils = sheets.flatMap(({ foils }) => foils.filter((one) => one.film.id === id));
        const cuts = foils.flatMap((one) => one.cuts);
        expect(cuts).toHaveLength(copies);
        for (const { widthMm, lengthMm } of cuts) {
          const [a, b] = [[widthMm, lengthMm].sort((p, q) => p - q), [across, along].sort((p, q) => p - q)];
          for (const i of [0, 1]) {
            expect(a[i]! - b[i]!).toBeGreaterThanOrEqual(20);
            expect(a[i]! - b[i]!).toBeLessThanOrEqual(30);
          }
        }
        for (const { cuts: own, piece: on, usedLengthMm } of foils) {
          const room = SHOP.pieces.find((one) => one.id === on.id)!;
          for (const [i, one] of own.entries()) {
            expect(one.xMm + one.widthMm).toBeLessThanOrEqual(room.widthMm + 1e-6);
            expect(one.yMm + one.lengthMm).toBeLessThanOrEqual(Math.min(room.lengthMm, usedLengthMm) + 1e-6);
            for (const other of own.slice(i + 1))
              expect(
                one.xMm + one.widthMm <= other.xMm + 1e-6 ||
                  other.xMm + other.widthMm <= one.xMm + 1e-6 ||
                  one.yMm + one.lengthMm <= other.yMm + 1e-6 ||
                  other.yMm + other.lengthMm <= one.yMm + 1e-6,
              ).toBe(true);
          }
        }
      }
      // No more sheets of foil are taken than there are.
      expect(
        sheets.flatMap(({ foils }) => foils.filter(({ piece: { id } }) => id === 'copper-sheets')).length,
      ).toBeLessThanOrEqual(2);
      const { sheets: reported } = planReport(made);
      expect(reported!.flatMap(({ foils }) => foils.map((one) => one.film)).sort()).toEqual(
        sheets.flatMap(({ foils }) => foils.map((one) => one.film.id)).sort(),
      );
    },
  );

  it('is kept with the sheet that it is laid on, and what is taken and spent counts it', async () => {
    const with2 = await plan(SHOP, 40, 40);
    const id = with2.sheets!.sheets.find(({ foils }) => foils.length > 0)!.id;
    const kept = frozenSheet(with2, id);
    expect(kept.foils.map(({ film: { id: of } }) => of).sort()).toEqual(['copper', 'shimmer']);
    const foilMm2 = kept.foils.reduce((sum, { piece: { kind, widthMm, lengthMm }, usedLengthMm }) => {
      return sum + widthMm * (kind === 'roll' ? usedLengthMm : lengthMm);
    }, 0);
    const backMm2 = kept.leftovers
      .filter(({ filmId, keep }) => keep && filmId !== 'glue')
      .reduce((sum, { widthMm, lengthMm }) => sum + widthMm * lengthMm, 0);
    const [glue] = with2.sheets!.sheets.filter(({ films }) => films.some(({ id: of }) => of === 'glue'));
    const adhesiveMm2 = kept.filmMm2 - (foilMm2 - backMm2);
    // What is left is what the adhesive itself takes.
    expect(adhesiveMm2).toBeGreaterThan(2 * 40 * 40);
    expect(adhesiveMm2).toBeLessThanOrEqual(480 * glue!.usedLengthMm + 1e-6);
    // Both stay on the shirt, the adhesive and the foil.
    expect(kept.keptMm2).toBeCloseTo(2 * 2 * 40 * 40, 0);
  });

  it('is counted by the adhesive that is left to cut, and is not taken again once all is cut', async () => {
    const planner = new Planner(resourcesInNode);
    const asked = source(SHOP, 30, 42);
    const made = await planner.plan(asked);
    expect(made.sheets!.toCut.map(({ film, areaMm2 }) => [film.id, Math.round(areaMm2)])).toEqual([
      ['apron-cream', 30 * 42],
      ['glue', 30 * 42],
      ['glue', 30 * 42],
    ]);
    const foils = (plan: typeof made) => plan.rulings.filter(({ id }) => id.startsWith('sheets.foil.'));
    expect(foils(made).map(({ value }) => value)).toEqual(['1 rectangle', '1 rectangle']);
    const taken = Object.fromEntries(made.sheets!.toCut.map(({ fingerprint, copies }) => [fingerprint, copies]));
    expect(foils(await planner.plan({ ...asked, taken }))).toEqual([]);
  });

  it('cannot be made without heat adhesive, and a blocker names it', async () => {
    const none = await plan({ ...SHOP, films: SHOP.films.filter(({ id }) => id !== 'glue') }, 40, 40);
    expect(blockers(none).map(({ code }) => code)).toEqual(['film-missing']);
    expect(blockers(none)[0]!.message).toContain('heat adhesive');
    expect(blockers(none)[0]!.message).toContain('(shimmer and copper)');
    const usedUp = await plan({ ...SHOP, pieces: SHOP.pieces.filter(({ filmId }) => filmId !== 'glue') }, 40, 40);
    expect(blockers(usedUp).map(({ code }) => code)).toEqual(['film-missing']);
  });

  it('of which too little is there stops the job, and says how large the missing piece is', async () => {
    const short = await plan({ ...SHOP, pieces: SHOP.pieces.filter(({ filmId }) => filmId !== 'copper') }, 40, 40);
    expect(blockers(short).map(({ code }) => code)).toEqual(['foil-missing']);
    expect(blockers(short)[0]!.message).toContain('copper is left for a rectangle of 64 × 64 mm');
    const more = await plan({ ...SHOP, pieces: SHOP.pieces.filter(({ filmId }) => filmId !== 'copper') }, 40, 50, {
      sheets: { copies: 3 },
    });
    expect(blockers(more).map(({ code }) => code)).toEqual(['foil-missing']);
    expect(blockers(more)[0]!.message).toContain('3 rectangles, the largest');
  });

  it('takes the heat adhesive that is in stock', async () => {
    const shop: Shop = { ...SHOP, films: [film('other', 'heatAdhesive', '#ffffff'), ...SHOP.films] };
    const made = await plan(shop, 40, 40);
    expect(made.sheets!.sheets.some(({ films }) => films.some(({ id }) => id === 'glue'))).toBe(true);
    expect(blockers(made)).toEqual([]);
  });

  it('is assembled on its adhesive, with the foil’s own press', async () => {
    const { assemble } = await plan(SHOP, 40, 40);
    const steps = assemble!.steps.filter(({ text }) => text.includes('lay the foil on it'));
    expect(steps.map(({ laying }) => laying).sort()).toEqual(['copper', 'shimmer']);
    expect(steps[0]!.text).toContain('150 °C for 6 s');
  });
});
