import type { Matrix } from '../../../geometry/index.js';
import { Refusal } from '../refusal.js';

/** A page's drawing steps as the parser gives them: the step's number, and what it is given. */
export interface Steps {
  readonly fnArray: readonly number[];
  readonly argsArray: readonly unknown[];
}

/** A font as far as its letters are placed by it. */
export interface PdfFont {
  readonly name: string;
  readonly missingFile: boolean;
  readonly isType3Font: boolean;
  readonly vertical: boolean;
  readonly fontMatrix: readonly number[];
  readonly defaultVMetrics?: readonly number[];
  /** Of a font whose letters are small drawings: their steps. */
  readonly charProcOperatorList?: Readonly<Record<string, Steps>>;
}

/** A picture as it is unpacked. */
export interface PdfPicture {
  readonly width: number;
  readonly height: number;
  /** 1 for one bit a pixel, 2 for RGB, 3 for RGBA. */
  readonly kind: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** A page, parsed. */
export interface PdfPage {
  /** Of the whole file. */
  readonly pages: number;
  /** What of it is shown, pt, and from its own coordinates to that, y down. */
  readonly width: number;
  readonly height: number;
  readonly matrix: Matrix;
  /** mm in one pt: larger pages have larger units. */
  readonly mmPerPt: number;
  readonly steps: Steps;
  /** Numbers of steps by name. */
  readonly names: Readonly<Record<string, number>>;
  /** What a step names: a font, a picture, a shading; undefined when it is not there. */
  readonly named: (id: string) => unknown;
  /** The outline of a font's letter in ems, y up, as path data. */
  readonly letter: (font: string, letter: string) => string | undefined;
  /** Whether a layer of the file is shown. */
  readonly isShown: (layer: unknown) => boolean;
}

const MM_PER_PT = 25.4 / 72;
/** More pages than this are a book. */
const MOST_PAGES = 10_000;

/**
 * Parses one page of a PDF, from 1, for as long as something is made of it. Nothing in it is run, and nothing is fetched for it.
 *
 * @throws Refusal when it is encrypted, damaged, or has no such page
 */
export async function withPdfPage<Made>(
  bytes: Uint8Array,
  source: string,
  page: number,
  make: (page: PdfPage) => Promise<Made>,
): Promise<Made> {
  // The parser's own worker would be one more inside ours: told so, it works in this one.
  await import('pdfjs-dist/legacy/build/pdf.worker.mjs');
  const { getDocument, OPS } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const quiet = 0;
  // It takes the bytes over, and the file is wanted again; a copy is also plain bytes, whatever kind of them was given.
  const task = getDocument({
    data: new Uint8Array(bytes),
    disableFontFace: true,
    useSystemFonts: false,
    isEvalSupported: false,
    isOffscreenCanvasSupported: false,
    isImageDecoderSupported: false,
    useWasm: false,
    useWorkerFetch: false,
    verbosity: quiet,
  });
  try {
    const document = await task.promise;
    const pages = document.numPages;
    if (pages > MOST_PAGES) throw new Refusal('pdf-too-long', { most: MOST_PAGES }, { source });
    if (page > pages) throw new Refusal('pdf-no-page', { page, pages }, { source });
    const opened = await document.getPage(page);
    const [steps, layers] = await Promise.all([
      Promise.race([opened.getOperatorList(), tooManySteps(opened, source)]),
      document.getOptionalContentConfig(),
    ]);
    const viewport = opened.getViewport({ scale: 1 });
    const named = await namedThings(steps as Steps, OPS.dependency, (id) =>
      id.startsWith('g_') ? opened.commonObjs : opened.objs,
    );
    const letters = opened.commonObjs as unknown as Objects;
    const objects = opened.objs as unknown as Objects;
    return await make({
      pages,
      width: viewport.width,
      height: viewport.height,
      matrix: viewport.transform as unknown as Matrix,
      mmPerPt: MM_PER_PT * (opened.userUnit || 1),
      steps: steps as Steps,
      names: OPS,
      // Shadings are not waited for: they are there with the steps that name them.
      named: (id) => named.get(id) ?? (objects.has(id) ? objects.get(id) : undefined),
      letter: (font, letter) =>
        letters.has(`${font}_path_${letter}`) ? (letters.get(`${font}_path_${letter}`) as string) : undefined,
      isShown: (layer) => layers.isVisible(layer),
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    const { name, message } = error as Error;
    throw name === 'PasswordException'
      ? new Refusal('pdf-encrypted', {}, { source, cause: error })
      : new Refusal('pdf-damaged', { reason: message }, { source, cause: error });
  } finally {
    void task.destroy().catch(() => undefined);
  }
}

/** More steps than this are no drawing that anyone weeds, and would take minutes and gigabytes. */
export const MOST_STEPS = 400_000;
/** As many shapes as the reader of SVGs takes. */
export const MOST_SHAPES = 50_000;

/** Refuses a page as soon as more steps than any drawing has have come of it. The parser tells of them in parts, and of nothing before the last. */
function tooManySteps(page: object, source: string): Promise<never> {
  const parser = page as { _renderPageChunk?: (part: { readonly length: number }, state: unknown) => void };
  return new Promise((_, refuse) => {
    const take = parser._renderPageChunk?.bind(page);
    let count = 0;
    if (!take) return;
    parser._renderPageChunk = (part, state) => {
      count += part.length;
      if (count > MOST_STEPS) refuse(new Refusal('too-many-shapes', { most: MOST_SHAPES }, { source }));
      else take(part, state);
    };
  });
}

interface Objects {
  readonly has: (id: string) => boolean;
  readonly get: (id: string, then?: (value: unknown) => void) => unknown;
}

/** What the steps of a page, and those of its letters that are drawings, wait for. */
async function namedThings(
  steps: Steps,
  dependency: number,
  objectsOf: (id: string) => unknown,
): Promise<Map<string, unknown>> {
  const named = new Map<string, unknown>();
  const take = async ({ fnArray, argsArray }: Steps): Promise<void> => {
    for (const [i, fn] of fnArray.entries()) {
      if (fn !== dependency) continue;
      for (const id of argsArray[i] as readonly string[]) {
        if (named.has(id)) continue;
        const value = await new Promise<unknown>((resolve) => void (objectsOf(id) as Objects).get(id, resolve));
        named.set(id, value);
        const letters = (value as PdfFont | null)?.charProcOperatorList;
        for (const letter of Object.values(letters ?? {})) await take(letter);
      }
    }
  };
  await take(steps);
  return named;
}
