import { toCutOf, type LaidSheets } from '../laying/index.js';
import type { CutterProfile } from '../shop/index.js';
import { sheetToFreeze, programOf, type GroupToFreeze, type SheetToFreeze } from '../stations/cut/index.js';
import type { BuiltWith } from '../stations/films/index.js';
import { InputError } from '../words/index.js';
import type { PreparedJob, StoppedJob } from './prepare-jobs.js';
import { sayBlocked, saySheetChanged, shortages } from './say.js';

/** What is kept when a sheet is sent: the sheet, and of each job that it carries what is to be cut in all and what of the shop it was built with. */
export interface SheetMade {
  readonly sheet: Omit<SheetToFreeze, 'groups'> & {
    readonly groups: readonly (GroupToFreeze & { readonly jobId: string })[];
  };
  readonly toCut: readonly {
    readonly jobId: string;
    readonly layers: readonly { readonly fingerprint: string; readonly copies: number }[];
    readonly builtWith: BuiltWith;
  }[];
}

interface ToFreeze {
  readonly jobs: readonly PreparedJob[];
  readonly stopped: readonly StoppedJob[];
  readonly cutter: CutterProfile;
  /** A job that is cut alone is cut as a whole: where a layer of it finds no place, nothing of it is cut. */
  readonly isAlone: boolean;
}

/**
 * Freezes a sheet of laid out jobs as it is sent to a cutter.
 * @throws InputError `blocked` when something stops the job that the sheet would be of; `sheet-changed` when there is no such sheet (any more)
 */
export function freezeSheet(
  { sheets, ...lacking }: Pick<LaidSheets, 'sheets' | 'short' | 'missingFoil'>,
  sheetId: string,
  { jobs, stopped, cutter, isAlone }: ToFreeze,
): SheetMade {
  const titles = jobs.map(({ title }) => title);
  const why = stopped[0]?.why ?? shortages(lacking, titles)[0]?.message;
  if (isAlone && why) throw new InputError('blocked', sayBlocked(why), { source: 'cut' });
  const sheet = sheets.find(({ id }) => id === sheetId);
  if (!sheet) throw new InputError('sheet-changed', saySheetChanged(), { source: 'cut' });
  const frozen = sheetToFreeze({
    sheet,
    layers: sheet.groups.map(({ job, layer }) => jobs[job]!.prepare.layers[layer]!),
    program: programOf(sheet, cutter),
    all: sheets,
    taken: (job, fingerprint) => jobs[job]!.taken[fingerprint] ?? 0,
  });
  const carried = [...new Set(sheet.groups.map(({ job }) => job))].map((job) => jobs[job]!);
  return {
    sheet: {
      ...frozen,
      groups: frozen.groups.map((group, i) => ({ ...group, jobId: jobs[sheet.groups[i]!.job]!.id })),
    },
    toCut: carried.map((job) => ({ jobId: job.id, layers: toCutOf(job), builtWith: job.builtWithNow })),
  };
}
