import type { Matrix } from './matrix.js';
import { CRUMB_MM2 } from './tolerances.js';

/**
 * A closed polygon outline: x0, y0, x1, y1, … in mm, y down as in the artwork; the last point is not repeated.
 * In rings that come from the kernel an outer ring has positive signed area, a hole negative.
 */
export type Ring = Float64Array;

/** The boundary of an area of the plane: outer rings and holes in no particular order. */
export type Rings = readonly Ring[];

/** An axis-aligned box in mm. */
export interface Box {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/** Signed area of one ring in mm² (shoelace formula): positive for outer rings, negative for holes, 0 for fewer than three points. */
export function signedArea(ring: Ring): number {
  let twice = 0;
  const n = ring.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    twice += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
  }
  return twice / 2;
}

/** Area covered by kernel-clean rings in mm²: outer rings less their holes. */
export function areaOf(rings: Rings): number {
  let sum = 0;
  for (const ring of rings) sum += signedArea(ring);
  return sum;
}

/** Length of one closed ring in mm, the closing edge included. */
export function perimeter(ring: Ring): number {
  let sum = 0;
  const n = ring.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    sum += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  }
  return sum;
}

/** Length of a line of points x0, y0, x1, y1, … in mm, not closed. */
export function lineLength(line: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 2; i < line.length; i += 2) sum += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
  return sum;
}

/** Smallest box round all points, or null when there are none. */
export function boundsOf(rings: Rings): Box | null {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const x = ring[i]!;
      const y = ring[i + 1]!;
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
  }
  return minX <= maxX ? { minX, minY, maxX, maxY } : null;
}

/** Smallest box round both boxes; null stands for nothing. */
export function joinBoxes(a: Box | null, b: Box | null): Box | null {
  if (!a) return b;
  if (!b) return a;
  return {
    minX: Math.min(a.minX, b.minX),
    minY: Math.min(a.minY, b.minY),
    maxX: Math.max(a.maxX, b.maxX),
    maxY: Math.max(a.maxY, b.maxY),
  };
}

/** What two boxes have in common: turned over where they do not touch. */
export function commonBox(a: Box, b: Box): Box {
  return {
    minX: Math.max(a.minX, b.minX),
    minY: Math.max(a.minY, b.minY),
    maxX: Math.min(a.maxX, b.maxX),
    maxY: Math.min(a.maxY, b.maxY),
  };
}

/** True when one box lies in another; edges may touch. */
export function holdsBox(outer: Box, inner: Box): boolean {
  return outer.minX <= inner.minX && outer.minY <= inner.minY && outer.maxX >= inner.maxX && outer.maxY >= inner.maxY;
}

/** True when the boxes share at least a point, each widened by `reachMm`. */
export function boxesTouch(a: Box, b: Box, reachMm = 0): boolean {
  return (
    a.minX - reachMm <= b.maxX && b.minX - reachMm <= a.maxX && a.minY - reachMm <= b.maxY && b.minY - reachMm <= a.maxY
  );
}

/** Whether an outer ring fills its box, up to a thousandth of a mm². */
export function isBoxRing(ring: Ring): boolean {
  const { minX, minY, maxX, maxY } = boundsOf([ring])!;
  return signedArea(ring) > (maxX - minX) * (maxY - minY) - 1e-3;
}

/** The box as one outer ring. */
export function boxRing(box: Box): Ring {
  return Float64Array.of(box.minX, box.minY, box.maxX, box.minY, box.maxX, box.maxY, box.minX, box.maxY);
}

/** A box widened on all sides by `d` mm. */
export function widenBox(box: Box, d: number): Box {
  return { minX: box.minX - d, minY: box.minY - d, maxX: box.maxX + d, maxY: box.maxY + d };
}

/** A moved copy of the rings; the originals stay as they are. */
export function translateRings(rings: Rings, dx: number, dy: number): Ring[] {
  return rings.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      out[i] = ring[i]! + dx;
      out[i + 1] = ring[i + 1]! + dy;
    }
    return out;
  });
}

/** How many pieces (outer rings) and holes kernel-clean rings have; rounding crumbs are not counted. */
export function countPieces(rings: Rings): { pieces: number; holes: number } {
  let pieces = 0;
  let holes = 0;
  for (const ring of rings) {
    const area = signedArea(ring);
    if (area > CRUMB_MM2) pieces += 1;
    else if (area < -CRUMB_MM2) holes += 1;
  }
  return { pieces, holes };
}

/** Number of points of all rings together. */
export function pointCount(rings: Rings): number {
  let n = 0;
  for (const ring of rings) n += ring.length / 2;
  return n;
}

/** Far above the kernel's rounding, far below any edge. */
const CELL_MM = 1e-4;

