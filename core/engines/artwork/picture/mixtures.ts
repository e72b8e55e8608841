/** Red, green, blue and alpha, 0 to 255. */
export type Rgba = readonly [number, number, number, number];

/** A mixture lies no further than this from the line between its two colours, in steps of a channel and as a share of their distance: compressed pictures smear colours more than brightness. */
const SMEARED = { least: 14, share: 0.2 };

/** The mixture of two colours that is nearest to a third: how much of the second it holds, 0 to 1, and how far off it is, squared. */
export function nearestMixture(colour: Rgba, a: Rgba, b: Rgba): { readonly share: number; readonly offSquare: number } {
  let along = 0;
  let square = 0;
  let offSquare = 0;
  for (let c = 0; c < 4; c += 1) {
    along += (colour[c]! - a[c]!) * (b[c]! - a[c]!);
    square += (b[c]! - a[c]!) ** 2;
  }
  const share = square === 0 ? 0 : Math.min(1, Math.max(0, along / square));
  for (let c = 0; c < 4; c += 1) offSquare += (colour[c]! - a[c]! - share * (b[c]! - a[c]!)) ** 2;
  return { share, offSquare };
}

/** Whether a colour lies on the way from one to another, give or take what compression smears. */
export function isBetween(colour: Rgba, a: Rgba, b: Rgba): boolean {
  return isNear(nearestMixture(colour, a, b).offSquare, a, b);
}

/** Whether what is so far off (squared) the way from one colour to another still counts as on it. */
export function isNear(offSquare: number, a: Rgba, b: Rgba): boolean {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2], b[3] - a[3]);
  return Math.sqrt(offSquare) <= SMEARED.least + SMEARED.share * length;
}
