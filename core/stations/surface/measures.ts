import { circumferenceAt, limitsOf, whyNoCone, type NoCone } from '../../engines/surface/index.js';
import { measuredOf, slantMmOf, type SurfaceDecisions } from './decisions.js';

/** A figure of a surface that cannot be, by the field that holds it and why. */
export type MeasureTrouble =
  | { readonly field: 'd1Mm'; readonly why: NoCone }
  | { readonly field: 'lipMm' | 'gapMm' | 'margins'; readonly why: 'leaves-nothing'; readonly ofMm: number }
  | { readonly field: 'across' | 'down'; readonly why: 'arc-too-high'; readonly chordMm: number };

/** What of the figures of a surface cannot be; empty when a design can be placed by them. */
export function measureTroubles(decisions: SurfaceDecisions): MeasureTrouble[] {
  const { kind, cylinder, taper, compound } = decisions.surface;
  switch (kind) {
    case 'unmeasured':
    case 'garment':
      return [];
    case 'flat':
    case 'glass': {
      const { widthMm, heightMm } = limitsOf(measuredOf(decisions))!;
      return widthMm <= 0 || heightMm <= 0 ? [{ field: 'margins', why: 'leaves-nothing', ofMm: 0 }] : [];
    }
    case 'cylinder': {
      const { girthBy, girthMm, straightHeightMm, gapMm } = cylinder;
      return roundTroubles(cylinder, straightHeightMm, gapMm, girthBy === 'diameter' ? girthMm * Math.PI : girthMm);
    }
    case 'taper': {
      const cone = { d1Mm: taper.d1Mm, d2Mm: taper.d2Mm, slantMm: slantMmOf(taper), wide: taper.wide };
      const why = whyNoCone(cone);
      return why
        ? [{ field: 'd1Mm', why }]
        : roundTroubles(taper, cone.slantMm, taper.gapMm, circumferenceAt(cone, cone.slantMm / 2));
    }
    case 'compound':
      // Past half a circle a thing has no front.
      return (['across', 'down'] as const).flatMap((field) =>
        compound[field].heightMm > compound[field].chordMm / 2
          ? [{ field, why: 'arc-too-high' as const, chordMm: compound[field].chordMm }]
          : [],
      );
  }
}

function roundTroubles(
  { lipMm, footMm }: { readonly lipMm: number; readonly footMm: number },
  heightMm: number,
  gapMm: number,
  roundMm: number,
): MeasureTrouble[] {
  return [
    ...(lipMm + footMm >= heightMm
      ? [{ field: 'lipMm' as const, why: 'leaves-nothing' as const, ofMm: heightMm }]
      : []),
    ...(gapMm >= roundMm ? [{ field: 'gapMm' as const, why: 'leaves-nothing' as const, ofMm: roundMm }] : []),
  ];
}
