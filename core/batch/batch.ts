import type { Edges } from '../engines/cutting/index.js';
import { LEFTOVER_RULE, type Film, type FilmPiece, type LaidRectangle, type LeftoverRule, type Mat } from '../shop/index.js';
import { figure, id, object, oneOf, text, whole, yes } from '../words/schema.js';
import type { PlacedGroup } from '../stations/sheets/index.js';

/** Where a copy lies on its piece: the piece by its key (of a stack of like sheets each has one), its turn, and its place from where the piece's safe edges begin. */
export interface BatchPlace {
  readonly pieceKey: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotation: number;
}

/** A copy that was laid by hand, and stays where it is. It holds as long as its layer is the same, by fingerprint. */
export interface BatchPin extends BatchPlace {
  readonly jobId: string;
  readonly fingerprint: string;
  readonly copy: number;
}

/** A copy of a layer of one of the jobs, as it lies on a sheet. */
export interface BatchGroup extends PlacedGroup {
  /** The index of its job in the batch. */
  readonly job: number;
  /** The index of its layer among those that are prepared of the job. */
  readonly layer: number;
  readonly place: BatchPlace;
  readonly isPinned: boolean;
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
  /** Which pieces it is of: the same while what lies on them changes. */
  readonly key: string;
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
  /** What was laid by hand and can no longer lie so: the layer, the piece or what lies beside it is another. */
  readonly loose: readonly BatchPin[];
  /** Films in which borders were to be shared and cannot be: not all that lies in them has a box round it. */
  readonly unshared: readonly Film[];
  /** How many steps the search for less film made on the layout of each film: with as many it comes out the same again. Empty when there was none. */
  readonly steps: readonly { readonly film: Film; readonly steps: number; /** Less of it is spent than without. */ readonly helped: boolean }[];
}

/** In which order sheets are cut: with the fewest changes of settings and film, the smallest first, those of the most urgent job first, or as a hand has put them. */
export const BATCH_ORDERS = ['changes', 'smallest', 'urgent', 'by hand'] as const;
export type BatchOrder = (typeof BATCH_ORDERS)[number];

/** What is decided of a batch. */
export interface BatchWish {
  readonly spacingMm: number;
  /** Neighbours whose borders are boxes touch, and the line between them is cut once. */
  readonly sharesBorders: boolean;
  /** Whether films of the same settings share a mat. */
  readonly zones: boolean;
  readonly order: BatchOrder;
  /** By hand: the keys of sheets, the first to be cut first; those that are not named come after them. */
  readonly sequence: readonly string[];
  /** All layers of one design lie in one direction, or turned by half; otherwise each as it fits best, for a cutter that feeds true both ways. */
  readonly oneDirection: boolean;
  /** Of a run so many more are cut, as a share: some are spoiled, of layered ones more. */
  readonly spares: { readonly single: number; readonly layered: number };
  /** A roll that is fed farther than this in one pass may drift: the maker is told. */
  readonly longFeedMm: number;
  /** What of a piece is worth keeping, and how much. */
  readonly leftovers: LeftoverRule;
  /** Pieces that are not to be used. */
  readonly avoid: readonly string[];
  /** So many steps of the search for less film are made in a film: with as many it comes out the same again. */
  readonly steps: readonly { readonly filmId: string; readonly steps: number }[];
  /** What was laid by hand. */
  readonly pins: readonly BatchPin[];
}

/** What a new batch is left to. */
export const NEW_BATCH_WISH: BatchWish = { spacingMm: 5, sharesBorders: false, zones: true, order: 'changes', sequence: [], oneDirection: true, spares: { single: 0.05, layered: 0.1 }, longFeedMm: 1500, leftovers: LEFTOVER_RULE, avoid: [], steps: [], pins: [] };

export const BATCH_WISH_SCHEMA = object({ spacingMm: figure(0, 100), sharesBorders: yes, zones: yes, order: oneOf(BATCH_ORDERS), sequence: { type: 'array', maxItems: 2000, items: { type: 'string', maxLength: 20_000 } }, oneDirection: yes, spares: object({ single: figure(0, 1), layered: figure(0, 1) }), longFeedMm: figure(100, 100_000), leftovers: object({ leastSideMm: figure(1, 10_000), leastMm2: figure(0, 10_000_000), share: figure(0, 1), narrowMm: figure(0, 10_000), narrowShare: figure(0, 1) }), avoid: { type: 'array', maxItems: 1000, items: id }, steps: { type: 'array', maxItems: 1000, items: object({ filmId: id, steps: whole(0, 1e9) }) }, pins: { type: 'array', maxItems: 2000, items: object({ jobId: id, fingerprint: text, copy: whole(0, 1_000_000), pieceKey: text, xMm: figure(-1, 100_000), yMm: figure(-1, 100_000), rotation: figure(0, 360) }) } });
