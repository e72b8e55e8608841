import type { Matrix } from '../../geometry/index.js';
import type { Film, FilmPiece, LaidRectangle, Mat } from '../../shop/index.js';
import type { SpotKind, WeedingWork } from '../../engines/weeding/index.js';
import type { FoilView } from '../../laying/index.js';
import type { BookedRun } from './run.js';

/** What is ticked off while a copy is weeded: a place on the design, mm, y down; or, of a copy without any, that all is out. */
export interface WeedPlace {
  readonly kind: SpotKind | 'all out';
  readonly xMm: number;
  readonly yMm: number;
  /** The part of its copy (an outline with its counters) that it lies on; absent where that is not known. */
  readonly part?: number;
}

/** What the maker said of a copy after it was cut: a spoiled one is cut again. */
export type CopyVerdict = 'good' | 'spoiled';

/** One copy of a layer as it was laid on a sheet that was sent to the cutter. */
export interface FrozenGroup {
  readonly jobId: string;
  /** The job's revision when it was sent; null for what was cut before that was kept. */
  readonly revision: number | null;
  /** Which copy, or which strip of a gang, from 0. */
  readonly copy: number;
  /** How many copies of the design it holds; 1 but for strips of a gang. */
  readonly perStrip: number;
  readonly filmId: string;
  /** What of it stays on the job. */
  readonly keptMm2: number;
  /** Of what was cut, as LayerToCut has it: a copy fits today's plan when the plan wants the same. */
  readonly fingerprint: string;
  /** From the design (mm, y down) to the sheet (mm, y up). */
  readonly matrix: Matrix;
  /** Outlines and counters of the layer, then `marks` registration marks, then `borders` weeding borders. */
  readonly contours: number;
  readonly marks: number;
  readonly borders: number;
  readonly weedPlaces: readonly WeedPlace[];
  /** Those of them that were ticked off. */
  readonly ticked: readonly WeedPlace[];
  /** On a rest: the position that the copy has on the sheet that this is the rest of; else null. */
  readonly of: number | null;
  /** How many copies of this layer the job had in all when it was sent: taken already, and still to be cut. Null for what was cut before that was kept. */
  readonly asked: number | null;
  readonly verdict: CopyVerdict | null;
}

/** A piece that lay on the mat, what it was cut from, and where: mm from the mat's lower left corner, y up. */
export interface FrozenZone extends LaidRectangle {
  readonly film: Film;
  readonly piece: FilmPiece;
}

/** What is left of a piece once its sheet is cut off it, from the piece's own corner, and whether it is worth keeping. */
export interface FrozenLeftover extends LaidRectangle {
  readonly pieceId: string;
  readonly filmId: string;
  readonly edgeMm: number;
  readonly keep: boolean;
}

/** kept: all that counts is whole on it; thrown-away: nothing of it is used. */
export type SheetDecision = 'kept' | 'thrown-away';

/** A sheet as it was sent to the cutter. None of it changes any more; runs, ticks and verdicts refer to it. */
export interface FrozenSheet {
  readonly id: string;
  readonly createdAt: string;
  /** The batch that it was laid out in; null for a job's own sheet. */
  readonly batchId: string | null;
  /** The film, the piece and the mat as they were then. With zones they tell of films and pieces, and the film is that of the first. The piece is null for zones, and for what was cut before that was kept. */
  readonly film: Film;
  readonly piece: FilmPiece | null;
  readonly mat: Mat | null;
  /** The pieces that lay side by side on the mat; null for one piece as it is. */
  readonly zones: readonly FrozenZone[] | null;
  /** The foil that is laid on what it carries, by the piece that it was cut from. */
  readonly foils: readonly FoilView[];
  readonly leftovers: readonly FrozenLeftover[];
  /** When it was said what becomes of what is left; null while it was not. */
  readonly leftoversBookedAt: string | null;
  /** The pieces that went back to the rack as offcuts, in the order in which they were booked. */
  readonly offcutIds: readonly string[];
  /** When somebody said that their numbers are written on them; null while nobody did. */
  readonly numbersWrittenAt: string | null;
  /** What of its pieces went back to the rack, by the stock book: mm², and what that is worth. */
  readonly backMm2: number;
  readonly backCost: number;
  readonly usedLengthMm: number;
  readonly keptMm2: number;
  readonly filmMm2: number;
  readonly filmCost: number;
  readonly cutMm: number;
  readonly estimateSeconds: number;
  readonly pairsTotal: number;
  readonly forceG: number;
  readonly speedMmS: number;
  /** The sheet of which this cuts what was not whole. */
  readonly restOf: string | null;
  /** What the maker decided of it after its run failed or was cancelled; null while nothing is. */
  readonly decided: SheetDecision | null;
  readonly groups: readonly FrozenGroup[];
  /** What there was to weed on it; null for what was cut before that was kept, and for rests: they are weeded with their sheet. */
  readonly weedWork: WeedingWork | null;
  /** When the clock of weeding ran, the oldest first; it runs while the last has no end. */
  readonly weedTimes: readonly { readonly startedAt: string; readonly stoppedAt: string | null }[];
  /** The oldest first. */
  readonly runs: readonly BookedRun[];
}

/** The films of a sheet, each once. */
export function filmsOfSheet({ film, zones }: Pick<FrozenSheet, 'film' | 'zones'>): readonly Film[] {
  return zones ? [...new Map(zones.map((zone) => [zone.film.id, zone.film])).values()] : [film];
}

/** The film that a copy was cut of. */
export function filmOfGroup(sheet: Pick<FrozenSheet, 'film' | 'zones'>, { filmId }: Pick<FrozenGroup, 'filmId'>): Film {
  return filmsOfSheet(sheet).find(({ id }) => id === filmId) ?? sheet.film;
}

/** How much of a sheet is a job's, 0 to 1: by what stays on it of each job. */
export function shareOfJob({ groups }: Pick<FrozenSheet, 'groups'>, jobId: string): number {
  const of = (some: FrozenSheet['groups']) => some.reduce((sum, { keptMm2 }) => sum + keptMm2, 0);
  const [own, all] = [groups.filter((group) => group.jobId === jobId), groups];
  return of(all) > 0 ? of(own) / of(all) : own.length / Math.max(1, all.length);
}

/** Whether anything of a job lies on a sheet. */
export function carriesJob({ groups }: Pick<FrozenSheet, 'groups'>, jobId: string): boolean {
  return groups.some((group) => group.jobId === jobId);
}

/** The sheet on which a copy was first sent, and its position there; a rest completes copies of another sheet. `sheets` must hold that sheet. */
export function copyWhereItBegan(
  sheets: readonly FrozenSheet[],
  sheet: FrozenSheet,
  position: number,
): { readonly sheet: FrozenSheet; readonly position: number } {
  const of = sheet.groups[position]!.of;
  const parent = sheet.restOf === null || of === null ? null : sheets.find(({ id }) => id === sheet.restOf);
  return parent ? copyWhereItBegan(sheets, parent, of!) : { sheet, position };
}
