import {
  GARMENTS,
  MOST_DESIGNS,
  MOST_FREE_PLACES,
  radiusOf,
  slantOf,
  SPOTS,
  whyNoCone,
  type Cylinder,
  type Flat,
  type Garments,
  type SizeWish,
  type Spot,
  type Surface,
  type Taper,
} from '../../engines/surface/index.js';
import { CLOTH, MATTERS, type Ground } from '../../shop/index.js';
import { colour, coordinate, figure, mm, object, oneOf, orNull, size, text, whole, yes } from '../../words/schema.js';
import type { SizeOf } from '../artwork/index.js';
import type { Patch, Slice } from '../slice.js';

export const SURFACE_KINDS = ['unmeasured', 'flat', 'glass', 'cylinder', 'taper', 'compound', 'garment'] as const;
export type SurfaceKindName = (typeof SURFACE_KINDS)[number];

/** A flat board, or a pane. */
export type FlatMeasures = Omit<Flat, 'kind' | 'at'>;

/** A round thing with straight sides; its girth by tape or calliper. */
export interface CylinderMeasures extends Omit<Cylinder, 'kind' | 'at' | 'diameterMm'> {
  readonly girthBy: 'circumference' | 'diameter';
  readonly girthMm: number;
}

/** A round thing that is wider at one end; its side measured along the slant, or upright. */
export interface TaperMeasures extends Omit<Taper, 'kind' | 'at' | 'cone'> {
  readonly d1Mm: number;
  readonly d2Mm: number;
  readonly wide: 'top' | 'foot';
  readonly sideBy: 'slant' | 'upright';
  readonly sideMm: number;
}

/** An arc by its chord and the height of the arc over it; 0 where it is straight. */
export interface Arc {
  readonly chordMm: number;
  readonly heightMm: number;
}

/** A thing that bends in two directions. */
export interface CompoundMeasures {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly across: Arc;
  readonly down: Arc;
}

/** So many pieces of one size of a garment; a width of null leaves it to the app. */
export interface SizeWanted {
  readonly size: string;
  readonly copies: number;
  readonly widthMm: number | null;
}

/** A print on a garment: where it sits, and the sizes of an order. */
export interface GarmentMeasures {
  readonly piece: Garments;
  readonly spot: Spot;
  /** Below the collar or seam, and off the middle; null takes the usual. */
  readonly downMm: number | null;
  readonly offMiddleMm: number | null;
  readonly sizes: readonly SizeWanted[];
}

/** One of a team: what its name and number say, and the size of its garment; empty for none. */
export interface TeamMember {
  readonly name: string;
  readonly number: string;
  readonly size: string;
}

/** A design for each of a team. */
export interface Team {
  /** The letterings of the design that say each one's name and number; null for none. */
  readonly namePart: string | null;
  readonly numberPart: string | null;
  readonly members: readonly TeamMember[];
  /** Names wider than this are condensed. */
  readonly widestMm: number;
  /** Each name by itself, or all alike. */
  readonly condense: 'each' | 'all';
}

/** Where a sign hangs that is made in panels, which rules how they lap. */
export const HANGS = ['wall', 'vehicle', 'boat'] as const;
export type Hangs = (typeof HANGS)[number];

/** A design beside the first on one thing. */
export interface OtherDesign {
  /** What of the artwork it is, by the parts' ids. */
  readonly parts: readonly string[];
  /** How wide it is made; null keeps it to the scale of the first. */
  readonly widthMm: number | null;
}

/** Several designs on one thing. */
export interface Several {
  /** All parts that stand in none of them are the first design. */
  readonly others: readonly OtherDesign[];
  /** How often each stands on a board. */
  readonly copies: number;
  /** What lies between two of them; null leaves it to the app. */
  readonly betweenMm: number | null;
}

export interface SurfaceDecisions {
  /** What is decorated, by its kind, and how large the design is wanted on it. Figures of other kinds are only remembered. */
  readonly surface: {
    readonly kind: SurfaceKindName;
    readonly flat: FlatMeasures;
    readonly cylinder: CylinderMeasures;
    readonly taper: TaperMeasures;
    readonly compound: CompoundMeasures;
    readonly garment: GarmentMeasures;
    /** Null for one design. */
    readonly team: Team | null;
    readonly several: Several;
    /** What it is made of, and its colour; null when nobody said. */
    readonly ground: { readonly matter: (typeof MATTERS)[number]; readonly colour: string } | null;
    readonly freshPaint: 'wall' | 'vehicle' | null;
    /** How far away it is to be read; null when nobody said. */
    readonly readFromMm: number | null;
    readonly panels: {
      /** By parts: each part that stands apart is a decal of its own, and laid by itself. */
      readonly split: 'auto' | 'never' | 'parts';
      /** How much panels lap; null leaves it to the app. */
      readonly lapMm: number | null;
      /** No panel is wider; null leaves it to the films. */
      readonly widestMm: number | null;
      readonly hangs: Hangs;
      /** The end from which the weather comes, or the viewer; a vehicle's and a boat's bow. */
      readonly weather: 'left' | 'right';
    };
    /** The blank of the shop that is measured. */
    readonly blankId: string | null;
    readonly at: { readonly xMm: number; readonly yMm: number } | null;
    readonly size: SizeWish;
    readonly sizeOf: SizeOf;
  };
}

