import type { MessagePort } from 'node:worker_threads';
import type { ArtworkPart } from '../../core/stations/artwork/index.js';
import type { Recipe } from '../../core/recipe/index.js';
import type { Shop } from '../../core/shop/index.js';
import type { CutInPart, SheetToFreeze } from '../../core/stations/cut/index.js';
import type { PrintFormat } from '../../core/print/index.js';
import type { JobPrint, PlanReport, PrintOn, Replacement } from '../../core/plan/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';
import type { RecordedCuts } from '../../core/stations/record/index.js';
import type { TakenCopies } from '../../core/stations/sheets/index.js';

/** What the server asks of its workers: plain data both ways. */
export type Task =
  | { readonly do: 'add'; readonly job: PlanJob; readonly part: ArtworkPart }
  | { readonly do: 'replace'; readonly job: PlanJob; readonly partId: string; readonly part: ArtworkPart }
  | { readonly do: 'picture'; readonly job: PlanJob }
  | { readonly do: 'font'; readonly fileName: string; readonly bytes: Uint8Array }
  | { readonly do: 'plan'; readonly job: PlanJob; readonly progress?: MessagePort }
  | { readonly do: 'export'; readonly job: PlanJob; readonly filmId: string | null; readonly format: PrintFormat }
  | { readonly do: 'print'; readonly job: PlanJob; readonly what: JobPrint; readonly on: PrintOn; readonly filmId: string | null }
  | { readonly do: 'sheet'; readonly job: PlanJob; readonly sheet: string }
  | { readonly do: 'hpgl'; readonly job: PlanJob; readonly sheet: string }
  | { readonly do: 'rest'; readonly part: CutInPart };

/** A task on its way to a worker, with a flag that is set once it should stop. */
export type SentTask = Task & { readonly stopFlag: Int32Array };

export interface PlanJob {
  readonly recipe: Recipe;
  readonly shop: Shop;
  readonly sources: ReadonlyMap<string, Uint8Array>;
  readonly taken: TakenCopies;
  readonly weeding: LearnedWeeding | undefined;
  readonly recorded: RecordedCuts;
}

/** What a worker answers; a refusal of bad input is a value, since only plain data crosses well. */
export type Answer =
  | { readonly ok: 'changed'; readonly change: Replacement }
  | { readonly ok: 'file'; readonly bytes: Uint8Array }
  | { readonly ok: 'font'; readonly name: string }
  | { readonly ok: 'plan'; readonly report: PlanReport }
  | { readonly ok: 'sheet'; readonly sheet: SheetToFreeze; readonly toCut: readonly { readonly fingerprint: string; readonly copies: number }[] }
  | { readonly ok: false; readonly code: string; readonly message: string; readonly path?: string };
