/** What was read of a text: a value, or a sentence that says why there is none. */
export type Reading<T> = { readonly value: T } | { readonly wrong: string };

export interface DraftOptions<T> {
  /** What the field is called. */
  readonly label: string;
  /** The value that holds, as the field writes it. */
  readonly shown: string;
  readonly read: (text: string) => Reading<T>;
  /** Takes a value as one step. Not called for what changes nothing. */
  readonly onKeep: (value: T) => void;
  /** Shows what a value would do before it is kept; null ends that. */
  readonly onTry?: ((value: T | null) => void) | undefined;
  /** The field is gone, and what was typed in it could not be read. */
  readonly onLost: (text: string, wrong: string) => void;
  readonly focus: () => void;
}

/** A draft of whatever kind, as the page sees it. */
export interface OpenDraft {
  readonly label: string;
  readonly state: { readonly text: string | null; readonly wrong: string | null };
  readonly keep: () => boolean;
  readonly giveUp: () => void;
  readonly focus: () => void;
}

/** Drafts that differ from what holds, wherever they are on the page. */
const open = new Set<OpenDraft>();
const listeners = new Set<() => void>();

function changed(): void {
  for (const listener of [...listeners]) listener();
}

/** Calls back when the first draft is begun, or the last one has ended; gives a function that ends that. */
export function onDrafts(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function hasDrafts(): boolean {
  return open.size > 0;
}

/** Keeps every draft that can be read. Gives the first that cannot, with what is wrong with it; null when all are kept. */
export function keepDrafts(): OpenDraft | null {
  return [...open].find((draft) => !draft.keep()) ?? null;
}

/**
 * What is being typed or tried in one field, from its first letter until it is kept or given up. It is kept as one step when the field is left,
 * when Enter is pressed, or when the field goes away; never dropped. Knows no page.
 */
export class Draft<T> implements OpenDraft {
  #options: DraftOptions<T>;
  #text: string | null = null;
  #wrong: string | null = null;
  #isTried = false;
  readonly #listeners = new Set<() => void>();
  #state: { readonly text: string | null; readonly wrong: string | null } = { text: null, wrong: null };

  constructor(options: DraftOptions<T>) {
    this.#options = options;
  }

  /** As the field is now; another value that holds does not touch what is being typed. */
  set options(options: DraftOptions<T>) {
    this.#options = options;
  }

  get label(): string {
    return this.#options.label;
  }

  /** The same object until something changes; `text` is null while nothing is typed. */
  get state(): { readonly text: string | null; readonly wrong: string | null } {
    return this.#state;
  }

  readonly listen = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /** Whatever stands in the field now. */
  get text(): string {
    return this.#text ?? this.#options.shown;
  }

  type(text: string): void {
    this.#set(text, null);
  }

  /** Puts a value into the field and shows what it would do. */
  try(value: T, text: string): void {
    this.#isTried = true;
    this.#set(text, null);
    this.#options.onTry?.(value);
  }

  /** Takes what stands there as one step. False when it cannot be read: it stays, with the reason. */
  keep(): boolean {
    if (this.#text === null) return true;
    if (this.#text === this.#options.shown) {
      this.giveUp();
      return true;
    }
    const read = this.#options.read(this.#text);
    if ('wrong' in read) {
      this.#set(this.#text, read.wrong);
      return false;
    }
    this.#end();
    this.#options.onKeep(read.value);
    return true;
  }

  giveUp(): void {
    if (this.#text === null) return;
    this.#end();
  }

  /** The field goes away. */
  close(): void {
    const text = this.#text;
    if (this.keep()) return;
    this.#options.onLost(text!, this.#wrong!);
    this.#end();
  }

  focus(): void {
    this.#options.focus();
  }

  #end(): void {
    const wasTried = this.#isTried;
    this.#isTried = false;
    this.#set(null, null);
    if (wasTried) this.#options.onTry?.(null);
  }

  #set(text: string | null, wrong: string | null): void {
    this.#text = text;
    this.#wrong = wrong;
    this.#state = { text, wrong };
    const had = open.size;
    if (text === null) open.delete(this);
    else open.add(this);
    for (const listener of [...this.#listeners]) listener();
    if (had === 0 || open.size === 0) changed();
  }
}
