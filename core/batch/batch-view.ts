import {
  boundsOf,
  compose,
  IDENTITY,
  inverse,
  keyOf,
  ringsToPathData,
  transformRing,
  turnedOver,
  type Matrix,
  type Rings,
} from '../geometry/index.js';
import type { LaidSheetView } from '../plan/index.js';
import type { CutterProfile } from '../shop/index.js';
import { programOf } from '../stations/cut/index.js';
import {
  foilViews,
  leftoverViews,
  mirroredFilms,
  onPieces,
  panelsOn,
  type PanelNumber,
  toCutOf,
  type BetterSoFar,
  type LaidSheets,
  type SheetGroup,
  type SheetPlan,
} from '../laying/index.js';
import type { PreparedJob, StoppedJob } from './prepare-jobs.js';
import { shortages, type ShortageView } from './say.js';

/** How many copies of which job's layer lie on a sheet. */
export interface CopiesOnSheet {
  readonly jobId: string;
  readonly filmId: string;
  readonly copies: number;
  readonly isMirrored: boolean;
}

/** A copy as it lies on a sheet: the middle of its artwork as the page draws it, mm, y down. */
export interface LaidCopy {
  /** Its number on the sheet, from 0. */
  readonly group: number;
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
  /** Of each place of each shape, in their order, which copy it is. */
  readonly laid: readonly LaidCopy[];
  /** Of one job: which panels or designs of it lie on the sheet. Empty where several jobs do. */
  readonly panels: readonly PanelNumber[];
  readonly seconds: number;
  readonly paths: number;
  readonly cutMm: number;
  readonly travelMm: number;
  readonly forceG: number;
  readonly speedMmS: number;
  readonly value: number;
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

/** A planned batch as the page draws it. */
export function batchView(
  { sheets, short, missingFoil, loose, unshared, steps }: LaidSheets,
  {
    jobs,
    stopped,
    cutter,
  }: {
    readonly jobs: readonly PreparedJob[];
    readonly stopped: readonly StoppedJob[];
    readonly cutter: CutterProfile;
  },
): BatchView {
  const views = sheets.map((sheet) => sheetView(sheet, jobs, cutter));
  const sum = (of: (sheet: BatchSheetView) => number) => views.reduce((total, sheet) => total + of(sheet), 0);
  return {
    sheets: views,
    short: shortages(
      { short, missingFoil },
      jobs.map(({ title }) => title),
    ),
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
  { jobs, cutter }: { readonly jobs: readonly PreparedJob[]; readonly cutter: CutterProfile },
): BetterView {
  return {
    filmId,
    sheets: sheets.map((sheet) => sheetView(sheet, jobs, cutter)),
    takenMm2: sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0),
    beforeMm2,
  };
}

function sheetView(sheet: SheetPlan, jobs: readonly PreparedJob[], cutter: CutterProfile): BatchSheetView {
  const { films, pieces, mat, zones, edges, usedLengthMm, groups } = sheet;
  const program = programOf(sheet, cutter);
  const down = (rings: Rings) => ringsToPathData(turnedOver(rings, usedLengthMm), 2);
  const filmOf = new Map(films.map((film) => [film.id, film]));
  const alike = alikeOnSheet(groups);
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
      ...alike.map((own) => ({
        film: filmOf.get(own[0]!.group.filmId)!,
        contours: down(own[0]!.group.contours),
        borders: down(own[0]!.group.borders),
        places: own.map(({ group }) => placeBeside(own[0]!.group.matrix, group.matrix, usedLengthMm)),
      })),
      ...(sheet.endMarks.length > 0
        ? [{ film: films[0]!, contours: '', borders: down(sheet.endMarks), places: [IDENTITY] }]
        : []),
    ],
    carries: [...carried.values()],
    laid: alike.flat().map(({ group, number }) => laidCopy(group, { number, jobs, usedLengthMm })),
    section: sheet.section,
    inCounters: groups.filter(({ liesInCounter }) => liesInCounter).length,
    foils: foilViews(sheet),
    onPieces: onPieces(sheet, jobs),
    leftovers: leftoverViews(sheet),
    panels: new Set(groups.map(({ job }) => job)).size === 1 ? panelsOn(sheet, jobs[groups[0]!.job]!.prepare) : [],
    seconds: program.seconds,
    paths: program.paths.length,
    cutMm: program.cutMm,
    travelMm: program.travelMm,
    forceG: sheet.forceG,
    speedMmS: sheet.speedMmS,
    keptMm2: groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0),
    takenMm2: sheet.usedMm2,
    value: sheet.value,
  };
}

interface OnSheet {
  readonly group: SheetGroup;
  /** Its number on the sheet, from 0. */
  readonly number: number;
}

/** The copies of a sheet by what they look like: those of one layer, with the same borders round them, are drawn once. */
function alikeOnSheet(groups: readonly SheetGroup[]): readonly (readonly OnSheet[])[] {
  const alike = new Map<string, OnSheet[]>();
  groups.forEach((group, number) => {
    const home = inverse(group.matrix)!;
    const borders = ringsToPathData(
      group.borders.map((ring) => transformRing(ring, home)),
      2,
    );
    const key = `${group.job}/${group.layer}/${borders}`;
    alike.set(key, [...(alike.get(key) ?? []), { group, number }]);
  });
  return [...alike.values()];
}

/** What moves the drawing of one copy, y down, onto another. */
function placeBeside(from: Matrix, to: Matrix, usedLengthMm: number): Matrix {
  const turnOver: Matrix = [1, 0, 0, -1, 0, usedLengthMm];
  return compose(turnOver, compose(compose(to, inverse(from)!), turnOver));
}

interface Where {
  readonly number: number;
  readonly jobs: readonly PreparedJob[];
  readonly usedLengthMm: number;
}

function laidCopy(
  { job, filmId, fingerprint, copy, perStrip, isPinned, contours, marks }: SheetGroup,
  { number, jobs, usedLengthMm }: Where,
): LaidCopy {
  // Marks may stand far off: it is taken hold of where it is seen.
  const { minX, minY, maxX, maxY } = boundsOf(
    contours.length > marks ? contours.slice(0, contours.length - marks) : contours,
  )!;
  return {
    group: number,
    jobId: jobs[job]!.id,
    filmId,
    fingerprint,
    copy,
    perStrip,
    isPinned,
    xMm: (minX + maxX) / 2,
    yMm: usedLengthMm - (minY + maxY) / 2,
  };
}
