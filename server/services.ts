import type { Knex } from 'knex';
import { setTimeout as sleep } from 'node:timers/promises';
import { sourcesOf } from '../core/stations/artwork/index.js';
import { cutSoFar } from '../core/stations/cut/index.js';
import { recordedCuts } from '../core/stations/record/index.js';
import { wishAlone } from '../core/stations/sheets/index.js';
import { cutterInUse, type Shop } from '../core/shop/index.js';
import { Changes } from './changes.js';
import { Compute, type BatchSource, type PlanSource } from './compute/compute.js';
import { FactsInTurn } from './facts-in-turn.js';
import { CutterLink, CutterUnreachable } from './spooler/cutter-link.js';
import { Spooler } from './spooler/spooler.js';
import { BatchStore } from './stores/batch-store.js';
import { ArtworkStore } from './stores/artwork-store.js';
import { FontStore } from './stores/font-store.js';
import { JobStore } from './stores/job-store.js';
import { ProgramStore } from './stores/program-store.js';
import { RunStore } from './stores/run-store.js';
import { SheetStore } from './stores/sheet-store.js';
import { FilmBooking } from './stores/film-booking.js';
import { ShopStore } from './stores/shop-store.js';
import { SpoilStore } from './stores/spoil-store.js';
import { StockBook } from './stores/stock-book.js';
import { WeedingStore } from './stores/weeding-store.js';

/** A small picture, and of which state of the design it is; null of one without parts. */
export interface DesignPicture {
  readonly design: string | null;
  readonly png: Uint8Array;
}

/** What the routes work with. */
export interface Services {
  readonly jobs: JobStore;
  readonly artworks: ArtworkStore;
  readonly fonts: FontStore;
  readonly shop: ShopStore;
  readonly book: StockBook;
  readonly batches: BatchStore;
  readonly sheets: SheetStore;
  readonly programs: ProgramStore;
  readonly runs: RunStore;
  readonly weeding: WeedingStore;
  readonly spoils: SpoilStore;
  readonly changes: Changes;
  readonly facts: FactsInTurn;
  readonly compute: Compute;
  readonly spooler: Spooler;
  readonly cutterControlPort: number;
  /** The small picture of a job's whole design as it is now, made when it is first asked for; empty when none can be made. @throws Problem 404; the signal’s reason when whoever asked has left */
  readonly designPicture: (jobId: string, signal?: AbortSignal) => Promise<DesignPicture>;
  /** What a batch is planned from, with its jobs' revisions. @throws Problem 404 */
  readonly sourceOfBatch: (id: string) => Promise<BatchSource & { readonly revisions: ReadonlyMap<string, number> }>;
  /** A job's recipe with the shop and what is cut of it already: what a worker plans from. */
  readonly sourceOfJob: (jobId: string) => Promise<
    PlanSource & {
      readonly revision: number;
      readonly design: string | null;
      readonly shop: Shop & { readonly revision: number };
    }
  >;
}

export async function makeServices(db: Knex, cutterControlPort: number): Promise<Services> {
  const programs = new ProgramStore(db);
  const weeding = new WeedingStore(db);
  const changes = new Changes();
  const book = new StockBook(db);
  const shop = new ShopStore(db, book, (revision) => changes.tell({ of: 'shop', revision }));
  const film = new FilmBooking(shop, book);
  const sheets = new SheetStore(db, programs, film);
  const jobs = new JobStore(db, sheets, (jobId, revision) => changes.tell({ of: 'job', jobId, revision }));
  const spoils = new SpoilStore(db, sheets, jobs);
  const batches = new BatchStore(
    db,
    () => spoils.learned(),
    () => changes.tell({ of: 'batches' }),
  );
  const [artworks, runs] = [new ArtworkStore(db), new RunStore(db, programs, film)];
  const connect = async () => {
    const { host, port } = cutterInUse(await shop.get());
    if (host === null) throw new CutterUnreachable('This cutter is given files.');
    return CutterLink.open(host, port);
  };
  const spooler = new Spooler({ runs, connect, sleep: (ms) => sleep(ms) });
  await spooler.recover();
  const compute = new Compute();
  /** What is the same for all jobs that are planned at one time. */
  const forAll = async () => ({ stored: await shop.forPlans(), learned: (await weeding.learned()) ?? undefined });
  const sourceOf = async (
    jobId: string,
    { stored, learned }: Awaited<ReturnType<typeof forAll>>,
  ): ReturnType<Services['sourceOfJob']> => {
    const { recipe, revision, design } = await jobs.get(jobId);
    const loadSources = async () => {
      const sources = new Map<string, Uint8Array>();
      for (const { id } of recipe.artworks.flatMap(sourcesOf)) sources.set(id, (await artworks.get(id)).bytes);
      return sources;
    };
    const cuts = await sheets.ofJob(jobId);
    const lone = (await batches.ofJob(jobId)) === null ? await batches.get(jobId) : null;
    return {
      recipe,
      revision,
      design,
      shop: stored,
      shopRevision: stored.revision,
      loadSources,
      ...cutSoFar(cuts, jobId),
      builtWith: await sheets.builtWith(jobId, cuts),
      weeding: learned,
      recorded: recordedCuts(cuts, jobId),
      ...(lone && { lone: { id: jobId, wish: lone.wish } }),
    };
  };
  const sourceOfJob: Services['sourceOfJob'] = async (jobId) => sourceOf(jobId, await forAll());
  const sourceOfBatch: Services['sourceOfBatch'] = async (id) => {
    const { jobs: inBatch, number, wish } = await batches.get(id);
    const isAlone = number === null;
    const all = await forAll();
    const planned = [];
    for (const { id: jobId } of inBatch) planned.push({ jobId, source: await sourceOf(jobId, all) });
    return {
      wish: isAlone ? wishAlone(planned[0]!.source.recipe.sheets, wish) : wish,
      isAlone,
      jobs: planned,
      shop: all.stored,
      revisions: new Map(planned.map(({ jobId, source }) => [jobId, source.revision])),
    };
  };
  return {
    jobs,
    artworks,
    fonts: new FontStore(db),
    shop,
    book,
    batches,
    sheets,
    programs,
    runs,
    weeding,
    spoils,
    changes,
    facts: new FactsInTurn(),
    compute,
    spooler,
    cutterControlPort,
    designPicture: async (jobId, signal) => {
      const now = (await jobs.get(jobId)).design;
      const known = now === null ? new Uint8Array() : await jobs.picture(jobId, now);
      if (known) return { design: now, png: known };
      // It may have changed meanwhile: the picture is kept as that of the design it is made from.
      const source = await sourceOfJob(jobId);
      const { design } = source;
      if (design === null) return { design, png: new Uint8Array() };
      const png = await compute.designPicture(source, signal).catch((error: unknown) => {
        // One of which none can be made is not tried again; when whoever asked has left, it may still be made.
        if (signal?.aborted) throw error;
        return new Uint8Array();
      });
      await jobs.keepPicture(jobId, design, png);
      return { design, png };
    },
    sourceOfJob,
    sourceOfBatch,
  };
}
