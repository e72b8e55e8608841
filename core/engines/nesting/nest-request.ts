import type { Region } from '../../geometry/index.js';

/** Film to place on: `lengthMm` null is a roll without a stated end, `quantity` null as many as it takes. */
export interface NestSheet {
  readonly id: string;
  readonly widthMm: number;
  readonly lengthMm: number | null;
  readonly quantity: number | null;
  /** The outline of a piece that is no rectangle, inside of its width and length. */
  readonly outline?: Region;
}

/** A rigid group: its regions never move against each other. x right, y up, mm. */
export interface NestItem {
  readonly id: string;
  readonly quantity: number;
  /** Degrees counter-clockwise that are allowed, or any. */
  readonly rotations: readonly number[] | 'free';
  readonly group: readonly Region[];
}

export interface NestRequest {
  readonly sheets: readonly NestSheet[];
  /** Least distance between groups on a sheet. */
  readonly spacingMm: number;
  readonly items: readonly NestItem[];
  /** What lies where it lies, and is gone round: copies of the items, of which so many fewer are placed. */
  readonly pinned?: readonly Placement[];
}

/** Turn the group about the origin by `rotation` degrees counter-clockwise, then move it by x, y; a sheet spans 0..width in x, 0..length in y. */
export interface Placement {
  readonly item: string;
  readonly copy: number;
  readonly sheet: string;
  readonly sheetIndex: number;
  readonly x: number;
  readonly y: number;
  readonly rotation: number;
}

export interface NestResult {
  readonly placements: readonly Placement[];
  /** Summed over the sheets in use: how far up the highest group reaches. */
  readonly usedLengthMm: number;
  /** Area of the groups over width × used length of the sheets in use, 0 to 1. */
  readonly density: number;
  readonly unplaced: readonly { readonly item: string; readonly quantity: number; readonly reason: string }[];
  /** How many steps of the search were made: with as many the same request gives the same layout. */
  readonly steps: number;
}

/** What the caller lends a long computation: a moment to breathe, which may throw to cancel, and a budget. */
export interface NestHooks {
  /** Awaited between placements and between steps; throwing from it cancels. */
  readonly breathe?: () => Promise<void>;
  /** Asked before each step of the search: false once no further one should be made. Without it none is made. The first arrangements are always finished. */
  readonly mayTryMore?: (steps: number) => boolean;
  /** What a layout costs its caller, where that is not the length of film alone: of first arrangements that leave as little over, the cheapest is kept. */
  readonly costOf?: (found: NestResult) => number;
  /** Told of every layout on less film that the search finds on the way, which is made when it is asked for. */
  readonly onBetter?: (found: () => NestResult) => void;
}
