import { wishedScale, type PlacedDesign, type SurfaceKind } from './surface-kind.js';

/** A flat panel with margins that stay free. */
export interface Panel {
  readonly kind: 'panel';
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
}

/** How much of the spare height goes above the design: a little under half, since the optical centre lies above the geometric one. */
const SHARE_ABOVE = 0.47;
/** What rounding may take a design beyond its margins, mm. */
const SLACK_MM = 0.01;

function between({ widthMm, heightMm, marginMm: { top, right, bottom, left } }: Panel) {
  return { widthMm: widthMm - left - right, heightMm: heightMm - top - bottom };
}

/** The design is centred between the margins, optically upwards. */
export const panel: SurfaceKind<Panel> = {
  place(surface, own, wish, reachMm) {
    const { top, left } = surface.marginMm;
    const room = between(surface);
    const [roomWidth, roomHeight] = [room.widthMm - 2 * reachMm, room.heightMm - 2 * reachMm];
    const fit = Math.min(Math.max(roomWidth, 1) / own.widthMm, Math.max(roomHeight, 1) / own.heightMm);
    const scale = wishedScale(own, wish) ?? fit;
    const [widthMm, heightMm] = [own.widthMm * scale, own.heightMm * scale];
    const design: PlacedDesign = { scale, widthMm, heightMm, xMm: left + (room.widthMm - widthMm) / 2, yMm: top + reachMm + (room.heightMm - heightMm - 2 * reachMm) * SHARE_ABOVE };
    // A hair of tolerance: the fitted size itself must not count as too large by rounding.
    const isOver = scale > fit * (1 + 1e-9);
    const isLarger = widthMm + 2 * reachMm > surface.widthMm || heightMm + 2 * reachMm > surface.heightMm;
    return {
      design,
      room: { ...room, bound: roomWidth / own.widthMm <= roomHeight / own.heightMm ? 'width' : 'height', fittedWidthMm: own.widthMm * fit },
      trouble: roomWidth <= 0 || roomHeight <= 0 ? 'no-room' : !isOver ? null : isLarger ? 'too-large' : 'into-margins',
    };
  },

  widestWithin(surface, design, box) {
    const { top, right, bottom, left } = surface.marginMm;
    const isWithin =
      design.xMm + box.minX >= left - SLACK_MM && design.yMm + box.minY >= top - SLACK_MM && design.xMm + box.maxX <= surface.widthMm - right + SLACK_MM && design.yMm + box.maxY <= surface.heightMm - bottom + SLACK_MM;
    if (isWithin) return null;
    const room = between(surface);
    // What reaches beyond stays as wide when the design is made smaller; less of the spare height lies above than below.
    const beside = Math.max(0, -box.minX, box.maxX - design.widthMm);
    const [above, below] = [Math.max(0, -box.minY), Math.max(0, box.maxY - design.heightMm)];
    const scale = Math.min((room.widthMm - 2 * beside) / design.widthMm, (room.heightMm - Math.max(above / SHARE_ABOVE, below / (1 - SHARE_ABOVE))) / design.heightMm);
    return design.widthMm * Math.min(1, scale);
  },
};
