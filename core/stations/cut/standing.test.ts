import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { standings, takenCopies } from './standing.js';
import { wholeOnPiece, wholeParts } from './whole.js';
import type { FrozenSheet } from './frozen-sheet.js';
import type { Run } from './run.js';

const run = (state: Run['state'], more: Partial<Run> = {}): Run => ({ id: 'r', sheetId: 's', state, message: '', pairsTotal: 10, pairsDone: 5, share: 0.5, estimateSeconds: 1, actualSeconds: 1, whole: null, outcome: null, note: '', startedAt: '', finishedAt: null, ...more });
const sheet = (id: string, runs: readonly Run[], more: Partial<FrozenSheet> = {}): FrozenSheet =>
  ({ id, runs, restOf: null, decided: null, groups: [{ jobId: 'job', fingerprint: 'f' }], ...more }) as unknown as FrozenSheet;
const standing = (...sheets: FrozenSheet[]) => standings(sheets).get(sheets[0]!.id);

describe('how a sheet stands', () => {
  it.each([
    ['good', sheet('s', [run('finished')])],
    ['to-remake', sheet('s', [run('finished', { outcome: 'remake' })])],
    ['in-cutter', sheet('s', [run('failed'), run('cutting')])],
    ['in-cutter', sheet('s', [run('cancelling')])],
    ['undecided', sheet('s', [run('failed')])],
    ['undecided', sheet('s', [run('cancelled')])],
    ['untouched', sheet('s', [run('cancelled', { pairsDone: 0 })])],
    ['untouched', sheet('s', [])],
    ['thrown-away', sheet('s', [run('failed')], { decided: 'thrown-away' })],
    ['good', sheet('s', [run('cancelled')], { decided: 'kept' })],
    ['to-remake', sheet('s', [run('cancelled', { outcome: 'remake' })], { decided: 'kept' })],
  ] as const)('%s', (expected, one) => {
    expect(standing(one)).toBe(expected);
  });

  it.each([
    ['good', [run('finished')]],
    ['in-cutter', [run('paused')]],
    ['rest-undecided', [run('failed')]],
    ['undecided', [run('finished', { outcome: 'remake' })]],
    ['undecided', [run('cancelled', { pairsDone: 0 })]],
  ] as const)('is %s by its rest', (expected, runs) => {
    expect(standing(sheet('s', [run('failed')]), sheet('rest', runs, { restOf: 's' }))).toBe(expected);
  });

  it('counts a copy once, however many pieces it lies on', () => {
    const sheets = [sheet('s', [run('failed')]), sheet('a', [run('failed')], { restOf: 's' }), sheet('b', [run('finished')], { restOf: 'a' })];
    expect(takenCopies(sheets, 'job')).toEqual({ f: 1 });
    expect(takenCopies(sheets, 'job', ['good'])).toEqual({ f: 1 });
    expect(takenCopies(sheets, 'other')).toEqual({});
  });
});

describe('what is whole', () => {
  it.each(Array.from({ length: 20 }, (_, seed) => seed))('a part is whole when each of its contours is, and grows only with what is driven, seed %i', (seed) => {
    const random = seeded(seed);
    const contoursOf = Array.from({ length: 1 + Math.floor(random() * 4) }, () => 1 + Math.floor(random() * 9));
    const partOf = contoursOf.flatMap((n) => Array.from({ length: n }, (_, i) => (random() < 0.2 ? -1 : Math.floor(i / 2))).map((part, _, all) => (part < 0 ? -1 : [...new Set(all.filter((p) => p >= 0))].indexOf(part))));
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
  });
});
