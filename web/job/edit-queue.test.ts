import { describe, expect, it } from 'vitest';
import { emptyRecipe, patchRecipe, type Job, type Recipe } from '../../core/recipe/index.js';
import { seeded } from '../../core/testing/seeded.js';
import { EditQueue, NOTHING_KEPT, type Edit, type EditPorts, type Kept, type SendOutcome } from './edit-queue.js';

const jobOf = (recipe: Recipe, revision: number): Job => ({
  id: 'job',
  title: recipe.title,
  customer: '',
  due: null,
  state: 'new',
  updatedAt: '',
  design: null,
  words: null,
  recipe,
  revision,
  canUndo: true,
  canRedo: false,
  deleted: false,
});

/** A server that remembers what it did by the edit's name, and a line that fails before or after the server has heard. */
class Server {
  /** Every recipe there was, for undo and redo. */
  #history = [emptyRecipe('0')];
  #at = 0;
  revision = 1;
  lastEdit = '';
  readonly applied: string[] = [];
  failing = 0;

  constructor(private readonly random: () => number) {}

  get recipe(): Recipe {
    return this.#history[this.#at]!;
  }

  get job(): Job {
    return jobOf(this.recipe, this.revision);
  }

  /** Someone else writes. */
  elsewhere(): void {
    this.#put(patchRecipe(this.recipe, { customer: `${this.revision}` }));
    this.lastEdit = 'elsewhere';
  }

  #put(recipe: Recipe): void {
    this.#history = [...this.#history.slice(0, this.#at + 1), recipe];
    this.#at += 1;
    this.revision += 1;
  }

  send = async (edit: Edit, job: Job): Promise<SendOutcome> => {
    await Promise.resolve();
    if (this.random() < this.failing / 2) return { outcome: 'away' };
    let outcome: SendOutcome;
    if (this.lastEdit === edit.id) outcome = { outcome: 'taken', job: this.job };
    else if (job.revision !== this.revision)
      outcome = { outcome: 'changed', job: this.job, reason: 'changed elsewhere' };
    else {
      if (edit.kind === 'change') this.#put(patchRecipe(job.recipe, edit.patch));
      else {
        this.#at = Math.min(this.#history.length - 1, Math.max(0, this.#at + (edit.kind === 'undo' ? -1 : 1)));
        this.revision += 1;
      }
      this.lastEdit = edit.id;
      this.applied.push(edit.id);
      outcome = { outcome: 'taken', job: this.job };
    }
    return this.random() < this.failing / 2 ? { outcome: 'away' } : outcome;
  };
}

const ticks = async (n = 30) => {
  for (let i = 0; i < n; i += 1) await Promise.resolve();
};

function bench(server: Server) {
  let kept: Kept = NOTHING_KEPT;
  let count = 0;
  const ports = (isOpen: () => boolean): EditPorts => ({
    send: (edit, job) =>
      isOpen()
        ? server.send(edit, job).then((sent) => (isOpen() ? sent : new Promise<never>(() => {})))
        : new Promise<never>(() => {}),
    keep: { load: () => kept, store: (next) => void (isOpen() && (kept = next)) },
    untilBack: () => Promise.resolve(),
    newId: () => `edit-${(count += 1)}`,
  });
  let life = 0;
  return {
    /** A page, as after a reload: what the one before had in mind is gone, what it kept is not. */
    open: () => {
      const mine = (life += 1);
      return new EditQueue(ports(() => mine === life));
    },
    made: () => count,
  };
}

