import type { PieceKind } from '../../core/shop/index.js';
import { readLength, sayUnclear } from '../../core/words/index.js';

/** How much of a piece somebody wrote: of a roll a length, which is in metres without a unit; of others how many. */
export function readFigure(kind: PieceKind, text: string): { readonly figure: number } | { readonly wrong: string } {
  const tidy = text.trim();
  if (tidy === '') return { wrong: 'Say how much.' };
  const isNegative = tidy.startsWith('-') || tidy.startsWith('−');
  const plain = isNegative ? tidy.slice(1) : tidy;
  if (kind !== 'roll')
    return /^\d+$/.test(plain)
      ? { figure: Number(plain) * (isNegative ? -1 : 1) }
      : { wrong: `“${tidy}” is not a whole number.` };
  const length = /[a-z"'′″]/i.test(plain) ? readLength(plain) : readLength(`${plain} m`);
  if ('mm' in length) return { figure: length.mm * (isNegative ? -1 : 1) };
  return {
    wrong:
      length.problem === 'unclear'
        ? sayUnclear(tidy, length.either)
        : `“${tidy}” is not a length. Write metres, such as 12.5, or 850 mm.`,
  };
}
