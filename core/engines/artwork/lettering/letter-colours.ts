import { mixInLab } from '../colour.js';
import type { Lettering } from './lettering.js';

/** What of a letter is in one colour: all between two heights, the lowest band without an end below and the highest without one above. */
export interface LetterBand {
  readonly colour: string;
  /** As shares of the height that the bands are measured by. */
  readonly from: number;
  readonly to: number;
}

/** More bands than this in a letter no hand lays. */
export const MOST_BANDS = 5;

/** The colours that a lettering's lines, words, letters or bands come in, in their order: those that were chosen, or as many as a fade has steps. */
export function coloursOf({
  colours,
  share,
  colourBy,
}: Pick<Lettering, 'colours' | 'share' | 'colourBy'>): readonly string[] {
  if (colourBy === 'all') return colours.slice(0, 1);
  const all = share.kind === 'fade' ? faded(colours, share.steps) : colours;
  return colourBy === 'band' ? all.slice(0, MOST_BANDS) : all;
}

/** So many colours, two or more, from the first to the last of some, by even steps of CIELAB from each to the next. */
function faded(colours: readonly string[], steps: number): string[] {
  return Array.from({ length: steps }, (_, i) => {
    const at = (i * (colours.length - 1)) / (steps - 1);
    const before = Math.min(Math.floor(at), colours.length - 1);
    return mixInLab(colours[before]!, colours[Math.min(before + 1, colours.length - 1)]!, at - before);
  });
}

/**
 * Where each band but the highest ends, as shares of the height from below: as they were set, in whatever order, or evenly when that was for another number of bands.
 */
export function bandHeights({ bands }: Pick<Lettering, 'bands'>, count: number): readonly number[] {
  return bands.heights.length === count - 1
    ? bands.heights.toSorted((a, b) => a - b)
    : Array.from({ length: count - 1 }, (_, i) => (i + 1) / count);
}

/** Gives the bands of the letter at an index of the text, the lowest first; one for a letter of one colour. */
export function letterColours(lettering: Lettering): (index: number) => readonly LetterBand[] {
  const colours = coloursOf(lettering);
  if (lettering.colourBy === 'band') {
    const ends = [-Infinity, ...bandHeights(lettering, colours.length), Infinity];
    const bands = colours.map((colour, i): LetterBand => ({ colour, from: ends[i]!, to: ends[i + 1]! }));
    return () => bands;
  }
  const { unitOf, count } = units(lettering);
  return (index) => {
    const unit = unitOf(index);
    const turn =
      lettering.share.kind === 'turn'
        ? unit % colours.length
        : Math.floor((unit * colours.length) / Math.max(1, count));
    return [{ colour: colours[turn]!, from: -Infinity, to: Infinity }];
  };
}

/** The lines, words or letters that take a colour each: how many there are, and which one the letter at an index belongs to. */
function units({ text, colourBy }: Lettering): { readonly count: number; readonly unitOf: (index: number) => number } {
  const before = (index: number) => text.slice(0, index);
  switch (colourBy) {
    case 'line':
      return { count: text.split('\n').length, unitOf: (index) => before(index).split('\n').length - 1 };
    case 'word':
      return {
        count: text.match(/\S+/g)?.length ?? 1,
        unitOf: (index) => (before(index + 1).match(/\S+/g)?.length ?? 1) - 1,
      };
    case 'letter': {
      // An accent typed by itself belongs to its letter.
      const starts = graphemes(text)
        .filter(({ segment }) => /\S/.test(segment))
        .map(({ index }) => index);
      return { count: starts.length, unitOf: (index) => starts.filter((start) => start <= index).length - 1 };
    }
    default:
      return { count: 1, unitOf: () => 0 };
  }
}

/** Where the letter begins that the character at an index belongs to: accents may be typed by themselves. */
export function letterStarts(text: string): (index: number) => number {
  const starts = graphemes(text).map(({ index }) => index);
  return (index) => starts.findLast((start) => start <= index) ?? index;
}

function graphemes(text: string): { readonly index: number; readonly segment: string }[] {
  return [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)];
}
