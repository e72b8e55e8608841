import type { OutlineJoin, School, TrapForm } from '../../engines/layers/index.js';
import { LIVES, type Lives } from '../../shop/index.js';
import { few, object, orNull, text } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

/** How one layer meets another that lies over it. What is null follows the job. */
export interface PairDecision {
  readonly school: School | null;
  readonly trapMm: number | null;
}

/** What an outline goes round. */
export interface Around {
  readonly by: 'films' | 'parts';
  readonly ids: readonly string[];
}

export const OUTLINE_EACH = ['all', 'part', 'piece'] as const;
export type OutlineEach = (typeof OUTLINE_EACH)[number];

/** A border of film round everything above it. */
export interface Outline {
  readonly id: string;
  readonly filmId: string;
  /** The films, or the parts of the design, that it goes round and lies behind; null for all there is. */
  readonly around: Around | null;
  /** What gets an outline of its own: all together, each part of the design, or each piece. */
  readonly each: OutlineEach;
  /** How far it reaches beyond what it goes round; null lets the app find the least at which each is one piece. */
  readonly widthMm: number | null;
  readonly join: OutlineJoin;
  /** Holes narrower than this are filled; 0 keeps all, and a large figure none. */
  readonly fillBelowMm: number;
}

/** Shapes in one film's colour removed from another film, with clear space all round. */
export interface KnockOut {
  readonly shapeFilmId: string;
  readonly baseFilmId: string;
  readonly clearanceMm: number;
  /** What of the other film lies inside the shapes and between them is taken out too where it is narrower than this; 0 keeps it, and a large figure takes all of it. */
  readonly fillBelowMm: number;
  /** Pieces of the other film that are left smaller than this are dropped; null drops those that cannot be weeded. */
  readonly dropBelowMm2: number | null;
  /** The shapes are words: the letters of each stand as much closer as makes it one piece. */
  readonly joinWords: boolean;
}

/** A new outline round everything, as wide as it must be. */
export const newOutline = (id: string, filmId: string): Outline => ({
  id,
  filmId,
  around: null,
  each: 'all',
  widthMm: null,
  join: 'round',
  fillBelowMm: 0,
});

/** A new cut-out with a millimetre of clear space. */
export const newKnockOut = (shapeFilmId: string, baseFilmId: string): KnockOut => ({
  shapeFilmId,
  baseFilmId,
  clearanceMm: 1,
  fillBelowMm: 0,
  dropBelowMm2: null,
  joinWords: false,
});

export const CONTOUR_SIDES = ['inside', 'outside', 'bleed'] as const;

/** The cut line round printed artwork. */
export interface Contour {
  readonly filmId: string;
  /** Inside no white edge shows; outside a border of film is left; with a bleed it is cut on the edge, and printed beyond it. */
  readonly side: (typeof CONTOUR_SIDES)[number];
  /** How far the cut lies from the edge, or the print reaches beyond it; null leaves it to the app. */
  readonly byMm: number | null;
}

/** One film that is one piece under everything, however much of it shows. */
export interface Base {
  readonly filmId: string;
}

/** A film laid under another all over. */
export interface BlockOut {
  /** The film laid underneath. */
  readonly filmId: string;
  /** The film that it backs. */
  readonly underFilmId: string;
  /** How far it stays within the film above. */
  readonly insetMm: number;
}

export interface BuildDecisions {
  readonly build: {
    readonly school: School;
    readonly trapMm: number | null;
    /** a₀ in the trap formula: what the maker stays within when laying pieces of 100 to 300 mm; null takes a careful hand's. */
    readonly placementErrorMm: number | null;
    /** How slips add up: by chance, or all at their worst at once. */
    readonly trapForm: TrapForm;
    /** Where the finished work will live. */
    readonly lives: Lives;
    /** Pairs of layers that are built otherwise than the job, by `lower film id > upper film id`. */
    readonly pairs: Readonly<Record<string, PairDecision>>;
    /** How one film meets all others, by its id, where no pair of it is decided by itself. */
    readonly filmPairs: Readonly<Record<string, PairDecision>>;
    /** The film that lies in one piece under all others; null for none. */
    readonly base: Base | null;
    /** Borders of film behind everything, the nearest to the artwork first. */
    readonly outlines: readonly Outline[];
    /** A colour's shapes taken out of a film with clear space round them. */
    readonly knockOuts: readonly KnockOut[];
    /** A film laid under another all over, where a light film lies on a dark surface. */
    readonly blockOut: BlockOut | null;
    /** The artwork is printed on one film, and only cut round; null for artwork in film. */
    readonly contour: Contour | null;
    /** Film ids from the surface upwards; films it does not name follow in the artwork's order. */
    readonly order: readonly string[];
  };
}

export type BuildPatch = Patch<BuildDecisions>;

/** Holes of any width: no work is so large. */
export const ALL_HOLES_MM = 100_000;

