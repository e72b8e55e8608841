import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { emptyRecipe, parseRecipe, type Job, type JobState, type JobSummary, type Recipe } from '../../core/job/index.js';
import { Problem } from '../problem.js';

interface JobRow {
  readonly id: string;
  readonly title: string;
  readonly customer: string;
  readonly due: string | null;
  readonly position: number;
  readonly sheets_total: number | null;
  readonly updated_at: string;
  readonly deleted_at: string | null;
  readonly artwork_id: string | null;
  readonly parts: number;
  readonly words: string | null;
  readonly running: number;
  readonly sheets_cut: number;
  readonly first_position: number;
  readonly last_position: number;
}

interface RecipeRow {
  readonly job_id: string;
  readonly position: number;
  readonly recipe: string;
}

/** The file of a recipe's first part that has one; recipes before version 3 had files for parts. */
const FIRST_FILE = `coalesce(json_extract(recipe, '$.artworks[0].source.id'), json_extract(recipe, '$.artworks[1].source.id'), case when json_extract(recipe, '$.version') < 3 then json_extract(recipe, '$.artworks[0].id') end)`;

/** Steps that can be undone; older ones are dropped. */
const HISTORY = 400;

/** Jobs and the history of their recipes. Undo is a step back in that list; nothing derived is stored. */
export class JobStore {
  constructor(private readonly db: Knex) {}

  async list(search: string, state: JobState | null): Promise<JobSummary[]> {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    const rows = await this.#rows().whereNull('jobs.deleted_at').orderByRaw('jobs.due is null, jobs.due, jobs.updated_at desc');
    return rows
      .map(summaryOf)
      .filter((job) => words.every((word) => `${job.title} ${job.customer}`.toLowerCase().includes(word)) && (state === null || job.state === state));
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<Job> {
    const row = await this.#rows().where('jobs.id', id).first();
    if (!row) throw new Problem(404, 'job-unknown', 'There is no such job.');
    const stored = await this.db<RecipeRow>('recipes').where({ job_id: id, position: row.position }).first();
    const recipe = parseRecipe(JSON.parse(stored!.recipe), `job ${id}`);
    return {
      ...summaryOf(row),
      recipe,
      revision: row.position,
      canUndo: row.position > row.first_position,
      canRedo: row.position < row.last_position,
      deleted: row.deleted_at !== null,
    };
  }

  async create(recipe: Recipe = emptyRecipe('New job')): Promise<Job> {
    const id = randomUUID();
    const now = new Date().toISOString();
    await this.db.transaction(async (tx) => {
      await tx('jobs').insert({ id, ...head(recipe), position: 1, created_at: now, updated_at: now });
      await tx('recipes').insert({ job_id: id, position: 1, recipe: JSON.stringify(recipe), created_at: now });
    });
    return this.get(id);
  }

  async duplicate(id: string): Promise<Job> {
    const { recipe } = await this.get(id);
    return this.create({ ...recipe, title: `${recipe.title} (copy)`.slice(0, 200), due: null });
  }

  /** Adds a step to the history; what had been undone is forgotten. @throws Problem 409 when `revision` is not the current one */
  async change(id: string, recipe: Recipe, revision: number): Promise<Job> {
    await this.db.transaction(async (tx) => {
      const now = new Date().toISOString();
      const next = revision + 1;
      const changed = await tx('jobs').where({ id, position: revision }).update({ ...head(recipe), position: next, updated_at: now });
      if (changed === 0) {
        const known = await tx('jobs').where({ id }).first();
        throw known
          ? new Problem(409, 'job-changed', 'This job was changed in another window. Your last change was not saved; the newest state is shown.')
          : new Problem(404, 'job-unknown', 'There is no such job.');
      }
      await tx('recipes').where({ job_id: id }).andWhere('position', '>', revision).delete();
      await tx('recipes').insert({ job_id: id, position: next, recipe: JSON.stringify(recipe), created_at: now });
      await tx('recipes').where({ job_id: id }).andWhere('position', '<=', next - HISTORY).delete();
    });
    return this.get(id);
  }

  /** One step back or forward in the history; a step that does not exist leaves the job as it is. */
  async step(id: string, by: -1 | 1): Promise<Job> {
    const job = await this.get(id);
    const position = job.revision + by;
    const stored = await this.db<RecipeRow>('recipes').where({ job_id: id, position }).first();
    if (!stored) return job;
    const recipe = parseRecipe(JSON.parse(stored.recipe), `job ${id}`);
    await this.db('jobs').where({ id }).update({ ...head(recipe), position, updated_at: new Date().toISOString() });
    return this.get(id);
  }

  /** Deleting hides the job; it can be brought back. */
  async setDeleted(id: string, deleted: boolean): Promise<Job> {
    await this.db('jobs').where({ id }).update({ deleted_at: deleted ? new Date().toISOString() : null });
    return this.get(id);
  }

  async setSheetsTotal(id: string, sheets: number): Promise<void> {
    await this.db('jobs').where({ id }).update({ sheets_total: sheets });
  }

  #rows(): Knex.QueryBuilder<object, JobRow[]> {
    return this.db('jobs').select<JobRow[]>(
      'jobs.*',
      this.db.raw(`(select ${FIRST_FILE} from recipes r where r.job_id = jobs.id and r.position = jobs.position) as artwork_id`),
      this.db.raw(`(select json_array_length(recipe, '$.artworks') from recipes r where r.job_id = jobs.id and r.position = jobs.position) as parts`),
      this.db.raw(`(select json_extract(recipe, '$.artworks[0].lettering.text') from recipes r where r.job_id = jobs.id and r.position = jobs.position) as words`),
      this.db.raw(`(select count(*) from runs where runs.job_id = jobs.id and runs.finished_at is null) as running`),
      this.db.raw(`(select count(distinct sheet) from runs where runs.job_id = jobs.id and runs.state = 'finished') as sheets_cut`),
      this.db.raw(`(select min(position) from recipes r where r.job_id = jobs.id) as first_position`),
      this.db.raw(`(select max(position) from recipes r where r.job_id = jobs.id) as last_position`),
    ) as unknown as Knex.QueryBuilder<object, JobRow[]>;
  }
}

function head(recipe: Recipe): { title: string; customer: string; due: string | null } {
  return { title: recipe.title, customer: recipe.customer, due: recipe.due };
}

function summaryOf(row: JobRow): JobSummary {
  const cut = row.sheets_total !== null && row.sheets_total > 0 && row.sheets_cut >= row.sheets_total;
  const state: JobState = row.running > 0 ? 'cutting' : cut ? 'cut' : row.parts > 0 ? 'in work' : 'new';
  return { id: row.id, title: row.title, customer: row.customer, due: row.due, state, updatedAt: row.updated_at, artworkId: row.artwork_id, words: row.words };
}
