import { CutterDevice } from '../../cutter/device.js';
import { parseReport, REQUESTS } from '../spooler/cutter-link.js';
import { Spooler, type CutterLine, type RunBook } from '../spooler/spooler.js';

const soon = () => new Promise<void>((resolve) => setImmediate(resolve));

/**
 * The real spooler on a simulated cutter without a wire. No time passes unless the test lets it. The test says how far the cutter may go, so a cut
 * can end after any pair.
 */
export class CutterAtHand {
  readonly device: CutterDevice;
  spooler!: Spooler;
  #mayMove = false;
  /** The cutter's own count when the sheet in it was begun. */
  #base = 0;

  constructor(random: () => number) {
    this.device = new CutterDevice({ random, bufferBytes: 1024 });
  }

  /** A server that starts, on the runs that are stored. */
  async start(runs: RunBook): Promise<void> {
    const connect = (): Promise<CutterLine> => {
      this.device.connectionLost();
      return Promise.resolve({
        send: (text: string) => void this.device.receive(text),
        report: () => {
          if (this.#mayMove) this.device.advance(2);
          this.device.receive(REQUESTS.report);
          return Promise.resolve(parseReport(this.device.takeReplies())!);
        },
        close: () => this.device.connectionLost(),
      });
    };
    this.spooler = new Spooler({ runs, connect, sleep: soon });
    await this.spooler.recover();
  }

  /** Waits until the cutter is taken for a sheet that was just begun, and holds something of it. */
  async isTaken(): Promise<void> {
    while (this.device.status().empty) await soon();
    this.#base = this.device.status().pairsDone;
  }

  /** How many pairs of the sheet in it the cutter has driven to, by its own count. */
  get pairs(): number {
    return this.device.status().pairsDone - this.#base;
  }

  /**
   * Lets the run under way come to its end: to the last pair, or to `pairs` and then cancelled, or switched off. Gives how far the cutter came.
   * A run that waits since the server was restarted is resumed first.
   */
  async end(runId: string, state: 'finished' | 'cancelled' | 'failed', pairs: number): Promise<number> {
    const { device } = this;
    if (this.spooler.activeRunId !== runId) await this.spooler.resume(runId);
    if (state !== 'finished') device.fail('jammed', pairs);
    this.#mayMove = true;
    if (state !== 'finished') {
      const isSeen = () => this.spooler.progressOf(runId)?.state === 'stuck' && this.pairs === pairs;
      while (!isSeen()) await soon();
      this.#mayMove = false;
      if (state === 'cancelled') await this.spooler.cancel(runId);
    }
    const came = state === 'finished' ? null : this.pairs;
    if (state === 'failed') device.powerCycle();
    while (this.spooler.activeRunId !== null) await soon();
    this.#mayMove = false;
    device.clearFault();
    return came ?? this.pairs;
  }
}
