import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { emptyRecipe, parseRecipe, type Job, type JobSummary, type Recipe } from '../../core/recipe/index.js';
import { jobStateOf, type JobState } from '../../core/stations/record/index.js';
import type { FrozenSheet } from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import { answerOfEdit, rememberEdit } from './edits.js';
import type { SheetStore } from './sheet-store.js';

interface JobRow {
  readonly id: string;
  readonly title: string;
  readonly customer: string;
  readonly due: string | null;
  readonly position: number;
  readonly revision: number;
  readonly cut_key: string | null;
  readonly to_cut: string | null;
  readonly updated_at: string;
  readonly deleted_at: string | null;
  readonly parts: number;
  readonly design: string | null;
  readonly words: string | null;
  readonly search_text: string;
}

/** A job with its current recipe and how far it can be undone and redone. */
interface WholeRow extends JobRow {
  readonly recipe: string;
  readonly first_position: number;
  readonly last_position: number;
}

/** Which jobs of a list are wanted. */
export interface ListWish {
  /** Words that title and customer hold, all of them. */
  readonly search: string;
  readonly state: JobState | null;
  /** Those that are deleted instead of those that are not. */
  readonly deleted?: boolean;
  readonly from: number;
  readonly most: number;
}

export interface ListedJobs {
  readonly jobs: readonly JobSummary[];
  /** How many there are in all. */
  readonly total: number;
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

/** A job at a revision. */
export interface JobRevision {
  readonly id: string;
  readonly revision: number;
}

/** A change of a job among others. */
export interface JobChange extends JobRevision {
  readonly change: (recipe: Recipe) => Recipe;
}

/** What an undo over several jobs did, and which stayed as they are, and why. */
export interface UndoneJobs {
  readonly undone: readonly JobRevision[];
  readonly stayed: readonly { readonly id: string; readonly title: string; readonly why: string }[];
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

