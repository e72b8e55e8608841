import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { type Batch } from '../../core/batch/index.js';
import type { SparesOfKinds } from '../../core/engines/learning/index.js';
import { NEW_LAY_WISH, type LayWish } from '../../core/stations/sheets/index.js';
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

/** Batches. A job lies in one at most; one without jobs has ended. Check and act are one transaction. */
export class BatchStore {
  constructor(
    private readonly db: Knex,
    private readonly learnedSpares: () => Promise<SparesOfKinds>,
    private readonly onChanged: () => void = () => {},
  ) {}

  /** Those that have not ended, the oldest first. */
  async list(): Promise<Batch[]> {
    const rows = (await this.db('batches').whereNull('ended_at').orderBy('number')) as BatchRow[];
    return Promise.all(rows.map((row) => this.#whole(row)));
  }

  /** @throws Problem 404, also when it has ended */
  async get(id: string): Promise<Batch> {
    return this.#whole(await rowOf(this.db, id));
  }

  /** The batch that a job is cut in; null for one that is cut alone. */
  async ofJob(jobId: string): Promise<{ readonly id: string; readonly number: number } | null> {
    return (
      ((await this.db('batch_jobs')
        .join('batches', 'batches.id', 'batch_jobs.batch_id')
        .where({ job_id: jobId })
        .first('batches.id', 'batches.number')) as { id: string; number: number } | undefined) ?? null
    );
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

  /** @throws Problem 404; 409 when it was changed since the revision that this was made from */
  async change(id: string, revision: number, { wish, jobIds }: BatchChange): Promise<Batch> {
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

  async #write(id: string, revision: number, act: (tx: Knex) => Promise<void>): Promise<void> {
    await this.db.transaction(async (tx) => {
      const row = await rowOf(tx, id);
      if (row.revision !== revision)
        throw new Problem(
          409,
          'batch-changed',
          'This batch was changed somewhere else in the meantime, so this change was not saved. The newest state is shown now.',
        );
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

/** What was decided of a batch; what was not yet to be decided when it was kept is as in a new one. */
function wishOf(row: Pick<BatchRow, 'wish'> | undefined): LayWish {
  return { ...NEW_LAY_WISH, ...(row ? (JSON.parse(row.wish) as Partial<LayWish>) : {}) };
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

/** Lays exactly these jobs into a batch. A batch that is left without jobs, this one or another, has ended with it. */
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
