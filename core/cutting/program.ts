import type { Ring } from '../geometry/index.js';
import { pathLength, type CutPath, type CutSettings, type Motion } from './cut-path.js';
import { FIRST_HEADING, holderPath } from './drag-knife.js';
import { UNITS_PER_MM } from './hpgl.js';
import { driveSeconds } from './motion.js';
import { cutOnce } from './once.js';
import { orderContours } from './order.js';

/** Everything the cutter is told about one sheet. Holder positions are whole plotter units, never negative. */
export interface CutProgram {
  /** What the tip is meant to cut, in mm, in cutting order. */
  readonly paths: readonly CutPath[];
  /** Where the holder goes: one run per path, x0, y0, x1, y1, … in units of 1/40 mm. */
  readonly runs: readonly Int32Array[];
  readonly settings: CutSettings;
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
  /** The whole program was moved by this much because the holder would otherwise have left the sheet. */
  readonly shiftMm: { readonly x: number; readonly y: number };
}

export interface ProgramInput {
  /** Contours of what is cut, mm on the sheet, y up. */
  readonly contours: readonly Ring[];
  /** Cut after all contours: the weeding borders. */
  readonly borders: readonly Ring[];
  /** Open lines that are followed as they are. */
  readonly lines?: readonly CutPath[];
  readonly settings: CutSettings;
  readonly motion: Motion;
}

/** Orders the contours, removes lines that would be cut twice, leads the knife, and says how long it will take. */
export function cutProgram(input: ProgramInput): CutProgram {
  const { settings, motion } = input;
  const inner = orderContours(input.contours);
  const last = inner.at(-1)?.points;
  const outer = orderContours(input.borders, last ? { x: last[0]!, y: last[1]! } : undefined);
  const paths = cutOnce([...(input.lines ?? []), ...inner, ...outer]);
  let heading = FIRST_HEADING;
  const holders = paths.map((path) => {
    const led = holderPath(path, settings.bladeOffsetMm, settings.overcutMm, heading);
    heading = led.heading;
    return led.points;
  });
  const shiftMm = shiftInside(holders);
  // What is smaller than one step of the cutter leaves a single point and nothing to cut.
  const runs = holders.map((points) => toUnits(points, shiftMm)).filter((run) => run.length >= 4);
  const { travelMm, seconds } = timeOf(runs, settings, motion);
  const moved = shiftMm.x === 0 && shiftMm.y === 0 ? paths : paths.map((path) => ({ ...path, points: shifted(path.points, shiftMm) }));
  return { paths: moved, runs, settings, cutMm: paths.reduce((sum, path) => sum + pathLength(path.points), 0), travelMm, seconds, shiftMm };
}

/** Seconds for the runs in order: travel there, knife down, cut, knife up, and back to the beginning at the end. */
function timeOf(runs: readonly Int32Array[], settings: CutSettings, motion: Motion): { travelMm: number; seconds: number } {
  let [x, y, travelMm, seconds] = [0, 0, 0, 0];
  const go = (toX: number, toY: number) => {
    travelMm += Math.hypot(toX - x, toY - y);
    seconds += driveSeconds([x, y, toX, toY], motion.travelSpeedMmS, motion.accelerationMmS2);
  };
  for (const run of runs) {
    const mm = Float64Array.from(run, (v) => v / UNITS_PER_MM);
    go(mm[0]!, mm[1]!);
    seconds += 2 * motion.liftSeconds + driveSeconds(mm, settings.speedMmS, motion.accelerationMmS2);
    x = mm.at(-2)!;
    y = mm.at(-1)!;
  }
  if (runs.length > 0) go(0, 0);
  return { travelMm, seconds };
}

function shiftInside(holders: readonly Float64Array[]): { x: number; y: number } {
  let [minX, minY] = [0, 0];
  for (const points of holders) {
    for (let i = 0; i < points.length; i += 2) {
      minX = Math.min(minX, points[i]!);
      minY = Math.min(minY, points[i + 1]!);
    }
  }
  const up = (v: number) => (v < 0 ? Math.ceil(-v * UNITS_PER_MM) / UNITS_PER_MM : 0);
  return { x: up(minX), y: up(minY) };
}

function shifted(points: Float64Array, by: { x: number; y: number }): Float64Array {
  return points.map((v, i) => v + (i % 2 === 0 ? by.x : by.y));
}

function toUnits(points: Float64Array, shift: { x: number; y: number }): Int32Array {
  const out: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const x = Math.round((points[i]! + shift.x) * UNITS_PER_MM);
    const y = Math.round((points[i + 1]! + shift.y) * UNITS_PER_MM);
    if (out.length < 2 || out.at(-2) !== x || out.at(-1) !== y) out.push(x, y);
  }
  return Int32Array.from(out);
}
