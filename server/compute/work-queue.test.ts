import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { seeded } from '../../core/testing/seeded.js';
import { SharedWork } from './shared-work.js';
import { TooLong, WorkQueue, type Lane, type QueueLimits } from './work-queue.js';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Work that ends when it is told to, or when it is stopped. */
function work(name: string, begun: string[], lane: Lane, limitMs = 1000) {
  let end!: () => void;
  const done = new Promise<string>((resolve) => (end = () => resolve(name)));
  const held: boolean[] = [];
  return {
    end,
    lane,
    name,
    limitMs,
    held,
    hold: (isHeld: boolean) => void held.push(isHeld),
    start: (signal: AbortSignal) => {
      begun.push(name);
      return Promise.race([
        done,
        new Promise<string>((_, reject) => signal.addEventListener('abort', () => reject(new Error('stopped')))),
      ]);
    },
  };
}

const queue = (more: Partial<QueueLimits> = {}) =>
  new WorkQueue({ longAtOnce: 1, atOnce: 3, overdueMs: 100, longMs: 60_000, sliceMs: 60_000, ...more });

describe('the queue of work', () => {
  it('begins a short piece while long ones run, and long before idle', async () => {
    const [begun, q] = [[] as string[], queue()];
    const [idle, long1, long2, short] = [
      work('idle', begun, 'idle'),
      work('long 1', begun, 'long'),
      work('long 2', begun, 'long'),
      work('short', begun, 'short'),
    ];
    const first = q.run(long1);
    const others = [q.run(short), q.run(long2), q.run(idle)];
    expect(begun).toEqual(['long 1', 'short']);
    long1.end();
    await first;
    expect(begun).toEqual(['long 1', 'short', 'long 2']);
    long2.end();
    await others[1];
    expect(begun).toEqual(['long 1', 'short', 'long 2', 'idle']);
    idle.end();
    short.end();
    expect(await Promise.all(others)).toEqual(['short', 'long 2', 'idle']);
  });

  it('lets idle work into the place for short work only while nothing short waits', async () => {
    const [begun, q] = [[] as string[], queue()];
    const all = [
      work('long', begun, 'long'),
      work('short 1', begun, 'short'),
      work('idle', begun, 'idle'),
      work('short 2', begun, 'short'),
    ];
    const results = all.map((one) => q.run(one));
    expect(begun).toEqual(['long', 'short 1']);
    all[1]!.end();
    await results[1];
    expect(begun).toEqual(['long', 'short 1', 'short 2']);
    all[3]!.end();
    await results[3];
    expect(begun).toEqual(['long', 'short 1', 'short 2', 'idle']);
    all.forEach((one) => one.end());
    await Promise.all(results);
  });

  it('lets the next short piece in when one takes longer than was thought', async () => {
    const [begun, q] = [[] as string[], queue()];
    const all = ['a', 'b', 'c', 'd'].map((name) => work(name, begun, 'short'));
    const results = all.map((one) => q.run(one));
    expect(begun).toEqual(['a']);
    await vi.advanceTimersByTimeAsync(100);
    expect(begun).toEqual(['a', 'b']);
    await vi.advanceTimersByTimeAsync(100);
    expect(begun).toEqual(['a', 'b', 'c']);
    await vi.advanceTimersByTimeAsync(500);
    expect(begun).toEqual(['a', 'b', 'c']);
    all[1]!.end();
    await results[1];
    expect(begun).toEqual(['a', 'b', 'c', 'd']);
    all.forEach((one) => one.end());
    await Promise.all(results);
  });

  it('holds the time that work waited against nobody', async () => {
    const [begun, q] = [[] as string[], queue()];
    const [a, b] = [work('a', begun, 'long', 1000), work('b', begun, 'long', 1000)];
    const [first, second] = [q.run(a), q.run(b)];
    const ended = expect(first).rejects.toBeInstanceOf(TooLong);
    await vi.advanceTimersByTimeAsync(999);
    expect(begun).toEqual(['a']);
    await vi.advanceTimersByTimeAsync(1);
    await ended;
    await vi.advanceTimersByTimeAsync(999);
    b.end();
    expect(await second).toBe('b');
  });

  it('forgets who left while waiting, and stops what was begun', async () => {
    const [begun, q] = [[] as string[], queue()];
    const [a, b, c] = [work('a', begun, 'long'), work('b', begun, 'long'), work('c', begun, 'long')];
    const [leaveA, leaveB] = [new AbortController(), new AbortController()];
    const [first, second, third] = [q.run(a, leaveA.signal), q.run(b, leaveB.signal), q.run(c)];
    const [endedA, endedB] = [expect(first).rejects.toThrow('left a'), expect(second).rejects.toThrow('left b')];
    leaveB.abort(new Error('left b'));
    await endedB;
    leaveA.abort(new Error('left a'));
    await endedA;
    expect(begun).toEqual(['a', 'c']);
    c.end();
    expect(await third).toBe('c');
  });

  it('lets long work take turns, so that none waits for the end of another, and says what it waits for', async () => {
    const [begun, q] = [[] as string[], queue({ atOnce: 5, sliceMs: 1000 })];
    const all = ['a', 'b', 'c'].map((name) => work(name, begun, 'long', 10_000));
    const waits: (readonly string[])[] = [];
    const results = all.map((one, i) => q.run(i === 2 ? { ...one, onWait: (for_) => waits.push(for_) } : one));
    expect([begun, waits]).toEqual([['a'], [['a']]]);
    await vi.advanceTimersByTimeAsync(1000);
    expect([begun, all[0]!.held]).toEqual([['a', 'b'], [true]]);
    await vi.advanceTimersByTimeAsync(1000);
    expect([begun, all[1]!.held, waits.at(-1)]).toEqual([['a', 'b', 'c'], [true], []]);
    await vi.advanceTimersByTimeAsync(1000);
    expect([all[0]!.held, all[2]!.held, waits.at(-1)]).toEqual([[true, false], [true], ['a']]);
    // A place that is free is taken at once, and what was held is not counted.
    all[0]!.end();
    await results[0];
    expect(all[1]!.held).toEqual([true, false]);
    await vi.advanceTimersByTimeAsync(8500);
    all.forEach((one) => one.end());
    expect(await Promise.all(results)).toEqual(['a', 'b', 'c']);
  });

  it('answers what is short beside long work, and holds what turns out to be long', async () => {
    const [begun, q] = [[] as string[], queue({ atOnce: 5, longMs: 500, sliceMs: 1000 })];
    const [search, large, small] = [
      work('search', begun, 'long', 60_000),
      work('large', begun, 'short', 60_000),
      work('small', begun, 'short'),
    ];
    const results = [q.run(search), q.run(large), q.run(small)];
    await vi.advanceTimersByTimeAsync(100);
    expect(begun).toEqual(['search', 'large', 'small']);
    small.end();
    expect(await results[2]).toBe('small');
    await vi.advanceTimersByTimeAsync(400);
    expect([search.held, large.held]).toEqual([[], [true]]);
    await vi.advanceTimersByTimeAsync(1000);
    expect([search.held, large.held]).toEqual([[true], [true, false]]);
    [search, large].forEach((one) => one.end());
    await Promise.all(results);
  });

  it('ends what is held when whoever asked has left', async () => {
    const [begun, q] = [[] as string[], queue({ atOnce: 5, sliceMs: 1000 })];
    const [a, b] = [work('a', begun, 'long', 10_000), work('b', begun, 'long', 10_000)];
    const leave = new AbortController();
    const [first, second] = [q.run(a, leave.signal), q.run(b)];
    const ended = expect(first).rejects.toThrow('left');
    await vi.advanceTimersByTimeAsync(1000);
    leave.abort(new Error('left'));
    await ended;
    b.end();
    expect([await second, a.held]).toEqual(['b', [true, false]]);
  });

  for (let seed = 0; seed < 50; seed += 1) {
    it(`keeps its limits and loses nothing, whatever comes and goes, seed ${seed}`, async () => {
      const random = seeded(seed);
      const running = new Map<string, { readonly lane: Lane; isHeld: boolean }>();
      const limits = { longAtOnce: 1 + Math.floor(random() * 3), atOnce: 5, overdueMs: 100, longMs: 150, sliceMs: 120 };
      const q = new WorkQueue(limits);
      const results: Promise<unknown>[] = [];
      for (let i = 0; i < 60; i += 1) {
        const lane = (['short', 'long', 'idle'] as const)[Math.floor(random() * 3)]!;
        const [name, takes] = [String(i), random() * 300];
        const leave = new AbortController();
        const start = (signal: AbortSignal) =>
          new Promise<string>((resolve, reject) => {
            running.set(name, { lane, isHeld: false });
            expect(running.size).toBeLessThanOrEqual(limits.atOnce);
            // What is held makes no way: the clock of the work stands still.
            let left = takes;
            const tick = setInterval(() => {
              if (!running.get(name)!.isHeld) left -= 10;
              if (left <= 0) settle(() => resolve(name))();
            }, 10);
            const settle = (then: () => void) => () => {
              clearInterval(tick);
              running.delete(name);
              then();
            };
            signal.addEventListener(
              'abort',
              settle(() => reject(new Error('stopped'))),
            );
          });
        const hold = (isHeld: boolean) => {
          const one = running.get(name);
          if (one) one.isHeld = isHeld;
          const active = [...running.values()].filter((other) => other.lane === 'long' && !other.isHeld);
          // One more for the moment in which two change places.
          expect(active.length).toBeLessThanOrEqual(limits.longAtOnce + 1);
        };
        results.push(q.run({ lane, name, limitMs: 250, start, hold }, leave.signal).catch((error: unknown) => error));
        if (random() < 0.3) setTimeout(() => leave.abort(new Error('left')), random() * 400);
        await vi.advanceTimersByTimeAsync(random() * 120);
        const active = [...running.values()].filter((one) => one.lane === 'long' && !one.isHeld);
        expect(active.length).toBeLessThanOrEqual(limits.longAtOnce);
      }
      await vi.advanceTimersByTimeAsync(60_000);
      for (const [i, result] of (await Promise.all(results)).entries())
        expect(result === String(i) || result instanceof TooLong || (result as Error).message === 'left').toBe(true);
      expect(running.size).toBe(0);
    });
  }
});

