import { object } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface SheetsDecisions {
  readonly sheets: { readonly copies: number; readonly spacingMm: number };
}

export type SheetsPatch = Patch<SheetsDecisions>;

export const sheetsSlice: Slice<SheetsDecisions> = {
  schema: { sheets: object({ copies: { type: 'integer', minimum: 1, maximum: 500 }, spacingMm: { type: 'number', minimum: 0, maximum: 100 } }) },
  beginning: { sheets: { copies: 1, spacingMm: 5 } },
  upgrades: {},
};
