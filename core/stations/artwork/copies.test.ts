import { describe, expect, it } from 'vitest';
import { AT_ORIGIN, drawingPart, letteringPart, newLettering, type ArtworkPart } from './artwork-part.js';
import { countOf, inColour, setOut, variantsOf, wordsOf, type Repeat } from './copies.js';

const box = { minX: -15, minY: -5, maxX: 15, maxY: 5 };
function repeated(parts: readonly ArtworkPart[], how: Repeat, newId: () => string) {
  const variants = variantsOf(parts, how, newId);
  const all = setOut(
    variants,
    variants.map(() => box),
    how,
  );
  return { first: all.slice(0, parts.length), copies: all.slice(parts.length) };
}
const part = drawingPart({ id: 'a', fileName: 'a.svg', sha256: '' });
const words = letteringPart('w', { ...newLettering('Otter'), colours: ['#b3262b'], alternates: { 0: 'salt' } });
const plain: Repeat = { columns: 3, rows: 2, gapMm: 5, words: [], colours: null };
const ids = () => {
  let n = 0;
  return () => `c${(n += 1)}`;
};
const textsOf = (parts: readonly ArtworkPart[]) =>
  parts.flatMap((one) => (one.kind === 'lettering' ? [one.lettering.text] : []));

describe('copies', () => {
  it('stand in rows and columns, clear of each other', () => {
    const { first, copies } = repeated([part], plain, ids());
    expect(first).toEqual([part]);
    expect(copies.map(({ place }) => [place.xMm, place.yMm])).toEqual([
      [35, 0],
      [70, 0],
      [0, 15],
      [35, 15],
      [70, 15],
    ]);
    expect(new Set(copies.map((copy) => copy.id)).size).toBe(5);
  });

  it('have a word each, as many as there are, and no other forms of letters that are gone', () => {
    const { first, copies } = repeated([words], { ...plain, words: ['Heron', 'Kingfisher', 'Vole', 'Coot'] }, ids());
    expect(textsOf([...first, ...copies])).toEqual(['Heron', 'Kingfisher', 'Vole', 'Coot']);
    expect(copies.map(({ place }) => [place.xMm, place.yMm])).toEqual([
      [35, 0],
      [70, 0],
      [0, 15],
    ]);
    expect(first[0]).toMatchObject({ lettering: { alternates: {} } });
  });

  it('have a colour each, of letters and of drawings', () => {
    const to = ['#1d4e89', '#f2b632', '#1f6b45'];
    const { first, copies } = repeated(
      [words, { ...part, recolour: { '#000000': '#b3262b' } }],
      { ...plain, colours: { from: '#b3262b', to } },
      ids(),
    );
    const all = [...first, ...copies];
    expect(all.flatMap((one) => (one.kind === 'lettering' ? one.lettering.colours : []))).toEqual(to);
    expect(all.flatMap((one) => (one.kind === 'drawing' ? [one.recolour] : []))).toEqual(
      to.map((colour) => ({ '#000000': colour, '#b3262b': colour })),
    );
  });

  it('of several parts are a group each', () => {
    const { first, copies } = repeated([part, words], { ...plain, rows: 1 }, ids());
    const groups = [...first, ...copies].map(({ group }) => group);
    expect(new Set(groups).size).toBe(3);
    expect(groups.every((group, i) => group !== null && group === groups[i - (i % 2)])).toBe(true);
    expect(repeated([part], plain, ids()).copies.every(({ group }) => group === null)).toBe(true);
  });

  it('are as many as words or colours, whichever are more, else as rows and columns', () => {
    expect([
      countOf(plain),
      countOf({ ...plain, words: ['a', 'b'] }),
      countOf({ ...plain, words: ['a'], colours: { from: '#000000', to: ['#111111', '#222222', '#333333'] } }),
    ]).toEqual([6, 2, 3]);
  });

  it('stand as far apart as the widest and the highest need', () => {
    const variants = variantsOf([words], { ...plain, words: ['a', 'b', 'c', 'd'] }, ids());
    const boxes = [10, 60, 20, 30].map((width, i) => ({
      minX: -width / 2,
      maxX: width / 2,
      minY: -5 - i,
      maxY: 5 + i,
    }));
    expect(setOut(variants, boxes, { columns: 2, gapMm: 4 }).map(({ place }) => [place.xMm, place.yMm])).toEqual([
      [0, 0],
      [64, 0],
      [0, 20],
      [64, 20],
    ]);
  });

  it('made another colour twice are the last one', () =>
    expect(inColour(inColour({ ...part, place: AT_ORIGIN }, '#000000', '#111111'), '#111111', '#222222')).toMatchObject(
      { recolour: { '#000000': '#222222' } },
    ));
});

describe('words of a list', () => {
  it.each([
    ['Heron\n\n  Vole \nCoot', ['Heron', 'Vole', 'Coot']],
    ['7-10', ['7', '8', '9', '10']],
    ['03 – 01\nlast', ['03', '02', '01', 'last']],
    ['1-5000', ['1-5000']],
    ['', []],
  ])('%j', (text, expected) => expect(wordsOf(text)).toEqual(expected));
});
