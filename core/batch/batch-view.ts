import { boundsOf, keyOf, ringsToPathData, turnedOver, IDENTITY, type Rings } from '../geometry/index.js';
import type { LaidSheetView } from '../plan/index.js';
import type { CutterProfile } from '../shop/index.js';
import { programOf } from '../stations/cut/index.js';
import {
  foilViews,
  leftoverViews,
  mirroredFilms,
  onPieces,
  sayFoilShort,
  toCutOf,
  type BetterSoFar,
  type LaidSheets,
  type SheetPlan,
} from '../stations/sheets/index.js';
import type { BatchJob } from './plan-batch.js';
import { sayShortage } from './say.js';

/** How many copies of which job's layer lie on a sheet. */
export interface CopiesOnSheet {
  readonly jobId: string;
  readonly filmId: string;
  readonly copies: number;
  readonly isMirrored: boolean;
}

/** A copy as it lies on a sheet: the middle of its artwork as the page draws it, mm, y down. */
export interface LaidCopy {
  readonly jobId: string;
  readonly filmId: string;
  readonly fingerprint: string;
  readonly copy: number;
  /** How many copies of the design it holds: several in a strip of a gang. */
  readonly perStrip: number;
  readonly isPinned: boolean;
  readonly xMm: number;
  readonly yMm: number;
}

/** A sheet of a batch as the page shows it. */
export interface BatchSheetView extends LaidSheetView {
  readonly key: string;
  readonly carries: readonly CopiesOnSheet[];
  /** Of each shape, what it is. */
  readonly laid: readonly LaidCopy[];
  readonly seconds: number;
  readonly cutMm: number;
  readonly forceG: number;
  readonly speedMmS: number;
  readonly value: number;
}

/** Of what there is not enough, in a sentence, and the spacing that would help. */
export interface ShortageView {
  readonly filmId: string;
  readonly message: string;
  readonly spacingMm: number | null;
}

/** A job that lies in a batch and cannot be cut. */
export interface StoppedJob {
  readonly jobId: string;
  readonly why: string;
}

/** A batch as the page shows it: figures and ready path data, no geometry to compute. */
export interface BatchView {
  /** In the order of cutting. */
  readonly sheets: readonly BatchSheetView[];
  readonly short: readonly ShortageView[];
  /** How much of what was laid by hand can no longer lie so. */
  readonly loose: number;
  readonly stopped: readonly StoppedJob[];
  /** Films in which borders were to be shared and cannot be. */
  readonly unshared: readonly string[];
  /** What of each job is to be cut today, by fingerprint: what is cut of it fits as long as it is among them. */
  readonly wanted: readonly { readonly jobId: string; readonly fingerprints: readonly string[] }[];
  /** Steps of the search for less film that were made in all. */
  readonly steps: number;
  readonly keptMm2: number;
  readonly takenMm2: number;
  readonly value: number;
  readonly seconds: number;
}

/** A job as it is planned in a batch. */
export type NamedBatchJob = BatchJob & { readonly title: string };

/** A planned batch as the page draws it. */
export function batchView(
  { sheets, short, missingFoil, loose, unshared, steps }: LaidSheets,
  {
    jobs,
    stopped,
    cutter,
  }: {
    readonly jobs: readonly NamedBatchJob[];
    readonly stopped: readonly StoppedJob[];
    readonly cutter: CutterProfile;
  },
): BatchView {
  const views = sheets.map((sheet) => sheetView(sheet, jobs, cutter));
  const sum = (of: (sheet: BatchSheetView) => number) => views.reduce((total, sheet) => total + of(sheet), 0);
  return {
    sheets: views,
    short: [
      ...short.map((one) => ({
        filmId: one.film.id,
        message: sayShortage(
          one,
          jobs.map(({ title }) => title),
        ),
        spacingMm: one.spacingMm,
      })),
      ...missingFoil.map((one) => ({ filmId: one.film.id, message: sayFoilShort(one), spacingMm: null })),
    ],
    loose: loose.length,
    wanted: jobs.map((job) => ({
      jobId: job.id,
      fingerprints: toCutOf(job).map(({ fingerprint }) => fingerprint),
    })),
    unshared: unshared.map(({ name }) => name),
    steps: steps.reduce((total, one) => total + one.steps, 0),
    stopped,
    keptMm2: sum(({ keptMm2 }) => keptMm2),
    takenMm2: sum(({ takenMm2 }) => takenMm2),
    value: sum(({ value }) => value),
    seconds: sum(({ seconds }) => seconds),
  };
}

