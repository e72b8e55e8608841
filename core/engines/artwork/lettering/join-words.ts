import {
  areaOf,
  countPieces,
  crossingsAt,
  flatten,
  regionsOf,
  ringsOf,
  translation,
  unite,
  type Rings,
} from '../../../geometry/index.js';
import { outlineOf, type SetGlyph } from './font.js';

/** A word whose letters were moved together, and by how much each, ems. */
export interface JoinedWord {
  readonly word: string;
  readonly byEm: number;
}

interface JoinOptions {
  /** How far letters run into each other at least, ems: where round ones only touched, a blade would part them. */
  readonly overlapEm: number;
  /** Space that is added after every letter, ems. */
  readonly trackingEm: number;
  /** How much wider letters stand at a height over the baseline than on it, as on the outside of an arc: per em of height. */
  readonly spreadPerEm: number;
}

/** Rows in which the sides of letters are looked at, to an em. */
const ROWS = 240;
/** Letters reach no further than this above and below their baseline, ems. */
const REACH_EM = 2;

/**
 * The glyphs of a line with the letters of each word as much closer, all alike, as makes the word one piece: the least at which every two neighbours run into each
 * other by the overlap. Dots and accents that stand apart from their letter stay apart, as do marks that no neighbour is beside. A word that holds together stays.
 */
export function joinWords(
  text: string,
  glyphs: readonly SetGlyph[],
  options: JoinOptions,
): { readonly glyphs: SetGlyph[]; readonly joined: JoinedWord[] } {
  const joined: JoinedWord[] = [];
  const made = [...glyphs];
  for (const match of text.matchAll(/\S+/g)) {
    const [from, to] = [match.index, match.index + match[0].length];
    // Only what is drawn takes part, in the order in which it stands.
    const letters = made.flatMap((set, i) =>
      set.index >= from && set.index < to && set.advance > 0 ? [{ set, i }] : [],
    );
    const sides = letters.map(({ set }) => sidesOf(set));
    let gap = -Infinity;
    for (let k = 0; k + 1 < letters.length; k += 1) {
      const between = gapBetween(
        sides[k]!,
        sides[k + 1]!,
        letters[k]!.set.advance + options.trackingEm,
        options.spreadPerEm,
      );
      if (between !== null) gap = Math.max(gap, between);
    }
    const byEm = gap + options.overlapEm;
    if (!(byEm > 0)) continue;
    for (const { set, i } of letters.slice(0, -1)) made[i] = { ...set, advance: set.advance - byEm };
    joined.push({ word: match[0], byEm });
  }
  return { glyphs: made, joined };
}

/** How far a letter's body reaches to the left and right in each row, ems from its origin; null in rows that it has nothing in. */
type Sides = readonly (readonly [left: number, right: number] | null)[];

function sidesOf(set: SetGlyph): Sides {
  const rings = bodyOf(
    unite(flatten(outlineOf(set), translation(set.dx, -set.dy), 1 / 4000).map(({ points }) => points)),
  );
  return Array.from({ length: 2 * REACH_EM * ROWS }, (_, row) => {
    const y = (row + 0.5) / ROWS - REACH_EM;
    const xs = crossingsAt(rings, y);
    return xs.length > 0 ? ([xs[0]!, xs.at(-1)!] as const) : null;
  });
}

/** The largest piece: the rest are dots and accents. */
function bodyOf(rings: Rings): Rings {
  if (countPieces(rings).pieces < 2) return rings;
  return regionsOf(rings)
    .map((region) => ringsOf([region]))
    .reduce((best, piece) => (areaOf(piece) > areaOf(best) ? piece : best));
}

/** The least room between two neighbours in any row, ems; null when they have no row in common. */
function gapBetween(left: Sides, right: Sides, advance: number, spreadPerEm: number): number | null {
  let least: number | null = null;
  for (let row = 0; row < left.length; row += 1) {
    const [a, b] = [left[row], right[row]];
    if (!a || !b) continue;
    const heightEm = REACH_EM - (row + 0.5) / ROWS;
    const gap = advance * (1 + spreadPerEm * heightEm) + b[0] - a[1];
    if (least === null || gap < least) least = gap;
  }
  return least;
}
