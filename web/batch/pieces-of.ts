import type { LaidSheetView } from '../../core/plan/index.js';
import type { LeftoverView } from '../../core/stations/sheets/index.js';
import type { Film, FilmPiece, LaidRectangle } from '../../core/shop/index.js';

/** A piece to be fetched for a sheet: which, what is cut off it as a piece for a mat, and what of it goes back. */
export interface PieceToFetch {
  /** The numbers of the sheet and of the piece on its mat, from 1; none for one piece as it is. */
  readonly sheet: number;
  readonly zone: number | null;
  readonly film: Film;
  readonly piece: FilmPiece;
  readonly cutOff: LaidRectangle | null;
  /** How much of a roll as it is is fed, mm; null for all else. */
  readonly fedMm: number | null;
  readonly leftovers: readonly LeftoverView[];
}

/** What is fetched for some sheets, in the order of cutting. */
export function piecesOf(sheets: readonly LaidSheetView[]): PieceToFetch[] {
  return sheets.flatMap((sheet, i) => {
    const kept = sheet.leftovers.filter(({ keep }) => keep);
    if (!sheet.zones)
      return [
        {
          sheet: i + 1,
          zone: null,
          film: sheet.film,
          piece: sheet.piece!,
          cutOff: null,
          fedMm: sheet.piece!.kind === 'roll' ? sheet.usedLengthMm : null,
          leftovers: kept,
        },
      ];
    return sheet.zones.map((zone, z): PieceToFetch => ({
      sheet: i + 1,
      zone: z + 1,
      film: zone.film,
      piece: zone.piece,
      cutOff: zone,
      fedMm: null,
      leftovers: kept.filter(({ pieceId }) => pieceId === zone.piece.id),
    }));
  });
}
