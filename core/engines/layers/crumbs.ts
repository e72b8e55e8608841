import Flatbush from 'flatbush';
import {
  areaOf,
  boundsOf,
  containsPoint,
  grow,
  perimeter,
  regionsOf,
  ringsOf,
  signedArea,
  squareToEdge,
  subtract,
  tolerances,
  unite,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { Crumbs } from './layer.js';
import { boxIndex } from './separate.js';

/** An area as a blade can leave it, and how much was taken out of it. */
export interface Crumbless extends Crumbs {
  readonly rings: Rings;
}

/**
 * Takes out of kernel-clean rings what no blade can cut: pieces and holes that vanish when they are moved in by CRUMB_MM all round, the hairs
 * by which pieces hang together, and slits where edges of one film should coincide. So what is one piece in the answer holds together when it
 * is cut. All else keeps its exact edge. Cost: two offsets of the whole; more only where those change how it hangs together.
 */
export function withoutCrumbs(rings: Rings): Crumbless {
  const first = cuttable(rings);
  let clean = first.rings;
  let [joins, slits] = [0, 0];
  for (let round = 0; round < ROUNDS; round += 1) {
    const closed = withoutSlits(clean);
    slits += closed.slits;
    const hairs = hairsOf(closed.rings);
    joins += hairs.length;
    // A hair more than they are, or rounding leaves a thread; of what is left some may be no piece any more.
    clean =
      hairs.length === 0
        ? closed.rings
        : cuttable(
            subtract(
              closed.rings,
              hairs.flatMap((hair) => grow(ringsOf([hair]), EDGE_MM)),
            ),
          ).rings;
    // Parts that hung together by a thread may lie along a slit now, and a slit that is closed makes other threads.
    if (hairs.length === 0) break;
  }
  return { ...first, rings: clean, joins, slits };
}

/** Hardly anything needs a second round, and what a fourth would find is dust in dust. */
const ROUNDS = 4;

function withoutSlits(rings: Rings): { readonly rings: Rings; readonly slits: number } {
  const slits = slitsOf(rings);
  return slits.length === 0
    ? { rings, slits: 0 }
    : {
        rings: cuttable(unite([...rings, ...slits.flatMap((slit) => grow(ringsOf([slit]), EDGE_MM))])).rings,
        slits: slits.length,
      };
}

/** The pieces and holes that a blade can cut, and how many it cannot. */
function cuttable(rings: Rings): { readonly rings: Rings; readonly pieces: number; readonly holes: number } {
  const lost = new Set(rings.filter((ring) => signedArea(ring) < 0 && isNarrow([ring], 2 * tolerances.CRUMB_MM)));
  const regions = regionsOf(lost.size > 0 ? rings.filter((ring) => !lost.has(ring)) : rings);
  const kept = regions.filter((region) => !isCrumb(region));
  const pieces = regions.length - kept.length;
  return { rings: pieces + lost.size > 0 ? ringsOf(kept) : rings, pieces, holes: lost.size };
}

/** The gaps between edges that should coincide: narrower than any blade can part. */
function slitsOf(rings: Rings): Region[] {
  const grown = grow(rings, tolerances.HAIRLINE_MM);
  const outers = (list: Rings) => list.reduce((sum, ring) => sum + (signedArea(ring) > 0 ? 1 : 0), 0);
  // A slit that closes joins two pieces, or makes a hole of a bay, or two of one hole.
  if (grown.length === rings.length && outers(grown) === outers(rings)) return [];
  const between = subtract(grow(grown, -tolerances.HAIRLINE_MM), rings);
  return regionsOf(between).filter(bordersTwice(rings));
}

/**
 * Whether stretches left over between parts of an area border it in more than one place: what borders it once is the tip of a corner. There
 * are thousands of those, so no kernel is asked: going round a stretch, the runs of its edges that lie on the area's are counted.
 */
function bordersTwice(area: Rings): (stretch: Region) => boolean {
  const edges: number[] = [];
  for (const ring of area)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      edges.push(ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!);
  if (edges.length === 0) return () => false;
  const index = new Flatbush(edges.length / 4);
  for (let i = 0; i < edges.length; i += 4)
    index.add(
      Math.min(edges[i]!, edges[i + 2]!),
      Math.min(edges[i + 1]!, edges[i + 3]!),
      Math.max(edges[i]!, edges[i + 2]!),
      Math.max(edges[i + 1]!, edges[i + 3]!),
    );
  index.finish();
  const isOn = (x: number, y: number) =>
    index.search(
      x - ON_MM,
      y - ON_MM,
      x + ON_MM,
      y + ON_MM,
      (i) =>
        squareToEdge(x, y, edges[4 * i]!, edges[4 * i + 1]!, edges[4 * i + 2]!, edges[4 * i + 3]!) <= ON_MM * ON_MM,
    ).length > 0;
  return ({ outer }) => {
    if (signedArea(outer) < DUST_MM2) return false;
    let [runs, on] = [0, 0];
    const n = outer.length;
    // The end of a slit, which is shorter than it is sure of where it lies, is no edge that it has in common.
    const isCommon = (i: number, j: number) =>
      Math.hypot(outer[j]! - outer[i]!, outer[j + 1]! - outer[i + 1]!) > 2 * ON_MM &&
      isOn((outer[i]! + outer[j]!) / 2, (outer[i + 1]! + outer[j + 1]!) / 2);
    let before = isCommon(n - 2, 0);
    for (let i = 0; i < n; i += 2) {
      const now = isCommon(i, (i + 2) % n);
      if (now && !before) runs += 1;
      if (now) on += 1;
      before = now;
    }
    // A slit with closed ends is bordered all round.
    return runs > 1 || on === n / 2;
  };
}

/** An edge that came out of the kernel lies where it lay by this, mm. */
const ON_MM = 1e-5;
/** Less area than this is rounding, mm². */
const DUST_MM2 = 1e-7;

/** Far enough from an edge not to be rounding. */
const EDGE_MM = 0.002;

/** The stretches thinner than a blade can leave that hold parts of a piece together, or part two of its holes. */
function hairsOf(rings: Rings): Region[] {
  const pieces = regionsOf(rings);
  if (pieces.length === 0) return [];
  const within = boxIndex(pieces.map((piece) => boundsOf([piece.outer])!));
  const [parts, holes] = [new Int32Array(pieces.length), new Int32Array(pieces.length)];
  for (const ring of grow(rings, -tolerances.CRUMB_MM)) {
    const [home] = within(boundsOf([ring])!, (i) => containsPoint(ringsOf([pieces[i]!]), ring[0]!, ring[1]!));
    if (home !== undefined) (signedArea(ring) > 0 ? parts : holes)[home]! += 1;
  }
  // Moved in, a piece without hairs is one piece with as many holes.
  return pieces.flatMap((piece, i) => (parts[i] === 1 && holes[i] === piece.holes.length ? [] : hairsOfPiece(piece)));
}

function hairsOfPiece(piece: Region): Region[] {
  const whole = ringsOf([piece]);
  const left = grow(grow(grow(whole, -tolerances.CRUMB_MM), tolerances.CRUMB_MM), EDGE_MM);
  const joins = bordersTwice(left);
  // One that closes on itself holds a hole that will not hold.
  return regionsOf(subtract(whole, left)).filter((hair) => hair.holes.length > 0 || joins(hair));
}

/** Whether a piece vanishes when it is moved in by CRUMB_MM all round, so that no blade can cut it. */
export function isCrumb(piece: Region): boolean {
  return isNarrow(ringsOf([piece]), 2 * tolerances.CRUMB_MM);
}

/** Whether an area, or a hole given as its ring, vanishes when it is shrunk by half of `widthMm` from all sides. */
export function isNarrow(rings: Rings, widthMm: number): boolean {
  const box = boundsOf(rings)!;
  if (Math.min(box.maxX - box.minX, box.maxY - box.minY) < widthMm) return true;
  const r = widthMm / 2;
  // Were every place within r of the edge, the area would be no larger than a band of width r along it, with a sector at each corner
  // that points inwards. Most are larger by far, and the offset need not be made.
  if (
    Math.abs(areaOf(rings)) >
    rings.reduce(
      (sum, ring) => sum + r * perimeter(ring) + (r * r * inwardTurn(ring, signedArea(rings[0]!) < 0)) / 2,
      0,
    )
  )
    return false;
  return grow(unite(rings, rings.length > 1 ? 'evenodd' : 'nonzero'), -r).length === 0;
}

/** Sum of the turns at the corners of a ring that point into the area it bounds, or into the hole that it is, radians. */
function inwardTurn(ring: Ring, isHole: boolean): number {
  let sum = 0;
  for (let i = 0, h = ring.length - 2; i < ring.length; h = i, i += 2) {
    const j = i + 2 === ring.length ? 0 : i + 2;
    const [ax, ay, bx, by] = [
      ring[i]! - ring[h]!,
      ring[i + 1]! - ring[h + 1]!,
      ring[j]! - ring[i]!,
      ring[j + 1]! - ring[i + 1]!,
    ];
    const turn = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    sum += Math.max(0, isHole ? turn : -turn);
  }
  return sum;
}
