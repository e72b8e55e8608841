interface Shared<T, P> {
  readonly result: Promise<T>;
  readonly stop: AbortController;
  readonly listeners: Set<(progress: P) => void>;
  waiters: number;
}

/**
 * Work with a name is done once, however many wait for it, and ended when the last of them has left. What came of it is remembered, the
 * newest of `most` names.
 */
export class SharedWork<T, P> {
  readonly #running = new Map<string, Shared<T, P>>();
  readonly #known = new Map<string, T>();

  constructor(private readonly most: number) {}

  /** @throws what the work throws; the signal’s reason when it is aborted */
  async get(
    name: string,
    work: (signal: AbortSignal, onProgress: (progress: P) => void) => Promise<T>,
    {
      signal,
      onProgress,
    }: { readonly signal?: AbortSignal | undefined; readonly onProgress?: ((progress: P) => void) | undefined } = {},
  ): Promise<T> {
    signal?.throwIfAborted();
    const known = this.#known.get(name);
    if (known !== undefined) {
      this.#remember(name, known);
      return known;
    }
    let shared = this.#running.get(name);
    if (!shared || shared.stop.signal.aborted) this.#running.set(name, (shared = this.#begin(name, work)));
    const mine = shared;
    mine.waiters += 1;
    if (onProgress) mine.listeners.add(onProgress);
    let leave: (() => void) | undefined;
    const left = new Promise<never>((_, reject) => {
      leave = () => reject(signal!.reason as Error);
      signal?.addEventListener('abort', leave, { once: true });
    });
    try {
      return await Promise.race([mine.result, left]);
    } finally {
      signal?.removeEventListener('abort', leave!);
      if (onProgress) mine.listeners.delete(onProgress);
      mine.waiters -= 1;
      if (mine.waiters === 0) mine.stop.abort(new Error('Nobody waits for it any more.'));
    }
  }

  #begin(name: string, work: (signal: AbortSignal, onProgress: (progress: P) => void) => Promise<T>): Shared<T, P> {
    const stop = new AbortController();
    const listeners = new Set<(progress: P) => void>();
    const result = work(stop.signal, (progress) => listeners.forEach((listener) => listener(progress))).then(
      (value) => {
        this.#remember(name, value);
        this.#forgetRunning(name, stop);
        return value;
      },
      (error: unknown) => {
        this.#forgetRunning(name, stop);
        throw error;
      },
    );
    // When all have left nobody hears how it ended.
    result.catch(() => {});
    return { result, stop, listeners, waiters: 0 };
  }

  #forgetRunning(name: string, stop: AbortController): void {
    if (this.#running.get(name)?.stop === stop) this.#running.delete(name);
  }

  #remember(name: string, value: T): void {
    this.#known.delete(name);
    this.#known.set(name, value);
    if (this.#known.size > this.most) this.#known.delete(this.#known.keys().next().value!);
  }
}
