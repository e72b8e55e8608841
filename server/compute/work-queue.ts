/** short: a page waits and it is soon done; long: somebody waits for a whole plan; idle: it can wait, and takes whichever place is free. */
export type Lane = 'short' | 'long' | 'idle';

export interface Work<T> {
  readonly lane: Lane;
  /** What it is, for those who wait for it: “a plan of Heron window”. */
  readonly name: string;
  /** Does it. Once `signal` is aborted it should end soon; its place is free when the promise is settled. */
  readonly start: (signal: AbortSignal) => Promise<T>;
  /** Holds it at its next breath while others have their turn, or lets it go on. Only what is long, or takes long, is ever held. */
  readonly hold: (isHeld: boolean) => void;
  /** Gets what is worked on instead, whenever it waits for its turn; an empty list once it is worked on. */
  readonly onWait?: (waitsFor: readonly string[]) => void;
  /** How long it may take; the time that it waited or was held is not counted. */
  readonly limitMs: number;
}

/** Work was stopped because it took longer than it may. */
export class TooLong extends Error {}

export interface QueueLimits {
  /** Long work that is done at the same time; other long work that was begun is held meanwhile. */
  readonly longAtOnce: number;
  /** Work that was begun in all lanes together, held or not. One place of these is kept from long work. */
  readonly atOnce: number;
  /** A short piece of work that takes longer than this no longer keeps the next one waiting, as long as there is room at all. */
  readonly overdueMs: number;
  /** One that takes longer than this is long, and takes turns with other long work. */
  readonly longMs: number;
  /** After this long work gives others that wait their turn. */
  readonly sliceMs: number;
}

interface Waiting {
  readonly work: Work<unknown>;
  readonly begin: () => void;
}

interface Running {
  readonly work: Work<unknown>;
  readonly stop: AbortController;
  isLong: boolean;
  isHeld: boolean;
  /** It keeps the next short piece waiting. */
  keepsShort: boolean;
  /** How long it was worked on before it was last let go on, and when that was. */
  workedMs: number;
  since: number;
  /** When it last began to be worked on or to be held: turns are taken in this order. */
  turn: number;
  tooLong?: ReturnType<typeof setTimeout>;
}

const ORDER: readonly Lane[] = ['short', 'long', 'idle'];

/**
 * In which order work is begun, and how much of it at once. There is always a place for one short piece of work that no long work can take, so a
 * small plan is answered while large ones and searches go on. Long work takes turns, a slice each: none of it waits until another is done. Whoever
 * gives up frees the place. Knows no threads.
 */
export class WorkQueue {
  readonly #limits: QueueLimits;
  readonly #waiting: Waiting[] = [];
  readonly #running = new Set<Running>();
  #turns = 0;
  #slice: ReturnType<typeof setTimeout> | undefined;

  constructor(limits: QueueLimits) {
    this.#limits = limits;
  }

