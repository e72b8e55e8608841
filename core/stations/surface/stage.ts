import { surfaceKind, type PlacedDesign, type Size, type Surface, type SizeWish } from '../../engines/surface/index.js';
import { boundsOf, joinBoxes, type Box, type Rings } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { SurfaceDecisions, SurfacePatch } from './decisions.js';
import { sayOverhang, sayPlacing } from './say.js';

export interface SurfaceOut {
  readonly design: PlacedDesign;
  readonly findings: readonly Finding<SurfacePatch>[];
  readonly rulings: readonly Ruling<SurfacePatch>[];
}

interface SurfaceContext {
  /** The design's own size. */
  readonly own: Size;
  readonly recipe: SurfaceDecisions;
  /** How far what is built of it reaches beyond it, as far as that is decided. */
  readonly reachMm: number;
}

interface SurfaceRead {
  readonly own: Size;
  readonly surface: Surface & { readonly size: SizeWish };
  readonly reachMm: number;
}

/** The design sized for the surface and placed on it. */
export const surfaceStage: Stage<SurfaceContext, SurfaceRead, SurfaceOut> = {
  name: 'surface',
  read: ({ own, recipe, reachMm }) => ({ own: { widthMm: own.widthMm, heightMm: own.heightMm }, surface: recipe.surface, reachMm }),
  run({ own, surface, reachMm }) {
    const placing = surfaceKind(surface).place(surface, own, surface.size, reachMm);
    return { design: placing.design, ...sayPlacing(placing, own, surface.size, reachMm) };
  },
};

/** The surface's findings once all is built: an outline may be wider than was known when the design was sized. */
export function withOverhang(out: SurfaceOut, surface: Surface, cuts: readonly Rings[]): SurfaceOut {
  const box = cuts.reduce<Box | null>((sum, cut) => joinBoxes(sum, boundsOf(cut)), null);
  const widestMm = box && out.findings.length === 0 ? surfaceKind(surface).widestWithin(surface, out.design, box) : null;
  return box && widestMm !== null ? { ...out, findings: [sayOverhang(box, widestMm)] } : out;
}