describe('edits on their way', () => {
  it('show at once, and are saved only when the server has them', async () => {
    const server = new Server(seeded(1));
    const queue = bench(server).open();
    queue.told(server.job);
    queue.change({ title: 'A' });
    expect([queue.state.recipe!.title, queue.state.saving, server.recipe.title]).toEqual(['A', 'saving', '0']);
    await queue.settled();
    expect([queue.state.saving, server.recipe.title, queue.state.job!.revision]).toEqual(['saved', 'A', 2]);
  });

  it('wait while the server is away, also through a reload of the page', async () => {
    const server = new Server(seeded(1));
    const pages = bench(server);
    const queue = pages.open();
    queue.told(server.job);
    server.failing = 2;
    queue.change({ title: 'A' });
    queue.change({ customer: 'B' });
    await ticks();
    expect(queue.state.saving).toBe('away');
    const reloaded = pages.open();
    server.failing = 0;
    reloaded.told(server.job);
    await reloaded.settled();
    expect([server.recipe.title, server.recipe.customer, reloaded.state.saving]).toEqual(['A', 'B', 'saved']);
  });

  it('are shown when they are refused, and can be laid over what is there now', async () => {
    const server = new Server(seeded(1));
    const queue = bench(server).open();
    queue.told(server.job);
    server.elsewhere();
    queue.change({ title: 'Mine' });
    await queue.settled();
    expect(queue.state).toMatchObject({
      saving: 'refused',
      refusal: { patches: [{ title: 'Mine' }], canBeLaidOver: true },
    });
    expect(queue.state.recipe).toMatchObject({ title: '0', customer: '1' });
    queue.layOver();
    await queue.settled();
    expect([server.recipe.title, server.recipe.customer, queue.state.refusal]).toEqual(['Mine', '1', null]);
  });

  it('are not hidden by what the server told before them and was heard after them', async () => {
    const server = new Server(seeded(1));
    const queue = bench(server).open();
    const late = server.job;
    queue.told(late);
    queue.change({ title: 'A' });
    await queue.settled();
    queue.told(late);
    expect(queue.state.recipe!.title).toBe('A');
  });

  it('are undone in their turn when that is asked for before they are saved', async () => {
    const server = new Server(seeded(1));
    const queue = bench(server).open();
    queue.told(server.job);
    queue.change({ title: 'A' });
    queue.change({ title: 'B' });
    queue.undo();
    queue.change({ customer: 'C' });
    await queue.settled();
    expect([server.recipe.title, server.recipe.customer, queue.state.recipe, queue.state.saving]).toEqual([
      'A',
      'C',
      server.recipe,
      'saved',
    ]);
  });

  it('that are made of the recipe are made of all that is on its way', async () => {
    const server = new Server(seeded(1));
    const queue = bench(server).open();
    queue.told(server.job);
    for (let i = 0; i < 3; i += 1) queue.change(({ title }) => ({ title: `${title}+` }));
    expect(queue.state.recipe!.title).toBe('0+++');
    await queue.settled();
    expect(server.recipe.title).toBe('0+++');
  });

  it('are left out when the maker says so, and nothing of them is sent', async () => {
    const server = new Server(seeded(1));
    const queue = bench(server).open();
    queue.told(server.job);
    server.elsewhere();
    queue.change({ title: 'Mine' });
    await queue.settled();
    queue.leaveOut();
    await ticks();
    expect([queue.state.saving, server.recipe.title, server.applied]).toEqual(['saved', '0', []]);
  });

  it.each(Array.from({ length: 300 }, (_, seed) => seed))(
    'are each done once or shown as refused, whatever the line, the page and others do, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const server = new Server(random);
      const pages = bench(server);
      let queue = pages.open();
      queue.told(server.job);
      const refused: number[] = [];
      const gatherRefused = () => {
        if (!queue.state.refusal) return;
        refused.push(...queue.state.refusal.patches.map(() => 1));
        queue.leaveOut();
      };
      let changes = 0;
      // What the server once told and is heard late.
      const late: Job[] = [];
      for (let i = 0; i < 60; i += 1) {
        const dice = random();
        if (dice < 0.4) {
          changes += 1;
          queue.change(random() < 0.5 ? { title: `${i}` } : ({ title }) => ({ title: `${title} ${i}`.slice(-40) }));
        } else if (dice < 0.45) queue.undo();
        else if (dice < 0.48) queue.redo();
        else if (dice < 0.52) late.push(server.job);
        else if (dice < 0.56 && late.length > 0) queue.told(late.splice(Math.floor(random() * late.length), 1)[0]!);
        else if (dice < 0.6) {
          gatherRefused();
          queue = pages.open();
          queue.told(server.job);
        } else if (dice < 0.65) server.elsewhere();
        else if (dice < 0.75) server.failing = random() < 0.5 ? 0 : random();
        await ticks(Math.floor(random() * 12));
      }
      server.failing = 0;
      for (let i = 0; i < 20; i += 1) {
        await ticks();
        gatherRefused();
      }
      queue.told(server.job);
      expect(new Set(server.applied).size).toBe(server.applied.length);
      // In the order in which they were made.
      const numbers = server.applied.map((id) => Number(id.slice('edit-'.length)));
      expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
      // An edit that was taken and whose answer was lost before someone else wrote is shown as refused though it is there: said twice, never lost.
      expect(server.applied.length + refused.length).toBeGreaterThanOrEqual(changes);
      expect(queue.state).toMatchObject({ saving: 'saved', recipe: server.recipe });
    },
  );
});
