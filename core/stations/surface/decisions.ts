import type { Panel, SizeWish, Surface } from '../../engines/surface/index.js';
import type { SizeOf } from '../artwork/index.js';
import { coordinate, mm, object, orNull, size } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface SurfaceDecisions {
  /** What is decorated, by its kind, and how large the design is wanted on it. Until a panel is measured its figures are only remembered. */
  readonly surface: Omit<Panel, 'kind'> & { readonly kind: 'unmeasured' | 'panel'; readonly size: SizeWish; readonly sizeOf: SizeOf };
}

export type SurfacePatch = Patch<SurfaceDecisions>;

export const surfaceSlice: Slice<SurfaceDecisions> = {
  schema: {
    surface: object({
      kind: { enum: ['unmeasured', 'panel'] },
      widthMm: size,
      heightMm: size,
      marginMm: object({ top: mm, right: mm, bottom: mm, left: mm }),
      at: orNull(object({ xMm: coordinate, yMm: coordinate })),
      sizeOf: { enum: ['cut', 'artboard'] },
      size: { anyOf: [object({ mode: { enum: ['fit', 'own'] } }), object({ mode: { enum: ['width', 'height'] }, mm: size }), object({ mode: { const: 'scale' }, times: { type: 'number', minimum: 0.0001, maximum: 10_000 } })] },
    }),
  },
  beginning: { surface: { kind: 'unmeasured', widthMm: 300, heightMm: 200, marginMm: { top: 10, right: 10, bottom: 10, left: 10 }, at: null, size: { mode: 'own' }, sizeOf: 'cut' } },
  upgrades: {
    // Version 4 sized the artboards that a design was drawn on.
    4: ({ surface }) => (typeof surface === 'object' && surface !== null ? { surface: { ...surface, sizeOf: 'artboard' } } : {}),
    // Version 6 set every design in the middle.
    6: ({ surface }) => (typeof surface === 'object' && surface !== null ? { surface: { ...surface, at: null } } : {}),
  },
};

/** The surface that was measured, if one was. */
export function measuredOf({ surface: { kind, widthMm, heightMm, marginMm, at } }: SurfaceDecisions): Surface {
  return kind === 'panel' ? { kind, widthMm, heightMm, marginMm, at } : { kind };
}
