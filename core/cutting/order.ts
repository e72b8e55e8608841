import Flatbush from 'flatbush';
import { boundsOf, containsPoint, signedArea, type Box, type Ring } from '../geometry/index.js';
import type { CutPath } from './cut-path.js';

interface Contour {
  readonly ring: Ring;
  readonly box: Box;
  /** Contours directly inside this one that are still uncut. */
  inside: number;
  /** The smallest contour round this one, or -1. */
  parent: number;
}

/** How many of the nearest contours, by box, are looked at point by point. */
const NEAREST_TRIED = 12;

/**
 * The contours in cutting order from `start`: a contour comes only after all that lie inside it, so that nothing shifts once freed,
 * and of those that may come the nearest is next, begun at its nearest point. Winding is kept.
 */
export function orderContours(rings: readonly Ring[], start: { x: number; y: number } = { x: 0, y: 0 }): CutPath[] {
  if (rings.length === 0) return [];
  const contours = nestContours(rings);
  const index = new Flatbush(contours.length);
  for (const { box } of contours) index.add(box.minX, box.minY, box.maxX, box.maxY);
  index.finish();
  const done = new Uint8Array(contours.length);
  const paths: CutPath[] = [];
  let { x, y } = start;
  for (let n = 0; n < contours.length; n += 1) {
    const near = index.neighbors(x, y, NEAREST_TRIED, Infinity, (i) => !done[i] && contours[i]!.inside === 0);
    let best = { at: -1, point: 0, distance: Infinity };
    for (const at of near) {
      const { point, distance } = nearestPoint(contours[at]!.ring, x, y);
      if (distance < best.distance) best = { at, point, distance };
    }
    const contour = contours[best.at]!;
    done[best.at] = 1;
    if (contour.parent >= 0) contours[contour.parent]!.inside -= 1;
    const points = closedFrom(contour.ring, best.point);
    paths.push({ points, closed: true });
    x = points[0]!;
    y = points[1]!;
  }
  return paths;
}

function nestContours(rings: readonly Ring[]): Contour[] {
  const contours: Contour[] = rings.map((ring) => ({ ring, box: boundsOf([ring])!, inside: 0, parent: -1 }));
  const index = new Flatbush(contours.length);
  for (const { box } of contours) index.add(box.minX, box.minY, box.maxX, box.maxY);
  index.finish();
  const size = contours.map((c) => Math.abs(signedArea(c.ring)));
  contours.forEach((contour, i) => {
    // The middle of an edge decides: a vertex may lie on the outline round it.
    const x = (contour.ring[0]! + contour.ring[2]!) / 2;
    const y = (contour.ring[1]! + contour.ring[3]!) / 2;
    for (const other of index.search(x, y, x, y)) {
      if (size[other]! <= size[i]! || other === i) continue;
      if (contour.parent >= 0 && size[other]! >= size[contour.parent]!) continue;
      if (containsPoint([contours[other]!.ring], x, y)) contour.parent = other;
    }
  });
  for (const contour of contours) if (contour.parent >= 0) contours[contour.parent]!.inside += 1;
  return contours;
}

function nearestPoint(ring: Ring, x: number, y: number): { point: number; distance: number } {
  let point = 0;
  let distance = Infinity;
  for (let i = 0; i < ring.length; i += 2) {
    const d = Math.hypot(ring[i]! - x, ring[i + 1]! - y);
    if (d < distance) [point, distance] = [i / 2, d];
  }
  return { point, distance };
}

function closedFrom(ring: Ring, point: number): Float64Array {
  const out = new Float64Array(ring.length + 2);
  out.set(ring.subarray(2 * point), 0);
  out.set(ring.subarray(0, 2 * point), ring.length - 2 * point);
  out[ring.length] = out[0]!;
  out[ring.length + 1] = out[1]!;
  return out;
}
