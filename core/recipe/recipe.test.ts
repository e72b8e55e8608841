import { describe, expect, it } from 'vitest';
import { InputError } from '../words/index.js';
import { emptyRecipe, patchRecipe, RECIPE_VERSION } from './recipe.js';
import { parseRecipe } from './parse-recipe.js';

describe('the recipe', () => {
  const recipe = emptyRecipe('A name');

  it('is read back from its own JSON', () => {
    expect(parseRecipe(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
  });

  it.each([
    ['an unknown field', { ...recipe, colour: 'red' }, '/', /colour/],
    ['an unknown field inside', { ...recipe, sheets: { ...recipe.sheets, wish: 1 } }, '/sheets', /wish/],
    [
      'a size below nothing',
      patchRecipe(recipe, { surface: { flat: { ...recipe.surface.flat, widthMm: -4 } } }),
      '/surface/flat/widthMm',
      />= 1/,
    ],
    [
      'a number that is none',
      patchRecipe(recipe, { build: { trapMm: 'wide' as unknown as number } }),
      '/build/trapMm',
      /number|null/,
    ],
    ['another version', { ...recipe, version: RECIPE_VERSION + 1 }, '/version', /constant/],
    ['nothing', null, '/', /object/],
  ])('refuses %s and names the place', (_, json, path, reason) => {
    const read = () => parseRecipe(json, 'recipe.json');
    expect(read).toThrow(InputError);
    expect(read).toThrow(reason);
    try {
      read();
    } catch (error) {
      expect((error as InputError).path).toBe(path);
    }
  });

  it('takes a patch one level deep and stays as it was itself', () => {
    const next = patchRecipe(recipe, { build: { school: 'inlay' }, title: 'Another' });
    expect([next.title, next.build.school, next.build.lives]).toEqual(['Another', 'inlay', 'indoors']);
    expect(recipe.build.school).toBe('trapped');
  });
});
