import { panel, type Panel } from './panel.js';
import type { SurfaceKind } from './surface-kind.js';

/** What gets decorated, by its kind. */
export type Surface = Panel;

/** The rules of a surface's kind. */
export function surfaceKind(surface: Surface): SurfaceKind<Surface> {
  switch (surface.kind) {
    case 'panel':
      return panel;
  }
}
