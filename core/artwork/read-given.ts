import type { Curves } from '../geometry/index.js';
import type { Recipe } from '../job/index.js';
import type { Artwork } from './artwork.js';
import type { Font } from './lettering/font.js';
import type { CssReader } from './svg/style-rules.js';

/** Remedies that are taken while a drawing is read. */
export type ReadRepair = Pick<Recipe['repair'], 'joinEndsMm' | 'gradientBands' | 'patterns' | 'pictures' | 'fonts'>;

/** A letter set in a font: its outline in ems, y down, and how far the next one stands. */
export interface Letter {
  readonly curves: Curves;
  /** Index of its first letter in the text. */
  readonly index: number;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
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
  /** Sets a line of text; null as long as no font is at hand. */
  readonly lettersOf: ((font: Font, text: string) => readonly Letter[]) | null;
  /** A picture inside the drawing, traced, if it is at hand. */
  readonly pictureOf: (href: string) => Artwork | null;
}
