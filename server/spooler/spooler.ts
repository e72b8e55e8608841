import { setTimeout as sleep } from 'node:timers/promises';
import type { CutterProfile } from '../../core/job/index.js';
import { ENDED, type Run, type RunProgress, type RunState } from '../../core/records/index.js';
import { Problem } from '../problem.js';
import type { NewRun, RunStore, StoredProgram } from '../stores/run-store.js';
import { CutterLink, CutterUnreachable, type CutterReport } from './cutter-link.js';
import { lengthShares, scriptFrom } from './script.js';

type Listener = (progress: RunProgress) => void;

interface ActiveRun {
  readonly id: string;
  wish: 'go' | 'pause' | 'cancel';
  readonly program: StoredProgram;
  readonly shares: Float64Array;
  progress: RunProgress;
  readonly done: Promise<void>;
}

const POLL_MS = 40;
const RETRY_MS = 300;
/** Left free in the cutter's buffer, so that a request never waits behind a cut. */
const RESERVE_BYTES = 256;

const FAULTS: Readonly<Partial<Record<CutterReport['state'], string>>> = {
  'out-of-film': 'The cutter has run out of film. Load more, clear the fault at the cutter, and it goes on where it stopped.',
  jammed: 'The film is jammed. Free it, clear the fault at the cutter, and it goes on where it stopped.',
};

/**
 * Sends runs to the cutter, one at a time, and keeps track of how far each got by the cutter's own count of coordinate pairs. When
 * the cable comes out it waits, and goes on with exactly the pair that is next: nothing is cut twice and nothing is missed.
 */
export class Spooler {
  readonly #listeners = new Set<Listener>();
  #active: ActiveRun | null = null;
  #closing = false;

  constructor(
    private readonly runs: RunStore,
    private readonly cutter: () => Promise<CutterProfile>,
  ) {}

  /** Runs that were under way when the server stopped wait to be resumed. */
  async recover(): Promise<void> {
    for (const run of await this.runs.open()) {
      await this.runs.setProgress(run.id, {
        state: 'interrupted',
        message: 'The server was restarted during this cut. If the sheet still lies in the cutter as it was, resume.',
        pairsDone: run.pairsDone,
        actualSeconds: run.actualSeconds,
      });
    }
  }

  /** @throws Problem 409 while another run is under way */
  async start(input: NewRun): Promise<Run> {
    await this.#mustBeFree();
    const run = await this.runs.create(input);
    this.#begin(run, input.program);
    return run;
  }

  /** @throws Problem 409 when the run has ended or another is under way */
  async resume(id: string): Promise<void> {
    if (this.#active?.id === id) {
      this.#active.wish = 'go';
      return;
    }
    const run = await this.#unended(id);
    await this.#mustBeFree(id);
    const { program } = await this.runs.program(id);
    this.#begin(run, program);
  }

  /** @throws Problem 409 when the run is not under way */
  pause(id: string): void {
    if (this.#active?.id !== id) throw new Problem(409, 'run-not-active', 'This cut is not under way.');
    this.#active.wish = 'pause';
  }

  async cancel(id: string): Promise<void> {
    if (this.#active?.id === id) {
      this.#active.wish = 'cancel';
      await this.#active.done;
      return;
    }
    const run = await this.#unended(id);
    await this.runs.setProgress(id, { state: 'cancelled', message: 'You cancelled it.', pairsDone: run.pairsDone, actualSeconds: run.actualSeconds });
  }

  /** The latest progress of the run under way, if it is this one. */
  progressOf(id: string): RunProgress | null {
    return this.#active?.id === id ? this.#active.progress : null;
  }

  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  async close(): Promise<void> {
    this.#closing = true;
    await this.#active?.done;
  }

  async #unended(id: string): Promise<Run> {
    const run = await this.runs.get(id);
    if (ENDED.includes(run.state)) throw new Problem(409, 'run-ended', 'This cut has ended.');
    return run;
  }

