import type { StockPiece } from '../../core/shop/index.js';
import { formatLength, type LengthUnit } from '../../core/words/index.js';

/** "roll", "4 sheets", "offcut 12". */
export function sayPiece({ kind, number }: Pick<StockPiece, 'kind' | 'number'>): string {
  return kind === 'offcut' ? `offcut ${number ?? ''}`.trim() : kind === 'sheet' ? 'sheets' : 'roll';
}

/** How large a piece is: of a roll its width. */
export function saySize(
  { kind, widthMm, lengthMm }: Pick<StockPiece, 'kind' | 'widthMm' | 'lengthMm'>,
  unit: LengthUnit,
): string {
  return kind === 'roll'
    ? `${formatLength(widthMm, unit)} ${unit} wide`
    : `${formatLength(widthMm, unit)} × ${formatLength(lengthMm, unit)} ${unit}`;
}
