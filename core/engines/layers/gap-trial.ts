import { boundsOf, containsPoint, type Box, type Rings } from '../../geometry/index.js';
import type { BuiltLayer } from './layer.js';

/*
 * The judgement nobody can make by eye: the layers are laid many times with chance slips, and how often bare surface shows is counted.
 * A shared edge opens at a point by how much the upper layer moves away from the lower one there, less the lap. As the lap only
 * subtracts, one run of placements tells the risk for every trap width.
 */

/** How layers go wrong. Lengths in mm; what happens by chance is normal, and three standard deviations of it are the figure given. */
export interface GapTrialTerms {
  /** a: error at each of the two places where a layer is aligned, each way. */
  readonly placementErrorMm: number;
  /** c: error of the cutter, each layer, each way. */
  readonly repeatabilityMm: number;
  /** The marks; null when layers are laid by eye, each along the edge that it shares. */
  readonly marks: readonly [Place, Place] | null;
  /** What is laid first: the others are aligned to it. */
  readonly first: string;
  readonly pair: (lower: string, upper: string) => PairTerms;
}

/** What no hand can help in a pair of films. */
export interface PairTerms {
  /** By how much more the lower one shrinks as a whole, as a fraction. */
  readonly shrink: number;
  /** e₁ + e₂: how far the edges of both draw back. */
  readonly drawBackMm: number;
  /** Round the edge that they share: by eye they are aligned along its longest side. */
  readonly box: Box;
}

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** How one layer runs under another: not at all, by the trap that is tried, or as far as it was cut. */
export type LapOf = (lower: string, upper: string) => 'none' | 'trap' | 'cut';

export interface GapTrialOptions {
  readonly terms: GapTrialTerms;
  readonly lap: LapOf;
  readonly trapMm: number;
  /** A gap narrower than this cannot be seen. */
  readonly visibleMm: number;
  readonly placements: number;
  readonly seed: number;
}

/** A stretch of a shared edge, by its middle, and how often it opens. */
export interface HeatSpot extends Place {
  /** Across the edge, of length 1. */
  readonly nx: number;
  readonly ny: number;
  readonly longMm: number;
  /** Of all placements, the share that shows bare surface here. */
  readonly share: number;
}

export interface GapTrial {
  readonly placements: number;
  /** Share of the placements with a gap that can be seen. */
  readonly risk: number;
  /** The widest gap in any placement, mm. */
  readonly widestMm: number;
  /** The pair whose edge opens oftenest, or null when none does. */
  readonly worst: { readonly lower: string; readonly upper: string; readonly risk: number } | null;
  readonly heat: readonly HeatSpot[];
  /** Risk by trap width, from none upwards. */
  readonly curve: readonly { readonly trapMm: number; readonly risk: number }[];
  /** The least trap at which no more than a share of the placements shows a gap; null when none is wide enough. */
  readonly trapFor: (risk: number) => number | null;
}

/** A point of a shared edge: its pair, the way into the upper layer, and how much of that layer lies ahead. */
interface EdgePoint extends Place {
  readonly pair: number;
  readonly nx: number;
  readonly ny: number;
  /** The most that the lower layer can run under here. */
  readonly roomMm: number;
}

/** At most so many points are looked at, evenly along all shared edges. */
const MOST_POINTS = 3000;
/** Points lie no closer than this, mm. */
const LEAST_STEP_MM = 0.5;
/** Beside an edge, far enough to be in the neighbour and not in its rounding. */
const BESIDE_MM = 0.02;
/** Laps deeper than this never show. */
const DEEP_MM = 20;

/** The curve goes up to this trap in steps of so much, mm. */
const CURVE_TO_MM = 2;
const CURVE_STEP_MM = 0.05;

