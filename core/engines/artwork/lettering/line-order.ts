import bidiFactory from 'bidi-js';

const bidi = bidiFactory();

/** A stretch of a line that is set in one direction. */
export interface DirectedRun {
  /** In reading order; what is mirrored from right to left, such as brackets, is mirrored already. As long as what it was cut from. */
  readonly text: string;
  /** Index of its first letter in the line. */
  readonly start: number;
  readonly rightToLeft: boolean;
}

/**
 * One line cut into stretches of one direction, from left to right as they are seen: Unicode's bidirectional algorithm (UAX 9) up to rule L2
 * and L4. `auto` takes the direction of the first letter that has one.
 */
export function directedRuns(line: string, base: 'ltr' | 'rtl' | 'auto' = 'auto'): DirectedRun[] {
  const found = bidi.getEmbeddingLevels(line, base);
  const mirrored = bidi.getMirroredCharactersMap(line, found.levels);
  const text = line.split('').map((unit, i) => mirrored.get(i) ?? unit);
  const isBack = (i: number) => found.levels[i]! % 2 === 1;
  const stretches: { from: number; to: number; rightToLeft: boolean }[] = [];
  for (const i of bidi.getReorderedIndices(line, found)) {
    const last = stretches.at(-1);
    if (last && last.rightToLeft === isBack(i) && i === (last.rightToLeft ? last.from - 1 : last.to + 1))
      last[last.rightToLeft ? 'from' : 'to'] = i;
    else stretches.push({ from: i, to: i, rightToLeft: isBack(i) });
  }
  return stretches.map(({ from, to, rightToLeft }) => ({
    text: text.slice(from, to + 1).join(''),
    start: from,
    rightToLeft,
  }));
}
