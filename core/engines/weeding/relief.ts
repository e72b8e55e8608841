import Flatbush from 'flatbush';
import {
  boundsOf,
  edgesOf,
  grow,
  lineLength,
  regionsOf,
  squareToEdge,
  subtract,
  type Edges,
  type Rings,
} from '../../geometry/index.js';
import { pointsAlong, roomyCircles, settled, type Roomy } from './roomy.js';
import { onBorderOf, routesIn, type OnBorder, type Routes } from './routes.js';
import { RELIEF, type ReliefLine, type ReliefWish } from './relief-wish.js';
import { insideOf, type Waste } from './waste.js';

interface ReliefOptions {
  /** Lines that are there already, the maker's: they count, and stay. */
  readonly taken?: readonly ReliefLine[];
  readonly onProgress?: (done: number) => void;
}

/** Offsets of round corners are chords: so much more keeps them clear by what is asked for, mm. */
const CHORD_MM = 0.021;
/** Corners of where lines may run are round to this, mm. */
const ARC_MM = 0.02;
/** Points on outlines lie this near, mm: circles of the size of a hand are then true to 0.03 mm, on the safe side. */
const STEP_MM = 3;
/** By so much at most circles between those points are too large, mm. */
const HAIR_MM = 0.05;
/** Places at which a circle would fit are looked at on a grid of this share of it. */
const GRID_SHARE = 0.2;
/** Places this many steps of the grid apart hang together. */
const TOGETHER = 1.6;
/** Directions in which straight lines are tried. */
const DIRECTIONS = 12;
/** A hair less than fits, so that two lines side by side leave nothing between them. */
const NEARLY = 0.999;
/** More lines than these help nobody. */
const MOST_LINES = 200;

/**
 * Few lines that part the waste into strips in which nothing larger than a wished circle fits, wherever a line can reach. They run from border to border, or from the border to an outline;
 * straight where that does, else bent round what stays, and never nearer to it than is wished. Taking any one of them away leaves a strip too large.
 *
 * Where a circle fits, its middle lies on the medial axis of the waste, which is looked at anew, by a triangulation of its outlines, after every few lines: about n log n for n points on them.
 * `onProgress` is told how far along it is, 0 to 1.
 */
export function reliefLines(
  waste: Waste,
  { bulkMm, clearMm }: ReliefWish = RELIEF,
  { taken = [], onProgress }: ReliefOptions = {},
): ReliefLine[] {
  const box = boundsOf(waste.border);
  // No circle fits into a box that is narrower.
  if (!box || Math.min(box.maxX - box.minX, box.maxY - box.minY) <= bulkMm) return [];
  const radiusMm = bulkMm / 2;
  const stepMm = bulkMm * GRID_SHARE;
  const isWaste = insideOf(waste.rings);
  const unreached: Place[] = [];
  const tooLarge = (lines: readonly ReliefLine[]) =>
    largeCircles(waste.rings, [...taken, ...lines], radiusMm, isWaste).filter(
      ({ xMm, yMm }) => !unreached.some(({ x, y }) => Math.hypot(x - xMm, y - yMm) < TOGETHER * stepMm),
    );
  const ways = waysIn(waste, clearMm);
  let lines: ReliefLine[] = [];
  const places: Place[] = [];
  let large = tooLarge([]);
  while (large.length > 0 && lines.length < MOST_LINES) {
    let left = placesOf(large, waste.rings, [...taken, ...lines], { radiusMm, stepMm, isWaste });
    places.push(...left);
    const all = left.length;
    while (left.length > 0) {
      const cluster = clustersOf(left, TOGETHER * stepMm)[0]!;
      const added = linesFor(cluster, ways, radiusMm);
      lines.push(...added);
      // What no line can reach stays as it is.
      if (added.length === 0) unreached.push(...cluster);
      const settled = added.length === 0 ? new Set(cluster) : null;
      left = left.filter((place) => !settled?.has(place) && !added.some((line) => isReached(place, line, radiusMm)));
      onProgress?.(1 - left.length / all);
    }
    // Between places on a grid a little may be left.
    large = tooLarge(lines);
  }
  lines = withoutIdle(lines, places, radiusMm, (some) => tooLarge(some).length === 0);
  return lines;
}

