import type { CutterProfile } from '../shop/index.js';
import { planToFreeze, programOf, type GroupToFreeze, type SheetToFreeze } from '../stations/cut/index.js';
import { InputError } from '../words/index.js';
import type { LaidSheets } from '../stations/sheets/index.js';
import type { BatchJob } from './plan-batch.js';
import { sayBatchSheetChanged } from './say.js';

/** A sheet of a batch that is about to be sent to the cutter: each copy by the index of its job. */
export type BatchSheetToFreeze = Omit<SheetToFreeze, 'groups'> & {
  readonly groups: readonly (GroupToFreeze & { readonly job: number })[];
};

/** A sheet of a batch as it is kept when it is sent. @throws InputError `sheet-changed` when the plan has no such sheet (any more) */
export function batchSheetToFreeze(
  { sheets }: LaidSheets,
  jobs: readonly BatchJob[],
  sheetId: string,
  cutter: CutterProfile,
): BatchSheetToFreeze {
  const sheet = sheets.find(({ id }) => id === sheetId);
  if (!sheet) throw new InputError('sheet-changed', sayBatchSheetChanged(), { source: 'cut' });
  const frozen = planToFreeze({
    sheet,
    layers: sheet.groups.map(({ job, layer }) => jobs[job]!.prepare.layers[layer]!),
    program: programOf(sheet, cutter),
    all: sheets,
    taken: (job, fingerprint) => jobs[job]!.taken[fingerprint] ?? 0,
  });
  return { ...frozen, groups: frozen.groups.map((group, i) => ({ job: sheet.groups[i]!.job, ...group })) };
}
