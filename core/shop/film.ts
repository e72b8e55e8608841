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
