import { PassThrough } from 'node:stream';
import type { Context } from 'koa';

export interface EventStream {
  /**
   * Sends an event. `id` is what the page names when it comes back after a broken line; by itself events are counted on from there. One that is
   * `whole` says all that a page must know: while the page is slow to read, only the newest of its name waits for it.
   */
  readonly send: (event: string, data: unknown, options?: { readonly id?: string; readonly whole?: boolean }) => void;
  readonly end: () => void;
}

/** The last event that the page had before its line broke; null for a page that is new. */
export function lastEventOf(ctx: Context): string | null {
  return ctx.get('last-event-id') || null;
}

/** Answers a request with server-sent events, and calls `onClose` when the page goes away. */
export function openEventStream(ctx: Context, onClose: () => void): EventStream {
  const stream = new PassThrough();
  ctx.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' });
  ctx.status = 200;
  ctx.body = stream;
  ctx.req.socket.setNoDelay(true);
  let count = Number(lastEventOf(ctx)) || 0;
  let isFull = false;
  let isEnding = false;
  const waiting = new Map<string, string>();
  const write = (text: string) => {
    isFull = !stream.write(text) || isFull;
  };
  const drain = () => {
    isFull = false;
    for (const [event, text] of waiting) {
      if (isFull) return;
      waiting.delete(event);
      write(text);
    }
    if (isEnding && waiting.size === 0) stream.end();
  };
  stream.on('drain', drain);
  // A line now and then, so that a vanished page is noticed.
  const beat = setInterval(() => !isFull && write(': still here\n\n'), 15_000);
  ctx.req.once('close', () => {
    clearInterval(beat);
    waiting.clear();
    stream.off('drain', drain);
    onClose();
  });
  return {
    send: (event, data, { id, whole = false } = {}) => {
      count += 1;
      const text = `id: ${id ?? count}\nevent: ${event}\ndata: ${JSON.stringify(data)}\n\n`;
      if (whole && isFull) {
        // Taken out first, so that it stands where it belongs among the others.
        waiting.delete(event);
        waiting.set(event, text);
      } else if (waiting.size > 0) waiting.set(`${event} ${count}`, text);
      else write(text);
    },
    end: () => {
      clearInterval(beat);
      isEnding = true;
      if (waiting.size === 0) stream.end();
    },
  };
}
