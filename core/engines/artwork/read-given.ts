import type { Curves } from '../../geometry/index.js';
import type { Artwork } from './artwork.js';
import type { Font } from './lettering/font.js';
import type { DirectedRun } from './lettering/line-order.js';
import type * as TextLayout from './svg/text.js';
import type { CssReader } from './svg/style-rules.js';

/** Remedies that are taken while a drawing is read. */
export interface ReadRepair {
  /** Ends of open outlines no further apart than this are joined. */
  readonly joinEndsMm: number;
  /** A gradient becomes so many flat colours; 1 is its mean. */
  readonly gradientBands: number;
  /** Shines and shadows, mostly see-through, are left out, or kept as solid film. */
  readonly shines: 'drop' | 'keep';
  /** What is blurred is left out, or cut as if it were sharp. */
  readonly blurs: 'drop' | 'keep';
  /** A pattern is left out, or becomes its main colour. */
  readonly patterns: 'drop' | 'flat';
  /** Pictures inside drawings are left out, or traced. */
  readonly pictures: 'drop' | 'trace';
  /** Shipped fonts that stand in for those a drawing's text names, by the name. */
  readonly fonts: Readonly<Record<string, string>>;
}

/** A drawing read as it is. */
export const READ_AS_IT_IS: ReadRepair = {
  joinEndsMm: 0,
  gradientBands: 1,
  shines: 'keep',
  blurs: 'keep',
  patterns: 'drop',
  pictures: 'drop',
  fonts: {},
};

/** A letter set in a font: its outline in ems, y down, and how far the next one stands. */
export interface Letter {
  readonly curves: Curves;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
}

/** Sets a drawing's text. */
export interface Typesetter {
  /** A line cut into runs of one direction, from left to right as they are seen. */
  readonly directedRuns: (line: string, base: 'ltr' | 'rtl') => readonly DirectedRun[];
  /** The letters of a run or of a part of it, from left to right as they are seen, and those that the font has not. */
  readonly lettersOf: (
    font: Font,
    run: DirectedRun,
  ) => { readonly letters: readonly Letter[]; readonly missing: readonly string[] };
}

/**
 * What a drawing may need while it is read. Reading never waits: what is asked for and not at hand is left out, fetched afterwards, and
 * the drawing is read again.
 */
export interface ReadGiven {
  readonly repair: ReadRepair;
  readonly css: CssReader;
  /** Whether a family's name stands for a font that can be had. */
  readonly hasFont: (family: string) => boolean;
  /** The font for a family's name, if it is at hand. */
  readonly fontOf: (family: string) => Font | null;
  /** Lays out text; null for a drawing that has none. */
  readonly text: typeof TextLayout | null;
  /** Null as long as no font is at hand. */
  readonly typesetter: Typesetter | null;
  /** A picture inside the drawing, traced, if it is at hand. */
  readonly pictureOf: (href: string) => Artwork | null;
}
