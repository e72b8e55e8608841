import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { copiesOnFilm } from './on-film.js';
import { whySpoiledStays, whyThrownAwayStays } from './take-back.js';
import { wholeOnPiece } from './whole.js';
import type { CopyVerdict, FrozenGroup, FrozenSheet, WeedPlace } from './frozen-sheet.js';
import type { BookedRun, RunState } from './run.js';

/* Made-up sheets of copies with four parts each; a part is cut by ten pairs, and has one place to weed. */

const PARTS = 4;
const PAIRS = 10;

const group = (copy: number, parts: readonly number[], more: Partial<FrozenGroup> = {}): FrozenGroup => ({
  jobId: 'job',
  revision: 1,
  copy,
  perStrip: 1,
  filmId: 'tar',
  keptMm2: 1,
  fingerprint: 'f',
  matrix: [1, 0, 0, 1, 0, 0],
  contours: parts.length,
  marks: 0,
  borders: 0,
  weedPlaces: parts.map((at, part): WeedPlace => ({ kind: 'counter', xMm: at, yMm: copy, part })),
  ticked: [],
  of: null,
  asked: 99,
  verdict: null,
  ...more,
});

const run = (groups: readonly FrozenGroup[], state: RunState, pairsDone: number, at = 1): BookedRun => {
  const contours = groups.flatMap(({ contours: n }) => Array.from({ length: n }, (_, part) => part));
  const marks = {
    wholeAt: contours.map((_, i) => (i + 1) * PAIRS),
    partOf: contours,
    contoursOf: groups.map(({ contours: n }) => n),
  };
  return {
    id: 'r',
    sheetId: 's',
    state,
    message: '',
    pairsTotal: contours.length * PAIRS,
    pairsDone,
    share: 0,
    estimateSeconds: 1,
    actualSeconds: 1,
    whole: wholeOnPiece(marks, pairsDone),
    note: '',
    startedAt: String(at),
    finishedAt: '2',
    bookedMm2: null,
    bookedCost: null,
  };
};

const sheet = (id: string, groups: readonly FrozenGroup[], more: Partial<FrozenSheet> = {}): FrozenSheet =>
  ({ id, createdAt: '0', restOf: null, decided: null, groups, runs: [], ...more }) as unknown as FrozenSheet;

const ALL = [0, 1, 2, 3];
const told = (sheets: readonly FrozenSheet[]) =>
  copiesOnFilm(sheets, 'job').map((one) => [
    `${one.sheet.id}.${one.position}`,
    one.isWhole,
    one.places.map(({ xMm }) => xMm),
  ]);

describe('what of a job is on film', () => {
  const three = [group(0, ALL), group(1, ALL), group(2, ALL)];

  it('is what is whole, of a sheet that broke off in its second copy', () => {
    expect(told([sheet('s', three, { runs: [run(three, 'cancelled', 65)] })])).toEqual([
      ['s.0', true, ALL],
      ['s.1', false, [0, 1]],
    ]);
  });

  it('is counted once where a rest has made it whole', () => {
    const rest = [group(1, [2, 3], { of: 1 }), group(2, ALL, { of: 2 })];
    const sheets = [
      sheet('s', three, { runs: [run(three, 'cancelled', 65)] }),
      sheet('rest', rest, { restOf: 's', runs: [run(rest, 'finished', 60)] }),
    ];
    expect(told(sheets)).toEqual([
      ['s.0', true, ALL],
      ['s.1', false, [0, 1]],
      ['rest.0', true, [2, 3]],
      ['rest.1', true, ALL],
    ]);
  });

  it('is not what a second try that was cancelled before the knife came down did not cut', () => {
    const runs = [run(three, 'failed', 65), run(three, 'cancelled', 0, 2)];
    expect(told([sheet('s', three, { runs })])).toEqual(told([sheet('s', three, { runs: runs.slice(0, 1) })]));
  });

  it('has nothing of what is thrown away, spoiled, not cut, or of another job', () => {
    const runs = [run(three, 'finished', 120)];
    expect(told([sheet('s', three, { runs: [run(three, 'failed', 65)], decided: 'thrown-away' })])).toEqual([]);
    expect(told([sheet('s', three, { runs: [run(three, 'cancelled', 0)] })])).toEqual([]);
    const mixed = [group(0, ALL, { verdict: 'spoiled' }), group(1, ALL), group(2, ALL, { jobId: 'other' })];
    expect(told([sheet('s', mixed, { runs })])).toEqual([['s.1', true, ALL]]);
  });

  it.each(Array.from({ length: 30 }, (_, seed) => seed))(
    'each copy and each place once, however often rests break off, seed %i',
    (seed) => {
      const random = seeded(seed);
      const copies = 1 + Math.floor(random() * 5);
      // An oracle of its own: which parts are whole is kept part by part, as the knife goes.
      const open = new Set(Array.from({ length: copies * PARTS }, (_, i) => i));
      const sheets: FrozenSheet[] = [];
      let on = Array.from({ length: copies }, (_, copy) => ({ copy, parts: ALL, of: null as number | null }));
      for (let turn = 0; open.size > 0; turn += 1) {
        const groups = on.map(({ copy, parts, of }) => group(copy, parts, { of }));
        const all = on.flatMap(({ copy, parts }) => parts.map((part) => copy * PARTS + part));
        const tries = Array.from({ length: 1 + Math.floor(random() * 3) }, () => Math.floor(random() * all.length));
        const done = turn > 4 ? all.length : Math.max(...tries);
        const runs = tries.map((parts, i) => run(groups, 'cancelled', parts * PAIRS + 3, i));
        if (done === all.length) runs.push(run(groups, 'finished', all.length * PAIRS, 9));
        sheets.push(sheet(`${turn}`, groups, { restOf: turn === 0 ? null : `${turn - 1}`, runs }));
        all.slice(0, done).forEach((part) => open.delete(part));
        const there = copiesOnFilm(sheets, 'job');
        const places = there.flatMap((one) => one.places.map(({ xMm, yMm }) => yMm * PARTS + xMm));
        expect(places.sort((a, b) => a - b)).toEqual(
          Array.from({ length: copies * PARTS }, (_, i) => i).filter((i) => !open.has(i)),
        );
        const whole = there.filter((one) => one.isWhole).map((one) => one.group.copy);
        expect(whole.sort()).toEqual(
          Array.from({ length: copies }, (_, copy) => copy).filter((copy) =>
            ALL.every((part) => !open.has(copy * PARTS + part)),
          ),
        );
        on = on.flatMap(({ copy, parts }, i) => {
          const left = parts.filter((part) => open.has(copy * PARTS + part));
          return left.length > 0 ? [{ copy, parts: left, of: i }] : [];
        });
      }
    },
  );
});

