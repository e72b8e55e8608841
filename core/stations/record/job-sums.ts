import { shareOfJob, standings, tookFilm, type BookedRun, type FrozenSheet } from '../cut/index.js';

/** What a job took in all its runs: areas in mm², costs in the shop's currency, lengths in mm, times in s. */
export interface JobSums {
  /** Film by the stock book: what its runs took, less what went back to the rack. Of runs for which nothing was booked, what their sheets were reckoned to take. */
  readonly takenMm2: number;
  /** How much of that the stock book does not have. */
  readonly unbookedMm2: number;
  /** What of it stays on the job: good copies. */
  readonly keptMm2: number;
  readonly cost: number;
  readonly bladeMm: number;
  readonly actualSeconds: number;
  readonly estimateSeconds: number;
}

/** The sums of a job over all runs of all its sheets, also those that failed or were cancelled; of a sheet that carries other jobs too, the share by what stays of each. */
export function jobSums(sheets: readonly FrozenSheet[], jobId: string): JobSums {
  const how = standings(sheets);
  const sums = { takenMm2: 0, unbookedMm2: 0, keptMm2: 0, cost: 0, bladeMm: 0, actualSeconds: 0, estimateSeconds: 0 };
  for (const sheet of sheets) {
    const share = shareOfJob(sheet, jobId);
    for (const run of sheet.runs) {
      const { mm2, cost, isBooked } = filmOfRun(sheet, run);
      sums.takenMm2 += mm2 * share;
      sums.cost += cost * share;
      if (!isBooked) sums.unbookedMm2 += mm2 * share;
      sums.bladeMm += run.share * sheet.cutMm * share;
      sums.actualSeconds += (run.actualSeconds ?? 0) * share;
      sums.estimateSeconds += run.estimateSeconds * run.share * share;
    }
    sums.takenMm2 -= sheet.backMm2 * share;
    sums.cost -= sheet.backCost * share;
    // A rest makes copies of its sheet whole, which count there.
    if (sheet.restOf === null && how.get(sheet.id) === 'good')
      for (const { jobId: of, verdict, keptMm2 } of sheet.groups)
        if (of === jobId && verdict !== 'spoiled') sums.keptMm2 += keptMm2;
  }
  return sums;
}

/** The film of one run: by the stock book, or, where that has nothing of it, by the sheet. */
export function filmOfRun(
  { filmMm2, filmCost }: Pick<FrozenSheet, 'filmMm2' | 'filmCost'>,
  run: Pick<BookedRun, 'state' | 'pairsDone' | 'bookedMm2' | 'bookedCost'>,
): { readonly mm2: number; readonly cost: number; readonly isBooked: boolean } {
  if (run.bookedMm2 !== null) return { mm2: run.bookedMm2, cost: run.bookedCost ?? 0, isBooked: true };
  return tookFilm(run) ? { mm2: filmMm2, cost: filmCost, isBooked: false } : { mm2: 0, cost: 0, isBooked: true };
}
