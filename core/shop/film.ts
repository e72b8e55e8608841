/** How a film is made to stick: only films of one way can be built on each other. */
export type FilmWay = 'press' | 'stencil' | 'adhesive';

/** What a film's glue is like; films that are pressed on have none. */
export type Adhesive = 'permanent' | 'removable' | 'high-tack' | 'air-channel';

/**
 * Families of film and what each takes: typical figures, each a default that the shop can change (docs/films.md).
 * A film that is stuck down draws back at its edges, by so much indoors and in the sun whatever its size; one that is pressed shrinks as a whole.
 */
export const FILM_FAMILIES = {
  calendered: { name: 'calendered adhesive, monomeric', way: 'adhesive', thicknessUm: 80, thinnestMm: 1.0, drawBackIndoorsMm: 0.12, drawBackSunMm: 0.3, shrinkPct: 0, takesOnTop: true, mirrored: false, opacityPct: 95 },
  polymeric: { name: 'calendered adhesive, polymeric', way: 'adhesive', thicknessUm: 75, thinnestMm: 1.0, drawBackIndoorsMm: 0.08, drawBackSunMm: 0.15, shrinkPct: 0, takesOnTop: true, mirrored: false, opacityPct: 95 },
  cast: { name: 'cast adhesive', way: 'adhesive', thicknessUm: 55, thinnestMm: 1.0, drawBackIndoorsMm: 0.04, drawBackSunMm: 0.07, shrinkPct: 0, takesOnTop: true, mirrored: false, opacityPct: 92 },
  translucent: { name: 'translucent or frosted', way: 'adhesive', thicknessUm: 75, thinnestMm: 1.2, drawBackIndoorsMm: 0.12, drawBackSunMm: 0.25, shrinkPct: 0, takesOnTop: true, mirrored: false, opacityPct: 40 },
  reflective: { name: 'reflective', way: 'adhesive', thicknessUm: 130, thinnestMm: 2.0, drawBackIndoorsMm: 0.1, drawBackSunMm: 0.15, shrinkPct: 0, takesOnTop: true, mirrored: false, opacityPct: 100 },
  textured: { name: 'textured or glitter, adhesive', way: 'adhesive', thicknessUm: 200, thinnestMm: 2.5, drawBackIndoorsMm: 0.1, drawBackSunMm: 0.15, shrinkPct: 0, takesOnTop: false, mirrored: false, opacityPct: 100 },
  heatTransfer: { name: 'heat-transfer', way: 'press', thicknessUm: 90, thinnestMm: 0.8, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0.5, takesOnTop: true, mirrored: true, opacityPct: 95 },
  heatGlitter: { name: 'heat-transfer glitter', way: 'press', thicknessUm: 250, thinnestMm: 2.0, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0.3, takesOnTop: false, mirrored: true, opacityPct: 100 },
  flock: { name: 'flock', way: 'press', thicknessUm: 420, thinnestMm: 2.0, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0.5, takesOnTop: false, mirrored: true, opacityPct: 100 },
  puff: { name: 'puff', way: 'press', thicknessUm: 350, thinnestMm: 2.0, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0.5, takesOnTop: false, mirrored: true, opacityPct: 100 },
  foil: { name: 'heat adhesive and foil', way: 'press', thicknessUm: 60, thinnestMm: 1.0, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0.5, takesOnTop: true, mirrored: true, opacityPct: 100 },
  dyeTransfer: { name: 'dye-transfer sheet', way: 'press', thicknessUm: 100, thinnestMm: 1.0, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0, takesOnTop: false, mirrored: true, opacityPct: 0 },
  stencil: { name: 'stencil mask', way: 'stencil', thicknessUm: 80, thinnestMm: 1.5, drawBackIndoorsMm: 0, drawBackSunMm: 0, shrinkPct: 0, takesOnTop: true, mirrored: false, opacityPct: 95 },
} as const satisfies Readonly<Record<string, { readonly name: string; readonly way: FilmWay } & Omit<FilmFigures, 'costPerM2' | 'forceG' | 'speedMmS'>>>;

export type FilmFamily = keyof typeof FILM_FAMILIES;

/** The figures of a film: typical of its family, or its own. */
interface FilmFigures {
  readonly thicknessUm: number;
  /** The thinnest stroke that can be weeded. */
  readonly thinnestMm: number;
  /** e: how far each edge draws back once the film is stuck down, whatever its size. */
  readonly drawBackIndoorsMm: number;
  readonly drawBackSunMm: number;
  /** s: how much the film shrinks as a whole under the press. */
  readonly shrinkPct: number;
  readonly takesOnTop: boolean;
  /** Cut from the back, as a mirror image. */
  readonly mirrored: boolean;
  /** How well it hides what lies under it: 100 times its lightness (Y) over black by that over white. */
  readonly opacityPct: number;
  readonly costPerM2: number;
  readonly forceG: number;
  readonly speedMmS: number;
}

/** One film of the shop's stock, with the settings that worked on the cutter. */
export interface Film extends FilmFigures {
  readonly id: string;
  readonly name: string;
  readonly family: FilmFamily;
  /** "#rrggbb" */
  readonly colour: string;
  readonly finish: 'gloss' | 'matt' | 'textured' | 'translucent';
  /** Brushed or patterned films may not be turned on the sheet. */
  readonly directional: boolean;
  readonly adhesive: Adhesive | null;
  /** Grey glue hides what lies below, and is useless behind glass. */
  readonly adhesiveColour: 'clear' | 'grey' | null;
}

/** How a film is made to stick. */
export function wayOf({ family }: Pick<Film, 'family'>): FilmWay {
  return FILM_FAMILIES[family].way;
}
