import {
  areaOf,
  boundsOf,
  countPieces,
  crossingsAt,
  joinBoxes,
  regionsOf,
  ringsOf,
  translateRings,
  unite,
  type Box,
  type Region,
  type Rings,
} from '../../geometry/index.js';

/** A gap wider than this share of a line's height parts two words; letters stand closer, even spaced out a little. */
const WORD_SPACE = 0.28;
/** Pieces lower than this share of the tallest in their line are dots, accents and points: they stand on no line of their own. */
const BODY = 0.45;
/** How near the least is found, mm. */
const STEP_MM = 0.005;
/** Rows in which the sides of letters are looked at, to a line's height. */
const ROWS = 200;

/** Words that were joined: how many, and the most that two of their letters were moved closer, mm. */
export interface JoinedPieces {
  readonly rings: Rings;
  readonly words: number;
  readonly mostMm: number;
  /** What was moved, as it lay before. */
  readonly moved: Rings;
}

interface Letter {
  readonly pieces: readonly Region[];
  readonly box: Box;
  /** Its largest piece: the rest are dots and accents. */
  readonly body: Rings;
}

/**
 * Level lettering that is there as an area only (kernel-clean rings, mm), with the letters of each word as much closer, all alike, as makes the word one piece: the least
 * at which every two neighbours run into each other by `overlapMm`. Lines, letters and words are told by where the pieces lie. A word that holds together stays, and
 * a word keeps its middle.
 */
export function joinPieces(rings: Rings, overlapMm: number): JoinedPieces {
  const made: Rings[] = [];
  const moved: Rings[] = [];
  let [words, mostMm] = [0, 0];
  for (const line of linesOf(regionsOf(rings))) {
    const heightMm = Math.max(...line.map(({ box }) => box.maxY - box.minY));
    for (const word of wordsOf(line, WORD_SPACE * heightMm)) {
      const byMm = leastTightening(word, heightMm) + overlapMm;
      const all = word.map(({ pieces }) => ringsOf(pieces));
      if (!(byMm > 0)) made.push(...all);
      else {
        words += 1;
        mostMm = Math.max(mostMm, byMm);
        moved.push(...all);
        made.push(...closer(all, byMm));
      }
    }
  }
  return words === 0
    ? { rings, words, mostMm, moved: [] }
    : { rings: unite(made.flat()), words, mostMm, moved: moved.flat() };
}

/** The lines of lettering, each with its letters from left to right. */
function linesOf(pieces: readonly Region[]): Letter[][] {
  const boxed = pieces
    .map((piece) => ({ piece, box: boundsOf([piece.outer])! }))
    .sort((a, b) => height(b.box) - height(a.box));
  const lines: { box: Box; tallest: number; pieces: { piece: Region; box: Box }[] }[] = [];
  for (const one of boxed) {
    const middle = (one.box.minY + one.box.maxY) / 2;
    const of = lines.filter(
      (line) => middle > line.box.minY - 0.25 * line.tallest && middle < line.box.maxY + 0.25 * line.tallest,
    );
    const nearest = of.reduce<(typeof lines)[number] | null>(
      (best, line) => (!best || apart(line.box, middle) < apart(best.box, middle) ? line : best),
      null,
    );
    if (nearest) {
      nearest.pieces.push(one);
      if (height(one.box) >= BODY * nearest.tallest) nearest.box = joinBoxes(nearest.box, one.box)!;
    } else lines.push({ box: one.box, tallest: height(one.box), pieces: [one] });
  }
  return lines.map((line) => lettersOf(line.pieces));
}

/** Pieces of a line that lie one over the other are one letter. */
function lettersOf(pieces: readonly { readonly piece: Region; readonly box: Box }[]): Letter[] {
  const letters: { pieces: Region[]; box: Box }[] = [];
  for (const { piece, box } of [...pieces].sort((a, b) => a.box.minX - b.box.minX)) {
    const over = letters.find(
      (letter) =>
        Math.min(letter.box.maxX, box.maxX) - Math.max(letter.box.minX, box.minX) >
        0.6 * Math.min(width(letter.box), width(box)),
    );
    if (over) {
      over.pieces.push(piece);
      over.box = joinBoxes(over.box, box)!;
    } else letters.push({ pieces: [piece], box });
  }
  return letters
    .sort((a, b) => a.box.minX - b.box.minX)
    .map((letter) => ({
      ...letter,
      body: letter.pieces
        .map((piece) => ringsOf([piece]))
        .reduce((best, one) => (areaOf(one) > areaOf(best) ? one : best)),
    }));
}

function wordsOf(line: readonly Letter[], spaceMm: number): Letter[][] {
  const words: Letter[][] = [];
  for (const letter of line) {
    const word = words.at(-1);
    const reach = word && Math.max(...word.map(({ box }) => box.maxX));
    if (word && letter.box.minX - reach! < spaceMm) word.push(letter);
    else words.push([letter]);
  }
  return words;
}

/** The letters of a word so much closer to each other; the word keeps its middle. */
function closer(letters: readonly Rings[], byMm: number): Rings[] {
  return letters.map((letter, i) => translateRings(letter, ((letters.length - 1) / 2 - i) * byMm, 0));
}

/** The least at which a word is one piece: where each two neighbours touch, or before that, when one reaches over its neighbour to the next. −∞ for a letter by itself. */
function leastTightening(word: readonly Letter[], heightMm: number): number {
  const bodies = word.map(({ body }) => body);
  let [low, high] = [0, tightening(word, heightMm)];
  // Of two letters the gap between them is exact.
  while (word.length > 2 && high - low > STEP_MM) {
    const middle = (low + high) / 2;
    if (countPieces(unite(closer(bodies, middle).flat())).pieces === 1) high = middle;
    else low = middle;
  }
  return high;
}

/** The widest of the least gaps between neighbours in a word, row by row; −∞ for a letter by itself. Neighbours without a common row count by their boxes. */
function tightening(word: readonly Letter[], heightMm: number): number {
  let gap = -Infinity;
  for (let k = 0; k + 1 < word.length; k += 1) {
    const [left, right] = [word[k]!, word[k + 1]!];
    let least: number | null = null;
    const [from, to] = [
      Math.max(boundsOf(left.body)!.minY, boundsOf(right.body)!.minY),
      Math.min(boundsOf(left.body)!.maxY, boundsOf(right.body)!.maxY),
    ];
    const step = heightMm / ROWS;
    for (let y = from + step / 2; y < to; y += step) {
      const [a, b] = [crossingsAt(left.body, y), crossingsAt(right.body, y)];
      if (a.length === 0 || b.length === 0) continue;
      const between = b[0]! - a.at(-1)!;
      if (least === null || between < least) least = between;
    }
    gap = Math.max(gap, least ?? right.box.minX - left.box.maxX);
  }
  return gap;
}

const height = (box: Box) => box.maxY - box.minY;
const width = (box: Box) => box.maxX - box.minX;
const apart = (box: Box, y: number) => Math.max(0, box.minY - y, y - box.maxY);