/** A number that points within about 0.1 µm of each other share, but for those on either side of a cell's edge: to look points up by. */
export function pointCell(x: number, y: number): number {
  return Math.round(x / CELL_MM) * 4_294_967 + Math.round(y / CELL_MM);
}

/** Where the outlines of an area cross a height, from left to right: an even number, the area between each two of them. */
export function crossingsAt(rings: Rings, y: number): number[] {
  const xs: number[] = [];
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [y0, y1] = [ring[j + 1]!, ring[i + 1]!];
      if (y0 > y !== y1 > y) xs.push(ring[j]! + ((ring[i]! - ring[j]!) * (y - y0)) / (y1 - y0));
    }
  }
  return xs.sort((a, b) => a - b);
}

/** The box round a box that was moved, turned or stretched. */
export function transformBox(box: Box, matrix: Matrix): Box {
  return boundsOf([transformRing(boxRing(box), matrix)])!;
}

/** The longer side of a box. */
export function longestSide({ minX, minY, maxX, maxY }: Box): number {
  return Math.max(maxX - minX, maxY - minY);
}

/** The square of the distance from a point to the edge between two others; to the point itself where they are one. */
export function squareToEdge(px: number, py: number, x: number, y: number, endX: number, endY: number): number {
  const [dx, dy] = [endX - x, endY - y];
  const square = dx * dx + dy * dy;
  const share = square === 0 ? 0 : Math.min(1, Math.max(0, ((px - x) * dx + (py - y) * dy) / square));
  const [offX, offY] = [px - x - share * dx, py - y - share * dy];
  return offX * offX + offY * offY;
}

/** Whether a point lies inside the rings by the even-odd rule; points exactly on an edge may go either way. */
export function containsPoint(rings: Rings, x: number, y: number): boolean {
  let inside = false;
  for (const ring of rings) {
    const n = ring.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
      const yi = ring[i + 1]!;
      const yj = ring[j + 1]!;
      if (yi > y !== yj > y) {
        const xi = ring[i]!;
        if (x < xi + ((ring[j]! - xi) * (y - yi)) / (yj - yi)) inside = !inside;
      }
    }
  }
  return inside;
}

/**
 * SVG path data of the rings, rounded to `digits` decimals (4 = 0.1 µm). An empty area gives an empty string.
 * Paint it with fill-rule evenodd.
 */
export function ringsToPathData(rings: Rings, digits = 4): string {
  const scale = 10 ** digits;
  const parts: string[] = [];
  for (const ring of rings) {
    if (ring.length === 0) continue;
    // Steps between rounded points, which add up to them exactly: half as long to write as the points themselves.
    let [x, y] = [Math.round(ring[0]! * scale), Math.round(ring[1]! * scale)];
    let d = `M${x / scale} ${y / scale}l`;
    for (let i = 2; i < ring.length; i += 2) {
      const [nextX, nextY] = [Math.round(ring[i]! * scale), Math.round(ring[i + 1]! * scale)];
      d += `${i > 2 ? ' ' : ''}${(nextX - x) / scale} ${(nextY - y) / scale}`;
      [x, y] = [nextX, nextY];
    }
    parts.push(d + 'Z');
  }
  return parts.join('');
}

/** The ring after an affine map. A mirroring one turns the winding over, which is turned back, so that outers stay positive. */
export function transformRing(ring: Ring, [a, b, c, d, e, f]: Matrix): Ring {
  const out = new Float64Array(ring.length);
  const flip = a * d - b * c < 0;
  for (let i = 0; i < ring.length; i += 2) {
    const o = flip ? ring.length - 2 - i : i;
    out[o] = a * ring[i]! + c * ring[i + 1]! + e;
    out[o + 1] = b * ring[i]! + d * ring[i + 1]! + f;
  }
  return out;
}

/** Rings with y counted from the other edge of something so high: from up to down, or back. The given ones stay as they are. */
export function turnedOver(rings: Rings, heightMm: number): Ring[] {
  return rings.map((ring) => ring.map((v, i) => (i % 2 === 1 ? heightMm - v : v)));
}

/** The ring turned by a half about the origin. */
export function mirrored(ring: Ring): Ring {
  return ring.map((v) => -v);
}

/** The ring run round the other way: an outer becomes a hole. */
export function reversed(ring: Ring): Ring {
  const out = new Float64Array(ring.length);
  for (let i = 0, j = ring.length - 2; i < ring.length; i += 2, j -= 2) {
    out[i] = ring[j]!;
    out[i + 1] = ring[j + 1]!;
  }
  return out;
}

/** The points of a line x0, y0, x1, y1, … from the last to the first. */
export function backwards(line: ArrayLike<number>): number[] {
  const last = line.length - 2;
  return Array.from({ length: line.length }, (_, i) => line[last - i + 2 * (i % 2)]!);
}
