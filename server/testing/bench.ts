import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Ajv } from 'ajv';
import type { Job, Recipe } from '../../core/recipe/index.js';
import type { Batch, BatchView } from '../../core/batch/index.js';
import type { ShopFile } from '../../core/shop/index.js';
import type { FrozenSheet, Run } from '../../core/stations/cut/index.js';
import { CutterService } from '../../cutter/service.js';
import { BENCH_SHOP_FILE } from '../../core/testing/bench-shop.js';
import { startServer, type RunningServer } from '../start.js';

/** A server with a data folder of its own and a simulated cutter on a real wire. */
export interface Bench {
  readonly server: RunningServer;
  readonly cutter: CutterService;
  /** Where the cutter listens. */
  readonly cutterPort: number;
  /** Asks the API; gives the status and the parsed body. */
  readonly api: <T>(method: string, path: string, body?: unknown) => Promise<{ status: number; body: T }>;
  readonly stopServer: () => Promise<void>;
  readonly startServer: () => Promise<void>;
  /** Stops it and starts it again on its data, at the same address. */
  readonly restartServer: () => Promise<void>;
  readonly dataFolder: string;
  readonly close: () => Promise<void>;
}

export async function openBench(
  options: { timeLapse?: number; pagesFolder?: string; isEmpty?: boolean } = {},
): Promise<Bench> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'lantern-'));
  const cutter = new CutterService({ port: 0, controlPort: 0, timeLapse: options.timeLapse ?? 200 });
  const { port, controlPort } = await cutter.listen();
  const start = (at = 0) =>
    startServer({ dataFolder, port: at, cutterControlPort: controlPort, pagesFolder: options.pagesFolder ?? null });
  let server = await start();
  if (!options.isEmpty)
    await server.services.shop.fill({
      ...BENCH_SHOP_FILE,
      cutters: BENCH_SHOP_FILE.cutters.map((one) => ({ ...one, port })),
    });
  return {
    get server() {
      return server;
    },
    cutter,
    cutterPort: port,
    dataFolder,
    api: async <T>(method: string, path: string, body?: unknown) => {
      const isBytes = body instanceof Uint8Array;
      const response = await fetch(server.url + path, {
        method,
        ...(body === undefined
          ? {}
          : {
              body: isBytes ? (body as BodyInit) : JSON.stringify(body),
              headers: { 'Content-Type': isBytes ? 'application/octet-stream' : 'application/json' },
            }),
      });
      const answer: unknown = await response.json();
      if (response.ok) await asDocumented(server.url, method, path, answer);
      return { status: response.status, body: answer as T };
    },
    stopServer: () => server.close(),
    startServer: async () => {
      // Where it was: an open page knows no other address.
      server = await start(Number(new URL(server.url).port));
    },
    restartServer: async () => {
      await server.close();
      server = await start(Number(new URL(server.url).port));
    },
    close: async () => {
      await server.close();
      await cutter.close();
      rmSync(dataFolder, { recursive: true, force: true });
    },
  };
}

/** Every answer is held against what the API's own document says of it. @throws when it is another */
async function asDocumented(url: string, method: string, path: string, answer: unknown): Promise<void> {
  const document = (documented ??= (await (await fetch(`${url}/api/openapi.json`)).json()) as ApiDocument);
  ajv ??= new Ajv({ strict: false, allErrors: true }).addSchema(document, 'api');
  const [plain] = path.split('?');
  const template = Object.keys(document.paths).find(
    (one) =>
      new RegExp(`^${one.replace(/\{\w+\}/g, '[^/]+')}$`).test(plain!) && document.paths[one]![method.toLowerCase()],
  );
  const schema =
    template &&
    document.paths[template]![method.toLowerCase()]!.responses['200']!.content?.['application/json']?.schema;
  if (!schema) return;
  const validate = ajv.getSchema(`api${schema.$ref}`)!;
  if (!validate(answer))
    throw new Error(`${method} ${path} answers otherwise than ${schema.$ref} says: ${ajv.errorsText(validate.errors)}`);
}

interface ApiDocument {
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          {
            readonly responses: Readonly<
              Record<
                string,
                { readonly content?: Readonly<Record<string, { readonly schema: { readonly $ref: string } }>> }
              >
            >;
          }
        >
      >
    >
  >;
}

let documented: ApiDocument | null = null;
let ajv: Ajv | null = null;

