import { createHash } from 'node:crypto';
import { availableParallelism } from 'node:os';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { ArtworkPart } from '../../core/stations/artwork/index.js';
import type { BatchView, BetterView, HandMove, SheetMade } from '../../core/batch/index.js';
import type { Pin, LayWish } from '../../core/laying/index.js';
import type { CutInPart, RestToFreeze } from '../../core/stations/cut/index.js';
import type { PrintFormat } from '../../core/print/index.js';
import type { JobPrint, PlanReport, PrintOn, Replacement } from '../../core/plan/index.js';
import { count } from '../../core/words/index.js';
import { Problem } from '../problem.js';
import { sampleJob } from './sample-job.js';
import { FLAG } from './kernel-guard.js';
import { SharedWork } from './shared-work.js';
import type { BatchSearch } from './planned-batch.js';
import type { Answer, BatchTask, PlanJob, Task } from './tasks.js';
import { TooLong, WorkQueue, type Lane } from './work-queue.js';

/** No task may hold a worker longer than this. */
const LONGEST_MS = 60_000;
/** Many jobs together take longer. */
const LONGEST_BATCH_MS = 600_000;
/** Nor may reading one file. */
const READING_MS = 20_000;
/** A worker that is told to stop and has not stopped by itself is ended after this. */
const GRACE_MS = 1500;
/** A short task keeps the next one waiting for at most so long, */
const OVERDUE_MS = 400;
/** and takes turns with what is long once it has taken so long itself. */
const LONG_MS = 1500;
/** After so long other long work has its turn. */
const SLICE_MS = 1000;
/** A file larger than this is not soon read. */
const LARGE_BYTES = 60_000;
/** Reports of plans that are answered without planning. */
const KNOWN_PLANS = 100;
/** The same of batches. */
const KNOWN_BATCHES = 20;

/** Plans at once: one processor is left to answering pages. */
const LONG_AT_ONCE = Math.max(1, availableParallelism() - 1);
/** Threads: long work that waits for its next turn keeps its own, and one is kept for what is short. */
const AT_ONCE = LONG_AT_ONCE + 4;

/** What a thread of the pool runs. */
const START_WORKER = new URL('./start-worker.mjs', import.meta.url);

/** How far work is, 0 to 1; or what is worked on instead, while it waits for its turn. */
export type Told = { readonly done: number } | { readonly waitsFor: readonly string[] };

/** What a search has found on the way, or what it waits for. */
export type SearchTold = BetterView | { readonly waitsFor: readonly string[] };

/** A job that was planned takes about as long the next time; so many are remembered. */
const KNOWN_SLOW = 200;

interface RunHow {
  readonly limitMs: number;
  readonly signal?: AbortSignal | undefined;
  readonly transferList?: readonly unknown[];
  readonly onWait?: (waitsFor: readonly string[]) => void;
}

/** What a job is planned from, without the bytes of its files, which are read when they are needed. */
export interface PlanSource extends Omit<PlanJob, 'sources'> {
  /** Of the shop it is planned with. */
  readonly shopRevision: number;
  readonly loadSources: () => Promise<ReadonlyMap<string, Uint8Array>>;
}

/** What a batch is planned from. */
export interface BatchSource {
  readonly wish: LayWish;
  /** A job that is cut alone. */
  readonly isAlone: boolean;
  readonly jobs: readonly { readonly jobId: string; readonly source: PlanSource }[];
  readonly shop: PlanJob['shop'];
}

