import type { Box } from '../../../geometry/index.js';
import { boxesOfPatches, labelsRound } from './labels.js';
import {
  apart,
  BINS,
  binOf,
  centreOfBin,
  labOf,
  MOST_COLOURS,
  nearestByBin,
  ONE_COLOUR,
  type PaletteColour,
} from './palette.js';
import { isBetween, type Rgba } from './mixtures.js';
import type { Pixels } from './pixels.js';

/*
 * Lines a pixel or two wide have no flat pixel. What stands on an edge is mostly a mixture of the colours on either side; what is not is a hair of a colour
 * of its own.
 */

/** The pixels of a picture that are no mixture of the flat colours round them, and not one of them. */
export interface Hairs {
  readonly pixels: Pixels;
  readonly flat: Uint8Array;
  readonly palette: readonly PaletteColour[];
  /** 1 where a pixel is of a hair. */
  readonly is: Uint8Array;
  /** How many they are, bin by bin, and the sums of their channels. */
  readonly bins: ReadonlyMap<
    number,
    { readonly count: number; readonly r: number; readonly g: number; readonly b: number }
  >;
  /** All opaque pixels but those of the commonest colour. */
  readonly inked: number;
}

/** The colours that hairs are of, as far as there is enough of them. */
export interface HairColours {
  readonly colours: readonly PaletteColour[];
  /** Bins that plainly are one of these. */
  readonly plain: ReadonlySet<number>;
  /** Bins that are none of these, and no mixture with them. */
  readonly lost: ReadonlyMap<number, unknown>;
}

/** Fewer pixels than this are dust. */
const LEAST_PIXELS = 6;
/** Lost lines and spots of fewer pixels are dust. */
const LEAST_LOST = 8;
/** Of so many of the commonest bins colours are made: a photograph has thousands of mixtures. */
const MOST_BINS = 400;

/** Bare surface is white that lets all through. */
const BARE: Rgba = [255, 255, 255, 0];

/** The hairs of a picture whose flat colours are known, with the number of the background among them (0 for none); `lines` is 1 where a thin line of one of these is known already. */
export function hairsOf(
  pixels: Pixels,
  flat: Uint8Array,
  palette: readonly PaletteColour[],
  { background, lines }: { readonly background: number; readonly lines: Uint8Array },
): Hairs {
  const { width, height, data } = pixels;
  const colours: Rgba[] = [BARE, ...palette.map(({ rgb }): Rgba => [...rgb, 255])];
  const labels = nearestByBin(palette);
  const isNear = nearBins(palette, labels);
  const is = new Uint8Array(width * height);
  const bins = new Map<number, { count: number; r: number; g: number; b: number }>();
  let [flats, others] = [0, 0];
  for (let y = 0, p = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, p += 1) {
      if (data[4 * p + 3]! < 128) continue;
      if (flat[p]) {
        flats += 1;
        continue;
      }
      others += 1;
      const bin = binAt(data, p);
      if (lines[p] || isNear(bin)) continue;
      const seen = labelsRound(pixels, flat, (q) => (data[4 * q + 3]! < 128 ? 0 : labels(binAt(data, q))), x, y);
      // What is see-through beside bare surface is its edge, whatever colour a program gave it there.
      if (
        (data[4 * p + 3]! < 255 && seen.includes(0)) ||
        isMixture(
          colourAt(data, p),
          seen.map((one) => colours[one]!),
        ) ||
        // Beside one colour alone it is of a thin line: a mixture with any colour that is drawn is no new one.
        (seen.length === 1 &&
          colours.some((one, i) => i > 0 && i !== background && isBetween(colourAt(data, p), colours[seen[0]!]!, one)))
      )
        continue;
      is[p] = 1;
      const [r, g, b] = colourAt(data, p);
      const sum = bins.get(bin) ?? { count: 0, r: 0, g: 0, b: 0 };
      bins.set(bin, { count: sum.count + 1, r: sum.r + r, g: sum.g + g, b: sum.b + b });
    }
  }
  return { pixels, flat, palette, is, bins, inked: others + flats * (1 - (palette[0]?.share ?? 0)) };
}

/**
 * The colours of hairs. One counts when it has at least `leastShare` of all pixels but those of the commonest colour. Of the pixels in question the purest
 * make the colour: the others are mixtures with it.
 */
