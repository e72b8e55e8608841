import type { ArtworkPart } from './artwork-part.js';
import type { ArtworkPlace, PlaceRemedy, SparedPlace } from './places.js';

/**
 * The recipe: everything a maker decided about a job, and nothing that can be computed. Lengths in mm.
 * An absent decision is left to the app, which then rules on it.
 */
export interface Recipe {
  readonly version: 3;
  readonly title: string;
  readonly customer: string;
  /** ISO date, or null when nobody is waiting. */
  readonly due: string | null;
  /** What stands on the design, the lowest first. */
  readonly artworks: readonly ArtworkPart[];
  /** Remedies for what would spoil the cut, applied to the artwork's areas at the size of the job. */
  readonly repair: {
    /** Colours that are taken for others. */
    readonly recolour: Readonly<Record<string, string>>;
    /** Colours that mean bare surface. */
    readonly noFilm: readonly string[];
    /** Shapes of which nothing shows are left out. */
    readonly tidy: boolean;
    /** Smaller pieces are dropped and smaller holes filled; 0 keeps all. */
    readonly speckMm2: number;
    /** Thinner parts are thickened to this; 0 leaves them. */
    readonly thickenMm: number;
    /** Narrower gaps are filled; 0 leaves them. */
    readonly closeGapsMm: number;
    /** Outlines keep within this of their drawing with as few corners as possible; 0 keeps every corner. */
    readonly simplifyMm: number;
    /** Strokes thinner than a blade can follow: kept as they are, left out, or what they enclose filled. */
    readonly hairlines: 'keep' | 'drop' | 'fill';
    /** Outlines that cross themselves are filled whole, whatever their fill rule. */
    readonly fillCrossings: boolean;
    /** Ends of open outlines no further apart than this are joined. */
    readonly joinEndsMm: number;
    /** A gradient becomes so many flat colours; 1 is its mean. */
    readonly gradientBands: number;
    /** A pattern is left out, or becomes its main colour. */
    readonly patterns: 'drop' | 'flat';
    /** Pictures inside drawings are left out, or traced. */
    readonly pictures: 'drop' | 'trace';
    /** Shipped fonts that stand in for those a drawing's text names, by the name. */
    readonly fonts: Readonly<Record<string, string>>;
    /** Remedies that act at these places and nowhere else. */
    readonly only: Readonly<Partial<Record<PlaceRemedy, readonly ArtworkPlace[]>>>;
    /** Places that a remedy leaves alone, with the maker's reason. */
    readonly spared: Readonly<Partial<Record<PlaceRemedy, readonly SparedPlace[]>>>;
    /** Findings, by code, that were seen and are let be, with the maker's reason. */
    readonly letBe: Readonly<Record<string, string>>;
  };
  readonly films: { readonly byColour: Readonly<Record<string, string>> };
  readonly surface: {
    readonly kind: 'panel';
    readonly widthMm: number;
    readonly heightMm: number;
    readonly marginMm: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
    readonly size: { readonly mode: 'fit' | 'own' } | { readonly mode: 'width' | 'height'; readonly mm: number };
  };
  readonly build: {
    readonly school: 'overlay' | 'inlay' | 'trapped';
    readonly trapMm: number | null;
    /** a in the trap formula: how far a layer lands from where it should. */
    readonly placementErrorMm: number;
    /** How slips add up: all at their worst at once, or as the root of the sum of their squares. */
    readonly trapForm: 'worst' | 'statistical';
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
  readonly preparation: {
    readonly border: boolean;
    readonly borderGapMm: number | null;
    readonly marks: boolean;
    readonly markSizeMm: number;
    /** Between the marks; null puts them as near as they may stand. */
    readonly markDistanceMm: number | null;
  };
  readonly sheets: { readonly copies: number; readonly spacingMm: number };
  readonly assembly: { readonly way: 'surface' | 'tape' };
}

/** How one layer meets another that lies over it. What is null follows the job. */
export interface PairDecision {
  readonly school: 'overlay' | 'inlay' | 'trapped' | null;
  readonly trapMm: number | null;
}

/** A border of film round everything above it. */
export interface Outline {
  readonly id: string;
  readonly filmId: string;
  /** How far it reaches beyond what it goes round; null lets the app find the least at which all is one piece. */
  readonly widthMm: number | null;
  readonly join: 'round' | 'mitred' | 'bevelled';
  /** Holes narrower than this are filled; 0 keeps all, and a large figure none. */
  readonly fillBelowMm: number;
}

/** Shapes in one film's colour removed from another film, with clear space all round. */
export interface KnockOut {
  readonly shapeFilmId: string;
  readonly baseFilmId: string;
  readonly clearanceMm: number;
}

/** The cut line round printed artwork, moved by the cutter's tolerance. */
export interface Contour {
  readonly filmId: string;
  /** Inside no white edge shows; outside a border of film is left. */
  readonly side: 'inside' | 'outside';
  readonly byMm: number;
}

export interface BlockOut {
  /** The film laid underneath. */
  readonly filmId: string;
  /** The film that it backs. */
  readonly underFilmId: string;
  /** How far it stays within the film above. */
  readonly insetMm: number;
}

/** A change to a recipe: each named part replaces the same part, one level deep. */
export type RecipePatch = {
  readonly [K in Exclude<keyof Recipe, 'version'>]?: Recipe[K] extends readonly unknown[] | string | null
    ? Recipe[K]
    : Partial<Recipe[K]>;
};

/** Nothing put right. */
export const NO_REPAIR: Recipe['repair'] = {
  recolour: {},
  noFilm: [],
  tidy: false,
  speckMm2: 0,
  thickenMm: 0,
  closeGapsMm: 0,
  simplifyMm: 0,
  hairlines: 'keep',
  fillCrossings: false,
  joinEndsMm: 0,
  gradientBands: 1,
  patterns: 'drop',
  pictures: 'drop',
  fonts: {},
  only: {},
  spared: {},
  letBe: {},
};

/** A new job's recipe: all judgements left to the app. */
export function emptyRecipe(title: string): Recipe {
  return {
    version: 3,
    title,
    customer: '',
    due: null,
    artworks: [],
    repair: NO_REPAIR,
    films: { byColour: {} },
    surface: {
      kind: 'panel',
      widthMm: 300,
      heightMm: 200,
      marginMm: { top: 10, right: 10, bottom: 10, left: 10 },
      size: { mode: 'fit' },
    },
    build: { school: 'trapped', trapMm: null, placementErrorMm: 0.2, trapForm: 'worst', pairs: {}, outlines: [], knockOuts: [], blockOut: null, contour: null, order: [] },
    preparation: { border: true, borderGapMm: null, marks: true, markSizeMm: 6, markDistanceMm: null },
    sheets: { copies: 1, spacingMm: 5 },
    assembly: { way: 'surface' },
  };
}

/** The recipe with a patch laid over it; the original stays as it is. */
export function patchRecipe(recipe: Recipe, patch: RecipePatch): Recipe {
  const next: Record<string, unknown> = { ...recipe };
  for (const [key, value] of Object.entries(patch)) {
    const before = next[key];
    next[key] = isPlainObject(before) && isPlainObject(value) ? { ...before, ...value } : value;
  }
  return next as unknown as Recipe;
}

function isPlainObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
