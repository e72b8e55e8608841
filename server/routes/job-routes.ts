import { isDeepStrictEqual } from 'node:util';
import { pictureKind } from '../../core/engines/artwork/index.js';
import { object } from '../../core/words/schema.js';
import {
  asItWasCut,
  changedStations,
  emptyRecipe,
  parseRecipe,
  patchRecipe,
  RECIPE_SCHEMA,
  type Recipe,
  type RecipePatch,
  type DeletedJob,
} from '../../core/recipe/index.js';
import type { JobState } from '../../core/stations/record/index.js';
import { drawingPart, picturePart } from '../../core/stations/artwork/index.js';
import { PRINT_ON, PRINTS, type PrintOn } from '../../core/plan/index.js';
import { PRINT_FORMATS, type PrintFormat } from '../../core/print/index.js';
import type { Context } from 'koa';
import { streamWork } from '../stream-work.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { describeFile } from '../stores/artwork-store.js';
import type { Edit, JobRevision } from '../stores/job-store.js';
import { EDIT_PROPERTIES, EDIT_SCHEMA } from './edit-schema.js';

const COUNT = { type: 'string', pattern: '^\\d{1,6}$' } as const;
const MOST_LISTED = 500;
const JOB_REVISION = { id: { type: 'string', minLength: 1, maxLength: 200 }, revision: EDIT_PROPERTIES.revision };

const STATES: readonly JobState[] = ['new', 'in work', 'cutting', 'cut'];

