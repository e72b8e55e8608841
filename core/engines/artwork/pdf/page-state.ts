import { IDENTITY, type Matrix } from '../../../geometry/index.js';
import type { PdfFont } from './open-pdf.js';

/** A paint that is set: a solid colour, or the definition it becomes where it is used, since that depends on where that is. */
export type PagePaint =
  | { readonly kind: 'solid'; readonly colour: string }
  | { readonly kind: 'server'; readonly define: (own: Matrix) => string | null }
  | { readonly kind: 'none' };

/** All that is in force while a page is drawn. */
export interface PageState {
  /** To the page, pt, y down. */
  readonly matrix: Matrix;
  readonly fill: PagePaint;
  readonly stroke: PagePaint;
  readonly fillAlpha: number;
  readonly strokeAlpha: number;
  readonly blend: string;
  readonly clip: string | null;
  readonly mask: string | null;
  readonly line: {
    readonly width: number;
    readonly cap: number;
    readonly join: number;
    readonly miter: number;
    readonly dashes: readonly number[];
    readonly dashOffset: number;
  };
  readonly text: TextState;
}

export interface TextState {
  readonly font: PdfFont | null;
  /** The id that its letters go by. */
  readonly fontId: string;
  readonly size: number;
  readonly charSpacing: number;
  readonly wordSpacing: number;
  readonly scale: number;
  readonly leading: number;
  readonly rise: number;
  /** 0 fills, 1 strokes, 2 both, 3 neither; 4 more and it is added to the clip. */
  readonly mode: number;
  readonly matrix: Matrix;
  readonly x: number;
  readonly y: number;
  readonly lineX: number;
  readonly lineY: number;
}

const BLACK: PagePaint = { kind: 'solid', colour: '#000000' };

/** What is in force at the beginning of a page. */
export const beginning = (matrix: Matrix): PageState => ({
  matrix,
  fill: BLACK,
  stroke: BLACK,
  fillAlpha: 1,
  strokeAlpha: 1,
  blend: 'normal',
  clip: null,
  mask: null,
  line: { width: 1, cap: 0, join: 0, miter: 10, dashes: [], dashOffset: 0 },
  text: {
    font: null,
    fontId: '',
    size: 0,
    charSpacing: 0,
    wordSpacing: 0,
    scale: 1,
    leading: 0,
    rise: 0,
    mode: 0,
    matrix: IDENTITY,
    x: 0,
    y: 0,
    lineX: 0,
    lineY: 0,
  },
});
