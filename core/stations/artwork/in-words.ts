import { Refusal } from '../../engines/artwork/index.js';
import { InputError } from '../../words/index.js';

/** What reading gives; a file that is refused is refused in words. @throws InputError in place of a Refusal, other errors as they come */
export async function inWords<T>(read: () => T | Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    // Few files are refused: the sentences are fetched with the first.
    const { sayRefusal } = await import('./say-refusal.js');
    throw new InputError(error.code, sayRefusal(error), {
      source: error.source,
      ...(error.path === undefined ? {} : { path: error.path }),
      cause: error,
    });
  }
}
