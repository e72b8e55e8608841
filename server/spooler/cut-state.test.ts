import { describe, expect, it } from 'vitest';
import { greeting, onReport, onSilence, type CutNow, type CutterReport, type StoredCut } from './cut-state.js';

const IDLE: CutterReport = {
  state: 'idle',
  empty: true,
  freeBytes: 4096,
  pairsDone: 100,
  boot: 7,
  xMm: 0,
  yMm: 0,
  knifeDown: false,
  meterMs: 0,
};
const NEW: StoredCut = { state: 'cutting', message: '', pairsDone: 0, bearings: null };
const BEGUN: StoredCut = { ...NEW, pairsDone: 10, bearings: { pairsBase: 100, boot: 7, meterMs: 0 } };
const now = (stored: StoredCut, more: Partial<CutNow> = {}): CutNow => ({
  stored,
  talk: greeting(stored),
  wish: 'go',
  pairsTotal: 50,
  placeAfter: () => null,
  ...more,
});

describe('what a report means', () => {
  it.each([
    ['held', { state: 'held' }],
    ['out of film', { state: 'out-of-film' }],
    ['jammed', { state: 'jammed' }],
    ['moving', { state: 'moving', empty: false }],
    ['held over a full buffer', { state: 'held', empty: false }],
  ] as const)('no base count is taken from a cutter that is %s', (_, report) => {
    expect(onReport(now(NEW), { ...IDLE, ...report }).stored.bearings).toBeNull();
  });

  it('a base count is taken once the cutter is empty and idle, and was told that a new sheet is in', () => {
    const asked = onReport(now(NEW), IDLE);
    expect([asked.stored.bearings, asked.tell]).toEqual([null, ['new-sheet']]);
    const claimed = onReport(now(asked.stored, { talk: asked.talk }), IDLE);
    expect([claimed.stored.bearings, claimed.tell, claimed.talk]).toEqual([
      { pairsBase: 100, boot: 7, meterMs: 0 },
      [],
      { phase: 'sending', from: 0 },
    ]);
  });

  it('what an earlier cut left in the cutter is dropped before a sheet is begun', () => {
    const { tell, stored } = onReport(now(NEW), { ...IDLE, state: 'moving', empty: false });
    expect([tell, stored.message]).toEqual([['drop', 'release'], expect.stringContaining('earlier cut')]);
  });

  it.each([
    ['less than was driven before', 105],
    ['less than nothing', 40],
    ['more than there is', 151],
  ])('a count that is %s fails the sheet with a sentence, and drops what the cutter holds', (_, pairsDone) => {
    const { stored, tell } = onReport(now(BEGUN), { ...IDLE, pairsDone });
    expect([stored.state, stored.message, stored.pairsDone, tell]).toEqual([
      'failed',
      expect.stringContaining('count does not fit'),
      10,
      ['drop', 'release'],
    ]);
  });

  it('a cutter that was started anew fails the sheet, with what it was known to have done', () => {
    expect(onReport(now(BEGUN), { ...IDLE, boot: 8, pairsDone: 0 }).stored).toMatchObject({
      state: 'failed',
      pairsDone: 10,
    });
  });

  it('a cut is over only when the cutter holds nothing more of it', () => {
    const last = { ...IDLE, pairsDone: 150 };
    expect(onReport(now(BEGUN), { ...last, state: 'moving', empty: false }).stored.state).toBe('cutting');
    expect(onReport(now(BEGUN), last).stored.state).toBe('finished');
    const cancelling = onReport(now(BEGUN, { wish: 'cancel' }), {
      ...IDLE,
      pairsDone: 120,
      state: 'jammed',
      empty: false,
    });
    expect([cancelling.stored.state, cancelling.tell]).toEqual(['cancelling', ['drop', 'release']]);
    expect(
      onReport(now(cancelling.stored, { wish: 'cancel' }), { ...IDLE, pairsDone: 120, state: 'jammed' }).stored,
    ).toMatchObject({ state: 'cancelled', pairsDone: 20 });
  });

  it('a cancelled cut of which nothing was sent needs no cutter; any other waits for it', () => {
    expect(onSilence(now(NEW, { wish: 'cancel' })).stored.state).toBe('cancelled');
    expect(onSilence(now(BEGUN, { wish: 'cancel' })).stored.state).toBe('cancelling');
    expect(onSilence(now(BEGUN)).stored.state).toBe('waiting');
  });
});