  /** Waits for a place, then works. @throws TooLong; what the work throws; the signal’s reason when it is aborted, before or in the middle of it */
  run<T>(work: Work<T>, signal?: AbortSignal): Promise<T> {
    if (signal?.aborted) return Promise.reject(signal.reason as Error);
    return new Promise<T>((resolve, reject) => {
      const waiting: Waiting = {
        work,
        begin: () => {
          signal?.removeEventListener('abort', leave);
          work.onWait?.([]);
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
      this.#tellWaiting();
    });
  }

  #next(): void {
    for (const lane of ORDER) {
      const first = () => this.#waiting.findIndex(({ work }) => work.lane === lane);
      for (let i = first(); i >= 0 && this.#hasRoom(lane); i = first()) this.#waiting.splice(i, 1)[0]!.begin();
    }
    this.#takeTurns();
  }

  #hasRoom(lane: Lane): boolean {
    const { longAtOnce, atOnce } = this.#limits;
    const [long, keeps] = [this.#long(), [...this.#running].some(({ keepsShort }) => keepsShort)];
    if (this.#running.size >= atOnce) return false;
    if (lane === 'short') return !keeps;
    // Long work is begun when it can be worked on; idle work never takes a place for which something long waits.
    const isPlaceForLong = long.filter(({ isHeld }) => !isHeld).length < longAtOnce && long.length < atOnce - 1;
    return lane === 'long' ? isPlaceForLong : !keeps || isPlaceForLong;
  }

  #long(): Running[] {
    return [...this.#running].filter(({ isLong }) => isLong);
  }

  /** Holds what is too much at once, lets others go on in their order, and looks again after a slice while anything waits. */
  #takeTurns(): void {
    const { longAtOnce, atOnce, sliceMs } = this.#limits;
    const now = performance.now();
    for (;;) {
      const long = this.#long().sort((a, b) => a.turn - b.turn);
      const [active, held] = [long.filter(({ isHeld }) => !isHeld), long.filter(({ isHeld }) => isHeld)];
      if (active.length > longAtOnce) this.#hold(active.at(-1)!, true);
      else if (active.length < longAtOnce && held.length > 0) this.#hold(held[0]!, false);
      else {
        const begins = this.#waiting.findIndex(({ work }) => work.lane === 'long');
        const isRoom = begins >= 0 && long.length < atOnce - 1 && this.#running.size < atOnce;
        const done = active.find(({ since }) => now - since >= sliceMs);
        if (!done || (held.length === 0 && !isRoom)) break;
        this.#hold(done, true);
        // What was not begun yet comes before what has had a turn.
        if (isRoom) this.#waiting.splice(begins, 1)[0]!.begin();
        else this.#hold(held[0]!, false);
      }
    }
    clearTimeout(this.#slice);
    const isWaited =
      this.#waiting.some(({ work }) => work.lane === 'long') || this.#long().some(({ isHeld }) => isHeld);
    if (isWaited) this.#slice = setTimeout(() => this.#turn(), sliceMs);
  }

  #turn(): void {
    this.#next();
    this.#tellWaiting();
  }

  #hold(running: Running, isHeld: boolean): void {
    running.isHeld = isHeld;
    running.turn = this.#turns += 1;
    if (isHeld) running.workedMs += performance.now() - running.since;
    else running.since = performance.now();
    this.#limit(running);
    running.work.hold(isHeld);
    if (!isHeld) running.work.onWait?.([]);
  }

  /** Only the time in which it is worked on counts against it. */
  #limit(running: Running): void {
    clearTimeout(running.tooLong);
    const { work, workedMs, isHeld, stop } = running;
    if (!isHeld) running.tooLong = setTimeout(() => stop.abort(new TooLong()), Math.max(0, work.limitMs - workedMs));
  }

  #tellWaiting(): void {
    const busy = [...this.#running].filter(({ isHeld }) => !isHeld).map(({ work }) => work.name);
    for (const { work } of this.#waiting) work.onWait?.(busy);
    for (const { work, isHeld } of this.#running) if (isHeld) work.onWait?.(busy);
  }

  async #work<T>(work: Work<T>, signal: AbortSignal | undefined): Promise<T> {
    const { overdueMs, longMs } = this.#limits;
    const stop = new AbortController();
    const isShort =
      work.lane === 'short' || (work.lane === 'idle' && ![...this.#running].some((one) => one.keepsShort));
    const running: Running = {
      work,
      stop,
      isLong: !isShort,
      isHeld: false,
      keepsShort: isShort,
      workedMs: 0,
      since: performance.now(),
      turn: (this.#turns += 1),
    };
    this.#running.add(running);
    this.#limit(running);
    const later = (ms: number, act: () => void) =>
      setTimeout(() => {
        act();
        this.#turn();
      }, ms);
    const late = isShort
      ? [
          later(overdueMs, () => (running.keepsShort = false)),
          later(longMs, () => {
            running.isLong = true;
            // It comes after what is worked on now.
            running.turn = this.#turns += 1;
          }),
        ]
      : [];
    const leave = () => {
      stop.abort(signal!.reason);
      // One that is held sees only so that it should end.
      if (running.isHeld) this.#hold(running, false);
    };
    signal?.addEventListener('abort', leave, { once: true });
    try {
      return await work.start(stop.signal);
    } catch (error) {
      throw stop.signal.aborted ? stop.signal.reason : error;
    } finally {
      late.forEach(clearTimeout);
      clearTimeout(running.tooLong);
      signal?.removeEventListener('abort', leave);
      this.#running.delete(running);
      this.#turn();
    }
  }
}
