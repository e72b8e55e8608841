import type { ReactNode } from 'react';
import type { SheetView } from '../plan/plan-view.js';

/** One sheet as it lies before the cutter: the piece of film, on its mat if it needs one, with what is cut of it. */
export function SheetPicture({ sheet, children }: { readonly sheet: SheetView; readonly children?: ReactNode }) {
  const { piece, mat, usedLengthMm, film } = sheet;
  const top = usedLengthMm - shownLength(sheet);
  return (
    <>
      {mat && <rect x={(piece.widthMm - mat.widthMm) / 2} y={usedLengthMm - mat.lengthMm + (mat.lengthMm - piece.lengthMm) / 2} width={mat.widthMm} height={mat.lengthMm} rx="4" fill="#dbe2e1" stroke="#9fb0b0" strokeWidth="1" vectorEffect="non-scaling-stroke" />}
      <rect x="0" y={top} width={piece.widthMm} height={usedLengthMm - top} fill="#ffffff" />
      <rect x="0" y={top} width={piece.widthMm} height={usedLengthMm - top} fill="url(#hatch-waste)" stroke="#182325" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
      <path d={sheet.borders} fill="#ffffff" fillOpacity="0.7" stroke="#182325" strokeWidth="1" strokeDasharray="6 3" vectorEffect="non-scaling-stroke" />
      <path d={sheet.contours} fill={film.colour} fillRule="evenodd" stroke="#182325" strokeWidth="0.8" vectorEffect="non-scaling-stroke" />
      {children}
    </>
  );
}

/** A roll is shown a little further than it is used; a sheet whole. */
function shownLength({ piece, usedLengthMm }: SheetView): number {
  return piece.kind === 'roll' ? Math.min(piece.lengthMm, usedLengthMm * 1.08 + 20) : piece.lengthMm;
}

/** What must be in view for the whole sheet to be seen. */
export function sheetBox(sheet: SheetView): { minX: number; minY: number; maxX: number; maxY: number } {
  return { minX: 0, minY: sheet.usedLengthMm - shownLength(sheet), maxX: sheet.piece.widthMm, maxY: sheet.usedLengthMm };
}

export const PIECE_WORDS = { roll: 'off the roll', sheet: 'a sheet', offcut: 'an offcut' } as const;
