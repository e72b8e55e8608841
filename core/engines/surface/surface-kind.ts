/** Width and height, mm. */
export interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** How large the maker wants a design: fitted to the surface, the artwork's own size, so many times that, or one side given. */
export type SizeWish =
  | { readonly mode: 'fit' | 'own' }
  | { readonly mode: 'scale'; readonly times: number }
  | { readonly mode: 'width' | 'height'; readonly mm: number };

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
  /** It does not lie in the middle, so that what must stay free does. */
  readonly movedAside: boolean;
  /** `no-room`: the surface leaves none at all; `too-large`: it is larger than the surface; `into-margins`: it reaches where it should not; `put-beyond`: it does where it lies, though it would fit. */
  readonly trouble: 'no-room' | 'too-large' | 'into-margins' | 'put-beyond' | null;
}