  async #mustBeFree(except?: string): Promise<void> {
    const open = await this.runs.open();
    if (this.#active || open.some((run) => run.id !== except)) {
      throw new Problem(409, 'cutter-busy', 'Another cut is under way or waits to be resumed: finish or cancel it first.');
    }
  }

  #begin(run: Run, program: StoredProgram): void {
    const progress: RunProgress = {
      runId: run.id,
      state: 'cutting',
      message: '',
      pairsDone: run.pairsDone,
      pairsTotal: run.pairsTotal,
      xMm: 0,
      yMm: 0,
      knifeDown: false,
      secondsLeft: run.estimateSeconds,
    };
    let finish = () => {};
    const done = new Promise<void>((resolve) => (finish = resolve));
    const active: ActiveRun = { id: run.id, wish: 'go', program, shares: lengthShares(program), progress, done };
    this.#active = active;
    void this.#drive(active, run)
      .catch((error: unknown) => {
        console.error(error);
        return this.#tell(active, { state: 'failed', message: 'Something went wrong while sending; the sheet must be cut again.' }, null);
      })
      .finally(() => {
        this.#active = null;
        finish();
      });
  }

  async #drive(active: ActiveRun, run: Run): Promise<void> {
    for (;;) {
      let link: CutterLink | null = null;
      try {
        const { host, port } = await this.cutter();
        link = await CutterLink.open(host, port);
        await this.#converse(active, run, link);
        return;
      } catch (error) {
        if (!(error instanceof CutterUnreachable)) throw error;
        if (active.wish === 'cancel') {
          await this.#tell(active, { state: 'cancelled', message: 'You cancelled it while the cutter could not be reached; look at the sheet before using it.' }, null);
          return;
        }
        if (this.#closing) return;
        await this.#tell(active, { state: 'waiting', message: 'The cutter does not answer. Check its cable and power; the cut goes on by itself when it is back.' }, null);
        await sleep(RETRY_MS);
      } finally {
        link?.close();
      }
    }
  }

  async #converse(active: ActiveRun, run: Run, link: CutterLink): Promise<void> {
    let report = await link.report();
    let { bearings } = await this.runs.program(run.id);
    if (!bearings) {
      link.newSheet();
      report = await link.report();
      bearings = { pairsBase: report.pairsDone, boot: report.boot, meterMs: report.meterMs };
      await this.runs.setBearings(run.id, bearings);
    } else if (report.boot !== bearings.boot) {
      await this.#tell(active, { state: 'failed', message: 'The cutter lost its power and no longer knows where the sheet lies. Load a new piece and cut this sheet again.' }, null);
      return;
    }
    const { pairsBase, meterMs } = bearings;
    const seconds = (r: CutterReport) => (r.meterMs - meterMs) / 1000;
    // What was in the cutter's buffer when the line broke is still being cut; only when it stands still is its count final.
    while (report.state === 'moving') {
      await this.#tell(active, { state: 'cutting', ...where(report, pairsBase) }, seconds(report));
      await sleep(POLL_MS);
      report = await link.report();
    }
    const script = scriptFrom(active.program, report.pairsDone - pairsBase);
    let next = 0;
    for (;;) {
      if (active.wish === 'cancel') {
        link.abort();
        link.release();
        await link.report();
        await this.#tell(active, { state: 'cancelled', message: 'You cancelled it.', ...where(report, pairsBase) }, seconds(report));
        return;
      }
      if (this.#closing) return;
      if (active.wish === 'pause' && report.state !== 'held') link.hold();
      if (active.wish === 'go' && report.state === 'held') link.release();
      let room = report.freeBytes - RESERVE_BYTES;
      for (let line = script[next]; line !== undefined && line.length <= room && active.wish === 'go'; line = script[next]) {
        link.send(line);
        room -= line.length;
        next += 1;
      }
      report = await link.report();
      const fault = FAULTS[report.state];
      const done = report.pairsDone - pairsBase >= run.pairsTotal;
      const state: RunState = done ? 'finished' : fault ? 'stuck' : active.wish === 'pause' ? 'paused' : 'cutting';
      await this.#tell(active, { state, message: fault ?? '', ...where(report, pairsBase) }, seconds(report));
      if (done) return;
      await sleep(POLL_MS);
    }
  }

  /** Tells the pages every time, the database when the state or a visible share of the progress changed. */
  async #tell(active: ActiveRun, change: Partial<RunProgress>, actualSeconds: number | null): Promise<void> {
    const before = active.progress;
    const progress = { ...before, ...change };
    const share = active.shares[Math.min(progress.pairsDone, active.shares.length - 1)]!;
    const run = await this.runs.get(active.id);
    active.progress = { ...progress, secondsLeft: run.estimateSeconds * (1 - share) };
    if (progress.state !== before.state || progress.pairsDone - run.pairsDone > 50 || ENDED.includes(progress.state)) {
      await this.runs.setProgress(active.id, {
        state: progress.state,
        message: progress.message,
        pairsDone: progress.pairsDone,
        actualSeconds: actualSeconds ?? run.actualSeconds,
      });
    }
    for (const listener of this.#listeners) listener(active.progress);
  }
}

function where(report: CutterReport, pairsBase: number): Pick<RunProgress, 'xMm' | 'yMm' | 'knifeDown' | 'pairsDone'> {
  return { xMm: report.xMm, yMm: report.yMm, knifeDown: report.knifeDown, pairsDone: report.pairsDone - pairsBase };
}
