import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { emptyRecipe, parseRecipe, type Job, type JobState, type JobSummary, type Recipe } from '../../core/job/index.js';
import { takenCopies, type FrozenSheet } from '../../core/records/index.js';
import { Problem } from '../problem.js';
import type { SheetStore } from './sheet-store.js';

interface JobRow {
  readonly id: string;
  readonly title: string;
  readonly customer: string;
  readonly due: string | null;
  readonly position: number;
  readonly revision: number;
  readonly last_edit: string | null;
  readonly cut_key: string | null;
  readonly to_cut: string | null;
  readonly updated_at: string;
  readonly deleted_at: string | null;
  readonly recipe: string;
  readonly first_position: number;
  readonly last_position: number;
}

interface RecipeRow {
  readonly job_id: string;
  readonly position: number;
  readonly recipe: string;
}

/** Steps that can be undone; older ones are dropped. */
const HISTORY = 400;

/** A write of a job: the revision that it was made from, and a name of its own, by which it is known when it is sent twice. */
export interface Edit {
  readonly revision: number;
  readonly edit?: string;
}

/** What a job's layers came to when a sheet of it was last sent: how many copies of each, for the recipe that was known by `cutKey`. */
export interface JobToCut {
  readonly layers: readonly { readonly fingerprint: string; readonly copies: number }[];
}

/** Jobs and the history of their recipes. Undo is a step in that list; the revision grows with every write, also with undo and redo. Nothing derived is stored. */
export class JobStore {
  constructor(
    private readonly db: Knex,
    private readonly sheets: SheetStore,
    private readonly onChanged: (jobId: string, revision: number) => void = () => {},
  ) {}

  async list(search: string, state: JobState | null): Promise<JobSummary[]> {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    const [rows, sheets] = [await this.#rows().whereNull('jobs.deleted_at').orderByRaw('jobs.due is null, jobs.due, jobs.updated_at desc'), await this.sheets.ofAllJobs()];
    const byJob = new Map<string, FrozenSheet[]>();
    for (const sheet of sheets) {
      for (const jobId of new Set(sheet.groups.map((group) => group.jobId))) byJob.set(jobId, [...(byJob.get(jobId) ?? []), sheet]);
    }
    return rows
      .map((row) => summaryOf(row, byJob.get(row.id) ?? []))
      .filter((job) => words.every((word) => `${job.title} ${job.customer}`.toLowerCase().includes(word)) && (state === null || job.state === state));
  }

  /** @throws Problem 404 */
  async mustExist(id: string): Promise<void> {
    if (!(await this.db('jobs').select('id').where({ id }).first())) throw new Problem(404, 'job-unknown', 'There is no such job.');
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<Job> {
    const row = await this.#rows().where('jobs.id', id).first();
    if (!row) throw new Problem(404, 'job-unknown', 'There is no such job.');
    const recipe = parseRecipe(JSON.parse(row.recipe), `job ${id}`);
    return {
      ...summaryOf(row, await this.sheets.ofJob(id)),
      recipe,
      revision: row.revision,
      canUndo: row.position > row.first_position,
      canRedo: row.position < row.last_position,
      deleted: row.deleted_at !== null,
    };
  }

  async create(recipe: Recipe = emptyRecipe('New job')): Promise<Job> {
    const id = randomUUID();
    const now = new Date().toISOString();
    await this.db.transaction(async (tx) => {
      await tx('jobs').insert({ id, ...head(recipe), position: 1, revision: 1, created_at: now, updated_at: now });
      await tx('recipes').insert({ job_id: id, position: 1, recipe: JSON.stringify(recipe), created_at: now });
    });
    return this.get(id);
  }

  async duplicate(id: string): Promise<Job> {
    const { recipe } = await this.get(id);
    return this.create({ ...recipe, title: `${recipe.title} (copy)`.slice(0, 200), due: null });
  }

  /** Adds a step to the history; what had been undone is forgotten. @throws Problem 409 when the edit was made from another revision than the current one */
  async change(id: string, recipe: Recipe, edit: Edit): Promise<Job> {
    await this.#write(id, edit, async (tx, { position }) => {
      const next = position + 1;
      await tx('recipes').where({ job_id: id }).andWhere('position', '>', position).delete();
      await tx('recipes').insert({ job_id: id, position: next, recipe: JSON.stringify(recipe), created_at: new Date().toISOString() });
      await tx('recipes').where({ job_id: id }).andWhere('position', '<=', next - HISTORY).delete();
      return { ...head(recipe), position: next };
    });
    return this.get(id);
  }