  /** Jobs that are not deleted, the soonest due first; or those that are, the last deleted first. */
  async list({ search, state, deleted = false, from, most }: ListWish): Promise<ListedJobs> {
    const query = deleted ? this.db('jobs').whereNotNull('deleted_at') : this.db('jobs').whereNull('deleted_at');
    for (const word of search.toLowerCase().split(/\s+/).filter(Boolean))
      void query.whereRaw(`search_text like ? escape '!'`, [`%${word.replace(/[!%_]/g, '!$&')}%`]);
    const ordered = query.clone().orderByRaw(deleted ? 'deleted_at desc, id' : 'due is null, due, updated_at desc, id');
    if (state === null) {
      const [rows, [counted]] = [
        (await ordered.limit(most).offset(from)) as JobRow[],
        (await query.clone().count({ n: '*' })) as { n: number }[],
      ];
      return { jobs: await this.#summaries(rows), total: counted!.n };
    }
    // A state is what has become of a job's sheets, which no column knows.
    const all = (await this.#summaries((await ordered) as JobRow[])).filter((job) => job.state === state);
    return { jobs: all.slice(from, from + most), total: all.length };
  }

  async #summaries(rows: readonly JobRow[]): Promise<JobSummary[]> {
    const byJob = new Map<string, FrozenSheet[]>();
    const jobsOf = new Map<string, ReadonlySet<string>>();
    for (const sheet of await this.sheets.ofJobs(rows.map((row) => row.id))) {
      // A rest says how its sheet stands to all whose copies lie on that, also where it carries others alone.
      const jobIds = new Set([
        ...sheet.groups.map((group) => group.jobId),
        ...(sheet.restOf ? (jobsOf.get(sheet.restOf) ?? []) : []),
      ]);
      jobsOf.set(sheet.id, jobIds);
      for (const jobId of jobIds) byJob.set(jobId, [...(byJob.get(jobId) ?? []), sheet]);
    }
    return rows.map((row) => summaryOf(row, byJob.get(row.id) ?? []));
  }

  /** @throws Problem 404 */
  async mustExist(id: string): Promise<void> {
    if (!(await this.db('jobs').select('id').where({ id }).first()))
      throw new Problem(404, 'job-unknown', 'There is no such job.');
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
    await this.#write(id, edit, (tx, row) => addStep(tx, row, recipe));
    return this.get(id);
  }

  /** One step back or forward in the history; a step that does not exist leaves the job as it is. @throws Problem 409 as change() does */
  async step(id: string, by: -1 | 1, edit: Edit): Promise<Job> {
    await this.#write(id, edit, (tx, row) => stepBy(tx, row, by));
    return this.get(id);
  }

  /** Deleting hides the job; it can be brought back. @throws Problem 409 while anything of it is in the cutter, or may still be */
  async setDeleted(id: string, deleted: boolean): Promise<Job> {
    await this.db.transaction(async (tx) => {
      const running =
        deleted &&
        (await tx('runs')
          .whereNull('finished_at')
          .whereIn('sheet_id', tx('sheet_groups').select('sheet_id').where({ job_id: id }))
          .first());
      if (running)
        throw new Problem(
          409,
          'job-in-cutter',
          'A sheet of this job is in the cutter. Finish or cancel the cut, then delete the job.',
        );
      await tx('jobs')
        .where({ id })
        .update({ deleted_at: deleted ? new Date().toISOString() : null });
    });
    return this.get(id);
  }

  /** The small picture that was made of a design, empty when none can be made; null when it was not tried yet. */
  async picture(id: string, design: string): Promise<Uint8Array | null> {
    const row = await this.db<{ job_id: string; design: string; png: Buffer }>('design_pictures')
      .where({ job_id: id, design })
      .first();
    return row ? new Uint8Array(row.png) : null;
  }

  /** Keeps the picture of a job's newest design in the place of an older one. */
  async keepPicture(id: string, design: string, png: Uint8Array): Promise<void> {
    await this.db('design_pictures')
      .insert({ job_id: id, design, png: Buffer.from(png) })
      .onConflict('job_id')
      .merge();
  }

  /** Remembers what the job's layers come to at this revision of its recipe. */
  async setToCut(id: string, toCut: JobToCut): Promise<void> {
    const row = (await this.db('jobs').where({ id }).first()) as JobRow;
    await this.db('jobs')
      .where({ id })
      .update({ to_cut: JSON.stringify({ cutKey: row.cut_key, layers: toCut.layers }) });
  }

  /** What the job's layers came to when a sheet of it was last sent; nothing while none was. */
  async toCut(id: string): Promise<JobToCut['layers']> {
    const row = (await this.db('jobs').where({ id }).first('to_cut')) as Pick<JobRow, 'to_cut'> | undefined;
    return row?.to_cut ? (JSON.parse(row.to_cut) as JobToCut).layers : [];
  }

  /** Changes several jobs as one: all of them, or none. `change` makes each job's new recipe. @throws Problem 409 that names the job, when one was changed since; 404 */
  async changeAll(changes: readonly JobChange[]): Promise<readonly JobRevision[]> {
    const written = await this.db.transaction(async (tx) => {
      const done: JobRevision[] = [];
      for (const { id, revision, change } of changes) {
        await this.#writeIn(tx, id, { revision }, async (row) => {
          const stored = (await tx('recipes').where({ job_id: id, position: row.position }).first()) as RecipeRow;
          return addStep(tx, row, change(parseRecipe(JSON.parse(stored.recipe), `job ${id}`)));
        });
        done.push({ id, revision: revision + 1 });
      }
      return done;
    });
    for (const { id, revision } of written) this.onChanged(id, revision);
    return written;
  }

  /** Takes the last change of several jobs back, in one transaction: of each that still stands at the revision that is named. Those that do not are named, with why. */
  async undoAll(jobs: readonly JobRevision[]): Promise<UndoneJobs> {
    const made = await this.db.transaction(async (tx) => {
      const [undone, stayed]: [JobRevision[], UndoneJobs['stayed'][number][]] = [[], []];
      for (const { id, revision } of jobs) {
        const row = (await tx('jobs').where({ id }).first()) as JobRow | undefined;
        const why = !row
          ? 'It is not there any more.'
          : row.deleted_at !== null
            ? 'It is deleted. Bring it back first.'
            : row.revision !== revision
              ? 'It was changed since. Undo it in the job itself.'
              : null;
        if (why === null && (await this.#writeIn(tx, id, { revision }, (now) => stepBy(tx, now, -1))))
          undone.push({ id, revision: revision + 1 });
        else stayed.push({ id, title: row?.title ?? 'A job', why: why ?? 'Its earlier steps are not kept any more.' });
      }
      return { undone, stayed };
    });
    for (const { id, revision } of made.undone) this.onChanged(id, revision);
    return made;
  }

  /** Check and act in one transaction. An edit that is sent again, because its answer was lost, is answered and not done twice. */
  async #write(id: string, edit: Edit, act: (tx: Knex, row: JobRow) => Promise<Partial<JobRow> | null>): Promise<void> {
    const isChanged = await this.db.transaction((tx) => this.#writeIn(tx, id, edit, (row) => act(tx, row)));
    if (isChanged) this.onChanged(id, edit.revision + 1);
  }

  /** The same within a transaction; says whether anything was changed. */
  async #writeIn(
    tx: Knex,
    id: string,
    { revision, edit }: Edit,
    act: (row: JobRow) => Promise<Partial<JobRow> | null>,
  ): Promise<boolean> {
    const row = (await tx('jobs').where({ id }).first()) as JobRow | undefined;
    if (!row) throw new Problem(404, 'job-unknown', 'There is no such job.');
    if (edit !== undefined && (await answerOfEdit(tx, id, edit))) return false;
    if (row.revision !== revision)
      throw new Problem(
        409,
        'job-changed',
        `The job “${row.title}” was changed somewhere else in the meantime, so this change was not saved.`,
      );
    const change = await act(row);
    if (change)
      await tx('jobs')
        .where({ id })
        .update({ ...change, revision: revision + 1, updated_at: new Date().toISOString() });
    if (edit !== undefined) await rememberEdit(tx, { of: id, name: edit });
    return change !== null;
  }

  #rows(): Knex.QueryBuilder<object, WholeRow[]> {
    return this.db('jobs')
      .join('recipes', (on) => on.on('recipes.job_id', 'jobs.id').andOn('recipes.position', 'jobs.position'))
      .select<WholeRow[]>(
        'jobs.*',
        'recipes.recipe',
        this.db.raw(`(select min(position) from recipes r where r.job_id = jobs.id) as first_position`),
        this.db.raw(`(select max(position) from recipes r where r.job_id = jobs.id) as last_position`),
      ) as unknown as Knex.QueryBuilder<object, WholeRow[]>;
  }
}

