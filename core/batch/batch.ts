import type { Edges } from '../engines/cutting/index.js';
import type { Film, FilmPiece, LaidRectangle, Mat } from '../shop/index.js';
import { figure, id, object, oneOf, yes } from '../words/schema.js';
import type { PlacedGroup } from '../stations/sheets/index.js';

/** A copy of a layer of one of the jobs, as it lies on a sheet. */
export interface BatchGroup extends PlacedGroup {
  /** The index of its job in the batch. */
  readonly job: number;
  /** The index of its layer among those that are prepared of the job. */
  readonly layer: number;
  readonly isMirrored: boolean;
  readonly keptMm2: number;
}

/** A blank on a mat: what it is cut from, and how large. */
export interface BatchZone extends LaidRectangle {
  readonly film: Film;
  readonly piece: FilmPiece;
}

/** What is left of a piece that was used, from its own corner. */
export interface Leftover extends LaidRectangle {
  readonly piece: FilmPiece;
  readonly keep: boolean;
}

/** One pass through the cutter: one piece, or a mat with blanks of films that are cut with the same settings. y up, from the lower left corner of the piece or of the mat. */
export interface BatchSheet {
  readonly id: string;
  readonly films: readonly Film[];
  readonly pieces: readonly FilmPiece[];
  readonly mat: Mat | null;
  /** Where blanks lie on the mat; null where one piece goes in as it is. */
  readonly zones: readonly BatchZone[] | null;
  readonly edges: Edges;
  readonly forceG: number;
  readonly speedMmS: number;
  readonly groups: readonly BatchGroup[];
  /** Film that is taken for it, without what is kept of its pieces, mm². */
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

export interface BatchOut {
  /** In the order of cutting. */
  readonly sheets: readonly BatchSheet[];
  readonly unplaced: readonly Unplaced[];
  readonly short: readonly Shortage[];
  /** How many steps the search for less film made on the layout of each film: with as many it comes out the same again. Empty when there was none. */
  readonly steps: readonly { readonly film: Film; readonly steps: number }[];
}

/** In which order sheets are cut: with the fewest changes of settings and film, the smallest first, or those of the most urgent job first. */
export const BATCH_ORDERS = ['changes', 'smallest', 'urgent'] as const;
export type BatchOrder = (typeof BATCH_ORDERS)[number];

/** What is decided of a batch. */
export interface BatchWish {
  readonly spacingMm: number;
  /** Whether films of the same settings share a mat. */
  readonly zones: boolean;
  readonly order: BatchOrder;
  /** Pieces that are not to be used. */
  readonly avoid: readonly string[];
}

/** What a new batch is left to. */
export const NEW_BATCH_WISH: BatchWish = { spacingMm: 5, zones: true, order: 'changes', avoid: [] };

export const BATCH_WISH_SCHEMA = object({ spacingMm: figure(0, 100), zones: yes, order: oneOf(BATCH_ORDERS), avoid: { type: 'array', maxItems: 1000, items: id } });