/** What a search has found for one film so far, as the page draws it. */
export interface BetterView {
  readonly filmId: string;
  readonly sheets: readonly BatchSheetView[];
  readonly takenMm2: number;
  readonly beforeMm2: number;
}

/** The same of what was found. */
export function betterView(
  filmId: string,
  { sheets, beforeMm2 }: BetterSoFar,
  { jobs, cutter }: { readonly jobs: readonly NamedBatchJob[]; readonly cutter: CutterProfile },
): BetterView {
  return {
    filmId,
    sheets: sheets.map((sheet) => sheetView(sheet, jobs, cutter)),
    takenMm2: sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0),
    beforeMm2,
  };
}

function sheetView(sheet: SheetPlan, jobs: readonly NamedBatchJob[], cutter: CutterProfile): BatchSheetView {
  const { films, pieces, mat, zones, edges, usedLengthMm, groups } = sheet;
  const program = programOf(sheet, cutter);
  const down = (rings: Rings) => ringsToPathData(turnedOver(rings, usedLengthMm), 2);
  const filmOf = new Map(films.map((film) => [film.id, film]));
  const carried = new Map<string, CopiesOnSheet>();
  for (const { job, filmId, isMirrored } of groups) {
    const key = keyOf(job, filmId, isMirrored);
    carried.set(key, { jobId: jobs[job]!.id, filmId, isMirrored, copies: (carried.get(key)?.copies ?? 0) + 1 });
  }
  return {
    id: sheet.id,
    key: sheet.key,
    film: films[0]!,
    films,
    pieces,
    piece: zones ? null : pieces[0]!,
    mirroredFilmIds: mirroredFilms(groups),
    mat,
    zones,
    edges: zones ? null : edges,
    usedLengthMm,
    // What is at the end of a section comes last: it is of no copy.
    shapes: [
      ...groups.map(({ filmId, contours, borders }) => ({
        film: filmOf.get(filmId)!,
        contours: down(contours),
        borders: down(borders),
        places: [IDENTITY],
      })),
      ...(sheet.endMarks.length > 0
        ? [{ film: films[0]!, contours: '', borders: down(sheet.endMarks), places: [IDENTITY] }]
        : []),
    ],
    carries: [...carried.values()],
    laid: groups.map(({ job, filmId, fingerprint, copy, perStrip, isPinned, contours, marks }) => {
      // Marks may stand far off: it is taken hold of where it is seen.
      const { minX, minY, maxX, maxY } = boundsOf(
        contours.length > marks ? contours.slice(0, contours.length - marks) : contours,
      )!;
      return {
        jobId: jobs[job]!.id,
        filmId,
        fingerprint,
        copy,
        perStrip,
        isPinned,
        xMm: (minX + maxX) / 2,
        yMm: usedLengthMm - (minY + maxY) / 2,
      };
    }),
    section: sheet.section,
    inCounters: groups.filter(({ liesInCounter }) => liesInCounter).length,
    foils: foilViews(sheet),
    onPieces: onPieces(sheet, jobs),
    leftovers: leftoverViews(sheet),
    seconds: program.seconds,
    cutMm: program.cutMm,
    forceG: sheet.forceG,
    speedMmS: sheet.speedMmS,
    keptMm2: groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0),
    takenMm2: sheet.usedMm2,
    value: sheet.value,
  };
}
