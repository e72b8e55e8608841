import { randomUUID } from 'node:crypto';

/** What open pages are told: which of the things that they show is another by now. */
export type Change =
  | { readonly of: 'shop'; readonly revision: number }
  | { readonly of: 'batches' }
  | { readonly of: 'job'; readonly jobId: string; readonly revision: number };

export interface NumberedChange {
  readonly id: string;
  readonly change: Change;
}

/** So many changes are kept for pages that were away for a moment. */
const KEPT = 1000;

/** Changes as they are made, in order, each with a name from which a page that was away can go on. */
export class Changes {
  /** A server that was started anew has forgotten what it told: its names are others. */
  readonly #boot = randomUUID();
  readonly #listeners = new Set<(change: NumberedChange) => void>();
  #kept: NumberedChange[] = [];
  #count = 0;

  tell(change: Change): void {
    this.#count += 1;
    const numbered = { id: `${this.#boot}.${this.#count}`, change };
    this.#kept = [...this.#kept.slice(1 - KEPT), numbered];
    for (const listener of [...this.#listeners]) listener(numbered);
  }

  listen(listener: (change: NumberedChange) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** The name of the newest change, from which nothing is missed. */
  get newest(): string {
    return `${this.#boot}.${this.#count}`;
  }

  /** What was told after `id`; null when that is not known any more. */
  since(id: string): readonly NumberedChange[] | null {
    if (id === this.newest) return [];
    const [boot, number] = [id.slice(0, id.lastIndexOf('.')), Number(id.slice(id.lastIndexOf('.') + 1))];
    const oldest = this.#count - this.#kept.length;
    if (boot !== this.#boot || !Number.isInteger(number) || number < oldest || number > this.#count) return null;
    return this.#kept.slice(number - oldest);
  }
}
