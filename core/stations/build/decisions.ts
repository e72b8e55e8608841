import type { OutlineJoin, School, TrapForm } from '../../engines/layers/index.js';
import { LIVES, type Lives } from '../../shop/index.js';
import { few, object, orNull, text } from '../schema.js';
import type { Patch, Slice } from '../slice.js';

/** How one layer meets another that lies over it. What is null follows the job. */
export interface PairDecision {
  readonly school: School | null;
  readonly trapMm: number | null;
}

/** A border of film round everything above it. */
export interface Outline {
  readonly id: string;
  readonly filmId: string;
  /** The films that it goes round, and lies behind; null for all there is. */
  readonly around: readonly string[] | null;
  /** How far it reaches beyond what it goes round; null lets the app find the least at which all is one piece. */
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
}

/** The cut line round printed artwork, moved by the cutter's tolerance. */
export interface Contour {
  readonly filmId: string;
  /** Inside no white edge shows; outside a border of film is left. */
  readonly side: 'inside' | 'outside';
  readonly byMm: number;
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

export const buildSlice: Slice<BuildDecisions> = {
  schema: {
    build: object({
      school: { enum: schools },
      trapMm: trap,
      placementErrorMm: orNull({ type: 'number', minimum: 0, maximum: 5 }),
      trapForm: { enum: ['chance', 'worst'] },
      lives: { enum: LIVES },
      pairs: { type: 'object', maxProperties: 400, additionalProperties: object({ school: { enum: [...schools, null] }, trapMm: trap }) },
      outlines: {
        type: 'array',
        maxItems: 6,
        items: object({ id: text, filmId: text, around: orNull({ type: 'array', items: text, minItems: 1, maxItems: 64, uniqueItems: true }), widthMm: orNull({ type: 'number', minimum: 0.1, maximum: 500 }), join: { enum: ['round', 'mitred', 'bevelled'] }, fillBelowMm: { type: 'number', minimum: 0, maximum: ALL_HOLES_MM } }),
      },
      knockOuts: { type: 'array', maxItems: 20, items: object({ shapeFilmId: text, baseFilmId: text, clearanceMm: few, fillBelowMm: { type: 'number', minimum: 0, maximum: ALL_HOLES_MM }, dropBelowMm2: orNull({ type: 'number', minimum: 0, maximum: 1_000_000 }) }) },
      contour: orNull(object({ filmId: text, side: { enum: ['inside', 'outside'] }, byMm: few })),
      blockOut: orNull(object({ filmId: text, underFilmId: text, insetMm: few })),
      order: { type: 'array', items: text, maxItems: 64, uniqueItems: true },
    }),
  },
  beginning: {
    build: { school: 'trapped', trapMm: null, placementErrorMm: null, trapForm: 'chance', lives: 'indoors', pairs: {}, outlines: [], knockOuts: [], blockOut: null, contour: null, order: [] },
  },
  upgrades: {
    // Version 2 had no pairs, outlines, knock-outs or block-out, and one form of the trap.
    2: ({ build }) => (typeof build === 'object' ? { build: { trapForm: 'worst', pairs: {}, outlines: [], knockOuts: [], blockOut: null, contour: null, ...build } } : {}),
    3: ({ build }) => (typeof build === 'object' && build !== null ? { build: { ...build, ...sinceFour(build), lives: 'indoors' } } : {}),
    // Version 5 knew outlines round everything only, and left what lay between shapes that were taken out.
    5: ({ build }) => (isFramedOfFive(build) ? { build: { ...build, outlines: build.outlines.map((outline) => ({ ...outline, around: null })), knockOuts: build.knockOuts.map((one) => ({ ...one, fillBelowMm: 0, dropBelowMm2: null })) } } : {}),
  },
};

function isFramedOfFive(build: unknown): build is { readonly outlines: readonly object[]; readonly knockOuts: readonly object[] } {
  return typeof build === 'object' && build !== null && 'outlines' in build && Array.isArray(build.outlines) && 'knockOuts' in build && Array.isArray(build.knockOuts);
}

interface BuildOfThree {
  readonly placementErrorMm?: unknown;
  readonly trapForm?: unknown;
}

/** What version 3 began with was its own guess and nobody's decision; any other figure is a maker's. */
const HAND_OF_THREE_MM = 0.2;

/** Version 3 reckoned with one placement error whatever the size, and began with the worst case. */
function sinceFour({ placementErrorMm, trapForm }: BuildOfThree) {
  return { placementErrorMm: placementErrorMm === HAND_OF_THREE_MM ? null : placementErrorMm, trapForm: trapForm === 'worst' || trapForm === 'statistical' ? 'chance' : trapForm };
}
