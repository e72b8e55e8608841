import type { SizeWish, Surface } from '../../engines/surface/index.js';
import { mm, object, size } from '../schema.js';
import type { Patch, Slice } from '../slice.js';

export interface SurfaceDecisions {
  /** What is decorated, by its kind, and how large the design is wanted on it. */
  readonly surface: Surface & { readonly size: SizeWish };
}

export type SurfacePatch = Patch<SurfaceDecisions>;

export const surfaceSlice: Slice<SurfaceDecisions> = {
  schema: {
    surface: object({
      kind: { const: 'panel' },
      widthMm: size,
      heightMm: size,
      marginMm: object({ top: mm, right: mm, bottom: mm, left: mm }),
      size: { anyOf: [object({ mode: { enum: ['fit', 'own'] } }), object({ mode: { enum: ['width', 'height'] }, mm: size })] },
    }),
  },
  beginning: { surface: { kind: 'panel', widthMm: 300, heightMm: 200, marginMm: { top: 10, right: 10, bottom: 10, left: 10 }, size: { mode: 'fit' } } },
  upgrades: {},
};