/** A job with a drawing, ready to be cut, each film on a sheet of its own. */
export async function jobWith(
  bench: Bench,
  svg: Uint8Array | string,
  change: (recipe: Recipe) => Recipe = (recipe) => recipe,
): Promise<Job> {
  const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Test' });
  const bytes = typeof svg === 'string' ? new TextEncoder().encode(svg) : svg;
  const { body: drawn } = await bench.api<Job>('POST', `/api/jobs/${job.id}/artwork?fileName=test.svg`, bytes);
  const { body } = await bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
    recipe: change({ ...drawn.recipe, sheets: { ...drawn.recipe.sheets, zones: false } }),
    revision: drawn.revision,
  });
  return body;
}

/** Asks for the sheet of a film of a job alone to be cut, as a page that has just looked at its batch of one does. */
export async function startCut(
  bench: Bench,
  jobId: string,
  filmId: string,
  more: { loadedFilmIds?: readonly string[]; revision?: number } = {},
): Promise<{ status: number; body: Run & { code: string; title: string } }> {
  const { body: batch } = await bench.api<Batch>('GET', `/api/batches/${jobId}`);
  const { body: plan } = await bench.api<BatchView>('GET', `/api/batches/${jobId}/plan`);
  const sheet = plan.sheets?.find(({ films }) => films.some(({ id }) => id === filmId));
  return bench.api('POST', `/api/batches/${jobId}/sheets/${sheet?.id ?? 'none'}/cut`, {
    loadedFilmIds: [filmId],
    revision: batch.revision ?? 0,
    ...more,
  });
}

export async function cutsOf(bench: Bench, jobId: string): Promise<FrozenSheet[]> {
  return (await bench.api<FrozenSheet[]>('GET', `/api/jobs/${jobId}/cuts`)).body;
}

/** Resolves with a run once `wanted` holds; told by the spooler, not by a clock. */
export async function runUntil(bench: Bench, id: string, wanted: (run: Run) => boolean): Promise<Run> {
  const { spooler, runs } = bench.server.services;
  return new Promise((resolve, reject) => {
    const look = () =>
      runs.get(id).then((run) => {
        const live = spooler.progressOf(id);
        const now = live ? { ...run, state: live.state, message: live.message, pairsDone: live.pairsDone } : run;
        if (!wanted(now)) return;
        stop();
        resolve(now);
      }, reject);
    const stop = spooler.listen((progress) => {
      if (progress.runId === id) void look();
    });
    void look();
  });
}

/** Cuts a job's sheet of a film until this share of its points is done, as `jamAt` does. */
export async function cutUntil(bench: Bench, jobId: string, film: string, share: number): Promise<Run> {
  return jamAt(bench, share, async () => (await startCut(bench, jobId, film)).body);
}

/** Begins a cut and lets the cutter jam when this share of its points is done: at that very point, however busy the machine is. The time lapse is 400 after it. */
export async function jamAt(bench: Bench, share: number, begin: () => Promise<Run>): Promise<Run> {
  const ask = (what: object) => bench.api('POST', '/api/cutter/control', what);
  await ask({ do: 'time-lapse', factor: 0.1 });
  const run = await begin();
  await ask({ do: 'fail', how: 'jammed', afterPairs: Math.ceil(run.pairsTotal * share) });
  await ask({ do: 'time-lapse', factor: 400 });
  return runUntil(bench, run.id, (now) => now.state === 'stuck');
}

/** The bench's own shop as it was at first, and a cutter that nothing ails. */
export async function asAtFirst(bench: Bench): Promise<void> {
  const { shop } = bench.server.services;
  await shop.fill({ ...BENCH_SHOP_FILE, cutters: (await shop.get()).cutters });
  for (const how of [{ do: 'clear' }, { do: 'time-lapse', factor: 400 }])
    await bench.api('POST', '/api/cutter/control', how);
}

/** Ends whatever is in the cutter. */
export async function emptyCutter(bench: Bench): Promise<void> {
  const { busy } = (await bench.api<{ busy: { runId: string } | null }>('GET', '/api/cutter')).body;
  if (busy) await bench.api('POST', `/api/runs/${busy.runId}/cancel`);
}

/** Lays other figures over a record of the shop, as a page does that looked at it just now, or at `seen`. */
export async function changeRecord(
  bench: Bench,
  kind: 'films' | 'cutters',
  id: string,
  change: object,
  seen?: number,
): Promise<{ status: number; body: { code: string; title: string; revision: number } }> {
  const { body: shop } = await bench.api<ShopFile & { revision: number }>('GET', '/api/shop');
  return bench.api('POST', '/api/shop/changes', {
    revision: seen ?? shop.revision,
    changes: [{ kind, value: { ...shop[kind].find((one) => one.id === id)!, ...change } }],
  });
}
