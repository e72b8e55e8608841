import type { LayItem } from './lay-film.js';
import type { PanelNumber } from './job-to-lay.js';
import type { Edges } from '../engines/cutting/index.js';
import type { Matrix, Rings } from '../geometry/index.js';
import type { Film, FilmPiece, LaidRectangle, Mat, Rectangle } from '../shop/index.js';

/** One layer's rigid group as it lies on a sheet. */
export interface PlacedGroup {
  readonly filmId: string;
  /** Of a gang: which strip. */
  readonly copy: number;
  /** How many copies of the design it holds; 1 but for strips of a gang. */
  readonly perStrip: number;
  /** Of what is cut of the layer: see LayerToCut. */
  readonly fingerprint: string;
  /** From the design (mm, y down) to the sheet (mm, y up), mirroring included. */
  readonly matrix: Matrix;
  /** The layer's outlines and counters, then the marks. */
  readonly contours: Rings;
  readonly borders: Rings;
  readonly marks: number;
  /** For each contour, the number of the part it is outline or counter of; -1 for marks. */
  readonly partOf: readonly number[];
}

/** Where a copy lies on its piece: the piece by its key (of a stack of like sheets each has one), its turn, and its place from where the piece's safe edges begin. */
export interface LaidPlace {
  readonly pieceKey: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotation: number;
}

/** A copy that was laid by hand, and stays where it is. It holds as long as its layer is the same, by fingerprint. */
export interface Pin extends LaidPlace {
  readonly jobId: string;
  readonly fingerprint: string;
  readonly copy: number;
}

/** A copy of a layer of one of the jobs that are laid together, as it lies on a sheet. */
export interface SheetGroup extends PlacedGroup {
  /** The index of its job among them; 0 for a job alone. */
  readonly job: number;
  /** The index of its layer among those that are prepared of the job. */
  readonly layer: number;
  readonly place: LaidPlace;
  readonly isPinned: boolean;
  /** It lies in a counter of another copy: it is cut out before that is lifted. */
  readonly liesInCounter: boolean;
  readonly isMirrored: boolean;
  readonly keptMm2: number;
}

/** A piece on a mat: what it is cut from, and how large. */
export interface SheetZone extends LaidRectangle {
  readonly film: Film;
  readonly piece: FilmPiece;
}

/** What is left of a piece that was used, from its own corner. */
export interface Leftover extends LaidRectangle {
  readonly piece: FilmPiece;
  readonly keep: boolean;
}

/** Foil that is cut by hand from one piece, to be laid on what a sheet carries. */
export interface FoilOnSheet {
  readonly film: Film;
  readonly piece: FilmPiece;
  /** What is cut out, from the piece's own corner. */
  readonly cuts: readonly LaidRectangle[];
  /** How much of a roll's length it takes, mm. */
  readonly usedLengthMm: number;
  readonly usedMm2: number;
  readonly leftovers: readonly Leftover[];
  readonly value: number;
}

/** Foil of which no piece in stock is large enough, or too few are: how many rectangles are missing, and how large the largest is. */
export interface MissingFoil extends Rectangle {
  readonly film: Film;
  readonly quantity: number;
}

/** A roll that would be fed too far in one pass is cut in sections: which of how many, from 1. */
export interface Section {
  readonly number: number;
  readonly of: number;
}

