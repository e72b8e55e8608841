import {
  boundsOf,
  compose,
  CurvesBuilder,
  flatten,
  IDENTITY,
  inverse,
  type Curves,
  type Matrix,
} from '../../../geometry/index.js';
import { mixColours, overWhite, parseColour } from '../colour.js';
import type { Styles } from './style-rules.js';
import { parseOpacity, parseSvgLength } from './lengths.js';
import { rectangle } from './shapes.js';
import { computeStyle, INITIAL_STYLE } from './style.js';
import { parseTransform } from './transform.js';
import type { XmlElement } from './xml.js';

/** A band of a gradient: its colour and the area it reaches to, null for all of the shape. Later bands lie over earlier ones. */
export interface GradientBand {
  readonly colour: string;
  readonly area: { readonly curves: Curves; readonly matrix: Matrix } | null;
}

export interface GradientContext {
  readonly byId: ReadonlyMap<string, XmlElement>;
  readonly styles: Styles;
}

interface Stop {
  readonly at: number;
  readonly colour: string;
  readonly alpha: number;
}

/** Colours are sampled so many times across a band. */
const SAMPLES = 9;

/** The gradient and those it takes its attributes and stops from, nearest first. */
function lineage(gradient: XmlElement, { byId }: GradientContext): XmlElement[] {
  const chain = [gradient];
  for (let at: XmlElement | undefined = gradient; at && chain.length < 10;) {
    const href: string | undefined = at.attributes['href'] ?? at.attributes['xlink:href'];
    at = href?.startsWith('#') ? byId.get(href.slice(1)) : undefined;
    if (at && !chain.includes(at)) chain.push(at);
    else break;
  }
  return chain;
}

function stopsOf(chain: readonly XmlElement[], { styles }: GradientContext): Stop[] {
  const holder = chain.find((element) => element.children.some((child) => child.name === 'stop'));
  let last = 0;
  return (holder?.children ?? []).flatMap((stop) => {
    if (stop.name !== 'stop') return [];
    const style = computeStyle(stop, INITIAL_STYLE, styles);
    const parsed = parseColour(style['stop-color']!);
    const at = parseSvgLength(stop.attributes['offset'] ?? '0', 1) ?? 0;
    // Offsets never go back.
    last = Math.min(1, Math.max(last, at));
    const alpha = (parsed?.alpha ?? 0) * parseOpacity(style['stop-opacity']!);
    return parsed ? [{ at: last, alpha, colour: overWhite(parsed.hex, alpha) }] : [];
  });
}

function colourAt(stops: readonly Stop[], t: number): string {
  const after = stops.findIndex((stop) => stop.at >= t);
  if (after < 0) return stops.at(-1)!.colour;
  if (after === 0) return stops[0]!.colour;
  const [a, b] = [stops[after - 1]!, stops[after]!];
  const share = b.at > a.at ? (t - a.at) / (b.at - a.at) : 1;
  return mixColours([
    { hex: a.colour, weight: 1 - share },
    { hex: b.colour, weight: share },
  ]);
}

function meanBetween(stops: readonly Stop[], from: number, to: number): string {
  return mixColours(
    Array.from({ length: SAMPLES }, (_, i) => ({
      hex: colourAt(stops, from + ((i + 0.5) / SAMPLES) * (to - from)),
      weight: 1,
    })),
  );
}

/** The mean colour of a gradient from its first to its last offset, laid on white; null when it has no stops. */
export function meanOfGradient(gradient: XmlElement, context: GradientContext): string | null {
  const stops = stopsOf(lineage(gradient, context), context);
  return stops.length > 0 ? meanBetween(stops, 0, 1) : null;
}

/** How solid a gradient is, 0 to 1: the mean of its stops' opacity along it, each stretch between two counted by its length. 1 when it has no stops. */
export function meanAlphaOfGradient(gradient: XmlElement, context: GradientContext): number {
  const stops = stopsOf(lineage(gradient, context), context);
  const [first, last] = [stops[0], stops.at(-1)];
  if (!first || !last) return 1;
  const between = stops
    .slice(1)
    .reduce((sum, stop, i) => sum + ((stop.at - stops[i]!.at) * (stop.alpha + stops[i]!.alpha)) / 2, 0);
  return first.at * first.alpha + between + (1 - last.at) * last.alpha;
}

