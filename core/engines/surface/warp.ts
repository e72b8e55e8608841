import type { Box, Ring, Rings } from '../../geometry/index.js';
import { sectorOf, type Cone, type Sector } from './taper.js';

/**
 * How a flat design lies on the rolled-out side of a frustum: its horizontals become arcs about the apex, its verticals radii. A point u to the right and v
 * down from the design's upper left corner lies at radius midRadiusMm + (v − midV) where the foot is wide, − where the top is, and at (u − widthMm/2)/midRadiusMm
 * from the centre line, so that it reads upright. Source: rolling a cone out keeps lengths along its slant and along its circles.
 */
export interface TaperMap extends Sector {
  /** The design's width, which is kept along the arc of midRadiusMm. */
  readonly widthMm: number;
  readonly wide: Cone['wide'];
  readonly midRadiusMm: number;
  /** The height on the design that lies at midRadiusMm. */
  readonly midV: number;
  /** The apex in the frame in which warped points are given: x right, y down. */
  readonly apexX: number;
  readonly apexY: number;
}

/** No chord of what is warped is further than this from the true line, mm; what was flattened before errs by as much again. */
export const WARP_MM = 0.004;

/**
 * The map of a design of this size. Its middle height lies at the middle of the slant unless `fromTopMm` says how far its upper edge lies below that of the side.
 * The frame's origin is where the design's middle comes to lie, less half its size: a narrow taper leaves a design where it was.
 */
export function taperMap(
  cone: Cone,
  design: { readonly widthMm: number; readonly heightMm: number },
  fromTopMm: number | null = null,
): TaperMap {
  const sector = sectorOf(cone);
  const sign = cone.wide === 'foot' ? 1 : -1;
  const midV = design.heightMm / 2;
  const middle = fromTopMm === null ? cone.slantMm / 2 : fromTopMm + midV;
  const midRadiusMm = cone.wide === 'foot' ? sector.innerRadiusMm + middle : sector.outerRadiusMm - middle;
  return {
    ...sector,
    widthMm: design.widthMm,
    wide: cone.wide,
    midRadiusMm,
    midV,
    apexX: design.widthMm / 2,
    apexY: midV - sign * midRadiusMm,
  };
}

/** The map with its frame moved: what lay at x, y lies at x + dx, y + dy. */
export function movedMap(map: TaperMap, dx: number, dy: number): TaperMap {
  return { ...map, apexX: map.apexX + dx, apexY: map.apexY + dy };
}

/** Where a point of the flat design comes to lie. */
export function warpPoint(map: TaperMap, u: number, v: number): [x: number, y: number] {
  const sign = map.wide === 'foot' ? 1 : -1;
  const radius = map.midRadiusMm + sign * (v - map.midV);
  const angle = (u - map.widthMm / 2) / map.midRadiusMm;
  // The apex of a narrow taper lies kilometres away: what is left of r·cos φ − R is added up without that difference.
  const sine = Math.sin(angle / 2);
  return [
    map.apexX + radius * Math.sin(angle),
    map.apexY + sign * map.midRadiusMm + (v - map.midV) - sign * 2 * radius * sine * sine,
  ];
}

/** Where a warped point came from. */
export function unwarpPoint(map: TaperMap, x: number, y: number): [u: number, v: number] {
  const sign = map.wide === 'foot' ? 1 : -1;
  const [dx, dy] = [x - map.apexX, sign * (y - map.apexY)];
  // As above: the radius less midRadiusMm, without the difference of two long lengths.
  const down = dy - map.midRadiusMm;
  const less = (dx * dx + down * (dy + map.midRadiusMm)) / (Math.hypot(dx, dy) + map.midRadiusMm);
  return [map.widthMm / 2 + Math.atan2(dx, dy) * map.midRadiusMm, map.midV + sign * less];
}

