import type { Cone, NoCone } from '../../engines/surface/index.js';
import { formatLength, type Finding } from '../../words/index.js';
import { slantMmOf, type SurfaceDecisions, type SurfacePatch } from './decisions.js';
import { measureTroubles, type MeasureTrouble } from './measures.js';

/** Why figures make no taper, and what to do. */
export function sayNoCone(why: NoCone, { d1Mm, d2Mm, slantMm }: Omit<Cone, 'wide'>): string {
  switch (why) {
    case 'not-positive':
      return 'The two diameters and the slant must all be more than 0.';
    case 'alike':
      return `Both ends are ${formatLength(d1Mm)} mm across: that is no taper. Measure it as a round thing with straight sides.`;
    case 'turned-over':
      return `The larger diameter comes first: ${formatLength(d1Mm)} mm is less than ${formatLength(d2Mm)} mm. Swap the two.`;
    case 'too-flat':
      return `A side of ${formatLength(slantMm)} mm does not reach from ${formatLength(d2Mm)} to ${formatLength(d1Mm)} mm across. Measure the slant along the side again.`;
  }
}

/** The sentence that stands at the field. */
export function sayMeasure(trouble: MeasureTrouble, cone: Omit<Cone, 'wide'>): string {
  switch (trouble.why) {
    case 'leaves-nothing':
      if (trouble.field === 'margins')
        return 'The margins leave no room on the board. Make them narrower, or the board larger.';
      return trouble.field === 'lipMm'
        ? `Lip and foot together take all of the ${formatLength(trouble.ofMm)} mm. Measure how much of each must stay free again.`
        : `The gap is as wide as it is all the way round, ${formatLength(trouble.ofMm)} mm. Measure only what the handle or the seam takes.`;
    case 'arc-too-high':
      return `An arc over a chord of ${formatLength(trouble.chordMm)} mm is at most half as high. Measure how far the middle stands out from a straight rule.`;
    default:
      return sayNoCone(trouble.why, cone);
  }
}

/** What of a recipe's figures cannot be, by the field. */
export function sayFieldTroubles(decisions: SurfaceDecisions): ReadonlyMap<MeasureTrouble['field'], string> {
  const { taper } = decisions.surface;
  return new Map(
    measureTroubles(decisions).map((trouble) => [
      trouble.field,
      sayMeasure(trouble, { ...taper, slantMm: slantMmOf(taper) }),
    ]),
  );
}

/** The same, sentences alone. */
export function sayRecipeTroubles(decisions: SurfaceDecisions): string[] {
  return [...sayFieldTroubles(decisions).values()];
}

/** Figures that cannot be stop a job. */
export function sayMeasureTrouble(trouble: MeasureTrouble, cone: Omit<Cone, 'wide'>): Finding<SurfacePatch> {
  return {
    code: trouble.field === 'margins' ? 'margins-too-wide' : 'measures-wrong',
    severity: 'blocker',
    stage: 'surface',
    message: sayMeasure(trouble, cone),
  };
}

/** A design that is higher than the side of a taper. */
export function sayBeyondSlant(heightMm: number, slantMm: number): Finding<SurfacePatch> {
  return {
    code: 'beyond-slant',
    severity: 'warning',
    stage: 'surface',
    message: `The design is ${formatLength(heightMm)} mm high, but the side is only ${formatLength(slantMm)} mm along its slant.`,
  };
}
