import { CurvesBuilder, transformBox, type Box, type Curves } from '../../../geometry/index.js';
import { atPlaces } from '../../../words/index.js';
import type { Artwork, Paint } from '../artwork.js';
import type { Noticed } from '../noticed.js';
import { edgeChains, type Chain } from './chains.js';
import { curvesOf, FARTHEST_TIP_PX, fitChain, reversedChain, type FittedChain } from './fit-curves.js';
import { labelPixels, patchesOf, withoutSpecks, type Labels, type Patches } from './labels.js';
import type { Rgba } from './mixtures.js';
import { withoutGaps } from './gaps.js';
import { thinLinesOf, type ThinLine } from './thin-lines.js';
import { hairColours, hairsOf, lostHairs, plainPixels } from './hairs.js';
import { apart, flatPixels, labOf, LEAST_SHARE, merged, paletteOf, type PaletteColour } from './palette.js';
import { prepared, WORKING_PIXELS, type Pixels } from './pixels.js';
import type { TraceHooks, TraceStep, Tracing } from './tracing.js';

/** An inch has 96 px where a picture does not matter enough to say otherwise, as on a page. */
export const MM_PER_PIXEL = 25.4 / 96;
/** A colour is even enough to be a background when so much of the picture's edge is of it. */
const EVEN_EDGE = 0.5;
/** Patches with less than this share of what is kept do not stretch the frame. */
const FRAME_SHARE = 0.0005;
/** More edges than this, or more points on them together, are noise and not a drawing. */
const MOST_CHAINS = 20_000;
const MOST_POINTS = 1_500_000;

/** A picture reduced to its colours: everything that does not depend on the size it is made. */
export interface ReducedPicture {
  readonly pixels: Pixels;
  readonly labels: Labels;
  readonly patches: Patches;
  /** The colour of each label: of bare surface first. */
  readonly colours: readonly Rgba[];
  /** Pixels of the file to one of `pixels`, each way. */
  readonly factor: number;
  /** Round what is kept, in `pixels`. */
  readonly frame: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  /** Lines too thin for edges of their own, by their middle and width; their colours by the number of the label. In `pixels`. */
  readonly lines: readonly ThinLine[];
  /** The same of the background: gaps in what they run through. */
  readonly gaps: readonly ThinLine[];
  readonly background: 'transparent' | 'colour' | 'none';
  /** How many colours the app would have taken. */
  readonly inks: number;
  /** Round lines and spots of other colours, too few of each for a colour of their own; in `pixels`. */
  readonly lost: readonly Box[];
}

/** Finds a picture's colours and what is background, and takes every pixel for one of them. */
export async function reducePicture(
  raw: Pixels,
  tracing: Pick<Tracing, 'colours' | 'background'>,
  hooks: TraceHooks = {},
): Promise<ReducedPicture> {
  const step = async (doing: TraceStep, done: number) => {
    hooks.onStep?.(doing, done);
    await hooks.breathe?.();
  };
  await step('laying-out', 0.15);
  const pixels = prepared(raw, WORKING_PIXELS);
  await step('colours', 0.25);
  const flat = flatPixels(pixels);
  const ground = tracing.background === 'keep' ? null : groundOf(pixels);
  const isGround = (colour: PaletteColour) =>
    ground !== null && ground !== 'transparent' && apart(labOf(colour.rgb), labOf(ground)) < 8;
  // A background of its own colour is one more than the inks that are asked for.
  const extra = ground !== null && ground !== 'transparent' ? 1 : 0;
  const flatColours = paletteOf(pixels, flat, null);
  const background = flatColours.findIndex(isGround) + 1;
  // Where only what is round the picture is bare, a line of its colour within is a line like others.
  const thin = thinLinesOf(pixels, flat, flatColours, tracing.background === 'around' ? 0 : background);
  const hairs = hairsOf(pixels, flat, flatColours, { background, lines: thin.is });
  const hairsRuled = hairColours(hairs, LEAST_SHARE);
  const ruled = [...flatColours, ...hairsRuled.colours];
  const inks = Math.max(1, ruled.length - (ruled.some(isGround) ? 1 : 0));
  const wanted = tracing.colours === null ? null : tracing.colours + extra;
  const palette =
    wanted === null ? ruled : merged([...paletteOf(pixels, flat, wanted), ...hairColours(hairs, 0).colours], wanted);
  await step('pixels', 0.4);
  let labels = labelPixels(pixels, plainPixels(hairs, hairsRuled), palette);
  // The number of a flat colour in the palette that was asked for.
  const numbers = flatColours.map(({ rgb }) => nearestOf(labOf(rgb), palette));
  labels = {
    ...labels,
    of: labels.of.map((label, p) => (thin.is[p] ? (thin.ground[p] === 0 ? 0 : numbers[thin.ground[p]! - 1]!) : label)),
  };
  const lines = thin.lines.map((line) => ({ ...line, colour: numbers[line.colour]! }));
  const groundLabel = palette.findIndex(isGround) + 1;
  await step('patches', 0.55);
  let patches = patchesOf(labels);
  if (groundLabel > 0) {
    labels = withoutGround(labels, patches, groundLabel, tracing.background === 'around');
    patches = patchesOf(labels);
  }
  const bare: Rgba = groundLabel > 0 ? [...palette[groundLabel - 1]!.rgb, 255] : [255, 255, 255, 0];
  return {
    pixels,
    labels,
    patches,
    colours: [bare, ...palette.map(({ rgb }): Rgba => [...rgb, 255])],
    factor: pixels.factor,
    frame: frameOf(labels, patches, lines),
    lines,
    gaps: thin.gaps,
    background: groundLabel > 0 ? 'colour' : ground === 'transparent' ? 'transparent' : 'none',
    inks,
    lost: lostHairs(hairs, hairsRuled),
  };
}

