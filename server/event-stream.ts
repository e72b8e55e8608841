import { PassThrough } from 'node:stream';
import type { Context } from 'koa';

/** Answers a request with server-sent events; gives a function that sends one, and calls `onClose` when the page goes away. */
export function openEventStream(ctx: Context, onClose: () => void): { send: (event: string, data: unknown) => void; end: () => void } {
  const stream = new PassThrough();
  ctx.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' });
  ctx.status = 200;
  ctx.body = stream;
  ctx.req.socket.setNoDelay(true);
  // A line now and then, so that a vanished page is noticed.
  const beat = setInterval(() => stream.write(': still here\n\n'), 15_000);
  const close = () => {
    clearInterval(beat);
    onClose();
  };
  ctx.req.once('close', close);
  return {
    send: (event, data) => void stream.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`),
    end: () => {
      clearInterval(beat);
      stream.end();
    },
  };
}