export type SurfacePatch = Patch<SurfaceDecisions>;

/** More are several orders. */
export const MOST_MEMBERS = 60;
/** More copies on one board are a run of stickers. */
export const MOST_COPIES_ON_BOARD = 12;
/** So many letters a name has at most. */
export const LONGEST_NAME = 60;
/** No design is longer, mm: what is longer is planned as several jobs, since film, marks and relief lines of it are more than one person lays in one go. */
export const LONGEST_DESIGN_MM = 10_000;

/** So many letters a size has at most. */
const LONGEST_SIZE = 12;
/** Names on a back are at most so wide, mm. Source: trade practice. */
export const NAME_WIDEST_MM = 300;

const margins = object({ top: mm, right: mm, bottom: mm, left: mm });
const free = {
  anyOf: [
    object({
      shape: { const: 'rectangle' },
      what: text,
      xMm: coordinate,
      yMm: coordinate,
      widthMm: size,
      heightMm: size,
    }),
    object({ shape: { const: 'circle' }, what: text, xMm: coordinate, yMm: coordinate, diameterMm: size }),
  ],
};
const arc = object({ chordMm: size, heightMm: mm });

const BEGINNING: SurfaceDecisions['surface'] = {
  kind: 'unmeasured',
  flat: { widthMm: 300, heightMm: 200, marginMm: { top: 10, right: 10, bottom: 10, left: 10 }, free: [] },
  cylinder: {
    girthBy: 'circumference',
    girthMm: 257,
    straightHeightMm: 90,
    lipMm: 12,
    footMm: 5,
    gapMm: 30,
    hand: 'right',
    side: 'room',
    wraps: false,
  },
  taper: {
    d1Mm: 90,
    d2Mm: 65,
    wide: 'top',
    sideBy: 'slant',
    sideMm: 120,
    lipMm: 12,
    footMm: 5,
    gapMm: 0,
    wraps: false,
  },
  compound: {
    widthMm: 200,
    heightMm: 150,
    across: { chordMm: 200, heightMm: 10 },
    down: { chordMm: 150, heightMm: 5 },
  },
  garment: { piece: 'shirt', spot: 'full front', downMm: null, offMiddleMm: null, sizes: [] },
  team: null,
  several: { others: [], copies: 1, betweenMm: null },
  ground: null,
  freshPaint: null,
  readFromMm: null,
  panels: { split: 'auto', lapMm: null, widestMm: null, hangs: 'wall', weather: 'left' },
  blankId: null,
  at: null,
  size: { mode: 'own' },
  sizeOf: 'cut',
};

