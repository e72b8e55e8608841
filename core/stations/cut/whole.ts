import type { WholeOnPiece } from './run.js';

/** What tells how much of a program is whole, group by group and contour by contour. */
export interface WholeMarks {
  /** The coordinate pairs driven to once a contour is whole. */
  readonly wholeAt: ArrayLike<number>;
  /** Which part of its group a contour belongs to: an outline and its counters are one part. -1 for marks and borders, which are none. */
  readonly partOf: ArrayLike<number>;
  /** How many contours each group has. */
  readonly contoursOf: readonly number[];
}

/** How many contours each group has, its marks and borders among them: how a program's lists are told apart. */
export function contoursOfGroups(
  groups: readonly { readonly contours: number; readonly marks: number; readonly borders: number }[],
): number[] {
  return groups.map((group) => group.contours + group.marks + group.borders);
}

/** For each group, whether each of its parts is whole once so many pairs were driven to. What is half cut, or may be, is not. */
export function wholeParts({ wholeAt, partOf, contoursOf }: WholeMarks, pairsDone: number): boolean[][] {
  let first = 0;
  return contoursOf.map((count) => {
    const parts: boolean[] = [];
    for (let i = first; i < first + count; i += 1) {
      const part = partOf[i]!;
      if (part >= 0) parts[part] = (parts[part] ?? true) && wholeAt[i]! <= pairsDone;
    }
    first += count;
    return parts;
  });
}

/** What lies whole on a piece once so many coordinate pairs were driven to. */
export function wholeOnPiece(marks: WholeMarks, pairsDone: number): WholeOnPiece {
  const groups = wholeParts(marks, pairsDone);
  const parts = groups.flat();
  return {
    byCopy: parts.every(Boolean)
      ? null
      : groups.map((of) => ({ parts: of.length, open: of.flatMap((isWhole, part) => (isWhole ? [] : [part])) })),
    parts: parts.filter(Boolean).length,
    ofParts: parts.length,
    copies: groups.filter((group) => group.every(Boolean)).length,
    ofCopies: groups.length,
  };
}
