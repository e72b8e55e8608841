import type { Box, Rings } from '../../geometry/index.js';

export type School = 'overlay' | 'inlay' | 'trapped';

/** A painted area with the key of the layer that it belongs to: a film, or a colour where no film is chosen yet. */
export interface LayerPaint {
  readonly layer: string;
  readonly rings: Rings;
}

/** Paints of one layer that lie on one level, with their box and the paints above that may cover part of them. */
export interface StackedPaint extends LayerPaint {
  readonly box: Box;
  /** The box of each ring. */
  readonly ringBoxes: readonly Box[];
  /** The same turned by an eighth: the spans of x + y and of x − y. */
  readonly ringSlopes: readonly Box[];
  /** Of how many of the artwork's paints it is made; the rings of several may overlap. */
  readonly merged: number;
  /** Positions in z-order of the paints of other layers above whose boxes touch this one's. */
  readonly coveredBy: readonly number[];
}

/** What shows of one layer in the finished work. */
export interface VisibleLayer {
  readonly key: string;
  /** Positions in z-order of its paints. */
  readonly paints: readonly number[];
  readonly visible: Rings;
  /** Part of that: what was too fine to cut of other layers, and is of this one now. */
  readonly given?: Rings;
}

/** The artwork taken apart by layer, before any school is applied. Visible areas do not overlap. */
export interface Separation {
  readonly stack: readonly StackedPaint[];
  /** In the order in which the artwork first paints them. */
  readonly layers: readonly VisibleLayer[];
  /** Shapes that disappeared into others of their film: a blade would have cut through the overlaps. */
  readonly joined: number;
}

/** One layer of film: everything of one key, joined. */
export interface BuiltLayer {
  readonly key: string;
  /** 1 lies nearest the surface. */
  readonly order: number;
  /** What the eye sees of it in the finished work. */
  readonly visible: Rings;
  /** What is cut: the visible part and whatever runs under the layers above. */
  readonly cut: Rings;
}

/** How much was taken out of what would be cut because no blade can cut it, or leave it. */
export interface Crumbs {
  readonly pieces: number;
  readonly holes: number;
  readonly joins: number;
  /** Gaps between edges that should coincide. */
  readonly slits: number;
}

/** The layers of a job, from the surface upwards. */
export interface Build {
  readonly layers: readonly BuiltLayer[];
  readonly crumbs: Crumbs;
  /** Holes of layers that run whole under others which are filled, since those cover them: so many counters fewer. */
  readonly filled: number;
}