/** Core's computations, off the event loop: a small pool of worker threads, each with its own planner and caches. */
export class Compute {
  readonly #pool: Piscina;
  readonly #queue = new WorkQueue({
    longAtOnce: LONG_AT_ONCE,
    atOnce: AT_ONCE,
    overdueMs: OVERDUE_MS,
    longMs: LONG_MS,
    sliceMs: SLICE_MS,
  });
  readonly #plans = new SharedWork<PlanReport, Told>(KNOWN_PLANS);
  readonly #batches = new SharedWork<BatchView, Told>(KNOWN_BATCHES);
  /** Drawings of which a plan took long the last time. */
  readonly #slow = new Set<string>();
  /** Searches for less film that are under way, by batch: what ends them. */
  readonly #searches = new Map<string, Int32Array>();
  /** Who wants to see what they find on the way, by batch. */
  readonly #watching = new Map<string, Set<(found: SearchTold) => void>>();

  constructor(startWorker = START_WORKER) {
    this.#pool = new Piscina({
      filename: startWorker.href,
      // From the start: a thread that is only made when it is needed is made while others wait. More are made when a server is warmed up, and stay.
      minThreads: LONG_AT_ONCE + 1,
      idleTimeout: Infinity,
      maxThreads: AT_ONCE,
      resourceLimits: { maxOldGenerationSizeMb: 1200 },
    });
  }

  /** The change that adds a part to a job; `file` is what it is read from. @throws Problem 422 with the reader's sentence when it cannot be read */
  async add(source: PlanSource, part: ArtworkPart, file: NewFile, signal?: AbortSignal): Promise<Replacement> {
    const job = await withFile(source, file);
    return (
      (await this.#run({ do: 'add', job, part }, this.#laneFor(job), { limitMs: READING_MS, signal })) as Extract<
        Answer,
        { ok: 'changed' }
      >
    ).change;
  }

  /** The change that puts a part in another's place. @throws Problem 422 when it cannot be read */
  async replace(
    source: PlanSource,
    partId: string,
    part: ArtworkPart,
    file: NewFile,
    signal?: AbortSignal,
  ): Promise<Replacement> {
    const job = await withFile(source, file);
    return (
      (await this.#run({ do: 'replace', job, partId, part }, this.#laneFor(job), {
        limitMs: READING_MS,
        signal,
      })) as Extract<Answer, { ok: 'changed' }>
    ).change;
  }

  /** Opens a font to see that it can be read, and gives its name. @throws Problem 422 when it cannot */
  async fontName(fileName: string, bytes: Uint8Array, signal?: AbortSignal): Promise<string> {
    return (
      (await this.#run({ do: 'font', fileName, bytes }, 'short', { limitMs: READING_MS, signal })) as Extract<
        Answer,
        { ok: 'font' }
      >
    ).name;
  }

  /** A small PNG of a job's whole design, made when there is nothing else to do; empty when there is nothing to see. @throws Problem 422 when it takes too long */
  async designPicture(source: PlanSource, signal?: AbortSignal): Promise<Uint8Array> {
    const job = await loaded(source);
    return (
      (await this.#run({ do: 'picture', job }, 'idle', { limitMs: READING_MS, signal })) as Extract<
        Answer,
        { ok: 'file' }
      >
    ).bytes;
  }

  /** The figures of a job's plan: made once, however many ask, and given up when all who asked have left. */
  async plan(
    source: PlanSource,
    { onProgress, signal }: { readonly onProgress?: (told: Told) => void; readonly signal?: AbortSignal } = {},
  ): Promise<PlanReport> {
    return this.#plans.get(
      nameOf(source),
      async (stop, tell) => {
        const job = await loaded(source);
        const answer = await telling<Answer>(
          (done) => tell({ done }),
          (progress) =>
            this.#run({ do: 'plan', job, progress }, this.#laneFor(job), {
              limitMs: LONGEST_MS,
              signal: stop,
              transferList: [progress],
              onWait: (waitsFor) => tell({ waitsFor }),
            }),
        );
        return (answer as Extract<Answer, { ok: 'plan' }>).report;
      },
      { onProgress, signal },
    );
  }

  /** A batch as the page shows it: planned once, however many ask, and given up when all who asked have left. */
  async batch(
    source: BatchSource,
    { onProgress, signal }: { readonly onProgress?: (told: Told) => void; readonly signal?: AbortSignal } = {},
  ): Promise<BatchView> {
    return this.#batches.get(
      nameOfBatch(source),
      async (stop, tell) => {
        const batch = await loadedBatch(source);
        const answer = await telling<Answer>(
          (done) => tell({ done }),
          (progress) =>
            this.#run({ do: 'batch', batch, progress }, 'long', {
              limitMs: LONGEST_BATCH_MS,
              signal: stop,
              transferList: [progress],
              onWait: (waitsFor) => tell({ waitsFor }),
            }),
        );
        return (answer as Extract<Answer, { ok: 'batch' }>).view;
      },
      { onProgress, signal },
    );
  }

  /** A sheet of a batch, ready to be kept. @throws Problem 422 when it has no such sheet (any more) */
  async sheet(source: BatchSource, sheet: string, signal?: AbortSignal): Promise<SheetMade> {
    return (await this.#run({ do: 'sheet', batch: await loadedBatch(source), sheet }, 'long', {
      limitMs: LONGEST_BATCH_MS,
      signal,
    })) as Extract<Answer, { ok: 'sheet' }>;
  }

  /** Where a copy comes to lie that a hand has moved. @throws Problem 422 when it cannot lie there */
  async move(source: BatchSource, move: HandMove, signal?: AbortSignal): Promise<Pin> {
    return (
      (await this.#run({ do: 'move', batch: await loadedBatch(source), move }, 'long', {
        limitMs: LONGEST_BATCH_MS,
        signal,
      })) as Extract<Answer, { ok: 'pin' }>
    ).pin;
  }

  /** Looks for less film for a batch, for so long or until it is enough; what was found by then is kept. A search of it that is under way ends. */
  async search(id: string, source: BatchSource, seconds: number, signal?: AbortSignal): Promise<BatchSearch> {
    this.searchedEnough(id);
    const enough = new Int32Array(new SharedArrayBuffer(4));
    this.#searches.set(id, enough);
    try {
      const batch = await loadedBatch(source);
      const tell = (found: SearchTold) => this.#watching.get(id)?.forEach((watcher) => watcher(found));
      const tellWait = (waitsFor: readonly string[]) => tell({ waitsFor });
      return (await telling<Answer, BetterView>(tell, (better) =>
        this.#run({ do: 'search', batch, seconds, enough, better }, 'long', {
          limitMs: LONGEST_BATCH_MS,
          signal,
          transferList: [better],
          onWait: tellWait,
        }),
      )) as Extract<Answer, { ok: 'searched' }>;
    } finally {
      if (this.#searches.get(id) === enough) this.#searches.delete(id);
    }
  }

  /** Tells what searches for a batch find on the way, until the function that it gives is called. */
  watchSearch(id: string, watcher: (found: SearchTold) => void): () => void {
    const watchers = this.#watching.get(id) ?? new Set();
    this.#watching.set(id, watchers.add(watcher));
    return () => {
      watchers.delete(watcher);
      if (watchers.size === 0 && this.#watching.get(id) === watchers) this.#watching.delete(id);
    };
  }

  /** What a search for a batch has found is enough. */
  searchedEnough(id: string): void {
    const enough = this.#searches.get(id);
    if (enough) Atomics.store(enough, 0, 1);
  }

  /** A sheet of a batch as an HP-GL file. @throws Problem 422 as sheet() does */
  async hpgl(source: BatchSource, sheet: string, signal?: AbortSignal): Promise<Uint8Array> {
    return (
      (await this.#run({ do: 'hpgl', batch: await loadedBatch(source), sheet }, 'long', {
        limitMs: LONGEST_BATCH_MS,
        signal,
      })) as Extract<Answer, { ok: 'file' }>
    ).bytes;
  }

  /** One layer, or the whole build, as a file. @throws Problem 422 when there is no such layer */
  async exportBuild(
    source: PlanSource,
    filmId: string | null,
    format: PrintFormat,
    signal?: AbortSignal,
  ): Promise<Uint8Array> {
    const job = await loaded(source);
    return (
      (await this.#run({ do: 'export', job, filmId, format }, 'long', { limitMs: LONGEST_MS, signal })) as Extract<
        Answer,
        { ok: 'file' }
      >
    ).bytes;
  }

  /** Something of a job at true scale, to be printed. @throws Problem 422 when there is nothing of it */
  async printJob(
    source: PlanSource,
    { what, on, filmId }: { readonly what: JobPrint; readonly on: PrintOn; readonly filmId: string | null },
    signal?: AbortSignal,
  ): Promise<Uint8Array> {
    const job = await loaded(source);
    return (
      (await this.#run({ do: 'print', job, what, on, filmId }, 'long', { limitMs: LONGEST_MS, signal })) as Extract<
        Answer,
        { ok: 'file' }
      >
    ).bytes;
  }

  /** A sheet of what is not whole on another. @throws Problem 422 when all is */
  async rest(part: CutInPart, signal?: AbortSignal): Promise<RestToFreeze> {
    return (
      (await this.#run({ do: 'rest', part }, 'short', { limitMs: LONGEST_MS, signal })) as Extract<
        Answer,
        { ok: 'rest' }
      >
    ).sheet;
  }

  /** Plans something small in every thread that is there, so that none is cold when a page first waits for it. */
  async warmUp(shop: PlanJob['shop']): Promise<void> {
    const job = sampleJob(shop);
    const stopFlag = () => new Int32Array(new SharedArrayBuffer(4));
    await Promise.all(
      Array.from({ length: AT_ONCE - 1 }, () => this.#pool.run({ do: 'plan', job, stopFlag: stopFlag() })),
    );
  }

  async close(): Promise<void> {
    await this.#pool.destroy();
  }

  async #run(task: Task, lane: Lane, { limitMs, signal, transferList, onWait }: RunHow): Promise<Answer> {
    const stopFlag = new Int32Array(new SharedArrayBuffer(4));
    const hold = (isHeld: boolean) => {
      // A task that was told to stop is not told anything else.
      const [from, to] = isHeld ? [FLAG.go, FLAG.hold] : [FLAG.hold, FLAG.go];
      Atomics.compareExchange(stopFlag, 0, from, to);
      Atomics.notify(stopFlag, 0);
    };
    let answer: Answer;
    try {
      const start = async (stop: AbortSignal) => {
        const begun = performance.now();
        try {
          return await this.#inThread(task, { stop, stopFlag, transferList });
        } finally {
          if ('job' in task) this.#remember(task.job, performance.now() - begun);
        }
      };
      answer = await this.#queue.run(
        { lane, name: nameOfWork(task), limitMs, start, hold, ...(onWait ? { onWait } : {}) },
        signal,
      );
    } catch (error) {
      if (error instanceof TooLong)
        throw new Problem(
          422,
          'too-slow',
          `This took longer than ${limitMs / 1000} seconds and was stopped. Simplify the artwork and try again.`,
        );
      throw error;
    }
    if (answer.ok === false) throw new Problem(422, answer.code, answer.message, answer.path);
    return answer;
  }

  /** What is small is soon done, as a rule; if not, it keeps nobody waiting for long, and the next time it is known. */
  #laneFor(job: PlanJob): Lane {
    const bytes = [...job.sources.values()].reduce((sum, source) => sum + source.length, 0);
    return bytes <= LARGE_BYTES && !this.#slow.has(drawingsOf(job)) ? 'short' : 'long';
  }

  #remember(job: PlanJob, tookMs: number): void {
    const name = drawingsOf(job);
    this.#slow.delete(name);
    if (tookMs < LONG_MS) return;
    this.#slow.add(name);
    if (this.#slow.size > KNOWN_SLOW) this.#slow.delete(this.#slow.values().next().value!);
  }

  /** Asked to stop, a worker does so at its next breath and keeps what it knows; one that does not breathe is ended. */
  async #inThread(
    task: Task,
    {
      stop,
      stopFlag,
      transferList = [],
    }: {
      readonly stop: AbortSignal;
      readonly stopFlag: Int32Array;
      readonly transferList?: readonly unknown[] | undefined;
    },
  ): Promise<Answer> {
    const end = new AbortController();
    let grace: ReturnType<typeof setTimeout> | undefined;
    const onStop = () => {
      Atomics.store(stopFlag, 0, FLAG.stop);
      Atomics.notify(stopFlag, 0);
      grace = setTimeout(() => end.abort(), GRACE_MS);
    };
    stop.addEventListener('abort', onStop, { once: true });
    try {
      return (await this.#pool.run(
        { ...task, stopFlag },
        { signal: end.signal, transferList: transferList as never },
      )) as Answer;
    } catch (error) {
      if (Atomics.load(stopFlag, 0) !== FLAG.kernelFailed) throw error;
      return {
        ok: false,
        code: 'kernel-failed',
        message: 'This artwork needs more memory than there is. Simplify it, or take a part of it, and try again.',
      };
    } finally {
      clearTimeout(grace);
      stop.removeEventListener('abort', onStop);
    }
  }
}

