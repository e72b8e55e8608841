import {
  compose,
  flatten,
  IDENTITY,
  joinBoxes,
  lineLength,
  perimeter,
  scaling,
  translation,
  type Box,
  type Curves,
  type Matrix,
} from '../../../geometry/index.js';
import type { Artwork, Clip, Paint } from '../artwork.js';
import { overWhite } from '../colour.js';
import { lettersMissing } from '../lettering/scripts.js';
import { shippedFont } from '../lettering/shipped-fonts.js';
import type { Noticed } from '../noticed.js';
import { curvesReach, paintReach } from '../paint-reach.js';
import type { ReadGiven } from '../read-given.js';
import { Refusal } from '../refusal.js';
import { artboardOf } from './artboard.js';
import { ClipReader } from './clips.js';
import { describe, idOfUrl, SILENT, type Context } from './context.js';
import { filterKind } from './filters.js';
import { gradientBands, type GradientBand } from './gradient-bands.js';
import { MM_PER_PX, parseOpacity, parseSvgLength, parseSvgLengths } from './lengths.js';
import { markerPlacement, verticesOf, type MarkerPlacement } from './markers.js';
import { ownTransform, transformOf } from './own-transform.js';
import { placeOf } from './place-of.js';
import { isShine, resolvePaint, type PaintOptions, type SolidPaint } from './paint-server.js';
import { rectangle, SHAPE_NAMES, shapeCurves } from './shapes.js';
import { computeStyle, INITIAL_STYLE, styleWithin, withCssGeometry, type ComputedStyle } from './style.js';
import type { Declaration, StyleRule } from './style-rules.js';
import type * as TextLayout from './text.js';
import type { TextLetter } from './text.js';
import type { Baseline } from './text-path.js';
import { parseViewBox, viewBoxMatrix } from './transform.js';
import { ownText, parseXml, type XmlElement } from './xml.js';

/** More painted shapes than this cannot be a drawing that anyone weeds; nested `use` reaches it quickly. */
const MAX_PAINTS = 50_000;

/**
 * Reads an SVG file into paints in z-order. What is not understood is noticed, with the element's name.
 *
 * @param source the file's name, for messages
 * @param given fonts and pictures at hand, the reader of its CSS, and the remedies that are taken on the way
 * @throws Refusal when it is not well-formed XML, not an SVG, or has no usable size
 */
export function readSvg(bytes: Uint8Array, source: string, given: ReadGiven): Artwork {
  const { root, unknownEntities } = parseXml(bytes, source);
  if (root.name !== 'svg') {
    throw new Refusal('not-svg', { element: root.name }, { source });
  }
  const reader = new SvgReader(root, source, given);
  if (unknownEntities > 0) reader.note({ code: 'entity-ignored', count: unknownEntities });
  const artwork = reader.read();
  // A drawing that is see-through altogether is no shine on anything.
  return artwork.paints.length === 0 && artwork.noticed.some(({ code }) => code === 'shines-left')
    ? readSvg(bytes, source, { ...given, repair: { ...given.repair, shines: 'keep' } })
    : artwork;
}

class SvgReader {
  readonly #root: XmlElement;
  readonly #source: string;
  readonly #given: ReadGiven;
  readonly #byId = new Map<string, XmlElement>();
  readonly #styles = { rules: new Array<StyleRule>(), own: new Map<XmlElement, readonly Declaration[]>() };
  readonly #paints: Paint[] = [];
  readonly #reaches: (Box | undefined)[] = [];
  readonly #noticed: Noticed[] = [];
  readonly #clips: ClipReader;
  #elementsDrawn = 0;
  readonly #shines: Box[] = [];

