import { describe, expect, it } from 'vitest';
import { DEMO_FILMS } from '../../../demo/films.js';
import { seeded } from '../../testing/seeded.js';
import { newFilm, type Film } from '../index.js';
import { readField, readFilmsCsv, SHOP_FIELDS, valueAt, writeField, writeFilmsCsv, type Field } from './index.js';

const ids = () => {
  let n = 0;
  return () => `new-${(n += 1)}`;
};
const read = (text: string, known: readonly Film[] = DEMO_FILMS) => readFilmsCsv(text, known, ids());
const lines = (text: string) => read(text).problems.map(({ line }) => line);

describe('a field', () => {
  it.each(['mm', 'cm', 'in'] as const)('reads back what it writes, in %s', (unit) => {
    for (const film of DEMO_FILMS) {
      for (const field of SHOP_FIELDS.films.flatMap(({ fields }) => fields)) {
        const value = valueAt(film as unknown as Record<string, unknown>, field.path);
        if (value === undefined || (value === null && !field.orNull)) continue;
        const back = readField(field, writeField(field, value, unit), unit);
        if (typeof value === 'number') expect((back as { value: number }).value).toBeCloseTo(value, 3);
        else expect(back).toEqual({ value });
      }
    }
  });

  const figure: Field = { path: 'a', label: 'A', kind: 'figure' };
  it.each([
    ['x', /number, not “x”/],
    ['', /it is empty/],
    ['1,200', /two ways: write 1\.200 or 1200/],
    ['1e3', /number/],
    ['∞', /number/],
  ])('takes no “%s” for a number', (text, said) =>
    expect((readField(figure, text) as { wrong: string }).wrong).toMatch(said),
  );
  it('takes a comma and a sign', () =>
    expect([readField(figure, ' 3,5 '), readField(figure, '-2')]).toEqual([{ value: 3.5 }, { value: -2 }]));
  it('takes no fraction for a count', () =>
    expect(readField({ ...figure, kind: 'count' }, '2.5')).toHaveProperty('wrong'));
  it('is null when it may be empty', () =>
    expect(readField({ ...figure, orNull: true }, ' ')).toEqual({ value: null }));
  it('takes no negative length', () =>
    expect(readField({ ...figure, kind: 'length' }, '-3 m')).toHaveProperty('wrong'));
});

describe('films as a table', () => {
  it('come back as they went', () => {
    const { films, problems } = read(writeFilmsCsv(DEMO_FILMS));
    expect(problems).toEqual([]);
    expect(films.map(({ film }) => film)).toEqual(DEMO_FILMS);
  });

  it.each(Array.from({ length: 12 }, (_, seed) => seed))('come back whatever is written in them, seed %i', (seed) => {
    const random = seeded(seed);
    const strange = ['"', ',', '\n', '\r\n', ';', "'", '=1+1', '  x', 'ü', '\t', 'yes', '“'];
    const films = DEMO_FILMS.slice(0, 6).map((film) => ({
      ...film,
      note: Array.from({ length: 8 }, () => strange[Math.floor(random() * strange.length)]!)
        .join('')
        .trim(),
      costPerM2: Math.round(random() * 1000) / 100,
    }));
    const back = read(writeFilmsCsv(films), films);
    expect(back.problems).toEqual([]);
    expect(back.films.map(({ film }) => film)).toEqual(films);
  });

  it('become new films of their family where no id stands', () => {
    const { films } = read('name,family,colour,cost per m²\nSea,cast,#123456,9\nHay,heat-transfer,#aa9900,\n');
    expect(films.map(({ film }) => film)).toEqual([
      { ...newFilm('new-1', 'cast'), name: 'Sea', colour: '#123456', costPerM2: 9 },
      { ...newFilm('new-2', 'heatTransfer'), name: 'Hay', colour: '#aa9900' },
    ]);
  });

  it('change a film by its id and leave what has no column', () => {
    const { films } = read('id,name,family,reorder below m²\ntar,Pitch,polymeric,7\n');
    expect(films[0]!.film).toEqual({ ...DEMO_FILMS.find(({ id }) => id === 'tar'), name: 'Pitch', reorderM2: 7 });
  });

  it('may be parted by semicolons, begin with a byte-order mark, and have empty lines', () =>
    expect(read('\uFEFFname;family\r\n\r\nSea;cast\r\n').films).toHaveLength(1));

  it('tell each wrong line, and nothing is taken', () => {
    const text = 'id,name,family,cost per m²\n,Sea,cast,x\n,Hay,velvet,3\nnone,Fig,cast,4\n,Oak,cast,5,6\n';
    const { films, problems } = read(text);
    expect(films).toEqual([]);
    expect(problems.map(({ line }) => line)).toEqual([2, 3, 4, 5]);
    expect(problems[0]!.message).toBe('cost per m²: Write a number, not “x”.');
  });

  it('count lines as an editor does, over cells that hold line ends', () => {
    expect(lines('name,family,note\n"a","cast","one\ntwo\nthree"\n\nb,velvet,\n')).toEqual([6]);
  });

  it.each([
    ['another shape', 'film;price\nSea;3\n', [1, 1]],
    ['nothing', '', [1, 1]],
    ['a head alone', 'name,family\n', [1]],
    ['a column twice', 'name,name,family\na,b,cast\n', [1]],
    ['a picture', '\u0089PNG\r\n\u001a\n', [1, 1]],
  ])('of %s are refused with a line', (_, text, at) => {
    const { films, problems } = read(text);
    expect(films).toEqual([]);
    expect(problems.map(({ line }) => line).slice(0, at.length)).toEqual(at);
  });
});
