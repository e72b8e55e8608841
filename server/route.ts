import type Router from '@koa/router';
import type { Context } from 'koa';
import { Ajv, type ValidateFunction } from 'ajv';
import { describeSchemaError } from '../core/recipe/index.js';
import type { AnswerName } from './answers.js';
import { Problem } from './problem.js';
import { askingDevice } from './sharing/shared-security.js';

export type Schema = Readonly<Record<string, unknown>>;

/** One entry of the API: what the router serves, what Ajv checks and what the OpenAPI document says come from here. */
export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** With :parameters. */
  readonly path: string;
  readonly summary: string;
  readonly query?: Readonly<Record<string, Schema>>;
  /** JSON schema of the body; 'bytes' takes it as it comes. */
  readonly body?: Schema | 'bytes';
  /** The most bytes of a body that are read, where it is not what is usual. */
  readonly most?: number;
  /** Work at the bench: a device that was let in may do it too. Whatever else changes something is for the bench computer alone. */
  readonly isBench?: true;
  /** Not even to be read by a device. */
  readonly isPrivate?: true;
  /** What is answered, in words. */
  readonly answers: string;
  /** The schema of a JSON answer, by its name in the document. */
  readonly answer?: AnswerName;
  /** The value becomes the JSON body; undefined when the handler has answered by itself. */
  readonly handle: (request: RouteRequest) => Promise<unknown>;
}

export interface RouteRequest {
  readonly ctx: Context;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string>>;
  readonly body: unknown;
  readonly bytes: Uint8Array;
  /** Aborted when whoever asked has left: what nobody waits for is not worked on. */
  readonly signal: AbortSignal;
}

const LARGEST_JSON = 1024 * 1024;
/** Artwork above this is refused before it is read to its end. */
export const LARGEST_UPLOAD = 64 * 1024 * 1024;

export function register(router: Router, routes: readonly Route[]): void {
  const ajv = new Ajv({ allErrors: false, strict: false, discriminator: true });
  for (const route of routes) {
    const checkBody = route.body && route.body !== 'bytes' ? ajv.compile(route.body) : null;
    const checkQuery = ajv.compile({ type: 'object', properties: route.query ?? {} });
    router[route.method](route.path, async (ctx) => {
      if (askingDevice(ctx) && (route.isPrivate || (route.method !== 'get' && !route.isBench)))
        throw new Problem(
          403,
          'bench-only',
          'This can be done on the bench computer only. Here you can weed, assemble, cut, and book film.',
        );
      const query = Object.fromEntries(Object.entries(ctx.query).map(([name, value]) => [name, String(value)]));
      check(checkQuery, query, 'query');
      if (route.body) checkMediaType(ctx, route.body === 'bytes' ? 'application/octet-stream' : 'application/json');
      const bytes = route.body
        ? await readBody(ctx, route.most ?? (route.body === 'bytes' ? LARGEST_UPLOAD : LARGEST_JSON))
        : new Uint8Array();
      const body = checkBody ? parseJson(bytes) : undefined;
      if (checkBody) check(checkBody, body, 'body');
      const answer = await route.handle({
        ctx,
        params: ctx['params'] as Record<string, string>,
        query,
        body,
        bytes,
        signal: leavingOf(ctx),
      });
      if (answer !== undefined) {
        ctx.set('Cache-Control', 'no-store');
        ctx.body = JSON.stringify(answer);
        ctx.type = 'application/json';
      }
    });
  }
}

function leavingOf(ctx: Context): AbortSignal {
  const left = new AbortController();
  ctx.res.once('close', () => {
    if (!ctx.res.writableFinished) left.abort(new Problem(499, 'left', 'Whoever asked has left.'));
  });
  return left.signal;
}

function check(validate: ValidateFunction, value: unknown, what: string): void {
  if (validate(value)) return;
  const { path, reason } = describeSchemaError(validate.errors ?? []);
  throw new Problem(400, `${what}-invalid`, `The request’s ${what} is not right: ${path} ${reason}.`, path);
}

/** A body is what it says it is, or is not read: JSON that was sent as text may be another page's form. */
function checkMediaType(ctx: Context, wanted: string): void {
  const [type = ''] = ctx.get('content-type').split(';');
  if (type.trim().toLowerCase() !== wanted)
    throw new Problem(
      415,
      'media-type',
      `The request’s body must be ${wanted}, not ${type.trim() === '' ? 'of no named type' : type.trim().slice(0, 80)}.`,
    );
}

async function readBody(ctx: Context, most: number): Promise<Uint8Array> {
  const stated = Number(ctx.get('content-length') || 0);
  const tooLarge = new Problem(413, 'too-large', `It is too large: at most ${Math.round(most / 1e6)} MB are taken.`);
  if (stated > most) throw tooLarge;
  const parts: Buffer[] = [];
  let size = 0;
  try {
    for await (const part of ctx.req as AsyncIterable<Buffer>) {
      size += part.length;
      if (size > most) throw tooLarge;
      parts.push(part);
    }
  } catch (error) {
    // Whoever sends it has hung up in the middle: nobody hears the answer, and it is no failure of ours.
    throw error === tooLarge || ctx.req.complete ? error : new Problem(499, 'left', 'Whoever asked has left.');
  }
  return Buffer.concat(parts);
}

function parseJson(bytes: Uint8Array): unknown {
  try {
    return bytes.length === 0 ? {} : JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new Problem(400, 'body-invalid', 'The request’s body is not JSON.');
  }
}
