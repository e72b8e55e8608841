import { withoutCrossings } from './crossings.js';
import { forksOf } from './forks.js';
import { labelsRound, REACH } from './labels.js';
import { binOf, nearestByBin, type PaletteColour } from './palette.js';
import { middleOfPixel, neighboursOf, pixelsRound, type Pixels } from './pixels.js';
import { isNear, nearestMixture, type Rgba } from './mixtures.js';
import { lengthOf, linesOfSkeleton, thinned } from './skeleton.js';

/*
 * A line two or three pixels wide has no flat pixel: every one of its pixels is a mixture of its colour and the ground. How much of the colour all of them
 * hold together is the line's area, and its middle runs where they hold most. So it is traced as a line, with a middle and a width.
 */

/** A line of one of the colours, in pixels: its middle from end to end, and how wide it is. */
export interface ThinLine {
  /** The number of its colour in the palette, from 0. */
  readonly colour: number;
  /** x, y, x, y, …: the middle of a pixel is half a pixel from its corner. */
  readonly points: readonly number[];
  readonly closed: boolean;
  readonly widthPx: number;
}

export interface ThinLines {
  readonly lines: readonly ThinLine[];
  /** Lines of the background: gaps in what they run through. */
  readonly gaps: readonly ThinLine[];
  /** 1 where a pixel belongs to one of them: the number of the ground there is in `ground`. */
  readonly is: Uint8Array;
  /** Of such a pixel, what is round it: 0 for bare surface, n for the nth colour. */
  readonly ground: Uint8Array;
}

/** Of less than this share of the line's colour a pixel is ground, give or take what compression makes of it. */
const LEAST_SHARE = 0.03;
/** A line’s pixels hold at least this share of what its fullest hold: below it lies its soft edge. */
const BODY = 0.35;
/** A line shorter than this many of its widths is a spot. */
const LEAST_LENGTH = 4;
/** A line of less area is dust, pixels. */
const LEAST_AREA = 8;
/** A wider line has flat pixels, and is traced by its edges. */
const WIDEST_PX = 3.4;
/** What would be a narrower gap is a line of its own colour between the background’s and its ground’s, pixels. */
const NARROWEST_GAP_PX = 0.75;
/** A pixel that holds so much of the background is of a gap, however short that is. */
const PLAINLY = 0.8;
/** Where a line ends so near to an area of its colour it runs into it, pixels. */
const INTO = REACH + 2;

const BARE: Rgba = [255, 255, 255, 0];

/** The thin lines of a picture whose flat colours are known: `allFlat` is 1 where a pixel is flat. `background` is the number of the background among them, 0 for none or bare surface: a line of that colour is a gap. */
export function thinLinesOf(
  pixels: Pixels,
  allFlat: Uint8Array,
  palette: readonly PaletteColour[],
  background: number,
): ThinLines {
  const { width, height, data } = pixels;
  const is = new Uint8Array(width * height);
  const ground = new Uint8Array(width * height);
  const colours: Rgba[] = [BARE, ...palette.map(({ rgb }): Rgba => [...rgb, 255])];
  const nearest = nearestByBin(palette);
  const labelAt = (p: number) =>
    data[4 * p + 3]! < 128 ? 0 : nearest(binOf(data[4 * p]!, data[4 * p + 1]!, data[4 * p + 2]!));
  const colourAt = (p: number): Rgba => [data[4 * p]!, data[4 * p + 1]!, data[4 * p + 2]!, data[4 * p + 3]!];
  const flat = withoutCrossings(pixels, allFlat, labelAt);
  const alone = onOneGround(pixels, flat, labelAt);
  const lines: ThinLine[] = [];
  const gaps: ThinLine[] = [];
  for (const some of componentsOf(alone, width, height)) {
    const from = alone[some[0]!]! - 1;
    const on = colours[from]!;
    const ink = inkOf(some.map(colourAt), colours, from);
    if (ink === null) continue;
    // What is hardly any of it lies beside them, and looks flat.
    const beside = some
      .flatMap((p) => neighboursOf(p, { width, height }))
      .filter((q) => alone[q] === 0 && flat[q] === 1);
    const shares = new Map([...some, ...beside].map((p) => [p, shareOf(colourAt(p), on, colours[ink]!)]));
    const area = [...shares.values()].reduce((sum, share) => sum + share, 0);
    if (area < LEAST_AREA) continue;
    const held = (p: number) => shares.get(p) ?? 0;
    const full = [...shares.values()].reduce((most, share) => Math.max(most, share), 0);
    const body = new Set(some.filter((p) => held(p) >= BODY * full));
    const drawn = linesOfSkeleton(thinned(body, width, held), width, held);
    const length = drawn.reduce((sum, line) => sum + lengthOf(line), 0);
    const widthPx = area / length;
    const isGap = ink === background;
    if (isGap && (widthPx < NARROWEST_GAP_PX || isMargin(some, pixels))) continue;
    const isInk = (p: number) => allFlat[p] === 1 && labelAt(p) === ink && !shares.has(p);
    const run = drawn.map(({ points, closed }) => (closed ? points : intoAreas(points, isInk, { width, height })));
    // A short one is a spot, unless it is what holds two areas together.
    const isBridge = run.every((points, i) => points.length === drawn[i]!.points.length + 4);
    const isSpot = length < LEAST_LENGTH * widthPx && !isBridge;
    if (drawn.length === 0 || widthPx > WIDEST_PX || isSpot) {
      // Of a wider gap it is a stretch that runs along the pixels: each of them goes to the nearer side.
      if (isGap && full >= PLAINLY) for (const p of some) [is[p], ground[p]] = [1, held(p) < 0.5 ? from : background];
      continue;
    }
    const { widths, dots } = forksOf(drawn, shares, widthPx, { width, height });
    const made = run.map((points, i) => ({ points, closed: drawn[i]!.closed, widthPx: widths[i]! }));
    (isGap ? gaps : lines).push(...[...made, ...dots].map((line) => ({ colour: ink - 1, ...line })));
    for (const p of some) [is[p], ground[p]] = [1, from];
  }
  return { lines, gaps, is, ground };
}

