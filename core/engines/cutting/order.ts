import Flatbush from 'flatbush';
import { boundsOf, containsPoint, signedArea, type Box, type Ring } from '../../geometry/index.js';
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
/** Fewer contours than this are not worth a new index when most are done. */
const LEAST_INDEXED = 64;

/**
 * The contours in cutting order from `start`: a contour comes only after all that lie inside it, so that nothing shifts once freed,
 * and of those that may come the nearest is next, begun at its nearest point. Winding is kept; each path says which ring it was.
 * What is done is dropped from the index whenever it is half of it, so that a search never wades through it: n log n in all.
 */
export function orderContours(rings: readonly Ring[], start: { x: number; y: number } = { x: 0, y: 0 }): CutPath[] {
  if (rings.length === 0) return [];
  const contours = nestContours(rings);
  const done = new Uint8Array(contours.length);
  let left = contours.map((_, i) => i);
  let index = indexOf(contours, left);
  const paths: CutPath[] = [];
  let { x, y } = start;
  for (let n = 0; n < contours.length; n += 1) {
    if (left.length >= LEAST_INDEXED && contours.length - n <= left.length / 2) {
      left = left.filter((i) => !done[i]);
      index = indexOf(contours, left);
    }
    const near = index.neighbors(
      x,
      y,
      NEAREST_TRIED,
      Infinity,
      (i) => !done[left[i]!] && contours[left[i]!]!.inside === 0,
    );
    let best = { at: -1, point: 0, distance: Infinity };
    for (const i of near) {
      const at = left[i]!;
      const { point, distance } = nearestPoint(contours[at]!.ring, x, y);
      if (distance < best.distance) best = { at, point, distance };
    }
    const contour = contours[best.at]!;
    done[best.at] = 1;
    if (contour.parent >= 0) contours[contour.parent]!.inside -= 1;
    const points = closedFrom(contour.ring, best.point);
    paths.push({ points, closed: true, contour: best.at });
    x = points[0]!;
    y = points[1]!;
  }
  return paths;
}

function indexOf(contours: readonly Contour[], which: readonly number[]): Flatbush {
  const index = new Flatbush(which.length);
  for (const i of which)
    index.add(contours[i]!.box.minX, contours[i]!.box.minY, contours[i]!.box.maxX, contours[i]!.box.maxY);
  index.finish();
  return index;
}

function nestContours(rings: readonly Ring[]): Contour[] {
  const contours: Contour[] = rings.map((ring) => ({ ring, box: boundsOf([ring])!, inside: 0, parent: -1 }));
  const index = indexOf(
    contours,
    contours.map((_, i) => i),
  );
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
  let nearest = Infinity;
  for (let i = 0; i < ring.length; i += 2) {
    const [dx, dy] = [ring[i]! - x, ring[i + 1]! - y];
    const square = dx * dx + dy * dy;
    if (square < nearest) {
      nearest = square;
      point = i / 2;
    }
  }
  return { point, distance: Math.sqrt(nearest) };
}

function closedFrom(ring: Ring, point: number): Float64Array {
  const out = new Float64Array(ring.length + 2);
  out.set(ring.subarray(2 * point), 0);
  out.set(ring.subarray(0, 2 * point), ring.length - 2 * point);
  out[ring.length] = out[0]!;
  out[ring.length + 1] = out[1]!;
  return out;
}
