/** Terms of the trap formula, all in mm but the shrink, which is a fraction. */
export interface TrapTerms {
  /** a: how far a layer may land from where it should. */
  readonly placementErrorMm: number;
  /** s: difference in linear shrink between the two films, as a fraction (0.002 = 0.2 %). */
  readonly shrinkDifference: number;
  /** R: half the larger side of the area that the pair shares. */
  readonly reachMm: number;
  /** L: distance between the registration marks, or the common area's own length where there are none. */
  readonly markDistanceMm: number;
  /** c: how truly the cutter comes back to a point. */
  readonly repeatabilityMm: number;
}

export interface TrapWidth {
  /** Rounded up to 0.05 mm. */
  readonly mm: number;
  readonly exactMm: number;
  readonly parts: { readonly placement: number; readonly shrink: number; readonly turn: number; readonly cutter: number };
}

/**
 * The least trap that hides every slip at once: t = a + R·(s + √2·a / L) + 2c, rounded up to 0.05 mm.
 * The statistical form takes the root of the sum of the squares of what happens by chance, t = R·s + √(a² + (R·√2·a/L)² + 2c²): a slip
 * beyond it is then as rare as one beyond a or c by itself. Source: docs/trap.md. All terms must be finite and at least 0, L above 0.
 */
export function trapWidth(terms: TrapTerms, form: 'worst' | 'statistical' = 'worst'): TrapWidth {
  const { placementErrorMm: a, shrinkDifference: s, reachMm: R, markDistanceMm: L, repeatabilityMm: c } = terms;
  const parts = { placement: a, shrink: R * s, turn: (R * Math.SQRT2 * a) / L, cutter: 2 * c };
  // Two cuts err independently, so their share in squares is c² twice; shrink is no accident and adds as it is.
  const exactMm = form === 'worst' ? parts.placement + parts.shrink + parts.turn + parts.cutter : parts.shrink + Math.hypot(parts.placement, parts.turn, c, c);
  // A hair of slack, or 0.35 exactly would round up to 0.40 by binary fractions.
  return { mm: Math.ceil(exactMm * 20 - 1e-9) / 20, exactMm, parts };
}
