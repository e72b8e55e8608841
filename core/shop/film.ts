import { colour, figure, id, name, note, object, oneOf, orNull, text, yes } from '../words/schema.js';
import { PICTURE_SCHEMA, type Picture } from './picture.js';

/** How a film is made to stick: only films of one way can be built on each other. */
export type FilmWay = 'press' | 'stencil' | 'adhesive';

/** What a film's glue is like; films that are pressed on have none. */
export const ADHESIVES = ['permanent', 'removable', 'high-tack', 'air-channel'] as const;
export type Adhesive = (typeof ADHESIVES)[number];

export const ADHESIVE_COLOURS = ['clear', 'grey'] as const;
export const FINISHES = ['gloss', 'matt', 'textured', 'translucent'] as const;
export const PRESSURES = ['light', 'medium', 'firm'] as const;
export const PEELS = ['hot', 'warm', 'cold'] as const;

/** No larger circle fits into a strip of waste that is comfortable to pull, mm. Source: trade practice, to begin with, for all families. */
export const STRIP_BULK_MM = 80;

/**
 * Families of film and what each takes: typical figures, each a default that the shop can change (docs/films.md).
 * A film that is stuck down draws back at its edges, by so much indoors and in the sun whatever its size; one that is pressed shrinks as a whole.
 */
