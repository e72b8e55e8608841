import type { StockPiece } from '../../core/shop/index.js';

/** What is left of a film, m²; with a sign when that is less than the shop wants to have. */
export function sayLeft(leftM2: number, reorderM2: number): string {
  const said = leftM2 === 0 ? 'none' : `${leftM2.toFixed(leftM2 < 1 ? 2 : 1)} m²`;
  return reorderM2 > 0 && leftM2 < reorderM2 ? `▾ ${said}` : said;
}

/** An amount of a piece, as what is left or a line of the book: metres of a roll, else how many. */
export function sayAmount({ kind }: Pick<StockPiece, 'kind'>, amount: number): string {
  return kind === 'roll' ? `${Number((amount / 1000).toFixed(3))} m` : String(amount);
}