/** A file that is not kept yet. */
export interface NewFile {
  readonly id: string;
  readonly bytes: Uint8Array;
}

async function loaded({
  loadSources,
  recipe,
  shop,
  taken,
  lies,
  builtWith,
  weeding,
  recorded,
  lone,
}: PlanSource): Promise<PlanJob> {
  return {
    recipe,
    shop,
    taken,
    lies,
    ...(builtWith ? { builtWith } : {}),
    ...(lone ? { lone } : {}),
    weeding,
    recorded,
    sources: await loadSources(),
  };
}

async function loadedBatch(source: BatchSource): Promise<BatchTask> {
  const jobs: BatchTask['jobs'][number][] = [];
  for (const { jobId, source: one } of source.jobs) {
    const { shop: _, ...job } = await loaded(one);
    jobs.push({ jobId, job });
  }
  return { name: nameOfBatch(source), jobs, shop: source.shop, wish: source.wish, isAlone: source.isAlone };
}

/** Work in a thread that tells how far it is, or what it has found. */
async function telling<T, Told = number>(
  tell: (told: Told) => void,
  work: (progress: MessagePort) => Promise<T>,
): Promise<T> {
  const { port1, port2 } = new MessageChannel();
  port1.on('message', tell);
  try {
    return await work(port2);
  } finally {
    port1.close();
  }
}

