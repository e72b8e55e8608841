import type { StripLayout, StripRectangle } from './rectangles.js';

/** Sides that differ by less are equal, mm: what coordinates of three decimals are off, added up. The larger counts, so nothing overlaps. */
const SAME_MM = 0.02;
/** Rounding of sums of sides, mm. */
const TINY_MM = 1e-6;
/** More rectangles are not joined: pairs are looked for again and again. */
const MOST = 200;

/** One of the ways in which a rectangle, or several that were joined, may lie: how large it then is, and where its parts come to lie. */
interface Way {
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly place: (xMm: number, yMm: number, places: StripLayout['places'][number][]) => void;
}

/**
 * Rectangles that were cut from one by cuts from edge to edge, put together again: two that have a side in common are joined to one, until a single one is left that fills the strip from side to side. Null when that is not so.
 * In which order sides are joined makes no difference there: all pieces with the same side come from one strip of it.
 */
export function joinedWhole(rectangles: readonly StripRectangle[], widthMm: number): StripLayout | null {
  if (rectangles.length < 2 || rectangles.length > MOST) return null;
  const left: (readonly Way[])[] = rectangles.map(({ ways }, i) =>
    ways.map((way, number): Way => ({ ...way, place: (xMm, yMm, places) => (places[i] = { way: number, xMm, yMm }) })),
  );
  while (left.length > 1) {
    const pair = nearestPair(left);
    if (!pair) return null;
    const [a, b, ways] = pair;
    left.splice(b, 1);
    left[a] = ways;
  }
  const whole = left[0]!.find((way) => way.widthMm <= widthMm + TINY_MM && way.widthMm > widthMm - SAME_MM);
  if (!whole) return null;
  const places: StripLayout['places'][number][] = [];
  whole.place(0, 0, places);
  return { lengthMm: whole.lengthMm, places };
}

/** The two whose common side differs least, and the ways of both together: by chance, sides are hardly ever as alike as those of one cut. */
function nearestPair(left: readonly (readonly Way[])[]): readonly [number, number, readonly Way[]] | null {
  let nearest = { a: -1, b: -1, offMm: SAME_MM };
  for (let a = 0; a < left.length; a += 1) {
    for (let b = a + 1; b < left.length; b += 1) {
      for (const one of left[a]!) {
        for (const other of left[b]!) {
          const offMm = Math.min(Math.abs(one.lengthMm - other.lengthMm), Math.abs(one.widthMm - other.widthMm));
          if (offMm < nearest.offMm) nearest = { a, b, offMm };
        }
      }
    }
  }
  if (nearest.a < 0) return null;
  const ways = left[nearest.a]!.flatMap((one) =>
    left[nearest.b]!.flatMap((other) => joined(one, other, nearest.offMm)),
  );
  return [
    nearest.a,
    nearest.b,
    ways.filter(
      (way, i) => ways.findIndex(({ widthMm, lengthMm }) => widthMm === way.widthMm && lengthMm === way.lengthMm) === i,
    ),
  ];
}

/** Two side by side where they are equally long, one above the other where they are equally wide. */
function joined(a: Way, b: Way, offMm: number): Way[] {
  const beside: Way = {
    widthMm: a.widthMm + b.widthMm,
    lengthMm: Math.max(a.lengthMm, b.lengthMm),
    place: (x, y, places) => [a.place(x, y, places), b.place(x + a.widthMm, y, places)],
  };
  const above: Way = {
    widthMm: Math.max(a.widthMm, b.widthMm),
    lengthMm: a.lengthMm + b.lengthMm,
    place: (x, y, places) => [a.place(x, y, places), b.place(x, y + a.lengthMm, places)],
  };
  return [
    ...(Math.abs(a.lengthMm - b.lengthMm) <= offMm + TINY_MM ? [beside] : []),
    ...(Math.abs(a.widthMm - b.widthMm) <= offMm + TINY_MM ? [above] : []),
  ];
}