export const FILM_FAMILIES = {
  calendered: {
    name: 'calendered adhesive, monomeric',
    way: 'adhesive',
    thicknessUm: 80,
    thinnestMm: 1.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0.12,
    drawBackSunMm: 0.3,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    opacityPct: 95,
    forceG: 95,
    speedMmS: 200,
    layingMinC: 10,
    press: null,
    lightfastYears: 2,
  },
  polymeric: {
    name: 'calendered adhesive, polymeric',
    way: 'adhesive',
    thicknessUm: 75,
    thinnestMm: 1.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0.08,
    drawBackSunMm: 0.15,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    opacityPct: 95,
    forceG: 95,
    speedMmS: 200,
    layingMinC: 10,
    press: null,
    lightfastYears: 5,
  },
  cast: {
    name: 'cast adhesive',
    way: 'adhesive',
    thicknessUm: 55,
    thinnestMm: 1.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0.04,
    drawBackSunMm: 0.07,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    opacityPct: 92,
    forceG: 80,
    speedMmS: 180,
    layingMinC: 10,
    press: null,
    lightfastYears: 8,
  },
  translucent: {
    name: 'translucent or frosted',
    way: 'adhesive',
    thicknessUm: 75,
    thinnestMm: 1.2,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0.12,
    drawBackSunMm: 0.25,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    opacityPct: 40,
    forceG: 90,
    speedMmS: 180,
    layingMinC: 10,
    press: null,
    lightfastYears: 3,
  },
  reflective: {
    name: 'reflective',
    way: 'adhesive',
    thicknessUm: 130,
    thinnestMm: 2.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0.1,
    drawBackSunMm: 0.15,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    opacityPct: 100,
    forceG: 150,
    speedMmS: 120,
    layingMinC: 10,
    press: null,
    lightfastYears: 5,
  },
  textured: {
    name: 'textured or glitter, adhesive',
    way: 'adhesive',
    thicknessUm: 200,
    thinnestMm: 2.5,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0.1,
    drawBackSunMm: 0.15,
    shrinkPct: 0,
    takesOnTop: false,
    mirrored: false,
    opacityPct: 100,
    forceG: 170,
    speedMmS: 100,
    layingMinC: 10,
    press: null,
    lightfastYears: 3,
  },
  heatTransfer: {
    name: 'heat-transfer',
    way: 'press',
    thicknessUm: 90,
    thinnestMm: 0.8,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0.5,
    takesOnTop: true,
    mirrored: true,
    opacityPct: 95,
    forceG: 85,
    speedMmS: 160,
    layingMinC: null,
    press: { tempC: 150, seconds: 12, pressure: 'medium', peel: 'warm', tackSeconds: 2, bearsSeconds: 60, leastC: 140 },
    lightfastYears: null,
  },
  heatGlitter: {
    name: 'heat-transfer glitter',
    way: 'press',
    thicknessUm: 250,
    thinnestMm: 2.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0.3,
    takesOnTop: false,
    mirrored: true,
    opacityPct: 100,
    forceG: 180,
    speedMmS: 90,
    layingMinC: null,
    press: { tempC: 160, seconds: 15, pressure: 'medium', peel: 'warm', tackSeconds: 2, bearsSeconds: 60, leastC: 150 },
    lightfastYears: null,
  },
  flock: {
    name: 'flock',
    way: 'press',
    thicknessUm: 420,
    thinnestMm: 2.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0.5,
    takesOnTop: false,
    mirrored: true,
    opacityPct: 100,
    forceG: 160,
    speedMmS: 90,
    layingMinC: null,
    press: { tempC: 160, seconds: 16, pressure: 'medium', peel: 'cold', tackSeconds: 2, bearsSeconds: 60, leastC: 150 },
    lightfastYears: null,
  },
  puff: {
    name: 'puff',
    way: 'press',
    thicknessUm: 350,
    thinnestMm: 2.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0.5,
    takesOnTop: false,
    mirrored: true,
    opacityPct: 100,
    forceG: 160,
    speedMmS: 90,
    layingMinC: null,
    press: { tempC: 155, seconds: 9, pressure: 'light', peel: 'hot', tackSeconds: 2, bearsSeconds: 60, leastC: 150 },
    lightfastYears: null,
  },
  heatAdhesive: {
    name: 'heat adhesive',
    way: 'press',
    thicknessUm: 60,
    thinnestMm: 1.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0.5,
    takesOnTop: true,
    mirrored: true,
    opacityPct: 100,
    forceG: 80,
    speedMmS: 160,
    layingMinC: null,
    press: { tempC: 150, seconds: 5, pressure: 'medium', peel: 'warm', tackSeconds: 2, bearsSeconds: 60, leastC: 140 },
    lightfastYears: null,
  },
  foil: {
    name: 'foil, laid on heat adhesive',
    way: 'press',
    thicknessUm: 60,
    thinnestMm: 1.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0.5,
    takesOnTop: true,
    mirrored: true,
    opacityPct: 100,
    forceG: 80,
    speedMmS: 160,
    layingMinC: null,
    press: { tempC: 150, seconds: 6, pressure: 'medium', peel: 'cold', tackSeconds: 2, bearsSeconds: 40, leastC: 140 },
    lightfastYears: null,
  },
  dyeTransfer: {
    name: 'dye-transfer sheet',
    way: 'press',
    thicknessUm: 100,
    thinnestMm: 1.0,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0,
    takesOnTop: false,
    mirrored: true,
    opacityPct: 0,
    forceG: 70,
    speedMmS: 180,
    layingMinC: null,
    press: {
      tempC: 185,
      seconds: 240,
      pressure: 'medium',
      peel: 'hot',
      tackSeconds: null,
      bearsSeconds: null,
      leastC: 180,
    },
    lightfastYears: null,
  },
  stencil: {
    name: 'stencil mask',
    way: 'stencil',
    thicknessUm: 80,
    thinnestMm: 1.5,
    stripBulkMm: STRIP_BULK_MM,
    drawBackIndoorsMm: 0,
    drawBackSunMm: 0,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    opacityPct: 95,
    forceG: 70,
    speedMmS: 200,
    layingMinC: 10,
    press: null,
    lightfastYears: null,
  },
} as const satisfies Readonly<
  Record<string, { readonly name: string; readonly way: FilmWay } & Omit<FilmFigures, 'costPerM2'>>
>;

export type FilmFamily = keyof typeof FILM_FAMILIES;

/** The figures of a film: typical of its family, or its own. */
interface FilmFigures {
  readonly thicknessUm: number;
  /** The thinnest stroke that can be weeded. */
  readonly thinnestMm: number;
  /** Waste is comfortable to pull while no larger circle fits into a strip of it. */
  readonly stripBulkMm: number;
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
  /** It does not stick when it is laid colder than this, °C; null when it is not known, or the film is pressed. */
  readonly layingMinC: number | null;
  /** Null for a film that is not pressed. */
  readonly press: PressFigures | null;
  /** So many years pass before its colour fades; null when it is not known. */
  readonly lightfastYears: number | null;
}

