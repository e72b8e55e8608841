import type { JobSoFar, RepeatWish } from '../../core/plan/index.js';
import type { ArtworkPart } from '../../core/stations/artwork/index.js';
import type { Recipe, RecipePatch } from '../../core/recipe/index.js';
import type { Shop } from '../../core/shop/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';
import type { PlanRequest, PlanWorkerApi } from './worker-api.js';

/** What a job is planned from. */
export interface PlanInput extends JobSoFar {
  readonly jobId: string;
  readonly recipe: Recipe;
  readonly shop: Shop;
  readonly sources: ReadonlyMap<string, Uint8Array>;
  readonly weeding?: LearnedWeeding | undefined;
}

/** Why there is no plan: the worker could not be started, fell over, took too long, or says what is wrong with the job. */
export type PlanFailure =
  { readonly why: 'not-started' | 'died' | 'too-long' } | { readonly why: 'refused'; readonly message: string };

export interface PlanListener {
  readonly show: (view: PlanView, finished: boolean) => void;
  readonly step: (doing: string, done: number) => void;
  readonly fail: (failure: PlanFailure) => void;
}

/** A worker that was started: what it does, and how to be rid of it. */
export interface StartedWorker {
  readonly api: PlanWorkerApi;
  readonly terminate: () => void;
  /** Rejects when it cannot be loaded or falls over; never resolves. */
  readonly failed: Promise<never>;
}

export interface PlanLimits {
  /** A worker that has not said hello by then cannot be started. */
  readonly startMs: number;
  /** A plan that takes longer is given up, or the page would wait for ever. */
  readonly planMs: number;
  /** A worker that is told to stop and has not answered by then is ended. */
  readonly graceMs: number;
}

export const PLAN_LIMITS: PlanLimits = { startMs: 30_000, planMs: 60_000, graceMs: 400 };

interface Worker extends Omit<StartedWorker, 'failed'> {
  /** Told when it falls over: whatever is waited for from it. (To race each answer with one promise that lives as long as the worker would keep them all.) */
  readonly waiting: Set<(failure: Failure) => void>;
  readonly ready: Promise<void>;
  isReady: boolean;
  /** The job whose files it holds, and which of them. */
  jobId: string | null;
  readonly known: Set<string>;
}

interface Asked {
  readonly input: PlanInput;
  readonly listener: PlanListener;
}

interface Current extends Asked {
  readonly id: number;
  isBuilt: boolean;
  /** A picture is being traced: that takes long enough to be overtaken in the middle. */
  isTracing: boolean;
}

class Failure extends Error {
  constructor(readonly failure: PlanFailure) {
    super(failure.why);
  }
}

/**
 * The page's one planning worker: it is asked for the newest plan of the job that is looked at, started when it is needed, started anew when it
 * fell over, and broken off when its job is left. Knows no page and no thread.
 */
export class PlanClient {
  readonly #start: () => StartedWorker;
  readonly #limits: PlanLimits;
  #worker: Worker | null = null;
  #next: Asked | null = null;
  #current: Current | null = null;
  #count = 0;
  /** Settles once a worker that was told to stop has stopped, or is ended. */
  #stopping: Promise<void> = Promise.resolve();

  constructor(start: () => StartedWorker, limits: PlanLimits = PLAN_LIMITS) {
    this.#start = start;
    this.#limits = limits;
  }

