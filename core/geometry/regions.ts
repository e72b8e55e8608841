import { boundsOf, containsPoint, signedArea, type Box, type Ring, type Rings } from './rings.js';

/** One connected piece: its outer ring (positive area) and the holes in it (negative area). */
export interface Region {
  readonly outer: Ring;
  readonly holes: readonly Ring[];
}

/**
 * Groups kernel-clean rings into connected pieces: each hole goes to the smallest outer ring round it.
 * Pieces keep the order of their outer rings. A hole that lies in no outer ring is dropped: the kernel makes none.
 * Cost: outer rings are tried by box first, so about (holes × outers whose box holds the hole).
 */
export function regionsOf(rings: Rings): Region[] {
  const outers: { ring: Ring; box: Box; area: number; holes: Ring[] }[] = [];
  const holes: Ring[] = [];
  for (const ring of rings) {
    const area = signedArea(ring);
    if (area > 0) outers.push({ ring, box: boundsOf([ring])!, area, holes: [] });
    else if (area < 0) holes.push(ring);
  }
  const bySize = [...outers].sort((a, b) => a.area - b.area);
  for (const hole of holes) {
    const box = boundsOf([hole])!;
    const home = bySize.find(
      (o) =>
        o.box.minX <= box.minX &&
        o.box.minY <= box.minY &&
        o.box.maxX >= box.maxX &&
        o.box.maxY >= box.maxY &&
        touchesInside(o.ring, hole),
    );
    home?.holes.push(hole);
  }
  return outers.map((o) => ({ outer: o.ring, holes: o.holes }));
}

/** All rings of the regions in one list: outer ring first, then its holes. */
export function ringsOf(regions: readonly Region[]): Ring[] {
  return regions.flatMap((r) => [r.outer, ...r.holes]);
}

/** A hole may touch its outer ring at a point, so the middle of an edge decides, not a vertex. */
function touchesInside(outer: Ring, hole: Ring): boolean {
  const x = (hole[0]! + hole[2]!) / 2;
  const y = (hole[1]! + hole[3]!) / 2;
  return containsPoint([outer], x, y);
}
