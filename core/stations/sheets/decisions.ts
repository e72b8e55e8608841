import { object, yes } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface SheetsDecisions {
  readonly sheets: {
    readonly copies: number;
    readonly spacingMm: number;
    /** All layers lie alike on their films; else each is turned as it fits best. */
    readonly oneDirection: boolean;
    /** Films that are cut with the same settings share a mat. */
    readonly zones: boolean;
    /** Small copies may lie in the counters of large ones. */
    readonly inCounters: boolean;
  };
}

export type SheetsPatch = Patch<SheetsDecisions>;

export const sheetsSlice: Slice<SheetsDecisions> = {
  schema: {
    sheets: object({
      copies: { type: 'integer', minimum: 1, maximum: 500 },
      spacingMm: { type: 'number', minimum: 0, maximum: 100 },
      oneDirection: yes,
      zones: yes,
      inCounters: yes,
    }),
  },
  beginning: { sheets: { copies: 1, spacingMm: 5, oneDirection: true, zones: true, inCounters: true } },
  upgrades: {
    // Version 11 turned each layer as it fitted, which was nobody's decision.
    11: ({ sheets }) => (typeof sheets === 'object' ? { sheets: { oneDirection: true, ...sheets } } : {}),
    // Until version 12 a job by itself laid each film by itself: what was laid out so stays so.
    12: ({ sheets }) => (typeof sheets === 'object' ? { sheets: { zones: false, ...sheets } } : {}),
    // Nor did version 13 lay anything in counters.
    13: ({ sheets }) => (typeof sheets === 'object' ? { sheets: { inCounters: false, ...sheets } } : {}),
  },
};
