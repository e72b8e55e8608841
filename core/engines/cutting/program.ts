import { backwards, boundsOf, boxesTouch, containsPoint, holdsBox, type Ring } from '../../geometry/index.js';
import { pathLength, type CutPath, type CutSettings, type Motion } from './cut-path.js';
import { FIRST_HEADING, holderPath, turningPath, turningStrip } from './drag-knife.js';
import { UNITS_PER_MM } from './hpgl.js';
import { driveSeconds } from './motion.js';
import { liesIn } from './lies-in.js';
import { cutOnce } from './once.js';
import { lineOf } from './open-line.js';
import { orderContours } from './order.js';

/** Everything the cutter is told about one sheet. Holder positions are whole plotter units, never negative. */
export interface CutProgram {
  /** What the tip is meant to cut, in mm, in cutting order. The turning of the knife before them is not among them. */
  readonly paths: readonly CutPath[];
  /** Where the holder goes, x0, y0, x1, y1, … in units of 1/40 mm: the turning of the knife in the waste, then a run per path. */
  readonly runs: readonly Int32Array[];
  /**
   * For every contour given, in the order of the groups and in each of its contours, then its borders: how many coordinate pairs must have
   * been driven to for it to be whole. Stretches that other contours cut for it are counted in.
   */
  readonly wholeAt: Int32Array;
  readonly settings: CutSettings;
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
  /** The whole program was moved by this much because the holder would otherwise have left the sheet. */
  readonly shiftMm: { readonly x: number; readonly y: number };
}

/** What is cut in one go before the next is begun: a layer's copy with its weeding border. Rings in mm on the sheet, y up. */
export interface CutGroup {
  readonly contours: readonly Ring[];
  /** Cut after its contours: first lines that go there and back, along which the waste is parted, then what frees it. */
  readonly borders: readonly Ring[];
}

export interface ProgramInput {
  readonly groups: readonly CutGroup[];
  /** Open lines that are followed as they are, before all else. */
  readonly lines?: readonly CutPath[];
  readonly settings: CutSettings;
  readonly motion: Motion;
}

/**
 * Turns the knife in the waste, then cuts group by group, the nearest next: its contours in order, then its borders; lines that would be cut
 * twice are left out. The knife is led by its offset. Says how long it will take.
 */
export function cutProgram(input: ProgramInput): CutProgram {
  const { groups, lines = [], settings, motion } = input;
  const paths = cutOnce([...lines, ...inOrder(groups)]);
  const holders: Float64Array[] = [];
  const turn = turningOf(paths, settings.bladeOffsetMm);
  if (turn) holders.push(turn);
  let heading = FIRST_HEADING;
  for (const path of paths) {
    const led = holderPath(path, settings.bladeOffsetMm, settings.overcutMm, heading);
    heading = led.heading;
    holders.push(led.points);
  }
  const shiftMm = shiftInside(holders);
  const runs: Int32Array[] = [];
  const wholeAt = new Int32Array(
    groups.reduce((sum, group) => sum + group.contours.length + group.borders.length, 0),
  ).fill(-1);
  let pairs = 0;
  holders.forEach((points, i) => {
    const run = toUnits(points, shiftMm);
    const contour = turn && i === 0 ? undefined : paths[turn ? i - 1 : i]!.contour;
    // What is smaller than one step of the cutter leaves a single point and nothing to cut.
    if (run.length >= 4) {
      runs.push(run);
      pairs += run.length / 2;
    }
    if (contour !== undefined) wholeAt[contour] = pairs;
  });
  // Wholly cut by others, which all come somewhere before the end.
  wholeAt.forEach((at, i) => {
    if (at < 0) wholeAt[i] = pairs;
  });
  const { travelMm, seconds } = timeOf(runs, settings, motion);
  const moved =
    shiftMm.x === 0 && shiftMm.y === 0
      ? paths
      : paths.map((path) => ({ ...path, points: shifted(path.points, shiftMm) }));
  return {
    paths: moved,
    runs,
    wholeAt,
    settings,
    cutMm: paths.reduce((sum, path) => sum + pathLength(path.points), 0),
    travelMm,
    seconds,
    shiftMm,
  };
}

