import type { Matrix } from '../../../geometry/index.js';
import type { Context } from './context.js';
import type { Styles } from './style-rules.js';
import { computeStyle, INITIAL_STYLE, type ComputedStyle } from './style.js';
import { aboutOrigin, parseTransform } from './transform.js';
import type { XmlElement } from './xml.js';

/** From an element's own user space to that of what it stands in, by attribute or style sheet; null when that is not understood. */
export function ownTransform(element: XmlElement, viewport: Context['viewport'], styles: Styles): Matrix | null {
  return transformOf(computeStyle(element, INITIAL_STYLE, styles), viewport);
}

/** The same of an element whose style is known. */
export function transformOf(style: ComputedStyle, viewport: Context['viewport']): Matrix | null {
  const own = parseTransform(style['transform'], viewport);
  return own && aboutOrigin(own, style['transform-origin']!, viewport);
}
