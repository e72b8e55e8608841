import { widenBox, type Box } from '../../geometry/index.js';
import { clearRooms, nearestClear, type FreePlace } from './free-places.js';
import { wishedScale, type PlacedDesign, type Placing, type Size, type SizeWish } from './surface-kind.js';

/** Margins that stay free, mm. */
export interface Margins {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

/** A surface rolled out flat: what of it may be decorated, mm, y down. */
export interface Developed {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: Margins;
  readonly free: readonly FreePlace[];
  /** Where the middle of a design lies across it; null in the middle of what the margins leave. */
  readonly middleXMm: number | null;
  /** How much of the spare height goes above the design. */
  readonly shareAbove: number;
  /** A design is fitted to this share of the largest that would go on. */
  readonly fitShare: number;
  /** Where the design's upper left corner was put; null where the app puts it. */
  readonly at: { readonly xMm: number; readonly yMm: number } | null;
}

/** How much of the spare height goes above a design on a board: a little under half, since the optical centre lies above the geometric one. */
export const OPTICAL_SHARE = 0.47;
/** What rounding may take a design beyond its margins, mm. */
export const SLACK_MM = 0.01;

/** Whether a box, from the design's corner, stays between the margins. */
export function liesWithin(
  { widthMm, heightMm, marginMm: { top, right, bottom, left } }: Developed,
  { xMm, yMm }: Pick<PlacedDesign, 'xMm' | 'yMm'>,
  box: Box,
): boolean {
  return (
    xMm + box.minX >= left - SLACK_MM &&
    yMm + box.minY >= top - SLACK_MM &&
    xMm + box.maxX <= widthMm - right + SLACK_MM &&
    yMm + box.maxY <= heightMm - bottom + SLACK_MM
  );
}

/** What the margins leave. */
export function roomOf({
  widthMm,
  heightMm,
  marginMm: { top, right, bottom, left },
}: Pick<Developed, 'widthMm' | 'heightMm' | 'marginMm'>): Box {
  return { minX: left, minY: top, maxX: widthMm - right, maxY: heightMm - bottom };
}

/**
 * Sizes a design (its own size given) and places it: in the middle of what the margins leave, optically upwards, clear of what must stay free; or where it
 * was put. `reachMm` is how far what is built of it will reach beyond it all round: borders are made at their width, whatever the size of the design.
 */
export function placeOnDeveloped(surface: Developed, own: Size, wish: SizeWish, reachMm: number): Placing {
  const room = roomOf(surface);
  const [roomWidth, roomHeight] = [room.maxX - room.minX - 2 * reachMm, room.maxY - room.minY - 2 * reachMm];
  const most = Math.min(Math.max(roomWidth, 1) / own.widthMm, Math.max(roomHeight, 1) / own.heightMm);
  const clear = surface.free.length > 0 && roomWidth > 0 && roomHeight > 0 ? clearRooms(room, surface.free) : [room];
  const fitIn = ({ minX, minY, maxX, maxY }: Box) =>
    Math.min((maxX - minX - 2 * reachMm) / own.widthMm, (maxY - minY - 2 * reachMm) / own.heightMm);
  const fit = clear.some((one) => fitIn(one) > 0)
    ? Math.max(...clear.map(fitIn)) * surface.fitShare
    : most * surface.fitShare;
  const scale = wishedScale(own, wish) ?? fit;
  const [widthMm, heightMm] = [own.widthMm * scale, own.heightMm * scale];
  const middleX = surface.middleXMm ?? (room.minX + room.maxX) / 2;
  const middle = {
    xMm: middleX - widthMm / 2,
    yMm: room.minY + reachMm + (room.maxY - room.minY - heightMm - 2 * reachMm) * surface.shareAbove,
  };
  const aside = surface.at ? null : nearestClear(middle, { widthMm, heightMm }, clear, reachMm);
  const design: PlacedDesign = { scale, widthMm, heightMm, ...(surface.at ?? aside ?? middle) };
  const around = widenBox({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }, reachMm);
  // A hair of tolerance: the fitted size itself must not count as too large by rounding.
  const isOver = scale > most * (1 + 1e-9);
  const isLarger = widthMm + 2 * reachMm > surface.widthMm || heightMm + 2 * reachMm > surface.heightMm;
  return {
    design,
    room: {
      widthMm: room.maxX - room.minX,
      heightMm: room.maxY - room.minY,
      bound: roomWidth / own.widthMm <= roomHeight / own.heightMm ? 'width' : 'height',
      fittedWidthMm: own.widthMm * fit,
    },
    movedAside:
      aside !== null && (Math.abs(aside.xMm - middle.xMm) > SLACK_MM || Math.abs(aside.yMm - middle.yMm) > SLACK_MM),
    trouble:
      roomWidth <= 0 || roomHeight <= 0
        ? 'no-room'
        : !isOver
          ? !liesWithin(surface, design, around)
            ? 'put-beyond'
            : null
          : isLarger
            ? 'too-large'
            : 'into-margins',
  };
}

/** How wide the design may be at most so that what is built of it (`box`, from the design's corner) stays where it may lie; null when it does, 0 when no size helps. */
export function widestOnDeveloped(surface: Developed, design: PlacedDesign, box: Box): number | null {
  if (liesWithin(surface, design, box)) return null;
  // Where it was put, a smaller one keeps its corner, and with it what reaches beyond that.
  if (surface.at) return 0;
  const room = roomOf(surface);
  // What reaches beyond stays as wide when the design is made smaller; less of the spare height lies above than below.
  const beside = Math.max(0, -box.minX, box.maxX - design.widthMm);
  const [above, below] = [Math.max(0, -box.minY), Math.max(0, box.maxY - design.heightMm)];
  const scale = Math.min(
    (room.maxX - room.minX - 2 * beside) / design.widthMm,
    (room.maxY - room.minY - Math.max(above / surface.shareAbove, below / (1 - surface.shareAbove))) / design.heightMm,
  );
  return design.widthMm * Math.min(1, scale);
}