  constructor(root: XmlElement, source: string, given: ReadGiven) {
    this.#root = root;
    this.#source = source;
    this.#given = given;
    this.#clips = new ClipReader({
      byId: this.#byId,
      styles: this.#styles,
      note: (noticed) => this.note(noticed),
      enter: (element, parent, isUsed) => this.#enter(element, parent, isUsed),
      letters: (element, context) => this.#lettersOf(element, context),
    });
    this.#index(root);
  }

  note(noticed: Noticed): void {
    this.#noticed.push({ ...noticed, count: noticed.count ?? 1 });
  }

  read(): Artwork {
    const { width, height, matrix, pxPerUnit } = artboardOf(this.#root, this.#source);
    const box = parseViewBox(this.#root.attributes['viewBox']);
    const viewport = box ?? { width, height };
    const context = this.#enter(this.#root, {
      matrix: compose(scaling(MM_PER_PX), matrix),
      style: INITIAL_STYLE,
      opacity: 1,
      clips: [],
      viewport,
      using: [],
    });
    if (context) this.#children(this.#root, context);
    if (this.#shines.length > 0)
      this.note({ code: 'shines-left', count: this.#shines.length, where: this.#shines[0]!, places: this.#shines });
    return {
      widthMm: width * MM_PER_PX,
      heightMm: height * MM_PER_PX,
      ...(pxPerUnit === null ? {} : { mmPerUnit: pxPerUnit * MM_PER_PX }),
      paints: this.#paints,
      noticed: this.#noticed,
    };
  }

  #index(element: XmlElement): void {
    const id = element.attributes['id'];
    if (id !== undefined && !this.#byId.has(id)) this.#byId.set(id, element);
    if (element.name === 'style' && /^(text\/css)?$/.test(element.attributes['type'] ?? '')) {
      this.#styles.rules.push(
        ...this.#given.css.styleSheet(ownText(element), (what) => this.note({ code: 'style-ignored', rule: what })),
      );
    }
    const own = element.attributes['style'];
    if (own) this.#styles.own.set(element, this.#given.css.declarations(own));
    for (const child of element.children) this.#index(child);
  }

  #children(element: XmlElement, context: Context): void {
    for (const child of element.children) this.#visit(child, context);
  }

  #visit(element: XmlElement, parent: Context): void {
    const [noticed, painted] = [this.#noticed.length, this.#paints.length];
    const own = this.#draw(element, parent) ?? this.#noticed.length;
    if (own === noticed) return;
    const where = this.#paintedSince(painted) ?? placeOf(element, parent, this.#styles);
    for (let i = noticed; where && i < own; i += 1) {
      const one = this.#noticed[i]!;
      if (!('where' in one)) this.#noticed[i] = { ...one, where };
    }
  }

  /** Round the paints from one on; null when there are none. Groups in groups ask for the same ones, so each is looked at once. */
  #paintedSince(from: number): Box | null {
    let box: Box | null = null;
    for (let i = from; i < this.#paints.length; i += 1) {
      const reach = (this.#reaches[i] ??= paintReach(this.#paints[i]!) ?? undefined);
      if (reach) box = joinBoxes(box, reach);
    }
    return box;
  }

  /** Draws an element. Of one with children, up to where what was noticed is its own and not theirs. */
  #draw(element: XmlElement, parent: Context): number | undefined {
    if (SILENT.has(element.name) || element.name.includes(':')) return;
    const known =
      SHAPE_NAMES.has(element.name) ||
      CONTAINERS.has(element.name) ||
      element.name === 'text' ||
      element.name === 'image';
    if (!known) {
      const code =
        element.name === 'foreignObject'
          ? 'foreign-left'
          : element.name === 'script'
            ? 'script-ignored'
            : 'element-ignored';
      this.note({ code, element: describe(element) });
      return undefined;
    }
    const context = this.#enter(element, parent);
    if (!context) return undefined;
    if (SHAPE_NAMES.has(element.name)) return void this.#shape(element, context);
    if (element.name === 'text') return void this.#text(element, context);
    if (element.name === 'image') return void this.#image(element, context);
    const own = this.#noticed.length;
    if (element.name === 'use') this.#use(element, context);
    else if (element.name === 'svg') this.#viewport(element, element.attributes, context);
    else if (element.name === 'switch') {
      const chosen = element.children.find(
        (c) => !('requiredExtensions' in c.attributes) && speaksEnglish(c) && !SILENT.has(c.name),
      );
      if (chosen) this.#visit(chosen, context);
    } else this.#children(element, context);
    return own;
  }

  /** The context inside an element, or null when it is not drawn. What is only used, as a clip path is, is so whether it is displayed or not. */
  #enter(element: XmlElement, parent: Context, isUsed = false): Context | null {
    const style = computeStyle(element, parent.style, this.#styles);
    if (style['display'] === 'none' && !isUsed) return null;
    const own = transformOf(style, parent.viewport);
    if (!own) this.note({ code: 'transform-ignored', element: describe(element) });
    const matrix = compose(parent.matrix, own ?? IDENTITY);
    const maskClip = style['mask'] === 'none' ? null : this.#clips.maskAsClip(element, style['mask']!, matrix, parent);
    if (style['mask'] !== 'none' && !maskClip) this.note({ code: 'mask-ignored', element: describe(element) });
    const filter = filterKind(style['filter']!, this.#byId);
    if (filter === 'blur' && this.#given.repair.blurs === 'drop') {
      this.note({ code: 'blur-left', element: describe(element) });
      return null;
    }
    if (filter !== 'none') this.note({ code: FILTERED[filter], element: describe(element) });
    if (style['mix-blend-mode'] !== 'normal') {
      this.note({ code: 'blend-ignored', element: describe(element) });
    }
    return {
      ...parent,
      matrix,
      style,
      opacity: parent.opacity * parseOpacity(style['opacity']!),
      clips: [...parent.clips, ...this.#clips.clipsOf(element, style, matrix, parent), ...(maskClip ? [maskClip] : [])],
    };
  }

  #shape(element: XmlElement, context: Context): void {
    const { style } = context;
    const fontSize = parseSvgLength(style['font-size'], 16) ?? 16;
    const { curves, error } = shapeCurves(
      { name: element.name, attributes: withCssGeometry(element, style) },
      context.viewport,
      fontSize,
    );
    if (error) this.note({ code: 'shape-cut-short', element: describe(element), error });
    if (!curves || style['visibility'] !== 'visible') return;
    this.#elementsDrawn += 1;
    const paintFill = () => this.#fill(element, context, curves);
    const paintStroke = () => this.#stroke(element, context, curves);
    (isStrokeFirst(style) ? [paintStroke, paintFill] : [paintFill, paintStroke]).forEach((paint) => paint());
    if (MARKED.has(element.name)) this.#markers(context, curves);
  }

  /** Arrow heads and the like on the corners of a path. */
  #markers(context: Context, curves: Curves): void {
    const { style } = context;
    const markerAt = (which: 'start' | 'mid' | 'end') => this.#byId.get(idOfUrl(style[`marker-${which}`]!) ?? '');
    const markers = { start: markerAt('start'), mid: markerAt('mid'), end: markerAt('end') };
    if (!markers.start && !markers.mid && !markers.end) return;
    const strokeWidth =
      parseSvgLength(
        style['stroke-width'],
        Math.hypot(context.viewport.width, context.viewport.height) / Math.SQRT2,
        Number(style['font-size']),
      ) ?? 1;
    const vertices = verticesOf(curves);
    vertices.forEach((vertex, i) => {
      // A path of one point is its own start and end.
      for (const which of new Set([
        ...(i === 0 ? ['start' as const] : []),
        ...(i > 0 && i < vertices.length - 1 ? ['mid' as const] : []),
        ...(i === vertices.length - 1 ? ['end' as const] : []),
      ])) {
        const marker = markers[which];
        if (marker?.name === 'marker' && !context.using.includes(marker))
          this.#marker(marker, markerPlacement(marker, vertex, which, strokeWidth), context);
      }
    });
  }

  #marker(marker: XmlElement, { frame, content, width, height, viewport }: MarkerPlacement, context: Context): void {
    if (!(width > 0) || !(height > 0)) return;
    const style = styleWithin(marker, this.#styles);
    const inside: Context = {
      ...context,
      style,
      viewport,
      contextPaint: this.#contextPaint(context),
      using: [...context.using, marker],
    };
    this.#framed(marker, inside, {
      width,
      height,
      outer: compose(context.matrix, frame),
      inner: compose(context.matrix, content),
    });
  }

  #fill(element: XmlElement, context: Context, curves: Curves): void {
    if (this.#given.repair.shines === 'drop' && isShine(context.style['fill']!, this.#paintOptions(context, 'fill'))) {
      const box = curvesReach(curves, context.matrix);
      if (box) this.#shines.push(box);
      return;
    }
    const how: Paint['how'] = { kind: 'fill', rule: context.style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero' };
    const bands = this.#bands(context, curves);
    if (!bands) {
      const colour = this.#colour(element, context, 'fill');
      if (colour) this.#paint(element, context, curves, colour, how);
      return;
    }
    this.note({ code: 'gradient-banded', element: describe(element) });
    const opacity = this.#opacity(context, 'fill');
    for (const { colour, area } of bands) {
      const clip: Clip | null = area && {
        outlines: [{ curves: area.curves, matrix: compose(context.matrix, area.matrix), rule: 'nonzero', clips: [] }],
        clips: [],
      };
      this.#paint(
        element,
        clip ? { ...context, clips: [...context.clips, clip] } : context,
        curves,
        overWhite(colour, opacity),
        how,
      );
    }
  }

  /** The bands of a fill that is a gradient, when bands are wanted. */
  #bands({ style, viewport }: Context, curves: Curves): GradientBand[] | null {
    const count = this.#given.repair.gradientBands;
    const id = count > 1 ? idOfUrl(style['fill']!) : undefined;
    const server = id === undefined ? undefined : this.#byId.get(id);
    if (server?.name !== 'linearGradient' && server?.name !== 'radialGradient') return null;
    return gradientBands(server, curves, viewport, count, { byId: this.#byId, styles: this.#styles });
  }

  /** Text in the fonts at hand; what no font is known for is told, with fonts that could stand in. */
  #text(element: XmlElement, context: Context): void {
    const layout = this.#given.text;
    if (!layout) return;
    if (layout.isTooLong(element)) {
      this.note({ code: 'text-left', element: describe(element), why: 'too-long' });
      return;
    }
    const { letters, missing, otherWeights, missingLetters } = this.#layOut(layout, element, context);
    for (const [name, here, asked] of otherWeights) {
      this.note({ code: 'font-weight', font: name, here, asked });
    }
    for (const family of missing) {
      this.note({
        code: 'font-missing',
        element: describe(element),
        family,
        standIns: layout.standIns(family).map((id) => ({ id, name: shippedFont(id)!.name })),
      });
    }
    if (missingLetters.length > 0) this.note(lettersMissing(missingLetters));
    this.#elementsDrawn += 1;
    for (const span of spansOf(letters.filter((letter) => letter.style['visibility'] === 'visible'))) {
      const inside = (letter: TextLetter): Context => ({
        ...context,
        style: { ...letter.style, 'fill-rule': 'nonzero' },
        matrix: compose(context.matrix, letter.matrix),
      });
      const fills = () => {
        for (const letter of span) {
          const colour = this.#colour(letter.element, inside(letter), 'fill');
          if (colour)
            this.#paint(letter.element, inside(letter), letter.curves, colour, { kind: 'fill', rule: 'nonzero' }, true);
        }
      };
      const strokes = () => {
        for (const letter of span) {
          // The letter's own space is ems, so what is measured of its stroke is too.
          const em = Number(letter.style['font-size']);
          if (em > 0) this.#stroke(letter.element, inside(letter), letter.curves, em);
        }
      };
      (isStrokeFirst(span[0]!.style) ? [strokes, fills] : [fills, strokes]).forEach((paint) => paint());
    }
  }

  #layOut(layout: typeof TextLayout, element: XmlElement, context: Context) {
    return layout.layOutText(element, context.style, {
      ...this.#given,
      styles: this.#styles,
      viewport: context.viewport,
      baselineOf: (textPath) => this.#baseline(layout, textPath, context),
    });
  }

  /** The outlines of a text as a clip has them: what fonts are not here for is told where it is painted. */
  #lettersOf(element: XmlElement, context: Context): Clip['outlines'][number][] {
    const layout = this.#given.text;
    if (!layout || layout.isTooLong(element)) return [];
    return this.#layOut(layout, element, context)
      .letters.filter(({ style }) => style['visibility'] === 'visible')
      .map(({ curves, matrix }) => ({
        curves,
        matrix: compose(context.matrix, matrix),
        rule: 'nonzero',
        clips: context.clips,
        isLetter: true,
      }));
  }

  /** The path that text runs along: its own data, or the shape it names. */
  #baseline({ baselineOf }: typeof TextLayout, textPath: XmlElement, { viewport }: Context): Baseline | null {
    const a = textPath.attributes;
    const target = this.#byId.get((a['href'] ?? a['xlink:href'] ?? '').trim().replace(/^#/, ''));
    const { curves } = target && SHAPE_NAMES.has(target.name) ? shapeCurves(target, viewport, 16) : { curves: null };
    const line =
      curves &&
      baselineOf(curves, ownTransform(target!, viewport, this.#styles) ?? IDENTITY, {
        offset: a['startOffset'] ?? '0',
        statedLength: Number(target!.attributes['pathLength']) || null,
        isRightSide: a['side'] === 'right',
      });
    if (!line) this.note({ code: 'text-left', element: describe(textPath), why: 'no-path' });
    return line;
  }

  /** A picture inside the drawing: traced when that is wanted and it is part of the file. */
  #image(element: XmlElement, context: Context): void {
    const a = element.attributes;
    const href = (a['href'] ?? a['xlink:href'] ?? '').trim();
    if (!/^data:image\/(png|jpe?g|webp);base64,/i.test(href)) {
      this.note({ code: 'picture-left', element: describe(element), why: 'elsewhere' });
      return;
    }
    if (this.#given.repair.pictures === 'drop') {
      this.note({ code: 'picture-left', element: describe(element), why: 'not-traced' });
      return;
    }
    const traced = this.#given.pictureOf(href);
    if (!traced) {
      this.note({ code: 'picture-damaged', element: describe(element) });
      return;
    }
    const { viewport } = context;
    const [x, y] = [parseSvgLength(a['x'], viewport.width) ?? 0, parseSvgLength(a['y'], viewport.height) ?? 0];
    const width = parseSvgLength(a['width'], viewport.width) ?? traced.widthMm / MM_PER_PX;
    const height = parseSvgLength(a['height'], viewport.height) ?? (width * traced.heightMm) / traced.widthMm;
    if (!(width > 0) || !(height > 0)) return;
    const fit = compose(
      translation(x, y),
      viewBoxMatrix(
        { x: 0, y: 0, width: traced.widthMm, height: traced.heightMm },
        width,
        height,
        a['preserveAspectRatio'],
      ),
    );
    this.note({ code: 'picture-traced', element: describe(element) });
    this.#elementsDrawn += 1;
    for (const paint of traced.paints) {
      this.#paint(
        element,
        { ...context, matrix: [fit, paint.matrix].reduce(compose, context.matrix) },
        paint.curves,
        overWhite(paint.colour, context.opacity),
        paint.how,
        true,
      );
    }
  }

  /** Of a letter, `em` is how many user units one of its curves' units is. */
  #stroke(element: XmlElement, context: Context, curves: Curves, em: number | null = null): void {
    const unit = em ?? 1;
    const { style, viewport } = context;
    const fontSize = parseSvgLength(style['font-size'], 16) ?? 16;
    const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
    const width = parseSvgLength(style['stroke-width'], diagonal, fontSize) ?? 1;
    if (!(width > 0)) return;
    const colour = this.#colour(element, context, 'stroke');
    if (!colour) return;
    const join = style['stroke-linejoin'];
    const cap = style['stroke-linecap'];
    // A path may say how long it counts as; dashes are shares of that.
    const stated = SHAPE_NAMES.has(element.name) ? Number(element.attributes['pathLength']) : 0;
    const perUnit = stated > 0 ? lengthOf(curves) / stated : 1 / unit;
    const dashes = (
      parseSvgLengths(style['stroke-dasharray'] === 'none' ? '' : style['stroke-dasharray']!, diagonal, fontSize) ?? []
    ).map((dash) => dash * perUnit);
    const usable = dashes.every((d) => d >= 0) && dashes.some((d) => d > 0) ? dashes : [];
    if (style['vector-effect'] === 'non-scaling-stroke') {
      this.note({ code: 'stroke-scaled', element: describe(element) });
    }
    this.#paint(
      element,
      context,
      curves,
      colour,
      {
        kind: 'stroke',
        style: {
          width: width / unit,
          join: join === 'round' || join === 'bevel' ? join : 'miter',
          cap: cap === 'round' || cap === 'square' ? cap : 'butt',
          miterLimit: Math.max(1, Number(style['stroke-miterlimit']) || 4),
        },
        dashes: usable.length % 2 === 1 ? [...usable, ...usable] : usable,
        dashOffset: (parseSvgLength(style['stroke-dashoffset'], diagonal, fontSize) ?? 0) * perUnit,
      },
      em !== null,
    );
  }

  #colour(element: XmlElement, context: Context, which: 'fill' | 'stroke'): string | null {
    const { colour, lost } = this.#resolved(context, which);
    if (lost !== 'none') this.note({ code: LOST_PAINT[lost], element: describe(element), which });
    return colour;
  }

  /** The colours of an element that others are drawn for. */
  #contextPaint(context: Context): NonNullable<Context['contextPaint']> {
    return { fill: this.#resolved(context, 'fill').colour, stroke: this.#resolved(context, 'stroke').colour };
  }

  #resolved(context: Context, which: 'fill' | 'stroke'): SolidPaint {
    const value = context.style[which]!;
    const taken = value === 'context-fill' ? 'fill' : value === 'context-stroke' ? 'stroke' : null;
    return taken
      ? { colour: context.contextPaint?.[taken] ?? null, lost: 'none' }
      : resolvePaint(value, this.#paintOptions(context, which));
  }

  #paintOptions(context: Context, which: 'fill' | 'stroke'): PaintOptions {
    return {
      currentColor: context.style['color']!,
      opacity: this.#opacity(context, which),
      byId: this.#byId,
      styles: this.#styles,
      flattenPatterns: this.#given.repair.patterns === 'flat',
    };
  }

  #opacity({ style, opacity }: Context, which: 'fill' | 'stroke'): number {
    return opacity * parseOpacity(style[`${which}-opacity`]!);
  }

  #paint(
    element: XmlElement,
    context: Context,
    curves: Curves,
    colour: string,
    how: Paint['how'],
    mayCross = false,
  ): void {
    if (this.#paints.length >= MAX_PAINTS) {
      throw new Refusal('too-many-shapes', { most: MAX_PAINTS }, { source: this.#source });
    }
    this.#paints.push({
      colour,
      curves,
      matrix: context.matrix,
      how,
      clips: context.clips,
      element: describe(element),
      elementIndex: this.#elementsDrawn,
      ...(mayCross ? { mayCross } : {}),
    });
  }

  #use(element: XmlElement, context: Context): void {
    const a = element.attributes;
    const href = a['href'] ?? a['xlink:href'] ?? '';
    const target = href.startsWith('#') ? this.#byId.get(href.slice(1)) : undefined;
    if (!target) {
      this.note({ code: 'use-ignored', element: describe(element), href: href.slice(0, 60) });
      return;
    }
    if (context.using.includes(target) || context.using.length > 40) {
      this.note({ code: 'use-cycle', element: describe(element) });
      return;
    }
    const x = parseSvgLength(a['x'], context.viewport.width) ?? 0;
    const y = parseSvgLength(a['y'], context.viewport.height) ?? 0;
    const inside: Context = {
      ...context,
      matrix: compose(context.matrix, translation(x, y)),
      contextPaint: this.#contextPaint(context),
      using: [...context.using, target],
    };
    if (target.name !== 'symbol' && target.name !== 'svg') {
      this.#visit(target, inside);
      return;
    }
    const entered = this.#enter(target, inside);
    const size = {
      width: a['width'] ?? target.attributes['width'],
      height: a['height'] ?? target.attributes['height'],
    };
    if (entered) this.#viewport(target, { ...size, x: target.attributes['x'], y: target.attributes['y'] }, entered);
  }

  /** Draws the children of a nested svg or symbol in a viewport of its own. */
  #viewport(element: XmlElement, placed: Readonly<Record<string, string | undefined>>, context: Context): void {
    const { viewport } = context;
    const x = parseSvgLength(placed['x'], viewport.width) ?? 0;
    const y = parseSvgLength(placed['y'], viewport.height) ?? 0;
    const width = parseSvgLength(placed['width'] ?? '100%', viewport.width) ?? viewport.width;
    const height = parseSvgLength(placed['height'] ?? '100%', viewport.height) ?? viewport.height;
    if (!(width > 0) || !(height > 0)) return;
    const box = parseViewBox(element.attributes['viewBox']);
    const fit = box ? viewBoxMatrix(box, width, height, element.attributes['preserveAspectRatio']) : IDENTITY;
    const outer = compose(context.matrix, translation(x, y));
    this.#framed(
      element,
      { ...context, viewport: box ?? { width, height } },
      { width, height, outer, inner: compose(outer, fit) },
    );
  }

  /** Draws an element's children in a frame of so many units of `outer`, cut off at its edge unless overflow is visible. */
  #framed(
    element: XmlElement,
    context: Context,
    { width, height, outer, inner }: { width: number; height: number; outer: Matrix; inner: Matrix },
  ): void {
    const hides = context.style['overflow'] !== 'visible' && context.style['overflow'] !== 'auto';
    const edge: Clip = {
      outlines: [{ curves: rectangle(0, 0, width, height), matrix: outer, rule: 'nonzero', clips: [] }],
      clips: [],
    };
    this.#children(element, { ...context, matrix: inner, clips: hides ? [...context.clips, edge] : context.clips });
  }
}

