import { object, orNull, size } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface PrepareDecisions {
  readonly preparation: {
    readonly border: boolean;
    readonly borderGapMm: number | null;
    readonly marks: boolean;
    readonly markSizeMm: number;
    /** Between the marks; null puts them as near as they may stand. */
    readonly markDistanceMm: number | null;
  };
}

export type PreparePatch = Patch<PrepareDecisions>;

export const prepareSlice: Slice<PrepareDecisions> = {
  schema: {
    preparation: object({
      border: { type: 'boolean' },
      borderGapMm: orNull({ type: 'number', minimum: 0, maximum: 100 }),
      marks: { type: 'boolean' },
      markSizeMm: { type: 'number', minimum: 2, maximum: 50 },
      markDistanceMm: orNull(size),
    }),
  },
  beginning: { preparation: { border: true, borderGapMm: null, marks: true, markSizeMm: 6, markDistanceMm: null } },
  upgrades: {
    // Version 2 had no say in where marks stand.
    2: ({ preparation }) => (typeof preparation === 'object' ? { preparation: { markDistanceMm: null, ...preparation } } : {}),
  },
};
