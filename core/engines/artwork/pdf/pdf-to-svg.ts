import { compose, IDENTITY, scaling, stretchOf, translation, type Matrix } from '../../../geometry/index.js';
import { Refusal } from '../refusal.js';
import { MOST_SHAPES, MOST_STEPS, type PdfFont, type PdfPage, type PdfPicture, type Steps } from './open-pdf.js';
import { beginning, type PagePaint, type PageState, type TextState } from './page-state.js';
import { gradient, picture, type Shading } from './page-paint.js';
import { escaped, figure, matrixAttribute, SvgWriter, within } from './svg-writer.js';

/** A letter as the parser gives it, in thousandths of an em. */
interface Glyph {
  readonly fontChar: string;
  readonly unicode: string;
  readonly width: number;
  readonly isSpace: boolean;
  /** Whether its font has it; what stands in for it is nothing to cut. */
  readonly isInFont: boolean;
  readonly accent?: { readonly fontChar: string; readonly offset: { readonly x: number; readonly y: number } } | null;
  readonly vmetric?: readonly number[] | null;
  readonly operatorListId?: string;
}

/** A line of no width is as thin as a device can draw it: a quarter point is what that is taken for. */
const THINNEST_PT = 0.25;
/** Letters that are drawings may hold letters. */
const MOST_NESTED = 12;
const CAPS = ['butt', 'round', 'square'];
const JOINS = ['miter', 'round', 'bevel'];

/**
 * A PDF's page as an SVG, which is read like any other: outlines, clips, forms, letters of embedded fonts as outlines, shadings, patterns, masks and pictures. Colours
 * are those of the screen that the file says its inks look like. Text in a font that is not in the file stays text.
 *
 * Pictures that nobody wants are only named: packing a scan again takes seconds.
 *
 * @throws Refusal when it holds more than can be drawn
 */
export async function pdfToSvg(page: PdfPage, source: string, withPictures: boolean): Promise<string> {
  const writer = new SvgWriter();
  await new PageDrawing(page, writer, { source, withPictures }).draw(page.steps, beginning(page.matrix), 0);
  return writer.document(page.width, page.height, page.mmPerPt);
}

type Step = (args: readonly unknown[]) => void | Promise<void>;