/** Lays a build many times. The same seed gives the same answer. */
export function gapTrial(layers: readonly BuiltLayer[], options: GapTrialOptions): GapTrial {
  const { points, pairs, stepMm } = sharedEdges(layers, options.lap);
  const { placements, visibleMm, trapMm } = options;
  const random = normals(options.seed);
  const opened = new Float64Array(points.length);
  /** For each placement the trap that would have been needed, and whether some edge opens that no trap helps. */
  const needed = new Float64Array(placements).fill(-Infinity);
  const fixed = new Uint8Array(placements);
  const byPair = new Float64Array(pairs.length);
  let widestMm = 0;
  const order = layers.map((layer) => layer.key);
  const between = pairMoves(order, pairs, options.terms, random);
  for (let n = 0; n < placements; n += 1) {
    const moves = between();
    const shown = new Uint8Array(pairs.length);
    for (const [i, point] of points.entries()) {
      const pair = pairs[point.pair]!;
      const away = awayAt(point, moves[point.pair]!);
      const isTrap = pair.lap === 'trap';
      const lap = isTrap ? Math.min(trapMm, point.roomMm) : point.roomMm;
      const gap = away - lap;
      if (gap > visibleMm) {
        opened[i]! += 1;
        shown[point.pair] = 1;
        if (gap > widestMm) widestMm = gap;
      }
      // What no trap would have hidden: there is no lap here, or no room for one.
      if (away - point.roomMm > visibleMm) fixed[n] = 1;
      if (isTrap && away - visibleMm > needed[n]!) needed[n] = away - visibleMm;
    }
    for (let p = 0; p < pairs.length; p += 1) byPair[p]! += shown[p]!;
  }
  const share = (t: number) => needed.reduce((sum, need, n) => sum + (fixed[n] || need > t ? 1 : 0), 0) / placements;
  const worst = byPair.reduce((best, value, p) => (value > byPair[best]! ? p : best), 0);
  const steps = Math.round(CURVE_TO_MM / CURVE_STEP_MM);
  return {
    placements,
    risk: share(trapMm),
    widestMm,
    worst:
      pairs.length > 0 && byPair[worst]! > 0
        ? { lower: order[pairs[worst]!.lower]!, upper: order[pairs[worst]!.upper]!, risk: byPair[worst]! / placements }
        : null,
    heat: points.map(({ x, y, nx, ny }, i) => ({ x, y, nx, ny, longMm: stepMm, share: opened[i]! / placements })),
    curve: Array.from({ length: steps + 1 }, (_, i) => ({
      trapMm: Number((i * CURVE_STEP_MM).toFixed(2)),
      risk: share(i * CURVE_STEP_MM),
    })),
    trapFor: (risk) => {
      for (let i = 0; i <= steps; i += 1)
        if (share(i * CURVE_STEP_MM) <= risk) return Number((i * CURVE_STEP_MM).toFixed(2));
      return null;
    },
  };
}

/** How the upper layer of a pair has moved against the lower one: a point at p from `at` opens by (d + turn × p + shrink·p)·n + back. */
interface Move {
  readonly dx: number;
  readonly dy: number;
  readonly turn: number;
  readonly shrink: number;
  readonly back: number;
  readonly at: Place;
}

/** What a hand does to one layer. */
type Slip = Pick<Move, 'dx' | 'dy' | 'turn'>;

/** With every call another placement: the moves of all pairs. */
function pairMoves(
  order: readonly string[],
  pairs: readonly { readonly lower: number; readonly upper: number }[],
  { placementErrorMm, repeatabilityMm, marks, first, pair }: GapTrialTerms,
  random: () => number,
): () => Move[] {
  const [hand, knife] = [placementErrorMm / 3, repeatabilityMm / 3];
  const fixed = pairs.map(({ lower, upper }) => {
    const { shrink, drawBackMm: back, box } = pair(order[lower]!, order[upper]!);
    const line = marks ?? endsOf(box);
    return {
      lower,
      upper,
      shrink,
      back,
      line,
      at: middleOf(line),
      isThird: order[lower] !== first && order[upper] !== first,
    };
  });
  return () => {
    // The first layer is what the others are aligned to; its own errors move everything alike.
    const laid = order.map((key): Slip => (marks && key !== first ? slipAt(marks, hand, random) : STILL));
    const cut = order.map(() => [knife * random(), knife * random()] as const);
    return fixed.map(({ lower, upper, shrink, back, line, at, isThird }): Move => {
      // By eye each pair is aligned for itself; two that were both aligned to a third may both be off.
      const [low, high] = marks
        ? [laid[lower]!, laid[upper]!]
        : [isThird ? slipAt(line, hand, random) : STILL, slipAt(line, hand, random)];
      const [[lowX, lowY], [highX, highY]] = [cut[lower]!, cut[upper]!];
      return {
        dx: high.dx + highX - low.dx - lowX,
        dy: high.dy + highY - low.dy - lowY,
        turn: high.turn - low.turn,
        shrink,
        back,
        at,
      };
    });
  };
}

const STILL: Slip = { dx: 0, dy: 0, turn: 0 };

function slipAt([a, b]: readonly [Place, Place], hand: number, random: () => number): Slip {
  const [ax, ay, bx, by] = [hand * random(), hand * random(), hand * random(), hand * random()];
  const length = Math.max(Math.hypot(b.x - a.x, b.y - a.y), 1e-6);
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length];
  // What the two are off by across the line between them turns the layer.
  return { dx: (ax + bx) / 2, dy: (ay + by) / 2, turn: ((bx - ax) * -uy + (by - ay) * ux) / length };
}

/** The ends of a box along its longest side, at least a millimetre apart. */
function endsOf({ minX, minY, maxX, maxY }: Box): readonly [Place, Place] {
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const half = Math.max(maxX - minX, maxY - minY, 1) / 2;
  return maxX - minX >= maxY - minY
    ? [
        { x: x - half, y },
        { x: x + half, y },
      ]
    : [
        { x, y: y - half },
        { x, y: y + half },
      ];
}

function middleOf([a, b]: readonly [Place, Place]): Place {
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
}

function awayAt({ x, y, nx, ny }: EdgePoint, { dx, dy, turn, shrink, back, at }: Move): number {
  const [px, py] = [x - at.x, y - at.y];
  return (dx - turn * py + shrink * px) * nx + (dy + turn * px + shrink * py) * ny + back;
}

