import type { Edges } from '../../engines/cutting/index.js';
import type { Matrix, Rings } from '../../geometry/index.js';
import type { Film, FilmPiece, Mat } from '../../shop/index.js';

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

/** A copy of a panel's layer on a sheet of a job. */
export interface SheetGroup extends PlacedGroup {
  /** The panel's number, from 1. */
  readonly panel: number;
  readonly keptMm2: number;
}

/**
 * One pass through the cutter: a piece of one film, fed by itself when it is a roll, else on a mat. Its origin is the piece's lower left corner;
 * x runs along the carriage, y with the feed.
 */
export interface SheetPlan {
  /** Made of the film, the piece, and what lies on it: another one when any of them is. */
  readonly id: string;
  readonly film: Film;
  /** Which panels of the design lie on it, of how many; 1 of 1 for a design in one piece. */
  readonly panels: readonly PanelNumber[];
  /** Cut as a mirror image: of a film that is cut from its back, or for glass that is read from outside. */
  readonly isMirrored: boolean;
  readonly piece: FilmPiece;
  /** Null for a roll, which needs none. */
  readonly mat: Mat | null;
  readonly edges: Edges;
  /** From the piece's beginning to the end of what is taken of it. */
  readonly usedLengthMm: number;
  readonly keptMm2: number;
  readonly groups: readonly SheetGroup[];
  /** One border goes round all groups: the first of them carries it before its own. */
  readonly hasOneBorder: boolean;
}

/** What of a layer is to be cut: how many copies in all, and how many of exactly this outline and film are cut, in the cutter, or waiting for a decision. */
export interface LayerToCut {
  readonly film: Film;
  readonly panel: PanelNumber;
  /** How many copies of the design each of them holds; 1 but for strips of a gang. */
  readonly perStrip: number;
  /** Of the film, its side, the layer's outlines and its marks: what must be the same for a copy that is cut already to fit. */
  readonly fingerprint: string;
  readonly copies: number;
  readonly taken: number;
}

/** A panel by its number, from 1; of several designs, what it is called. */
export interface PanelNumber {
  readonly number: number;
  readonly of: number;
  readonly label: string | null;
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
