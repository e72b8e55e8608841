/** A frustum as it is measured: its larger and its smaller diameter, and the slant of its side, mm. */
export interface Cone {
  readonly d1Mm: number;
  readonly d2Mm: number;
  readonly slantMm: number;
  /** Where it is wide. */
  readonly wide: 'top' | 'foot';
}

/** The side of a frustum rolled out flat: the part of a ring between two radii, mm. */
export interface Sector {
  readonly innerRadiusMm: number;
  readonly outerRadiusMm: number;
  /** Of the whole sector, all round. */
  readonly angleRad: number;
}

/** Why figures make no frustum. */
export type NoCone = 'not-positive' | 'alike' | 'turned-over' | 'too-flat';

/** Why a cone's figures make none; null when they make one. The difference of its diameters is less than twice its slant, or no side joins them. */
export function whyNoCone({ d1Mm, d2Mm, slantMm }: Omit<Cone, 'wide'>): NoCone | null {
  if (![d1Mm, d2Mm, slantMm].every((mm) => Number.isFinite(mm) && mm > 0)) return 'not-positive';
  if (d1Mm === d2Mm) return 'alike';
  if (d1Mm < d2Mm) return 'turned-over';
  return d1Mm - d2Mm < 2 * slantMm ? null : 'too-flat';
}

/** R1 = s·d1/(d1 − d2), R2 = R1 − s, angle = π·(d1 − d2)/s (docs/surfaces.md). The figures must make a cone. */
export function sectorOf({ d1Mm, d2Mm, slantMm }: Omit<Cone, 'wide'>): Sector {
  const outerRadiusMm = (slantMm * d1Mm) / (d1Mm - d2Mm);
  return { innerRadiusMm: outerRadiusMm - slantMm, outerRadiusMm, angleRad: (Math.PI * (d1Mm - d2Mm)) / slantMm };
}

/** The slant of a side that stands so high; the two lie as far apart as the radii differ. */
export function slantOf(uprightMm: number, d1Mm: number, d2Mm: number): number {
  return Math.hypot(uprightMm, (d1Mm - d2Mm) / 2);
}

/** How high a side of a slant stands; 0 where it lies flat. */
export function uprightOf(slantMm: number, d1Mm: number, d2Mm: number): number {
  return Math.sqrt(Math.max(0, slantMm * slantMm - ((d1Mm - d2Mm) / 2) ** 2));
}
