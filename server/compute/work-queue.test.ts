import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { seeded } from '../../core/testing/seeded.js';
import { SharedWork } from './shared-work.js';
import { TooLong, WorkQueue, type Lane } from './work-queue.js';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Work that ends when it is told to, or when it is stopped. */
function work(name: string, begun: string[], lane: Lane, limitMs = 1000) {
  let end!: () => void;
  const done = new Promise<string>((resolve) => (end = () => resolve(name)));
  return {
    end,
    lane,
    limitMs,
    start: (signal: AbortSignal) => {
      begun.push(name);
      return Promise.race([
        done,
        new Promise<string>((_, reject) => signal.addEventListener('abort', () => reject(new Error('stopped')))),
      ]);
    },
  };
}

const queue = () => new WorkQueue({ longAtOnce: 1, atOnce: 3, overdueMs: 100 });

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

  for (let seed = 0; seed < 50; seed += 1) {
    it(`keeps its limits and loses nothing, whatever comes and goes, seed ${seed}`, async () => {
      const random = seeded(seed);
      const running = new Map<string, Lane>();
      const limits = { longAtOnce: 1 + Math.floor(random() * 3), atOnce: 4, overdueMs: 100 };
      const q = new WorkQueue(limits);
      const results: Promise<unknown>[] = [];
      for (let i = 0; i < 60; i += 1) {
        const lane = (['short', 'long', 'idle'] as const)[Math.floor(random() * 3)]!;
        const [name, takes] = [String(i), random() * 300];
        const leave = new AbortController();
        const start = (signal: AbortSignal) =>
          new Promise<string>((resolve, reject) => {
            running.set(name, lane);
            expect(running.size).toBeLessThanOrEqual(limits.atOnce);
            expect([...running.values()].filter((one) => one === 'long').length).toBeLessThanOrEqual(limits.longAtOnce);
            const settle = (then: () => void) => () => {
              running.delete(name);
              then();
            };
            setTimeout(
              settle(() => resolve(name)),
              takes,
            );
            signal.addEventListener(
              'abort',
              settle(() => reject(new Error('stopped'))),
            );
          });
        results.push(q.run({ lane, limitMs: 200, start }, leave.signal).catch((error: unknown) => error));
        if (random() < 0.3) setTimeout(() => leave.abort(new Error('left')), random() * 400);
        await vi.advanceTimersByTimeAsync(random() * 120);
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
