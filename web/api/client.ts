import { makerAtWork } from './maker.js';
import { heard, unheard } from './presence.js';

/** A failure the server explained, as it may be shown. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    /** The field that is wrong, where the server names one. */
    readonly path?: string,
    /** What is wrong line by line, of a file. */
    readonly lines?: readonly { readonly line: number; readonly message: string }[],
  ) {
    super(message);
    this.name = 'ApiProblem';
  }

  /** Nobody answered, or what answered was not the server: asking again later may help. */
  get isAway(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504;
  }
}

interface AskOptions {
  readonly method?: string;
  readonly json?: unknown;
  readonly bytes?: Blob;
  readonly signal?: AbortSignal;
}

/** Asks the server. @throws ApiProblem with a sentence that can be shown, also when there is no server to be reached */
export async function ask<T>(path: string, options: AskOptions = {}): Promise<T> {
  return (await askWithHeaders<T>(path, options)).value;
}

/** The same, with what the answer's headers say. */
export async function askWithHeaders<T>(
  path: string,
  options: AskOptions = {},
): Promise<{ readonly value: T; readonly headers: Headers }> {
  const response = await answerTo(path, options);
  try {
    return { value: (await response.json()) as T, headers: response.headers };
  } catch (error) {
    if (options.signal?.aborted) throw error;
    throw new ApiProblem(
      0,
      'broken-off',
      'The answer broke off, so it is not known whether this was done. Look, and try it again.',
    );
  }
}

/** The same for what is answered as bytes. */
export async function askBytes(path: string): Promise<Uint8Array> {
  return new Uint8Array(await (await answerTo(path, {})).arrayBuffer());
}

async function answerTo(path: string, { method = 'GET', json, bytes, signal }: AskOptions): Promise<Response> {
  let response: Response;
  const maker = makerAtWork();
  try {
    response = await fetch(path, {
      method,
      ...(json !== undefined ? { body: JSON.stringify(json) } : bytes ? { body: bytes } : {}),
      headers: {
        ...(json !== undefined
          ? { 'Content-Type': 'application/json' }
          : bytes
            ? { 'Content-Type': 'application/octet-stream' }
            : {}),
        ...(maker ? { 'Lantern-Maker': maker } : {}),
      },
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    unheard();
    throw new ApiProblem(
      0,
      'offline',
      'The bench computer does not answer, so this was not done. Try it again when it is back.',
    );
  }
  heard();
  if (!response.ok) {
    const problem = (await response.json().catch(() => ({}))) as {
      code?: string;
      title?: string;
      path?: string;
      lines?: { line: number; message: string }[];
    };
    // A device that was sent away, or never came in: there is one thing it can do.
    if (problem.code === 'not-let-in' && window.location.pathname !== '/let-in') window.location.replace('/let-in');
    throw new ApiProblem(
      response.status,
      problem.code ?? 'unknown',
      problem.title ?? 'That did not work.',
      problem.path,
      problem.lines,
    );
  }
  return response;
}
