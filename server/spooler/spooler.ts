import {
  ENDED,
  wholeOnPiece,
  type Run,
  type RunProgress,
  type WholeMarks,
  type WholeOnPiece,
} from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import { CutterUnreachable, REQUESTS } from './cutter-link.js';
import {
  greeting,
  onReport,
  onSilence,
  type CutNow,
  type CutStep,
  type CutterReport,
  type StoredCut,
  type Talk,
  type Wish,
} from './cut-state.js';
import { SAID } from './said.js';
import { lengthShares, placeAfter, scriptFrom, type SheetProgram } from './script.js';

/** A program as it was frozen, with what tells how much of it is whole at any pair. */
export type FrozenProgram = SheetProgram & WholeMarks;

export interface SavedCut extends StoredCut {
  readonly share: number;
  readonly actualSeconds: number | null;
  readonly whole: WholeOnPiece | null;
}

/** Where runs are kept. */
export interface RunBook {
  /** @throws Problem 409 while another run has not ended */
  create(input: { readonly sheetId: string; readonly who: string }): Promise<Run>;
  get(id: string): Promise<Run>;
  /** Runs that have not ended. */
  open(): Promise<readonly Run[]>;
  /** What a run's cut goes on from. */
  cutOf(id: string): Promise<{ readonly stored: StoredCut; readonly program: FrozenProgram }>;
  save(id: string, cut: SavedCut): Promise<void>;
}

/** A connection to a cutter. Every call may throw CutterUnreachable. */
export interface CutterLine {
  send(text: string): void;
  report(): Promise<CutterReport>;
  close(): void;
}

export interface SpoolerPorts {
  readonly runs: RunBook;
  /** @throws CutterUnreachable */
  readonly connect: () => Promise<CutterLine>;
  readonly sleep: (ms: number) => Promise<void>;
}

type Listener = (progress: RunProgress) => void;

interface ActiveRun {
  readonly run: Run;
  wish: Wish;
  stored: StoredCut;
  readonly program: FrozenProgram;
  readonly shares: Float64Array;
  progress: RunProgress;
  actualSeconds: number | null;
  /** How far the store knows it to be. */
  savedPairs: number;
  readonly done: Promise<void>;
}

/** What a cancelled run says while it cannot end yet; whoever cancelled it does not wait any longer. */
const CANCELLED_LATER: readonly string[] = [SAID.cancellingUnreached, SAID.cancelUnrecorded];

const POLL_MS = 40;
const RETRY_MS = 300;
/** Left free in the cutter's buffer, so that a request never waits behind a cut. */
const RESERVE_BYTES = 256;
/** So many pairs may be driven before the store is told how far it is. */
const UNSAVED_PAIRS = 50;

/**
 * Sends runs to the cutter, one at a time. What a report means is decided in cut-state.ts; here it is stored, then told to the cutter, and the
 * pages hear of it. Whatever fails here, in the store or on the line, is tried again from what is stored.
 */
export class Spooler {
  readonly #listeners = new Set<Listener>();
  readonly #ports: SpoolerPorts;
  #active: ActiveRun | null = null;
  /** Taken before anything is waited for, so that of two starts at one moment one is refused. */
  #reserved = false;
  #closing = false;

  constructor(ports: SpoolerPorts) {
    this.#ports = ports;
  }

  /** Runs that were under way when the server stopped wait to be resumed; one that was being cancelled is cancelled on. */
  async recover(): Promise<void> {
    const { runs } = this.#ports;
    for (const run of await runs.open()) {
      const { stored, program } = await runs.cutOf(run.id);
      if (run.state === 'cancelling') this.#begin(run, { ...stored }, program, 'cancel');
      else
        await runs.save(run.id, {
          ...stored,
          state: 'interrupted',
          message: SAID.interrupted,
          share: run.share,
          actualSeconds: run.actualSeconds,
          whole: null,
        });
    }
  }

  /**
   * Cuts a frozen sheet. `freeze` is called once the cutter is taken and no run waits, also none from before a restart; it gives the sheet's id; what it checks stays true until the run is made. `who` is at work.
   * @throws Problem 409 while another run is under way, and whatever `freeze` throws
   */
  async start(freeze: () => Promise<string>, who = ''): Promise<Run> {
    return this.#reserving(async () => {
      // A sheet that is frozen and then refused would stay as one that nobody has cut.
      if ((await this.#ports.runs.open()).length > 0) throw busy();
      const run = await this.#ports.runs.create({ sheetId: await freeze(), who });
      const { stored, program } = await this.#ports.runs.cutOf(run.id);
      this.#begin(run, stored, program, 'go');
      return run;
    });
  }

