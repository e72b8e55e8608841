import { describe, expect, it } from 'vitest';
import { seeded } from '../../core/testing/seeded.js';
import { Draft, hasDrafts, keepDrafts, type DraftOptions } from './draft.js';

/** A field over a value that holds, as a page with a recipe would have it. */
function field(start = 1) {
  const log = { kept: [] as number[], tried: [] as (number | null)[], lost: [] as string[] };
  let value = start;
  const options = (): DraftOptions<number> => ({
    label: 'Trap',
    shown: String(value),
    read: (text) => (/^\d+(\.\d+)?$/.test(text) ? { value: Number(text) } : { wrong: `“${text}” is no figure` }),
    onKeep: (next) => {
      value = next;
      log.kept.push(next);
      draft.options = options();
    },
    onTry: (next) => log.tried.push(next),
    onLost: (text) => log.lost.push(text),
    focus: () => {},
  });
  const draft: Draft<number> = new Draft<number>(options());
  return {
    draft,
    log,
    get value() {
      return value;
    },
    set: (next: number) => {
      value = next;
      draft.options = options();
    },
  };
}

describe('a draft', () => {
  it('is one step, however often it is told to keep', () => {
    const { draft, log } = field();
    draft.type('2');
    expect(draft.keep()).toBe(true);
    // Tab after Enter.
    expect(draft.keep()).toBe(true);
    draft.close();
    expect(log.kept).toEqual([2]);
    expect(hasDrafts()).toBe(false);
  });

  it('of many arrow keys is one step, shown all the while', () => {
    const { draft, log } = field();
    for (let i = 2; i <= 11; i += 1) draft.try(i, String(i));
    expect(log.kept).toEqual([]);
    draft.keep();
    expect([log.kept, log.tried]).toEqual([[11], [2, 3, 4, 5, 6, 7, 8, 9, 10, 11, null]]);
  });

  it('is kept when its field goes away, and ends what it tried', () => {
    const { draft, log } = field();
    draft.try(3, '3');
    draft.close();
    expect([log.kept, log.tried, hasDrafts()]).toEqual([[3], [3, null], false]);
  });

  it('that cannot be read stays with a reason, and is told when its field goes away all the same', () => {
    const { draft, log } = field();
    draft.type('3x');
    expect(draft.keep()).toBe(false);
    expect(draft.state).toEqual({ text: '3x', wrong: '“3x” is no figure' });
    expect(keepDrafts()).toBe(draft);
    draft.close();
    expect([log.kept, log.lost, hasDrafts()]).toEqual([[], ['3x'], false]);
  });

  it('that is what holds anyhow is no step', () => {
    const { draft, log } = field();
    draft.type('2');
    draft.type('1');
    draft.keep();
    draft.try(2, '2');
    draft.giveUp();
    draft.close();
    expect([log.kept, hasDrafts()]).toEqual([[], false]);
  });

  it('is not touched when another value holds meanwhile', () => {
    const one = field();
    one.draft.type('5');
    one.set(9);
    expect(one.draft.text).toBe('5');
    one.draft.giveUp();
    expect(one.draft.text).toBe('9');
  });

  it.each(Array.from({ length: 100 }, (_, seed) => seed))(
    'loses nothing and keeps nothing twice, whatever the hand does, seed %i',
    (seed) => {
      const random = seeded(seed);
      const one = field();
      // What a plain reading of the promise says must have been kept.
      const meant: number[] = [];
      let [typed, holds]: [string | null, number] = [null, 1];
      const keep = () => {
        if (typed === null || !/^\d+$/.test(typed)) return;
        if (Number(typed) !== holds) meant.push((holds = Number(typed)));
        typed = null;
      };
      for (let i = 0; i < 80; i += 1) {
        const dice = random();
        if (dice < 0.4) one.draft.type((typed = random() < 0.2 ? 'x' : String(Math.floor(random() * 5))));
        else if (dice < 0.6) {
          const next = Math.floor(random() * 5);
          one.draft.try(next, (typed = String(next)));
        } else if (dice < 0.85) {
          expect(one.draft.keep()).toBe(typed !== 'x');
          keep();
        } else if (dice < 0.9) {
          one.draft.giveUp();
          typed = null;
        } else {
          one.draft.close();
          keep();
          typed = null;
        }
        expect(one.draft.text).toBe(typed ?? String(holds));
      }
      one.draft.close();
      keep();
      expect(one.log.kept).toEqual(meant);
      expect(hasDrafts()).toBe(false);
    },
  );
});