/** A place at which a circle of the wished size fits. */
interface Place {
  readonly x: number;
  readonly y: number;
  /** It does not only seem so for want of points on edges. */
  readonly isSure: boolean;
}

/** Circles larger than wished that fit between outlines and lines; none only where there is none. */
function largeCircles(
  outlines: Rings,
  lines: readonly ReliefLine[],
  radiusMm: number,
  isWaste: (x: number, y: number) => boolean,
): Roomy[] {
  const found = roomyCircles(pointsAlong(outlines, lines, STEP_MM), radiusMm).filter(({ xMm, yMm }) =>
    isWaste(xMm, yMm),
  );
  // Between points on edges circles come out a hair too large: where that matters they are looked at closely.
  if (found.some((circle) => circle.radiusMm > radiusMm + HAIR_MM)) return found;
  const edges = edgesOf(outlines, lines);
  return found.filter((circle) => settled(edges, circle, isWaste).radiusMm > radiusMm);
}

interface PlacesHow {
  readonly radiusMm: number;
  readonly stepMm: number;
  readonly isWaste: (x: number, y: number) => boolean;
}

/** Where circles of the wished size fit: the middles of those that are larger, and of those round them on a grid. */
function placesOf(
  large: readonly Roomy[],
  outlines: Rings,
  lines: readonly ReliefLine[],
  { radiusMm, stepMm, isWaste }: PlacesHow,
): Place[] {
  const points = pointsAlong(outlines, lines, STEP_MM);
  const index = new Flatbush(points.length / 2);
  for (let i = 0; i < points.length; i += 2) index.add(points[i]!, points[i + 1]!, points[i]!, points[i + 1]!);
  index.finish();
  const places: Place[] = large.map(({ xMm, yMm, radiusMm: fits }) => ({
    x: xMm,
    y: yMm,
    isSure: fits > radiusMm + HAIR_MM,
  }));
  const [left, top] = [
    Math.min(...large.map((c) => c.xMm - c.radiusMm)),
    Math.min(...large.map((c) => c.yMm - c.radiusMm)),
  ];
  const [right, bottom] = [
    Math.max(...large.map((c) => c.xMm + c.radiusMm)),
    Math.max(...large.map((c) => c.yMm + c.radiusMm)),
  ];
  for (let x = Math.ceil(left / stepMm) * stepMm; x <= right; x += stepMm) {
    for (let y = Math.ceil(top / stepMm) * stepMm; y <= bottom; y += stepMm) {
      if (index.neighbors(x, y, 1, radiusMm + HAIR_MM).length === 0 && isWaste(x, y))
        places.push({ x, y, isSure: true });
    }
  }
  return places;
}

/** Places that hang together, those of most first. */
function clustersOf(places: readonly Place[], reachMm: number): Place[][] {
  const index = new Flatbush(places.length);
  for (const { x, y } of places) index.add(x, y, x, y);
  index.finish();
  const isLeft = new Array<boolean>(places.length).fill(true);
  const clusters: Place[][] = [];
  places.forEach((_, start) => {
    if (!isLeft[start]) return;
    isLeft[start] = false;
    const found = [start];
    for (let next = 0; next < found.length; next += 1) {
      const { x, y } = places[found[next]!]!;
      for (const other of index.search(x - reachMm, y - reachMm, x + reachMm, y + reachMm)) {
        if (!isLeft[other]) continue;
        isLeft[other] = false;
        found.push(other);
      }
    }
    clusters.push(found.map((i) => places[i]!));
  });
  return clusters.sort((a, b) => b.length - a.length);
}

/** Where lines may run. */
interface Ways {
  /** Straight ones, through all places that are clear of what stays. */
  readonly directions: readonly Direction[];
  readonly isOnBorder: OnBorder;
  readonly pieces: readonly { readonly routes: Routes; readonly holds: (x: number, y: number) => boolean }[];
}