/**
 * A gradient as `count` flat bands over a shape whose outline is given in user space, the lowest first. A gradient that repeats or is
 * reflected is taken once. Null when it has no stops or no size.
 */
export function gradientBands(
  gradient: XmlElement,
  outline: Curves,
  viewport: { readonly width: number; readonly height: number },
  count: number,
  context: GradientContext,
): GradientBand[] | null {
  const chain = lineage(gradient, context);
  const attribute = (name: string) =>
    chain.find((element) => element.name === gradient.name && name in element.attributes)?.attributes[name] ??
    chain.find((element) => name in element.attributes)?.attributes[name];
  const stops = stopsOf(chain, context);
  const box = boundsOf(flatten(outline, IDENTITY, 0.01).map((line) => line.points));
  if (stops.length === 0 || !box) return null;
  const ofBox = attribute('gradientUnits') !== 'userSpaceOnUse';
  const units: Matrix = ofBox ? [box.maxX - box.minX, 0, 0, box.maxY - box.minY, box.minX, box.minY] : IDENTITY;
  const matrix = compose(units, parseTransform(attribute('gradientTransform')) ?? IDENTITY);
  const back = inverse(matrix);
  if (!back) return null;
  const [w, h] = ofBox ? [1, 1] : [viewport.width, viewport.height];
  const number = (name: string, otherwise: string, reference: number) =>
    parseSvgLength(attribute(name) ?? otherwise, reference) ?? 0;
  const edges = Array.from({ length: count - 1 }, (_, k) => (k + 1) / count);
  if (gradient.name === 'linearGradient') {
    const [x1, y1, x2, y2] = [
      number('x1', '0%', w),
      number('y1', '0%', h),
      number('x2', '100%', w),
      number('y2', '0%', h),
    ];
    if (Math.hypot(x2 - x1, y2 - y1) < 1e-9) return null;
    // Far enough each way to hold the whole shape, in the gradient's own space.
    const corners = [
      [box.minX, box.minY],
      [box.maxX, box.minY],
      [box.maxX, box.maxY],
      [box.minX, box.maxY],
    ].map(([x, y]) => [back[0] * x! + back[2] * y! + back[4], back[1] * x! + back[3] * y! + back[5]]);
    const far = Math.max(...corners.map(([x, y]) => Math.hypot(x! - x1, y! - y1))) + Math.hypot(x2 - x1, y2 - y1);
    const length = Math.hypot(x2 - x1, y2 - y1);
    const turned: Matrix = [(x2 - x1) / length, (y2 - y1) / length, -(y2 - y1) / length, (x2 - x1) / length, x1, y1];
    const beyond = edges.map((edge) => ({
      colour: '',
      area: { curves: rectangle(edge * length, -far, far + length, 2 * far), matrix: compose(matrix, turned) },
    }));
    return coloured([{ colour: '', area: null }, ...beyond], stops);
  }
  const [cx, cy, r] = [
    number('cx', '50%', w),
    number('cy', '50%', h),
    number('r', '50%', ofBox ? 1 : Math.hypot(w, h) / Math.SQRT2),
  ];
  const [fx, fy] = [
    attribute('fx') === undefined ? cx : number('fx', '50%', w),
    attribute('fy') === undefined ? cy : number('fy', '50%', h),
  ];
  if (!(r > 0)) return null;
  const discs = [...edges].reverse().map((edge) => {
    const [x, y] = [fx + (cx - fx) * edge, fy + (cy - fy) * edge];
    const curves = new CurvesBuilder()
      .add('M', x + r * edge, y)
      .add('A', x, y, r * edge, r * edge, 0, 0, 2 * Math.PI)
      .add('Z')
      .build();
    return { colour: '', area: { curves, matrix } };
  });
  return coloured([{ colour: '', area: null }, ...discs], stops, true);
}

/** Bands from the first to the last offset, or the other way when the lowest is the outermost. */
function coloured(bands: readonly GradientBand[], stops: readonly Stop[], inwards = false): GradientBand[] {
  const n = bands.length;
  return bands.map((band, i) => {
    const k = inwards ? n - 1 - i : i;
    return { ...band, colour: meanBetween(stops, k / n, (k + 1) / n) };
  });
}
