/** A piece of film that can go into the cutter: on its own roll, or as a sheet on a carrier mat. */
export interface FilmPiece {
  readonly id: string;
  readonly filmId: string;
  readonly kind: 'roll' | 'sheet' | 'offcut';
  /** Usable width across the feed, the pinch-roller margins already taken off. */
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly quantity: number;
  /** Nothing is cut nearer to its edges than this: film lifts there, and the knife may run off it. */
  readonly edgeMm: number;
}

/** A sticky carrier that takes a sheet or an offcut through the cutter. */
export interface Mat {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** Its rim, which does not hold film. The lower left corner of the field within is where a piece's lower left corner is laid. */
  readonly edgeMm: number;
}
