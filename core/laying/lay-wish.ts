import { SPARES } from '../engines/learning/index.js';
import { LEFTOVER_RULE, type LeftoverRule } from '../shop/index.js';
import type { Pin } from './sheet-plan.js';

/** In which order sheets are cut: with the fewest changes of settings and film, the smallest first, those of the most urgent job first, or as a hand has put them. */
export const SHEET_ORDERS = ['changes', 'smallest', 'urgent', 'by hand'] as const;
export type SheetOrder = (typeof SHEET_ORDERS)[number];

/** How layers are laid on the pieces of the shop. */
export interface LayWish {
  readonly spacingMm: number;
  /** Borders are shared by neighbours: boxes touch, and the line between them is cut once; others run into one another. */
  readonly sharesBorders: boolean;
  /** Whether small copies may lie in the counters of large ones. */
  readonly inCounters: boolean;
  /** Whether films of the same settings share a mat. */
  readonly zones: boolean;
  readonly order: SheetOrder;
  /** By hand: the keys of sheets, the first to be cut first; those that are not named come after them. */
  readonly sequence: readonly string[];
  /** All layers of one design lie in one direction, or turned by half; otherwise each as it fits best, for a cutter that feeds true both ways. */
  readonly oneDirection: boolean;
  /** A layer that no other must fit is turned by any angle instead of by quarters. */
  readonly anyTurn: boolean;
  /** Of a run so many more are cut, as a share: some are spoiled, of layered ones more. */
  readonly spares: { readonly single: number; readonly layered: number };
  /** A roll that is fed farther than this in one pass may drift: it is cut in sections. */
  readonly longFeedMm: number;
  /** What of a piece is worth keeping, and how much. */
  readonly leftovers: LeftoverRule;
  /** Pieces that are not to be used. */
  readonly avoid: readonly string[];
  /** So many steps of the search for less film are made in a film: with as many it comes out the same again. */
  readonly steps: readonly { readonly filmId: string; readonly steps: number }[];
  /** What was laid by hand. */
  readonly pins: readonly Pin[];
}

/** What nobody has decided otherwise. */
export const NEW_LAY_WISH: LayWish = {
  spacingMm: 5,
  sharesBorders: false,
  inCounters: true,
  zones: true,
  order: 'changes',
  sequence: [],
  oneDirection: true,
  anyTurn: false,
  spares: SPARES,
  longFeedMm: 1500,
  leftovers: LEFTOVER_RULE,
  avoid: [],
  steps: [],
  pins: [],
};
