import {
  areaOf,
  boundsOf,
  containsPoint,
  perimeter,
  signedArea,
  squareToEdge,
  subtract,
  translateRings,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { turned } from './shape.js';

/*
 * Pieces that were cut from one are put together again, as a puzzle is: from below, each into the lowest corner that is still free, by how well its edges meet what lies there. In a layout without a gap the piece
 * that covers the lowest free point (of several the leftmost) has a corner of its own there, and of those that meet in it one lies along the edge that leads on from it. So there are few ways on, and those in which
 * most edges meet are followed side by side.
 */

/** What is put together: an outline, counter-clockwise, and by how many degrees it may be turned. Pieces that are alike are the same object. */
export interface PuzzlePiece {
  readonly outline: Ring;
  readonly rotations: readonly number[] | 'free';
}

/** Turn the piece about the origin by `rotation` degrees counter-clockwise, then move it by x, y. */
export interface PuzzlePlace {
  readonly rotation: number;
  readonly x: number;
  readonly y: number;
}

/** A piece turned, and moved so that the corner that goes into a free one is at 0, 0 and comes first. */
interface Turned {
  readonly rotation: number;
  readonly ring: Ring;
  readonly perimeterMm: number;
  /** Where the origin of the piece has gone. */
  readonly originX: number;
  readonly originY: number;
}

interface Placed {
  readonly piece: number;
  readonly turned: Turned;
  readonly x: number;
  readonly y: number;
  readonly before: Placed | null;
}

/** A way that is followed: what is free, what is laid, how long the edges are at which it met what lay there before, and how long all its outlines are. */
interface Way {
  readonly free: Rings;
  readonly isLaid: Uint8Array;
  readonly laid: number;
  readonly last: Placed | null;
  readonly metMm: number;
  readonly outlineMm: number;
}

/** Corners nearer than this are one, edges nearer than this meet: what coordinates of two decimals are off, a few times over. */
const NEAR_MM = 0.04;
/** By so much directions of the same edge may differ for the same reason, radians. */
const ANGLE = 0.012;
/** A piece may reach into others by so much along its outline, on average: rounding, which is put right at the end. */
const INTO_MM = 0.006;
/** What is free in pieces smaller than this is nothing, mm². */
const CRUMB_MM2 = 0.5;
/** So many ways are followed side by side; with more of them when that did not lead to the end. */
const WAYS = [30, 150, 600];
/** So many pieces are tried at one corner, those that meet most first. */
const TRIED = 20;
/** Pieces of one whole meet in half of their outlines. When less than this share meets after some of them, they are none; later, the way is lost. */
const LEAST_MET = 0.36;
const AFTER = 4;

/**
 * Puts pieces together without a gap in a strip of some width from y = 0, if they come from one whole. Gives a place for each, or null for those that found none; null when they do not belong together, or `mayGoOn`, which is
 * asked before each step, says no. Deterministic. The places are as true as the outlines: rounded ones may overlap by what they were rounded by.
 */
export async function fitTogether(
  pieces: readonly PuzzlePiece[],
  widthMm: number,
  mayGoOn: () => Promise<boolean>,
): Promise<readonly (PuzzlePlace | null)[] | null> {
  const standing = new Map(
    [...new Set(pieces)].map((piece) => [
      piece,
      piece.rotations === 'free' ? null : piece.rotations.map((rotation) => standingAt(piece.outline, rotation)),
    ]),
  );
  let best: Way | null = null;
  for (const ways of WAYS) {
    const { way, isOver } = await follow({ pieces, widthMm, ways, mayGoOn, standing });
    if (way && (!best || way.laid > best.laid)) best = way;
    if (isOver) break;
  }
  return best && placesOf(best, pieces.length);
}

interface Puzzle {
  readonly pieces: readonly PuzzlePiece[];
  readonly widthMm: number;
  readonly ways: number;
  readonly mayGoOn: () => Promise<boolean>;
  /** The turns of a piece, each by its lowest corner; null for one that may be turned freely. */
  readonly standing: ReadonlyMap<PuzzlePiece, readonly Turned[] | null>;
}

/** The best way to its end, or as far as it leads. `isOver` where following more ways would not help. */
async function follow(puzzle: Puzzle): Promise<{ readonly way: Way | null; readonly isOver: boolean }> {
  const { pieces, widthMm, mayGoOn } = puzzle;
  // Higher than the whole can be, so that nothing ends there.
  const highMm =
    2 * pieces.reduce((sum, { outline }) => sum + signedArea(outline) / widthMm + Math.sqrt(signedArea(outline)), 0);
  let all: readonly Way[] = [
    {
      free: [Float64Array.of(0, 0, widthMm, 0, widthMm, highMm, 0, highMm)],
      isLaid: new Uint8Array(pieces.length),
      laid: 0,
      last: null,
      metMm: 0,
      outlineMm: 0,
    },
  ];
  for (let laid = 1; laid <= pieces.length; laid += 1) {
    const next: Way[] = [];
    for (const way of all) {
      if (!(await mayGoOn())) return { way: null, isOver: true };
      next.push(...waysOn(way, puzzle));
    }
    const [best] = next.sort((a, b) => metShare(b) - metShare(a));
    if (!best || (laid > AFTER && metShare(best) < LEAST_MET))
      return { way: all[0]!, isOver: laid <= AFTER + 1 && best !== undefined };
    all = next.slice(0, puzzle.ways).map((way) => ({ ...way, free: withoutLast(way) }));
  }
  return { way: all[0]!, isOver: true };
}

const metShare = ({ metMm, outlineMm }: Way) => metMm / outlineMm;

/** All ways on from one: each with one more piece in the lowest free corner. What they leave free is worked out only for those that are followed. */
function waysOn(way: Way, puzzle: Puzzle): Way[] {
  const corner = lowestCorner(way.free);
  if (!corner) return [];
  const { free, isLaid, laid, last, metMm, outlineMm } = way;
  return fitting(way, corner, puzzle).map((found) => {
    const isLaidNow = isLaid.slice();
    isLaidNow[found.piece] = 1;
    return {
      free,
      isLaid: isLaidNow,
      laid: laid + 1,
      last: { piece: found.piece, turned: found.turned, x: corner.x, y: corner.y, before: last },
      metMm: metMm + found.metMm,
      outlineMm: outlineMm + found.turned.perimeterMm,
    };
  });
}

interface Fitting {
  readonly piece: number;
  readonly turned: Turned;
  readonly metMm: number;
}

/** The pieces that go into a corner and lie along the edge that leads on from it, those whose edges meet most first. */
function fitting({ isLaid, free }: Way, corner: Corner, { pieces, standing }: Puzzle): Fitting[] {
  const seen = new Set<PuzzlePiece>();
  const candidates = pieces.flatMap((piece, i): Fitting[] => {
    if (isLaid[i] || seen.has(piece)) return [];
    seen.add(piece);
    const turns = standing.get(piece) ?? turnsAlong(piece.outline, corner.onwards);
    return turns
      .filter(({ ring }) => goesInto(ring, corner))
      .map((one) => ({ piece: i, turned: one, metMm: metOf(one.ring, corner, free) }));
  });
  const found: Fitting[] = [];
  for (const one of candidates.sort((a, b) => b.metMm / b.turned.perimeterMm - a.metMm / a.turned.perimeterMm)) {
    if (found.length === TRIED) break;
    if (isFree(one.turned, corner, free)) found.push(one);
  }
  return found;
}

/** The lowest free corner, of several the leftmost: in which direction its edge leads on, and how wide it is, radians. */
interface Corner {
  readonly x: number;
  readonly y: number;
  readonly onwards: number;
  readonly spread: number;
}

function lowestCorner(free: Rings): Corner | null {
  let lowest: { readonly ring: Ring; readonly at: number } | null = null;
  for (const ring of free) {
    const at = lowestLeft(ring);
    const isLower =
      !lowest ||
      ring[at + 1]! < lowest.ring[lowest.at + 1]! - NEAR_MM ||
      (ring[at + 1]! < lowest.ring[lowest.at + 1]! + NEAR_MM && ring[at]! < lowest.ring[lowest.at]!);
    if (isLower) lowest = { ring, at };
  }
  if (!lowest) return null;
  const { ring, at } = lowest;
  const onwards = directionFrom(ring, at, 2);
  return { x: ring[at]!, y: ring[at + 1]!, onwards, spread: turnFrom(onwards, directionFrom(ring, at, -2)) };
}

/** Whether an outline lies along the edge that leads on from a corner, and is no wider there. */
function goesInto(ring: Ring, { onwards, spread }: Corner): boolean {
  const leaves = directionFrom(ring, 0, 2);
  return (
    turnFrom(onwards - ANGLE, leaves) <= 2 * ANGLE && turnFrom(leaves, directionFrom(ring, 0, -2)) <= spread + ANGLE
  );
}

/** Whether an outline, moved into a corner, lies in what is free, but for rounding. */
function isFree({ ring, perimeterMm }: Turned, { x, y }: Corner, free: Rings): boolean {
  const [moved] = translateRings([ring], x, y) as [Ring];
  // Most that do not fit stick out with a corner, which is soon seen.
  for (let i = 0; i < moved.length; i += 2)
    if (!containsPoint(free, moved[i]!, moved[i + 1]!) && isFar(moved[i]!, moved[i + 1]!, free)) return false;
  return areaOf(subtract([moved], free)) <= perimeterMm * INTO_MM;
}

function isFar(x: number, y: number, rings: Rings): boolean {
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      if (squareToEdge(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!) < NEAR_MM ** 2) return false;
  }
  return true;
}