/** Rings of the flat design warped: every edge is cut into chords that are true to `toleranceMm`. Winding is kept. Cost: the points made. */
export function warpRings(map: TaperMap, rings: Rings, toleranceMm = WARP_MM): Ring[] {
  return rings.map((ring) => warpRing(map, ring, toleranceMm));
}

/** A line of the flat design, not closed, warped as rings are. */
export function warpLine(map: TaperMap, line: ArrayLike<number>, toleranceMm = WARP_MM): Float64Array {
  const points: number[] = [];
  for (let i = 0; i + 3 < line.length; i += 2)
    points.push(...warpEdge(map, [line[i]!, line[i + 1]!, line[i + 2]!, line[i + 3]!], toleranceMm));
  points.push(...warpPoint(map, line[line.length - 2]!, line[line.length - 1]!));
  return Float64Array.from(points);
}

function warpRing(map: TaperMap, ring: Ring, toleranceMm: number): Ring {
  const points: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length;
    points.push(...warpEdge(map, [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!], toleranceMm));
  }
  return Float64Array.from(points);
}

type Edge = readonly [u0: number, v0: number, u1: number, v1: number];

/** The points of an edge from its first to just before its last. */
function warpEdge(map: TaperMap, edge: Edge, toleranceMm: number): number[] {
  const [u0, v0, u1, v1] = edge;
  const steps = stepsOf(map, edge, toleranceMm);
  const points: number[] = [];
  for (let s = 0; s < steps; s += 1)
    points.push(...warpPoint(map, u0 + ((u1 - u0) * s) / steps, v0 + ((v1 - v0) * s) / steps));
  return points;
}

/** A chord of n equal steps errs by |second derivative| / (8 n²); that of r(t), φ(t), both even, is at most 2·|Δr·Δφ| + r·Δφ². */
function stepsOf({ midRadiusMm, midV }: TaperMap, [u0, v0, u1, v1]: Edge, toleranceMm: number): number {
  const turn = Math.abs(u1 - u0) / midRadiusMm;
  const radius = midRadiusMm + Math.max(Math.abs(v0 - midV), Math.abs(v1 - midV));
  return Math.max(1, Math.ceil(Math.sqrt((turn * (2 * Math.abs(v1 - v0) + radius * turn)) / (8 * toleranceMm))));
}

/** The box that a box of the flat design takes up once it is warped. */
export function warpBox(map: TaperMap, box: Box): Box {
  // Its extremes lie at its corners, or where an arc's turning point is the centre line.
  const us = [
    box.minX,
    box.maxX,
    ...(box.minX < map.widthMm / 2 && box.maxX > map.widthMm / 2 ? [map.widthMm / 2] : []),
    ...quarterTurns(map, box),
  ];
  const points = us.flatMap((u) => [warpPoint(map, u, box.minY), warpPoint(map, u, box.maxY)]);
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
}

/** Where a box that goes far round reaches its widest: a quarter turn from the centre line. */
function quarterTurns({ widthMm, midRadiusMm }: TaperMap, { minX, maxX }: Box): number[] {
  return [-1, 1].map((side) => widthMm / 2 + side * (Math.PI / 2) * midRadiusMm).filter((u) => u > minX && u < maxX);
}

/** The box of the flat design that a small warped box came from. */
export function unwarpBox(map: TaperMap, { minX, minY, maxX, maxY }: Box): Box {
  const points = [minX, (minX + maxX) / 2, maxX].flatMap((x) => [minY, maxY].map((y) => unwarpPoint(map, x, y)));
  const [us, vs] = [points.map(([u]) => u), points.map(([, v]) => v)];
  return { minX: Math.min(...us), minY: Math.min(...vs), maxX: Math.max(...us), maxY: Math.max(...vs) };
}

/** By how much a length across the design changes at a height on it: 1 in its middle. */
export function stretchAt({ midRadiusMm, midV, wide }: TaperMap, v: number): number {
  return (midRadiusMm + (wide === 'foot' ? 1 : -1) * (v - midV)) / midRadiusMm;
}
