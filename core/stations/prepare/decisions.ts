import { MARK_SCHOOLS, PLAIN_SHAPES, type PlainShape } from '../../engines/marks/index.js';
import type { GangWish } from '../../engines/nesting/index.js';
import { BORDER_KINDS } from '../../engines/weeding/index.js';
import { STRIP_BULK, STRIP_BULK_MM } from '../../shop/index.js';
import { coordinate, mm, object, oneOf, orNull, size, text, whole, yes } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

/** Where marks stand: as the app rules, outside the ends of the longer side, or where they cost the least film in one of the ways to set them. */
export const MARK_PLACES = ['ruled', 'outside', ...MARK_SCHOOLS.filter((school) => school !== 'none')] as const;
export type MarkPlaces = (typeof MARK_PLACES)[number];

/** How the waste is freed: as the app rules for each layer, in one way for all, or with one box round all copies on a sheet. */
export const BORDER_WISHES = ['ruled', ...BORDER_KINDS, 'shared'] as const;
export type BorderWish = (typeof BORDER_WISHES)[number];

/** A relief line of one film that the maker drew, on the design: x, y, x, y, … mm. */
export interface DrawnRelief {
  readonly filmId: string;
  readonly line: readonly number[];
}

/** A place at which the maker wants no relief line of a film, on the design, mm. */
export interface NoRelief {
  readonly filmId: string;
  readonly xMm: number;
  readonly yMm: number;
}

/** How the copies of a gang lie beside each other. */
export const GANG_ROWS = ['straight', 'tight'] as const satisfies readonly GangWish['rows'][];

export interface PrepareDecisions {
  readonly preparation: {
    /** A run of copies that shares one layout over all its films, with one set of marks for a strip of them; null for copies that are aligned one by one. */
    readonly gang: GangWish | null;
    readonly border: BorderWish;
    readonly borderGapMm: number | null;
    /** How much larger the lowest layer's border is at each side, so that the others have film to lie on; null for as the app rules. */
    readonly lowestMoreMm: number | null;
    /** Whether the waste says which layer it is, and where its middle is. */
    readonly labels: boolean;
    readonly relief: {
      /** Whether the app parts waste that is too bulky. */
      readonly ruled: boolean;
      /** No larger circle fits into a strip; null for as each film says. */
      readonly bulkMm: number | null;
      readonly drawn: readonly DrawnRelief[];
      readonly gone: readonly NoRelief[];
    };
    readonly marks: boolean;
    readonly markPlaces: MarkPlaces;
    /** Of all but the one that has no mirror symmetry. */
    readonly markShape: PlainShape;
    /** Null for as the films want it. */
    readonly markSizeMm: number | null;
    /** Between the marks; null puts them as near as they may stand. For marks outside. */
    readonly markDistanceMm: number | null;
    /** Where the maker put them on the design, on all layers at once: the first place is the first mark's. Empty where they stand as they were set. */
    readonly marksAt: readonly { readonly xMm: number; readonly yMm: number }[];
  };
}

export type PreparePatch = Patch<PrepareDecisions>;

/** So many points a drawn line has at most, so many lines a job, and so many stickers a row. */
const MOST = { points: 40, lines: 200, inRow: 40 };

export const prepareSlice: Slice<PrepareDecisions> = {
  schema: {
    preparation: object({
      gang: orNull(
        object({
          across: whole(1, MOST.inRow),
          down: whole(1, MOST.inRow),
          rows: oneOf(GANG_ROWS),
          gapMm: { type: 'number', minimum: 0, maximum: 100 },
        }),
      ),
      border: oneOf(BORDER_WISHES),
      borderGapMm: orNull({ type: 'number', minimum: 0, maximum: 100 }),
      lowestMoreMm: orNull({ type: 'number', minimum: 0, maximum: 100 }),
      labels: yes,
      relief: object({
        ruled: yes,
        bulkMm: orNull(STRIP_BULK),
        drawn: {
          type: 'array',
          maxItems: MOST.lines,
          items: object({
            filmId: text,
            line: { type: 'array', minItems: 4, maxItems: 2 * MOST.points, items: coordinate },
          }),
        },
        gone: {
          type: 'array',
          maxItems: MOST.lines,
          items: object({ filmId: text, xMm: coordinate, yMm: coordinate }),
        },
      }),
      marks: yes,
      markPlaces: oneOf(MARK_PLACES),
      markShape: oneOf(PLAIN_SHAPES),
      markSizeMm: orNull({ ...mm, minimum: 2, maximum: 50 }),
      markDistanceMm: orNull(size),
      marksAt: { type: 'array', maxItems: 3, items: object({ xMm: coordinate, yMm: coordinate }) },
    }),
  },
  beginning: {
    preparation: {
      gang: null,
      border: 'ruled',
      borderGapMm: null,
      lowestMoreMm: null,
      labels: true,
      relief: { ruled: true, bulkMm: null, drawn: [], gone: [] },
      marks: true,
      markPlaces: 'ruled',
      markShape: 'diamond',
      markSizeMm: null,
      markDistanceMm: null,
      marksAt: [],
    },
  },
  upgrades: {
    // Version 2 had no say in where marks stand.
    2: ({ preparation }) =>
      typeof preparation === 'object' ? { preparation: { markDistanceMm: null, ...preparation } } : {},
    // Version 9 knew one kind of border, one way to set marks, and no relief lines: what was cut without goes on without.
    9: ({ preparation }) => {
      if (typeof preparation !== 'object' || preparation === null) return {};
      const { border, ...others } = preparation as Readonly<Record<string, unknown>>;
      return {
        preparation: {
          relief: { ruled: false, bulkMm: STRIP_BULK_MM, drawn: [], gone: [] },
          markPlaces: 'outside',
          ...others,
          border: border === false ? 'none' : border === true ? 'box' : border,
        },
      };
    },
    // Version 10 wrote nothing into the waste, and gave the lowest layer no more film than the others.
    10: ({ preparation }) =>
      typeof preparation === 'object'
        ? { preparation: { lowestMoreMm: 0, labels: false, markShape: 'diamond', marksAt: [], ...preparation } }
        : {},
    // Version 11 had one bulk for all films, which was 80 mm where nobody said another, and aligned every copy by itself.
    11: ({ preparation }) => {
      if (typeof preparation !== 'object' || preparation === null) return {};
      const { relief } = preparation as Readonly<Record<string, unknown>>;
      const isUsual =
        typeof relief === 'object' &&
        relief !== null &&
        (relief as { readonly bulkMm?: unknown }).bulkMm === STRIP_BULK_MM;
      return { preparation: { gang: null, ...preparation, ...(isUsual && { relief: { ...relief, bulkMm: null } }) } };
    },
  },
};
