import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyRecipe } from '../../core/recipe/index.js';
import { BENCH_SHOP } from '../../core/testing/bench-shop.js';
import { PlanClient, type PlanFailure, type PlanInput, type StartedWorker } from './plan-client.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';
import type { PlanRequest, PlanWorkerApi } from './worker-api.js';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const LIMITS = { startMs: 1000, planMs: 5000, graceMs: 100 };
const VIEW = (id: number): PlanView => ({ id, figures: { parts: 0, worst: {} }, findings: [], letBe: [], rulings: [] });

/** A worker by hand: it does what the test tells it to, when it is told to. */
class FakeWorker implements StartedWorker {
  readonly requests: PlanRequest[] = [];
  readonly plans: {
    onView: (view: PlanView, finished: boolean) => void;
    onStep: (doing: string, done: number) => void;
    end: () => void;
    refuse: (error: Error) => void;
  }[] = [];
  isEnded = false;
  /** In the middle of something that it cannot be called from. */
  isDeaf = false;
  stops = 0;
  die!: () => void;
  readonly failed = new Promise<never>((_, reject) => (this.die = () => reject(new Error('out of memory'))));

  constructor(private readonly hello: () => Promise<void> = () => Promise.resolve()) {}

  terminate = () => void (this.isEnded = true);

  api = {
    hello: () => this.hello(),
    plan: (
      request: PlanRequest,
      onView: (view: PlanView, finished: boolean) => void,
      onStep: (doing: string, done: number) => void,
    ) => {
      this.requests.push(request);
      return new Promise<void>((resolve, reject) => this.plans.push({ onView, onStep, end: resolve, refuse: reject }));
    },
    stop: () => {
      this.stops += 1;
      if (this.isDeaf) return new Promise<void>(() => {});
      this.plans.at(-1)?.end();
      return Promise.resolve();
    },
    section: () => (this.isDeaf ? new Promise(() => {}) : Promise.resolve(null)),
  } as unknown as PlanWorkerApi;
}

function bench(make: (n: number) => FakeWorker = () => new FakeWorker()) {
  const workers: FakeWorker[] = [];
  const client = new PlanClient(() => {
    const worker = make(workers.length);
    workers.push(worker);
    return worker;
  }, LIMITS);
  const log: string[] = [];
  const failures: PlanFailure[] = [];
  const plan = (name: string, input: Partial<PlanInput> = {}) =>
    client.plan(
      { jobId: 'a', recipe: emptyRecipe(name), shop: BENCH_SHOP, sources: new Map(), taken: {}, lies: {}, ...input },
      {
        show: (view, finished) => log.push(`${name} ${view.id}${finished ? '' : ' …'}`),
        step: (doing) => log.push(`${name} ${doing}`),
        fail: (failure) => {
          log.push(`${name} ${failure.why}`);
          failures.push(failure);
        },
      },
    );
  return { client, workers, log, plan, failures };
}

const settle = () => vi.advanceTimersByTimeAsync(0);

