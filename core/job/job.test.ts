import { describe, expect, it } from 'vitest';
import { countFindings, drawingPart, emptyRecipe, formatLength, InputError, NO_REPAIR, parseRecipe, patchRecipe, readLength, type Finding, type LengthUnit } from './index.js';

/** NaN for what is no length. */
function mmOf(text: string, unit?: LengthUnit): number {
  const read = readLength(text, unit);
  return 'mm' in read ? read.mm : NaN;
}

describe('lengths as people say them', () => {
  it.each([
    ['120', 120],
    ['120 mm', 120],
    ['12 cm', 120],
    ['12,5cm', 125],
    ['1.4 m', 1400],
    ['4 3/4"', 120.65],
    ['3-1/2in', 88.9],
    ['½ in', 12.7],
    ['4½"', 114.3],
    ['3/8 inch', 9.525],
    ['5′', 1524],
    ['.5', 0.5],
    [' 7 ', 7],
    ['1 200', 1200],
    ['12 345,5', 12345.5],
    ['1\u202f200 mm', 1200],
    ['1,200.5', 1200.5],
    ['1.200,5', 1200.5],
    ['1,200,000', 1_200_000],
    ['0,125 in', 3.175],
    ['1,25', 1.25],
    ['1.200', 1.2],
    [`4'6"`, 1371.6],
    [`4' 6 1/2"`, 1384.3],
    ['4 ft 6 in', 1371.6],
    [`4'6`, 1371.6],
  ])('%s', (text, mm) => expect(mmOf(text)).toBeCloseTo(mm, 9));

  it.each(['', 'mm', 'ten', '-3', '1/0"', '1/2/3', '12 ells', '1e3', 'NaN', '3 4', '--2', '1 20', '1 2000', '1,2,3', '12,34.5', `4'13"`, `4'6 cm`, '1..2'])('%s is none', (text) => expect(readLength(text)).toEqual({ problem: 'no-length' }));

  it.each(['1,200', '12,345 mm', '999,000 cm', '1,200 1/2'])('%s is asked about', (text) => expect(readLength(text)).toMatchObject({ problem: 'unclear' }));

  it('takes bare numbers in the shop’s unit', () => {
    expect(mmOf('10', 'cm')).toBeCloseTo(100, 9);
    expect(mmOf('1 1/2', 'in')).toBeCloseTo(38.1, 9);
  });

  it.each(['mm', 'cm', 'in'] as const)('reads back what it shows, in %s', (unit) => {
    for (const mm of [0.35, 1, 9.99, 25.4, 212, 1400]) expect(Math.abs(mmOf(formatLength(mm, unit), unit) - mm)).toBeLessThan(0.06);
  });

  it('shows small figures finer than large ones', () => {
    expect([formatLength(0.35), formatLength(237.666), formatLength(12, 'cm')]).toEqual(['0.35', '237.7', '1.2']);
  });
});

describe('the recipe', () => {
  const recipe = emptyRecipe('A name');

  it('is read back from its own JSON', () => {
    expect(parseRecipe(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
  });

  it.each([
    ['an unknown field', { ...recipe, colour: 'red' }, '/', /colour/],
    ['an unknown field inside', { ...recipe, sheets: { ...recipe.sheets, wish: 1 } }, '/sheets', /wish/],
    ['a size below nothing', patchRecipe(recipe, { surface: { widthMm: -4 } }), '/surface/widthMm', />= 1/],
    ['a number that is none', patchRecipe(recipe, { build: { trapMm: 'wide' as unknown as number } }), '/build/trapMm', /number|null/],
    ['another version', { ...recipe, version: 9 }, '/version', /constant/],
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

  it('of version 1 is read in the newest shape, its decisions kept', () => {
    const { repair: _, ...old } = { ...recipe, title: 'An old job', version: 1 };
    expect(parseRecipe(JSON.parse(JSON.stringify(old)))).toEqual({ ...recipe, title: 'An old job' });
  });

  it('of version 2 becomes one drawing at the origin, its remedies kept', () => {
    const source = { id: 'a', fileName: 'a.svg', sha256: 'f'.repeat(64) };
    const { hairlines: _1, fillCrossings: _2, joinEndsMm: _3, gradientBands: _4, patterns: _5, pictures: _6, fonts: _7, ...repair } = NO_REPAIR;
    const old = { ...recipe, version: 2, artworks: [source], repair: { ...repair, tidy: true, letBe: ['specks'] } };
    expect(parseRecipe(JSON.parse(JSON.stringify(old)))).toEqual({ ...recipe, artworks: [drawingPart(source)], repair: { ...NO_REPAIR, tidy: true, letBe: { specks: '' } } });
  });

  it('takes a patch one level deep and stays as it was itself', () => {
    const next = patchRecipe(recipe, { build: { school: 'inlay' }, title: 'Another' });
    expect([next.title, next.build.school, next.build.placementErrorMm]).toEqual(['Another', 'inlay', 0.2]);
    expect(recipe.build.school).toBe('trapped');
  });
});

describe('findings', () => {
  it('of one kind and message are counted', () => {
    const finding: Finding = { code: 'a', severity: 'note', stage: 'artwork', message: 'Look.' };
    expect(countFindings([finding, { ...finding, message: 'Other.' }, finding, { ...finding, count: 3 }])).toEqual([{ ...finding, count: 5 }, { ...finding, message: 'Other.' }]);
  });
});