class PageDrawing {
  #state!: PageState;
  #stack: PageState[] = [];
  #clipNext: 'nonzero' | 'evenodd' | null = null;
  #textClip: string[] = [];
  /** Layers that are not shown, how deep we are in them. */
  readonly #marked: boolean[] = [];
  readonly #groups: {
    readonly state: PageState;
    readonly mark: number | null;
    readonly isAlpha: boolean;
    readonly stack: PageState[];
  }[] = [];
  /** The mask that was last drawn, which is put in force by the next step. */
  #drawnMask: string | null = null;
  #count = 0;
  #nested = 0;
  readonly #doing: Readonly<Record<number, Step>>;
  /** Names of the steps that paint an outline, by their numbers. */
  readonly #painting: ReadonlyMap<number, string>;

  constructor(
    private readonly page: PdfPage,
    private readonly writer: SvgWriter,
    private readonly wish: {
      readonly source: string;
      readonly withPictures: boolean;
      /** Inside a tile nothing is waited for, and pictures are nothing that film could show. */ readonly isTile?: boolean;
    },
  ) {
    this.#painting = new Map(PAINTING.map((name) => [page.names[name]!, name]));
    this.#doing = Object.fromEntries(Object.entries(this.#whatToDo()).map(([name, step]) => [page.names[name], step]));
  }

  async draw({ fnArray, argsArray }: Steps, state: PageState, nested: number): Promise<void> {
    if (nested > MOST_NESTED) return;
    const [before, stack, depth] = [this.#state, this.#stack, this.#nested];
    [this.#state, this.#stack, this.#nested] = [state, [], nested];
    for (const [i, fn] of fnArray.entries()) {
      this.#count += 1;
      if (this.#count > MOST_STEPS || this.writer.painted > MOST_SHAPES)
        throw new Refusal('too-many-shapes', { most: MOST_SHAPES }, { source: this.wish.source });
      const step = this.#doing[fn];
      if (step) {
        const waits = step((argsArray[i] ?? []) as readonly unknown[]);
        if (waits) await waits;
      }
    }
    [this.#state, this.#stack, this.#nested] = [before, stack, depth];
  }

  get #isHidden(): boolean {
    return this.#marked.includes(false);
  }

  #set(next: Partial<PageState>): void {
    this.#state = { ...this.#state, ...next };
  }

  #setText(next: Partial<TextState>): void {
    this.#set({ text: { ...this.#state.text, ...next } });
  }

  #setLine(next: Partial<PageState['line']>): void {
    this.#set({ line: { ...this.#state.line, ...next } });
  }

  /** What is done at each step, by its name. Steps that draw nothing are not in it. */
  #whatToDo(): Readonly<Record<string, Step>> {
    return {
      save: () => void this.#stack.push(this.#state),
      restore: () => void (this.#state = this.#stack.pop() ?? this.#state),
      transform: (args) => this.#set({ matrix: compose(this.#state.matrix, args as unknown as Matrix) }),
      setLineWidth: ([width]) => this.#setLine({ width: Number(width) }),
      setLineCap: ([cap]) => this.#setLine({ cap: Number(cap) }),
      setLineJoin: ([join]) => this.#setLine({ join: Number(join) }),
      setMiterLimit: ([miter]) => this.#setLine({ miter: Number(miter) }),
      setDash: ([dashes, dashOffset]) =>
        this.#setLine({ dashes: dashes as readonly number[], dashOffset: Number(dashOffset) }),
      setGState: ([entries]) => this.#graphics(entries as readonly (readonly [string, unknown])[]),
      setFillRGBColor: ([colour]) => this.#set({ fill: { kind: 'solid', colour: String(colour) } }),
      setStrokeRGBColor: ([colour]) => this.#set({ stroke: { kind: 'solid', colour: String(colour) } }),
      setFillTransparent: () => this.#set({ fill: { kind: 'none' } }),
      setStrokeTransparent: () => this.#set({ stroke: { kind: 'none' } }),
      setFillColorN: (args) => this.#set({ fill: this.#pattern(args) }),
      setStrokeColorN: (args) => this.#set({ stroke: this.#pattern(args) }),
      shadingFill: ([id]) => this.#shade(String(id)),
      clip: () => void (this.#clipNext = 'nonzero'),
      eoClip: () => void (this.#clipNext = 'evenodd'),
      constructPath: ([op, data]) => this.#path(Number(op), data as readonly unknown[]),
      rawFillPath: ([data]) => this.#path(this.page.names['fill']!, [data]),
      beginText: () => this.#setText({ matrix: IDENTITY, x: 0, y: 0, lineX: 0, lineY: 0 }),
      endText: () => this.#endText(),
      setCharSpacing: ([charSpacing]) => this.#setText({ charSpacing: Number(charSpacing) }),
      setWordSpacing: ([wordSpacing]) => this.#setText({ wordSpacing: Number(wordSpacing) }),
      setHScale: ([scale]) => this.#setText({ scale: Number(scale) / 100 }),
      setLeading: ([leading]) => this.#setText({ leading: -Number(leading) }),
      setFont: ([id, size]) => this.#font(String(id), Number(size)),
      setTextRenderingMode: ([mode]) => this.#setText({ mode: Number(mode) }),
      setTextRise: ([rise]) => this.#setText({ rise: Number(rise) }),
      setTextMatrix: ([matrix]) =>
        this.#setText({
          matrix: [...(matrix as Iterable<number>)] as unknown as Matrix,
          x: 0,
          y: 0,
          lineX: 0,
          lineY: 0,
        }),
      moveText: ([x, y]) => this.#move(Number(x), Number(y)),
      setLeadingMoveText: ([x, y]) => {
        this.#setText({ leading: Number(y) });
        this.#move(Number(x), Number(y));
      },
      nextLine: () => this.#move(0, this.#state.text.leading),
      showText: ([glyphs]) => this.#show(glyphs as readonly (Glyph | number)[]),
      paintFormXObjectBegin: ([matrix, box]) => this.#form(matrix as Matrix | null, box as readonly number[] | null),
      paintFormXObjectEnd: () => void (this.#state = this.#stack.pop() ?? this.#state),
      beginGroup: ([group]) => this.#beginGroup(group as Group),
      endGroup: () => this.#endGroup(),
      beginAnnotation: ([, rect, transform, matrix]) =>
        this.#annotation(rect as readonly number[] | null, transform as Matrix, matrix as Matrix),
      endAnnotation: () => void (this.#state = this.#stack.pop() ?? this.#state),
      beginMarkedContent: () => void this.#marked.push(true),
      beginMarkedContentProps: ([tag, layer]) => void this.#marked.push(tag !== 'OC' || this.page.isShown(layer)),
      endMarkedContent: () => void this.#marked.pop(),
      paintImageXObject: ([id]) => this.#picture(this.page.named(String(id)) as PdfPicture | null),
      paintInlineImageXObject: ([image]) => this.#picture(image as PdfPicture),
      paintImageXObjectRepeat: ([id, scaleX, scaleY, places]) =>
        this.#repeated(
          this.page.named(String(id)) as PdfPicture | null,
          Number(scaleX),
          Number(scaleY),
          places as ArrayLike<number>,
        ),
      paintInlineImageXObjectGroup: ([image, map]) => this.#sprites(image as PdfPicture, map as readonly Sprite[]),
      paintImageMaskXObject: ([image]) => this.#stencil(image as PdfPicture),
      paintImageMaskXObjectRepeat: ([image, scaleX, skewX, skewY, scaleY, places]) =>
        this.#repeatedStencil(
          image as PdfPicture,
          [Number(scaleX), Number(skewX), Number(skewY), Number(scaleY)],
          places as ArrayLike<number>,
        ),
      paintImageMaskXObjectGroup: async ([images]) => {
        for (const { transform, ...image } of images as readonly (PdfPicture & { readonly transform: Matrix })[])
          await this.#stencil(image, compose(this.#state.matrix, transform));
      },
      paintSolidColorImageMask: () =>
        this.#paintPath('M0 0H1V1H0Z', IDENTITY, { fills: true, strokes: false, rule: 'nonzero' }),
    };
  }

  #graphics(entries: readonly (readonly [string, unknown])[]): void {
    for (const [key, value] of entries) {
      if (key === 'LW') this.#setLine({ width: Number(value) });
      else if (key === 'LC') this.#setLine({ cap: Number(value) });
      else if (key === 'LJ') this.#setLine({ join: Number(value) });
      else if (key === 'ML') this.#setLine({ miter: Number(value) });
      else if (key === 'D')
        this.#setLine({
          dashes: (value as [readonly number[], number])[0],
          dashOffset: (value as [readonly number[], number])[1],
        });
      else if (key === 'Font') this.#font(...(value as [string, number]));
      else if (key === 'CA') this.#set({ strokeAlpha: Number(value) });
      else if (key === 'ca') this.#set({ fillAlpha: Number(value) });
      else if (key === 'BM') this.#set({ blend: value === 'source-over' ? 'normal' : String(value) });
      else if (key === 'SMask') this.#set({ mask: value ? this.#drawnMask : null });
    }
  }

  /** A shading or a tiling in place of a colour. It lies in the page's coordinates, whatever is drawn in it. */
  #pattern(args: readonly unknown[]): PagePaint {
    const to = this.page.matrix;
    if (args[0] === 'Shading') {
      const shading = this.page.named(String(args[1])) as Shading | undefined;
      const matrix = args[2] ? compose(to, args[2] as Matrix) : to;
      return shading
        ? { kind: 'server', define: (own) => gradient(this.writer, shading, matrix, own) }
        : { kind: 'none' };
    }
    if (args[0] !== 'TilingPattern') return { kind: 'none' };
    const [, colour, steps, matrix, box, stepX, stepY] = args as unknown as [
      string,
      string | null,
      Steps,
      Matrix,
      readonly number[],
      number,
      number,
    ];
    // What a tile holds is drawn on the side, once for each that is filled with it: its paints then have no places of their own.
    return {
      kind: 'server',
      define: (own) =>
        this.writer.define((id) => {
          const tile = tileOf(this.page, steps, colour, this.wish.source);
          return `<pattern id="${id}" patternUnits="userSpaceOnUse" x="${figure(box[0]!)}" y="${figure(box[1]!)}" width="${figure(Math.abs(stepX))}" height="${figure(Math.abs(stepY))}"${matrixAttribute(within(own, compose(to, matrix)), 'patternTransform')}>${tile}</pattern>`;
        }),
    };
  }

  #shade(id: string): void {
    const shading = this.page.named(id) as Shading | undefined;
    if (!shading) return;
    const { matrix } = this.#state;
    const server: PagePaint = { kind: 'server', define: () => gradient(this.writer, shading, matrix, IDENTITY) };
    // All of the page that the clip leaves.
    const before = this.#state;
    this.#set({ matrix: IDENTITY, fill: server });
    this.#paintPath(`M0 0H${figure(this.page.width)}V${figure(this.page.height)}H0Z`, IDENTITY, {
      fills: true,
      strokes: false,
      rule: 'nonzero',
    });
    this.#state = before;
  }

  #path(op: number, data: readonly unknown[]): void {
    const [coords] = data as readonly (ArrayLike<number> | null)[];
    const how = this.#painting.get(op) ?? '';
    const d = coords ? pathData(coords, how.startsWith('close')) : '';
    if (d)
      this.#paintPath(d, IDENTITY, {
        fills: /fill/i.test(how),
        strokes: /stroke/i.test(how),
        rule: /eo/i.test(how) ? 'evenodd' : 'nonzero',
      });
    if (this.#clipNext)
      this.#clipTo(`<path d="${d}" clip-rule="${this.#clipNext}"${matrixAttribute(this.#state.matrix)}/>`);
    this.#clipNext = null;
  }

  #clipTo(outlines: string): void {
    const outer = this.#state.clip;
    this.#set({
      clip: this.writer.define(
        (id) => `<clipPath id="${id}"${outer === null ? '' : ` clip-path="url(#${outer})"`}>${outlines}</clipPath>`,
      ),
    });
  }

  /** Paints an outline that lies in coordinates of its own, from there to those in force. */
  #paintPath(
    d: string,
    placed: Matrix,
    {
      fills,
      strokes,
      rule,
      lineScale = 1,
    }: {
      readonly fills: boolean;
      readonly strokes: boolean;
      readonly rule: 'nonzero' | 'evenodd';
      readonly lineScale?: number;
    },
  ): void {
    if (this.#isHidden || (!fills && !strokes)) return;
    const { matrix, fill, stroke, fillAlpha, strokeAlpha, line, blend, clip, mask } = this.#state;
    const own = placed === IDENTITY ? matrix : compose(matrix, placed);
    const paintOf = (paint: PagePaint) => {
      if (paint.kind !== 'server') return paint.kind === 'none' ? 'none' : paint.colour;
      const id = paint.define(own);
      return id === null ? 'none' : `url(#${id})`;
    };
    const filled = fills ? paintOf(fill) : 'none';
    const stroked = strokes ? paintOf(stroke) : 'none';
    if (filled === 'none' && stroked === 'none') return;
    const scale = stretchOf(own) || 1;
    const width = line.width > 0 ? line.width / lineScale : THINNEST_PT / scale;
    const strokeLook =
      stroked === 'none'
        ? ''
        : ` stroke="${stroked}" stroke-width="${figure(width)}" stroke-linecap="${CAPS[line.cap] ?? 'butt'}" stroke-linejoin="${JOINS[line.join] ?? 'miter'}" stroke-miterlimit="${figure(line.miter)}"${line.dashes.length > 0 ? ` stroke-dasharray="${line.dashes.map((dash) => figure(dash / lineScale)).join(' ')}" stroke-dashoffset="${figure(line.dashOffset / lineScale)}"` : ''}${strokeAlpha < 1 ? ` stroke-opacity="${figure(strokeAlpha)}"` : ''}`;
    const look = `${filled !== 'none' && rule === 'evenodd' ? ' fill-rule="evenodd"' : ''}${filled !== 'none' && fillAlpha < 1 ? ` fill-opacity="${figure(fillAlpha)}"` : ''}${blend === 'normal' ? '' : ` style="mix-blend-mode:${escaped(blend)}"`}`;
    this.writer.paint(`<path d="${d}"${matrixAttribute(own)} fill="${filled}"${look}${strokeLook}/>`, { clip, mask });
  }

  #font(id: string, size: number): void {
    this.#setText({ font: (this.page.named(id) as PdfFont | undefined) ?? null, fontId: id, size });
  }

  #move(x: number, y: number): void {
    const { lineX, lineY } = this.#state.text;
    this.#setText({ x: lineX + x, y: lineY + y, lineX: lineX + x, lineY: lineY + y });
  }

  #show(glyphs: readonly (Glyph | number)[]): void | Promise<void> {
    const { text } = this.#state;
    const { font, size } = text;
    if (!font || size === 0) return;
    if (font.isType3Font) return this.#showDrawn(glyphs);
    let along = 0;
    // Letters that have no outlines in the file, gathered to be told as text.
    const unknown: { readonly at: number; readonly letters: string }[] = [];
    const perThousandth = size * (font.fontMatrix?.[0] ?? 0.001);
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') {
        along += ((font.vertical ? 1 : -1) * glyph * size) / 1000;
        continue;
      }
      let width = glyph.width;
      let [x, y] = [along, 0];
      if (font.vertical) {
        const metric = glyph.vmetric ?? font.defaultVMetrics ?? [-1000, 500, 880];
        [x, y] = [-(glyph.vmetric ? metric[1]! : width / 2) * perThousandth, along + metric[2]! * perThousandth];
        width = -metric[0]!;
      }
      const outlines = font.missingFile || !glyph.isInFont ? undefined : this.page.letter(text.fontId, glyph.fontChar);
      if (outlines === undefined && font.missingFile && !glyph.isSpace && glyph.unicode.trim())
        unknown.push({ at: x, letters: glyph.unicode });
      if (outlines) this.#letter(outlines, x, y);
      const accent = glyph.accent && this.page.letter(text.fontId, glyph.accent.fontChar);
      if (glyph.accent && accent)
        this.#letter(accent, x + glyph.accent.offset.x * size, y + glyph.accent.offset.y * size);
      along += width * perThousandth + (glyph.isSpace ? text.wordSpacing : 0) + text.charSpacing;
    }
    if (unknown.length > 0) this.#unknownLetters(unknown);
    this.#setText(font.vertical ? { y: text.y - along } : { x: text.x + along * text.scale });
  }

  /** From a letter's ems, so far along the line, to the coordinates in force. */
  #placed(x: number, y: number): Matrix {
    const { matrix, x: startX, y: startY, rise, scale, size } = this.#state.text;
    return [translation(startX, startY + rise), scaling(scale, 1), translation(x, y), scaling(size)].reduce(
      compose,
      matrix,
    );
  }

  #letter(outlines: string, x: number, y: number): void {
    const { mode, size, matrix } = this.#state.text;
    const placed = this.#placed(x, y);
    const kind = mode % 4;
    this.#paintPath(outlines, placed, {
      fills: kind === 0 || kind === 2,
      strokes: kind === 1 || kind === 2,
      rule: 'nonzero',
      lineScale: Math.abs(size) * stretchOf(matrix) || 1,
    });
    if (mode >= 4)
      this.#textClip.push(`<path d="${outlines}"${matrixAttribute(compose(this.#state.matrix, placed))}/>`);
  }

  #unknownLetters(letters: readonly { readonly at: number; readonly letters: string }[]): void {
    const { font, size, mode } = this.#state.text;
    const { matrix, fill, clip, mask } = this.#state;
    if (this.#isHidden || mode % 4 === 3) return;
    // Text in an SVG stands upright where y runs down.
    const placed = [matrix, this.#placed(0, 0), scaling(1 / size, -1 / size)].reduce(compose);
    const colour = fill.kind === 'solid' ? fill.colour : '#000000';
    this.writer.paint(
      `<text${matrixAttribute(placed)} x="${letters.map(({ at }) => figure(at)).join(' ')}" y="0" font-size="${figure(Math.abs(size))}" font-family="${escaped(font!.name.replace(/^[A-Z]{6}\+/, ''))}" fill="${colour}" xml:space="preserve">${escaped(letters.map((one) => [...one.letters][0]!).join(''))}</text>`,
      { clip, mask },
    );
  }

  /** Letters that are small drawings. */
  async #showDrawn(glyphs: readonly (Glyph | number)[]): Promise<void> {
    const before = this.#state;
    const { text } = before;
    const font = text.font!;
    let along = 0;
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') {
        along -= (glyph * text.size) / 1000;
        continue;
      }
      const steps = font.charProcOperatorList?.[glyph.operatorListId ?? ''];
      const own = [
        before.matrix,
        text.matrix,
        translation(text.x, text.y + text.rise),
        scaling(text.scale, 1),
        translation(along, 0),
        scaling(text.size),
        font.fontMatrix as unknown as Matrix,
      ].reduce(compose);
      if (steps && text.mode % 4 !== 3) await this.draw(steps, { ...before, matrix: own }, this.#nested + 1);
      along +=
        glyph.width * font.fontMatrix[0]! * text.size + (glyph.isSpace ? text.wordSpacing : 0) + text.charSpacing;
    }
    this.#setText({ x: text.x + along * text.scale });
  }

  #endText(): void {
    if (this.#textClip.length > 0) this.#clipTo(this.#textClip.join(''));
    this.#textClip = [];
  }

  #form(matrix: Matrix | null, box: readonly number[] | null): void {
    this.#stack.push(this.#state);
    if (matrix) this.#set({ matrix: compose(this.#state.matrix, [...matrix] as unknown as Matrix) });
    if (box) this.#clipToBox(box);
  }

  #clipToBox([x1, y1, x2, y2]: readonly number[]): void {
    this.#clipTo(
      `<path d="M${figure(x1!)} ${figure(y1!)}H${figure(x2!)}V${figure(y2!)}H${figure(x1!)}Z"${matrixAttribute(this.#state.matrix)}/>`,
    );
  }

  #annotation(rect: readonly number[] | null, transform: Matrix, matrix: Matrix): void {
    this.#stack.push(this.#state);
    this.#state = beginning(this.page.matrix);
    if (rect) this.#clipToBox(rect);
    this.#set({ matrix: [transform, matrix].reduce(compose, this.#state.matrix) });
  }

  /** What a group holds is as see-through as the group, unless it says so itself. One that is drawn to be a mask is no part of the picture. */
  #beginGroup({ matrix, bbox, smask }: Group): void {
    const before = this.#state;
    this.#groups.push({
      state: before,
      mark: smask ? this.writer.mark() : null,
      isAlpha: smask?.subtype === 'Alpha',
      stack: this.#stack,
    });
    this.#stack = [];
    if (smask) this.#set({ clip: null, mask: null, fillAlpha: 1, strokeAlpha: 1, blend: 'normal' });
    if (bbox) {
      const outer = this.#state.matrix;
      if (matrix) this.#set({ matrix: compose(outer, [...matrix] as unknown as Matrix) });
      this.#clipToBox(bbox);
      this.#set({ matrix: outer });
    }
  }

  #endGroup(): void {
    const group = this.#groups.pop();
    if (!group) return;
    this.#state = group.state;
    this.#stack = group.stack;
    if (group.mark === null) return;
    const content = this.writer.takeSince(group.mark);
    const { width, height } = this.page;
    this.#drawnMask = this.writer.define(
      (id) =>
        `<mask id="${id}" maskUnits="userSpaceOnUse" x="0" y="0" width="${figure(width)}" height="${figure(height)}"${group.isAlpha ? ' mask-type="alpha"' : ''}>${content}</mask>`,
    );
  }

  async #picture(image: PdfPicture | null, matrix = this.#state.matrix): Promise<void> {
    const { clip, mask, fillAlpha } = this.#state;
    if (this.#isHidden || this.wish.isTile) return;
    const element = !this.wish.withPictures
      ? LEFT_PICTURE
      : image?.data
        ? await picture(image, null, matrix)
        : '<image id="damaged" xlink:href="data:image/png;base64,AAAA"/>';
    this.writer.paint(fillAlpha < 1 ? `<g opacity="${figure(fillAlpha)}">${element}</g>` : element, { clip, mask });
  }

  async #stencil(image: PdfPicture, matrix = this.#state.matrix): Promise<void> {
    const { clip, mask, fill } = this.#state;
    const data =
      typeof image.data === 'string' ? (this.page.named(image.data) as PdfPicture | undefined)?.data : image.data;
    if (this.#isHidden || this.wish.isTile || !data) return;
    this.writer.paint(
      this.wish.withPictures
        ? await picture({ ...image, data, kind: 1 }, fill.kind === 'solid' ? fill.colour : '#000000', matrix)
        : LEFT_PICTURE,
      { clip, mask },
    );
  }

  async #repeated(image: PdfPicture | null, scaleX: number, scaleY: number, places: ArrayLike<number>): Promise<void> {
    for (let i = 0; i + 1 < places.length; i += 2)
      await this.#picture(image, compose(this.#state.matrix, [scaleX, 0, 0, scaleY, places[i]!, places[i + 1]!]));
  }

  async #repeatedStencil(
    image: PdfPicture,
    [a, b, c, d]: readonly [number, number, number, number],
    places: ArrayLike<number>,
  ): Promise<void> {
    for (let i = 0; i + 1 < places.length; i += 2)
      await this.#stencil(image, compose(this.#state.matrix, [a, b, c, d, places[i]!, places[i + 1]!]));
  }

  /** Several small pictures that the parser laid together on one. */
  async #sprites(image: PdfPicture, map: readonly Sprite[]): Promise<void> {
    for (const { transform, x, y, w, h } of map) {
      const data = new Uint8Array(w * h * 4);
      for (let row = 0; row < h; row += 1)
        data.set(
          image.data.subarray(((y + row) * image.width + x) * 4, ((y + row) * image.width + x + w) * 4),
          row * w * 4,
        );
      await this.#picture({ width: w, height: h, kind: 3, data }, compose(this.#state.matrix, transform));
    }
  }
}