/** How a film is pressed on; the film maker's sheet wins. */
export interface PressFigures {
  readonly tempC: number;
  readonly seconds: number;
  readonly pressure: (typeof PRESSURES)[number];
  /** How warm it still is when its carrier comes off. */
  readonly peel: (typeof PEELS)[number];
  /** A short press that only holds it, for what lies below others; null when it takes none. */
  readonly tackSeconds: number | null;
  /** How long it may lie under the press in all; null when it is not known. */
  readonly bearsSeconds: number | null;
  /** The least temperature at which it sticks. */
  readonly leastC: number;
}

/** A film that is printed or woven with a picture that repeats. */
export interface Pattern {
  readonly picture: Picture;
  /** How wide the picture is on the film before it begins anew. */
  readonly repeatMm: number;
  /** Its height by its width. */
  readonly ratio: number;
}

/** One film of the shop's stock, with the settings that worked on the cutter. */
export interface Film extends FilmFigures {
  readonly id: string;
  readonly name: string;
  readonly family: FilmFamily;
  /** "#rrggbb" */
  readonly colour: string;
  readonly finish: (typeof FINISHES)[number];
  /** Brushed or patterned films may not be turned on the sheet. */
  readonly directional: boolean;
  readonly adhesive: Adhesive | null;
  /** Grey glue hides what lies below, and is useless behind glass. */
  readonly adhesiveColour: (typeof ADHESIVE_COLOURS)[number] | null;
  readonly pattern: Pattern | null;
  readonly supplier: string;
  readonly article: string;
  readonly note: string;
  /** With less than this in stock it is short, m²; 0 when nobody minds. */
  readonly reorderM2: number;
  /** Not offered any more; what was cut of it stays as it is. */
  readonly retired: boolean;
}

/** How a film is made to stick. */
export function wayOf({ family }: Pick<Film, 'family'>): FilmWay {
  return FILM_FAMILIES[family].way;
}

const celsius = figure(-40, 260);
/** How bulky waste may be: a strip narrower than a hand is no help, and none is larger than this. */
export const STRIP_BULK = figure(20, 2000);

export const FILM_SCHEMA = object({
  id,
  name,
  family: oneOf(Object.keys(FILM_FAMILIES)),
  colour,
  finish: oneOf(FINISHES),
  directional: yes,
  thicknessUm: figure(10, 2000),
  thinnestMm: figure(0.1, 50),
  stripBulkMm: STRIP_BULK,
  drawBackIndoorsMm: figure(0, 2),
  drawBackSunMm: figure(0, 2),
  shrinkPct: figure(0, 5),
  takesOnTop: yes,
  mirrored: yes,
  opacityPct: figure(0, 100),
  costPerM2: figure(0, 10_000),
  forceG: figure(1, 2000),
  speedMmS: figure(1, 2000),
  layingMinC: orNull(celsius),
  press: orNull(
    object({
      tempC: celsius,
      seconds: figure(0, 1000),
      pressure: oneOf(PRESSURES),
      peel: oneOf(PEELS),
      tackSeconds: orNull(figure(0, 60)),
      bearsSeconds: orNull(figure(0, 10_000)),
      leastC: celsius,
    }),
  ),
  lightfastYears: orNull(figure(0, 100)),
  adhesive: { enum: [...ADHESIVES, null] },
  adhesiveColour: { enum: [...ADHESIVE_COLOURS, null] },
  pattern: orNull(object({ picture: PICTURE_SCHEMA, repeatMm: figure(1, 10_000), ratio: figure(0.001, 1000) })),
  supplier: text,
  article: text,
  note,
  reorderM2: figure(0, 10_000),
  retired: yes,
});

/** A new film of a family, with what is typical of it. */
export function newFilm(id: string, family: FilmFamily): Film {
  const { name, way, ...typical } = FILM_FAMILIES[family];
  return {
    id,
    name: `New film, ${name}`,
    family,
    colour: '#888888',
    finish: family === 'translucent' ? 'translucent' : way === 'adhesive' && !typical.takesOnTop ? 'textured' : 'gloss',
    directional: false,
    ...typical,
    ...(way === 'press'
      ? { adhesive: null, adhesiveColour: null }
      : {
          adhesive: way === 'stencil' ? ('removable' as const) : ('permanent' as const),
          adhesiveColour: 'clear' as const,
        }),
    costPerM2: 0,
    pattern: null,
    supplier: '',
    article: '',
    note: '',
    reorderM2: 0,
    retired: false,
  };
}
