import { formatLength, type Finding, type Ruling } from '../job/index.js';

export interface Panel {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
}

/** How large the maker wants it: fitted to the panel, the artwork's own size, or one side given. */
export type SizeWish = { readonly mode: 'fit' | 'own' } | { readonly mode: 'width' | 'height'; readonly mm: number };

/** The design at its final size, and where its top left corner lies on the panel. */
export interface PlacedDesign {
  readonly scale: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly rulings: readonly Ruling[];
  readonly findings: readonly Finding[];
}

/** How much of the spare height goes above the design: a little under half, since the optical centre lies above the geometric one. */
const SHARE_ABOVE = 0.47;

/**
 * Sizes a design (its own size given in mm) for a flat panel and centres it between the margins, optically upwards. `reachMm` is how far
 * what is built of it will reach beyond it all round: borders are made at their width, whatever the size of the design.
 */
export function fitToPanel(own: { readonly widthMm: number; readonly heightMm: number }, panel: Panel, wish: SizeWish, reachMm = 0): PlacedDesign {
  const { top, right, bottom, left } = panel.marginMm;
  const between = { width: panel.widthMm - left - right, height: panel.heightMm - top - bottom };
  const room = { width: between.width - 2 * reachMm, height: between.height - 2 * reachMm };
  const findings: Finding[] = [];
  if (room.width <= 0 || room.height <= 0) {
    findings.push({
      code: 'margins-too-wide',
      severity: 'blocker',
      stage: 'surface',
      message: 'The margins leave no room on the panel: make them narrower or the panel larger.',
    });
  }
  const what = reachMm > 0 ? 'design with its outline is' : 'design is';
  const fit = Math.min(Math.max(room.width, 1) / own.widthMm, Math.max(room.height, 1) / own.heightMm);
  const scale = 'mm' in wish ? wish.mm / (wish.mode === 'width' ? own.widthMm : own.heightMm) : wish.mode === 'fit' ? fit : 1;
  const widthMm = own.widthMm * scale;
  const heightMm = own.heightMm * scale;
  // A hair of tolerance: the fitted size itself must not count as too large by rounding.
  if (scale > fit * (1 + 1e-9)) {
    const over = widthMm + 2 * reachMm > panel.widthMm || heightMm + 2 * reachMm > panel.heightMm;
    findings.push({
      code: over ? 'larger-than-panel' : 'into-margins',
      severity: 'warning',
      stage: 'surface',
      message: over
        ? `At ${formatLength(widthMm + 2 * reachMm)} × ${formatLength(heightMm + 2 * reachMm)} mm the ${what} larger than the panel.`
        : `The ${reachMm > 0 ? 'outline' : 'design'} reaches into the margins.`,
      remedies: [{ label: 'Fit it to the panel', patch: { surface: { size: { mode: 'fit' } } } }],
    });
  }
  const bound = room.width / own.widthMm <= room.height / own.heightMm ? 'width' : 'height';
  const ruling: Ruling = {
    id: 'surface.size',
    stage: 'surface',
    subject: 'Size of the design',
    sentence: `The design is made {value} wide and ${formatLength(heightMm)} mm high.`,
    value: widthMm,
    unit: 'mm',
    because:
      wish.mode === 'fit'
        ? [
            `The ${bound} between the margins, ${formatLength(bound === 'width' ? between.width : between.height)} mm, is what limits it.`,
            ...(reachMm > 0 ? [`Outlines take ${formatLength(reachMm)} mm of it on either side.`] : []),
            'Everything that follows (traps, marks, borders) is computed at this size and never scaled.',
          ]
        : [wish.mode === 'own' ? "This is the artwork's own size." : `You gave the ${wish.mode}; the other side follows from the artwork.`],
    overridden: wish.mode !== 'fit',
    proposed: own.widthMm * fit,
    alternatives: [
      { label: 'Fit to the panel', patch: { surface: { size: { mode: 'fit' } } } },
      { label: `Artwork’s own size, ${formatLength(own.widthMm)} mm wide`, patch: { surface: { size: { mode: 'own' } } } },
    ],
  };
  return {
    scale,
    widthMm,
    heightMm,
    xMm: left + (between.width - widthMm) / 2,
    yMm: top + (between.height - heightMm) * SHARE_ABOVE,
    rulings: [ruling],
    findings,
  };
}