function waysIn({ border, stays }: Waste, clearMm: number): Ways {
  const allowed = subtract(border, grow(stays, clearMm + CHORD_MM, ARC_MM));
  const edges = edgesOf(allowed, []);
  const isOnBorder = onBorderOf(border);
  return {
    directions: Array.from({ length: DIRECTIONS }, (_, d) => directionOf(edges, (Math.PI * d) / DIRECTIONS)),
    isOnBorder,
    pieces: regionsOf(allowed).map((region) => ({
      routes: routesIn(region, isOnBorder),
      holds: insideOf([region.outer, ...region.holes]),
    })),
  };
}

/** The lines that reach all of a cluster with the fewest: side by side in the direction that does best. Empty when none reaches any of it. */
function linesFor(cluster: readonly Place[], ways: Ways, radiusMm: number): ReliefLine[] {
  let best: { readonly lines: ReliefLine[]; readonly cost: number } | null = null;
  for (const direction of ways.directions) {
    const made = sideBySide(cluster, ways, radiusMm, direction);
    if (made && (!best || made.cost < best.cost - 1e-9)) best = made;
  }
  return best?.lines ?? [];
}

/** A bent line costs somewhat more than a straight one, what is left as many as would be needed for it, and a metre of cutting a part of one. */
const BENT_COST = 0.3;
const METRE_COST = 0.4;

function sideBySide(
  cluster: readonly Place[],
  ways: Ways,
  radiusMm: number,
  { cos, sin, stretchesAt }: Direction,
): { readonly lines: ReliefLine[]; readonly cost: number } | null {
  // s along the lines, t across them.
  const turned = cluster
    .map((place) => ({ place, s: place.x * cos + place.y * sin, t: place.y * cos - place.x * sin }))
    .sort((a, b) => a.t - b.t);
  const [low, high] = [turned[0]!.t, turned.at(-1)!.t];
  const count = Math.max(1, Math.ceil((high - low) / (2 * radiusMm * NEARLY)));
  const left = new Set(cluster);
  const lines: ReliefLine[] = [];
  let bent = 0;
  let first = 0;
  for (let i = 0; i < count; i += 1) {
    const t = low + ((i + 0.5) * (high - low)) / count;
    // Only places beside the line can be reached by it.
    while (first < turned.length && turned[first]!.t <= t - radiusMm) first += 1;
    let last = first;
    while (last < turned.length && turned[last]!.t < t + radiusMm) last += 1;
    const beside = turned.slice(first, last);
    for (const [from, to] of beside.length === 0 ? [] : stretchesAt(t)) {
      const reached = beside.filter(
        (one) =>
          left.has(one.place) && Math.hypot(one.t - t, one.s - Math.min(to, Math.max(from, one.s))) < radiusMm * NEARLY,
      );
      if (reached.length === 0) continue;
      const at = (s: number): [number, number] => [s * cos - t * sin, s * sin + t * cos];
      const made = lineThrough(
        at(from),
        at(to),
        at(middleOf(reached.map(({ s }) => Math.min(to, Math.max(from, s))))),
        ways,
      );
      if (!made) continue;
      const before = left.size;
      if (made.isBent) {
        for (const place of left) if (isReached(place, made.line, radiusMm * NEARLY)) left.delete(place);
      } else for (const { place } of reached) left.delete(place);
      if (left.size === before) continue;
      lines.push(made.line);
      if (made.isBent) bent += 1;
    }
  }
  if (lines.length === 0) return null;
  const leftCost = (left.size / cluster.length) * Math.max(2, count + 1);
  return {
    lines,
    cost:
      lines.length +
      BENT_COST * bent +
      leftCost +
      (METRE_COST * lines.reduce((sum, line) => sum + lineLength(line), 0)) / 1000,
  };
}

