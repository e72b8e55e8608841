import type { Context } from 'koa';
import { openEventStream } from './event-stream.js';
import { Problem } from './problem.js';

/** How work that is streamed tells how far it is, 0 to 1, and is stopped. */
export interface WorkHow {
  readonly onProgress: (done: number) => void;
  readonly signal: AbortSignal;
}

/** Answers with server-sent events while something is worked out: “progress” from 0 to 1, then what came of it, or “failed” with a sentence. It is stopped when the page goes away. */
export function streamWork(
  ctx: Context,
  { event, failed }: { readonly event: string; readonly failed: string },
  work: (how: WorkHow) => Promise<unknown>,
): undefined {
  const stop = new AbortController();
  const stream = openEventStream(ctx, () => stop.abort());
  work({ onProgress: (done) => stream.send('progress', { done }, { whole: true }), signal: stop.signal })
    .then((made) => stream.send(event, made))
    .catch((error: unknown) => {
      if (!stop.signal.aborted) stream.send('failed', { title: error instanceof Problem ? error.message : failed });
    })
    .finally(() => stream.end());
  return undefined;
}
