/** How work is laid: wet, and on paper tape, film stretches more than dry. */
export const LAYINGS = ['dry', 'wet', 'tape'] as const;
export type Laying = (typeof LAYINGS)[number];

/** What a careful placement of pieces of 100 to 300 mm stays within (a₀), mm: with marks, and by eye. */
export const CAREFUL_MM = { marked: 0.25, byEye: 0.5 } as const;

/** Small pieces are laid more truly: from this size down by half as much, in a line up to that size, mm. */
const SMALL_MM = 30;
const USUAL_MM = 100;
/** From this size on the error grows by so much a metre. */
const LARGE_MM = 300;
const GROWS_PER_M: Readonly<Record<Laying, number>> = { dry: 0.3, wet: 0.5, tape: 0.5 };

/**
 * a: what a careful placement stays within at a size, mm. Source: docs/trap.md.
 *
 * @param usualMm a₀, the figure for pieces of 100 to 300 mm
 * @param sizeMm the longest side of what is laid in one piece
 */
export function placementErrorMm(usualMm: number, sizeMm: number, laying: Laying): number {
  if (sizeMm >= LARGE_MM) return usualMm + (GROWS_PER_M[laying] * (sizeMm - LARGE_MM)) / 1000;
  const share = Math.min(1, Math.max(0, (sizeMm - SMALL_MM) / (USUAL_MM - SMALL_MM)));
  return (usualMm * (1 + share)) / 2;
}

/** Terms of the trap formula, all in mm but the shrink, which is a fraction. */
export interface TrapTerms {
  /** a: what a careful placement stays within, each way at each mark (three standard deviations). */
  readonly placementErrorMm: number;
  /** Both films of the pair are laid to a third one, so that both may be off. */
  readonly bothLaid: boolean;
  /** |s₁ − s₂|: difference of what the films shrink as a whole, as a fraction (0.002 = 0.2 %). */
  readonly shrinkDifference: number;
  /** e₁ + e₂: how far the edges of both films draw back once they are laid. */
  readonly drawBackMm: number;
  /** R: from the middle of the marks to the farthest edge that the pair shares; half that edge where there are no marks. */
  readonly reachMm: number;
  /** L: distance between the marks, or the longest side of the shared edge's box where there are none. */
  readonly markDistanceMm: number;
  /** c: how truly the cutter comes back to a point. */
  readonly repeatabilityMm: number;
}

/** How slips add up: as they do by chance, or all at their worst at once. */
export type TrapForm = 'chance' | 'worst';

export interface TrapWidth {
  /** Rounded up to 0.05 mm, at least 0.3. */
  readonly mm: number;
  readonly exactMm: number;
  /** What each cause adds by itself in this form. */
  readonly parts: {
    readonly drawBack: number;
    readonly shrink: number;
    readonly slip: number;
    readonly turn: number;
    readonly cutter: number;
  };
}

/** Less than this is no trap that a hand can trust, mm. */
export const LEAST_TRAP_MM = 0.3;
/** So much is let go before rounding up, mm: it is less than anyone can cut. */
const SLACK_MM = 0.001;

/**
 * The trap that a pair of films needs:
 * by chance t = R·|s₁ − s₂| + e₁ + e₂ + √(a²/2 + 2·(a·R/L)² + 2c²), which fewer than one placement in a thousand exceeds;
 * in the worst case t = R·|s₁ − s₂| + e₁ + e₂ + max(a, 2·a·R/L) + 2c.
 * Where both films are laid to a third, a counts √2 by chance and 2 at worst. Source: docs/trap.md. All terms must be finite and at least
 * 0, L above 0.
 */
export function trapWidth(terms: TrapTerms, form: TrapForm = 'chance'): TrapWidth {
  const {
    bothLaid,
    shrinkDifference: s,
    drawBackMm: drawBack,
    reachMm: R,
    markDistanceMm: L,
    repeatabilityMm: c,
  } = terms;
  const byChance = form === 'chance';
  const a = terms.placementErrorMm * (bothLaid ? (byChance ? Math.SQRT2 : 2) : 1);
  const shrink = R * s;
  // The middle of two marks errs by the mean of their errors, the turn by their difference; two cuts err independently.
  const parts = byChance
    ? { drawBack, shrink, slip: a / Math.SQRT2, turn: (Math.SQRT2 * a * R) / L, cutter: Math.SQRT2 * c }
    : { drawBack, shrink, slip: a, turn: (2 * a * R) / L, cutter: 2 * c };
  const { slip, turn, cutter } = parts;
  const exactMm = drawBack + shrink + (byChance ? Math.hypot(slip, turn, cutter) : Math.max(slip, turn) + cutter);
  // A hair of slack, or 0.35 exactly would round up to 0.40 by binary fractions.
  return { mm: Math.max(LEAST_TRAP_MM, Math.ceil((exactMm - SLACK_MM) * 20 - 1e-9) / 20), exactMm, parts };
}