  /** @throws Problem 409 when the run has ended, is being cancelled, or another is under way */
  async resume(id: string): Promise<void> {
    const active = this.#active;
    if (active?.run.id === id) {
      if (active.wish === 'cancel') throw new Problem(409, 'run-ended', 'This cut is being cancelled.');
      active.wish = 'go';
      return;
    }
    await this.#reserving(async () => {
      const run = await this.#unended(id);
      const { stored, program } = await this.#ports.runs.cutOf(id);
      this.#begin(run, stored, program, 'go');
    });
  }

  /** @throws Problem 409 when the run is not under way */
  pause(id: string): void {
    if (this.#active?.run.id !== id || this.#active.wish === 'cancel')
      throw new Problem(409, 'run-not-active', 'This cut is not running.');
    this.#active.wish = 'pause';
  }

  /** Resolves once the cutter has dropped the cut; or is known not to answer, and it is dropped as soon as it does; or the record cannot be written, and is as soon as it can. @throws Problem 409 when the run has ended */
  async cancel(id: string): Promise<void> {
    if (this.#active?.run.id !== id) {
      await this.#reserving(async () => {
        const run = await this.#unended(id);
        const { stored, program } = await this.#ports.runs.cutOf(id);
        this.#begin(run, stored, program, 'cancel');
      });
    }
    const active = this.#active;
    if (active?.run.id !== id) return;
    active.wish = 'cancel';
    let stop = () => {};
    const unreached = new Promise<void>((resolve) => {
      stop = this.listen((progress) => {
        if (progress.runId === id && CANCELLED_LATER.includes(progress.message)) resolve();
      });
    });
    await Promise.race([active.done, unreached]);
    stop();
  }

  /** The run in the cutter, or none. */
  get activeRunId(): string | null {
    return this.#active?.run.id ?? null;
  }

  /** The latest progress of the run under way, if it is this one. */
  progressOf(id: string): RunProgress | null {
    return this.#active?.run.id === id ? this.#active.progress : null;
  }

  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  async close(): Promise<void> {
    this.#closing = true;
    await this.#active?.done;
  }

  async #reserving<T>(act: () => Promise<T>): Promise<T> {
    if (this.#active || this.#reserved) throw busy();
    this.#reserved = true;
    try {
      return await act();
    } finally {
      this.#reserved = false;
    }
  }

  async #unended(id: string): Promise<Run> {
    const run = await this.#ports.runs.get(id);
    if (ENDED.includes(run.state)) throw new Problem(409, 'run-ended', 'This cut has ended.');
    return run;
  }

  #begin(run: Run, stored: StoredCut, program: FrozenProgram, wish: Wish): void {
    const { id: runId, pairsTotal, estimateSeconds } = run;
    const progress: RunProgress = {
      runId,
      state: 'cutting',
      message: '',
      pairsDone: stored.pairsDone,
      pairsTotal,
      share: run.share,
      xMm: 0,
      yMm: 0,
      knifeDown: false,
      secondsLeft: estimateSeconds * (1 - run.share),
    };
    let finish = () => {};
    const done = new Promise<void>((resolve) => (finish = resolve));
    const active: ActiveRun = {
      run,
      wish,
      stored,
      program,
      shares: lengthShares(program),
      progress,
      actualSeconds: run.actualSeconds,
      savedPairs: stored.pairsDone,
      done,
    };
    this.#active = active;
    void this.#drive(active).finally(() => {
      this.#active = null;
      finish();
    });
  }

  /** Talks with the cutter until the run has ended. Never throws: what fails is told, and tried again. */
  async #drive(active: ActiveRun): Promise<void> {
    while (!this.#closing) {
      let line: CutterLine | null = null;
      try {
        line = await this.#ports.connect();
        await this.#converse(active, line);
        return;
      } catch (error) {
        const isOver =
          error instanceof CutterUnreachable ? await this.#silence(active) : this.#unwritten(active, error);
        if (isOver) return;
      } finally {
        line?.close();
      }
      await this.#ports.sleep(RETRY_MS);
    }
  }

  async #converse(active: ActiveRun, line: CutterLine): Promise<void> {
    let talk = greeting(active.stored);
    let script: Iterator<string> | null = null;
    let next: string | null = null;
    for (;;) {
      const report = await line.report();
      const step = onReport(nowOf(active, talk), report);
      if (step.talk.phase === 'sending' && talk.phase !== 'sending')
        script = scriptFrom(active.program, step.talk.from);
      talk = step.talk;
      try {
        await this.#take(active, step, report);
      } catch (error) {
        // A disk that cannot be written must not keep the knife going: to stop is told all the same.
        if (active.wish === 'cancel')
          for (const telling of step.tell) if (telling !== 'feed') line.send(REQUESTS[telling]);
        throw error;
      }
      for (const telling of step.tell) {
        if (telling !== 'feed') line.send(REQUESTS[telling]);
        else {
          let room = report.freeBytes - RESERVE_BYTES;
          for (next ??= take(script!); next !== null && next.length <= room; next = take(script!)) {
            line.send(next);
            room -= next.length;
          }
        }
      }
      if (ENDED.includes(active.stored.state) || this.#closing) return;
      await this.#ports.sleep(POLL_MS);
    }
  }

  /** The cutter does not answer; true when the run is over by that. */
  async #silence(active: ActiveRun): Promise<boolean> {
    try {
      await this.#take(active, onSilence(nowOf(active, greeting(active.stored))), null);
    } catch (error) {
      this.#unwritten(active, error);
    }
    return ENDED.includes(active.stored.state);
  }

  /** The store refused: the run stays as it was stored, and the pages are told why nothing goes on. */
  #unwritten(active: ActiveRun, error: unknown): boolean {
    console.error(`The record of a cut cannot be written: ${error instanceof Error ? error.message : String(error)}`);
    const message = active.wish === 'cancel' ? SAID.cancelUnrecorded : SAID.recordUnwritten;
    this.#tell({ ...active.progress, state: 'stuck', message }, active);
    return false;
  }

  /** Takes a step: stored first where it must be, then told to the pages. @throws what the store throws, with nothing taken */
  async #take(active: ActiveRun, { stored }: CutStep, report: CutterReport | null): Promise<void> {
    const before = active.stored;
    const share = active.shares[stored.pairsDone]!;
    const { bearings } = stored;
    const actualSeconds =
      report && bearings && report.boot === bearings.boot
        ? (report.meterMs - bearings.meterMs) / 1000
        : active.actualSeconds;
    const isOver = ENDED.includes(stored.state);
    if (
      isOver ||
      stored.state !== before.state ||
      stored.message !== before.message ||
      stored.bearings !== before.bearings ||
      stored.pairsDone - active.savedPairs > UNSAVED_PAIRS
    ) {
      const whole = isOver ? wholeOnPiece(active.program, stored.pairsDone) : null;
      // Of sheets from before outlines were kept nothing is known.
      await this.#ports.runs.save(active.run.id, {
        ...stored,
        share,
        actualSeconds,
        whole: whole && whole.ofParts > 0 ? whole : null,
      });
      active.savedPairs = stored.pairsDone;
    }
    active.stored = stored;
    active.actualSeconds = actualSeconds;
    const { state, message, pairsDone } = stored;
    const place = report ? { xMm: report.xMm, yMm: report.yMm, knifeDown: report.knifeDown } : {};
    this.#tell(
      {
        ...active.progress,
        state,
        message,
        pairsDone,
        share,
        ...place,
        secondsLeft: active.run.estimateSeconds * (1 - share),
      },
      active,
    );
  }

  #tell(progress: RunProgress, active: ActiveRun): void {
    active.progress = progress;
    for (const listener of this.#listeners) listener(progress);
  }
}

function nowOf({ stored, wish, run, program }: ActiveRun, talk: Talk): CutNow {
  return { stored, talk, wish, pairsTotal: run.pairsTotal, placeAfter: (pairs) => placeAfter(program, pairs) };
}

function take(script: Iterator<string>): string | null {
  const { done, value } = script.next();
  return done ? null : value;
}

function busy(): Problem {
  return new Problem(409, 'cutter-busy', SAID.busy);
}
