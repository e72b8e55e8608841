import Flatbush from 'flatbush';
import {
  boundsOf,
  boxesTouch,
  containsPoint,
  edgeIndex,
  edgesOf,
  grow,
  regionsOf,
  reversed,
  ringsOf,
  squareToEdge,
  unite,
  widenBox,
  type Region,
  type Ring,
  type Rings,
} from '../geometry/index.js';
import { isOutline, lineOf, thereAndBack } from '../engines/cutting/index.js';
import type { PlacedGroup } from './sheet-plan.js';

/** Lines in the waste keep so clear of a neighbour's outlines, mm: a knife that comes to the end of a line swings a little. */
const CLEAR_MM = 1;
/** Lines are followed in such steps, mm; what is left of one is cut if it is longer than two of them. */
const STEP_MM = 0.25;
/** Film round which borders run together comes off with the waste, unless a circle of twice this fits into it, mm. */
const VOID_MM = 10;

/**
 * Copies on one piece whose borders run into each other, with one line round what runs together, which the first copy in it carries. Lines in the waste end before a neighbour's outlines. What lies by itself keeps its
 * border as it is. y up, mm; what is given is not changed.
 */
export function mergedBorders<G extends PlacedGroup>(groups: readonly G[]): readonly G[] {
  const frees = groups.flatMap((group, i) =>
    group.borders.filter(isOutline).map((ring) => ({ ring, i, at: heldBy(ring, group) })),
  );
  const areas = regionsOf(unite(frees.map(({ ring }) => ring)));
  // One may lie free in the midst of others that run together all round it.
  const homes = areas.map((area) => ({ rings: ringsOf([area]), box: boundsOf([area.outer])! }));
  const within = areas.map((): (typeof frees)[number][] => []);
  for (const free of frees)
    within[
      homes.findIndex(
        ({ rings, box: { minX, minY, maxX, maxY } }) =>
          free.at.x >= minX &&
          free.at.x <= maxX &&
          free.at.y >= minY &&
          free.at.y <= maxY &&
          containsPoint(rings, free.at.x, free.at.y),
      )
    ]!.push(free);
  const carried = groups.map((): Ring[] => []);
  const merged = new Set<number>();
  within.forEach((own, k) => {
    carried[own[0]!.i]!.push(...(own.length === 1 ? [own[0]!.ring] : ringsRound(areas[k]!)));
    if (own.length > 1) for (const { i } of own) merged.add(i);
  });
  const index = new Flatbush(groups.length);
  for (const { contours } of groups) {
    const { minX, minY, maxX, maxY } = boundsOf(contours)!;
    index.add(minX, minY, maxX, maxY);
  }
  index.finish();
  return groups.map((group, i) => {
    const lines = group.borders.filter((ring) => !isOutline(ring));
    const box = merged.has(i) ? boundsOf(lines) : null;
    const room = box && widenBox(box, CLEAR_MM);
    const near = room
      ? index
          .search(room.minX, room.minY, room.maxX, room.maxY)
          .filter((j) => j !== i)
          .flatMap((j) => groups[j]!.contours.filter((ring) => boxesTouch(boundsOf([ring])!, room)))
      : [];
    return { ...group, borders: [...(near.length > 0 ? clearOf(lines, near) : lines), ...carried[i]!] };
  });
}

/** A place inside of a border: on an outline that it goes round. */
function heldBy(ring: Ring, { contours }: PlacedGroup): { readonly x: number; readonly y: number } {
  const [x, y] = contours.find(([atX, atY]) => containsPoint([ring], atX!, atY!))!;
  return { x: x!, y: y! };
}

function ringsRound({ outer, holes }: Region): Ring[] {
  return [outer, ...holes.filter((hole) => grow([reversed(hole)], -VOID_MM).length > 0)];
}

/** Of lines that go there and back, what keeps clear of outlines of others. */
function clearOf(lines: Rings, outlines: Rings): Ring[] {
  const edges = edgesOf(outlines, []);
  const index = edgeIndex(edges);
  const isClear = (x: number, y: number) =>
    index
      .search(x - CLEAR_MM, y - CLEAR_MM, x + CLEAR_MM, y + CLEAR_MM)
      .every((i) => squareToEdge(x, y, ...edges[i]!) >= CLEAR_MM ** 2);
  return lines.flatMap((ring) => {
    const parts = clearParts(lineOf(ring)!, isClear);
    return parts ? parts.map(thereAndBack) : [ring];
  });
}

/** What is left of a line (x, y, x, y, …); null where it is clear all along. */
function clearParts(line: Float64Array, isClear: (x: number, y: number) => boolean): number[][] | null {
  const points: number[] = [line[0]!, line[1]!];
  for (let o = 2; o < line.length; o += 2) {
    const [fromX, fromY, x, y] = [line[o - 2]!, line[o - 1]!, line[o]!, line[o + 1]!];
    const steps = Math.max(1, Math.ceil(Math.hypot(x - fromX, y - fromY) / STEP_MM));
    for (let k = 1; k <= steps; k += 1)
      points.push(fromX + (k / steps) * (x - fromX), fromY + (k / steps) * (y - fromY));
  }
  const parts: number[][] = [[]];
  let isWhole = true;
  for (let o = 0; o < points.length; o += 2) {
    if (isClear(points[o]!, points[o + 1]!)) parts.at(-1)!.push(points[o]!, points[o + 1]!);
    else {
      isWhole = false;
      parts.push([]);
    }
  }
  return isWhole ? null : parts.filter((part) => part.length > 4);
}
