import type { LaidRectangle } from '../../shop/index.js';
import type { SheetPlan } from './sheet-plan.js';

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
