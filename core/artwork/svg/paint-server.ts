import { mixColours, overWhite, parseColour } from '../colour.js';
import type { StyleRule } from './css.js';
import { computeStyle, INITIAL_STYLE } from './style.js';
import type { XmlElement } from './xml.js';

/** What a fill or stroke value comes to: a solid colour or nothing, and what had to be given up on the way. */
export interface SolidPaint {
  readonly colour: string | null;
  readonly lost: 'none' | 'gradient' | 'pattern' | 'unknown-paint' | 'opacity';
}

/** Resolves a fill or stroke value to one solid colour, since a film has one. */
export function resolvePaint(
  value: string,
  options: { readonly currentColor: string; readonly opacity: number; readonly byId: ReadonlyMap<string, XmlElement>; readonly rules: readonly StyleRule[] },
): SolidPaint {
  if (options.opacity <= 0) return { colour: null, lost: 'none' };
  const reference = /^url\(\s*["']?#([^"')]+)["']?\s*\)\s*(.*)$/.exec(value);
  if (reference) {
    const server = options.byId.get(reference[1]!);
    if (server?.name === 'linearGradient' || server?.name === 'radialGradient') {
      const colour = meanOfStops(server, options.byId, options.rules);
      return colour ? { colour: overWhite(colour, options.opacity), lost: 'gradient' } : { colour: null, lost: 'none' };
    }
    if (server?.name === 'pattern') return { colour: null, lost: 'pattern' };
    return reference[2] ? resolvePaint(reference[2], options) : { colour: null, lost: 'unknown-paint' };
  }
  const keyword = value.toLowerCase();
  if (keyword === 'none' || keyword === 'transparent' || keyword === '') return { colour: null, lost: 'none' };
  const parsed = parseColour(keyword === 'currentcolor' ? options.currentColor : value);
  if (!parsed) return { colour: null, lost: 'unknown-paint' };
  const alpha = parsed.alpha * options.opacity;
  if (alpha <= 0) return { colour: null, lost: 'none' };
  // 254.5/255: what cannot be told from solid is solid.
  return alpha >= 0.998 ? { colour: parsed.hex, lost: 'none' } : { colour: overWhite(parsed.hex, alpha), lost: 'opacity' };
}

function meanOfStops(gradient: XmlElement, byId: ReadonlyMap<string, XmlElement>, rules: readonly StyleRule[]): string | null {
  let holder: XmlElement | undefined = gradient;
  for (let hops = 0; holder && hops < 10 && !holder.children.some((c) => c.name === 'stop'); hops += 1) {
    const href: string | undefined = holder.attributes['href'] ?? holder.attributes['xlink:href'];
    holder = href?.startsWith('#') ? byId.get(href.slice(1)) : undefined;
  }
  const stops = (holder?.children ?? []).filter((c) => c.name === 'stop');
  const colours = stops.flatMap((stop) => {
    const style = computeStyle(stop, INITIAL_STYLE, rules);
    const parsed = parseColour(style['stop-color']!);
    return parsed ? [{ hex: overWhite(parsed.hex, parsed.alpha * Number(style['stop-opacity'])), weight: 1 }] : [];
  });
  return colours.length > 0 ? mixColours(colours) : null;
}