interface Group {
  readonly matrix: Matrix | null;
  readonly bbox: readonly number[] | null;
  readonly smask?: { readonly subtype: string } | null;
}

interface Sprite {
  readonly transform: Matrix;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** A picture that is named and not drawn. */
const LEFT_PICTURE = '<image id="picture" xlink:href="data:image/png;base64,AAAA"/>';

/** Steps that paint an outline; what they do to it is in their names. */
const PAINTING = [
  'fill',
  'eoFill',
  'stroke',
  'closeStroke',
  'fillStroke',
  'eoFillStroke',
  'closeFillStroke',
  'closeEOFillStroke',
];

/** The parser's outlines, numbers with their kinds between, as path data. */
function pathData(coords: ArrayLike<number>, closes: boolean): string {
  const parts: string[] = [];
  const LENGTHS = [2, 2, 6, 0];
  for (let i = 0; i < coords.length;) {
    const kind = coords[i]!;
    const count = LENGTHS[kind];
    if (count === undefined) break;
    parts.push(`${'MLCZ'[kind]}${Array.from({ length: count }, (_, k) => figure(coords[i + 1 + k]!)).join(' ')}`);
    i += 1 + count;
  }
  return parts.join('') + (closes && parts.length > 0 ? 'Z' : '');
}

/** The inside of a tile: what it paints, drawn at once. */
function tileOf(page: PdfPage, steps: Steps, colour: string | null, source: string): string {
  const writer = new SvgWriter();
  const state = beginning(IDENTITY);
  const ink: PagePaint | null = colour ? { kind: 'solid', colour } : null;
  void new PageDrawing(page, writer, { source, withPictures: false, isTile: true }).draw(
    steps,
    ink ? { ...state, fill: ink, stroke: ink } : state,
    MOST_NESTED,
  );
  return writer.takeSince(0);
}