const schools = ['overlay', 'inlay', 'trapped'] as const;
const trap = orNull({ type: 'number', minimum: 0, maximum: 20 });

const pairDecision = object({ school: { enum: [...schools, null] }, trapMm: trap });

export const buildSlice: Slice<BuildDecisions> = {
  schema: {
    build: object({
      school: { enum: schools },
      trapMm: trap,
      placementErrorMm: orNull({ type: 'number', minimum: 0, maximum: 5 }),
      trapForm: { enum: ['chance', 'worst'] },
      lives: { enum: LIVES },
      pairs: { type: 'object', maxProperties: 400, additionalProperties: pairDecision },
      filmPairs: { type: 'object', maxProperties: 64, additionalProperties: pairDecision },
      base: orNull(object({ filmId: text })),
      outlines: {
        type: 'array',
        maxItems: 6,
        items: object({
          id: text,
          filmId: text,
          around: orNull(
            object({
              by: { enum: ['films', 'parts'] },
              ids: { type: 'array', items: text, minItems: 1, maxItems: 200, uniqueItems: true },
            }),
          ),
          each: { enum: OUTLINE_EACH },
          widthMm: orNull({ type: 'number', minimum: 0.1, maximum: 500 }),
          join: { enum: ['round', 'mitred', 'bevelled'] },
          fillBelowMm: { type: 'number', minimum: 0, maximum: ALL_HOLES_MM },
        }),
      },
      knockOuts: {
        type: 'array',
        maxItems: 20,
        items: object({
          shapeFilmId: text,
          baseFilmId: text,
          clearanceMm: few,
          fillBelowMm: { type: 'number', minimum: 0, maximum: ALL_HOLES_MM },
          dropBelowMm2: orNull({ type: 'number', minimum: 0, maximum: 1_000_000 }),
          joinWords: { type: 'boolean' },
        }),
      },
      contour: orNull(object({ filmId: text, side: { enum: CONTOUR_SIDES }, byMm: orNull(few) })),
      blockOut: orNull(object({ filmId: text, underFilmId: text, insetMm: few })),
      order: { type: 'array', items: text, maxItems: 64, uniqueItems: true },
    }),
  },
  beginning: {
    build: {
      school: 'trapped',
      trapMm: null,
      placementErrorMm: null,
      trapForm: 'chance',
      lives: 'indoors',
      pairs: {},
      filmPairs: {},
      base: null,
      outlines: [],
      knockOuts: [],
      blockOut: null,
      contour: null,
      order: [],
    },
  },
  upgrades: {
    // Version 2 had no pairs, outlines, knock-outs or block-out, and one form of the trap.
    2: ({ build }) =>
      typeof build === 'object'
        ? {
            build: {
              trapForm: 'worst',
              pairs: {},
              outlines: [],
              knockOuts: [],
              blockOut: null,
              contour: null,
              ...build,
            },
          }
        : {},
    3: ({ build }) =>
      typeof build === 'object' && build !== null ? { build: { ...build, ...sinceFour(build), lives: 'indoors' } } : {},
    // Version 5 knew outlines round everything only, and left what lay between shapes that were taken out.
    5: ({ build }) =>
      isFramed(build)
        ? {
            build: {
              ...build,
              outlines: build.outlines.map((outline) => ({ ...outline, around: null })),
              knockOuts: build.knockOuts.map((one) => ({ ...one, fillBelowMm: 0, dropBelowMm2: null })),
            },
          }
        : {},
    // Version 6 knew outlines round films and round everything at once, and decided for each pair by itself.
    6: ({ build }) =>
      isFramed(build)
        ? {
            build: {
              ...build,
              filmPairs: {},
              base: null,
              outlines: build.outlines.map((outline) => ({
                ...outline,
                each: 'all',
                around:
                  'around' in outline && Array.isArray(outline.around) ? { by: 'films', ids: outline.around } : null,
              })),
              knockOuts: build.knockOuts.map((one) => ({ ...one, joinWords: false })),
            },
          }
        : {},
  },
};

function isFramed(
  build: unknown,
): build is { readonly outlines: readonly object[]; readonly knockOuts: readonly object[] } {
  return (
    typeof build === 'object' &&
    build !== null &&
    'outlines' in build &&
    Array.isArray(build.outlines) &&
    'knockOuts' in build &&
    Array.isArray(build.knockOuts)
  );
}

interface BuildOfThree {
  readonly placementErrorMm?: unknown;
  readonly trapForm?: unknown;
}

/** What version 3 began with was its own guess and nobody's decision; any other figure is a maker's. */
const HAND_OF_THREE_MM = 0.2;

/** Version 3 reckoned with one placement error whatever the size, and began with the worst case. */
function sinceFour({ placementErrorMm, trapForm }: BuildOfThree) {
  return {
    placementErrorMm: placementErrorMm === HAND_OF_THREE_MM ? null : placementErrorMm,
    trapForm: trapForm === 'worst' || trapForm === 'statistical' ? 'chance' : trapForm,
  };
}
