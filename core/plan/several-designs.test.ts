import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart, type ArtworkPart } from '../stations/artwork/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { Planner } from './planner.js';

const drawing = (id: string, xMm: number): ArtworkPart => {
  const part = drawingPart({ id, fileName: `${id}.svg`, sha256: '0'.repeat(64) });
  return { ...part, place: { ...part.place, xMm } };
};
const svg = (body: string) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40">${body}</svg>`,
  );
const ONE = '<rect width="80" height="40" fill="#16181a"/>';
const TWO = '<rect width="80" height="40" fill="#f7f5ef"/><rect x="20" y="10" width="40" height="20" fill="#16181a"/>';

/** Designs beside each other on a board, of so many films each. */
function plan(films: readonly (1 | 2)[], patch: RecipePatch = {}) {
  const parts = films.map((_, i) => drawing(`d${i}`, i * 100));
  const recipe = parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Several'), {
        artworks: parts,
        surface: {
          kind: 'flat',
          flat: { ...emptyRecipe('').surface.flat, widthMm: 900, heightMm: 600 },
          size: { mode: 'own' },
          several: {
            betweenMm: null,
            copies: 1,
            others: parts.slice(1).map(({ id }) => ({ parts: [id], widthMm: null })),
          },
        },
      }),
      patch,
    ),
  );
  const sources = new Map(films.map((count, i) => [`d${i}`, svg(count === 1 ? ONE : TWO)]));
  return new Planner(resourcesInNode).plan({ recipe, shop: BENCH_SHOP, sources });
}

describe('several designs on one thing', () => {
  it.each([
    [1, 2],
    [2, 1],
    [1, 2, 1, 2],
  ] as const)('each have their own marks, and a choice of marks whichever comes first', async (...films) => {
    const { prepare } = await plan(films);
    expect(prepare!.panels.map(({ marks }) => marks !== null)).toEqual(films.map((count) => count === 2));
    const rulings = prepare!.rulings.filter(({ id }) => id.startsWith('prepare.marks'));
    const [marks, none] = rulings;
    expect(rulings).toHaveLength(2);
    expect([marks!.id, none!.id]).toEqual(['prepare.marks', 'prepare.marks.2']);
    expect(marks!.alternatives!.some(({ label }) => label.startsWith('No marks'))).toBe(true);
    const called = (count: 1 | 2) => films.flatMap((one, i) => (one === count ? [`d${i}.svg`] : []));
    // Page, report and command line show the sentence; the subject is what a reader of the page hears.
    for (const said of ['subject', 'sentence'] as const) {
      for (const name of called(2))
        expect([marks![said].includes(name), none![said].includes(name)]).toEqual([true, false]);
      for (const name of called(1))
        expect([marks![said].includes(name), none![said].includes(name)]).toEqual([false, true]);
    }
    expect(none!.because).toEqual(['One layer needs no alignment.']);
  });

  it('that are prepared alike share what is said', async () => {
    const { prepare } = await plan([2, 2]);
    const marks = prepare!.rulings.filter(({ id }) => id.startsWith('prepare.marks'));
    expect(marks.map(({ id, subject }) => [id, subject])).toEqual([['prepare.marks', 'Registration marks']]);
    expect(marks[0]!.sentence).not.toContain('.svg');
  });

  it('are put together one after the other where their layers differ, and only those with marks by marks', async () => {
    const { assemble } = await plan([1, 2]);
    const titles = assemble!.steps.map(({ title }) => title);
    expect(titles[0]).toBe('Weed every layer');
    const [first, second] = ['d0.svg: ', 'd1.svg: '].map((name) =>
      assemble!.steps.filter(({ title }) => title.startsWith(name)),
    );
    expect(first!.length + second!.length).toBe(titles.length - 1);
    expect([first!.flatMap(({ laying }) => laying ?? []), second!.flatMap(({ laying }) => laying ?? [])]).toEqual([
      ['tar'],
      ['chalk', 'tar'],
    ]);
    expect(first!.some(({ text }) => text.includes('mark'))).toBe(false);
    expect(second!.some(({ text }) => text.includes('Put mark on mark'))).toBe(true);
    // Alike, they need one list.
    const alike = (await plan([2, 2])).assemble!.steps.map(({ title }) => title);
    expect(alike.some((title) => title.includes('.svg'))).toBe(false);
  });

  it('no marks is a choice for all of them', async () => {
    const { prepare } = await plan([1, 2], { preparation: { marks: false } });
    const [marks] = prepare!.rulings.filter(({ id }) => id.startsWith('prepare.marks'));
    expect(marks!.alternatives!.map(({ label }) => label)).toEqual(['Add marks']);
  });
});
