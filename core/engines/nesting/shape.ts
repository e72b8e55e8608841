import { areaOf, boundsOf, grow, growMitred, ringsOf, signedArea, simplifyRing, unite, type Region, type Ring, type Rings } from '../../geometry/index.js';

/** A group at one rotation, moved so that its box begins at 0, 0. */
export interface Orientation {
  readonly rotation: number;
  /** Where the turned group's box began: subtract from a position to get the placement's x, y. */
  readonly originX: number;
  readonly originY: number;
  readonly width: number;
  readonly height: number;
  /** Few simple outlines that together contain the group. */
  readonly shells: readonly Ring[];
  /** The shells grown by the spacing: what other groups keep clear of. */
  readonly keepOut: readonly Ring[];
}

/** More outlines than this per group cost more than the film they save. */
const MOST_SHELLS = 5;
const MOST_POINTS = 60;

/** The group at each of its rotations; equal turns are listed once. */
export function orientationsOf(group: readonly Region[], rotations: readonly number[] | 'free', spacingMm: number): Orientation[] {
  const turns = rotations === 'free' ? [0, 90, 180, 270, 15, 30, 45, 60, 75, 105, 120, 135, 150, 165] : rotations;
  const unique = [...new Set(turns.map((t) => ((t % 360) + 360) % 360))];
  const shells = shellsOf(ringsOf(group), spacingMm);
  const outers = group.map((region) => region.outer);
  return unique.map((rotation) => {
    const box = boundsOf(outers.map((ring) => turned(ring, rotation)))!;
    const move = (ring: Ring) => ring.map((v, i) => (i % 2 === 0 ? v - box.minX : v - box.minY));
    const own = shells.map((ring) => move(turned(ring, rotation)));
    return {
      rotation,
      originX: box.minX,
      originY: box.minY,
      width: box.maxX - box.minX,
      height: box.maxY - box.minY,
      shells: own,
      keepOut: own.flatMap((ring) => (spacingMm > 0 ? growMitred([ring], spacingMm) : [ring])),
    };
  });
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
    ring.length / 2 <= MOST_POINTS ? [ring] : outerRings(growMitred([ring], slack)).map((grown) => simplifyRing(grown, slack)),
  );
}

function outerRings(rings: Rings): Ring[] {
  return rings.filter((ring) => signedArea(ring) > 0);
}

/** Area of a group in mm², holes taken off. */
export function groupArea(group: readonly Region[]): number {
  return Math.abs(areaOf(ringsOf(group)));
}
