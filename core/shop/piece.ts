import { figure, id, note, object, oneOf, orNull, size, text, whole, yes } from '../words/schema.js';

export const PIECE_KINDS = ['roll', 'sheet', 'offcut'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** A piece of film as it is described: a roll, a stack of like sheets, or an offcut. How much of it is left stands in the stock book. */
export interface PieceCard {
  readonly id: string;
  readonly filmId: string;
  readonly kind: PieceKind;
  /** What is written on an offcut, so that it is found again; null for others. */
  readonly number: number | null;
  /** Usable width across the feed, the pinch-roller margins already taken off. */
  readonly widthMm: number;
  /** How long a sheet or an offcut is; of a roll, how long it was when it came. */
  readonly lengthMm: number;
  /** Nothing is cut nearer to its edges than this: film lifts there, and the knife may run off it. */
  readonly edgeMm: number;
  /** Where it lies. */
  readonly place: string;
  readonly note: string;
  /** Not to be used any more, whatever is left. */
  readonly retired: boolean;
}

/** A piece of film that can go into the cutter, with what is left of it: of a roll its length now, of sheets how many. */
export interface FilmPiece extends Pick<
  PieceCard,
  'id' | 'filmId' | 'kind' | 'number' | 'widthMm' | 'lengthMm' | 'edgeMm'
> {
  readonly quantity: number;
}

/** A piece as the shop knows it. */
export interface StockPiece extends PieceCard {
  /** The sum of its lines in the stock book: of a roll mm, of others how many. */
  readonly left: number;
}

export const PIECE_SCHEMA = object({
  id,
  filmId: id,
  kind: oneOf(PIECE_KINDS),
  number: orNull(whole(1, 1_000_000)),
  widthMm: size,
  lengthMm: figure(1, 1_000_000),
  edgeMm: figure(0, 100),
  place: text,
  note,
  retired: yes,
});

/** A piece as the plan sees it. */
export function asFilmPiece({
  id,
  filmId,
  kind,
  number,
  widthMm,
  lengthMm,
  edgeMm,
  left,
  retired,
}: StockPiece): FilmPiece {
  const isThere = !retired && left > 0;
  return {
    id,
    filmId,
    kind,
    number,
    widthMm,
    edgeMm,
    ...(kind === 'roll'
      ? { lengthMm: Math.max(0, left), quantity: isThere ? 1 : 0 }
      : { lengthMm, quantity: isThere ? left : 0 }),
  };
}

/** How much film a piece still is, mm². */
export function areaLeft({
  kind,
  widthMm,
  lengthMm,
  left,
  retired,
}: Pick<StockPiece, 'kind' | 'widthMm' | 'lengthMm' | 'left' | 'retired'>): number {
  return retired ? 0 : Math.max(0, left) * widthMm * (kind === 'roll' ? 1 : lengthMm);
}
