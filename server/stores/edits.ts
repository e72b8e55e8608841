import type { Knex } from 'knex';

/*
 * Writes that were done, by the name that the page gave each. One that is sent again, because its answer was lost, is not done twice and is answered as the first time, also when it
 * changed nothing, and whatever was written in between.
 */

interface EditRow {
  readonly of: string;
  readonly name: string;
  readonly answer: string;
}

/** What a write was answered when it was done; null when it was not. `of` is a job's id, or “shop”. */
export async function answerOfEdit(tx: Knex, of: string, name: string): Promise<{ readonly answer: unknown } | null> {
  const row = (await tx('edits').where({ of, name }).first('answer')) as Pick<EditRow, 'answer'> | undefined;
  return row ? { answer: JSON.parse(row.answer) as unknown } : null;
}

/** Remembers a write in the transaction in which it is done. */
export async function rememberEdit(
  tx: Knex,
  { of, name, answer }: { readonly of: string; readonly name: string; readonly answer?: unknown },
): Promise<void> {
  await tx('edits').insert({ of, name, answer: JSON.stringify(answer ?? null), at: new Date().toISOString() });
}