/** Points along the edges at which a layer borders one above it. */
function sharedEdges(
  layers: readonly BuiltLayer[],
  lap: LapOf,
): { points: EdgePoint[]; pairs: { lower: number; upper: number; lap: ReturnType<LapOf> }[]; stepMm: number } {
  const boxed = layers.map((layer) => ({ ...layer, box: boundsOf(layer.visible) }));
  const whole = boxed.reduce((sum, layer) => sum + layer.visible.reduce((n, ring) => n + ringLength(ring), 0), 0);
  const step = Math.max(LEAST_STEP_MM, whole / MOST_POINTS);
  const pairs: { lower: number; upper: number; lap: ReturnType<LapOf> }[] = [];
  const pairOf = (lower: number, upper: number) => {
    const known = pairs.findIndex((pair) => pair.lower === lower && pair.upper === upper);
    if (known >= 0) return known;
    pairs.push({ lower, upper, lap: lap(layers[lower]!.key, layers[upper]!.key) });
    return pairs.length - 1;
  };
  const rooms = boxed.map((_, lower) => boxed.slice(lower).map((layer) => layer.visible));
  const points: EdgePoint[] = [];
  boxed.forEach((layer, lower) => {
    for (const { x, y, nx, ny } of walk(layer.visible, step)) {
      // An outer ring is walked with its inside on one side, a hole with it on the same: outwards is the upper layer's side.
      const [bx, by] = [x + nx * BESIDE_MM, y + ny * BESIDE_MM];
      const upper = boxed.findIndex(
        (other, i) =>
          i > lower && other.box !== null && inBox(other.box, bx, by) && containsPoint(other.visible, bx, by),
      );
      if (upper < 0) continue;
      const pair = pairOf(lower, upper);
      // Under a trap the layer may run as far as it is itself, or what lies over it.
      const { lap: kind } = pairs[pair]!;
      const roomMm =
        kind === 'none'
          ? 0
          : kind === 'cut'
            ? depthAlong([layer.cut], bx, by, nx, ny)
            : depthAlong(rooms[lower]!, bx, by, nx, ny);
      points.push({ x, y, nx, ny, pair, roomMm });
    }
  });
  return { points, pairs, stepMm: step };
}

function inBox(box: Box, x: number, y: number): boolean {
  return x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
}

function ringLength(ring: Float64Array): number {
  let sum = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    sum += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  return sum;
}

/** Points along rings about `step` apart, with the way out of the area there. */
function* walk(rings: Rings, step: number): Generator<{ x: number; y: number; nx: number; ny: number }> {
  for (const ring of rings) {
    let next = step / 2;
    let gone = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay] = [ring[j]!, ring[j + 1]!];
      const [dx, dy] = [ring[i]! - ax, ring[i + 1]! - ay];
      const length = Math.hypot(dx, dy);
      while (next <= gone + length && length > 0) {
        const t = (next - gone) / length;
        // Outer rings have positive area with y down, so the inside lies to the right of the way; out is to the left.
        yield { x: ax + t * dx, y: ay + t * dy, nx: dy / length, ny: -dx / length };
        next += step;
      }
      gone += length;
    }
  }
}

/** How far a ray stays in any of some areas from a point inside one; 0 when it begins outside all. */
function depthAlong(areas: readonly Rings[], x: number, y: number, nx: number, ny: number): number {
  const isIn = (along: number) => areas.some((rings) => containsPoint(rings, x + nx * along, y + ny * along));
  if (!isIn(0)) return 0;
  const crossings: number[] = [];
  for (const rings of areas) {
    for (const ring of rings) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const ax = ring[j]! - x;
        const ay = ring[j + 1]! - y;
        const dx = ring[i]! - ring[j]!;
        const dy = ring[i + 1]! - ring[j + 1]!;
        const cross = nx * dy - ny * dx;
        if (cross === 0) continue;
        const along = (ax * dy - ay * dx) / cross;
        const share = (ax * ny - ay * nx) / cross;
        if (along > 0 && along < DEEP_MM && share >= 0 && share <= 1) crossings.push(along);
      }
    }
  }
  // A seam between two areas is no end: a little beyond it the ray is in the next.
  return crossings.sort((a, b) => a - b).find((along) => !isIn(along + BESIDE_MM)) ?? DEEP_MM;
}

/** Normal deviates from a seed (xorshift32, Box and Muller). */
function normals(seed: number): () => number {
  let state = (seed + 1) * 0x9e3779b9;
  const uniform = () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return ((state >>> 0) + 0.5) / 4294967296;
  };
  let spare: number | null = null;
  return () => {
    if (spare !== null) {
      const value = spare;
      spare = null;
      return value;
    }
    const r = Math.sqrt(-2 * Math.log(uniform()));
    const t = 2 * Math.PI * uniform();
    spare = r * Math.sin(t);
    return r * Math.cos(t);
  };
}
