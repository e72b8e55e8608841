import { compose, IDENTITY, type Box, type Curves } from '../../../geometry/index.js';
import { curvesReach } from '../paint-reach.js';
import type { Context } from './context.js';
import { parseSvgLength } from './lengths.js';
import { ownTransform } from './own-transform.js';
import { rectangle, SHAPE_NAMES, shapeCurves } from './shapes.js';
import type { Styles } from './style-rules.js';
import { computeStyle } from './style.js';
import { ownText, type XmlElement } from './xml.js';

/** Letters are about so wide, and lines so high, in ems. */
const LETTER_EM = 0.6;
const ASCENT_EM = 0.8;

/** Where an element that was not painted would be, mm on the artboard, so that it can be pointed at; null for what has no place of its own. */
export function placeOf(element: XmlElement, parent: Context, styles: Styles): Box | null {
  const curves = outlineOf(element, parent, styles);
  return (
    curves && curvesReach(curves, compose(parent.matrix, ownTransform(element, parent.viewport, styles) ?? IDENTITY))
  );
}

function outlineOf(element: XmlElement, { viewport, style }: Context, styles: Styles): Curves | null {
  if (SHAPE_NAMES.has(element.name)) return shapeCurves(element, viewport, 16).curves;
  const at = (name: string, whole: number) => parseSvgLength(element.attributes[name], whole) ?? 0;
  const [x, y] = [at('x', viewport.width), at('y', viewport.height)];
  if (element.name === 'image' || element.name === 'foreignObject') {
    const [width, height] = [at('width', viewport.width), at('height', viewport.height)];
    return width > 0 && height > 0 ? rectangle(x, y, width, height) : null;
  }
  if (element.name !== 'text') return null;
  const em = Number(computeStyle(element, style, styles)['font-size']) || 16;
  return rectangle(x, y - ASCENT_EM * em, Math.max(1, ownText(element).trim().length) * LETTER_EM * em, em);
}