/** The groups' paths, the group that lies nearest to where the knife is next, but what lies in a counter before that; numbered through all groups. */
function inOrder(groups: readonly CutGroup[]): CutPath[] {
  const first: number[] = [];
  let count = 0;
  for (const { contours, borders } of groups) {
    first.push(count);
    count += contours.length + borders.length;
  }
  const left = groups
    .map((group, i) => ({ i, box: boundsOf([...group.contours, ...group.borders]) }))
    .filter((group) => group.box !== null);
  const inCounters = liesIn(groups.map(({ contours }) => contours));
  const paths: CutPath[] = [];
  const around: { readonly ring: Ring; readonly line: Float64Array | null; readonly contour: number }[] = [];
  let at = { x: 0, y: 0 };
  const cut = (ordered: readonly CutPath[]) => {
    paths.push(...ordered);
    const end = ordered.at(-1)?.points;
    if (end) at = { x: end.at(-2)!, y: end.at(-1)! };
  };
  const closed = (rings: readonly Ring[], numbers: readonly number[]) =>
    orderContours(rings, at).map((path) => ({ ...path, contour: numbers[path.contour!]! }));
  while (left.length > 0) {
    let best = { k: 0, distance: Infinity };
    left.forEach(({ i, box }, k) => {
      if (inCounters[i]!.some((inner) => left.some((one) => one.i === inner))) return;
      const distance = Math.hypot(
        Math.max(box!.minX - at.x, 0, at.x - box!.maxX),
        Math.max(box!.minY - at.y, 0, at.y - box!.maxY),
      );
      if (distance < best.distance) best = { k, distance };
    });
    const { i } = left.splice(best.k, 1)[0]!;
    const { contours, borders } = groups[i]!;
    cut(
      closed(
        contours,
        contours.map((_, k) => first[i]! + k),
      ),
    );
    const numbered = borders.map((ring, k) => ({ ring, line: lineOf(ring), contour: first[i]! + contours.length + k }));
    cut(
      orderLines(
        numbered.flatMap(({ line, contour }) => (line ? [{ points: line, closed: false, contour }] : [])),
        at,
      ),
    );
    const frees = numbered.filter(({ line }) => !line);
    // What goes round other groups, too, would free them before they are cut.
    const isRoundOthers = ({ ring }: { readonly ring: Ring }) => {
      const round = boundsOf([ring])!;
      return left.some(
        ({ i: other, box }) =>
          boxesTouch(round, box!) &&
          groups[other]!.contours.some(
            (contour) => holdsBox(round, boundsOf([contour])!) && containsPoint([ring], contour[0]!, contour[1]!),
          ),
      );
    };
    around.push(...frees.filter(isRoundOthers));
    const own = frees.filter((one) => !around.includes(one));
    cut(
      closed(
        own.map(({ ring }) => ring),
        own.map(({ contour }) => contour),
      ),
    );
  }
  cut(
    closed(
      around.map(({ ring }) => ring),
      around.map(({ contour }) => contour),
    ),
  );
  return paths;
}

/** Lines, the one that begins or ends nearest next, run from there. */
function orderLines(lines: readonly CutPath[], start: { readonly x: number; readonly y: number }): CutPath[] {
  const left = [...lines];
  const ordered: CutPath[] = [];
  let { x, y } = start;
  while (left.length > 0) {
    const reach = left.map(
      ({ points }) =>
        [Math.hypot(points[0]! - x, points[1]! - y), Math.hypot(points.at(-2)! - x, points.at(-1)! - y)] as const,
    );
    const nearest = reach.reduce(
      (best, [from, to], k) => (Math.min(from, to) < Math.min(...reach[best]!) ? k : best),
      0,
    );
    const line = left.splice(nearest, 1)[0]!;
    const isTurned = reach[nearest]![1] < reach[nearest]![0];
    const points = isTurned ? Float64Array.from(backwards(line.points)) : line.points;
    ordered.push({ ...line, points });
    [x, y] = [points.at(-2)!, points.at(-1)!];
  }
  return ordered;
}

/** The turning of the knife, in the strip below all that is cut; null when there is no knife to turn, or nothing to cut. */
function turningOf(paths: readonly CutPath[], offsetMm: number): Float64Array | null {
  const box = boundsOf(paths.map((path) => path.points));
  if (!box || offsetMm <= 0) return null;
  return turningPath(box.minX, box.minY - turningStrip(offsetMm) + offsetMm, offsetMm);
}

/** Seconds for the runs in order: travel there, knife down, cut, knife up, and back to the beginning at the end. */
function timeOf(
  runs: readonly Int32Array[],
  settings: CutSettings,
  motion: Motion,
): { travelMm: number; seconds: number } {
  let [x, y, travelMm, seconds] = [0, 0, 0, 0];
  const go = (toX: number, toY: number) => {
    travelMm += Math.hypot(toX - x, toY - y);
    seconds += driveSeconds([x, y, toX, toY], motion.travelSpeedMmS, motion.accelerationMmS2);
  };
  for (const run of runs) {
    const mm = new Float64Array(run.length);
    for (let i = 0; i < run.length; i += 1) mm[i] = run[i]! / UNITS_PER_MM;
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