/** How long a path is, as true as its dashes need. */
function lengthOf(curves: Curves): number {
  return flatten(curves, IDENTITY, 0.01).reduce(
    (sum, { points, closed }) => sum + (closed ? perimeter(points) : lineLength(points)),
    0,
  );
}

/** Letters of one style that follow each other: they are filled together, and then stroked. */
function spansOf(letters: readonly TextLetter[]): TextLetter[][] {
  const spans: TextLetter[][] = [];
  for (const letter of letters) {
    if (spans.at(-1)?.[0]?.style === letter.style) spans.at(-1)!.push(letter);
    else spans.push([letter]);
  }
  return spans;
}

function isStrokeFirst(style: ComputedStyle): boolean {
  return /^\s*stroke\b/.test(style['paint-order']!);
}

/** Whether an element is for those who read English, as this application speaks, or for all. */
function speaksEnglish({ attributes: { systemLanguage } }: XmlElement): boolean {
  return (
    systemLanguage === undefined || systemLanguage.split(',').some((language) => /^en(-|$)/i.test(language.trim()))
  );
}

/** Shapes that can carry markers. */
const MARKED: ReadonlySet<string> = new Set(['path', 'line', 'polyline', 'polygon']);

const CONTAINERS: ReadonlySet<string> = new Set(['g', 'a', 'svg', 'use', 'switch']);

/** What is noticed of a filter, by what it does. */
const FILTERED = { blur: 'blurred', shadow: 'shadow-left', other: 'filter-ignored' } as const;

/** What is noticed of a paint that film cannot show, by what of it is lost. */
const LOST_PAINT = {
  gradient: 'gradient-flattened',
  pattern: 'pattern-left',
  'pattern-flattened': 'pattern-flattened',
  'unknown-paint': 'colour-unknown',
  opacity: 'opacity-flattened',
} as const;