/** Of each pixel that is not flat and has flat pixels of one colour alone round it: that one's number and one more; 0 for all others. */
function onOneGround({ width, height }: Pixels, flat: Uint8Array, labelAt: (p: number) => number): Uint8Array {
  const out = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1, p += 1) {
      const [only, ...others] = flat[p] ? [] : labelsRound({ width, height }, flat, labelAt, x, y);
      if (only !== undefined && others.length === 0) out[p] = only + 1;
    }
  return out;
}

/** Pixels of one number that touch each other, also over corners. */
function* componentsOf(of: Uint8Array, width: number, height: number): Generator<number[]> {
  const seen = new Uint8Array(of.length);
  for (let start = 0; start < of.length; start += 1) {
    if (of[start] === 0 || seen[start]) continue;
    const all = [start];
    seen[start] = 1;
    for (let i = 0; i < all.length; i += 1) {
      for (const q of neighboursOf(all[i]!, { width, height })) {
        if (of[q] !== of[start] || seen[q]) continue;
        seen[q] = 1;
        all.push(q);
      }
    }
    yield all;
  }
}

/** Whether most of some pixels lie on the picture's edge. Pixels of the background there are the margin of a closely cropped picture, and no gap. */
function isMargin(some: readonly number[], { width, height }: Pick<Pixels, 'width' | 'height'>): boolean {
  const isOnEdge = (p: number) => p < width || p >= width * (height - 1) || p % width === 0 || p % width === width - 1;
  return some.filter(isOnEdge).length > some.length / 2;
}

/** Which colour a line's pixels are mixed of with their ground: the one that lies best on the way of all of them; null where one of them is no such mixture. */
function inkOf(some: readonly Rgba[], colours: readonly Rgba[], from: number): number | null {
  let best: number | null = null;
  let least = Infinity;
  colours.forEach((ink, number) => {
    if (number === from || number === 0) return;
    let off = 0;
    for (const colour of some) {
      const { offSquare } = nearestMixture(colour, colours[from]!, ink);
      if (!isNear(offSquare, colours[from]!, ink)) return;
      off += offSquare;
    }
    if (off < least) [best, least] = [number, off];
  });
  return best;
}

/** How much of a pixel the ink covers; nothing where it is hardly any. */
function shareOf(colour: Rgba, ground: Rgba, ink: Rgba): number {
  const { share } = nearestMixture(colour, ground, ink);
  return share < LEAST_SHARE ? 0 : share;
}

/** A line made longer at each end that stops just before an area of its colour: straight on into the area, or else to the nearest pixel of one. */
function intoAreas(
  points: readonly number[],
  isInk: (p: number) => boolean,
  { width, height }: { readonly width: number; readonly height: number },
): readonly number[] {
  const beyond = (x: number, y: number, fromX: number, fromY: number): number[] => {
    const length = Math.hypot(x - fromX, y - fromY) || 1;
    const [dx, dy] = [(x - fromX) / length, (y - fromY) / length];
    // A little further, so that they overlap.
    const to = (p: number) => {
      const [toX, toY] = middleOfPixel(p, width);
      return [toX + dx / 2, toY + dy / 2];
    };
    const far = (p: number) => {
      const [toX, toY] = middleOfPixel(p, width);
      return Math.hypot(toX - x, toY - y);
    };
    for (let step = 1; step <= INTO; step += 0.5) {
      const p = Math.floor(y + step * dy) * width + Math.floor(x + step * dx);
      const found = [p, ...neighboursOf(p, { width, height })].find(isInk);
      if (found !== undefined) return to(found);
    }
    const [near] = pixelsRound(x, y, INTO, { width, height })
      .filter(isInk)
      .sort((a, b) => far(a) - far(b));
    return near === undefined ? [] : to(near);
  };
  // The way of an end is that of its last few pixels.
  const back = Math.min(points.length - 2, 8);
  const first = beyond(points[0]!, points[1]!, points[back]!, points[back + 1]!);
  const last = beyond(points.at(-2)!, points.at(-1)!, points.at(-2 - back)!, points.at(-1 - back)!);
  return [...first, ...points, ...last];
}