export function hairColours({ palette, bins: counted, inked }: Hairs, leastShare: number): HairColours {
  const least = Math.max(LEAST_PIXELS, leastShare * inked);
  const found: PaletteColour[] = [];
  const open = new Map(
    [...counted]
      .sort(([a, x], [b, y]) => y.count - x.count || a - b)
      .slice(0, MOST_BINS)
      .map(([bin, { count, r, g, b }]) => [bin, mixed(count, [r / count, g / count, b / count])]),
  );
  const plain = new Set<number>();
  while (palette.length + found.length < MOST_COLOURS) {
    const bins = [...open.values()];
    const partners = [BARE, ...[...palette, ...found].map(({ rgb }): Rgba => [...rgb, 255])];
    const unlike = farthest(
      bins,
      [...palette, ...found].map(({ rgb }) => labOf(rgb)),
      least,
    );
    if (!unlike) break;
    const best = purest(unlike, bins, partners);
    found.push({ rgb: best.rgb, share: best.like / Math.max(1, inked) });
    for (const [bin, { rgb, lab }] of open) {
      const isPlain = apart(lab, best.lab) < ONE_COLOUR;
      if (isPlain) plain.add(bin);
      if (isPlain || partners.some((partner) => isBetween([...rgb, 255], [...best.rgb, 255], partner)))
        open.delete(bin);
    }
  }
  return { colours: found, plain, lost: open };
}

/** 1 where a pixel is flat, or is of a hair and has plainly one of its colours. */
export function plainPixels(hairs: Hairs, { plain }: HairColours): Uint8Array {
  if (plain.size === 0) return hairs.flat;
  const own = inBins(hairs, plain);
  return hairs.flat.map((isFlat, p) => (isFlat || own[p] ? 1 : 0));
}

/** Round hairs that have none of their colours, and are no mixture with them; in pixels. */
export function lostHairs(hairs: Hairs, { lost }: HairColours): Box[] {
  const { width, height } = hairs.pixels;
  return lost.size === 0
    ? []
    : boxesOfPatches({ width, height, of: inBins(hairs, lost) }, LEAST_LOST).map(({ box }) => box);
}

function inBins({ is, pixels: { data } }: Hairs, bins: { readonly has: (bin: number) => boolean }): Uint8Array {
  return is.map((hair, p) => (hair && bins.has(binAt(data, p)) ? 1 : 0));
}

const binAt = (data: Uint8ClampedArray, p: number) => binOf(data[4 * p]!, data[4 * p + 1]!, data[4 * p + 2]!);

/** Says whether a bin is the colour that is nearest to it; worked out once a bin. */
function nearBins(palette: readonly PaletteColour[], nearest: (bin: number) => number): (bin: number) => boolean {
  const labs = palette.map(({ rgb }) => labOf(rgb));
  const known = new Uint8Array(BINS);
  const workOut = (bin: number) => {
    const lab = labs[nearest(bin) - 1];
    return lab && apart(lab, labOf(centreOfBin(bin))) <= ONE_COLOUR ? 2 : 1;
  };
  return (bin) => (known[bin] ||= workOut(bin)) === 2;
}

interface Mixed {
  readonly rgb: readonly [number, number, number];
  readonly lab: readonly [number, number, number];
  readonly count: number;
}

function mixed(count: number, rgb: Mixed['rgb']): Mixed {
  return { rgb, lab: labOf(rgb), count };
}

/** The bin that is least like any known colour, of those that have enough like them; null when all are like one, or too few. */
function farthest(
  bins: readonly Mixed[],
  known: readonly Mixed['lab'][],
  least: number,
): (Mixed & { readonly like: number }) | null {
  let best: (Mixed & { readonly like: number; readonly far: number }) | null = null;
  for (const bin of bins) {
    const far = Math.min(100, ...known.map((lab) => apart(lab, bin.lab)));
    if (far <= ONE_COLOUR || far <= (best?.far ?? 0)) continue;
    const like = pixelsLike(bin, bins);
    if (like >= least) best = { ...bin, like, far };
  }
  return best;
}

function pixelsLike(bin: Mixed, bins: readonly Mixed[]): number {
  return bins.reduce((sum, { lab, count }) => (apart(lab, bin.lab) < ONE_COLOUR ? sum + count : sum), 0);
}

/** What a bin may be a mixture of with a known colour: of those that lie further out on the same way, the one that lies furthest. */
function purest(
  bin: Mixed & { readonly like: number },
  bins: readonly Mixed[],
  partners: readonly Rgba[],
): Mixed & { readonly like: number } {
  let best = bin;
  for (const other of bins) {
    const from = partners.find(
      (partner) =>
        isBetween([...best.rgb, 255], partner, [...other.rgb, 255]) &&
        distance(partner, [...other.rgb, 255]) > distance(partner, [...best.rgb, 255]),
    );
    const like = from ? pixelsLike(other, bins) : 0;
    if (like >= LEAST_PIXELS) best = { ...other, like };
  }
  return best;
}

const distance = (a: Rgba, b: Rgba) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2], a[3] - b[3]);

function colourAt(data: Uint8ClampedArray, p: number): Rgba {
  return [data[4 * p]!, data[4 * p + 1]!, data[4 * p + 2]!, data[4 * p + 3]!];
}

function isMixture(colour: Rgba, of: readonly Rgba[]): boolean {
  return of.some((a, i) => of.slice(i + 1).some((b) => isBetween(colour, a, b)));
}
