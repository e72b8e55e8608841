import type { Context } from 'koa';
import type { Told } from './compute/compute.js';
import { openEventStream } from './event-stream.js';
import { Problem } from './problem.js';

/** How work that is streamed tells how far it is, or what it waits for, and is stopped. */
export interface WorkHow {
  readonly onProgress: (told: Told) => void;
  readonly signal: AbortSignal;
}

/** Answers with server-sent events while something is worked out: “progress” from 0 to 1, “waits” with what is worked on instead, then what came of it, or “failed” with a sentence. It is stopped when the page goes away. */
export function streamWork(
  ctx: Context,
  { event, failed }: { readonly event: string; readonly failed: string },
  work: (how: WorkHow) => Promise<unknown>,
): undefined {
  const stop = new AbortController();
  const stream = openEventStream(ctx, () => stop.abort());
  work({
    onProgress: (told) => stream.send('done' in told ? 'progress' : 'waits', told, { whole: true }),
    signal: stop.signal,
  })
    .then((made) => stream.send(event, made))
    .catch((error: unknown) => {
      if (!stop.signal.aborted) stream.send('failed', { title: error instanceof Problem ? error.message : failed });
    })
    .finally(() => stream.end());
  return undefined;
}
