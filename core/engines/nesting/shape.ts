import {
  areaOf,
  boundsOf,
  containsPoint,
  grow,
  growMitred,
  reversed,
  ringsOf,
  signedArea,
  simplifyRing,
  unite,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';

/** What is reckoned with of a group, as it was drawn. */
export interface Shape {
  /** Shapes are told apart by their number. */
  readonly number: number;
  /** Few simple outlines that together contain the group. */
  readonly shells: readonly Ring[];
  /** The shells grown by the spacing: what other groups keep clear of. */
  readonly keepOut: readonly Ring[];
  /** What is free inside of it beyond the spacing: large counters. */
  readonly rooms: readonly Ring[];
}

/** A group at one rotation, moved so that its box begins at 0, 0. */
export interface Orientation {
  readonly shape: Shape;
  readonly rotation: number;
  /** Where the turned group's box began: subtract from a position to get the placement's x, y. */
  readonly originX: number;
  readonly originY: number;
  readonly width: number;
  readonly height: number;
}

/** More outlines than this per group cost more than the film they save. */
const MOST_SHELLS = 5;
const MOST_POINTS = 60;
/** Of a group that may be turned freely these turns are tried, degrees, and those that lay its longest straight edges along the sheet. */
const FREE_STEP_DEG = 30;
const MOST_STRAIGHT = 2;

/** A group's shape; `number` is its own among those that are laid together. */
export function shapeOf(group: readonly Region[], number: number, spacingMm: number): Shape {
  const rings = ringsOf(group);
  const shells = shellsOf(rings, spacingMm);
  return {
    number,
    shells,
    keepOut: shells.flatMap((ring) => (spacingMm > 0 ? growMitred([ring], spacingMm) : [ring])),
    rooms: roomsOf(rings, spacingMm),
  };
}

/** Counters that nothing of the group lies in, less the spacing all round. */
function roomsOf(rings: Rings, spacingMm: number): Ring[] {
  const clean = unite(rings);
  const outers = outerRings(clean);
  return clean
    .filter((ring) => signedArea(ring) < 0)
    .map(reversed)
    .filter((hole) => outers.every((outer) => !containsPoint([hole], outer[0]!, outer[1]!)))
    .flatMap((hole) => (spacingMm > 0 ? outerRings(grow([hole], -spacingMm)) : [hole]))
    .map((room) => (room.length / 2 <= MOST_POINTS ? room : outerRings(grow([simplifyRing(room, 0.05)], -0.05))[0]))
    .filter((room) => room !== undefined);
}

/** The group at each of its rotations; equal turns are listed once. */
export function orientationsOf(
  group: readonly Region[],
  rotations: readonly number[] | 'free',
  shape: Shape,
): Orientation[] {
  const outers = group.map((region) => region.outer);
  const turns =
    rotations === 'free'
      ? [...Array.from({ length: 360 / FREE_STEP_DEG }, (_, i) => i * FREE_STEP_DEG), ...straightTurns(shape.shells)]
      : rotations;
  return [...new Set(turns.map((turn) => ((turn % 360) + 360) % 360))].map((rotation) =>
    orientationOf(outers, rotation, shape),
  );
}

/** A group's outer rings at one rotation. */
export function orientationOf(outers: Rings, rotation: number, shape: Shape): Orientation {
  const box = boundsOf(outers.map((ring) => turned(ring, rotation)))!;
  return {
    shape,
    rotation,
    originX: box.minX,
    originY: box.minY,
    width: box.maxX - box.minX,
    height: box.maxY - box.minY,
  };
}

/** Turns that lay a long straight edge along the sheet or across it. */
function straightTurns(shells: readonly Ring[]): number[] {
  const edges = shells.flatMap((ring) =>
    Array.from({ length: ring.length / 2 }, (_, i) => {
      const j = (2 * i + 2) % ring.length;
      const [dx, dy] = [ring[j]! - ring[2 * i]!, ring[j + 1]! - ring[2 * i + 1]!];
      return { lengthMm: Math.hypot(dx, dy), turn: Number((((-Math.atan2(dy, dx) * 180) / Math.PI) % 90).toFixed(3)) };
    }),
  );
  const longest = [...edges].sort((a, b) => b.lengthMm - a.lengthMm).slice(0, MOST_STRAIGHT);
  return longest.flatMap(({ turn }) => [turn, turn + 90, turn + 180, turn + 270]);
}

/** A ring turned about the origin, degrees counter-clockwise with y up. Quarter turns are exact. */
export function turned(ring: Ring, rotation: number): Ring {
  const quarter = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] }[rotation];
  const [cos, sin] = quarter ?? [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
  const out = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    out[i] = cos! * ring[i]! - sin! * ring[i + 1]!;
    out[i + 1] = sin! * ring[i]! + cos! * ring[i + 1]!;
  }
  return out;
}

/**
 * A few outlines that contain all rings: gaps between pieces are closed until few are left, holes are filled, and long outlines
 * are first grown and then simplified by the same small distance, so that nothing of the group ever sticks out.
 */
function shellsOf(rings: Rings, spacingMm: number): Ring[] {
  const box = boundsOf(rings)!;
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  let outers = unite(outerRings(unite(rings)));
  for (let reach = Math.max(spacingMm / 2, size / 100); outers.length > MOST_SHELLS; reach *= 2) {
    outers = outerRings(grow(grow(outers, reach), -reach * 0.999));
  }
  const slack = Math.min(0.5, Math.max(0.02, size * 0.002));
  return outers.flatMap((ring) =>
    ring.length / 2 <= MOST_POINTS
      ? [ring]
      : outerRings(growMitred([ring], slack)).map((grown) => simplifyRing(grown, slack)),
  );
}

function outerRings(rings: Rings): Ring[] {
  return rings.filter((ring) => signedArea(ring) > 0);
}

/** Area of a group in mm², holes taken off. */
export function groupArea(group: readonly Region[]): number {
  return Math.abs(areaOf(ringsOf(group)));
}

/** Whether a shape is a rectangle that lies straight. */
export function isBox({ shells, rooms }: Shape): boolean {
  const [only] = shells;
  if (shells.length !== 1 || rooms.length > 0 || only!.length !== 8) return false;
  const box = boundsOf(shells)!;
  return Math.abs(signedArea(only!) - (box.maxX - box.minX) * (box.maxY - box.minY)) < 1e-6 * signedArea(only!);
}
