/** Red, green, blue and alpha, 0 to 255. */
export type Rgba = readonly [number, number, number, number];

/** A mixture lies no further than this from the line between its two colours, in steps of a channel and as a share of their distance: compressed pictures smear colours more than brightness. */
const SMEARED = { least: 14, share: 0.2 };

/** Whether a colour lies on the way from one to another, give or take what compression smears. */
export function isBetween(colour: Rgba, a: Rgba, b: Rgba): boolean {
  let along = 0;
  let length = 0;
  let off = 0;
  for (let c = 0; c < 4; c += 1) {
    along += (colour[c]! - a[c]!) * (b[c]! - a[c]!);
    length += (b[c]! - a[c]!) ** 2;
  }
  const t = length === 0 ? 0 : Math.min(1, Math.max(0, along / length));
  for (let c = 0; c < 4; c += 1) off += (colour[c]! - a[c]! - t * (b[c]! - a[c]!)) ** 2;
  return Math.sqrt(off) <= SMEARED.least + SMEARED.share * Math.sqrt(length);
}
