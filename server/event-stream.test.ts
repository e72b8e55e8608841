import { EventEmitter } from 'node:events';
import type { PassThrough } from 'node:stream';
import type { Context } from 'koa';
import { describe, expect, it } from 'vitest';
import { openEventStream } from './event-stream.js';

/** A page that reads only when it is told to. */
function page(lastId = '') {
  const request = Object.assign(new EventEmitter(), { socket: { setNoDelay: () => {} } });
  const ctx = { get: () => lastId, set: () => {}, req: request, status: 0, body: null as unknown };
  let closed = 0;
  const stream = openEventStream(ctx as unknown as Context, () => (closed += 1));
  const body = ctx.body as PassThrough;
  const read = async () => {
    let text = '';
    for (let idle = 0; idle < 3; idle += 1) {
      for (let chunk = body.read() as Buffer | null; chunk; chunk = body.read() as Buffer | null) {
        text += chunk.toString();
        idle = 0;
      }
      await new Promise((done) => setImmediate(done));
    }
    return [...text.matchAll(/^id: (.*)\nevent: (.*)\ndata: (.*)\n\n/gm)].map((m) => ({
      id: m[1]!,
      event: m[2]!,
      data: JSON.parse(m[3]!) as unknown,
    }));
  };
  return { stream, read, request, isClosed: () => closed > 0, body };
}

const LARGE = 'x'.repeat(20_000);

describe('a stream of events', () => {
  it('numbers them on from the last one a page had', async () => {
    const { stream, read } = page('41');
    stream.send('progress', 1);
    stream.send('change', 2, { id: 'boot.7' });
    stream.send('progress', 3);
    expect((await read()).map(({ id }) => id)).toEqual(['42', 'boot.7', '44']);
  });

  it('keeps only the newest of what says everything anew for a page that is slow to read', async () => {
    const { stream, read } = page();
    for (let i = 0; i < 200; i += 1) stream.send('progress', { i, LARGE }, { whole: true });
    const got = (await read()) as { data: { i: number } }[];
    expect(got.length).toBeLessThan(10);
    expect(got.at(-1)!.data.i).toBe(199);
  });

  it('loses none of the others, keeps their order, and ends only when all are sent', async () => {
    const { stream, read, body } = page();
    for (let i = 0; i < 50; i += 1) {
      stream.send('progress', { i, LARGE }, { whole: true });
      stream.send('change', { i });
    }
    stream.send('ended', {});
    stream.end();
    const got = (await read()) as { event: string; data: { i: number } }[];
    expect(got.filter(({ event }) => event === 'change').map(({ data }) => data.i)).toEqual(
      Array.from({ length: 50 }, (_, i) => i),
    );
    expect(got.filter(({ event }) => event === 'progress').at(-1)!.data.i).toBe(49);
    expect(got.at(-1)!.event).toBe('ended');
    expect(body.readableEnded || body.writableEnded).toBe(true);
  });

  it('forgets a page that went away', async () => {
    const { stream, request, isClosed } = page();
    request.emit('close');
    expect(isClosed()).toBe(true);
    stream.send('progress', 1);
    stream.end();
  });
});