/** Jobs, their recipes with undo and redo, their artwork and their plan. */
export function jobRoutes({ jobs, batches, sheets, artworks, compute, sourceOfJob, designPicture }: Services): Route[] {
  const cutRecipe = async (sheetId: string, jobId: string): Promise<Recipe | null> => {
    const kept = await sheets.recipeOf(sheetId, jobId);
    return kept === null ? null : parseRecipe(kept, `sheet ${sheetId}`);
  };
  return [
    {
      method: 'get',
      path: '/api/jobs',
      summary:
        'Jobs that are not deleted, the soonest due first; with `deleted=yes` those that are, the last deleted first',
      query: {
        search: { type: 'string', maxLength: 200 },
        state: { enum: STATES },
        deleted: { enum: ['yes'] },
        from: COUNT,
        most: COUNT,
      },
      answer: 'JobSummaries',
      answers:
        'A list of job summaries: at most `most` (500 when it is not said), from the one numbered `from`. The header Total-Count says how many there are in all',
      handle: async ({ ctx, query }) => {
        const { jobs: listed, total } = await jobs.list({
          search: query['search'] ?? '',
          state: (query['state'] as JobState | undefined) ?? null,
          deleted: query['deleted'] !== undefined,
          from: Number(query['from'] ?? 0),
          most: Math.min(MOST_LISTED, Number(query['most'] ?? MOST_LISTED)),
        });
        ctx.set('Total-Count', String(total));
        return listed;
      },
    },
    {
      method: 'post',
      path: '/api/jobs',
      summary: 'Make a new job',
      body: {
        type: 'object',
        additionalProperties: false,
        properties: { title: { type: 'string', minLength: 1, maxLength: 200 } },
      },
      answer: 'Job',
      answers: 'The job',
      handle: ({ body }) => jobs.create(emptyRecipe((body as { title?: string }).title ?? 'New job')),
    },
    {
      method: 'get',
      path: '/api/jobs/:id',
      summary: 'A job with its recipe',
      answer: 'Job',
      answers: 'The job',
      handle: ({ params }) => jobs.get(params['id']!),
    },
    {
      method: 'post',
      path: '/api/jobs/:id/duplicate',
      summary: 'A copy of a job, its history left behind',
      answer: 'Job',
      answers: 'The new job',
      handle: ({ params }) => jobs.duplicate(params['id']!),
    },
    {
      method: 'delete',
      path: '/api/jobs/:id',
      summary: 'Delete a job; it can be restored',
      answer: 'DeletedJob',
      answers: 'The job, marked as deleted, and the number of the batch that it was in',
      handle: async ({ params }): Promise<DeletedJob> => {
        const id = params['id']!;
        const batch = (await batches.list()).find(({ jobs: inBatch }) => inBatch.some((one) => one.id === id));
        return { ...(await jobs.setDeleted(id, true)), batchNumber: batch?.number ?? null };
      },
    },
    {
      method: 'post',
      path: '/api/jobs/:id/restore',
      summary: 'Bring a deleted job back',
      answer: 'Job',
      answers: 'The job',
      handle: ({ params }) => jobs.setDeleted(params['id']!, false),
    },
    {
      method: 'put',
      path: '/api/jobs/:id/recipe',
      summary: 'Replace the recipe; refused when someone else changed it meanwhile',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['recipe', 'revision'],
        properties: { recipe: { ...RECIPE_SCHEMA, $id: undefined }, ...EDIT_PROPERTIES },
      },
      answer: 'Job',
      answers: 'The job with its new revision',
      handle: async ({ params, body }) => {
        const { recipe, ...edit } = body as { recipe: unknown } & Edit;
        return jobs.change(params['id']!, parseRecipe(recipe), edit);
      },
    },
    {
      method: 'post',
      path: '/api/jobs/changes',
      summary: 'Change the preparation of several jobs as one: all of them, or none when one was changed meanwhile',
      body: object({
        jobs: { type: 'array', minItems: 1, maxItems: 500, items: object(JOB_REVISION) },
        preparation: { type: 'object' },
      }),
      answer: 'JobRevisions',
      answers: 'The jobs that were changed, at their new revisions; those that were so already are not among them',
      handle: async ({ body }) => {
        const { jobs: named, preparation } = body as {
          jobs: readonly JobRevision[];
          preparation: RecipePatch['preparation'];
        };
        const patched = (recipe: Recipe) => parseRecipe(patchRecipe(recipe, { preparation: preparation ?? {} }));
        const fresh: JobRevision[] = [];
        for (const { id, revision } of named) {
          const { recipe } = await jobs.get(id);
          if (!isDeepStrictEqual(patched(recipe), recipe)) fresh.push({ id, revision });
        }
        return jobs.changeAll(fresh.map((job) => ({ ...job, change: patched })));
      },
    },
    {
      method: 'post',
      path: '/api/jobs/undo',
      summary:
        'Take the last change of several jobs back: of each that still stands at the revision that is named. Those that do not are named, with why',
      body: object({ jobs: { type: 'array', minItems: 1, maxItems: 500, items: object(JOB_REVISION) } }),
      answer: 'UndoneJobs',
      answers: 'What was undone, and what stayed',
      handle: ({ body }) => jobs.undoAll((body as { jobs: readonly JobRevision[] }).jobs),
    },
    {
      method: 'get',
      path: '/api/sheets/:id/jobs/:job/changes',
      summary: 'At which stations a job decides differently by now from when a sheet of it was sent',
      answer: 'ChangedSince',
      answers: 'The stations; null for what was cut before that was kept',
      handle: async ({ params }) => {
        const cut = await cutRecipe(params['id']!, params['job']!);
        const { recipe, title, revision } = await jobs.get(params['job']!);
        return { title, revision, stations: cut && changedStations(cut, recipe) };
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/jobs/:job/as-cut',
      summary:
        'Make a job decide again as it did when a sheet of it was sent, so that what is cut fits. It can be undone',
      body: EDIT_SCHEMA,
      answer: 'Job',
      answers: 'The job with its new revision',
      handle: async ({ params, body }) => {
        const cut = await cutRecipe(params['id']!, params['job']!);
        if (!cut)
          throw new Problem(409, 'recipe-not-kept', 'How this job was when the sheet was cut is not known any more.');
        const { id, recipe } = await jobs.get(params['job']!);
        return jobs.change(id, asItWasCut(recipe, cut), body as Edit);
      },
    },
    ...(['undo', 'redo'] as const).map((name): Route => ({
      method: 'post',
      path: `/api/jobs/:id/${name}`,
      summary: name === 'undo' ? 'Take back the last change of the recipe' : 'Do again what was taken back',
      body: EDIT_SCHEMA,
      answer: 'Job',
      answers: 'The job as it then is',
      handle: ({ params, body }) => jobs.step(params['id']!, name === 'undo' ? -1 : 1, body as Edit),
    })),
    {
      method: 'post',
      path: '/api/jobs/:id/artwork',
      summary:
        'Give a job an artwork: the bytes of an SVG, PDF, DXF, HP-GL, PNG, JPEG or WebP file. It is added to what is there, or put in the place of one part with the decisions that still apply. One that cannot be read is refused and the job keeps what it had',
      query: {
        fileName: { type: 'string', minLength: 1, maxLength: 200 },
        replaces: { type: 'string', minLength: 1, maxLength: 200 },
        revision: { type: 'string', pattern: '^\\d{1,9}$' },
        edit: EDIT_PROPERTIES.edit,
      },
      body: 'bytes',
      answer: 'JobWithNotes',
      answers:
        'The job with the artwork in its recipe, and what became of decisions as “notes”; “otherSize” is how large a new version could be made instead',
      handle: async ({ params, query, bytes, signal }) => {
        const job = await jobs.get(params['id']!);
        // Read first and stored last: that it is still made from this revision is checked again when it is stored.
        const edit: Edit = {
          revision: Number(query['revision'] ?? job.revision),
          ...(query['edit'] === undefined ? {} : { edit: query['edit'] }),
        };
        if (bytes.length === 0) throw new Problem(422, 'empty-file', 'The file is empty.');
        const fileName = query['fileName'] ?? 'artwork.svg';
        const source = describeFile(fileName, bytes);
        const part = pictureKind(bytes) ? picturePart(source) : drawingPart(source);
        const [planned, file] = [await sourceOfJob(job.id), { id: source.id, bytes }];
        const { patch, notes, otherSize } =
          query['replaces'] === undefined
            ? await compute.add(planned, part, file, signal)
            : await compute.replace(planned, query['replaces'], part, file, signal);
        await artworks.add(source, bytes);
        return { ...(await jobs.change(job.id, patchRecipe(job.recipe, patch), edit)), notes, otherSize };
      },
    },
    {
      method: 'get',
      path: '/api/artworks/:id',
      summary: 'An artwork’s original bytes',
      answers: 'The file as it was uploaded',
      handle: async ({ ctx, params }) => {
        const artwork = await artworks.get(params['id']!);
        // Never shown as a page: a drawing may hold scripts.
        ctx.set('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(artwork.fileName)}`);
        ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
        ctx.type = 'application/octet-stream';
        ctx.body = Buffer.from(artwork.bytes);
        return undefined;
      },
    },
    {
      method: 'get',
      path: '/api/jobs/:id/picture',
      summary:
        'A small picture of the job’s whole design. Asked for with the “design” that the list names, it may be kept for good',
      query: { design: { type: 'string', maxLength: 100 } },
      answers: 'PNG; 404 when there is nothing to see',
      handle: async ({ ctx, params, query, signal }) => {
        const { design, png } = await designPicture(params['id']!, signal);
        if (png.length === 0) throw new Problem(404, 'no-picture', 'There is no picture of this design.');
        ctx.set('Cache-Control', query['design'] === design ? 'private, max-age=31536000, immutable' : 'no-store');
        ctx.type = 'image/png';
        ctx.body = Buffer.from(png);
        return undefined;
      },
    },
    {
      method: 'get',
      path: '/api/jobs/:id/plan',
      summary: 'The figures of the job’s plan: sizes, layers, sheets, times, findings, rulings',
      answer: 'PlanReport',
      answers: 'The report',
      handle: async ({ params, signal }) => compute.plan(await sourceOfJob(params['id']!), { signal }),
    },
    {
      method: 'get',
      path: '/api/jobs/:id/build',
      summary: 'The whole build, or one layer of it, as a file at true size with its marks',
      query: { layer: { type: 'string', maxLength: 200 }, format: { enum: PRINT_FORMATS } },
      answers: 'SVG, DXF or PDF',
      handle: async ({ ctx, params, query, signal }) => {
        const format = (query['format'] ?? 'svg') as PrintFormat;
        const job = await sourceOfJob(params['id']!);
        const bytes = await compute.exportBuild(job, query['layer'] ?? null, format, signal);
        return sendFile(ctx, `${job.recipe.title}${query['layer'] ? ` ${query['layer']}` : ''}.${format}`, bytes);
      },
    },
    {
      method: 'get',
      path: '/api/jobs/:id/print/:what',
      summary:
        'The pattern of a job, the wrap template of its surface, or the weed map of its layers or of one of them, at true scale',
      query: { on: { enum: PRINT_ON }, film: { type: 'string', maxLength: 200 } },
      answers: 'SVG, DXF or PDF; a4 and a3 are PDF on sheets that are glued together',
      handle: async ({ ctx, params, query, signal }) => {
        const what = PRINTS.find((one) => one === params['what']);
        if (!what)
          throw new Problem(
            404,
            'no-such-print',
            'There is no such thing to print. There are: pattern, wrap, weed-map.',
          );
        const on = (query['on'] ?? 'pdf') as PrintOn;
        const job = await sourceOfJob(params['id']!);
        const bytes = await compute.printJob(job, { what, on, filmId: query['film'] ?? null }, signal);
        return sendFile(ctx, `${job.recipe.title} ${what}.${on === 'a4' || on === 'a3' ? 'pdf' : on}`, bytes);
      },
    },
    {
      method: 'get',
      path: '/api/jobs/:id/plan/events',
      summary: 'The same while it is computed: “progress” events from 0 to 1, then “report” or “failed”',
      answers: 'Server-sent events',
      handle: async ({ ctx, params }) => {
        const job = await sourceOfJob(params['id']!);
        return streamWork(ctx, { event: 'report', failed: 'The plan could not be computed.' }, (how) =>
          compute.plan(job, how),
        );
      },
    },
  ];
}

/** A file to be saved under a name. */
function sendFile(ctx: Context, name: string, bytes: Uint8Array): undefined {
  ctx.set('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
  ctx.set('Cache-Control', 'no-store');
  ctx.type = 'application/octet-stream';
  ctx.body = Buffer.from(bytes);
  return undefined;
}
