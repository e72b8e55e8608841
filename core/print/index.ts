/*
 * The print room: drawings at true scale, and their writers. It knows millimetres and lines, nothing of jobs.
 */
export {
  PRINT_FORMATS,
  type PrintArea,
  type PrintDrawing,
  type Printed,
  type PrintFormat,
  type PrintLines,
  type PrintText,
} from './drawing.js';
export { countTiles, PAPERS, tilePages, type Paper, type TileCount } from './tiles.js';
export { writePrint } from './write.js';
export { writePrintPages, type PrintPage } from './write-pdf.js';
