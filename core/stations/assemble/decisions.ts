import { LAYINGS, type Laying } from '../../engines/layers/index.js';
import { object } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface AssembleDecisions {
  /** How the layers come together: each laid on the surface, dry or wet, or all on tape first. */
  readonly assembly: { readonly way: Laying };
}

export type AssemblePatch = Patch<AssembleDecisions>;

export const assembleSlice: Slice<AssembleDecisions> = {
  schema: { assembly: object({ way: { enum: LAYINGS } }) },
  beginning: { assembly: { way: 'dry' } },
  upgrades: {
    // Version 3 did not ask whether work is laid wet.
    3: ({ assembly }) => (isOnSurface(assembly) ? { assembly: { ...assembly, way: 'dry' } } : {}),
  },
};

function isOnSurface(assembly: unknown): assembly is object {
  return typeof assembly === 'object' && assembly !== null && 'way' in assembly && assembly.way === 'surface';
}
