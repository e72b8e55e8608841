/** Where a print sits on a garment, by the usual measures for an adult's M, mm. Source: trade practice (docs/surfaces.md). */
export const SPOTS = {
  'left chest': { widthMm: 90, downMm: 200, from: 'the shoulder seam at the neck', offMiddleMm: 125 },
  'full front': { widthMm: 280, downMm: 75, from: 'the collar', offMiddleMm: 0 },
  back: { widthMm: 300, downMm: 110, from: 'the collar', offMiddleMm: 0 },
  sleeve: { widthMm: 80, downMm: 100, from: 'the shoulder seam', offMiddleMm: 0 },
  leg: { widthMm: 100, downMm: 130, from: 'the waistband', offMiddleMm: 0 },
} as const;

export type Spot = keyof typeof SPOTS;

/** Garments, and where prints sit on each. */
export const GARMENTS = {
  shirt: ['left chest', 'full front', 'back', 'sleeve'],
  apron: ['full front'],
  trousers: ['leg'],
} as const satisfies Readonly<Record<string, readonly Spot[]>>;

export type Garments = keyof typeof GARMENTS;

/** What a print is measured down from. */
export function measuredFrom(piece: Garments, spot: Spot): string {
  return piece === 'apron' ? 'the upper edge of the bib' : SPOTS[spot].from;
}

/** Sizes of garments, and how large a print is on each by an adult's M. Source: trade practice: a print keeps its share of the chest. */
export const GARMENT_SIZES: Readonly<Record<string, number>> = {
  '104': 0.6,
  '116': 0.65,
  '128': 0.71,
  '140': 0.77,
  '152': 0.83,
  '164': 0.89,
  XS: 0.91,
  S: 0.95,
  M: 1,
  L: 1.05,
  XL: 1.1,
  XXL: 1.15,
  '3XL': 1.2,
};

/** Widths are rounded to this, mm: what a tape shows. */
const ROUND_MM = 5;

/** How wide a print is on a size when it is so wide on an adult's M; on a size that is not known it is as wide as on M. */
export function widthOnSize(widthOnM: number, size: string): number {
  const factor = Object.hasOwn(GARMENT_SIZES, size) ? GARMENT_SIZES[size]! : 1;
  return factor === 1 ? widthOnM : Math.max(ROUND_MM, Math.round((widthOnM * factor) / ROUND_MM) * ROUND_MM);
}

/** A line of letters is condensed to no less than this share of its width; then it is made lower. Source: trade practice. */
export const LEAST_CONDENSED = 0.75;

/** How a line that is too wide is made to fit: its width and its height as shares of what they were. */
export function condensed(widthMm: number, mostMm: number): { readonly across: number; readonly down: number } {
  if (widthMm <= mostMm) return { across: 1, down: 1 };
  const across = mostMm / widthMm;
  if (across >= LEAST_CONDENSED) return { across, down: 1 };
  // Lower by as much as keeps it condensed to the least.
  return { across, down: across / LEAST_CONDENSED };
}
