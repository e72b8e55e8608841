import type { Artwork } from './artwork.js';
import type { RendererModule } from './as-drawn/renderer.js';
import { isDxf } from './dxf/is-dxf.js';
import { isHpgl } from './hpgl/is-hpgl.js';
import { isPdf } from './pdf/is-pdf.js';
import type { Font } from './lettering/font.js';
import type { Lettering } from './lettering/lettering.js';
import { shippedFont, shippedFontCalled } from './lettering/shipped-fonts.js';
import type { UnpackerOf } from './picture/decode-picture.js';
import type { LetterChoice } from './lettering/set-lettering.js';
import type { Noticed } from './noticed.js';
import type { ReducedPicture } from './picture/trace-picture.js';
import type { TraceHooks, Tracing } from './picture/tracing.js';
import { Refusal } from './refusal.js';
import { readSvg } from './svg/read-svg.js';
import type { CssReader } from './svg/style-rules.js';
import type { ReadGiven, ReadRepair } from './read-given.js';

/** What reading needs beside the file, brought by whoever knows where it lies. */
export interface ArtworkResources {
  /** The bytes of a shipped font's file, by its path in the font packages. */
  readonly fontFile: (path: string) => Promise<Uint8Array>;
  readonly unpackerOf: UnpackerOf;
  readonly rendererModule: RendererModule;
}

/** A page of a PDF as a drawing. */
interface PageDrawing {
  readonly svg: Uint8Array;
  readonly pages: number;
}

/** Pictures inside a drawing are traced with specks of a fiftieth of an inch left out: their size on the job is not yet known. */
const EMBEDDED_TRACING: Tracing = { colours: null, background: 'everywhere', speckMm: 0.5 };

/**
 * Reads drawings, letterings and pictures, fetching what they need; fonts once opened are kept. What sets letters and what traces, and what reads a DXF, is
 * loaded when it is first needed.
 */
