import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { copiesCut, standings, takenCopies } from './standing.js';
import { wholeOnPiece, wholeParts } from './whole.js';
import type { FrozenGroup, FrozenSheet } from './frozen-sheet.js';
import type { Run } from './run.js';

const run = (state: Run['state'], more: Partial<Run> = {}): Run => ({
  id: 'r',
  sheetId: 's',
  state,
  message: '',
  pairsTotal: 10,
  pairsDone: 5,
  share: 0.5,
  estimateSeconds: 1,
  actualSeconds: 1,
  whole: null,
  note: '',
  startedAt: '',
  finishedAt: null,
  ...more,
});
const sheet = (id: string, runs: readonly Run[], more: Partial<FrozenSheet> = {}): FrozenSheet =>
  ({
    id,
    runs,
    restOf: null,
    decided: null,
    groups: [{ jobId: 'job', fingerprint: 'f', verdict: null }],
    ...more,
  }) as unknown as FrozenSheet;
const SPOILED = { groups: [{ jobId: 'job', fingerprint: 'f', verdict: 'spoiled' }] } as unknown as Partial<FrozenSheet>;
const standing = (...sheets: FrozenSheet[]) => standings(sheets).get(sheets[0]!.id);

describe('how a sheet stands', () => {
  it.each([
    ['good', sheet('s', [run('finished')])],
    ['spoiled', sheet('s', [run('finished')], SPOILED)],
    ['undecided', sheet('s', [run('failed'), run('cancelled', { pairsDone: 0 })])],
    ['undecided', sheet('s', [run('cancelled', { pairsDone: 7 }), run('cancelled', { pairsDone: 2 })])],
    ['good', sheet('s', [run('finished'), run('cancelled', { pairsDone: 0 })])],
    ['untouched', sheet('s', [run('cancelled', { pairsDone: 0 }), run('cancelled', { pairsDone: 0 })])],
    ['undecided', sheet('s', [run('failed', { pairsDone: 0 }), run('cancelled', { pairsDone: 0 })])],
    ['in-cutter', sheet('s', [run('cutting')], SPOILED)],
    ['in-cutter', sheet('s', [run('failed'), run('cutting')])],
    ['in-cutter', sheet('s', [run('cancelling')])],
    ['undecided', sheet('s', [run('failed')])],
    ['undecided', sheet('s', [run('cancelled')])],
    ['untouched', sheet('s', [run('cancelled', { pairsDone: 0 })])],
    ['untouched', sheet('s', [])],
    ['thrown-away', sheet('s', [run('failed')], { decided: 'thrown-away' })],
    ['good', sheet('s', [run('cancelled')], { decided: 'kept' })],
    ['spoiled', sheet('s', [run('cancelled')], { decided: 'kept', ...SPOILED })],
    ['thrown-away', sheet('s', [run('failed')], { decided: 'thrown-away', ...SPOILED })],
  ] as const)('%s', (expected, one) => {
    expect(standing(one)).toBe(expected);
  });

  it.each([
    ['good', [run('finished')]],
    ['in-cutter', [run('paused')]],
    ['rest-undecided', [run('failed')]],
    ['undecided', [run('cancelled', { pairsDone: 0 })]],
  ] as const)('is %s by its rest', (expected, runs) => {
    expect(standing(sheet('s', [run('failed')]), sheet('rest', runs, { restOf: 's' }))).toBe(expected);
  });

  it('counts a copy once, however many pieces it lies on', () => {
    const sheets = [
      sheet('s', [run('failed')]),
      sheet('a', [run('failed')], { restOf: 's' }),
      sheet('b', [run('finished')], { restOf: 'a' }),
    ];
    expect(takenCopies(sheets, 'job')).toEqual({ f: 1 });
    expect(takenCopies(sheets, 'job', ['good'])).toEqual({ f: 1 });
    expect(takenCopies(sheets, 'other')).toEqual({});
  });
});

