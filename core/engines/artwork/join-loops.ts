import Flatbush from 'flatbush';
import { lineLength } from '../../geometry/index.js';

/** Ends nearer than this are meant to meet, mm. */
export const JOIN_MM = 0.1;
/** Ends further apart than this, or than this share of the shorter line, are not offered to be joined: that would be drawing, mm. */
const FARTHEST_JOIN_MM = 3;
const FARTHEST_SHARE = 0.25;

/** A line of points x0, y0, x1, y1, …, not closed. */
export type OpenLine = readonly number[];

/**
 * Joins lines whose ends lie within `tolerance` of each other into loops, nearest ends first come first served, each turned round
 * as needed. What stays open is given back as it was joined so far.
 */
export function joinLoops(lines: readonly OpenLine[], tolerance: number): { loops: number[][]; open: number[][] } {
  const loops: number[][] = [];
  const open: number[][] = [];
  if (lines.length === 0) return { loops, open };
  const ends = new Flatbush(2 * lines.length);
  for (const line of lines) {
    ends.add(line[0]!, line[1]!, line[0]!, line[1]!);
    ends.add(line.at(-2)!, line.at(-1)!, line.at(-2)!, line.at(-1)!);
  }
  ends.finish();
  const used = new Uint8Array(lines.length);
  /** The unused line with the end nearest to a point, if one is near enough: its index, whether that is its last end, and how far away it is. */
  const nextAt = (x: number, y: number): { line: number; last: boolean; apart: number } | null => {
    const [hit] = ends.neighbors(x, y, 1, tolerance, (i) => !used[i >> 1]);
    if (hit === undefined) return null;
    const [line, last] = [hit >> 1, (hit & 1) === 1];
    const end = lines[line]!;
    return { line, last, apart: Math.hypot(end.at(last ? -2 : 0)! - x, end.at(last ? -1 : 1)! - y) };
  };
  for (let start = 0; start < lines.length; start += 1) {
    if (used[start]) continue;
    used[start] = 1;
    let chain = [...lines[start]!];
    const gap = () => (chain.length > 4 ? Math.hypot(chain[0]! - chain.at(-2)!, chain[1]! - chain.at(-1)!) : Infinity);
    const isClosed = () => gap() <= tolerance;
    for (let turned = false; ;) {
      const next = nextAt(chain.at(-2)!, chain.at(-1)!);
      // Lines may be shorter than the tolerance: a chain ends where it began only when nothing nearer goes on.
      if (isClosed() && (!next || gap() <= next.apart)) break;
      if (next) {
        used[next.line] = 1;
        const line = lines[next.line]!;
        append(chain, next.last ? reversed(line) : line);
      } else if (turned) break;
      else {
        // Nothing goes on at this end; perhaps at the other.
        turned = true;
        chain = reversed(chain);
      }
    }
    (isClosed() ? loops : open).push(chain);
  }
  return { loops, open };
}

function append(chain: number[], line: OpenLine): void {
  for (let i = 2; i < line.length; i += 1) chain.push(line[i]!);
}

function reversed(line: OpenLine): number[] {
  const out: number[] = [];
  for (let i = line.length - 2; i >= 0; i -= 2) out.push(line[i]!, line[i + 1]!);
  return out;
}

/** How far apart ends would have to be joined for all open ones that are near enough to another; null when none is. `joinedMm` is what was joined already. */
export function joiningReach(open: readonly OpenLine[], joinedMm: number): number | null {
  // Ends are compared each with each: of a tangle no one joins by hand, a part tells enough.
  const gaps = nearestEnds(open.slice(0, 400)).filter((gap) => gap <= FARTHEST_JOIN_MM);
  return gaps.length === 0 ? null : Math.ceil(Math.max(...gaps, joinedMm + 0.05) * 10 + 1e-6) / 10;
}

/** How far apart the ends of lines are at least from another end, or from their own other one; infinitely far where nothing near is theirs. */
function nearestEnds(lines: readonly OpenLine[]): number[] {
  const ends = lines.flatMap((line) => {
    const longMm = lineLength(line);
    return [
      { x: line[0]!, y: line[1]!, longMm },
      { x: line.at(-2)!, y: line.at(-1)!, longMm },
    ];
  });
  return ends.map((end, at) =>
    Math.min(
      ...ends.map((other, i) => {
        const gap = Math.hypot(other.x - end.x, other.y - end.y);
        return i === at || gap > FARTHEST_SHARE * Math.min(end.longMm, other.longMm) ? Infinity : gap;
      }),
    ),
  );
}