describe('work that several wait for', () => {
  it('is done once, told to all, and remembered', async () => {
    const shared = new SharedWork<string, number>(2);
    let times = 0;
    const heard: number[] = [];
    const make = async (_: AbortSignal, tell: (done: number) => void) => {
      times += 1;
      await Promise.resolve();
      tell(0.5);
      return 'done';
    };
    const both = [
      shared.get('a', make, { onProgress: (done) => heard.push(done) }),
      shared.get('a', make, { onProgress: (done) => heard.push(done) }),
    ];
    expect(await Promise.all(both)).toEqual(['done', 'done']);
    expect(await shared.get('a', make)).toBe('done');
    expect([times, heard]).toEqual([1, [0.5, 0.5]]);
    await shared.get('b', make);
    await shared.get('c', make);
    await shared.get('a', make);
    expect(times).toBe(4);
  });

  it('goes on while one still waits, and is ended when the last has left', async () => {
    const shared = new SharedWork<string, number>(2);
    let stopped = false;
    const make = (signal: AbortSignal) =>
      new Promise<string>((_, reject) =>
        signal.addEventListener('abort', () => {
          stopped = true;
          reject(signal.reason as Error);
        }),
      );
    const [one, two] = [new AbortController(), new AbortController()];
    const [first, second] = [
      shared.get('a', make, { signal: one.signal }),
      shared.get('a', make, { signal: two.signal }),
    ];
    const [endedFirst, endedSecond] = [expect(first).rejects.toThrow('one'), expect(second).rejects.toThrow('two')];
    one.abort(new Error('one'));
    await endedFirst;
    expect(stopped).toBe(false);
    two.abort(new Error('two'));
    await endedSecond;
    expect(stopped).toBe(true);
    // Asked again, it is begun anew and not taken for what was ended.
    expect(await shared.get('a', () => Promise.resolve('again'))).toBe('again');
  });

  it('is tried again after it failed', async () => {
    const shared = new SharedWork<string, number>(2);
    await expect(shared.get('a', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await shared.get('a', () => Promise.resolve('yes'))).toBe('yes');
  });
});
