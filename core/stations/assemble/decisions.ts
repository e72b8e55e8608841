import { object } from '../schema.js';
import type { Patch, Slice } from '../slice.js';

export interface AssembleDecisions {
  readonly assembly: { readonly way: 'surface' | 'tape' };
}

export type AssemblePatch = Patch<AssembleDecisions>;

export const assembleSlice: Slice<AssembleDecisions> = {
  schema: { assembly: object({ way: { enum: ['surface', 'tape'] } }) },
  beginning: { assembly: { way: 'surface' } },
  upgrades: {},
};