/** A recipe as the newest step of a job's history; what had been undone is forgotten, and so are steps that are too old. */
async function addStep(tx: Knex, { id, position }: JobRow, recipe: Recipe): Promise<Partial<JobRow>> {
  const next = position + 1;
  await tx('recipes').where({ job_id: id }).andWhere('position', '>', position).delete();
  await tx('recipes').insert({
    job_id: id,
    position: next,
    recipe: JSON.stringify(recipe),
    created_at: new Date().toISOString(),
  });
  await tx('recipes')
    .where({ job_id: id })
    .andWhere('position', '<=', next - HISTORY)
    .delete();
  return { ...head(recipe), position: next };
}

/** One step back or forward; null when there is none. */
async function stepBy(tx: Knex, row: JobRow, by: -1 | 1): Promise<Partial<JobRow> | null> {
  const position = row.position + by;
  const stored = (await tx('recipes').where({ job_id: row.id, position }).first()) as RecipeRow | undefined;
  return stored ? { ...head(parseRecipe(JSON.parse(stored.recipe), `job ${row.id}`)), position } : null;
}

type Head = Pick<JobRow, 'title' | 'customer' | 'due' | 'parts' | 'design' | 'words' | 'search_text'> & {
  readonly cut_key: string;
};

/** What of a recipe stands with the job, so that lists need not read it. */
function head(recipe: Recipe): Head {
  const { title, customer, due, artworks } = recipe;
  const [first] = artworks;
  return {
    title,
    customer,
    due,
    parts: artworks.length,
    design: first ? designKeyOf(recipe) : null,
    words: first?.kind === 'lettering' ? first.lettering.text : null,
    search_text: `${title} ${customer}`.toLowerCase(),
    cut_key: cutKeyOf(recipe),
  };
}

/** A name of all that decides what is cut: a job that is renamed after it was cut, whose pattern was moved, or of which more is said about what it goes on, is still cut. */
function cutKeyOf(recipe: Recipe): string {
  const { title: _title, customer: _customer, due: _due, films, surface, ...cut } = recipe;
  const { ground: _ground, freshPaint: _paint, readFromMm: _from, blankId: _blank, ...placed } = surface;
  return createHash('sha256')
    .update(JSON.stringify({ ...cut, surface: placed, films: { byColour: films.byColour } }))
    .digest('hex');
}

/** A name of all that decides what the design looks like. */
function designKeyOf({ artworks, repair, surface }: Recipe): string {
  return createHash('sha256')
    .update(JSON.stringify([artworks, repair, surface]))
    .digest('hex');
}

function summaryOf(row: JobRow, sheets: readonly FrozenSheet[]): JobSummary {
  const sent = row.to_cut ? (JSON.parse(row.to_cut) as JobToCut & { cutKey: string | null }) : null;
  const state = jobStateOf(
    { jobId: row.id, parts: row.parts, toCut: sent?.cutKey === row.cut_key ? sent.layers : null },
    sheets,
  );
  return {
    id: row.id,
    title: row.title,
    customer: row.customer,
    due: row.due,
    state,
    updatedAt: row.updated_at,
    design: row.design,
    words: row.words,
  };
}