  /**
   * Asks for a plan. While the worker has not yet shown the build of the one before, only the newest request waits: a hand that moves faster than
   * the build then sees every build the worker can make, instead of none. Tracing alone is broken off, and the plan of another job.
   */
  plan(input: PlanInput, listener: PlanListener): void {
    this.#next = { input, listener };
    const { jobId } = this.#current?.input ?? {};
    if (jobId !== undefined && jobId !== input.jobId) this.#breakOff();
    if (!this.#current || this.#current.isBuilt || this.#current.isTracing) void this.#send();
  }

  /** The page looks at the job no more. */
  leave(jobId: string): void {
    if (this.#next?.input.jobId === jobId) this.#next = null;
    if (this.#current?.input.jobId === jobId) this.#breakOff();
  }

  /** Gives up what is being planned; the last picture stays. */
  stop(): void {
    this.#next = null;
    this.#breakOff();
  }

  /** Asks something else of the worker. @throws when it cannot be started or falls over, and what it refuses */
  async ask<T>(question: (api: PlanWorkerApi) => Promise<T>): Promise<T> {
    const worker = await this.#ready();
    return orFailure(worker, question(worker.api));
  }

  /** The change that adds a part to a job's design; `input.sources` holds its file. @throws with a sentence when it cannot be read */
  async adding(input: PlanInput, part: ArtworkPart): Promise<RecipePatch> {
    const worker = await this.#ready();
    return orFailure(worker, worker.api.adding(this.#requestFor(worker, input, 0), part));
  }

  /** The change that repeats some parts of a job's design. @throws with a sentence when a copy cannot be read */
  async repeating(input: PlanInput, wish: RepeatWish): Promise<RecipePatch> {
    const worker = await this.#ready();
    return orFailure(worker, worker.api.repeating(this.#requestFor(worker, input, 0), wish));
  }

  #breakOff(): void {
    const [worker, current] = [this.#worker, this.#current];
    this.#current = null;
    // One that is still being started has been sent nothing yet.
    if (!worker?.isReady || !current) return;
    const stopped = worker.api.stop();
    this.#stopping = new Promise((resolve) => {
      const grace = setTimeout(() => {
        // In the middle of something that it cannot be called from.
        this.#end(worker);
        resolve();
      }, this.#limits.graceMs);
      stopped.then(
        () => {
          clearTimeout(grace);
          resolve();
        },
        () => {},
      );
    });
  }

  async #send(): Promise<void> {
    const asked = this.#next;
    if (!asked) return;
    this.#next = null;
    const mine: Current = { ...asked, id: (this.#count += 1), isBuilt: false, isTracing: false };
    this.#current = mine;
    const isMine = () => this.#current === mine;
    try {
      await this.#stopping;
      if (isMine()) await this.#planned(mine, isMine, true);
    } catch (error) {
      if (isMine())
        mine.listener.fail(
          error instanceof Failure ? error.failure : { why: 'refused', message: (error as Error).message },
        );
    } finally {
      if (isMine()) {
        this.#current = null;
        void this.#send();
      }
    }
  }

  async #planned(mine: Current, isMine: () => boolean, mayTryAgain: boolean): Promise<void> {
    const worker = await this.#ready();
    if (!isMine()) return;
    const onView = (view: PlanView, finished: boolean) => {
      if (!isMine()) return;
      mine.listener.show(view, finished);
      mine.isBuilt = true;
      // What waited goes now; this plan's later stages end at the worker's next breath.
      if (!finished) void this.#send();
    };
    const onStep = (doing: string, done: number) => {
      if (!isMine()) return;
      mine.isTracing = true;
      mine.listener.step(doing, done);
    };
    let tooLong: ReturnType<typeof setTimeout> | undefined;
    const limit = new Promise<never>((_, reject) => {
      tooLong = setTimeout(() => {
        this.#end(worker);
        reject(new Failure({ why: 'too-long' }));
      }, this.#limits.planMs);
    });
    try {
      await Promise.race([
        orFailure(worker, worker.api.plan(this.#requestFor(worker, mine.input, mine.id), onView, onStep)),
        limit,
      ]);
    } catch (error) {
      // Once more with a new worker: it may have been something that was left of another job.
      if (!(error instanceof Failure) || error.failure.why !== 'died' || !mayTryAgain || !isMine()) throw error;
      await this.#planned(mine, isMine, false);
    } finally {
      clearTimeout(tooLong);
    }
  }

  #requestFor(
    worker: Worker,
    { jobId, recipe, shop, taken, lies, builtWith, lone, weeding, sources }: PlanInput,
    id: number,
  ): PlanRequest {
    if (worker.jobId !== jobId) worker.known.clear();
    worker.jobId = jobId;
    const fresh = new Map([...sources].filter(([source]) => !worker.known.has(source)));
    for (const source of fresh.keys()) worker.known.add(source);
    return {
      id,
      jobId,
      recipe,
      shop,
      taken,
      lies,
      ...(builtWith ? { builtWith } : {}),
      ...(lone ? { lone } : {}),
      weeding,
      sources: fresh,
    };
  }

  /** The worker, once it has said hello. @throws Failure */
  async #ready(): Promise<Worker> {
    const worker = (this.#worker ??= this.#started());
    await worker.ready;
    return worker;
  }

  #started(): Worker {
    const { api, terminate, failed: fell } = this.#start();
    const failed = fell.catch((): never => {
      this.#end(worker);
      const failure = new Failure({ why: worker.isReady ? 'died' : 'not-started' });
      for (const reject of worker.waiting) reject(failure);
      throw failure;
    });
    // When nobody waits for anything, the next one to ask gets a new worker.
    failed.catch(() => {});
    let late: ReturnType<typeof setTimeout> | undefined;
    const tooLate = new Promise<never>((_, reject) => {
      late = setTimeout(() => {
        this.#end(worker);
        reject(new Failure({ why: 'not-started' }));
      }, this.#limits.startMs);
    });
    const hello = api.hello().catch((): never => {
      this.#end(worker);
      throw new Failure({ why: 'not-started' });
    });
    const ready = Promise.race([hello, failed, tooLate])
      .then(() => void (worker.isReady = true))
      .finally(() => clearTimeout(late));
    const worker: Worker = { api, terminate, waiting: new Set(), ready, isReady: false, jobId: null, known: new Set() };
    return worker;
  }

  #end(worker: Worker): void {
    worker.terminate();
    if (this.#worker === worker) this.#worker = null;
  }
}

/** What a worker answers, or that it fell over. */
function orFailure<T>(worker: Worker, answer: Promise<T>): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    worker.waiting.add(reject);
    const done = () => void worker.waiting.delete(reject);
    answer.then(resolve, reject).then(done, done);
  });
}
