import type { MessagePort } from 'node:worker_threads';
import type { ArtworkPart } from '../../core/stations/artwork/index.js';
import type { BatchView, HandMove, SheetMade } from '../../core/batch/index.js';
import type { Recipe } from '../../core/recipe/index.js';
import type { Shop } from '../../core/shop/index.js';
import type { BatchSearch } from './planned-batch.js';
import type { CutInPart, RestToFreeze } from '../../core/stations/cut/index.js';
import type { PrintFormat } from '../../core/print/index.js';
import type { JobPrint, JobSoFar, PlanReport, PrintOn, Replacement } from '../../core/plan/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';
import type { RecordedCuts } from '../../core/stations/record/index.js';
import type { LayWish, Pin } from '../../core/laying/index.js';

/** What the server asks of its workers: plain data both ways. */
export type Task =
  | { readonly do: 'add'; readonly job: PlanJob; readonly part: ArtworkPart }
  | { readonly do: 'replace'; readonly job: PlanJob; readonly partId: string; readonly part: ArtworkPart }
  | { readonly do: 'picture'; readonly job: PlanJob }
  | { readonly do: 'font'; readonly fileName: string; readonly bytes: Uint8Array }
  | { readonly do: 'plan'; readonly job: PlanJob; readonly progress?: MessagePort }
  | { readonly do: 'export'; readonly job: PlanJob; readonly filmId: string | null; readonly format: PrintFormat }
  | {
      readonly do: 'print';
      readonly job: PlanJob;
      readonly what: JobPrint;
      readonly on: PrintOn;
      readonly filmId: string | null;
    }
  | { readonly do: 'rest'; readonly part: CutInPart }
  | { readonly do: 'batch'; readonly batch: BatchTask; readonly progress?: MessagePort }
  | { readonly do: 'sheet'; readonly batch: BatchTask; readonly sheet: string }
  | { readonly do: 'move'; readonly batch: BatchTask; readonly move: HandMove }
  | {
      readonly do: 'search';
      readonly batch: BatchTask;
      readonly seconds: number;
      /** Not 0 once what was found is enough. */ readonly enough: Int32Array;
      /** Told of what is found on the way. */ readonly better: MessagePort;
    }
  | { readonly do: 'hpgl'; readonly batch: BatchTask; readonly sheet: string };

/** A task on its way to a worker, with a flag that is set once it should stop. */
export type SentTask = Task & { readonly stopFlag: Int32Array };

/** Jobs that are laid out together; `name` is the same for the same batch. */
export interface BatchTask {
  readonly name: string;
  readonly jobs: readonly { readonly jobId: string; readonly job: Omit<PlanJob, 'shop'> }[];
  readonly shop: Shop;
  readonly wish: LayWish;
  /** A job that is cut alone. */
  readonly isAlone: boolean;
}

export interface PlanJob extends JobSoFar {
  readonly recipe: Recipe;
  readonly shop: Shop;
  readonly sources: ReadonlyMap<string, Uint8Array>;
  readonly weeding: LearnedWeeding | undefined;
  readonly recorded: RecordedCuts;
}

/** What a worker answers; a refusal of bad input is a value, since only plain data crosses well. */
export type Answer =
  | { readonly ok: 'changed'; readonly change: Replacement }
  | { readonly ok: 'file'; readonly bytes: Uint8Array }
  | { readonly ok: 'font'; readonly name: string }
  | { readonly ok: 'plan'; readonly report: PlanReport }
  | { readonly ok: 'rest'; readonly sheet: RestToFreeze }
  | { readonly ok: 'batch'; readonly view: BatchView }
  | { readonly ok: 'pin'; readonly pin: Pin }
  | ({ readonly ok: 'searched' } & BatchSearch)
  | ({ readonly ok: 'sheet' } & SheetMade)
  | { readonly ok: false; readonly code: string; readonly message: string; readonly path?: string };
