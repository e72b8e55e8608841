import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { formatLength, readLength, type LengthUnit } from './index.js';
import { GLOSSARY, glossaryPage } from './glossary.js';

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
    [`5' 3"`, 1600.2],
    [`1' 6"`, 457.2],
    ['5’ 3”', 1600.2],
    [`5' 3''`, 1600.2],
    ['12"', 304.8],
    ['0.7 in', 17.78],
  ])('%s', (text, mm) => expect(mmOf(text)).toBe(mm));

  it.each([
    '',
    'mm',
    'ten',
    '-3',
    '1/0"',
    '1/2/3',
    '12 ells',
    '1e3',
    'NaN',
    '3 4',
    '--2',
    '1 20',
    '1 2000',
    '1,2,3',
    '12,34.5',
    `4'13"`,
    `4'12"`,
    `4'6 cm`,
    '1..2',
  ])('%s is none', (text) => expect(readLength(text)).toEqual({ problem: 'no-length' }));

  it.each(['1,200', '12,345 mm', '999,000 cm', '1,200 1/2'])('%s is asked about', (text) =>
    expect(readLength(text)).toMatchObject({ problem: 'unclear' }),
  );

  it('takes bare numbers in the shop’s unit', () => {
    expect(mmOf('10', 'cm')).toBeCloseTo(100, 9);
    expect(mmOf('1 1/2', 'in')).toBeCloseTo(38.1, 9);
  });

  it.each(['mm', 'cm', 'in'] as const)('reads back what it shows, in %s', (unit) => {
    for (const mm of [0.35, 1, 9.99, 25.4, 212, 1400])
      expect(Math.abs(mmOf(formatLength(mm, unit), unit) - mm)).toBeLessThan(0.06);
  });

  it('shows small figures finer than large ones', () => {
    expect([formatLength(0.35), formatLength(237.666), formatLength(12, 'cm')]).toEqual(['0.35', '237.7', '1.2']);
  });
});

describe('the glossary', () => {
  it('is the page of the documentation', () =>
    expect(readFileSync(new URL('../../docs/glossary.md', import.meta.url), 'utf8')).toBe(glossaryPage()));

  it('stands by the alphabet, each word once, each explained in plain sentences', () => {
    const words = GLOSSARY.map(({ word }) => word);
    expect(words).toEqual([...new Set(words)].sort());
    for (const { means } of GLOSSARY) expect(means).toMatch(/^[A-Z].{15,240}\.$/);
  });
});
