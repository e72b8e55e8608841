import { MARK_SCHOOLS } from '../../engines/marks/index.js';
import { BORDER_KINDS, RELIEF, type BorderKind } from '../../engines/weeding/index.js';
import { coordinate, figure, mm, object, oneOf, orNull, size, text, yes } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

/** Where marks stand: outside the ends of the longer side, or where they cost the least film in one of the ways to set them. */
export const MARK_PLACES = ['outside', ...MARK_SCHOOLS.filter((school) => school !== 'none')] as const;
export type MarkPlaces = (typeof MARK_PLACES)[number];

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

export interface PrepareDecisions {
  readonly preparation: {
    readonly border: BorderKind;
    readonly borderGapMm: number | null;
    readonly relief: {
      /** Whether the app parts waste that is too bulky. */
      readonly ruled: boolean;
      readonly bulkMm: number;
      readonly drawn: readonly DrawnRelief[];
      readonly gone: readonly NoRelief[];
    };
    readonly marks: boolean;
    readonly markPlaces: MarkPlaces;
    readonly markSizeMm: number;
    /** Between the marks; null puts them as near as they may stand. For marks outside. */
    readonly markDistanceMm: number | null;
  };
}

export type PreparePatch = Patch<PrepareDecisions>;

/** So many points a drawn line has at most, and so many lines a job. */
const MOST = { points: 40, lines: 200 };

export const prepareSlice: Slice<PrepareDecisions> = {
  schema: {
    preparation: object({
      border: oneOf(BORDER_KINDS),
      borderGapMm: orNull({ type: 'number', minimum: 0, maximum: 100 }),
      relief: object({
        ruled: yes,
        bulkMm: figure(20, 2000),
        drawn: { type: 'array', maxItems: MOST.lines, items: object({ filmId: text, line: { type: 'array', minItems: 4, maxItems: 2 * MOST.points, items: coordinate } }) },
        gone: { type: 'array', maxItems: MOST.lines, items: object({ filmId: text, xMm: coordinate, yMm: coordinate }) },
      }),
      marks: yes,
      markPlaces: oneOf(MARK_PLACES),
      markSizeMm: { ...mm, minimum: 2, maximum: 50 },
      markDistanceMm: orNull(size),
    }),
  },
  beginning: { preparation: { border: 'box', borderGapMm: null, relief: { ruled: true, bulkMm: RELIEF.bulkMm, drawn: [], gone: [] }, marks: true, markPlaces: 'outside', markSizeMm: 6, markDistanceMm: null } },
  upgrades: {
    // Version 2 had no say in where marks stand.
    2: ({ preparation }) => (typeof preparation === 'object' ? { preparation: { markDistanceMm: null, ...preparation } } : {}),
    // Version 9 knew one kind of border, one way to set marks, and no relief lines: what was cut without goes on without.
    9: ({ preparation }) => {
      if (typeof preparation !== 'object' || preparation === null) return {};
      const { border, ...others } = preparation as Readonly<Record<string, unknown>>;
      return { preparation: { relief: { ruled: false, bulkMm: RELIEF.bulkMm, drawn: [], gone: [] }, markPlaces: 'outside', ...others, border: border === false ? 'none' : border === true ? 'box' : border } };
    },
  },
};
