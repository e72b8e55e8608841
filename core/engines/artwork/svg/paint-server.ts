import { boundsOf, flatten, IDENTITY } from '../../../geometry/index.js';
import { overWhite, parseColour } from '../colour.js';
import type { Styles } from './style-rules.js';
import { idOfUrl } from './context.js';
import { meanAlphaOfGradient, meanOfGradient } from './gradient-bands.js';
import { SHAPE_NAMES, shapeCurves } from './shapes.js';
import { computeStyle, INITIAL_STYLE, type ComputedStyle } from './style.js';
import type { XmlElement } from './xml.js';

/** What a fill or stroke value comes to: a solid colour or nothing, and what had to be given up on the way. */
export interface SolidPaint {
  readonly colour: string | null;
  readonly lost: 'none' | 'gradient' | 'pattern' | 'pattern-flattened' | 'unknown-paint' | 'opacity';
}

export interface PaintOptions {
  readonly currentColor: string;
  readonly opacity: number;
  readonly byId: ReadonlyMap<string, XmlElement>;
  readonly styles: Styles;
  /** A pattern becomes its main colour; without it, nothing. */
  readonly flattenPatterns?: boolean;
}

/** Resolves a fill or stroke value to one solid colour, since a film has one. */
export function resolvePaint(value: string, options: PaintOptions): SolidPaint {
  if (options.opacity <= 0) return { colour: null, lost: 'none' };
  const reference = /^url\(\s*["']?#([^"')]+)["']?\s*\)\s*(.*)$/.exec(value);
  if (reference) {
    const server = options.byId.get(reference[1]!);
    if (server?.name === 'linearGradient' || server?.name === 'radialGradient') {
      const colour = meanOfGradient(server, options);
      return colour ? { colour: overWhite(colour, options.opacity), lost: 'gradient' } : { colour: null, lost: 'none' };
    }
    if (server?.name === 'pattern') {
      const main = options.flattenPatterns ? mainColour(server, options) : null;
      return main
        ? { colour: overWhite(main, options.opacity), lost: 'pattern-flattened' }
        : { colour: null, lost: 'pattern' };
    }
    return reference[2] ? resolvePaint(reference[2], options) : { colour: null, lost: 'unknown-paint' };
  }
  const keyword = value.toLowerCase();
  if (keyword === 'none' || keyword === 'transparent' || keyword === '') return { colour: null, lost: 'none' };
  const parsed = parseColour(keyword === 'currentcolor' ? options.currentColor : value);
  if (!parsed) return { colour: null, lost: 'unknown-paint' };
  const alpha = parsed.alpha * options.opacity;
  if (alpha <= 0) return { colour: null, lost: 'none' };
  // 254.5/255: what cannot be told from solid is solid.
  return alpha >= 0.998
    ? { colour: parsed.hex, lost: 'none' }
    : { colour: overWhite(parsed.hex, alpha), lost: 'opacity' };
}

/** Less solid than this on the whole, a fill is a shine or a shadow: more is seen through it than of it. */
const SHINE = 0.5;

/** Whether a fill that is seen at all is a shine or a shadow. */
export function isShine(value: string, options: PaintOptions): boolean {
  const alpha = value === 'none' ? 0 : meanAlpha(value, options);
  return alpha > 0 && alpha < SHINE;
}

/** How solid a fill or stroke is, 0 to 1: its own opacity, and the mean along a gradient. What is no colour counts as solid. */
function meanAlpha(value: string, options: PaintOptions): number {
  const id = idOfUrl(value);
  const server = id === undefined ? undefined : options.byId.get(id);
  if (server?.name === 'linearGradient' || server?.name === 'radialGradient')
    return options.opacity * meanAlphaOfGradient(server, options);
  return (
    options.opacity * (parseColour(value.toLowerCase() === 'currentcolor' ? options.currentColor : value)?.alpha ?? 1)
  );
}

/** The solid colour that takes up most of a pattern's tile, going by the boxes of its shapes. */
function mainColour(pattern: XmlElement, options: PaintOptions): string | null {
  const sizes = new Map<string, number>();
  const visit = (element: XmlElement, style: ComputedStyle) => {
    for (const child of element.children) {
      const own = computeStyle(child, style, options.styles);
      const { curves } = SHAPE_NAMES.has(child.name)
        ? shapeCurves(child, { width: 100, height: 100 }, 16)
        : { curves: null };
      const box = curves && boundsOf(flatten(curves, IDENTITY, 0.1).map((line) => line.points));
      const colour = parseColour(own['fill']!);
      if (box && colour)
        sizes.set(colour.hex, (sizes.get(colour.hex) ?? 0) + (box.maxX - box.minX) * (box.maxY - box.minY));
      visit(child, own);
    }
  };
  visit(pattern, computeStyle(pattern, INITIAL_STYLE, options.styles));
  return [...sizes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
