import { panel, type Panel } from './panel.js';
import type { PlacedDesign, Placing, Size, SizeWish } from './surface-kind.js';
import { unmeasured, type Unmeasured } from './unmeasured.js';
import type { Box } from '../../geometry/index.js';

/** What gets decorated, by its kind. */
export type Surface = Unmeasured | Panel;

/** A design sized for a surface and placed on it, by the rules of the surface's kind. See SurfaceKind. */
export function placeOn(surface: Surface, own: Size, wish: SizeWish, reachMm: number): Placing {
  return surface.kind === 'panel' ? panel.place(surface, own, wish, reachMm) : unmeasured.place(surface, own, wish, reachMm);
}

/** How wide a design may be on a surface; null when it stays where it may lie. See SurfaceKind. */
export function widestOn(surface: Surface, design: PlacedDesign, box: Box): number | null {
  return surface.kind === 'panel' ? panel.widestWithin(surface, design, box) : unmeasured.widestWithin(surface, design, box);
}
