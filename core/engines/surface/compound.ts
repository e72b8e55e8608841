/** A surface that bends in two directions, each by its radius, mm; null where it is straight. */
export interface Bend {
  readonly acrossMm: number | null;
  readonly downMm: number | null;
}

/** The radius of an arc by a chord and the height of the arc over its middle: c²/(8h) + h/2. Null for a height of 0: it is straight. */
export function radiusOf(chordMm: number, heightMm: number): number | null {
  return heightMm === 0 ? null : (chordMm * chordMm) / (8 * heightMm) + heightMm / 2;
}

/** Beyond this share of the radius the rule of thumb is off by more than a tenth. */
const STRAIN_HOLDS_TO = 0.5;

/**
 * How far film must stretch, in percent, to lie on a surface that bends in both directions: min(r²/6, h²/2)/(ρ₁·ρ₂) for half-sides r ≥ h. Bent in one direction
 * only, it costs nothing. It holds where neither half-side is longer than half the radius it bends by.
 * Source: a flat disc laid on a sphere from the middle out keeps its radii, so its circle at the distance r must grow or shrink by r²/6ρ²; a strip gives way
 * along its edges, by h²/2ρ² at most.
 */
export function strainPct({ acrossMm, downMm }: Bend, widthMm: number, heightMm: number): number {
  if (acrossMm === null || downMm === null) return 0;
  const [long, short] = [Math.max(widthMm, heightMm) / 2, Math.min(widthMm, heightMm) / 2];
  return (100 * Math.min(long ** 2 / 6, short ** 2 / 2)) / (acrossMm * downMm);
}

/** Whether the rule holds for a design of this size. */
export function strainHolds({ acrossMm, downMm }: Bend, widthMm: number, heightMm: number): boolean {
  return (
    (acrossMm === null || widthMm / 2 <= STRAIN_HOLDS_TO * acrossMm) &&
    (downMm === null || heightMm / 2 <= STRAIN_HOLDS_TO * downMm)
  );
}

/** The strain at one place of a design that is laid from its middle out, in percent: none in the middle, all of it at the farthest edge. */
export function strainAt(bend: Bend, widthMm: number, heightMm: number, x: number, y: number): number {
  const whole = strainPct(bend, widthMm, heightMm);
  const [long, short] = [Math.max(widthMm, heightMm) / 2, Math.min(widthMm, heightMm) / 2];
  // A compact design is strained by its distance from the middle; a strip only across itself.
  const isStrip = short ** 2 / 2 < long ** 2 / 6;
  const [dx, dy] = [x - widthMm / 2, y - heightMm / 2];
  const share = isStrip ? Math.abs(widthMm >= heightMm ? dy : dx) / short : Math.hypot(dx, dy) / long;
  return whole * Math.min(1, share ** 2);
}

/** The largest scale of a design at which it stretches by no more than `mostPct`; null when any size lies without stretching. */
export function safeScale(bend: Bend, widthMm: number, heightMm: number, mostPct: number): number | null {
  const strain = strainPct(bend, widthMm, heightMm);
  return strain === 0 ? null : Math.sqrt(mostPct / strain);
}
