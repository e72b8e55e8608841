import { patchRecipe, type Job, type Recipe, type RecipePatch } from '../../core/recipe/index.js';

/** Something a maker did to a job that the server has not confirmed yet. `id` tells it from every other, so that it is done once however often it is sent. */
export type Edit = { readonly id: string } & (
  { readonly kind: 'change'; readonly patch: RecipePatch } | { readonly kind: 'undo' | 'redo' }
);

/** What a maker decided: as it is, or made of the recipe as it is at that moment, with all that is on its way. */
export type Change = RecipePatch | ((recipe: Recipe) => RecipePatch);

/** What the server did not take: nothing of it is lost, it waits for the maker's word. */
export interface Refusal {
  /** None when only an undo or a redo was refused. */
  readonly patches: readonly RecipePatch[];
  readonly reason: string;
  /** They can be laid over the state that is there now. */
  readonly canBeLaidOver: boolean;
}

/** saved: the server holds all that is shown; away: it does not answer, and edits wait here. */
export type SavingState = 'saved' | 'saving' | 'away' | 'refused';

export interface EditState {
  /** As the server last told it. */
  readonly job: Job | null;
  /** What is shown: the saved recipe with all that is not confirmed yet laid over it. */
  readonly recipe: Recipe | null;
  readonly saving: SavingState;
  readonly refusal: Refusal | null;
}

/** How one write ended: taken; refused because the job is another by now; refused for good; or nobody answered. */
export type SendOutcome =
  | { readonly outcome: 'taken'; readonly job: Job }
  | { readonly outcome: 'changed'; readonly job: Job; readonly reason: string }
  | { readonly outcome: 'refused'; readonly reason: string }
  | { readonly outcome: 'away' };

/** What the queue is lent: the way to the server, a place that outlives the page, and a wait until it is worth trying again. */
export interface EditPorts {
  /** Sends an edit made from `job`, whose revision the server holds it against. */
  readonly send: (edit: Edit, job: Job) => Promise<SendOutcome>;
  readonly keep: { readonly load: () => Kept; readonly store: (kept: Kept) => void };
  readonly untilBack: () => Promise<void>;
  readonly newId: () => string;
}

export interface Kept {
  readonly pending: readonly Edit[];
  /** The revision from which the first of them was made, once it may have been sent: sent again, it must not pass for one made later. */
  readonly base: number | null;
  readonly refusal: Refusal | null;
}

export const NOTHING_KEPT: Kept = { pending: [], base: null, refusal: null };

/**
 * A job's edits on their way to the server, in order, one at a time. Every edit is kept in a place that outlives the page before it is shown, and
 * stays there until the server has confirmed or refused it. Knows no page: it can be tested by itself.
 */
export class EditQueue {
  readonly #ports: EditPorts;
  readonly #listeners = new Set<() => void>();
  #job: Job | null = null;
  #kept: Kept;
  #isAway = false;
  #running: Promise<void> | null = null;
  #state: EditState;

  constructor(ports: EditPorts) {
    this.#ports = ports;
    this.#kept = ports.keep.load();
    this.#state = this.#made();
  }

  /** The same object until something changes. */
  get state(): EditState {
    return this.#state;
  }

