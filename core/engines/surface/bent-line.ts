import { boundsOf, regionsOf, unite, type Box, type Ring, type Rings } from '../../geometry/index.js';
import { firstAbove } from './crossed-length.js';

/** What holds together of all layers, with its box. */
interface Part {
  readonly outer: Ring;
  readonly box: Box;
}

/** Between which places a line may run, mm. */
export interface LineRoom {
  readonly low: number;
  readonly high: number;
  readonly top: number;
  readonly bottom: number;
}

/** A line keeps so far from what it runs between, mm: a blade’s swivel and the hand’s. */
const CLEAR_MM = 1;
/** With more parts in its way nobody looks for a way between them. */
const MOST_PARTS = 300;

/** What holds together of some layers: a line that bends runs between these, and through none. */
export function partsOfAreas(areas: readonly Rings[]): readonly Part[] {
  return regionsOf(unite(areas.flat())).map(({ outer }) => ({ outer, box: boundsOf([outer])! }));
}

/**
 * A split line that crosses nothing, from top to bottom, upright with level steps: x, y, x, y, … It runs between all parts whose middle lies to the left of some place
 * and all others. Of several the one with the most room at its narrowest; null when there is none within its room.
 */
export function bentLine(parts: readonly Part[], room: LineRoom): number[] | null {
  const order = [...parts].sort((a, b) => middle(a) - middle(b));
  // What reaches beyond the room on one side can only lie on that side.
  const first = order.reduce((last, { box }, i) => (box.minX < room.low + CLEAR_MM ? i + 1 : last), 0);
  const end = order.findIndex(({ box }) => box.maxX > room.high - CLEAR_MM);
  const last = end < 0 ? order.length : end;
  if (last - first > MOST_PARTS) return null;
  let best: { readonly line: number[]; readonly width: number } | null = null;
  for (let k = first; k <= last; k += 1) {
    const found = between(order.slice(0, k), order.slice(k), room);
    if (found && found.width > (best?.width ?? 0)) best = found;
  }
  return best?.line ?? null;
}

function middle({ box }: Part): number {
  return box.minX + box.maxX;
}

/** The corridor between two groups of parts, stretch by stretch from top to bottom, and a line through it with few steps. */
function between(
  left: readonly Part[],
  right: readonly Part[],
  { low, high, top, bottom }: LineRoom,
): { readonly line: number[]; readonly width: number } | null {
  const near = (part: Part) => part.box.maxX > low - CLEAR_MM && part.box.minX < high + CLEAR_MM;
  const [leftNear, rightNear] = [left.filter(near), right.filter(near)];
  const ys = heights([...leftNear, ...rightNear], top, bottom);
  const from = reach(leftNear, ys, 1).map((x) => Math.max(low, x + CLEAR_MM));
  const to = reach(rightNear, ys, -1).map((x) => Math.min(high, x - CLEAR_MM));
  const width = Math.min(...from.map((x, i) => to[i]! - x));
  if (ys.length < 2 || width <= 0) return null;
  const line: number[] = [];
  for (let i = 0; i < from.length;) {
    // As far down as one upright stretch goes.
    let [a, b, j] = [from[i]!, to[i]!, i];
    while (j + 1 < from.length && Math.max(a, from[j + 1]!) <= Math.min(b, to[j + 1]!)) {
      j += 1;
      [a, b] = [Math.max(a, from[j]!), Math.min(b, to[j]!)];
    }
    line.push((a + b) / 2, ys[i]!, (a + b) / 2, ys[j + 1]!);
    i = j + 1;
  }
  return { line, width };
}

/** No stretch is higher, as a share of the whole: within one, a slanted edge counts as far as it reaches. */
const STRETCHES = 400;

/** Where stretches end: a little above and below all corners, and no further apart than slanted edges allow. */
function heights(parts: readonly Part[], top: number, bottom: number): number[] {
  const corners = parts.flatMap(({ outer }) =>
    [...outer.filter((_, i) => i % 2 === 1)].flatMap((y) => [y - CLEAR_MM, y + CLEAR_MM]),
  );
  const even = Array.from({ length: STRETCHES + 1 }, (_, i) => top + ((bottom - top) * i) / STRETCHES);
  return [...new Set([...even, ...corners])].filter((y) => y >= top && y <= bottom).sort((a, b) => a - b);
}

/** How far parts reach to one side within each stretch between two heights, and as far above and below as a line must keep clear. */
function reach(parts: readonly Part[], ys: readonly number[], side: 1 | -1): number[] {
  const out = new Array<number>(Math.max(0, ys.length - 1)).fill(side === 1 ? -Infinity : Infinity);
  const far = side === 1 ? Math.max : Math.min;
  for (const { outer } of parts) {
    for (let i = 0, j = outer.length - 2; i < outer.length; j = i, i += 2) {
      const [x0, y0, x1, y1] = [outer[j]!, outer[j + 1]!, outer[i]!, outer[i + 1]!];
      const [upper, lower] = [Math.min(y0, y1), Math.max(y0, y1)];
      for (
        let k = Math.max(0, firstAbove(ys, upper - CLEAR_MM) - 1);
        k < out.length && ys[k]! < lower + CLEAR_MM;
        k += 1
      ) {
        const at = (y: number) => x0 + ((x1 - x0) * (Math.min(lower, Math.max(upper, y)) - y0)) / (y1 - y0);
        out[k] = y0 === y1 ? far(out[k]!, x0, x1) : far(out[k]!, at(ys[k]! - CLEAR_MM), at(ys[k + 1]! + CLEAR_MM));
      }
    }
  }
  return out;
}
