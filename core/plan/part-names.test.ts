import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart, letteringPart, nameOfPart, newLettering, type ArtworkPart } from '../stations/artwork/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import { Planner } from './planner.js';

const drawing = (id: string, fileName: string, xMm = 0): ArtworkPart => {
  const part = drawingPart({ id, fileName, sha256: '0'.repeat(64) });
  return { ...part, place: { ...part.place, xMm } };
};
const svg = (size: number, colour: string) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 ${size} ${size}"><rect width="${size}" height="${size}" fill="${colour}"/></svg>`,
  );
const recipeOf = (artworks: readonly ArtworkPart[], patch: RecipePatch = {}): Recipe =>
  parseRecipe(patchRecipe(patchRecipe(emptyRecipe('Parts'), { artworks, surface: { size: { mode: 'own' } } }), patch));
const plan = (recipe: Recipe, files: Record<string, Uint8Array>) =>
  new Planner(resourcesInNode).prepared({ recipe, shop: BENCH_SHOP, sources: new Map(Object.entries(files)) });

describe('the name of a part', () => {
  it('is its own, however many parts come of one file or say the same', () => {
    const random = seeded(5);
    for (let round = 0; round < 50; round += 1) {
      const parts = Array.from({ length: 1 + Math.floor(random() * 8) }, (_, i): ArtworkPart =>
        random() < 0.5
          ? drawing(`p${i}`, ['leaf.svg', 'bud.svg'][Math.floor(random() * 2)]!)
          : letteringPart(`p${i}`, newLettering(['Ada', 'Bo'][Math.floor(random() * 2)]!)),
      );
      const names = parts.map((part) => nameOfPart(part, parts));
      expect(new Set(names).size).toBe(parts.length);
      for (const [i, part] of parts.entries())
        expect(names[i]).toContain(part.kind === 'lettering' ? part.lettering.text : part.source.fileName);
    }
    const alone = drawing('a', 'leaf.svg');
    expect(nameOfPart(alone, [alone])).toBe('leaf.svg');
  });

  it('is the same in what is said of it', async () => {
    const parts = [drawing('a', 'leaf.svg'), drawing('b', 'leaf.svg', 60)];
    const blurred = new TextEncoder().encode(
      '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><text x="2" y="20" font-family="Not Here At All" font-size="9">Word</text><rect width="40" height="10" fill="#b3262b"/></svg>',
    );
    const { findings } = await plan(recipeOf(parts), { a: blurred, b: blurred });
    const said = findings.filter(({ code }) => code === 'font-missing').map(({ message }) => message.split(':')[0]);
    expect(said).toEqual(['leaf.svg (1 of 2)', 'leaf.svg (2 of 2)']);
  });
});

describe('a part that lies completely behind others', () => {
  const files = { small: svg(20, '#f7f5ef'), large: svg(60, '#16181a') };
  const [small, large] = [drawing('small', 'small.svg', 10), drawing('large', 'large.svg')];
  const found = async (recipe: Recipe) =>
    (await plan(recipe, files)).findings.filter(({ code }) => code === 'part-hidden' || code === 'hidden');

  it('is named, and either remedy ends it', async () => {
    const recipe = recipeOf([small, large]);
    const [finding, ...others] = await found(recipe);
    expect(others).toEqual([]);
    expect([finding!.severity, finding!.message]).toEqual([
      'warning',
      'small.svg lies completely behind other artwork, so nothing of it shows. Move it, or bring it to the front.',
    ]);
    const after = finding!.remedies!.map(({ patch }) => patchRecipe(recipe, patch as RecipePatch));
    expect(after.map(({ artworks }) => artworks.map(({ id }) => id))).toEqual([['large', 'small'], ['large']]);
    for (const one of after) expect(await found(one)).toEqual([]);
  });

  it('is named also when hidden shapes are left out, and not while any of it shows', async () => {
    expect(await found(recipeOf([small, large], { repair: { tidy: true } }))).toHaveLength(1);
    expect(await found(recipeOf([drawing('small', 'small.svg', 45), large]))).toEqual([]);
    expect(await found(recipeOf([large, small]))).toEqual([]);
  });
});