/** One pass through the cutter: one piece, or a mat with pieces of films that are cut with the same settings. y up, from the lower left corner of the piece or of the mat; of a section, from where it begins. */
export interface SheetPlan {
  /** Made of the films, the pieces, and what lies on them: another one when any of them is. */
  readonly id: string;
  /** Which pieces it is of: the same while what lies on them changes. */
  readonly key: string;
  readonly films: readonly Film[];
  readonly pieces: readonly FilmPiece[];
  /** Null for a roll, which needs none. */
  readonly mat: Mat | null;
  /** Where pieces lie on the mat; null where one piece goes in as it is. */
  readonly zones: readonly SheetZone[] | null;
  /** Null where the roll is cut in one. */
  readonly section: Section | null;
  /** Short lines at its end, at which the roll is laid square again for the next section. */
  readonly endMarks: Rings;
  readonly edges: Edges;
  readonly forceG: number;
  readonly speedMmS: number;
  readonly groups: readonly SheetGroup[];
  /** What is laid on it in foil. */
  readonly foils: readonly FoilOnSheet[];
  /** Film and foil that are taken for it, without what is kept of their pieces, mm². */
  readonly usedMm2: number;
  readonly leftovers: readonly Leftover[];
  /** What is spent of its film, in the shop's money. */
  readonly value: number;
  /** How far along the feed it reaches, mm. */
  readonly usedLengthMm: number;
}

/** Copies of a layer that found no place. */
export interface Unplaced {
  readonly job: number;
  readonly layer: number;
  readonly film: Film;
  readonly quantity: number;
  readonly reason: string;
}

/** Film of which there is not enough, and what would help. */
export interface Shortage {
  readonly film: Film;
  readonly missing: readonly { readonly job: number; readonly quantity: number }[];
  /** So much between groups, and all of it has room; null where that does not help. */
  readonly spacingMm: number | null;
  /** A roll of this width that holds what is missing; null where none can. */
  readonly roll: { readonly widthMm: number; readonly lengthMm: number } | null;
}

/** Layers on the pieces of the shop. */
export interface LaidSheets {
  /** Everything that was to be laid, in the order of the jobs, also layers of which nothing is left to be cut. */
  readonly items: readonly LayItem[];
  /** In the order of cutting. */
  readonly sheets: readonly SheetPlan[];
  readonly unplaced: readonly Unplaced[];
  readonly missingFoil: readonly MissingFoil[];
  readonly short: readonly Shortage[];
  /** What was laid by hand and can no longer lie so: the layer, the piece or what lies beside it is another. */
  readonly loose: readonly Pin[];
  /** Films in which borders were to be shared and cannot be: not all that lies in them has a box round it. */
  readonly unshared: readonly Film[];
  /** How many steps the search for less film made on the layout of each film: with as many it comes out the same again. Empty when there was none. */
  readonly steps: readonly {
    readonly film: Film;
    readonly steps: number;
    /** Less of it is spent than without. */ readonly helped: boolean;
  }[];
}

/** What of a layer is to be cut: how many copies in all, and how many of exactly this outline and film are cut, in the cutter, or waiting for a decision. */
export interface LayerToCut {
  readonly film: Film;
  readonly panel: PanelNumber;
  /** How many copies of the design each of them holds; 1 but for strips of a gang. */
  readonly perStrip: number;
  /** Of the film, its side, the layer's outlines and its marks: what must be the same for a copy that is cut already to fit. */
  readonly fingerprint: string;
  /** What stays of the film on the work of each of them. */
  readonly areaMm2: number;
  readonly copies: number;
  readonly taken: number;
}

/** How many copies of what is cut already, in the cutter, or waiting for a decision, by fingerprint. */
export type TakenCopies = Readonly<Record<string, number>>;

/** How copies that are cut already, in the cutter, or waiting for a decision lie on their films, by fingerprint: what is still to be cut must lie alike. */
export type TakenDirections = Readonly<Record<string, Direction>>;

/** A design as it is drawn, or turned a quarter; turned by a half it counts as the same. */
export type Direction = 'as drawn' | 'across';

/** What of a job need not be cut any more, and how it lies. */
export interface CutSoFar {
  readonly taken: TakenCopies;
  readonly lies: TakenDirections;
}

/** The films, by their ids, of groups that are cut as a mirror image. */
export function mirroredFilms(groups: readonly Pick<SheetGroup, 'filmId' | 'isMirrored'>[]): string[] {
  return [...new Set(groups.flatMap(({ filmId, isMirrored }) => (isMirrored ? [filmId] : [])))];
}
