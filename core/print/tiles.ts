import type { Box } from '../geometry/index.js';
import { saySheetOfPaper } from './say.js';
import type { PrintDrawing, Printed } from './drawing.js';
import type { PrintPage } from './write-pdf.js';

/** Paper that is at hand everywhere, mm, upright. */
export const PAPERS = { a4: { widthMm: 210, heightMm: 297 }, a3: { widthMm: 297, heightMm: 420 } } as const;
export type Paper = keyof typeof PAPERS;

/** Printers leave so much of a sheet white, mm. */
const MARGIN_MM = 12;
/** A line to check the scale by, mm. */
const LINE_MM = 50;
/** Pages are glued where they lap, mm. */
const LAP_MM = 10;

/** How many columns and rows of sheets a drawing takes. */
export interface TileCount {
  readonly columns: number;
  readonly rows: number;
  readonly landscape: boolean;
}

/** The fewest sheets that hold a drawing, lying or standing. */
export function countTiles({ minX, minY, maxX, maxY }: Box, paper: Paper): TileCount {
  const { widthMm, heightMm } = PAPERS[paper];
  const count = (landscape: boolean): TileCount => {
    const [w, h] = landscape ? [heightMm, widthMm] : [widthMm, heightMm];
    const needed = (length: number, page: number) =>
      Math.max(1, Math.ceil((length - LAP_MM) / (page - 2 * MARGIN_MM - LAP_MM) - 1e-9));
    return { columns: needed(maxX - minX, w), rows: needed(maxY - minY, h), landscape };
  };
  const [standing, lying] = [count(false), count(true)];
  return lying.columns * lying.rows < standing.columns * standing.rows ? lying : standing;
}

/** The sheets of a drawing, row by row. Each is numbered, lapped by the next, and has crosses where its neighbours have theirs. */
export function tilePages(drawing: PrintDrawing, paper: Paper): PrintPage[] {
  const { box, title } = drawing;
  const { columns, rows, landscape } = countTiles(box, paper);
  const { widthMm, heightMm } = PAPERS[paper];
  const sheet = landscape ? { widthMm: heightMm, heightMm: widthMm } : { widthMm, heightMm };
  const [stepX, stepY] = [sheet.widthMm - 2 * MARGIN_MM - LAP_MM, sheet.heightMm - 2 * MARGIN_MM - LAP_MM];
  return Array.from({ length: rows * columns }, (_, i): PrintPage => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    const [minX, minY] = [box.minX + column * stepX, box.minY + row * stepY];
    const shows = { minX, minY, maxX: minX + stepX + LAP_MM, maxY: minY + stepY + LAP_MM };
    const text: Printed = {
      kind: 'text',
      name: 'page',
      text: saySheetOfPaper(title, { row: row + 1, rows, column: column + 1, columns, lineMm: LINE_MM }),
      xMm: sheet.widthMm / 2,
      yMm: sheet.heightMm - 4,
      heightMm: 2.4,
      turnDeg: 0,
    };
    const ruler: Printed = {
      kind: 'lines',
      name: 'page',
      colour: '#000000',
      widthMm: 0.3,
      dashed: false,
      lines: [{ points: [MARGIN_MM, sheet.heightMm - 9, MARGIN_MM + LINE_MM, sheet.heightMm - 9], closed: false }],
    };
    const inset = LAP_MM / 2;
    const corners = [
      [0, 0],
      [1, 0],
      [0, 1],
      [1, 1],
    ].map(([right, down]) => [MARGIN_MM + inset + right! * stepX, MARGIN_MM + inset + down! * stepY] as const);
    const crosses: Printed = {
      kind: 'lines',
      name: 'page',
      colour: '#888888',
      widthMm: 0.2,
      dashed: false,
      lines: corners.flatMap(([x, y]) => [
        { points: [x - 4, y, x + 4, y], closed: false },
        { points: [x, y - 4, x, y + 4], closed: false },
      ]),
    };
    return { sheet, shows, at: { xMm: MARGIN_MM, yMm: MARGIN_MM }, more: [text, ruler, crosses] };
  });
}
