/*
 * Contours become what a drag-knife cutter is told: their order, the knife's lead, motion and time, HP-GL.
 * Coordinates are mm on the sheet, x right, y up; plotter units only in runs and HP-GL.
 */
export { pathLength, type CutPath, type CutSettings, type Motion } from './cut-path.js';
export { FIRST_HEADING, holderPath, type Heading } from './drag-knife.js';
export { HPGL_TAIL, hpglHead, hpglRun, hpglSettings, programPairs, UNITS_PER_MM, writeHpgl } from './hpgl.js';
export { HpglReader, type Instruction } from './hpgl-reader.js';
export { liesIn } from './lies-in.js';
export { distanceAt, driveSeconds, planMoves, type PlannedMove } from './motion.js';
export { cutOnce } from './once.js';
export { isOutline, lineOf, thereAndBack } from './open-line.js';
export { orderContours } from './order.js';
export { safeEdges, type Edges } from './safe-edges.js';
export { cutProgram, type CutGroup, type CutProgram, type ProgramInput } from './program.js';