/** How long the edges are at which an outline, moved into a corner, meets the edges of what is free, mm. */
function metOf(ring: Ring, { x, y }: Corner, free: Rings): number {
  let metMm = 0;
  for (let j = ring.length - 2, i = 0; i < ring.length; j = i, i += 2) {
    const [ax, ay] = [ring[j]! + x, ring[j + 1]! + y];
    const [dx, dy] = [ring[i]! + x - ax, ring[i + 1]! + y - ay];
    const length = Math.hypot(dx, dy);
    const [ux, uy] = [dx / length, dy / length];
    for (const other of free) {
      for (let m = other.length - 2, k = 0; k < other.length; m = k, k += 2) {
        const [px, py, qx, qy] = [other[m]! - ax, other[m + 1]! - ay, other[k]! - ax, other[k + 1]! - ay];
        const [along0, along1] = [px * ux + py * uy, qx * ux + qy * uy];
        const [from, to] = [Math.max(0, along0), Math.min(length, along1)];
        // Both have what is free on their left, so edges that meet run the same way.
        if (to <= from) continue;
        const [off0, off1] = [py * ux - px * uy, qy * ux - qx * uy];
        const offAt = (along: number) => off0 + ((off1 - off0) * (along - along0)) / (along1 - along0);
        if (Math.abs(offAt(from)) <= NEAR_MM && Math.abs(offAt(to)) <= NEAR_MM) metMm += to - from;
      }
    }
  }
  return metMm;
}

