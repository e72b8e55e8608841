import { modeOklab, useMode } from 'culori/fn';
import type { Pixels } from './pixels.js';

/*
 * Which colours a picture is made of. Colours are counted where the picture is flat: along edges they are mixtures that nobody meant.
 */

type Triple = readonly [number, number, number];

/** A colour of the picture and its share of what was counted. */
export interface PaletteColour {
  /** 0 to 255 each. */
  readonly rgb: Triple;
  readonly share: number;
}

/** Neighbours that differ by more than this in a channel stand on an edge. */
const EDGE = 28;
/** Colours nearer than this (Oklab, times 100) count as one when the app rules on their number: noise of a photograph is less, another ink more. */
export const ONE_COLOUR = 9;
/** A colour of less than this share of all but the commonest is no ink when the app rules. */
export const LEAST_SHARE = 0.002;
export const MOST_COLOURS = 12;
export const BINS = 32_768;

const toOklab = useMode(modeOklab);

export const binOf = (r: number, g: number, b: number) => ((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3);

/** The colour in the middle of a bin. */
export const centreOfBin = (bin: number): Triple => [
  ((bin >> 10) << 3) + 4,
  (((bin >> 5) & 31) << 3) + 4,
  ((bin & 31) << 3) + 4,
];

/** 1 where a pixel looks like all its four neighbours. */
export function flatPixels({ width, height, data }: Pixels): Uint8Array {
  const flat = new Uint8Array(width * height).fill(1);
  const whole = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const differ = (p: number, q: number) => {
    if (whole[p] === whole[q]) return false;
    const [i, j] = [4 * p, 4 * q];
    return (
      Math.abs(data[i]! - data[j]!) > EDGE ||
      Math.abs(data[i + 1]! - data[j + 1]!) > EDGE ||
      Math.abs(data[i + 2]! - data[j + 2]!) > EDGE ||
      Math.abs(data[i + 3]! - data[j + 3]!) > EDGE
    );
  };
  for (let y = 0, p = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, p += 1) {
      if (x > 0 && differ(p, p - 1)) flat[p] = flat[p - 1] = 0;
      if (y > 0 && differ(p, p - width)) flat[p] = flat[p - width] = 0;
    }
  }
  return flat;
}

interface Bin {
  readonly lab: Triple;
  readonly rgb: Triple;
  readonly weight: number;
}

/**
 * The colours of what is opaque and flat in a picture, the commonest first: `wanted` of them at most, or as many as there are inks to be told apart.
 * The same picture always gives the same colours.
 */
export function paletteOf(pixels: Pixels, flat: Uint8Array, wanted: number | null): PaletteColour[] {
  const bins = countBins(pixels, flat);
  if (bins.length === 0) return [];
  if (wanted === null) {
    const found = clustered(bins, ONE_COLOUR);
    const rest = 1 - (found[0]?.share ?? 0);
    const inks = found.filter((cluster) => cluster.share >= LEAST_SHARE * rest).slice(0, MOST_COLOURS);
    return inks.length > 0 ? inks : found.slice(0, 1);
  }
  let near = ONE_COLOUR;
  let found = clustered(bins, near);
  while (found.length < wanted && near > 0.5) found = clustered(bins, (near /= 1.4));
  return merged(found, wanted);
}

function countBins({ width, height, data }: Pixels, flat: Uint8Array): Bin[] {
  const sums = new Float64Array(4 * BINS);
  for (let p = 0; p < width * height; p += 1) {
    if (!flat[p] || data[4 * p + 3]! < 128) continue;
    const r = data[4 * p]!;
    const g = data[4 * p + 1]!;
    const b = data[4 * p + 2]!;
    const o = 4 * binOf(r, g, b);
    sums[o]! += r;
    sums[o + 1]! += g;
    sums[o + 2]! += b;
    sums[o + 3]! += 1;
  }
  const bins: Bin[] = [];
  for (let i = 0; i < BINS; i += 1) {
    const weight = sums[4 * i + 3]!;
    if (weight === 0) continue;
    const rgb: Triple = [sums[4 * i]! / weight, sums[4 * i + 1]! / weight, sums[4 * i + 2]! / weight];
    bins.push({ rgb, lab: labOf(rgb), weight });
  }
  return bins.sort((a, b) => b.weight - a.weight);
}

