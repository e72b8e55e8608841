import { standings, takenCopies } from './standing.js';
import { tookFilm } from './run.js';
import type { FrozenGroup, FrozenSheet } from './frozen-sheet.js';

/** Why a word about a sheet or a copy cannot be taken back: its copies were cut again, its sheet was, or that is already settled in another way. */
export type KeptWord = 'copies-cut-again' | 'sheet-cut-again' | 'sheet-settled';

/**
 * Whether it can be taken back that a sheet was thrown away; null when it can. `sheets` are all sheets of all jobs that it carries, with all rests.
 * Its copies went back to the plan: once others were cut in their place, to take it back would cut them twice.
 */
export function whyThrownAwayStays(sheets: readonly FrozenSheet[], sheet: FrozenSheet): KeptWord | null {
  // A spoiled copy does not count again by that.
  if (sheet.restOf === null)
    return cutAgain(
      sheets,
      sheet.groups.filter(({ verdict }) => verdict !== 'spoiled'),
    );
  // What a rest carries went back to its own sheet, which asked again.
  const parent = sheets.find(({ id }) => id === sheet.restOf)!;
  if (standings(sheets).get(parent.id) !== 'undecided') return 'sheet-settled';
  return parent.runs.some((run) => run.startedAt > sheet.createdAt && tookFilm(run)) ? 'sheet-cut-again' : null;
}

/** Whether it can be taken back that copies of a sheet are spoiled; null when it can. `sheets` as above. */
export function whySpoiledStays(
  sheets: readonly FrozenSheet[],
  sheet: FrozenSheet,
  positions: readonly number[],
): KeptWord | null {
  // Of a sheet that was thrown away, or of which nothing was cut, its copies are planned again in any case.
  if (!['good', 'in-cutter', 'undecided', 'rest-undecided', 'spoiled'].includes(standings(sheets).get(sheet.id)!))
    return null;
  return cutAgain(
    sheets,
    sheet.groups.filter((group, position) => positions.includes(position) && group.verdict === 'spoiled'),
  );
}

/** Whether more copies of a layer would be taken than its job asked for when one was last sent, if these counted again. */
function cutAgain(sheets: readonly FrozenSheet[], back: readonly FrozenGroup[]): KeptWord | null {
  const layers = new Map(back.map((group) => [`${group.jobId} ${group.fingerprint}`, group]));
  for (const { jobId, fingerprint } of layers.values()) {
    const isOf = (group: FrozenGroup) => group.jobId === jobId && group.fingerprint === fingerprint;
    const newest = sheets.filter(({ restOf, groups }) => restOf === null && groups.some(isOf)).at(-1)!;
    const count = back.filter(isOf).length;
    const asked = newest.groups.find(isOf)!.asked ?? count;
    if ((takenCopies(sheets, jobId)[fingerprint] ?? 0) + count > asked) return 'copies-cut-again';
  }
  return null;
}
