import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { type Batch } from '../../core/batch/index.js';
import type { SparesOfKinds } from '../../core/engines/learning/index.js';
import { NEW_LAY_WISH, type LayWish } from '../../core/laying/index.js';
import { NEW_LONE_WISH } from '../../core/stations/sheets/index.js';
import { Problem } from '../problem.js';

/** A change of a batch: other decisions, other jobs, or both. */
export interface BatchChange {
  readonly wish?: LayWish;
  readonly jobIds?: readonly string[];
}

interface BatchRow {
  readonly id: string;
  readonly number: number;
  readonly revision: number;
  readonly wish: string;
  readonly created_at: string;
}

/**
 * Batches: every job that waits is in exactly one. Those that have a number were put together by somebody, and end when they have no job left. A job in none of them is alone in a batch of its own,
 * which has the job’s id. Check and act are one transaction.
 */
export class BatchStore {
  constructor(
    private readonly db: Knex,
    private readonly learnedSpares: () => Promise<SparesOfKinds>,
    private readonly onChanged: () => void = () => {},
  ) {}

  /** Those with a number that have not ended, the oldest first. */
  async list(): Promise<Batch[]> {
    const rows = (await this.db('batches').whereNull('ended_at').orderBy('number')) as BatchRow[];
    return Promise.all(rows.map((row) => this.#whole(row)));
  }

  /** A batch, or that of a job alone by the job’s id. @throws Problem 404, also when it has ended; 409 when the job is cut with others */
  async get(id: string): Promise<Batch> {
    return (await loneOf(this.db, id)) ?? this.#whole(await rowOf(this.db, id));
  }

  /** The batch in which a job is cut with others; null for one that is cut alone. */
  ofJob(jobId: string): Promise<Together | null> {
    return togetherOf(this.db, jobId);
  }

  /** Puts jobs together; those that lie in another batch leave it. @throws Problem 404 when one is not there */
  async create(jobIds: readonly string[]): Promise<Batch> {
    const id = randomUUID();
    // There is one connection: what is asked of the shop's own runs is asked before it is taken.
    const learned = await this.learnedSpares();
    await this.db.transaction(async (tx) => {
      const [{ most }] = (await tx('batches').max('number as most')) as [{ most: number | null }];
      // It begins as the last was decided, but for what hung on its pieces and copies, and for spares of which the shop's own runs know better.
      const last = (await tx('batches').orderBy('number', 'desc').first('wish')) as Pick<BatchRow, 'wish'> | undefined;
      const { avoid, pins, sequence, steps } = NEW_LAY_WISH;
      const before = wishOf(last);
      const spareShare = (kind: keyof LayWish['spares']) =>
        learned[kind].cut > 0 ? learned[kind].share : before.spares[kind];
      const wish: LayWish = {
        ...before,
        spares: { single: spareShare('single'), layered: spareShare('layered') },
        avoid,
        pins,
        sequence,
        steps,
        order: before.order === 'by hand' ? 'changes' : before.order,
      };
      await tx('batches').insert({
        id,
        number: (most ?? 0) + 1,
        revision: 1,
        wish: JSON.stringify(wish),
        created_at: new Date().toISOString(),
      });
      await lay(tx, id, jobIds);
    });
    this.onChanged();
    return this.get(id);
  }

  /** @throws Problem 404; 409 when it was changed since the revision that this was made from, or when other jobs are laid into the batch of a job alone */
  async change(id: string, revision: number, { wish, jobIds }: BatchChange): Promise<Batch> {
    const lone = await loneOf(this.db, id);
    if (lone) return this.#changeLone(id, revision, { wish: wish ?? lone.wish, ...(jobIds && { jobIds }) });
    await this.#write(id, revision, async (tx) => {
      if (wish)
        await tx('batches')
          .where({ id })
          .update({ wish: JSON.stringify(wish) });
      if (jobIds) await lay(tx, id, jobIds);
    });
    return this.get(id);
  }

  /** Takes it apart: its jobs are cut alone again. What was cut of it stays cut. @throws as change() does */
  async end(id: string, revision: number): Promise<void> {
    await this.#write(id, revision, (tx) => lay(tx, id, []));
  }

