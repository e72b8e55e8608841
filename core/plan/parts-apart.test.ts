import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { areaOf, boundsOf, fingerprintOf, grow, intersect } from '../geometry/index.js';
import { emptyRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import type { Plan } from './plan.js';
import { Planner } from './planner.js';

/* A drawing of several decals: each can be laid by itself, where nothing registers them. */

const planner = new Planner(resourcesInNode);
const svg = (w: number, h: number, inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${inner}</svg>`;
const plan = (drawing: string, patch: RecipePatch = {}): Promise<Plan> =>
  planner.plan({
    recipe: patchRecipe(
      patchRecipe(emptyRecipe('Decals'), {
        artworks: [
          drawingPart({
            id: drawing,
            fileName: 'a.svg',
            sha256: fingerprintOf([Float64Array.from(drawing, (c) => c.charCodeAt(0))]).repeat(2),
          }),
        ],
        surface: { size: { mode: 'own' } },
      }),
      patch,
    ),
    shop: BENCH_SHOP,
    sources: new Map([[drawing, new TextEncoder().encode(drawing)]]),
  });
const ruling = ({ rulings }: Plan) => rulings.find(({ id }) => id === 'surface.parts');
const apart = (made: Plan) => ruling(made)!.alternatives![0]!.patch as RecipePatch;
const laid = ({ sheets }: Plan) => sheets!.sheets.flatMap(({ groups }) => groups);
const taken = ({ sheets }: Plan) => sheets!.sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);

/** Squares, discs and strips in cells of a board, some of them alike, at random. */
function decals(seed: number): { readonly drawing: string; readonly count: number; readonly kinds: number } {
  const random = seeded(seed);
  const shapes = [
    '<path d="M0 0h30v30h-30z"/>',
    '<circle cx="14" cy="14" r="14"/>',
    '<path d="M0 0h34v8h-34z"/>',
    '<path d="M0 0h20l-10 26z"/>',
  ];
  const cells = Array.from({ length: 12 }, (_, i) => ({
    x: 5 + (i % 4) * 60,
    y: 5 + Math.floor(i / 4) * 60,
    shape: Math.floor(random() * 6),
  })).filter(({ shape }) => shape < 4);
  return {
    drawing: svg(
      240,
      180,
      `<g fill="#1d4e89">${cells.map(({ x, y, shape }) => `<g transform="translate(${x} ${y})">${shapes[shape]}</g>`).join('')}</g>`,
    ),
    count: cells.length,
    kinds: new Set(cells.map(({ shape }) => shape)).size,
  };
}

describe('decals of one drawing', () => {
  it.each(Array.from({ length: 8 }, (_, seed) => seed + 1))(
    'are each laid by themselves at one press: all of them, those alike as copies, on no more film, seed %i',
    async (seed) => {
      const { drawing, count, kinds } = decals(seed);
      const copies = 1 + (seed % 3);
      const together = await plan(drawing, { sheets: { copies } });
      expect(ruling(together)).toMatchObject({ value: 'in one go', overridden: false });
      const made = await plan(drawing, { ...apart(together), sheets: { copies } });
      expect([ruling(made)!.value, made.prepare!.layers.length, laid(made).length]).toEqual([
        `${count} decals`,
        kinds,
        count * copies,
      ]);
      expect(made.sheets!.toCut.reduce((sum, layer) => sum + layer.copies, 0)).toBe(count * copies);
      const area = (plan: Plan) => laid(plan).reduce((sum, { contours }) => sum + areaOf(contours), 0);
      expect(area(made)).toBeCloseTo(area(together), 1);
      expect(taken(made)).toBeLessThanOrEqual(taken(together) * 1.02);
      // And back.
      expect(laid(await plan(drawing, { ...apart(made), sheets: { copies } }))).toHaveLength(copies);
    },
  );

  it('lie apart from each other by the spacing, each with a border of its own', async () => {
    const { drawing } = decals(3);
    const made = await plan(drawing, apart(await plan(drawing)));
    for (const { groups } of made.sheets!.sheets) {
      for (const [i, one] of groups.entries()) {
        expect(one.borders.length).toBeGreaterThan(0);
        for (const other of groups.slice(i + 1))
          expect(areaOf(intersect(grow(one.borders, 4.97), other.borders))).toBeLessThan(0.01);
      }
    }
  });

  it('of several films are not proposed while marks register them; without marks each keeps its own layers together', async () => {
    const two = svg(
      200,
      60,
      '<rect width="50" height="50" fill="#1d4e89"/><rect x="10" y="10" width="20" height="20" fill="#f2b632"/><rect x="120" width="50" height="50" fill="#1d4e89"/>',
    );
    expect(ruling(await plan(two))).toBeUndefined();
    const made = await plan(two, {
      ...apart(await plan(two, { preparation: { marks: false } })),
      preparation: { marks: false },
    });
    expect(made.prepare!.panels.map(({ label }) => label)).toEqual(['Part 1', 'Part 2']);
    expect(made.prepare!.layers.map(({ panel, layer }) => [panel.label, layer.film.id]).sort()).toEqual([
      ['Part 1', 'narrow-blue'],
      ['Part 1', 'wick-yellow'],
      ['Part 2', 'narrow-blue'],
    ]);
  });

  it('that are outlined, or stand too near, belong together; a decision that changes nothing says so', async () => {
    const near = svg(80, 30, '<g fill="#1d4e89"><path d="M0 0h30v30h-30z"/><path d="M38 0h30v30h-30z"/></g>');
    expect(ruling(await plan(near))).toBeUndefined();
    const decided = await plan(near, { surface: { panels: { ...emptyRecipe('').surface.panels, split: 'parts' } } });
    expect(ruling(decided)!.because[0]).toContain('it changes nothing');
    expect(laid(decided)).toHaveLength(1);
    const wider = svg(120, 30, '<g fill="#1d4e89"><path d="M0 0h30v30h-30z"/><path d="M50 0h30v30h-30z"/></g>');
    expect(ruling(await plan(wider))).toBeDefined();
    const outlined = await plan(wider, {
      preparation: { marks: false },
      build: {
        outlines: [{ id: 'o', filmId: 'chalk', around: null, each: 'all', widthMm: 12, join: 'round', fillBelowMm: 0 }],
      },
    });
    expect(ruling(outlined)).toBeUndefined();
  });

  it('of which one is a hole’s island stay with what is round them', async () => {
    const ring = svg(
      120,
      120,
      '<path fill="#1d4e89" fill-rule="evenodd" d="M0 0h110v110h-110z M10 10v90h90v-90z"/><rect x="45" y="45" width="20" height="20" fill="#1d4e89"/>',
    );
    expect(ruling(await plan(ring))).toBeUndefined();
    expect(boundsOf((await plan(ring)).prepare!.layers[0]!.layer.cut)).toMatchObject({
      maxX: expect.closeTo(110, 3) as number,
    });
  });
});
