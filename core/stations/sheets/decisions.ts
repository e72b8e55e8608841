import { object, yes } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface SheetsDecisions {
  readonly sheets: {
    readonly copies: number;
    readonly spacingMm: number;
    /** All layers lie alike on their films; else each is turned as it fits best. */
    readonly oneDirection: boolean;
  };
}

export type SheetsPatch = Patch<SheetsDecisions>;

export const sheetsSlice: Slice<SheetsDecisions> = {
  schema: { sheets: object({ copies: { type: 'integer', minimum: 1, maximum: 500 }, spacingMm: { type: 'number', minimum: 0, maximum: 100 }, oneDirection: yes }) },
  beginning: { sheets: { copies: 1, spacingMm: 5, oneDirection: true } },
  upgrades: {
    // Version 11 turned each layer as it fitted, which was nobody's decision.
    11: ({ sheets }) => (typeof sheets === 'object' ? { sheets: { oneDirection: true, ...sheets } } : {}),
  },
};
