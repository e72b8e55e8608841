import type { Knex } from 'knex';
import { learnSpares, type SparesOfKinds } from '../../core/engines/learning/index.js';
import { copiesCut, type SpoiledOfJob } from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import type { JobStore } from './job-store.js';
import type { SheetStore } from './sheet-store.js';

/** Hands change: so many of the newest runs teach. */
const NEWEST = 300;

interface SpoilRow {
  readonly spoiled: number;
  readonly cut: number;
  readonly is_layered: number | boolean;
}

/** What was spoiled of jobs while it was weeded and laid, and how many spares that teaches. */
export class SpoilStore {
  constructor(
    private readonly db: Knex,
    private readonly sheets: Pick<SheetStore, 'ofJob'>,
    private readonly jobs: Pick<JobStore, 'toCut'>,
  ) {}

  async ofJob(jobId: string): Promise<SpoiledOfJob> {
    const row = (await this.db('spoils').where({ job_id: jobId }).first('spoiled')) as
      Pick<SpoilRow, 'spoiled'> | undefined;
    return { spoiled: row?.spoiled ?? null, cut: (await this.#cut(jobId)).copies };
  }

  /** Keeps how many of what is cut by now were spoiled; null for not known. @throws Problem 422 when more were spoiled than cut */
  async record(jobId: string, spoiled: number | null): Promise<SpoiledOfJob> {
    const { copies: cut, isLayered } = await this.#cut(jobId);
    if (spoiled === null) {
      await this.db('spoils').where({ job_id: jobId }).delete();
      return { spoiled, cut };
    }
    if (spoiled > cut)
      throw new Problem(
        422,
        'more-spoiled-than-cut',
        `${cut} ${cut === 1 ? 'copy' : 'copies'} of this job ${cut === 1 ? 'is' : 'are'} cut, so no more than that can be spoiled.`,
      );
    await this.db('spoils')
      .insert({ job_id: jobId, spoiled, cut, is_layered: isLayered, recorded_at: new Date().toISOString() })
      .onConflict('job_id')
      .merge();
    return { spoiled, cut };
  }

  async #cut(jobId: string): Promise<ReturnType<typeof copiesCut>> {
    return copiesCut(await this.sheets.ofJob(jobId), jobId, await this.jobs.toCut(jobId));
  }

  /** How many spares the shop's own runs ask for; those of the trade while nothing is known. */
  async learned(): Promise<SparesOfKinds> {
    const rows = (await this.db('spoils')
      .orderBy('recorded_at', 'desc')
      .limit(NEWEST)
      .select('spoiled', 'cut', 'is_layered')) as SpoilRow[];
    return learnSpares(rows.map(({ spoiled, cut, is_layered }) => ({ spoiled, cut, isLayered: Boolean(is_layered) })));
  }
}