function middleOf(figures: readonly number[]): number {
  let [low, high] = [Infinity, -Infinity];
  for (const figure of figures) [low, high] = [Math.min(low, figure), Math.max(high, figure)];
  return (low + high) / 2;
}

/** Straight lines in one direction through what edges enclose. */
interface Direction {
  readonly cos: number;
  readonly sin: number;
  /** From where to where along it a line runs inside that lies so far out. */
  readonly stretchesAt: (t: number) => readonly (readonly [number, number])[];
}

/** Edges are looked up in strips of this width, mm: most are shorter. */
const BUCKET_MM = 4;

/** A direction, its edges sorted by how far out they lie, so that a line looks only at those that it may cross. */
function directionOf(edges: Edges, angle: number): Direction {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const buckets = new Map<number, number[]>();
  edges.forEach(([x0, y0, x1, y1], i) => {
    const [t0, t1] = [y0 * cos - x0 * sin, y1 * cos - x1 * sin];
    for (let k = Math.floor(Math.min(t0, t1) / BUCKET_MM); k <= Math.floor(Math.max(t0, t1) / BUCKET_MM); k += 1) {
      const bucket = buckets.get(k);
      if (bucket) bucket.push(i);
      else buckets.set(k, [i]);
    }
  });
  return {
    cos,
    sin,
    stretchesAt(t) {
      const at: number[] = [];
      for (const i of buckets.get(Math.floor(t / BUCKET_MM)) ?? []) {
        const [x0, y0, x1, y1] = edges[i]!;
        const [t0, t1] = [y0 * cos - x0 * sin - t, y1 * cos - x1 * sin - t];
        if (t0 > 0 === t1 > 0) continue;
        const [s0, s1] = [x0 * cos + y0 * sin, x1 * cos + y1 * sin];
        at.push(s0 + ((s1 - s0) * t0) / (t0 - t1));
      }
      at.sort((a, b) => a - b);
      return Array.from({ length: Math.floor(at.length / 2) }, (_, i) => [at[2 * i]!, at[2 * i + 1]!] as const);
    },
  };
}

type Point = readonly [number, number];

/** A straight stretch, when it begins or ends on the border; else a way in from the border that goes on along it. */
function lineThrough(
  from: Point,
  to: Point,
  place: Point,
  { isOnBorder, pieces }: Ways,
): { readonly line: ReliefLine; readonly isBent: boolean } | null {
  if (isOnBorder(...from)) return { line: [...from, ...to], isBent: false };
  if (isOnBorder(...to)) return { line: [...to, ...from], isBent: false };
  const way = pieces.find(({ holds }) => holds(...place))?.routes.fromBorder(...place);
  if (!way || way.length < 4) return null;
  // On in the direction it came from.
  const [dx, dy] = [place[0] - way.at(-4)!, place[1] - way.at(-3)!];
  const ahead = dx * (to[0] - from[0]) + dy * (to[1] - from[1]) >= 0 ? to : from;
  return { line: [...way, ...ahead], isBent: true };
}

function isReached({ x, y }: Place, line: ReliefLine, radiusMm: number): boolean {
  for (let i = 2; i < line.length; i += 2)
    if (squareToEdge(x, y, line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!) < radiusMm * radiusMm) return true;
  return false;
}

/** Lines without those that are not needed, the longest tried first. One that alone reaches a place at which a circle would fit is needed; of others it is looked at closely. */
function withoutIdle(
  lines: readonly ReliefLine[],
  places: readonly Place[],
  radiusMm: number,
  isEnough: (lines: readonly ReliefLine[]) => boolean,
): ReliefLine[] {
  let kept = [...lines];
  for (const line of [...lines].sort((a, b) => lineLength(b) - lineLength(a))) {
    const others = kept.filter((other) => other !== line);
    const isNeeded = places.some(
      (place) =>
        place.isSure && isReached(place, line, radiusMm) && !others.some((other) => isReached(place, other, radiusMm)),
    );
    if (!isNeeded && isEnough(others)) kept = others;
  }
  return kept;
}
