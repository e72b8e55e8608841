import Flatbush from 'flatbush';
import type { OpenLine } from './join-loops.js';

/** Points and lines nearer than this are the same, mm: less than a cutter's step. */
export const SAME_MM = 0.02;
/** Lines that share less than this only meet, mm. */
const LEAST_OVERLAP_MM = 0.1;

/** The straight stretches that lines are made of. `line` is -1 for a side of a loop that is closed already. */
interface Side {
  readonly line: number;
  readonly x: number;
  readonly y: number;
  readonly endX: number;
  readonly endY: number;
}

/**
 * Open lines without the stretches that are drawn twice, before any are joined into loops: a side that is there once too often would leave
 * its loop open or fold it up. Lines that overlap in part count where they overlap.
 *
 * Outlines close where an even number of sides meets at every corner, and that decides what a doubled stretch was meant to be: of a side
 * drawn twice one stays; the seam between two shapes that abut is drawn twice by right, and goes altogether, since they are one area.
 *
 * @param loops closed outlines beside them, which stay as they are
 */
export function withoutDoubledLines(
  open: readonly OpenLine[],
  loops: readonly ArrayLike<number>[],
): { readonly open: number[][]; readonly doubled: number } {
  const whole = [
    ...sidesOf(open),
    ...loops.flatMap((loop) => sidesOfLine([...Array.from(loop), loop[0]!, loop[1]!], -1)),
  ];
  if (open.length === 0 || whole.length < 2) return { open: open.map((line) => [...line]), doubled: 0 };
  const sides = splitWhereTheyOverlap(whole);
  const corners = new Corners();
  const groups = new Map<string, { readonly from: number; readonly to: number; readonly sides: number[] }>();
  sides.forEach((side, i) => {
    const [a, b] = [corners.at(side.x, side.y), corners.at(side.endX, side.endY)];
    if (a === b) return;
    const [from, to] = a < b ? [a, b] : [b, a];
    const key = `${from} ${to}`;
    const group = groups.get(key);
    if (group) group.sides.push(i);
    else groups.set(key, { from, to, sides: [i] });
  });
  const doubled = [...groups.values()].filter((group) => group.sides.length > 1);
  if (doubled.length === 0) return { open: open.map((line) => [...line]), doubled: 0 };
  const dropped = new Set<number>();
  const meeting = meetingsOf(groups.values());
  for (const part of connected(doubled)) {
    const isOdd = (keep: 0 | 1) =>
      part.corners.filter(
        (corner) =>
          (meeting.get(corner)! -
            part.groups.reduce(
              (sum, group) => sum + (group.from === corner || group.to === corner ? group.sides.length - keep : 0),
              0,
            )) %
            2 !==
          0,
      ).length;
    const keep = isOdd(0) < isOdd(1) ? 0 : 1;
    // A closed loop's own side stays; the copies beside it go.
    for (const group of part.groups) {
      const own = group.sides.filter((i) => sides[i]!.line >= 0);
      const closed = group.sides.length - own.length;
      for (const i of own.slice(Math.max(0, keep - closed))) dropped.add(i);
    }
  }
  return { open: linesOf(sides, dropped, open.length), doubled: dropped.size > 0 ? doubled.length : 0 };
}

function sidesOf(lines: readonly OpenLine[]): Side[] {
  return lines.flatMap((line, i) => sidesOfLine(line, i));
}

function sidesOfLine(line: OpenLine, index: number): Side[] {
  const sides: Side[] = [];
  for (let i = 2; i < line.length; i += 2)
    sides.push({ line: index, x: line[i - 2]!, y: line[i - 1]!, endX: line[i]!, endY: line[i + 1]! });
  return sides;
}

