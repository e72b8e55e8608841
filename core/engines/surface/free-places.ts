import { boxRing, type Box, type Ring } from '../../geometry/index.js';
import type { Size } from './surface-kind.js';

/** A place that must stay free, mm from the surface's upper left corner: a fixing, a handle, a seam, a wiper's sweep. */
export type FreePlace =
  | {
      readonly shape: 'rectangle';
      readonly what: string;
      readonly xMm: number;
      readonly yMm: number;
      readonly widthMm: number;
      readonly heightMm: number;
    }
  | {
      readonly shape: 'circle';
      readonly what: string;
      readonly xMm: number;
      readonly yMm: number;
      readonly diameterMm: number;
    };

/** More of them are no board that a sign goes on, and all ways between them are tried. */
export const MOST_FREE_PLACES = 12;
/** Points on the outline of a round one. */
const POINTS = 96;

/** Round a place; a circle is given by its middle. */
export function boxOfFree(place: FreePlace): Box {
  if (place.shape === 'rectangle')
    return { minX: place.xMm, minY: place.yMm, maxX: place.xMm + place.widthMm, maxY: place.yMm + place.heightMm };
  const half = place.diameterMm / 2;
  return { minX: place.xMm - half, minY: place.yMm - half, maxX: place.xMm + half, maxY: place.yMm + half };
}

/** The outline of a place, a circle's from outside it. */
export function ringOfFree(place: FreePlace): Ring {
  if (place.shape === 'rectangle') return boxRing(boxOfFree(place));
  const radius = place.diameterMm / 2 / Math.cos(Math.PI / POINTS);
  return Float64Array.from({ length: 2 * POINTS }, (_, i) =>
    i % 2 === 0
      ? place.xMm + radius * Math.cos((Math.PI * i) / POINTS)
      : place.yMm + radius * Math.sin((Math.PI * (i - 1)) / POINTS),
  );
}

/** All largest boxes within a room that hold nothing of the places: each side lies on the room's or on a place's. */
export function clearRooms(room: Box, free: readonly FreePlace[]): Box[] {
  const boxes = free
    .map(boxOfFree)
    .filter((box) => box.minX < room.maxX && box.maxX > room.minX && box.minY < room.maxY && box.maxY > room.minY);
  let rooms: Box[] = [room];
  for (const box of boxes) {
    const split = rooms.flatMap((one) => {
      if (box.minX >= one.maxX || box.maxX <= one.minX || box.minY >= one.maxY || box.maxY <= one.minY) return [one];
      const parts: Box[] = [
        { ...one, maxX: box.minX },
        { ...one, minX: box.maxX },
        { ...one, maxY: box.minY },
        { ...one, minY: box.maxY },
      ];
      return parts.filter(({ minX, minY, maxX, maxY }) => maxX > minX && maxY > minY);
    });
    // Those within others are not largest.
    rooms = split.filter(
      (one, i) =>
        !split.some(
          (other, j) =>
            j !== i &&
            other.minX <= one.minX &&
            other.minY <= one.minY &&
            other.maxX >= one.maxX &&
            other.maxY >= one.maxY &&
            (j < i ||
              other.minX !== one.minX ||
              other.minY !== one.minY ||
              other.maxX !== one.maxX ||
              other.maxY !== one.maxY),
        ),
    );
  }
  return rooms;
}

/** The upper left corner nearest to a wanted one at which a design lies within one of the rooms; null when it fits in none. */
export function nearestClear(
  wanted: { readonly xMm: number; readonly yMm: number },
  { widthMm, heightMm }: Size,
  rooms: readonly Box[],
  reachMm: number,
): { readonly xMm: number; readonly yMm: number } | null {
  const held = (at: number, low: number, high: number) => Math.min(high, Math.max(low, at));
  const corners = rooms.flatMap(({ minX, minY, maxX, maxY }) => {
    const [mostX, mostY] = [maxX - reachMm - widthMm, maxY - reachMm - heightMm];
    // The fitted size fills a room to the last digit.
    if (mostX < minX + reachMm - 1e-6 || mostY < minY + reachMm - 1e-6) return [];
    return [
      {
        xMm: held(wanted.xMm, minX + reachMm, Math.max(minX + reachMm, mostX)),
        yMm: held(wanted.yMm, minY + reachMm, Math.max(minY + reachMm, mostY)),
      },
    ];
  });
  const apart = ({ xMm, yMm }: { readonly xMm: number; readonly yMm: number }) =>
    Math.hypot(xMm - wanted.xMm, yMm - wanted.yMm);
  return corners.reduce<{ readonly xMm: number; readonly yMm: number } | null>(
    (best, corner) => (best && apart(best) <= apart(corner) ? best : corner),
    null,
  );
}
