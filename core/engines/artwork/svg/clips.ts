import { compose, IDENTITY, translation, type FillRule, type Matrix } from '../../../geometry/index.js';
import type { Clip } from '../artwork.js';
import type { Noticed } from '../noticed.js';
import { describe, idOfUrl, SILENT, type Context } from './context.js';
import type { Styles } from './style-rules.js';
import { parseOpacity, parseSvgLength } from './lengths.js';
import { boxUnits } from './own-box.js';
import { resolvePaint } from './paint-server.js';
import { rectangle, SHAPE_NAMES, shapeCurves } from './shapes.js';
import { computeStyle, INITIAL_STYLE, styleWithin, withCssGeometry, type ComputedStyle } from './style.js';
import type { XmlElement } from './xml.js';

/** What reading clips needs of the drawing they are in. */
interface Walk {
  readonly byId: ReadonlyMap<string, XmlElement>;
  readonly styles: Styles;
  readonly note: (noticed: Noticed) => void;
  /** The context inside an element, or null when it is not drawn. */
  readonly enter: (element: XmlElement, parent: Context, isUsed?: boolean) => Context | null;
  /** The outlines of a text. */
  readonly letters: (element: XmlElement, context: Context) => Clip['outlines'];
}

/** Clip paths, and masks that are no more than clips. */
export class ClipReader {
  constructor(private readonly walk: Walk) {}

  clipsOf(element: XmlElement, style: ComputedStyle, matrix: Matrix, context: Context): Clip[] {
    const value = style['clip-path']!;
    if (value === 'none') return [];
    const id = idOfUrl(value);
    const clipPath = id === undefined ? undefined : this.walk.byId.get(id);
    // In units of its box, a clip is stretched over what it clips.
    const units =
      clipPath?.attributes['clipPathUnits'] === 'objectBoundingBox'
        ? boxUnits(element, context.viewport, this.walk)
        : IDENTITY;
    if (!clipPath || clipPath.name !== 'clipPath' || !units) {
      this.walk.note({ code: 'clip-ignored', element: describe(element), why: 'unknown' });
      return [];
    }
    if (context.using.includes(clipPath)) {
      this.walk.note({ code: 'clip-ignored', element: describe(element), why: 'contains-itself' });
      return [];
    }
    const inside: Context = {
      ...context,
      matrix: compose(matrix, units),
      style: styleWithin(clipPath.parent, this.walk.styles),
      clips: [],
      using: [...context.using, clipPath],
    };
    const entered = this.walk.enter(clipPath, inside, true);
    if (!entered) return [];
    const outlines: Clip['outlines'][number][] = [];
    for (const child of clipPath.children) this.#outlines(child, { ...entered, clips: [] }, outlines);
    return [{ outlines, clips: entered.clips }];
  }

