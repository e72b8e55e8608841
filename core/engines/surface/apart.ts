import type { Size } from './surface-kind.js';

/** Between designs that are laid one by one, mm: wider than outlines reach on both sides. */
export const APART_MM = 120;
/** Rows end where all of them together are about so much wider than high. */
const WIDE = 1.7;

/** Where designs of one job lie beside each other, in rows from left to right, `betweenMm` apart. */
export function setBeside(sizes: readonly Size[], betweenMm: number): { readonly xMm: number; readonly yMm: number }[] {
  const area = sizes.reduce((sum, { widthMm, heightMm }) => sum + (widthMm + betweenMm) * (heightMm + betweenMm), 0);
  const widest = Math.max(0, ...sizes.map(({ widthMm }) => widthMm));
  const row = Math.max(widest, Math.sqrt(area * WIDE));
  let [x, y, highest] = [0, 0, 0];
  return sizes.map(({ widthMm, heightMm }) => {
    if (x > 0 && x + widthMm > row) [x, y, highest] = [0, y + highest + betweenMm, 0];
    const at = { xMm: x, yMm: y };
    x += widthMm + betweenMm;
    highest = Math.max(highest, heightMm);
    return at;
  });
}
