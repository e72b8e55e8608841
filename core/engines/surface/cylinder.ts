/** How wide a design looks on a cylinder when it is looked at from in front: D·sin(φ/2) at φ = 2w/D, and D once it goes half round (docs/surfaces.md). */
export function seenAtOnceMm(diameterMm: number, widthMm: number): number {
  const span = spanRad(diameterMm, widthMm);
  return span >= Math.PI ? diameterMm : diameterMm * Math.sin(span / 2);
}

/** The angle that a design of this width takes up round a cylinder: 2w/D. */
export function spanRad(diameterMm: number, widthMm: number): number {
  return (2 * widthMm) / diameterMm;
}

/** Past this share of the way round a design can't be seen from one place. Source: trade practice. */
export const SEEN_SHARE = 1 / 3;

/** The hand that holds a mug. */
export type Hand = 'right' | 'left';

/**
 * Where the middle of each side lies, mm from the handle's middle to the right as seen from outside, on the whole way round. The handle is on the side of the hand
 * that holds it, so its holder looks at what lies a quarter before it for the right hand and a quarter after it for the left; the room sees the opposite side.
 */
export function sidesOf(
  circumferenceMm: number,
  hand: Hand,
): { readonly holderMm: number; readonly roomMm: number; readonly frontMm: number } {
  const [quarter, threeQuarters] = [circumferenceMm / 4, (3 * circumferenceMm) / 4];
  return hand === 'right'
    ? { holderMm: threeQuarters, roomMm: quarter, frontMm: circumferenceMm / 2 }
    : { holderMm: quarter, roomMm: threeQuarters, frontMm: circumferenceMm / 2 };
}
