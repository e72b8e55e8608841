import type { Box } from '../../geometry/index.js';
import { wishedScale, type PlacedDesign, type SurfaceKind } from './surface-kind.js';

/** A flat panel with margins that stay free. */
export interface Panel {
  readonly kind: 'panel';
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
  /** Where the design's upper left corner lies on it; null sets it in the middle of what the margins leave. */
  readonly at: { readonly xMm: number; readonly yMm: number } | null;
}

/** How much of the spare height goes above the design: a little under half, since the optical centre lies above the geometric one. */
const SHARE_ABOVE = 0.47;
/** What rounding may take a design beyond its margins, mm. */
const SLACK_MM = 0.01;

/** Whether a box, from the design's corner, stays between the margins. */
function liesWithin({ widthMm, heightMm, marginMm: { top, right, bottom, left } }: Panel, { xMm, yMm }: Pick<PlacedDesign, 'xMm' | 'yMm'>, box: Box): boolean {
  return xMm + box.minX >= left - SLACK_MM && yMm + box.minY >= top - SLACK_MM && xMm + box.maxX <= widthMm - right + SLACK_MM && yMm + box.maxY <= heightMm - bottom + SLACK_MM;
}

function between({ widthMm, heightMm, marginMm: { top, right, bottom, left } }: Panel) {
  return { widthMm: widthMm - left - right, heightMm: heightMm - top - bottom };
}

/** The design is centred between the margins, optically upwards, or lies where it is put. */
export const panel: SurfaceKind<Panel> = {
  place(surface, own, wish, reachMm) {
    const { top, left } = surface.marginMm;
    const room = between(surface);
    const [roomWidth, roomHeight] = [room.widthMm - 2 * reachMm, room.heightMm - 2 * reachMm];
    const fit = Math.min(Math.max(roomWidth, 1) / own.widthMm, Math.max(roomHeight, 1) / own.heightMm);
    const scale = wishedScale(own, wish) ?? fit;
    const [widthMm, heightMm] = [own.widthMm * scale, own.heightMm * scale];
    const middle = { xMm: left + (room.widthMm - widthMm) / 2, yMm: top + reachMm + (room.heightMm - heightMm - 2 * reachMm) * SHARE_ABOVE };
    const design: PlacedDesign = { scale, widthMm, heightMm, ...(surface.at ?? middle) };
    // A hair of tolerance: the fitted size itself must not count as too large by rounding.
    const isOver = scale > fit * (1 + 1e-9);
    const isLarger = widthMm + 2 * reachMm > surface.widthMm || heightMm + 2 * reachMm > surface.heightMm;
    return {
      design,
      room: { ...room, bound: roomWidth / own.widthMm <= roomHeight / own.heightMm ? 'width' : 'height', fittedWidthMm: own.widthMm * fit },
      trouble: roomWidth <= 0 || roomHeight <= 0 ? 'no-room' : !isOver ? (surface.at && !liesWithin(surface, design, { minX: -reachMm, minY: -reachMm, maxX: widthMm + reachMm, maxY: heightMm + reachMm }) ? 'put-beyond' : null) : isLarger ? 'too-large' : 'into-margins',
    };
  },

  widestWithin(surface, design, box) {
    if (liesWithin(surface, design, box)) return null;
    // Where it was put, a smaller one keeps its corner, and with it what reaches beyond that.
    if (surface.at) return 0;
    const room = between(surface);
    // What reaches beyond stays as wide when the design is made smaller; less of the spare height lies above than below.
    const beside = Math.max(0, -box.minX, box.maxX - design.widthMm);
    const [above, below] = [Math.max(0, -box.minY), Math.max(0, box.maxY - design.heightMm)];
    const scale = Math.min((room.widthMm - 2 * beside) / design.widthMm, (room.heightMm - Math.max(above / SHARE_ABOVE, below / (1 - SHARE_ABOVE))) / design.heightMm);
    return design.widthMm * Math.min(1, scale);
  },
};
