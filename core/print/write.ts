import type { PrintDrawing, PrintFormat } from './drawing.js';
import { writePrintDxf } from './write-dxf.js';
import { writePrintPdf } from './write-pdf.js';
import { writePrintSvg } from './write-svg.js';

/** The drawing at true size in one of the formats. @throws InputError `too-long-for-pdf` */
export async function writePrint(drawing: PrintDrawing, format: PrintFormat): Promise<Uint8Array> {
  return format === 'pdf'
    ? writePrintPdf(drawing)
    : new TextEncoder().encode(format === 'svg' ? writePrintSvg(drawing) : writePrintDxf(drawing));
}