  /**
   * A mask of solid shapes shows what lies in white ones and hides what lies in black ones above them, which is what a clip does; one that goes by how solid they are shows
   * what lies in any. Null when there is more to it: greys, strokes, gradients, pictures.
   */
  maskAsClip(element: XmlElement, value: string, matrix: Matrix, context: Context): Clip | null {
    const id = idOfUrl(value);
    const mask = id === undefined ? undefined : this.walk.byId.get(id);
    if (!mask || mask.name !== 'mask' || context.using.includes(mask)) return null;
    const units =
      mask.attributes['maskContentUnits'] === 'objectBoundingBox'
        ? boxUnits(element, context.viewport, this.walk)
        : IDENTITY;
    if (!units) return null;
    const style = computeStyle(mask, INITIAL_STYLE, this.walk.styles);
    const inside: Context = {
      ...context,
      matrix: compose(matrix, units),
      style,
      opacity: 1,
      clips: [],
      using: [...context.using, mask],
    };
    const outlines: Clip['outlines'][number][] = [];
    for (const child of mask.children)
      if (!this.#maskOutlines(child, inside, outlines, style['mask-type'] === 'alpha')) return null;
    return { outlines, clips: this.#maskBox(element, mask, matrix, context) };
  }

  /** What of an element shows or hides, by its colour; false when it is no solid shape in black or white. */
  #maskOutlines(element: XmlElement, parent: Context, into: Clip['outlines'][number][], byAlpha: boolean): boolean {
    if (SILENT.has(element.name)) return true;
    if (element.name === 'g' || element.name === 'a') {
      const context = this.walk.enter(element, parent);
      return !context || element.children.every((child) => this.#maskOutlines(child, context, into, byAlpha));
    }
    if (!SHAPE_NAMES.has(element.name) && element.name !== 'use' && element.name !== 'text') return false;
    const context = this.walk.enter(element, parent);
    if (!context) return true;
    const { style } = context;
    if (style['stroke'] !== 'none') return false;
    const opacity = context.opacity * parseOpacity(style['fill-opacity']!);
    const { colour, lost } = resolvePaint(style['fill']!, {
      currentColor: style['color']!,
      opacity,
      byId: this.walk.byId,
      styles: this.walk.styles,
    });
    if (colour === null) return true;
    if (lost !== 'none') return false;
    const hides = byAlpha ? false : colour === '#000000' ? true : colour === '#ffffff' ? false : null;
    if (hides === null) return false;
    const own: Clip['outlines'][number][] = [];
    this.#outlines(element, parent, own, 'fill-rule');
    into.push(...own.map((outline) => (hides ? { ...outline, hides } : outline)));
    return true;
  }

  /** A mask shows nothing outside its own box, which unless it says otherwise is that of what it masks and a tenth more on every side. */
  #maskBox(element: XmlElement, mask: XmlElement, matrix: Matrix, { viewport }: Context): Clip[] {
    const { attributes: a } = mask;
    const inUser = a['maskUnits'] === 'userSpaceOnUse';
    const units = inUser ? IDENTITY : boxUnits(element, viewport, this.walk);
    if (!units) return [];
    const side = (name: string, whole: number, beginning: string) =>
      parseSvgLength(a[name] ?? beginning, inUser ? whole : 1) ?? 0;
    const [x, y] = [side('x', viewport.width, '-10%'), side('y', viewport.height, '-10%')];
    const [width, height] = [side('width', viewport.width, '120%'), side('height', viewport.height, '120%')];
    return [
      {
        outlines:
          width > 0 && height > 0
            ? [{ curves: rectangle(x, y, width, height), matrix: compose(matrix, units), rule: 'nonzero', clips: [] }]
            : [],
        clips: [],
      },
    ];
  }

  #outlines(
    element: XmlElement,
    parent: Context,
    into: Clip['outlines'][number][],
    ruledBy: 'clip-rule' | 'fill-rule' = 'clip-rule',
  ): void {
    const context =
      SHAPE_NAMES.has(element.name) || element.name === 'use' || element.name === 'text'
        ? this.walk.enter(element, parent)
        : null;
    if (!context) return;
    if (element.name === 'text') {
      into.push(...this.walk.letters(element, context));
      return;
    }
    if (element.name === 'use') {
      const href = element.attributes['href'] ?? element.attributes['xlink:href'] ?? '';
      const target = this.walk.byId.get(href.replace(/^#/, ''));
      const x = parseSvgLength(element.attributes['x'], context.viewport.width) ?? 0;
      const y = parseSvgLength(element.attributes['y'], context.viewport.height) ?? 0;
      if (target && (SHAPE_NAMES.has(target.name) || target.name === 'text')) {
        this.#outlines(target, { ...context, matrix: compose(context.matrix, translation(x, y)) }, into, ruledBy);
      }
      return;
    }
    if (context.style['visibility'] !== 'visible') return;
    const { curves } = shapeCurves(
      { name: element.name, attributes: withCssGeometry(element, context.style) },
      context.viewport,
      16,
    );
    const rule: FillRule = context.style[ruledBy] === 'evenodd' ? 'evenodd' : 'nonzero';
    if (curves) into.push({ curves, matrix: context.matrix, rule, clips: context.clips });
  }
}
