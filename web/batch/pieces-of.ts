import type { LaidSheetView } from '../../core/plan/index.js';
import type { LeftoverView, OnPiece } from '../../core/laying/index.js';
import type { Film, FilmPiece, LaidRectangle } from '../../core/shop/index.js';

/** A piece to be fetched for a sheet: which, what is cut off it by hand, and what of it goes back. */
export interface PieceToFetch {
  /** The numbers of the sheet and of the piece on its mat, from 1; none for one piece as it is. */
  readonly sheet: number;
  readonly zone: number | null;
  readonly film: Film;
  readonly piece: FilmPiece;
  /** Cut off it by hand: the piece for a mat, or what is laid in foil. Nothing of a piece that goes in as it is. */
  readonly cuts: readonly LaidRectangle[];
  readonly isFoil: boolean;
  /** What lies on it; nothing of foil. */
  readonly carries: readonly OnPiece[];
  /** Cut as a mirror image. */
  readonly isMirrored: boolean;
  /** How much of a roll as it is is fed, mm; null for all else. */
  readonly fedMm: number | null;
  readonly leftovers: readonly LeftoverView[];
}

/** What is fetched for some sheets, in the order of cutting. */
export function piecesOf(sheets: readonly LaidSheetView[]): PieceToFetch[] {
  return sheets.flatMap((sheet, i) => {
    const backOf = (piece: FilmPiece) => sheet.leftovers.filter(({ pieceId, keep }) => keep && pieceId === piece.id);
    const foils = sheet.foils.map(({ film, piece, cuts }): PieceToFetch => ({
      sheet: i + 1,
      zone: null,
      film,
      piece,
      cuts,
      isFoil: true,
      carries: [],
      isMirrored: false,
      fedMm: null,
      leftovers: backOf(piece),
    }));
    if (!sheet.zones)
      return [
        {
          sheet: i + 1,
          zone: null,
          film: sheet.film,
          piece: sheet.piece!,
          cuts: [],
          isFoil: false,
          carries: sheet.onPieces[0]!,
          isMirrored: sheet.mirroredFilmIds.includes(sheet.film.id),
          fedMm: sheet.piece!.kind === 'roll' ? sheet.usedLengthMm : null,
          leftovers: backOf(sheet.piece!),
        },
        ...foils,
      ];
    const zones = sheet.zones.map((zone, z): PieceToFetch => ({
      sheet: i + 1,
      zone: z + 1,
      film: zone.film,
      piece: zone.piece,
      cuts: [zone],
      isFoil: false,
      carries: sheet.onPieces[z]!,
      isMirrored: sheet.mirroredFilmIds.includes(zone.film.id),
      fedMm: null,
      leftovers: backOf(zone.piece),
    }));
    return [...zones, ...foils];
  });
}