function withoutLast({ free, last }: Way): Ring[] {
  const {
    turned: { ring },
    x,
    y,
  } = last!;
  return subtract(free, translateRings([ring], x, y))
    .filter((left) => signedArea(left) > CRUMB_MM2)
    .flatMap(withoutCracks);
}

/** An outline without the cracks that rounding leaves between two pieces: a corner's directions have to be those of its edges. None when nothing else is left of it. */
function withoutCracks(ring: Ring): Ring[] {
  const points = Array.from({ length: ring.length / 2 }, (_, i): readonly [number, number] => [
    ring[2 * i]!,
    ring[2 * i + 1]!,
  ]);
  for (let i = 0, since = 0; since < points.length && points.length > 2; since += 1) {
    const n = points.length;
    const [a, v, b] = [points[(i + n - 1) % n]!, points[i]!, points[(i + 1) % n]!];
    const [toV, toB] = [Math.hypot(v[0] - a[0], v[1] - a[1]), Math.hypot(b[0] - v[0], b[1] - v[1])];
    const cross = (v[0] - a[0]) * (b[1] - v[1]) - (v[1] - a[1]) * (b[0] - v[0]);
    // A corner that is none, or the tip of a crack: what lies before it has to be looked at again.
    if (toV < NEAR_MM / 2 || Math.abs(cross) < (NEAR_MM / 4) * Math.max(toV, toB)) {
      points.splice(i, 1);
      [i, since] = [Math.max(0, i - 1) % points.length, -1];
    } else i = (i + 1) % n;
  }
  return points.length > 2 ? [Float64Array.from(points.flat())] : [];
}

function standingAt(outline: Ring, rotation: number): Turned {
  const ring = turned(outline, rotation);
  return turnedFrom(ring, rotation, lowestLeft(ring));
}

/** The turns in which one of the edges of an outline lies in some direction. */
function turnsAlong(outline: Ring, direction: number): Turned[] {
  return Array.from({ length: outline.length / 2 }, (_, i) => {
    const rotation = (turnFrom(directionFrom(outline, 2 * i, 2), direction) * 180) / Math.PI;
    return turnedFrom(turned(outline, rotation), rotation, 2 * i);
  });
}

function turnedFrom(whole: Ring, rotation: number, at: number): Turned {
  const ring = whole.map((_, i) => whole[(at + i) % whole.length]! - whole[at + (i % 2)]!);
  return { rotation, ring, perimeterMm: perimeter(ring), originX: -whole[at]!, originY: -whole[at + 1]! };
}

/** Where the lowest left corner of an outline stands in it. */
function lowestLeft(ring: Ring): number {
  const low = boundsOf([ring])!.minY;
  let at = -1;
  for (let i = 0; i < ring.length; i += 2)
    if (ring[i + 1]! <= low + NEAR_MM && (at < 0 || ring[i]! < ring[at]!)) at = i;
  return at;
}

function directionFrom(ring: Ring, at: number, step: number): number {
  const to = (at + step + ring.length) % ring.length;
  return Math.atan2(ring[to + 1]! - ring[at + 1]!, ring[to]! - ring[at]!);
}

/** The turn counter-clockwise from one direction to another, radians, 0 to 2π. */
function turnFrom(from: number, to: number): number {
  return (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
}

function placesOf(way: Way, count: number): (PuzzlePlace | null)[] {
  const places = new Array<PuzzlePlace | null>(count).fill(null);
  for (let one = way.last; one; one = one.before)
    places[one.piece] = { rotation: one.turned.rotation, x: one.x + one.turned.originX, y: one.y + one.turned.originY };
  return places;
}
