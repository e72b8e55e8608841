import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyRecipe, patchRecipe, type Job } from '../../core/recipe/index.js';
import { EditQueue, NOTHING_KEPT, type Kept } from './edit-queue.js';
import { sendEdit, untilBack } from './send-edit.js';

const jobOf = (title: string, revision: number): Job => ({
  id: 'j',
  title,
  customer: '',
  due: null,
  state: 'new',
  updatedAt: '',
  design: null,
  words: null,
  recipe: emptyRecipe(title),
  revision,
  canUndo: true,
  canRedo: false,
  deleted: false,
});
const answer = (status: number, body: unknown) =>
  new Response(typeof body === 'string' ? body : JSON.stringify(body), { status });
const conflict = () => answer(409, { code: 'job-changed', title: 'changed elsewhere' });

/** A server by hand: each request waits until the test answers it. */
const waiting: {
  method: string;
  path: string;
  body: { revision: number; edit: string; recipe?: { title: string } } | null;
  answer: (response: Response | Error) => void;
}[] = [];
const settle = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => {
  vi.useFakeTimers();
  waiting.length = 0;
  vi.stubGlobal(
    'fetch',
    (path: string, { method = 'GET', body }: { method?: string; body?: string } = {}) =>
      new Promise<Response>((resolve, reject) =>
        waiting.push({
          method,
          path,
          body: body ? (JSON.parse(body) as never) : null,
          answer: (response) => (response instanceof Error ? reject(response) : resolve(response)),
        }),
      ),
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function open() {
  let [kept, count]: [Kept, number] = [NOTHING_KEPT, 0];
  const queue = new EditQueue({
    send: (edit, job) => sendEdit('j', edit, job),
    keep: { load: () => kept, store: (next) => void (kept = next) },
    untilBack,
    newId: () => `e${(count += 1)}`,
  });
  queue.told(jobOf('0', 1));
  return queue;
}

describe('edits over the wire', () => {
  it('go one after the other, each from the revision that the one before gave', async () => {
    const queue = open();
    queue.change({ title: 'A' });
    queue.change({ title: 'B' });
    queue.undo();
    await settle();
    expect(waiting.map((one) => [one.method, one.path, one.body!.revision])).toEqual([
      ['PUT', '/api/jobs/j/recipe', 1],
    ]);
    waiting[0]!.answer(answer(200, jobOf('A', 2)));
    await settle();
    expect([waiting[1]!.body!.revision, waiting[1]!.body!.recipe!.title]).toEqual([2, 'B']);
    waiting[1]!.answer(answer(200, jobOf('B', 3)));
    await settle();
    expect([waiting[2]!.method, waiting[2]!.path, waiting[2]!.body!.revision]).toEqual(['POST', '/api/jobs/j/undo', 3]);
    waiting[2]!.answer(answer(200, jobOf('A', 4)));
    await settle();
    expect(queue.state).toMatchObject({ saving: 'saved', recipe: { title: 'A' } });
  });

  it('are not overwritten by an answer that was asked for before them and comes after', async () => {
    const queue = open();
    queue.change({ title: 'A' });
    await settle();
    queue.told(jobOf('0', 1));
    waiting[0]!.answer(answer(200, jobOf('A', 2)));
    await settle();
    queue.told(jobOf('0', 1));
    queue.change({ customer: 'C' });
    await settle();
    expect([queue.state.recipe!.title, waiting[1]!.body!.revision]).toEqual(['A', 2]);
  });

  it('that meet a change from elsewhere show it, and wait for a word', async () => {
    const queue = open();
    queue.change({ title: 'Mine' });
    await settle();
    waiting[0]!.answer(conflict());
    await settle();
    expect([waiting[1]!.method, waiting[1]!.path]).toEqual(['GET', '/api/jobs/j']);
    waiting[1]!.answer(answer(200, jobOf('Theirs', 5)));
    await settle();
    expect(queue.state).toMatchObject({
      saving: 'refused',
      recipe: { title: 'Theirs' },
      refusal: { reason: 'changed elsewhere', canBeLaidOver: true },
    });
    queue.layOver();
    await settle();
    expect([waiting[2]!.body!.revision, waiting[2]!.body!.recipe!.title]).toEqual([5, 'Mine']);
  });

  it.each([
    ['nobody answers', () => new TypeError('Failed to fetch')],
    ['somebody else answers', () => answer(502, '<html>')],
    ['the answer breaks off', () => answer(200, '{"id":"j","ti')],
  ])('are sent again under the same name when %s', async (_, failure) => {
    const queue = open();
    queue.change({ title: 'A' });
    await settle();
    waiting[0]!.answer(failure());
    await vi.advanceTimersByTimeAsync(100);
    expect(queue.state.saving).toBe('away');
    // The server is looked for until it is heard, or asked again after a while.
    for (let i = 0; i < 5 && waiting.at(-1)!.method === 'GET' && waiting.at(-1)!.path !== '/api/health'; i += 1)
      await vi.advanceTimersByTimeAsync(1000);
    await vi.advanceTimersByTimeAsync(2500);
    waiting.find((one) => one.path === '/api/health')?.answer(answer(200, { ok: true }));
    await vi.advanceTimersByTimeAsync(1100);
    const again = waiting.filter((one) => one.method === 'PUT');
    expect(again.map((one) => [one.body!.edit, one.body!.revision])).toEqual([
      ['e1', 1],
      ['e1', 1],
    ]);
    again[1]!.answer(answer(200, jobOf('A', 2)));
    await settle();
    expect(queue.state.saving).toBe('saved');
  });

  it('that the server does not take are shown as refused, and not sent again', async () => {
    const queue = open();
    queue.change({ title: '' });
    await settle();
    waiting[0]!.answer(answer(400, { code: 'body-invalid', title: 'The title is empty.' }));
    await settle();
    expect(queue.state).toMatchObject({
      saving: 'refused',
      refusal: { reason: 'The title is empty.', canBeLaidOver: false },
    });
    expect(waiting).toHaveLength(1);
  });

  it('ask nothing of the browser’s idea of being online', async () => {
    vi.stubGlobal('navigator', { onLine: false });
    const queue = open();
    queue.change({ title: 'A' });
    await settle();
    waiting[0]!.answer(answer(200, { ...jobOf('A', 2), recipe: patchRecipe(emptyRecipe('0'), { title: 'A' }) }));
    await settle();
    expect(queue.state.saving).toBe('saved');
  });
});
