import { wishedScale, type SurfaceKind } from './surface-kind.js';

/** Nothing was measured yet: the artwork's own size rules, and nothing is too large. */
export interface Unmeasured {
  readonly kind: 'unmeasured';
}

/** The design by itself, from its own corner. */
export const unmeasured: SurfaceKind<Unmeasured> = {
  place(_, own, wish) {
    const scale = wishedScale(own, wish) ?? 1;
    return { design: { scale, widthMm: own.widthMm * scale, heightMm: own.heightMm * scale, xMm: 0, yMm: 0 }, room: null, trouble: null };
  },
  widestWithin: () => null,
};
