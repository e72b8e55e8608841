import type { LaidRectangle } from '../shop/index.js';
import type { FoilOnSheet, SheetPlan } from './sheet-plan.js';

/** Foil of a sheet, as it is shown. */
export type FoilView = Pick<FoilOnSheet, 'film' | 'piece' | 'cuts' | 'usedLengthMm'>;

/** The foil of a sheet, as it is shown and kept. */
export function foilViews({ foils }: Pick<SheetPlan, 'foils'>): FoilView[] {
  return foils.map(({ film, piece, cuts, usedLengthMm }) => ({ film, piece, cuts, usedLengthMm }));
}

/** What is left of a piece, as it is shown. */
export interface LeftoverView extends LaidRectangle {
  readonly pieceId: string;
  readonly keep: boolean;
}

/** What is left of the pieces of a sheet, as it is shown. */
export function leftoverViews({ leftovers }: Pick<SheetPlan, 'leftovers'>): LeftoverView[] {
  return leftovers.map(({ piece, xMm, yMm, widthMm, lengthMm, keep }) => ({
    pieceId: piece.id,
    xMm,
    yMm,
    widthMm,
    lengthMm,
    keep,
  }));
}