/** The label of the colour of a palette that is nearest to another. */
function nearestOf(lab: ReturnType<typeof labOf>, palette: readonly PaletteColour[]): number {
  const far = palette.map(({ rgb }) => apart(lab, labOf(rgb)));
  return far.indexOf(Math.min(...far)) + 1;
}

/** What the picture's edge shows: mostly nothing, mostly one colour, or neither. */
function groundOf({ width, height, data }: Pixels): 'transparent' | readonly [number, number, number] | null {
  const edge: number[] = [];
  for (let x = 0; x < width; x += 1) edge.push(x, (height - 1) * width + x);
  for (let y = 1; y < height - 1; y += 1) edge.push(y * width, y * width + width - 1);
  if (edge.filter((p) => data[4 * p + 3]! < 128).length > EVEN_EDGE * edge.length) return 'transparent';
  const bins = new Map<number, { n: number; r: number; g: number; b: number }>();
  for (const p of edge) {
    const [r, g, b] = [data[4 * p]!, data[4 * p + 1]!, data[4 * p + 2]!];
    // Coarse on purpose: the light of a photographed sheet is not even.
    const key = ((r >> 5) << 6) | ((g >> 5) << 3) | (b >> 5);
    const bin = bins.get(key) ?? { n: 0, r: 0, g: 0, b: 0 };
    bins.set(key, { n: bin.n + 1, r: bin.r + r, g: bin.g + g, b: bin.b + b });
  }
  const [best] = [...bins.values()].sort((a, b) => b.n - a.n);
  return best && best.n > EVEN_EDGE * edge.length ? [best.r / best.n, best.g / best.n, best.b / best.n] : null;
}

function withoutGround({ width, height, of }: Labels, patches: Patches, ground: number, onlyAround: boolean): Labels {
  const around = new Set<number>();
  for (let x = 0; x < width; x += 1) around.add(patches.of[x]!).add(patches.of[(height - 1) * width + x]!);
  for (let y = 0; y < height; y += 1) around.add(patches.of[y * width]!).add(patches.of[y * width + width - 1]!);
  return {
    width,
    height,
    of: of.map((label, p) => (label === ground && (!onlyAround || around.has(patches.of[p]!)) ? 0 : label)),
  };
}

function frameOf(
  { width, height, of }: Labels,
  { of: patch, area }: Patches,
  lines: readonly ThinLine[],
): ReducedPicture['frame'] {
  let kept = 0;
  for (const label of of) if (label !== 0) kept += 1;
  const least = Math.max(4, FRAME_SHARE * kept);
  let [minX, minY, maxX, maxY] = [width, height, -1, -1];
  for (let y = 0, p = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, p += 1) {
      if (of[p] === 0 || area[patch[p]!]! < least) continue;
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
  }
  for (const { points, widthPx } of lines)
    points.forEach((v, i) => {
      if (i % 2 === 0) [minX, maxX] = [Math.min(minX, v - widthPx), Math.max(maxX, v + widthPx)];
      else [minY, maxY] = [Math.min(minY, v - widthPx), Math.max(maxY, v + widthPx)];
    });
  [minX, minY, maxX, maxY] = [Math.floor(minX), Math.floor(minY), Math.ceil(maxX), Math.ceil(maxY)];
  // An outline runs between pixels, and tips of corners reach out further.
  const spare = FARTHEST_TIP_PX;
  return maxX < 0
    ? { x: 0, y: 0, width, height }
    : { x: minX - spare, y: minY - spare, width: maxX + 1 - minX + 2 * spare, height: maxY + 1 - minY + 2 * spare };
}

/** The size of a reduced picture's frame, mm at 96 pixels of the file to the inch. */
export function pictureSizeMm({ frame, factor }: ReducedPicture): { widthMm: number; heightMm: number } {
  return { widthMm: frame.width * factor * MM_PER_PIXEL, heightMm: frame.height * factor * MM_PER_PIXEL };
}

/**
 * The outlines of a reduced picture as an artwork in mm, one paint to a colour. Neighbouring colours share their edges exactly.
 * Patches less than `speckMm` across at the artwork's own size are taken for what surrounds them.
 */
