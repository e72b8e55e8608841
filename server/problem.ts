import type { Middleware } from 'koa';
import { diskFailureOf, type DiskFailure } from './db/disk-failure.js';
import { InputError } from '../core/words/index.js';

/** An expected failure with the status and the sentence a client may see. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly path?: string,
    /** What is wrong line by line, of a file that was handed in. */
    readonly lines?: readonly { readonly line: number; readonly message: string }[],
  ) {
    super(message);
    this.name = 'Problem';
  }
}

const DISK: Readonly<Record<DiskFailure, string>> = {
  full: 'The disk of the bench computer is full, so this was not saved. Nothing was changed. Free some space on it, then try again.',
  unwritable:
    'The disk of the bench computer cannot be written, so this was not saved. Nothing was changed. Check the disk and the rights to the data folder, then try again.',
  damaged:
    'The database on the disk of the bench computer is damaged, so this was not saved. Stop the app and restore a backup: npm run restore -- FILE.',
};

/** Turns every failure into application/problem+json (RFC 9457). What was not expected is logged and not told. */
export const problems: Middleware = async (ctx, next) => {
  try {
    await next();
    if (ctx.status === 404 && ctx.body === undefined)
      throw new Problem(404, 'not-found', 'There is nothing at this address.');
  } catch (error) {
    const problem = asProblem(error);
    // What is wrong with the disk is said in its sentence; a stack says no more.
    if (problem.status === 507) console.error(problem.message);
    else if (problem.status >= 500) console.error(error);
    ctx.status = problem.status;
    ctx.body = JSON.stringify({
      type: 'about:blank',
      status: problem.status,
      code: problem.code,
      title: problem.message,
      path: problem.path,
      lines: problem.lines,
    });
    ctx.type = 'application/problem+json';
  }
};

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const disk = diskFailureOf(error);
  if (disk) return new Problem(507, `disk-${disk}`, DISK[disk]);
  if (error instanceof InputError) return new Problem(422, error.code, error.message, error.path);
  const { status, expose, message } = error as { status?: number; expose?: boolean; message?: string };
  if (expose && status) return new Problem(status, 'bad-request', message ?? 'The request cannot be answered.');
  return new Problem(500, 'internal', 'Something went wrong in the app. The job has not changed. Try again.');
}
