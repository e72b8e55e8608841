import { backwards, edgesOf, squareToEdge, type Edges, type Rings } from '../../geometry/index.js';
import type { ReliefLine } from './relief-wish.js';
import { insideOf, type Waste } from './waste.js';

/** An end that is drawn so near the border, or beyond it, is meant to lie on it, mm. */
const ON_BORDER_MM = 10;
/** An end so near an outline parts the film up to it, mm. */
const AT_OUTLINE_MM = 0.3;
/** Film tears on from a sharp end that lies in the open: there a line ends in a small round of this radius, mm. Source: trade practice. */
const ROUND_MM = 1.2;
const ROUND_POINTS = 7;
/** Lines are looked at this closely along them, mm. */
const STEP_MM = 0.5;

/** A line as a hand drew it, as it can be cut: ends near the border lie on it, ends in the open are rounded. Null when it comes nearer to what stays than `clearMm`. */
export function settledLine(line: ReliefLine, waste: Waste, clearMm: number): ReliefLine | null {
  const border = edgesOf(waste.border, []);
  const stays = edgesOf(waste.stays, []);
  const holds = insideOf(waste.border);
  const first = endOf(line[0]!, line[1]!, border, holds);
  const last = endOf(line.at(-2)!, line.at(-1)!, border, holds);
  const ends = [
    ...(first.isOnBorder
      ? first.at
      : isAtOutline(first.at, stays)
        ? first.at
        : rounded(first.at, [line[2]!, line[3]!])),
    ...line.slice(2, -2),
    ...(last.isOnBorder || isAtOutline(last.at, stays)
      ? last.at
      : backwards(rounded(last.at, [line.at(-4)!, line.at(-3)!]))),
  ];
  return isClear(ends, waste.stays, stays, clearMm) ? ends : null;
}

type Point = readonly [number, number];

function endOf(
  x: number,
  y: number,
  border: Edges,
  holds: (x: number, y: number) => boolean,
): { readonly at: Point; readonly isOnBorder: boolean } {
  let best: { readonly at: Point; readonly square: number } | null = null;
  for (const [x0, y0, x1, y1] of border) {
    const square = (x1 - x0) ** 2 + (y1 - y0) ** 2;
    const share = square === 0 ? 0 : Math.min(1, Math.max(0, ((x - x0) * (x1 - x0) + (y - y0) * (y1 - y0)) / square));
    const at: Point = [x0 + share * (x1 - x0), y0 + share * (y1 - y0)];
    const off = (at[0] - x) ** 2 + (at[1] - y) ** 2;
    if (!best || off < best.square) best = { at, square: off };
  }
  return best && (best.square <= ON_BORDER_MM ** 2 || !holds(x, y))
    ? { at: best.at, isOnBorder: true }
    : { at: [x, y], isOnBorder: false };
}

function isAtOutline([x, y]: Point, stays: Edges): boolean {
  return stays.some((edge) => squareToEdge(x, y, ...edge) < AT_OUTLINE_MM ** 2);
}

/** A small round that ends where the line goes on to the next point. */
function rounded([x, y]: Point, [nextX, nextY]: Point): number[] {
  const angle = Math.atan2(nextY - y, nextX - x);
  // Three quarters round a middle beside the line, back onto it.
  const [cx, cy] = [x - Math.sin(angle) * ROUND_MM, y + Math.cos(angle) * ROUND_MM];
  return Array.from({ length: ROUND_POINTS + 1 }, (_, i) => {
    const a = angle + (1.5 * Math.PI * i) / ROUND_POINTS - 2 * Math.PI;
    return [cx + ROUND_MM * Math.cos(a), cy + ROUND_MM * Math.sin(a)];
  }).flat();
}

function isClear(line: ReliefLine, rings: Rings, stays: Edges, clearMm: number): boolean {
  const covers = insideOf(rings);
  const least = (clearMm * 0.99) ** 2;
  for (let i = 2; i < line.length; i += 2) {
    const [x0, y0, x1, y1] = [line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!];
    const steps = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / STEP_MM));
    for (let k = 0; k <= steps; k += 1) {
      const [x, y] = [x0 + ((x1 - x0) * k) / steps, y0 + ((y1 - y0) * k) / steps];
      if (covers(x, y)) return false;
    }
    // Two that do not cross are nearest at an end of one of them.
    if (
      stays.some(
        ([sx, sy, ex, ey]) =>
          squareToEdge(sx, sy, x0, y0, x1, y1) < least ||
          squareToEdge(x0, y0, sx, sy, ex, ey) < least ||
          squareToEdge(x1, y1, sx, sy, ex, ey) < least,
      )
    )
      return false;
  }
  return true;
}
