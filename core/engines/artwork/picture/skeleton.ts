import { simplifyLine, simplifyRing } from '../../../geometry/index.js';
import { middleOfPixel } from './pixels.js';

/** Branches of a skeleton shorter than this, in pixels, are the bristles that thinning leaves. */
const BRISTLE = 4;
/** The middle of a line is looked for this far round a pixel of its skeleton. */
const ROUND = 2;
/** Points of a line nearer to its straight way than this, pixels, are left out. */
const STRAIGHT = 0.12;

/** The eight neighbours of a pixel in order round it. */
const around = (p: number, width: number) => [
  p - width,
  p - width + 1,
  p + 1,
  p + width + 1,
  p + width,
  p + width - 1,
  p - 1,
  p - width - 1,
];

/** Above, below, at the right and at the left, among the eight. */
const SIDES = [0, 4, 2, 6];

/**
 * The skeleton of some pixels, one pixel wide. It takes pixels away layer by layer, from each of the four sides in turn, where nothing comes apart or closes. The
 * pixels that hold least of the line go first, so that the skeleton runs along its middle. A turn takes only pixels that were open to its side when it began:
 * otherwise it would eat a line from its end where all pixels hold the same.
 *
 * @see C. J. Hilditch, “Linear skeletons from square cupboards”, 1969, for when a pixel may go
 */
export function thinned(body: ReadonlySet<number>, width: number, share: (p: number) => number): Set<number> {
  const out = new Set(body);
  const inTurn = [...body].sort((a, b) => share(a) - share(b) || a - b);
  for (let isChanged = true; isChanged;) {
    isChanged = false;
    for (const side of SIDES) {
      for (const p of inTurn.filter((p) => out.has(p) && !out.has(around(p, width)[side]!))) {
        if (!mayGo(around(p, width).map((q) => out.has(q)))) continue;
        out.delete(p);
        isChanged = true;
      }
    }
  }
  return out;
}

/** Whether a pixel with these neighbours is no end, and holds nothing together. */
function mayGo(round: readonly boolean[]): boolean {
  if (round.filter(Boolean).length < 2) return false;
  let ways = 0;
  for (let i = 0; i < 8; i += 2) if (!round[i] && (round[i + 1] || round[(i + 2) % 8])) ways += 1;
  return ways === 1;
}

export interface SkeletonLine {
  readonly points: readonly number[];
  readonly closed: boolean;
  /** Its pixels of the skeleton, both ends included. */
  readonly pixels: readonly number[];
}

/** The lines of a skeleton from end to end or from fork to fork, each point moved to where most of the line lies. `share` is how much of it a pixel holds. */
export function linesOfSkeleton(
  skeleton: ReadonlySet<number>,
  width: number,
  share: (p: number) => number,
): SkeletonLine[] {
  const next = (p: number) => neighboursOf(p, skeleton, width);
  const isEnd = (p: number) => next(p).length !== 2;
  const seen = new Set<string>();
  const step = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);
  const walk = (from: number, to: number): number[] => {
    const chain = [from, to];
    seen.add(step(from, to));
    while (!isEnd(chain.at(-1)!) && chain.at(-1) !== from) {
      const on = next(chain.at(-1)!).find((q) => q !== chain.at(-2));
      if (on === undefined || seen.has(step(chain.at(-1)!, on))) break;
      seen.add(step(chain.at(-1)!, on));
      chain.push(on);
    }
    return chain;
  };
  const chains: number[][] = [];
  const walkAll = (starts: Iterable<number>) => {
    for (const p of starts) for (const q of next(p)) if (!seen.has(step(p, q))) chains.push(walk(p, q));
  };
  walkAll([...skeleton].filter(isEnd));
  walkAll(skeleton);
  const isBristle = (chain: readonly number[]) =>
    chain.length < BRISTLE && chains.length > 1 && [chain[0]!, chain.at(-1)!].some((p) => next(p).length === 1);
  const middle = (p: number): [number, number] => {
    let [sum, x, y] = [0, 0, 0];
    for (let v = -ROUND; v <= ROUND; v += 1)
      for (let u = -ROUND; u <= ROUND; u += 1) {
        const held = share(p + v * width + u);
        [sum, x, y] = [sum + held, x + held * u, y + held * v];
      }
    const [px, py] = middleOfPixel(p, width);
    return sum === 0 ? [px, py] : [px + x / sum, py + y / sum];
  };
  return chains
    .filter((chain) => !isBristle(chain))
    .map((chain) => {
      const closed = chain.length > 3 && chain[0] === chain.at(-1);
      const own = closed ? chain.slice(0, -1) : chain;
      const points = own.map(middle);
      if (!closed) {
        // Beyond an end there is nothing of the line: its middle would be drawn in.
        [points[0], points[points.length - 1]] = [middleOfPixel(own[0]!, width), middleOfPixel(own.at(-1)!, width)];
      }
      const line = Float64Array.from(points.flat());
      return {
        points: [...(closed ? simplifyRing(line, STRAIGHT) : simplifyLine(line, STRAIGHT))],
        closed,
        pixels: own,
      };
    });
}

/** The length of a line in pixels, the way back to its first point included where it is closed. */
export function lengthOf({ points, closed }: Pick<SkeletonLine, 'points' | 'closed'>): number {
  let sum = 0;
  for (let i = 2; i < points.length; i += 2)
    sum += Math.hypot(points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!);
  return closed ? sum + Math.hypot(points[0]! - points.at(-2)!, points[1]! - points.at(-1)!) : sum;
}

/** Where steps along an edge lead as well, those over a corner are left out: a skeleton has no triangles. */
function neighboursOf(p: number, skeleton: ReadonlySet<number>, width: number): number[] {
  const all = around(p, width);
  return all.filter((q, i) => {
    if (!skeleton.has(q)) return false;
    if (i % 2 === 0) return true;
    return !skeleton.has(all[i - 1]!) && !skeleton.has(all[(i + 1) % 8]!);
  });
}
