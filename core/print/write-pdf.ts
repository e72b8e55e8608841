import {
  clip,
  closePath,
  degrees,
  endPath,
  fill,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setDashPattern,
  setFillingRgbColor,
  setLineWidth,
  setStrokingRgbColor,
  StandardFonts,
  stroke,
  type PDFFont,
  type PDFPage,
} from 'pdf-lib';
import type { Box } from '../geometry/index.js';
import { InputError } from '../words/index.js';
import { sayTooLongForPdf } from './say.js';
import type { PrintDrawing, Printed } from './drawing.js';

const PT_PER_MM = 72 / 25.4;
/** A page of a PDF is no longer than this on a side, pt. */
const LONGEST_PT = 14_400;

/** A page of a document: the part of the drawing it shows, and where its upper left corner lies on a sheet of paper. */
export interface PrintPage {
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  readonly shows: Box;
  readonly at: { readonly xMm: number; readonly yMm: number };
  /** Drawn on this page alone, mm from its upper left corner. */
  readonly more: readonly Printed[];
}

/** The drawing on one page of its own size. @throws InputError `too-long-for-pdf` */
export function writePrintPdf(drawing: PrintDrawing): Promise<Uint8Array> {
  const { box } = drawing;
  const sheet = { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY };
  return writePrintPages(drawing, [{ sheet, shows: box, at: { xMm: 0, yMm: 0 }, more: [] }]);
}

/** The drawing on several pages. The same drawing gives the same file. @throws InputError `too-long-for-pdf` */
export async function writePrintPages(
  { title, items }: PrintDrawing,
  pages: readonly PrintPage[],
): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const hasText =
    items.some(({ kind }) => kind === 'text') || pages.some(({ more }) => more.some(({ kind }) => kind === 'text'));
  const font = hasText ? await document.embedFont(StandardFonts.Helvetica) : null;
  for (const { sheet, shows, at, more } of pages) {
    const [w, h] = [sheet.widthMm * PT_PER_MM, sheet.heightMm * PT_PER_MM];
    if (Math.max(w, h) > LONGEST_PT) throw new InputError('too-long-for-pdf', sayTooLongForPdf(), { source: 'print' });
    const page = document.addPage([w, h]);
    const toPage = (dx: number, dy: number) => (x: number, y: number) =>
      [(x + dx) * PT_PER_MM, h - (y + dy) * PT_PER_MM] as const;
    const place = toPage(at.xMm - shows.minX, at.yMm - shows.minY);
    page.pushOperators(pushGraphicsState());
    for (const [i, [x, y]] of [
      [shows.minX, shows.minY],
      [shows.maxX, shows.minY],
      [shows.maxX, shows.maxY],
      [shows.minX, shows.maxY],
    ].entries())
      page.pushOperators(i === 0 ? moveTo(...place(x!, y!)) : lineTo(...place(x!, y!)));
    page.pushOperators(closePath(), clip(), endPath());
    for (const item of items) draw(page, item, place, font);
    page.pushOperators(popGraphicsState());
    for (const item of more) draw(page, item, toPage(0, 0), font);
  }
  return document.save();
}

type Place = (x: number, y: number) => readonly [x: number, y: number];

const channels = (colour: string) =>
  [1, 3, 5].map((i) => Number.parseInt(colour.slice(i, i + 2), 16) / 255) as [number, number, number];

function draw(page: PDFPage, item: Printed, place: Place, font: PDFFont | null): void {
  switch (item.kind) {
    case 'area':
      page.pushOperators(pushGraphicsState(), setFillingRgbColor(...channels(item.colour)));
      for (const ring of item.rings) trace(page, ring, true, place);
      // Outer outlines wind one way and holes the other, so the plain rule leaves the holes open.
      return page.pushOperators(fill(), popGraphicsState());
    case 'lines':
      page.pushOperators(
        pushGraphicsState(),
        setStrokingRgbColor(...channels(item.colour)),
        setLineWidth(item.widthMm * PT_PER_MM),
        ...(item.dashed ? [setDashPattern([3 * PT_PER_MM, 2 * PT_PER_MM], 0)] : []),
      );
      for (const { points, closed } of item.lines) trace(page, points, closed, place);
      return page.pushOperators(stroke(), popGraphicsState());
    case 'text': {
      // The standard font knows the letters of western Europe.
      const text = item.text.replace(/[^\x20-\x7e\xa0-\xff]/g, '?');
      const size = (item.heightMm / 0.718) * PT_PER_MM;
      const [x, y] = place(item.xMm, item.yMm);
      const half = font!.widthOfTextAtSize(text, size) / 2;
      const turn = (-item.turnDeg * Math.PI) / 180;
      return page.drawText(text, {
        x: x - half * Math.cos(turn),
        y: y - half * Math.sin(turn),
        size,
        font: font!,
        rotate: degrees(-item.turnDeg),
        color: rgb(0, 0, 0),
      });
    }
  }
}

function trace(page: PDFPage, points: ArrayLike<number>, closed: boolean, place: Place): void {
  for (let k = 0; k < points.length; k += 2)
    page.pushOperators(
      k === 0 ? moveTo(...place(points[k]!, points[k + 1]!)) : lineTo(...place(points[k]!, points[k + 1]!)),
    );
  if (closed) page.pushOperators(closePath());
}
