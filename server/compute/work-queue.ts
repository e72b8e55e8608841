/** short: a page waits and it is soon done; long: somebody waits for a whole plan; idle: it can wait, and takes whichever place is free. */
export type Lane = 'short' | 'long' | 'idle';

export interface Work<T> {
  readonly lane: Lane;
  /** Does it. Once `signal` is aborted it should end soon; its place is free when the promise is settled. */
  readonly start: (signal: AbortSignal) => Promise<T>;
  /** How long it may take from when it starts; it is not held against it how long it waited. */
  readonly limitMs: number;
}

/** Work was stopped because it took longer than it may. */
export class TooLong extends Error {}

export interface QueueLimits {
  readonly longAtOnce: number;
  /** Work in all lanes together. */
  readonly atOnce: number;
  /** A short piece of work that takes longer than this no longer keeps the next one waiting, as long as there is room at all. */
  readonly overdueMs: number;
}

interface Waiting {
  readonly lane: Lane;
  readonly begin: () => void;
}

const ORDER: readonly Lane[] = ['short', 'long', 'idle'];

/**
 * In which order work is begun, and how much of it at once. There is always a place for one short piece of work that no long work can take, so
 * a small file is read while large drawings are planned. Whoever gives up frees the place. Knows no threads.
 */
export class WorkQueue {
  readonly #limits: QueueLimits;
  readonly #waiting: Waiting[] = [];
  #running = 0;
  #long = 0;
  #short = 0;

  constructor(limits: QueueLimits) {
    this.#limits = limits;
  }

  /** Waits for a place, then works. @throws TooLong; what the work throws; the signal’s reason when it is aborted, before or in the middle of it */
  run<T>(work: Work<T>, signal?: AbortSignal): Promise<T> {
    if (signal?.aborted) return Promise.reject(signal.reason as Error);
    return new Promise<T>((resolve, reject) => {
      const waiting: Waiting = {
        lane: work.lane,
        begin: () => {
          signal?.removeEventListener('abort', leave);
          this.#work(work, signal).then(resolve, reject);
        },
      };
      const leave = () => {
        this.#waiting.splice(this.#waiting.indexOf(waiting), 1);
        reject(signal!.reason as Error);
      };
      signal?.addEventListener('abort', leave, { once: true });
      this.#waiting.push(waiting);
      this.#next();
    });
  }

  #next(): void {
    for (const lane of ORDER) {
      for (
        let i = this.#waiting.findIndex((one) => one.lane === lane);
        i >= 0 && this.#hasRoom(lane);
        i = this.#waiting.findIndex((one) => one.lane === lane)
      )
        this.#waiting.splice(i, 1)[0]!.begin();
    }
  }

  #hasRoom(lane: Lane): boolean {
    const { longAtOnce, atOnce } = this.#limits;
    if (this.#running >= atOnce) return false;
    return (lane !== 'long' && this.#short === 0) || (lane !== 'short' && this.#long < longAtOnce);
  }

  async #work<T>({ lane, start, limitMs }: Work<T>, signal: AbortSignal | undefined): Promise<T> {
    const stop = new AbortController();
    const isShort = lane === 'short' || (lane === 'idle' && this.#short === 0);
    let counted = true;
    const uncount = () => {
      if (counted && isShort) this.#short -= 1;
      counted = false;
    };
    this.#running += 1;
    if (isShort) this.#short += 1;
    else this.#long += 1;
    const overdue = isShort
      ? setTimeout(() => {
          uncount();
          this.#next();
        }, this.#limits.overdueMs)
      : undefined;
    const tooLong = setTimeout(() => stop.abort(new TooLong()), limitMs);
    const leave = () => stop.abort(signal!.reason);
    signal?.addEventListener('abort', leave, { once: true });
    try {
      return await start(stop.signal);
    } catch (error) {
      throw stop.signal.aborted ? stop.signal.reason : error;
    } finally {
      clearTimeout(overdue);
      clearTimeout(tooLong);
      signal?.removeEventListener('abort', leave);
      uncount();
      this.#running -= 1;
      if (!isShort) this.#long -= 1;
      this.#next();
    }
  }
}
