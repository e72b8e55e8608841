import { cutProgram, programPairs, type CutProgram } from '../engines/cutting/index.js';
import { settingsFor, type CutterProfile } from '../shop/index.js';
import { groupToFreeze, programToFreeze, weedPlacesOf, workTogether, type GroupToFreeze, type SheetToFreeze } from '../stations/cut/index.js';
import { InputError } from '../words/index.js';
import type { BatchOut, BatchSheet } from './batch.js';
import type { BatchJob } from './batch-items.js';
import { sayBatchSheetChanged } from './say.js';

/** A sheet of a batch that is about to be sent to the cutter: each copy by the index of its job. */
export type BatchSheetToFreeze = Omit<SheetToFreeze, 'groups'> & { readonly groups: readonly (GroupToFreeze & { readonly job: number })[] };

/** What the cutter is told of a sheet: films that share a mat are cut with the same settings. */
export function batchProgram({ groups, films }: BatchSheet, cutter: CutterProfile): CutProgram {
  return cutProgram({ groups, settings: settingsFor(films[0]!, cutter), motion: cutter });
}

/** A sheet of a batch as it is kept when it is sent. @throws InputError `sheet-changed` when the plan has no such sheet (any more) */
export function batchSheetToFreeze({ sheets }: BatchOut, jobs: readonly BatchJob[], sheetId: string, cutter: CutterProfile): BatchSheetToFreeze {
  const sheet = sheets.find(({ id }) => id === sheetId);
  if (!sheet) throw new InputError('sheet-changed', sayBatchSheetChanged(), { source: 'cut' });
  const program = batchProgram(sheet, cutter);
  const layers = sheet.groups.map(({ job, layer }) => jobs[job]!.prepare.layers[layer]!);
  return {
    film: sheet.films[0]!,
    piece: sheet.zones ? null : sheet.pieces[0]!,
    mat: sheet.mat,
    zones: sheet.zones,
    leftovers: sheet.leftovers.map(({ piece, ...left }) => ({ ...left, pieceId: piece.id, filmId: piece.filmId, edgeMm: piece.edgeMm })),
    usedLengthMm: sheet.usedLengthMm,
    keptMm2: sheet.groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0),
    filmMm2: sheet.usedMm2,
    filmCost: sheet.value,
    cutMm: program.cutMm,
    estimateSeconds: program.seconds,
    pairsTotal: programPairs(program.runs),
    weedWork: layers.map(({ work }) => work).reduce(workTogether),
    groups: sheet.groups.map((group, i) => ({ job: group.job, ...groupToFreeze(group, { keptMm2: group.keptMm2, weedPlaces: weedPlacesOf(layers[i]!.weed.spots) }) })),
    program: programToFreeze(program, sheet.groups),
  };
}