export class ArtworkReader {
  readonly #fonts = new Map<string, Promise<Font>>();
  #page: {
    readonly bytes: Uint8Array;
    readonly page: number;
    readonly withPictures: boolean;
    readonly drawing: Promise<PageDrawing>;
  } | null = null;

  constructor(private readonly resources: ArtworkResources) {}

  /**
   * A drawing with its text in shipped fonts and its pictures traced, if that is asked for. Of a file with several pages, one of them, from 1.
   * @throws Refusal when it cannot be read
   */
  async drawing(bytes: Uint8Array, source: string, repair: ReadRepair, page = 1): Promise<Artwork> {
    if (isPdf(bytes)) return this.#pdf(bytes, source, repair, page);
    if (isHpgl(bytes, source)) return (await import('./hpgl/read-hpgl.js')).readHpgl(bytes, source, repair.joinEndsMm);
    if (isDxf(bytes, source)) return (await import('./dxf/read-dxf.js')).readDxf(bytes, source, repair.joinEndsMm);
    const fonts = new Map<string, Font>();
    const pictures = new Map<string, Artwork | null>();
    const wanted = { fonts: new Set<string>(), pictures: new Set<string>() };
    const fontId = (family: string) =>
      (Object.hasOwn(repair.fonts, family) ? repair.fonts[family] : undefined) ?? shippedFontCalled(family)?.id ?? null;
    const mayHold = wordsOf(bytes);
    const given: ReadGiven = {
      repair,
      css: mayHold('style') ? (await import('./svg/css.js')).cssReader : NO_CSS,
      // An entity may hide a name in pieces.
      text: mayHold('text') || mayHold('<!ENTITY') ? await import('./svg/text.js') : null,
      typesetter: null,
      fontOf: (family) => {
        const id = fontId(family);
        if (id === null) return null;
        if (!fonts.has(id)) wanted.fonts.add(id);
        return fonts.get(id) ?? null;
      },
      hasFont: (family) => fontId(family) !== null,
      pictureOf: (href) => {
        if (repair.pictures === 'trace' && !pictures.has(href)) wanted.pictures.add(href);
        return pictures.get(href) ?? null;
      },
    };
    const first = readSvg(bytes, source, given);
    if (wanted.fonts.size === 0 && wanted.pictures.size === 0) return first;
    // What it asked for is fetched, and then it is read again with all of it at hand.
    for (const id of wanted.fonts) fonts.set(id, await this.font(id, null));
    for (const href of wanted.pictures) pictures.set(href, await this.#embedded(href, source));
    const typesetter = wanted.fonts.size > 0 ? (await import('./lettering/font.js')).typesetter : null;
    return readSvg(bytes, source, { ...given, typesetter });
  }

  /** Where what was read of a drawing is not as it is drawn: an SVG as another program draws it, a DXF by the lines that it is made of. */
  async notAsDrawn(bytes: Uint8Array, artwork: Artwork): Promise<Noticed[]> {
    const { openRenderer } = await import('./as-drawn/renderer.js');
    const draw = await openRenderer(this.resources.rendererModule);
    return artwork.lines
      ? (await import('./as-drawn/compare-lines.js')).compareLines(artwork, draw)
      : (await import('./as-drawn/compare-with-drawing.js')).compareWithDrawing(
          artwork.page ? (await this.#pageDrawing(bytes, '', artwork.page.number, false)).svg : bytes,
          artwork,
          draw,
        );
  }

  /** A page of a PDF becomes a drawing, which is read like any other. */
  async #pdf(bytes: Uint8Array, source: string, repair: ReadRepair, page: number): Promise<Artwork> {
    const { svg, pages } = await this.#pageDrawing(bytes, source, page, repair.pictures === 'trace');
    return { ...(await this.drawing(svg, source, repair)), page: { number: page, of: pages } };
  }

  /** The parser's work is kept: the page is read again with each remedy, and once more to be compared. */
  async #pageDrawing(bytes: Uint8Array, source: string, page: number, withPictures: boolean): Promise<PageDrawing> {
    if (this.#page?.bytes === bytes && this.#page.page === page && this.#page.withPictures === withPictures)
      return this.#page.drawing;
    const drawing = (async () => {
      const [{ withPdfPage }, { pdfToSvg }] = await Promise.all([
        import('./pdf/open-pdf.js'),
        import('./pdf/pdf-to-svg.js'),
      ]);
      return withPdfPage(bytes, source, page, async (opened) => ({
        svg: new TextEncoder().encode(await pdfToSvg(opened, source, withPictures)),
        pages: opened.pages,
      }));
    })();
    this.#page = { bytes, page, withPictures, drawing };
    drawing.catch(() => (this.#page = null));
    return drawing;
  }

  async #embedded(href: string, source: string): Promise<Artwork | null> {
    const bytes = bytesOfDataUrl(href);
    if (!bytes) return null;
    try {
      const { tracePicture } = await import('./picture/trace-picture.js');
      return await tracePicture(
        await this.picture(bytes, source, { ...EMBEDDED_TRACING }, {}, true),
        EMBEDDED_TRACING.speckMm,
      );
    } catch (error) {
      if (error instanceof Refusal) return null;
      throw error;
    }
  }

  /** @throws Refusal when the font cannot be read or is not known */
  async lettering(lettering: Lettering, ownFont: Uint8Array | null): Promise<Artwork> {
    const { setLettering } = await import('./lettering/set-lettering.js');
    return setLettering(lettering, await this.font(lettering.font, ownFont));
  }

  /** Letters of a lettering that have other forms. */
  async choices(lettering: Lettering, ownFont: Uint8Array | null): Promise<LetterChoice[]> {
    const { letterChoices } = await import('./lettering/set-lettering.js');
    return letterChoices(lettering.text, await this.font(lettering.font, ownFont));
  }

  /** A picture reduced to its colours. @throws Refusal when it cannot be unpacked */
  async picture(
    bytes: Uint8Array,
    source: string,
    tracing: Pick<Tracing, 'colours' | 'background'>,
    hooks: TraceHooks = {},
    wholeFrame = false,
  ): Promise<ReducedPicture> {
    const [{ decodePicture }, { reducePicture }] = await Promise.all([
      import('./picture/decode-picture.js'),
      import('./picture/trace-picture.js'),
    ]);
    hooks.onStep?.('unpacking', 0);
    await hooks.breathe?.();
    const reduced = await reducePicture(await decodePicture(bytes, source, this.resources.unpackerOf), tracing, hooks);
    return wholeFrame
      ? { ...reduced, frame: { x: 0, y: 0, width: reduced.pixels.width, height: reduced.pixels.height } }
      : reduced;
  }

  /** The size of a picture's frame before it is placed, mm. */
  async pictureSize(reduced: ReducedPicture): Promise<{ widthMm: number; heightMm: number }> {
    const { pictureSizeMm } = await import('./picture/trace-picture.js');
    return pictureSizeMm(reduced);
  }

  async traced(reduced: ReducedPicture, speckMm: number, hooks: TraceHooks = {}): Promise<Artwork> {
    const { tracePicture } = await import('./picture/trace-picture.js');
    return tracePicture(reduced, speckMm, hooks);
  }

  /** A font's own name. @throws Refusal when the file is no font */
  async fontName(bytes: Uint8Array, source: string): Promise<string> {
    const { openFont } = await import('./lettering/font.js');
    return openFont([bytes], source).name;
  }

  /** A font by its id. @throws Refusal */
  font(id: string, own: Uint8Array | null): Promise<Font> {
    let font = this.#fonts.get(id);
    if (!font) {
      font = this.#open(id, own);
      this.#fonts.set(id, font);
      // A fetch that failed is tried again next time.
      font.catch(() => this.#fonts.delete(id));
    }
    return font;
  }

  async #open(id: string, own: Uint8Array | null): Promise<Font> {
    const { openFont } = await import('./lettering/font.js');
    const shipped = shippedFont(id);
    if (shipped)
      return openFont(
        await Promise.all(shipped.files.map((path) => this.resources.fontFile(path))),
        shipped.name,
        shipped.weight,
      );
    if (!own) throw new Refusal('font-unknown', { font: id }, { source: 'lettering' });
    return openFont([own], id);
  }
}

const NO_CSS: CssReader = { declarations: () => [], styleSheet: () => [] };

/** Says whether a word may stand in a file; of one in wide characters nothing can be said without decoding it. */
function wordsOf(bytes: Uint8Array): (word: string) => boolean {
  if (bytes.subarray(0, 4).includes(0) || bytes[0] === 0xfe || bytes[0] === 0xff) return () => true;
  const text = new TextDecoder('latin1').decode(bytes);
  return (word) => text.includes(word);
}

function bytesOfDataUrl(href: string): Uint8Array | null {
  const match = /^data:image\/(?:png|jpe?g|webp);base64,([\s\S]*)$/i.exec(href);
  if (!match) return null;
  try {
    return Uint8Array.from(atob(match[1]!.replace(/\s/g, '')), (letter) => letter.charCodeAt(0));
  } catch {
    return null;
  }
}
