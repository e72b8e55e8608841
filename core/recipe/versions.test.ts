import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { AT_ORIGIN, NO_REPAIR } from '../stations/artwork/index.js';
import { parseRecipe } from './parse-recipe.js';
import { RECIPE_VERSION, type Recipe } from './recipe.js';

/** A recipe as it was kept by the version of the application that made it. */
const kept = (version: number) => new URL(`versions/recipe-${version}.json`, import.meta.url);
const stored = (version: number) => JSON.parse(readFileSync(kept(version), 'utf8')) as Recipe;
const VERSIONS = Array.from({ length: RECIPE_VERSION }, (_, i) => i + 1);

describe('recipes of older versions', () => {
  it('have a fixture each, so that none is forgotten', () =>
    expect(VERSIONS.filter((version) => !existsSync(kept(version)))).toEqual([]));

  it.each(VERSIONS)('of version %d open, in the newest shape, and are read the same a second time', (version) => {
    const recipe = parseRecipe(stored(version));
    expect(recipe.version).toBe(RECIPE_VERSION);
    expect(parseRecipe(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
  });

  it.each(VERSIONS)('of version %d keep every decision they hold', (version) => {
    const { version: _, artworks, repair, build, assembly, surface, preparation, ...decided } = stored(version);
    const recipe = parseRecipe(stored(version));
    // Up to version 8 the only surface was a flat panel, and a sign longer than a roll was cut whole.
    const { widthMm, heightMm, marginMm, ...placed } = surface as unknown as Record<string, unknown>;
    expect(recipe.surface).toMatchObject(
      version < 9
        ? {
            ...placed,
            kind: placed['kind'] === 'panel' ? 'flat' : placed['kind'],
            flat: { widthMm, heightMm, marginMm, free: [] },
            panels: { split: 'never' },
          }
        : surface,
    );
    // Up to version 9 a border was there or not, and nothing parted the waste.
    expect(recipe.preparation).toMatchObject(
      version < 10
        ? {
            ...preparation,
            border: (preparation.border as unknown) === true ? 'box' : 'none',
            relief: { ruled: false },
            markPlaces: 'outside',
          }
        : preparation,
    );
    // Up to version 10 nothing was written into the waste, and all layers' borders were alike.
    if (version < 11)
      expect(recipe.preparation).toMatchObject({
        labels: false,
        lowestMoreMm: 0,
        markShape: 'diamond',
        marksAt: [],
        markSizeMm: preparation.markSizeMm,
      });
    const { placementErrorMm, trapForm: _form, outlines, ...built } = build;
    expect(recipe).toMatchObject({ ...decided, build: built });
    // Up to version 6 an outline went round films, which it listed.
    const listedFilms = ({ around }: { readonly around?: unknown }) =>
      Array.isArray(around) ? { by: 'films', ids: around } : (around ?? null);
    expect(recipe.build.outlines).toMatchObject(
      (outlines ?? []).map((outline) => ({ ...outline, around: listedFilms(outline) })),
    );
    // What versions 1 to 3 began with was nobody's decision.
    expect(recipe.build.placementErrorMm).toBe(version < 4 && placementErrorMm === 0.2 ? null : placementErrorMm);
    expect(recipe.build.trapForm).toBe(version < 4 ? 'chance' : 'worst');
    expect(recipe.assembly.way).toBe((assembly.way as string) === 'surface' ? 'dry' : assembly.way);
    expect(recipe.artworks).toHaveLength(artworks.length);
    const { letBe, ...remedies } = repair ?? { letBe: {} };
    expect(recipe.repair).toMatchObject(remedies);
    expect(Object.keys(recipe.repair.letBe)).toEqual(Array.isArray(letBe) ? letBe : Object.keys(letBe));
  });

  it('of version 1 knew no remedies', () =>
    expect(parseRecipe(stored(1)).repair).toEqual({ ...NO_REPAIR, shines: 'keep' }));

  it('of version 1 and 2 hold one drawing, at the origin', () => {
    for (const version of [1, 2])
      expect(parseRecipe(stored(version)).artworks).toEqual([
        expect.objectContaining({
          kind: 'drawing',
          place: AT_ORIGIN,
          source: expect.objectContaining({ fileName: 'heron-window.svg' }),
        }),
      ]);
  });

  it.each(VERSIONS)('of version %d that are damaged are refused with a place, and never a crash', (version) => {
    const whole = stored(version) as unknown as Record<string, unknown>;
    for (const field of Object.keys(whole)) {
      for (const value of [null, 7, 'x', [null], [7], { letBe: 3 }])
        expect(() => parseRecipe({ ...whole, [field]: value, extra: 1 })).toThrow(/\/|recipe/);
    }
  });
});