export const surfaceSlice: Slice<SurfaceDecisions> = {
  schema: {
    surface: object({
      kind: oneOf(SURFACE_KINDS),
      flat: object({
        widthMm: size,
        heightMm: size,
        marginMm: margins,
        free: { type: 'array', maxItems: MOST_FREE_PLACES, items: free },
      }),
      cylinder: object({
        girthBy: oneOf(['circumference', 'diameter']),
        girthMm: size,
        straightHeightMm: size,
        lipMm: mm,
        footMm: mm,
        gapMm: mm,
        hand: oneOf(['right', 'left']),
        side: oneOf(['front', 'holder', 'room', 'both']),
        wraps: yes,
      }),
      taper: object({
        d1Mm: size,
        d2Mm: size,
        wide: oneOf(['top', 'foot']),
        sideBy: oneOf(['slant', 'upright']),
        sideMm: size,
        lipMm: mm,
        footMm: mm,
        gapMm: mm,
        wraps: yes,
      }),
      compound: object({ widthMm: size, heightMm: size, across: arc, down: arc }),
      garment: object({
        piece: oneOf(Object.keys(GARMENTS)),
        spot: oneOf(Object.keys(SPOTS)),
        downMm: orNull(mm),
        offMiddleMm: orNull(coordinate),
        sizes: {
          type: 'array',
          maxItems: 20,
          items: object({
            size: { type: 'string', minLength: 1, maxLength: LONGEST_SIZE },
            copies: whole(0, 500),
            widthMm: orNull(size),
          }),
        },
      }),
      team: orNull(
        object({
          namePart: orNull(text),
          numberPart: orNull(text),
          members: {
            type: 'array',
            maxItems: MOST_MEMBERS,
            items: object({
              name: { type: 'string', maxLength: LONGEST_NAME },
              number: { type: 'string', maxLength: 6 },
              size: { type: 'string', maxLength: LONGEST_SIZE },
            }),
          },
          widestMm: size,
          condense: oneOf(['each', 'all']),
        }),
      ),
      several: object({
        others: {
          type: 'array',
          maxItems: MOST_DESIGNS - 1,
          items: object({
            parts: { type: 'array', minItems: 1, maxItems: 200, items: text, uniqueItems: true },
            widthMm: orNull(size),
          }),
        },
        copies: whole(1, MOST_COPIES_ON_BOARD),
        betweenMm: orNull(figure(0, 10_000)),
      }),
      ground: orNull(object({ matter: oneOf(MATTERS), colour })),
      freshPaint: { enum: ['wall', 'vehicle', null] },
      readFromMm: orNull(figure(1, 1_000_000)),
      panels: object({
        split: oneOf(['auto', 'never', 'parts']),
        lapMm: orNull(figure(0, 50)),
        widestMm: orNull(figure(100, 100_000)),
        hangs: oneOf(HANGS),
        weather: oneOf(['left', 'right']),
      }),
      blankId: orNull(text),
      at: orNull(object({ xMm: coordinate, yMm: coordinate })),
      sizeOf: { enum: ['cut', 'artboard'] },
      size: {
        anyOf: [
          object({ mode: { enum: ['fit', 'own'] } }),
          object({ mode: { enum: ['width', 'height'] }, mm: size }),
          object({ mode: { const: 'scale' }, times: { type: 'number', minimum: 0.0001, maximum: 10_000 } }),
        ],
      },
    }),
  },
  beginning: { surface: BEGINNING },
  upgrades: {
    // Version 4 sized the artboards that a design was drawn on.
    4: ({ surface }) =>
      typeof surface === 'object' && surface !== null ? { surface: { ...surface, sizeOf: 'artboard' } } : {},
    // Version 6 set every design in the middle.
    6: ({ surface }) => (typeof surface === 'object' && surface !== null ? { surface: { ...surface, at: null } } : {}),
    // Version 8 knew flat panels only. A larger one was cut whole.
    8: ({ surface }) => {
      if (typeof surface !== 'object' || surface === null) return {};
      const { kind, widthMm, heightMm, marginMm, ...others } = surface as Readonly<Record<string, unknown>>;
      return {
        surface: {
          ...BEGINNING,
          ...others,
          kind: kind === 'panel' ? 'flat' : kind,
          flat: { widthMm, heightMm, marginMm, free: [] },
          panels: { ...BEGINNING.panels, split: 'never' },
        },
      };
    },
    // Version 9 knew one design on a thing, garments of one kind, and teams that all wear one size.
    9: ({ surface }) => {
      if (typeof surface !== 'object' || surface === null) return {};
      const { garment, team } = surface as {
        readonly garment?: { readonly spot?: unknown };
        readonly team?: { readonly members?: unknown } | null;
      };
      const members = Array.isArray(team?.members)
        ? team.members.map((member: object) => ({ ...member, size: '' }))
        : team?.members;
      return {
        surface: {
          ...surface,
          garment: { piece: garment?.spot === 'leg' ? 'trousers' : 'shirt', ...garment },
          team: team ? { ...team, members } : team,
          several: BEGINNING.several,
        },
      };
    },
  },
};

/** The surface that was measured, if one was, and if its figures make one. */
export function measuredOf({ surface }: SurfaceDecisions): Surface {
  const { kind, at } = surface;
  switch (kind) {
    case 'unmeasured':
      return { kind };
    case 'flat':
    case 'glass':
      return { kind, ...surface.flat, at };
    case 'cylinder': {
      const { girthBy, girthMm, ...measures } = surface.cylinder;
      return { kind, ...measures, diameterMm: girthBy === 'diameter' ? girthMm : girthMm / Math.PI, at };
    }
    case 'taper': {
      const { d1Mm, d2Mm, wide, lipMm, footMm, gapMm, wraps } = surface.taper;
      const cone = { d1Mm, d2Mm, slantMm: slantMmOf(surface.taper), wide };
      return whyNoCone(cone) ? { kind: 'unmeasured' } : { kind, cone, lipMm, footMm, gapMm, wraps, at };
    }
    case 'garment':
      return { kind, spot: surface.garment.spot };
    case 'compound': {
      const { widthMm, heightMm, across, down } = surface.compound;
      return {
        kind,
        widthMm,
        heightMm,
        bend: { acrossMm: radiusOf(across.chordMm, across.heightMm), downMm: radiusOf(down.chordMm, down.heightMm) },
        at,
      };
    }
  }
}

/** The slant of a taper's side, however it was measured. */
export function slantMmOf({ d1Mm, d2Mm, sideBy, sideMm }: TaperMeasures): number {
  return sideBy === 'slant' ? sideMm : slantOf(sideMm, d1Mm, d2Mm);
}

/** Whether what is decorated is cloth, something hard, or nobody said. */
export function groundOf({ kind, ground }: SurfaceDecisions['surface']): Ground {
  if (kind === 'garment' || (ground && CLOTH.has(ground.matter))) return 'cloth';
  return kind === 'unmeasured' && !ground ? 'unknown' : 'hard';
}