/** A colour in Oklab, times 100, with the lightness that the eye sees. Oklab’s own lightness puts two near blacks as far apart as two inks. */
export function labOf([r, g, b]: Triple): Triple {
  const { l, a, b: yellow } = toOklab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
  return [100 * seenLightness(l), 100 * a, 100 * yellow];
}

/**
 * The lightness that the eye sees beside white, 0 to 1, from Oklab’s.
 *
 * @see B. Ottosson, “Okhsv and Okhsl”, 2021, for the formula and its three constants
 */
function seenLightness(l: number): number {
  const [k1, k2] = [0.206, 0.03];
  const k3 = (1 + k1) / (1 + k2);
  return (k3 * l - k1 + Math.sqrt((k3 * l - k1) ** 2 + 4 * k2 * k3 * l)) / 2;
}

/** How far apart two colours are, as `labOf` gives them. */
export const apart = (a: Triple, b: Triple) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Bins gathered round the commonest ones, then shared out to the nearest mean until the means stand still. */
function clustered(bins: readonly Bin[], near: number): PaletteColour[] {
  let centres: Triple[] = [];
  for (const bin of bins)
    if (centres.every((centre) => apart(centre, bin.lab) > near) && centres.length < 64) centres.push(bin.lab);
  let means: { rgb: number[]; lab: number[]; weight: number }[] = [];
  for (let round = 0; round < 8; round += 1) {
    means = centres.map(() => ({ rgb: [0, 0, 0], lab: [0, 0, 0], weight: 0 }));
    for (const bin of bins) {
      const mean = means[nearestOf(centres, bin.lab)]!;
      mean.weight += bin.weight;
      for (let c = 0; c < 3; c += 1) {
        mean.rgb[c]! += bin.rgb[c]! * bin.weight;
        mean.lab[c]! += bin.lab[c]! * bin.weight;
      }
    }
    const next = means.map((mean, i) =>
      mean.weight > 0 ? (mean.lab.map((v) => v / mean.weight) as unknown as Triple) : centres[i]!,
    );
    const still = next.every((lab, i) => apart(lab, centres[i]!) < 0.05);
    centres = next;
    if (still) break;
  }
  const total = bins.reduce((sum, bin) => sum + bin.weight, 0);
  return means
    .filter((mean) => mean.weight > 0)
    .map((mean) => ({ rgb: mean.rgb.map((v) => v / mean.weight) as unknown as Triple, share: mean.weight / total }))
    .sort((a, b) => b.share - a.share);
}

function nearestOf(centres: readonly Triple[], lab: Triple): number {
  let best = 0;
  for (let i = 1; i < centres.length; i += 1) if (apart(centres[i]!, lab) < apart(centres[best]!, lab)) best = i;
  return best;
}

/** The nearest pairs made one, weighted by their shares, until `count` are left, the commonest first. */
export function merged(colours: readonly PaletteColour[], count: number): PaletteColour[] {
  const out = [...colours];
  while (out.length > count) {
    let best = { cost: Infinity, i: 0, j: 1 };
    out.forEach((a, i) =>
      out.slice(i + 1).forEach((b, k) => {
        // Losing a small colour costs less than losing a large one.
        const cost = apart(labOf(a.rgb), labOf(b.rgb)) ** 2 * ((a.share * b.share) / (a.share + b.share));
        if (cost < best.cost) best = { cost, i, j: i + 1 + k };
      }),
    );
    const [a, b] = [out[best.i]!, out[best.j]!];
    const share = a.share + b.share;
    out.splice(best.j, 1);
    // A few stray pixels do not tint an ink: the commoner colour stands for both.
    out[best.i] = { rgb: a.share >= b.share ? a.rgb : b.rgb, share };
  }
  return out.sort((a, b) => b.share - a.share);
}

/** Gives the number of the colour of a palette that is nearest to a bin, counted from 1 (0 of an empty one), worked out when a bin is first met: few of them occur. */
export function nearestByBin(palette: readonly PaletteColour[]): (bin: number) => number {
  const labs = palette.map(({ rgb }) => labOf(rgb));
  const known = new Uint8Array(BINS);
  const workOut = (bin: number) => {
    const lab = labOf(centreOfBin(bin));
    let [best, least] = [0, Infinity];
    labs.forEach((other, i) => {
      const d = (lab[0] - other[0]) ** 2 + (lab[1] - other[1]) ** 2 + (lab[2] - other[2]) ** 2;
      if (d < least) [best, least] = [i + 1, d];
    });
    return best;
  };
  return (bin) => known[bin] || (known[bin] = workOut(bin));
}