describe('copies that are cut', () => {
  const group = (fingerprint: string, filmId: string, perStrip = 1): FrozenGroup => ({
    jobId: 'job',
    revision: 1,
    copy: 0,
    perStrip,
    filmId,
    keptMm2: 1,
    fingerprint,
    matrix: [1, 0, 0, 1, 0, 0],
    contours: 1,
    marks: 0,
    borders: 0,
    weedPlaces: [],
    ticked: [],
    of: null,
    asked: null,
    verdict: null,
  });
  const many = (count: number, one: FrozenGroup) => Array.from({ length: count }, () => one);
  const cut = (groups: readonly FrozenGroup[], ...toCut: readonly (readonly [string, number])[]) =>
    copiesCut(
      [sheet('s', [run('finished')], { groups })],
      'job',
      toCut.map(([fingerprint, copies]) => ({ fingerprint, copies })),
    );

  it.each([
    ['nothing that was to be cut', cut([]), [0, false]],
    ['one film, in part', cut(many(5, group('a', 'tar')), ['a', 12]), [5, false]],
    ['spares with it', cut(many(14, group('a', 'tar')), ['a', 12]), [14, false]],
    ['one film of two', cut(many(12, group('a', 'tar')), ['a', 12], ['b', 12]), [0, false]],
    [
      'less of one of two films',
      cut([...many(12, group('a', 'tar')), ...many(7, group('b', 'chalk'))], ['a', 12], ['b', 12]),
      [7, true],
    ],
    [
      'strips of four',
      cut([...many(3, group('a', 'tar', 4)), ...many(3, group('b', 'chalk', 4))], ['a', 3], ['b', 3]),
      [12, true],
    ],
    [
      'several designs',
      cut(
        [group('a', 'tar'), group('b', 'tar'), group('c', 'chalk'), group('d', 'chalk')],
        ['a', 1],
        ['b', 1],
        ['c', 1],
        ['d', 1],
      ),
      [2, true],
    ],
    ['a layer of which nothing is wanted', cut(many(2, group('a', 'tar')), ['a', 2], ['b', 0]), [2, false]],
  ] as const)('of %s', (_, { copies, isLayered }, expected) => expect([copies, isLayered]).toEqual(expected));

  it('do not count while their run failed, and not of another job', () => {
    const groups = many(3, group('a', 'tar'));
    expect(copiesCut([sheet('s', [run('failed')], { groups })], 'job', [{ fingerprint: 'a', copies: 3 }]).copies).toBe(
      0,
    );
    expect(
      copiesCut([sheet('s', [run('finished')], { groups })], 'other', [{ fingerprint: 'a', copies: 3 }]).copies,
    ).toBe(0);
  });
});

describe('what is whole', () => {
  it.each(Array.from({ length: 20 }, (_, seed) => seed))(
    'a part is whole when each of its contours is, and grows only with what is driven, seed %i',
    (seed) => {
      const random = seeded(seed);
      const contoursOf = Array.from({ length: 1 + Math.floor(random() * 4) }, () => 1 + Math.floor(random() * 9));
      const partOf = contoursOf.flatMap((n) =>
        Array.from({ length: n }, (_, i) => (random() < 0.2 ? -1 : Math.floor(i / 2))).map((part, _, all) =>
          part < 0 ? -1 : [...new Set(all.filter((p) => p >= 0))].indexOf(part),
        ),
      );
      const wholeAt = partOf.map(() => Math.floor(random() * 100));
      let before = -1;
      for (let pairs = 0; pairs <= 100; pairs += 5) {
        const whole = wholeOnPiece({ wholeAt, partOf, contoursOf }, pairs);
        expect(whole.parts).toBeGreaterThanOrEqual(before);
        before = whole.parts;
        let first = 0;
        wholeParts({ wholeAt, partOf, contoursOf }, pairs).forEach((parts, g) => {
          parts.forEach((isWhole, part) => {
            const mine = Array.from({ length: contoursOf[g]! }, (_, i) => first + i).filter((i) => partOf[i] === part);
            expect(isWhole).toBe(mine.every((i) => wholeAt[i]! <= pairs));
          });
          first += contoursOf[g]!;
        });
      }
      expect(wholeOnPiece({ wholeAt, partOf, contoursOf }, 100)).toMatchObject({ copies: contoursOf.length });
    },
  );
});
