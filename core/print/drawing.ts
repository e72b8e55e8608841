import type { Box, Rings } from '../geometry/index.js';

/*
 * Pages at true scale: what is drawn on them in mm, x right, y down, and one writer for each open format.
 */

/** Areas of one colour, closed; even-odd, and wound so that holes run the other way. */
export interface PrintArea {
  readonly kind: 'area';
  /** What it is called, and the layer it lies on where a format has layers. */
  readonly name: string;
  readonly colour: string;
  readonly rings: Rings;
}

/** Lines, open or closed. */
export interface PrintLines {
  readonly kind: 'lines';
  readonly name: string;
  readonly colour: string;
  readonly widthMm: number;
  readonly dashed: boolean;
  readonly lines: readonly { readonly points: ArrayLike<number>; readonly closed: boolean }[];
}

/** A line of text, by the middle of its baseline. */
export interface PrintText {
  readonly kind: 'text';
  readonly name: string;
  readonly text: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly heightMm: number;
  /** Clockwise. */
  readonly turnDeg: number;
}

export type Printed = PrintArea | PrintLines | PrintText;

/** What is printed, and the part of the plane that the page shows. */
export interface PrintDrawing {
  readonly title: string;
  readonly box: Box;
  readonly items: readonly Printed[];
}

export const PRINT_FORMATS = ['svg', 'dxf', 'pdf'] as const;
export type PrintFormat = (typeof PRINT_FORMATS)[number];

/** A figure to a tenth of a micron, without noughts behind. */
export function printFigure(v: number): string {
  return String(Number(v.toFixed(4)));
}