  async #changeLone(
    jobId: string,
    revision: number,
    { wish, jobIds }: BatchChange & { readonly wish: LayWish },
  ): Promise<Batch> {
    if (jobIds && (jobIds.length !== 1 || jobIds[0] !== jobId))
      throw new Problem(
        409,
        'batch-of-one',
        'This job is cut alone. To cut it with others, put them together on the cutting list.',
      );
    await this.db.transaction(async (tx) => {
      const now = await loneOf(tx, jobId);
      mustBeNewest(now?.revision, revision);
      await tx('lone_batches')
        .insert({ job_id: jobId, revision: revision + 1, wish: JSON.stringify(wish) })
        .onConflict('job_id')
        .merge();
    });
    this.onChanged();
    return this.get(jobId);
  }

  async #write(id: string, revision: number, act: (tx: Knex) => Promise<void>): Promise<void> {
    await this.db.transaction(async (tx) => {
      const row = await rowOf(tx, id);
      mustBeNewest(row.revision, revision);
      await tx('batches')
        .where({ id })
        .update({ revision: revision + 1 });
      await act(tx);
    });
    this.onChanged();
  }

  async #whole(row: BatchRow): Promise<Batch> {
    const jobs = (await this.db('batch_jobs')
      .join('jobs', 'jobs.id', 'batch_jobs.job_id')
      .where({ batch_id: row.id })
      .whereNull('jobs.deleted_at')
      .orderBy('batch_jobs.position')
      .select('jobs.id', 'jobs.title', 'jobs.customer', 'jobs.due')) as Batch['jobs'];
    return {
      id: row.id,
      number: row.number,
      revision: row.revision,
      createdAt: row.created_at,
      wish: wishOf(row),
      jobs,
    };
  }
}

/** A batch that has a number. */
interface Together {
  readonly id: string;
  readonly number: number;
}

/** The batch in which a job is cut with others; null for one that is cut alone. */
async function togetherOf(db: Knex, jobId: string): Promise<Together | null> {
  const row = (await db('batch_jobs')
    .join('batches', 'batches.id', 'batch_jobs.batch_id')
    .where({ job_id: jobId })
    .first('batches.id', 'batches.number')) as Together | undefined;
  return row ?? null;
}

/** The batch of a job alone; null where no job has this id. @throws Problem 409 when the job is cut with others */
async function loneOf(db: Knex, jobId: string): Promise<Batch | null> {
  const job = (await db('jobs')
    .where({ id: jobId })
    .whereNull('deleted_at')
    .first('id', 'title', 'customer', 'due', 'created_at')) as
    (Batch['jobs'][number] & { readonly created_at: string }) | undefined;
  if (!job) return null;
  const together = await togetherOf(db, jobId);
  if (together)
    throw new Problem(
      409,
      'job-in-batch',
      `This job is cut together with others, in batch ${together.number}. Cut it from the cutting list, or take it out of the batch there.`,
    );
  const row = (await db('lone_batches').where({ job_id: jobId }).first()) as
    Pick<BatchRow, 'revision' | 'wish'> | undefined;
  const { created_at: createdAt, ...named } = job;
  return {
    id: jobId,
    number: null,
    revision: row?.revision ?? 0,
    createdAt,
    wish: wishOf(row, NEW_LONE_WISH),
    jobs: [named],
  };
}

/** @throws Problem 409 when a batch was changed since the revision that a change was made from */
function mustBeNewest(now: number | undefined, revision: number): void {
  if (now !== revision)
    throw new Problem(
      409,
      'batch-changed',
      'This batch was changed somewhere else in the meantime, so this change was not saved. The newest state is shown now.',
    );
}

/** What was decided of a batch; what was not yet to be decided when it was kept is as in a new one. */
function wishOf(row: Pick<BatchRow, 'wish'> | undefined, beginning = NEW_LAY_WISH): LayWish {
  return { ...beginning, ...(row ? (JSON.parse(row.wish) as Partial<LayWish>) : {}) };
}

async function rowOf(db: Knex, id: string): Promise<BatchRow> {
  const row = (await db('batches').where({ id }).whereNull('ended_at').first()) as BatchRow | undefined;
  if (!row)
    throw new Problem(
      404,
      'batch-unknown',
      'There is no such batch any more. Its jobs may have been put together otherwise. Look at the cutting list.',
    );
  return row;
}

/** Lays exactly these jobs into a batch. A batch that is left without jobs, this one or another, has ended with it. What was decided of a job alone ends when it is laid with others. */
async function lay(tx: Knex, batchId: string, jobIds: readonly string[]): Promise<void> {
  const known = (await tx('jobs').whereIn('id', jobIds).whereNull('deleted_at').select('id')) as { id: string }[];
  if (known.length < new Set(jobIds).size)
    throw new Problem(404, 'job-unknown', 'One of these jobs is not there any more. Look at the list again.');
  const others = (await tx('batch_jobs')
    .whereIn('job_id', jobIds)
    .whereNot({ batch_id: batchId })
    .distinct('batch_id')) as { batch_id: string }[];
  await tx('batch_jobs').where({ batch_id: batchId }).orWhereIn('job_id', jobIds).delete();
  await tx.batchInsert(
    'batch_jobs',
    [...new Set(jobIds)].map((jobId, position) => ({ job_id: jobId, batch_id: batchId, position })),
    100,
  );
  await tx('lone_batches')
    .whereIn('job_id', jobIds)
    .update({ revision: tx.raw('revision + 1'), wish: JSON.stringify(NEW_LONE_WISH) });
  await tx('batches')
    .whereIn(
      'id',
      others.map(({ batch_id: id }) => id),
    )
    .increment('revision');
  await tx('batches')
    .whereNull('ended_at')
    .whereNotIn('id', tx('batch_jobs').select('batch_id'))
    .update({ ended_at: new Date().toISOString() });
}
