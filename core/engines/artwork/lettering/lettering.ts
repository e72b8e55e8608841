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
  /** Colours taken in turn by every line, word or letter; one colour for all. */
  readonly colourBy: 'all' | 'line' | 'word' | 'letter';
  readonly colours: readonly string[];
  /** Other forms of single letters: the font's feature, by the letter's index in the text. */
  readonly alternates: Readonly<Record<string, string>>;
}