/** The same name for the same batch: all that it is planned from. What is weeded or judged meanwhile makes it no other. */
export function nameOfBatch({ jobs, wish, isAlone }: BatchSource): string {
  return createHash('sha256')
    .update(
      JSON.stringify([
        wish,
        isAlone,
        jobs.map(({ jobId, source: { recipe, shopRevision, taken, lies, builtWith, weeding } }) => [
          jobId,
          recipe,
          shopRevision,
          taken,
          lies,
          builtWith,
          weeding,
        ]),
      ]),
    )
    .digest('hex');
}

async function withFile(source: PlanSource, { id, bytes }: NewFile): Promise<PlanJob> {
  const job = await loaded(source);
  return { ...job, sources: new Map([...job.sources, [id, bytes]]) };
}

/** A name of all drawings of a job. */
function drawingsOf({ sources }: Pick<PlanJob, 'sources'>): string {
  return [...sources.keys()].sort().join(' ');
}

/** What somebody waits for, as it is said. */
function nameOfWork(task: Task): string {
  if ('batch' in task)
    return `${task.do === 'search' ? 'a search for less film' : 'a batch'} of ${count(task.batch.jobs.length, 'job')}`;
  return 'job' in task ? `a plan of “${task.job.recipe.title}”` : 'a file that is read';
}

/** The same name for the same plan: files never change under their ids, which the recipe names. */
function nameOf({ recipe, shopRevision, taken, lies, builtWith, weeding, recorded, lone }: PlanSource): string {
  return createHash('sha256')
    .update(JSON.stringify([recipe, shopRevision, taken, lies, builtWith, weeding, recorded, lone]))
    .digest('hex');
}
