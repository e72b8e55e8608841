import type { Box } from '../../geometry/index.js';

/** Width and height, mm. */
export interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** How large the maker wants a design: fitted to the surface, the artwork's own size, so many times that, or one side given. */
export type SizeWish = { readonly mode: 'fit' | 'own' } | { readonly mode: 'scale'; readonly times: number } | { readonly mode: 'width' | 'height'; readonly mm: number };

/** A wished size as a scale of the design's own; null when it is to be fitted. */
export function wishedScale(own: Size, wish: SizeWish): number | null {
  switch (wish.mode) {
    case 'fit':
      return null;
    case 'own':
      return 1;
    case 'scale':
      return wish.times;
    case 'width':
      return wish.mm / own.widthMm;
    case 'height':
      return wish.mm / own.heightMm;
  }
}

/** A design at its final size, and where its top left corner lies on the surface. */
export interface PlacedDesign extends Size {
  readonly scale: number;
  readonly xMm: number;
  readonly yMm: number;
}

/** A design sized for a surface and placed on it, with the figures of why. */
export interface Placing {
  readonly design: PlacedDesign;
  /** What the surface leaves for it, which of its sides limits it, and how wide it is when it is fitted; null where nothing was measured. */
  readonly room: (Size & { readonly bound: 'width' | 'height'; readonly fittedWidthMm: number }) | null;
  /** `no-room`: the surface leaves none at all; `too-large`: it is larger than the surface; `into-margins`: it reaches where it should not; `put-beyond`: it does where it was put, though it would fit. */
  readonly trouble: 'no-room' | 'too-large' | 'into-margins' | 'put-beyond' | null;
}

/** What is asked of every kind of surface; all in mm, y down, from the surface's top left corner. */
export interface SurfaceKind<S> {
  /**
   * Sizes a design (its own size given) and places it. `reachMm` is how far what is built of it will reach beyond it all round: borders are
   * made at their width, whatever the size of the design.
   */
  readonly place: (surface: S, own: Size, wish: SizeWish, reachMm: number) => Placing;
  /** How wide the design may be at most so that what is built of it (`box`, from the design's corner) stays where it may lie; null when it does, 0 when no size helps. */
  readonly widestWithin: (surface: S, design: PlacedDesign, box: Box) => number | null;
}