  /** One step back or forward in the history; a step that does not exist leaves the job as it is. @throws Problem 409 as change() does */
  async step(id: string, by: -1 | 1, edit: Edit): Promise<Job> {
    await this.#write(id, edit, async (tx, row) => {
      const position = row.position + by;
      const stored = (await tx('recipes').where({ job_id: id, position }).first()) as RecipeRow | undefined;
      return stored ? { ...head(parseRecipe(JSON.parse(stored.recipe), `job ${id}`)), position } : null;
    });
    return this.get(id);
  }

  /** Deleting hides the job; it can be brought back. @throws Problem 409 while anything of it is in the cutter, or may still be */
  async setDeleted(id: string, deleted: boolean): Promise<Job> {
    await this.db.transaction(async (tx) => {
      const running = deleted && (await tx('runs').whereNull('finished_at').whereIn('sheet_id', tx('sheet_groups').select('sheet_id').where({ job_id: id })).first());
      if (running) throw new Problem(409, 'job-in-cutter', 'A sheet of this job is in the cutter. Finish or cancel the cut, then delete the job.');
      await tx('jobs').where({ id }).update({ deleted_at: deleted ? new Date().toISOString() : null });
    });
    return this.get(id);
  }

  /** Remembers what the job's layers come to at this revision of its recipe. */
  async setToCut(id: string, toCut: JobToCut): Promise<void> {
    const row = (await this.db('jobs').where({ id }).first()) as JobRow;
    await this.db('jobs').where({ id }).update({ to_cut: JSON.stringify({ cutKey: row.cut_key, layers: toCut.layers }) });
  }

  /** Check and act in one transaction. An edit that is sent again, because its answer was lost, is answered and not done twice. */
  async #write(id: string, { revision, edit }: Edit, act: (tx: Knex, row: JobRow) => Promise<Partial<JobRow> | null>): Promise<void> {
    const isChanged = await this.db.transaction(async (tx) => {
      const row = (await tx('jobs').where({ id }).first()) as JobRow | undefined;
      if (!row) throw new Problem(404, 'job-unknown', 'There is no such job.');
      if (edit !== undefined && row.last_edit === edit) return false;
      if (row.revision !== revision) throw new Problem(409, 'job-changed', 'This job was changed elsewhere meanwhile, so this change was not saved.');
      const change = await act(tx, row);
      if (change) await tx('jobs').where({ id }).update({ ...change, revision: revision + 1, last_edit: edit ?? null, updated_at: new Date().toISOString() });
      return change !== null;
    });
    if (isChanged) this.onChanged(id, revision + 1);
  }

  #rows(): Knex.QueryBuilder<object, JobRow[]> {
    return this.db('jobs')
      .join('recipes', (on) => on.on('recipes.job_id', 'jobs.id').andOn('recipes.position', 'jobs.position'))
      .select<JobRow[]>(
        'jobs.*',
        'recipes.recipe',
        this.db.raw(`(select min(position) from recipes r where r.job_id = jobs.id) as first_position`),
        this.db.raw(`(select max(position) from recipes r where r.job_id = jobs.id) as last_position`),
      ) as unknown as Knex.QueryBuilder<object, JobRow[]>;
  }
}

function head(recipe: Recipe): { title: string; customer: string; due: string | null; cut_key: string } {
  return { title: recipe.title, customer: recipe.customer, due: recipe.due, cut_key: cutKeyOf(recipe) };
}

/** A name of all that decides what is cut: a job that is renamed after it was cut is still cut. */
function cutKeyOf(recipe: Recipe): string {
  const { title: _title, customer: _customer, due: _due, assembly: _assembly, ...cut } = recipe;
  return createHash('sha256').update(JSON.stringify(cut)).digest('hex');
}

function summaryOf(row: JobRow, sheets: readonly FrozenSheet[]): JobSummary {
  const isCutting = Object.keys(takenCopies(sheets, row.id, ['in-cutter'])).length > 0;
  const { artworks } = JSON.parse(row.recipe) as StoredParts;
  const state: JobState = isCutting ? 'cutting' : isCut(row, sheets) ? 'cut' : artworks.length > 0 ? 'in work' : 'new';
  return { id: row.id, title: row.title, customer: row.customer, due: row.due, state, updatedAt: row.updated_at, artworkId: firstFile(artworks), words: artworks[0]?.lettering?.text ?? null };
}

/** As much of a stored recipe, of any version, as a list shows. Recipes before version 3 had files for parts. */
interface StoredParts {
  readonly artworks: readonly { readonly id: string; readonly kind?: string; readonly source?: { readonly id: string }; readonly lettering?: { readonly text: string } }[];
}

/** The file of the first part that has one. */
function firstFile(artworks: StoredParts['artworks']): string | null {
  const part = artworks.find((one) => one.source !== undefined || one.kind === undefined);
  return part ? (part.source?.id ?? part.id) : null;
}

/** Every copy of every layer is cut, and nothing that is cut of the job was changed since it was last sent. */
function isCut(row: JobRow, sheets: readonly FrozenSheet[]): boolean {
  const toCut = row.to_cut ? (JSON.parse(row.to_cut) as JobToCut & { cutKey: string | null }) : null;
  if (!toCut || toCut.cutKey !== row.cut_key) return false;
  const good = takenCopies(sheets, row.id, ['good']);
  return toCut.layers.every(({ fingerprint, copies }) => (good[fingerprint] ?? 0) >= copies);
}
