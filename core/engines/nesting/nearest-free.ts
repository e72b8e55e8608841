import { containsPoint, translateRings, unite, type Rings } from '../../geometry/index.js';
import type { NestItem, NestSheet, Placement } from './nest-request.js';
import { NoFits } from './no-fit.js';
import { orientationOf, shapeOf, type Orientation } from './shape.js';

/** A group that a hand lays onto a sheet among others. */
export interface LaidByHand {
  readonly sheet: NestSheet;
  readonly spacingMm: number;
  /** Those that lie on the sheet, and the one that is laid. */
  readonly items: readonly NestItem[];
  readonly item: string;
  readonly rotation: number;
  /** Where it is wanted, as a placement's x, y. */
  readonly wish: { readonly x: number; readonly y: number };
}

/** Rounding of positions that touch the sheet's edge. */
const EDGE = 1e-6;

/**
 * The place nearest to where a hand lays a group, at which it keeps the spacing from others and lies wholly on the sheet: where it is wanted, or touching a neighbour at exactly the spacing, or the edge. Null where there
 * is none. It is among the few places that can be nearest: the wish itself, its feet on the outlines of what is forbidden and on the edges of the room, and the corners of both. Asked among one set of others after the
 * other, what is known of how they fit beside it is kept.
 */
export function nearestFree({
  sheet,
  spacingMm,
  items,
  item,
  rotation,
  wish,
}: LaidByHand): (others: readonly Placement[]) => { readonly x: number; readonly y: number } | null {
  const orientations = new Map<string, Orientation>();
  const orientationAt = (id: string, turn: number): Orientation => {
    const key = `${turn} ${id}`;
    let orientation = orientations.get(key);
    if (!orientation) {
      const number = items.findIndex((one) => one.id === id);
      const { group } = items[number]!;
      orientations.set(
        key,
        (orientation = orientationOf(
          group.map(({ outer }) => outer),
          turn,
          shapeOf(group, number, spacingMm),
        )),
      );
    }
    return orientation;
  };
  const own = orientationAt(item, rotation);
  const [roomX, roomY] = [sheet.widthMm - own.width, (sheet.lengthMm ?? Infinity) - own.height];
  const noFits = new NoFits();
  const outside = sheet.outline ? noFits.outsideOf(sheet.outline, own) : [];
  const at = { x: wish.x + own.originX, y: wish.y + own.originY };
  return (others) => {
    if (roomX < -EDGE || roomY < -EDGE) return null;
    const forbidden = unite([
      ...outside,
      ...others.flatMap((other) => {
        const fixed = orientationAt(other.item, other.rotation);
        return translateRings(noFits.between(fixed, own), other.x + fixed.originX, other.y + fixed.originY);
      }),
    ]);
    const found = nearestOf(
      placesToTry(at, forbidden, { roomX, roomY }),
      at,
      ({ x, y, isOnOutline }) =>
        x > -EDGE &&
        y > -EDGE &&
        x < roomX + EDGE &&
        y < roomY + EDGE &&
        (isOnOutline || !containsPoint(forbidden, x, y)),
    );
    return found && { x: clamped(found.x, roomX) - own.originX, y: clamped(found.y, roomY) - own.originY };
  };
}

function clamped(v: number, most: number): number {
  return Math.min(Math.max(v, 0), Math.max(most, 0));
}

interface Place {
  readonly x: number;
  readonly y: number;
  /** It lies on the outline of what is forbidden, where neighbours touch at the spacing. */
  readonly isOnOutline: boolean;
}

function nearestOf(
  places: Iterable<Place>,
  to: { readonly x: number; readonly y: number },
  isFree: (place: Place) => boolean,
): Place | null {
  let [best, least] = [null as Place | null, Infinity];
  for (const place of places) {
    const far = Math.hypot(place.x - to.x, place.y - to.y);
    if (far < least && isFree(place)) [best, least] = [place, far];
  }
  return best;
}

function* placesToTry(
  at: { readonly x: number; readonly y: number },
  forbidden: Rings,
  { roomX, roomY }: { readonly roomX: number; readonly roomY: number },
): Generator<Place> {
  const xs = [0, Math.max(roomX, 0)];
  const ys = Number.isFinite(roomY) ? [0, Math.max(roomY, 0)] : [0];
  yield { x: clamped(at.x, roomX), y: clamped(at.y, roomY), isOnOutline: false };
  for (const x of xs) yield { x, y: clamped(at.y, roomY), isOnOutline: false };
  for (const y of ys) yield { x: clamped(at.x, roomX), y, isOnOutline: false };
  for (const x of xs) for (const y of ys) yield { x, y, isOnOutline: false };
  for (const ring of forbidden) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const along = (share: number): Place => ({
        x: ax + share * (bx - ax),
        y: ay + share * (by - ay),
        isOnOutline: true,
      });
      const square = (bx - ax) ** 2 + (by - ay) ** 2;
      if (square > 0)
        yield along(Math.min(1, Math.max(0, ((at.x - ax) * (bx - ax) + (at.y - ay) * (by - ay)) / square)));
      for (const x of xs) if (ax < x !== bx < x) yield along((x - ax) / (bx - ax));
      for (const y of ys) if (ay < y !== by < y) yield along((y - ay) / (by - ay));
      yield along(1);
    }
  }
}