describe('the page’s planning worker', () => {
  it('is asked for the newest plan only, while the build before it is not there yet', async () => {
    const { workers, log, plan } = bench();
    plan('1');
    await settle();
    plan('2');
    plan('3');
    const worker = workers[0]!;
    expect(worker.requests.map((request) => request.recipe.title)).toEqual(['1']);
    worker.plans[0]!.onView(VIEW(1), false);
    await settle();
    expect(worker.requests.map((request) => request.recipe.title)).toEqual(['1', '3']);
    // What the first still has to say comes too late.
    worker.plans[0]!.onView(VIEW(1), true);
    worker.plans[1]!.onView(VIEW(worker.requests[1]!.id), true);
    worker.plans[1]!.end();
    await settle();
    expect(log).toEqual(['1 1 …', '3 2']);
  });

  it('sends a file once, and again only to another worker or for another job', async () => {
    const { workers, plan } = bench();
    const [one, two] = [new Uint8Array([1]), new Uint8Array([2])];
    const finish = async () => {
      await settle();
      workers.at(-1)!.plans.at(-1)!.end();
      await settle();
    };
    plan('1', { sources: new Map([['x', one]]) });
    await finish();
    plan('2', {
      sources: new Map([
        ['x', one],
        ['y', two],
      ]),
    });
    await finish();
    plan('3', { jobId: 'b', sources: new Map([['x', one]]) });
    await finish();
    expect(workers[0]!.requests.map((request) => [...request.sources.keys()])).toEqual([['x'], ['y'], ['x']]);
    workers[0]!.die();
    await settle();
    plan('4', { jobId: 'b', sources: new Map([['x', one]]) });
    await finish();
    expect([...workers[1]!.requests[0]!.sources.keys()]).toEqual(['x']);
  });

  it('gives up the plan of a job that was left, and is ended when it does not hear', async () => {
    const { client, workers, log, plan } = bench();
    plan('large', { jobId: 'a' });
    await settle();
    const first = workers[0]!;
    first.isDeaf = true;
    client.leave('a');
    plan('small', { jobId: 'b' });
    await vi.advanceTimersByTimeAsync(LIMITS.graceMs);
    expect(first.isEnded).toBe(true);
    expect(workers[1]!.requests.map((request) => request.jobId)).toEqual(['b']);
    first.plans[0]!.onView(VIEW(1), true);
    workers[1]!.plans[0]!.onView(VIEW(2), true);
    expect(log).toEqual(['small 2']);
  });

  it('is kept, with all it knows, when it hears', async () => {
    const { client, workers, plan } = bench();
    plan('large', { jobId: 'a' });
    await settle();
    client.leave('a');
    plan('small', { jobId: 'b' });
    await settle();
    expect([workers.length, workers[0]!.isEnded, workers[0]!.stops]).toEqual([1, false, 1]);
    expect(workers[0]!.requests.map((request) => request.jobId)).toEqual(['a', 'b']);
    await vi.advanceTimersByTimeAsync(LIMITS.graceMs * 2);
    expect(workers[0]!.isEnded).toBe(false);
  });

  it('breaks off the plan of another job that nobody said was left', async () => {
    const { workers, log, plan } = bench();
    plan('a', { jobId: 'a' });
    await settle();
    plan('b', { jobId: 'b' });
    await settle();
    workers[0]!.plans[0]!.onView(VIEW(1), true);
    workers[0]!.plans[1]!.onView(VIEW(2), true);
    expect(log).toEqual(['b 2']);
  });

  it('is started anew when it falls over, and asked once more', async () => {
    const { workers, log, plan } = bench();
    plan('1');
    await settle();
    workers[0]!.die();
    await settle();
    expect(workers).toHaveLength(2);
    workers[1]!.plans[0]!.onView(VIEW(1), true);
    workers[1]!.plans[0]!.end();
    await settle();
    expect(log).toEqual(['1 1']);
    plan('2');
    await settle();
    for (const at of [1, 2]) {
      workers[at]!.die();
      await settle();
    }
    expect(log).toEqual(['1 1', '2 died']);
    plan('3');
    await settle();
    workers[3]!.plans[0]!.onView(VIEW(3), true);
    expect(log.at(-1)).toBe('3 3');
  });

  it.each([
    ['never says hello', () => new FakeWorker(() => new Promise(() => {}))],
    ['says that it cannot', () => new FakeWorker(() => Promise.reject(new Error('404')))],
  ])('that %s is told as that, and tried again when it is asked again', async (_, broken) => {
    const { workers, log, plan } = bench((n) => (n === 0 ? broken() : new FakeWorker()));
    plan('1');
    await vi.advanceTimersByTimeAsync(LIMITS.startMs);
    expect(log).toEqual(['1 not-started']);
    expect(workers[0]!.isEnded).toBe(true);
    plan('2');
    await settle();
    workers[1]!.plans[0]!.onView(VIEW(2), true);
    expect(log).toEqual(['1 not-started', '2 2']);
  });

  it('that cannot be loaded is told as that', async () => {
    const { workers, log, plan } = bench(() => new FakeWorker(() => new Promise(() => {})));
    plan('1');
    await settle();
    workers[0]!.die();
    await settle();
    expect(log).toEqual(['1 not-started']);
  });

  it('that takes too long is ended, and says so', async () => {
    const { workers, log, plan } = bench();
    plan('1');
    await vi.advanceTimersByTimeAsync(LIMITS.planMs);
    expect([log, workers[0]!.isEnded]).toEqual([['1 too-long'], true]);
    plan('2');
    await settle();
    expect(workers[1]!.requests[0]!.recipe.title).toBe('2');
  });

  it('tells what it refuses in its own words', async () => {
    const { workers, failures, plan } = bench();
    plan('1');
    await settle();
    workers[0]!.plans[0]!.refuse(new Error('The file is empty.'));
    await settle();
    expect(failures).toEqual([{ why: 'refused', message: 'The file is empty.' }]);
  });

  it('stops when it is told to, and says nothing more of that', async () => {
    const { client, workers, log, plan } = bench();
    plan('1');
    await settle();
    client.stop();
    workers[0]!.plans[0]!.onView(VIEW(1), true);
    await settle();
    expect([log, workers[0]!.stops]).toEqual([[], 1]);
    plan('2');
    await settle();
    workers[0]!.plans[1]!.onView(VIEW(2), true);
    expect(log).toEqual(['2 2']);
  });

  it('breaks off a picture that is being traced for what is newer', async () => {
    const { workers, log, plan } = bench();
    plan('1');
    await settle();
    workers[0]!.plans[0]!.onStep('Tracing', 0.1);
    plan('2');
    await settle();
    expect(workers[0]!.requests).toHaveLength(2);
    workers[0]!.plans[0]!.onStep('Tracing', 0.2);
    expect(log).toEqual(['1 Tracing']);
  });

  it('leaves no question hanging when it falls over', async () => {
    const { client, workers, plan } = bench();
    plan('1');
    await settle();
    workers[0]!.isDeaf = true;
    const asked = expect(client.ask((api) => api.section(1, 0, 'level'))).rejects.toThrow('died');
    await settle();
    workers[0]!.die();
    await asked;
  });
});
