/** Families of film and what each takes: typical figures, each a default that the shop can change (docs/films.md). */
export const FILM_FAMILIES = {
  calendered: { name: 'calendered adhesive', thicknessUm: 75, thinnestMm: 1.0, shrinkPct: 0.3, takesOnTop: true, mirrored: false },
  cast: { name: 'cast adhesive', thicknessUm: 55, thinnestMm: 0.8, shrinkPct: 0.1, takesOnTop: true, mirrored: false },
  translucent: { name: 'translucent', thicknessUm: 75, thinnestMm: 1.2, shrinkPct: 0.3, takesOnTop: true, mirrored: false },
  reflective: { name: 'reflective', thicknessUm: 130, thinnestMm: 2.0, shrinkPct: 0.2, takesOnTop: true, mirrored: false },
  textured: { name: 'textured or glitter', thicknessUm: 200, thinnestMm: 2.5, shrinkPct: 0.2, takesOnTop: false, mirrored: false },
  heatTransfer: { name: 'heat-transfer', thicknessUm: 90, thinnestMm: 0.8, shrinkPct: 0.6, takesOnTop: true, mirrored: true },
  flock: { name: 'flock', thicknessUm: 420, thinnestMm: 2.0, shrinkPct: 0.5, takesOnTop: false, mirrored: true },
  dyeTransfer: { name: 'dye-transfer sheet', thicknessUm: 100, thinnestMm: 1.0, shrinkPct: 0, takesOnTop: false, mirrored: true },
  stencil: { name: 'stencil mask', thicknessUm: 80, thinnestMm: 1.5, shrinkPct: 0, takesOnTop: true, mirrored: false },
} as const;

export type FilmFamily = keyof typeof FILM_FAMILIES;

/** One film of the shop's stock, with the settings that worked on the cutter. */
export interface Film {
  readonly id: string;
  readonly name: string;
  readonly family: FilmFamily;
  /** "#rrggbb" */
  readonly colour: string;
  readonly finish: 'gloss' | 'matt' | 'textured' | 'translucent';
  /** Brushed or patterned films may not be turned on the sheet. */
  readonly directional: boolean;
  readonly thicknessUm: number;
  readonly thinnestMm: number;
  readonly shrinkPct: number;
  readonly takesOnTop: boolean;
  /** Cut from the back, as a mirror image. */
  readonly mirrored: boolean;
  readonly costPerM2: number;
  readonly forceG: number;
  readonly speedMmS: number;
}

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

/** The blade cutter: what it can reach and how it moves. */
export interface CutterProfile {
  readonly id: string;
  readonly name: string;
  readonly host: string;
  readonly port: number;
  /** The widest film or mat it takes. */
  readonly widthMm: number;
  readonly accelerationMmS2: number;
  readonly travelSpeedMmS: number;
  /** Time for the knife to go down or up, each. */
  readonly liftSeconds: number;
  /** How far the knife's tip trails its holder. */
  readonly bladeOffsetMm: number;
  readonly overcutMm: number;
  /** How truly it comes back to a point; part of the trap formula. */
  readonly repeatabilityMm: number;
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

/** What the shop has: films, pieces of them, mats, and the cutter. */
export interface Shop {
  readonly films: readonly Film[];
  readonly mats: readonly Mat[];
  readonly pieces: readonly FilmPiece[];
  readonly cutter: CutterProfile;
}
