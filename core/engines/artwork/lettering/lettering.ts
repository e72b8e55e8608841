/** A line of words or several, set in a font. */
export interface Lettering {
  /** Lines parted by \n. */
  readonly text: string;
  /** A shipped font's id, or `own:` and the id of one that was added. */
  readonly font: string;
  /** Height of a flat capital, mm. */
  readonly capHeightMm: number;
  /** Space added after every letter, in hundredths of the cap height. */
  readonly trackingPct: number;
  /** From baseline to baseline, times the cap height. */
  readonly lineSpacing: number;
  readonly align: 'left' | 'centre' | 'right';
  /** Baselines on circles round one middle; the radius is the first line's. */
  readonly arc: { readonly radiusMm: number; readonly bend: 'up' | 'down' } | null;
  readonly kerning: boolean;
  readonly ligatures: boolean;
  /** The letters of each word are moved together until it is one piece. */
  readonly joinWords: boolean;
  /** What has a colour of its own: every line, word or letter, or bands that run through all letters; or one colour for all. */
  readonly colourBy: 'all' | 'line' | 'word' | 'letter' | 'band';
  readonly colours: readonly string[];
  /** How lines, words and letters take the colours: one after the other, in equal runs, or so many between them by even steps. Bands have one each, or so many between them. */
  readonly share:
    { readonly kind: 'turn' } | { readonly kind: 'runs' } | { readonly kind: 'fade'; readonly steps: number };
  /** Where bands end, from below, as shares of the cap height over the baseline or of each letter's own height; even where there are not as many as needed. */
  readonly bands: { readonly heights: readonly number[]; readonly along: 'line' | 'letter' };
  /** Other forms of single letters: the font's feature, by the letter's index in the text. */
  readonly alternates: Readonly<Record<string, string>>;
}
