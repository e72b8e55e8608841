import { middleOfPixel, neighboursOf, type Pixels } from './pixels.js';
import { lengthOf, type SkeletonLine } from './skeleton.js';

/*
 * Lines of a picture that cross or fork are one skeleton in several lines. Each has a width of its own, and a dot at each fork fills the nicks between their ends.
 */

/** A fork says nothing of the width of a line. Only a line of at least this many widths has enough of its pixels elsewhere. */
const LEAST_LENGTH = 8;
/** The dot is drawn as a ring with so many corners. */
const DOT_CORNERS = 8;

type Size = Pick<Pixels, 'width' | 'height'>;

export interface Forks {
  /** How wide each line is, in pixels. */
  readonly widths: readonly number[];
  /** A round dot at each fork, as wide as the widest line there: a small closed line whose middle is filled by its own width. */
  readonly dots: readonly { readonly points: readonly number[]; readonly closed: true; readonly widthPx: number }[];
}

/**
 * The widths of lines that hang together, and the dots where they fork. A line that is too short to have its own width is as wide as the widest line it meets, or
 * `averagePx` where all of those are short too. `shares` is how much of the lines each pixel holds.
 */
export function forksOf(
  drawn: readonly SkeletonLine[],
  shares: ReadonlyMap<number, number>,
  averagePx: number,
  size: Size,
): Forks {
  const meeting = linesByEnd(drawn);
  const areas = areasOf(drawn, shares, size);
  const own = drawn.map((line, i) => {
    const length = lengthOf(line);
    return drawn.length === 1 || length < LEAST_LENGTH * averagePx ? null : areas[i]! / length;
  });
  const widths = drawn.map(({ pixels }, i) => {
    const there = [pixels[0]!, pixels.at(-1)!].flatMap((p) => meeting.get(p) ?? []).flatMap((k) => own[k] ?? []);
    return own[i] ?? (there.length === 0 ? averagePx : Math.max(...there));
  });
  const dots = [...meeting]
    .filter(([, lines]) => lines.length > 2)
    .map(([p, lines]) => dotAt(middleOfPixel(p, size.width), Math.max(...lines.map((i) => widths[i]!))));
  return { widths, dots };
}

/** What each line holds of the pixels that are nearer to it than to the others, in pixels. */
function areasOf(drawn: readonly SkeletonLine[], shares: ReadonlyMap<number, number>, size: Size): readonly number[] {
  const owner = new Map(drawn.flatMap(({ pixels }, i) => pixels.map((p) => [p, i] as const)));
  // From the skeleton outwards, a pixel at a time.
  const front = [...owner.keys()];
  for (const p of front)
    for (const q of neighboursOf(p, size)) {
      if (owner.has(q) || !shares.has(q)) continue;
      owner.set(q, owner.get(p)!);
      front.push(q);
    }
  const areas = drawn.map(() => 0);
  for (const [p, line] of owner) areas[line]! += shares.get(p) ?? 0;
  return areas;
}

/** The numbers of the lines that end at a pixel of the skeleton. A closed line ends twice where it begins. */
function linesByEnd(drawn: readonly SkeletonLine[]): ReadonlyMap<number, readonly number[]> {
  const ends = new Map<number, readonly number[]>();
  drawn.forEach(({ pixels, closed }, i) => {
    for (const p of [pixels[0]!, closed ? pixels[0]! : pixels.at(-1)!]) ends.set(p, [...(ends.get(p) ?? []), i]);
  });
  return ends;
}

function dotAt([x, y]: readonly [number, number], widthPx: number): Forks['dots'][number] {
  const points = Array.from({ length: DOT_CORNERS }, (_, k) => (2 * Math.PI * k) / DOT_CORNERS).flatMap((turn) => [
    x + (widthPx / 4) * Math.cos(turn),
    y + (widthPx / 4) * Math.sin(turn),
  ]);
  return { points, closed: true, widthPx: widthPx / 2 };
}