  listen(listener: () => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** The job as the server tells it, unless edits are under way, whose answers are newer, or it was told late: revisions only grow. */
  told(job: Job): void {
    if (this.#job && (this.#running || job.revision < this.#job.revision)) return;
    this.#job = job;
    this.#changed();
    this.#run();
  }

  /** @throws when a change is made of the recipe before there is a job */
  change(change: Change): void {
    const patch = typeof change === 'function' ? change(this.#state.recipe!) : change;
    this.#add({ id: this.#ports.newId(), kind: 'change', patch });
  }

  /** Takes the last change back: one that was never confirmed is undone like any other, so that it can be done again. */
  undo(): void {
    this.#add({ id: this.#ports.newId(), kind: 'undo' });
  }

  redo(): void {
    this.#add({ id: this.#ports.newId(), kind: 'redo' });
  }

  /** Lays what was refused over the state that is there now. */
  layOver(): void {
    const { refusal } = this.#kept;
    if (!refusal?.canBeLaidOver) return;
    this.#keep({
      ...this.#kept,
      refusal: null,
      pending: [
        ...this.#kept.pending,
        ...refusal.patches.map((patch): Edit => ({ id: this.#ports.newId(), kind: 'change', patch })),
      ],
    });
    this.#run();
  }

  /** Leaves out what was refused. */
  leaveOut(): void {
    this.#keep({ ...this.#kept, refusal: null });
  }

  /** Takes over what another page left. Only for a queue that has nothing of its own under way. */
  adopt(left: Kept): void {
    this.#keep(left);
    this.#run();
  }

  /** Resolves once nothing waits any more, or the server is away. */
  settled(): Promise<void> {
    return this.#until(() => this.#running === null || this.#isAway);
  }

  /** Resolves once the server has all, and nothing was refused. */
  idle(): Promise<void> {
    return this.#until(() => this.#running === null && this.#kept.pending.length === 0 && this.#kept.refusal === null);
  }

  #until(holds: () => boolean): Promise<void> {
    if (holds()) return Promise.resolve();
    return new Promise((resolve) => {
      const stop = this.listen(() => {
        if (!holds()) return;
        stop();
        resolve();
      });
    });
  }

  #add(edit: Edit): void {
    this.#keep({ ...this.#kept, pending: [...this.#kept.pending, edit] });
    this.#run();
  }

  #keep(kept: Kept): void {
    this.#ports.keep.store(kept);
    this.#kept = kept;
    this.#changed();
  }

  #run(): void {
    if (this.#running || !this.#job || this.#kept.pending.length === 0) return;
    this.#running = this.#sendAll().finally(() => {
      this.#running = null;
      this.#changed();
      // What was added while the last answer was taken.
      this.#run();
    });
    this.#changed();
  }

  async #sendAll(): Promise<void> {
    for (let edit = this.#kept.pending[0]; edit; edit = this.#kept.pending[0]) {
      const base = this.#kept.base ?? this.#job!.revision;
      if (this.#kept.base === null) this.#keep({ ...this.#kept, base });
      const sent = await this.#ports.send(edit, { ...this.#job!, revision: base });
      if (sent.outcome === 'away') {
        this.#isAway = true;
        this.#changed();
        await this.#ports.untilBack();
        continue;
      }
      this.#isAway = false;
      if (sent.outcome === 'taken') {
        this.#job = sent.job;
        this.#keep({ ...this.#kept, pending: this.#kept.pending.slice(1), base: null });
      } else if (sent.outcome === 'changed') {
        // What comes after was made on top of what was refused, so it waits with it.
        this.#job = sent.job;
        this.#refuse(this.#kept.pending, sent.reason, true);
      } else this.#refuse([edit], sent.reason, false);
    }
  }

  #refuse(edits: readonly Edit[], reason: string, canBeLaidOver: boolean): void {
    const patches = edits.flatMap((edit) => (edit.kind === 'change' ? [edit.patch] : []));
    const before = this.#kept.refusal;
    const all = [...(before?.patches ?? []), ...patches];
    const refusal: Refusal = {
      patches: all,
      reason,
      canBeLaidOver: canBeLaidOver && all.length > 0 && (before?.canBeLaidOver ?? true),
    };
    this.#keep({ pending: this.#kept.pending.slice(edits.length), base: null, refusal });
  }

  #changed(): void {
    this.#state = this.#made();
    for (const listener of [...this.#listeners]) listener();
  }

  #made(): EditState {
    const { pending, refusal } = this.#kept;
    const recipe =
      this.#job &&
      pending.reduce((sum, edit) => (edit.kind === 'change' ? patchRecipe(sum, edit.patch) : sum), this.#job.recipe);
    const saving: SavingState = pending.length > 0 ? (this.#isAway ? 'away' : 'saving') : refusal ? 'refused' : 'saved';
    return { job: this.#job, recipe, saving, refusal };
  }
}