/** Sides that lie along each other in part are divided there, so that what they share is drawn twice exactly. */
function splitWhereTheyOverlap(sides: readonly Side[]): Side[] {
  const index = new Flatbush(sides.length);
  for (const { x, y, endX, endY } of sides)
    index.add(
      Math.min(x, endX) - SAME_MM,
      Math.min(y, endY) - SAME_MM,
      Math.max(x, endX) + SAME_MM,
      Math.max(y, endY) + SAME_MM,
    );
  index.finish();
  return sides.flatMap((side, i): Side[] => {
    const { line, x, y, endX, endY } = side;
    const length = Math.hypot(endX - x, endY - y);
    if (length <= LEAST_OVERLAP_MM) return [side];
    const [ux, uy] = [(endX - x) / length, (endY - y) / length];
    const cuts: number[] = [];
    index.search(Math.min(x, endX), Math.min(y, endY), Math.max(x, endX), Math.max(y, endY), (j) => {
      if (j === i) return false;
      const other = sides[j]!;
      const along = (px: number, py: number) => (px - x) * ux + (py - y) * uy;
      const off = (px: number, py: number) => Math.abs((py - y) * ux - (px - x) * uy);
      if (off(other.x, other.y) > SAME_MM || off(other.endX, other.endY) > SAME_MM) return false;
      const [from, to] = [along(other.x, other.y), along(other.endX, other.endY)].sort((a, b) => a - b) as [
        number,
        number,
      ];
      if (Math.min(to, length) - Math.max(from, 0) > LEAST_OVERLAP_MM)
        cuts.push(...[from, to].filter((at) => at > SAME_MM && at < length - SAME_MM));
      return false;
    });
    if (cuts.length === 0) return [side];
    const at = [0, ...[...new Set(cuts)].sort((a, b) => a - b), length].filter(
      (v, k, all) => k === 0 || v - all[k - 1]! > SAME_MM,
    );
    return at.slice(1).map((to, k) => ({
      line,
      x: x + ux * at[k]!,
      y: y + uy * at[k]!,
      endX: k + 2 === at.length ? endX : x + ux * to,
      endY: k + 2 === at.length ? endY : y + uy * to,
    }));
  });
}

/** Numbers for corners; those nearer than SAME_MM share one. */
class Corners {
  readonly #cells = new Map<string, { readonly x: number; readonly y: number; readonly id: number }[]>();
  #count = 0;

  at(x: number, y: number): number {
    const [cx, cy] = [Math.floor(x / SAME_MM), Math.floor(y / SAME_MM)];
    for (let dx = -1; dx <= 1; dx += 1) {
      for (let dy = -1; dy <= 1; dy += 1) {
        const known = this.#cells
          .get(`${cx + dx} ${cy + dy}`)
          ?.find((corner) => Math.hypot(corner.x - x, corner.y - y) <= SAME_MM);
        if (known) return known.id;
      }
    }
    const key = `${cx} ${cy}`;
    this.#cells.set(key, [...(this.#cells.get(key) ?? []), { x, y, id: this.#count }]);
    return this.#count++;
  }
}

interface Group {
  readonly from: number;
  readonly to: number;
  readonly sides: readonly number[];
}

/** How many sides meet at each corner. */
function meetingsOf(groups: Iterable<Group>): Map<number, number> {
  const meeting = new Map<number, number>();
  for (const { from, to, sides } of groups)
    for (const corner of [from, to]) meeting.set(corner, (meeting.get(corner) ?? 0) + sides.length);
  return meeting;
}

/** Doubled stretches that hang together, with their corners. */
function connected(groups: readonly Group[]): { readonly groups: Group[]; readonly corners: number[] }[] {
  const byCorner = new Map<number, Group[]>();
  for (const group of groups)
    for (const corner of [group.from, group.to]) byCorner.set(corner, [...(byCorner.get(corner) ?? []), group]);
  const seen = new Set<Group>();
  return groups.flatMap((start) => {
    if (seen.has(start)) return [];
    const [part, corners, waiting] = [[] as Group[], new Set<number>(), [start]];
    seen.add(start);
    while (waiting.length > 0) {
      const group = waiting.pop()!;
      part.push(group);
      for (const corner of [group.from, group.to]) {
        corners.add(corner);
        for (const next of byCorner.get(corner)!) {
          if (seen.has(next)) continue;
          seen.add(next);
          waiting.push(next);
        }
      }
    }
    return [{ groups: part, corners: [...corners] }];
  });
}

/** The sides that stay, in lines as they were drawn; a line is broken where a side of it went. */
function linesOf(sides: readonly Side[], dropped: ReadonlySet<number>, count: number): number[][] {
  const lines: number[][][] = Array.from({ length: count }, () => [[]]);
  sides.forEach(({ line, x, y, endX, endY }, i) => {
    if (line < 0) return;
    const pieces = lines[line]!;
    if (dropped.has(i)) pieces.push([]);
    else if (pieces.at(-1)!.length === 0) pieces.at(-1)!.push(x, y, endX, endY);
    else pieces.at(-1)!.push(endX, endY);
  });
  return lines.flat().filter((line) => line.length > 0);
}