describe('taking a word back', () => {
  const two = (asked: number, verdict: CopyVerdict | null = null) => [
    group(0, ALL, { asked, verdict }),
    group(1, ALL, { asked }),
  ];
  const thrown = sheet('s', two(2), { decided: 'thrown-away', runs: [run(two(2), 'failed', 35)] });
  const after = (asked: number, state: RunState, done: number) =>
    sheet('later', two(asked), { createdAt: '5', runs: [run(two(asked), state, done)] });

  it.each([
    ['nothing was cut since', [], null],
    ['others were cut in their place', [after(2, 'finished', 80)], 'copies-cut-again'],
    ['others are being cut in their place', [after(2, 'cutting', 0)], 'copies-cut-again'],
    ['others broke off in their place', [after(2, 'failed', 10)], 'copies-cut-again'],
    ['nothing of the others was cut after all', [after(2, 'cancelled', 0)], null],
    ['more are wanted by now, and so many are cut', [after(4, 'finished', 80)], null],
  ] as const)('that a sheet was thrown away: %s', (_, later, expected) => {
    expect(whyThrownAwayStays([thrown, ...later], thrown)).toBe(expected);
  });

  it('that a copy is spoiled: not once another was cut in its place', () => {
    const spoiled = sheet('s', two(2, 'spoiled'), { runs: [run(two(2), 'finished', 80)] });
    expect(whySpoiledStays([spoiled], spoiled, [0])).toBeNull();
    const one = [group(2, ALL, { asked: 2 })];
    const later = sheet('later', one, { runs: [run(one, 'finished', 40)] });
    expect(whySpoiledStays([spoiled, later], spoiled, [0])).toBe('copies-cut-again');
    // The other copy was never spoiled: nothing of it was cut again.
    expect(whySpoiledStays([spoiled, later], spoiled, [1])).toBeNull();
  });

  it('that a rest was thrown away: not once its sheet was cut again, or settled', () => {
    const parent = (more: Partial<FrozenSheet>) => sheet('s', two(2), { runs: [run(two(2), 'failed', 35)], ...more });
    const rest = sheet('rest', [group(1, ALL, { of: 1 })], {
      restOf: 's',
      createdAt: '3',
      decided: 'thrown-away',
      runs: [run([group(1, ALL)], 'failed', 15, 4)],
    });
    expect(whyThrownAwayStays([parent({}), rest], rest)).toBeNull();
    const again = [run(two(2), 'failed', 35), run(two(2), 'cancelled', 55, 6)];
    expect(whyThrownAwayStays([parent({ runs: again }), rest], rest)).toBe('sheet-cut-again');
    expect(whyThrownAwayStays([parent({ decided: 'thrown-away' }), rest], rest)).toBe('sheet-settled');
    const other = sheet('rest-2', [group(1, ALL, { of: 1 })], {
      restOf: 's',
      runs: [run([group(1, ALL)], 'failed', 15, 7)],
    });
    expect(whyThrownAwayStays([parent({}), rest, other], rest)).toBe('sheet-settled');
  });
});
