import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { ArtworkPart } from '../../core/job/index.js';
import type { CutInPart, ExportFormat, PlanReport, Replacement, SheetToFreeze } from '../../core/job/plan/index.js';
import { Problem } from '../problem.js';
import type { Answer, PlanJob, Task } from './tasks.js';

/** No task may hold a worker longer than this. */
const LONGEST_MS = 60_000;
/** Nor may reading one file. */
const READING_MS = 20_000;

/** Core's computations, off the event loop: a small pool of worker threads, each with its own planner and caches. */
export class Compute {
  readonly #pool = new Piscina({
    filename: new URL('./start-worker.mjs', import.meta.url).href,
    // Both from the start: a thread that is only made when it is needed is made while others wait.
    minThreads: 2,
    maxThreads: 2,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 1200 },
  });

  /** The change that adds a part to a job; `job.sources` holds its file. @throws Problem 422 with the reader's sentence when it cannot be read */
  async add(job: PlanJob, part: ArtworkPart): Promise<Replacement> {
    return ((await this.#run({ do: 'add', job, part }, READING_MS)) as Extract<Answer, { ok: 'changed' }>).change;
  }

  /** The change that puts a part in another's place. @throws Problem 422 when it cannot be read */
  async replace(job: PlanJob, partId: string, part: ArtworkPart): Promise<Replacement> {
    return ((await this.#run({ do: 'replace', job, partId, part }, READING_MS)) as Extract<Answer, { ok: 'changed' }>).change;
  }

  /** Opens a font to see that it can be read, and gives its name. @throws Problem 422 when it cannot */
  async fontName(fileName: string, bytes: Uint8Array): Promise<string> {
    return ((await this.#run({ do: 'font', fileName, bytes }, READING_MS)) as Extract<Answer, { ok: 'font' }>).name;
  }

  async plan(job: PlanJob, onProgress?: (done: number) => void, signal?: AbortSignal): Promise<PlanReport> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', (done: number) => onProgress?.(done));
    try {
      const answer = await this.#run({ do: 'plan', job, progress: port2 }, LONGEST_MS, signal, [port2]);
      return (answer as Extract<Answer, { ok: 'plan' }>).report;
    } finally {
      port1.close();
    }
  }

  /** One layer, or the whole build, as a file. @throws Problem 422 when there is no such layer */
  async exportBuild(job: PlanJob, filmId: string | null, format: ExportFormat): Promise<Uint8Array> {
    return ((await this.#run({ do: 'export', job, filmId, format }, LONGEST_MS)) as Extract<Answer, { ok: 'file' }>).bytes;
  }

  /** A sheet of a job's plan, ready to be kept, and what all its layers come to. @throws Problem 422 when it has no such sheet, or a blocker stops the job */
  async sheet(job: PlanJob, sheet: string): Promise<Extract<Answer, { ok: 'sheet' }>> {
    return (await this.#run({ do: 'sheet', job, sheet }, LONGEST_MS)) as Extract<Answer, { ok: 'sheet' }>;
  }

  /** The same as an HP-GL file. @throws Problem 422 when the job has no such sheet */
  async hpgl(job: PlanJob, sheet: string): Promise<Uint8Array> {
    return ((await this.#run({ do: 'hpgl', job, sheet }, LONGEST_MS)) as Extract<Answer, { ok: 'file' }>).bytes;
  }

  /** A sheet of what is not whole on another. @throws Problem 422 when all is */
  async rest(part: CutInPart): Promise<SheetToFreeze> {
    return ((await this.#run({ do: 'rest', part }, LONGEST_MS)) as Extract<Answer, { ok: 'sheet' }>).sheet;
  }

  async close(): Promise<void> {
    await this.#pool.destroy();
  }

  async #run(task: Task, timeoutMs: number, signal?: AbortSignal, transferList?: readonly MessagePort[] | readonly unknown[]): Promise<Answer> {
    const timeout = AbortSignal.timeout(timeoutMs);
    const either = signal ? AbortSignal.any([signal, timeout]) : timeout;
    let answer: Answer;
    try {
      answer = (await this.#pool.run(task, { signal: either, ...(transferList ? { transferList: transferList as never } : {}) })) as Answer;
    } catch (error) {
      if (timeout.aborted) throw new Problem(422, 'too-slow', `This took longer than ${timeoutMs / 1000} seconds and was stopped. Simplify the artwork and try again.`);
      throw error;
    }
    if (answer.ok === false) throw new Problem(422, answer.code, answer.message, answer.path);
    return answer;
  }
}