export async function tracePicture(reduced: ReducedPicture, speckMm: number, hooks: TraceHooks = {}): Promise<Artwork> {
  const mmPerPixel = MM_PER_PIXEL * reduced.factor;
  const step = async (doing: TraceStep, done: number) => {
    hooks.onStep?.(doing, done);
    await hooks.breathe?.();
  };
  await step('specks', 0.65);
  const { labels, dropped } = withoutSpecks(
    reduced.labels,
    reduced.patches,
    (Math.PI / 4) * (speckMm / mmPerPixel) ** 2,
  );
  await step('edges', 0.75);
  const chains = edgeChains(labels, reduced.pixels, reduced.colours);
  const { widthMm, heightMm } = pictureSizeMm(reduced);
  if (chains.length > MOST_CHAINS || chains.reduce((sum, chain) => sum + chain.points.length / 2, 0) > MOST_POINTS) {
    return { widthMm, heightMm, paints: [], noticed: [{ code: 'picture-too-busy' }] };
  }
  await step('outlines', 0.85);
  const fitted: { readonly chain: Chain; readonly fit: FittedChain }[] = [];
  for (const [i, chain] of chains.entries()) {
    if (i % 500 === 499) await hooks.breathe?.();
    fitted.push({ chain, fit: fitChain(chain) });
  }
  const { x: frameX, y: frameY } = reduced.frame;
  const matrix = [mmPerPixel, 0, 0, mmPerPixel, -frameX * mmPerPixel, -frameY * mmPerPixel] as const;
  const clips = withoutGaps(reduced.gaps, reduced.pixels, matrix);
  const paints: Paint[] = [];
  reduced.colours.forEach((colour, label) => {
    if (label === 0) return;
    const loops = loopsOf(fitted, label);
    if (loops.length === 0) return;
    const hex = hexOf(colour);
    paints.push({
      colour: hex,
      curves: curvesOf(loops),
      matrix,
      how: { kind: 'fill', rule: 'nonzero' },
      clips,
      element: `what is ${hex} in the picture`,
      elementIndex: label,
      mayCross: true,
    });
  });
  for (const [i, { colour, points, closed, widthPx }] of reduced.lines.entries())
    paints.push({
      colour: hexOf(reduced.colours[colour]!),
      curves: curveOf(points, closed),
      matrix,
      how: {
        kind: 'stroke',
        style: { width: widthPx, join: 'round', cap: 'butt', miterLimit: 4 },
        dashes: [],
        dashOffset: 0,
      },
      clips: [],
      element: `a line of ${hexOf(reduced.colours[colour]!)} in the picture`,
      elementIndex: reduced.colours.length + i,
      mayCross: true,
    });
  const noticed: Noticed[] = [];
  if (paints.length === 0) noticed.push({ code: 'picture-empty' });
  if (dropped > 0) noticed.push({ code: 'picture-specks', count: dropped });
  if (reduced.lost.length > 0)
    noticed.push({
      code: 'picture-hairs-lost',
      ...atPlaces(reduced.lost.map((box) => transformBox(box, matrix))),
    });
  return { widthMm, heightMm, isPicture: true, paints, noticed };
}

function hexOf(colour: Rgba): string {
  return `#${colour
    .slice(0, 3)
    .map((v) => Math.round(v).toString(16).padStart(2, '0'))
    .join('')}`;
}

function curveOf(points: readonly number[], closed: boolean): Curves {
  const curve = new CurvesBuilder();
  for (let i = 0; i < points.length; i += 2) curve.add(i === 0 ? 'M' : 'L', points[i]!, points[i + 1]!);
  if (closed) curve.add('Z');
  return curve.build();
}

/** The closed outlines of a label: chains joined at their junctions, the label always on the right. */
function loopsOf(
  fitted: readonly { readonly chain: Chain; readonly fit: FittedChain }[],
  label: number,
): FittedChain[][] {
  const loops: FittedChain[][] = [];
  const open = new Map<string, FittedChain[]>();
  const key = (point: { readonly x: number; readonly y: number }) => `${point.x},${point.y}`;
  for (const { chain, fit } of fitted) {
    if (chain.left === chain.right || (chain.left !== label && chain.right !== label)) continue;
    const own = chain.right === label ? fit : reversedChain(fit);
    if (chain.closed) loops.push([own]);
    else open.set(key(own.from), [...(open.get(key(own.from)) ?? []), own]);
  }
  const endOf = (chain: FittedChain) => chain.pieces.at(-1)!.to;
  for (const [start, list] of open) {
    while (list.length > 0) {
      const loop = [list.pop()!];
      while (key(endOf(loop.at(-1)!)) !== start) {
        const next = open.get(key(endOf(loop.at(-1)!)))?.pop();
        if (!next) break;
        loop.push(next);
      }
      loops.push(loop);
    }
  }
  return loops;
}
