import type { Curves, FillRule, Matrix, Rings, StrokeStyle } from '../../geometry/index.js';
import type { Noticed } from './noticed.js';

/** One painted thing of an artwork, bottom first in the artwork's list: a fill or a stroke, still as curves. */
export interface Paint {
  /** "#rrggbb" */
  readonly colour: string;
  readonly curves: Curves;
  /** From the element's user space to mm on the artboard at the artwork's own size. */
  readonly matrix: Matrix;
  readonly how:
    | { readonly kind: 'fill'; readonly rule: FillRule }
    | {
        readonly kind: 'stroke';
        readonly style: StrokeStyle;
        readonly dashes: readonly number[];
        readonly dashOffset: number;
      };
  readonly clips: readonly Clip[];
  /** What a maker can find again: `<path id="hull">, line 12`. */
  readonly element: string;
  /** The same for the fill and the stroke of one drawn element. */
  readonly elementIndex: number;
  /** Its outlines may cross without a word: letters are drawn of overlapping strokes. */
  readonly mayCross?: boolean;
}

/** An area that a paint is cut down to: the union of its outlines, themselves cut down to `clips`. One that hides takes itself out of those before it. */
export interface Clip {
  readonly outlines: readonly {
    readonly curves: Curves;
    readonly matrix: Matrix;
    readonly rule: FillRule;
    readonly clips: readonly Clip[];
    readonly isLetter?: boolean;
    readonly hides?: boolean;
  }[];
  readonly clips: readonly Clip[];
}

/** An artwork as read: its frame in mm at its own size, its paints from the bottom up, and what was noticed. */
export interface Artwork {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Of a file that does not say its unit: what one unit was taken for, mm. */
  readonly mmPerUnit?: number;
  /** Traced: its frame is the edge of a photograph, and no artboard that anything could reach beyond. */
  readonly isPicture?: true;
  /** Of a file with pages: which one it is, from 1, of how many. */
  readonly page?: { readonly number: number; readonly of: number };
  readonly paints: readonly Paint[];
  /** Of a drawing of lines: those that became the outlines of its paints. */
  readonly lines?: readonly { readonly curves: Curves; readonly matrix: Matrix }[];
  /** Of a lettering in straight lines: how far its first baseline lies below its upper edge, mm at its own size. */
  readonly baselineMm?: number;
  /** Of a lettering: its words whose letters were moved together, and by how much each at its own size. */
  readonly joined?: readonly { readonly word: string; readonly byMm: number }[];
  readonly noticed: readonly Noticed[];
}

/** A paint as an area in mm at the size of the job, kernel-clean and cut down to the frame. */
export interface PaintedRegion {
  readonly colour: string;
  readonly rings: Rings;
  readonly element: string;
  /** The part of the design that it belongs to; none for a drawing by itself. */
  readonly part?: string;
}
