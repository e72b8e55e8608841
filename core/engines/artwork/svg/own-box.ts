import {
  boundsOf,
  compose,
  flatten,
  IDENTITY,
  joinBoxes,
  translation,
  type Box,
  type Matrix,
} from '../../../geometry/index.js';
import type { Context } from './context.js';
import { parseSvgLength } from './lengths.js';
import { ownTransform } from './own-transform.js';
import { SHAPE_NAMES, shapeCurves } from './shapes.js';
import type { Styles } from './style-rules.js';
import { computeStyle, INITIAL_STYLE, withCssGeometry } from './style.js';
import { parseViewBox, viewBoxMatrix } from './transform.js';
import type { XmlElement } from './xml.js';

/** The drawing that an element is part of. */
interface Drawing {
  readonly byId: ReadonlyMap<string, XmlElement>;
  readonly styles: Styles;
}

/** A drawing that goes deeper than this in what it repeats contains itself. */
const DEEPEST_USE = 20;

/** From the unit square to an element's own box in its user space, or null when it has none, or none that is known: the boxes of letters are not. */
export function boxUnits(element: XmlElement, viewport: Context['viewport'], drawing: Drawing): Matrix | null {
  const box = boxOf(element, IDENTITY, viewport, drawing);
  return box && box !== 'unknown' && box.maxX > box.minX && box.maxY > box.minY
    ? [box.maxX - box.minX, 0, 0, box.maxY - box.minY, box.minX, box.minY]
    : null;
}

/** Round the shapes of an element, strokes left out as the specification has it. */
function boxOf(
  element: XmlElement,
  matrix: Matrix,
  viewport: Context['viewport'],
  drawing: Drawing,
  depth = 0,
): Box | 'unknown' | null {
  if (SHAPE_NAMES.has(element.name)) {
    const attributes = withCssGeometry(element, computeStyle(element, INITIAL_STYLE, drawing.styles));
    const { curves } = shapeCurves({ name: element.name, attributes }, viewport, 16);
    return curves && boundsOf(flatten(curves, matrix, 0.01).map((line) => line.points));
  }
  const inside = (child: XmlElement, at: Matrix, within = viewport) =>
    boxOf(child, compose(at, ownTransform(child, within, drawing.styles) ?? IDENTITY), within, drawing, depth + 1);
  const inAll = (at: Matrix, within = viewport) =>
    element.children.reduce<Box | 'unknown' | null>((sum, child) => {
      const box = sum === 'unknown' ? sum : inside(child, at, within);
      return box === 'unknown' || sum === 'unknown' ? 'unknown' : joinBoxes(sum, box);
    }, null);
  const { attributes: a } = element;
  const side = (name: string, whole: number, beginning = '0') => parseSvgLength(a[name] ?? beginning, whole) ?? 0;
  switch (element.name) {
    case 'text':
    case 'image':
    case 'foreignObject':
      return 'unknown';
    case 'use': {
      const target =
        depth < DEEPEST_USE ? drawing.byId.get((a['href'] ?? a['xlink:href'] ?? '').replace(/^#/, '')) : undefined;
      return target
        ? inside(target, compose(matrix, translation(side('x', viewport.width), side('y', viewport.height))))
        : null;
    }
    case 'svg': {
      const [width, height] = [side('width', viewport.width, '100%'), side('height', viewport.height, '100%')];
      const box = parseViewBox(a['viewBox']);
      const fit = box ? viewBoxMatrix(box, width, height, a['preserveAspectRatio']) : IDENTITY;
      return inAll(
        [translation(side('x', viewport.width), side('y', viewport.height)), fit].reduce(compose, matrix),
        box ?? { width, height },
      );
    }
    case 'g':
    case 'a':
      return inAll(matrix);
    default:
      return null;
  }
}
