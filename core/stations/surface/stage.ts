import { placeOn, widestOn, type PlacedDesign, type Size, type Surface } from '../../engines/surface/index.js';
import { boundsOf, joinBoxes, type Box, type Rings } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import { measuredOf, type SurfaceDecisions, type SurfacePatch } from './decisions.js';
import { sayOverhang, sayPlacing, sayUnit } from './say.js';

export interface SurfaceOut {
  readonly design: PlacedDesign;
  readonly findings: readonly Finding<SurfacePatch>[];
  readonly rulings: readonly Ruling<SurfacePatch>[];
}

interface SurfaceContext {
  /** The design's own size, and what it is when the other counts: its artboards, or only what is cut. */
  readonly own: Size & { readonly otherwise: Size };
  readonly recipe: SurfaceDecisions;
  /** How far what is built of it reaches beyond it, as far as that is decided. */
  readonly reachMm: number;
  /** What one unit was taken for, of a design that is one drawing which does not say its unit. */
  readonly mmPerUnit: number | null;
}

interface SurfaceRead {
  readonly own: Size & { readonly otherwise: Size };
  readonly surface: Surface;
  readonly wish: Pick<SurfaceDecisions['surface'], 'size' | 'sizeOf' | 'at'>;
  readonly reachMm: number;
  readonly mmPerUnit: number | null;
}

/** The design sized for the surface and placed on it. */
export const surfaceStage: Stage<SurfaceContext, SurfaceRead, SurfaceOut> = {
  name: 'surface',
  read: ({ own, recipe, reachMm, mmPerUnit }) => ({ own: { widthMm: own.widthMm, heightMm: own.heightMm, otherwise: own.otherwise }, surface: measuredOf(recipe), wish: { size: recipe.surface.size, sizeOf: recipe.surface.sizeOf, at: recipe.surface.at }, reachMm, mmPerUnit }),
  run({ own, surface, wish, reachMm, mmPerUnit }) {
    const placing = placeOn(surface, own, wish.size, reachMm);
    const { findings, rulings } = sayPlacing(placing, own, wish, reachMm);
    // A size that was given needs no unit.
    const isAsked = mmPerUnit !== null && wish.size.mode === 'own';
    return { design: placing.design, findings: isAsked ? [sayUnit(own, mmPerUnit), ...findings] : findings, rulings };
  },
};

/** The surface's findings once all is built: an outline may be wider than was known when the design was sized. */
export function withOverhang(out: SurfaceOut, surface: Surface, cuts: readonly Rings[]): SurfaceOut {
  const box = cuts.reduce<Box | null>((sum, cut) => joinBoxes(sum, boundsOf(cut)), null);
  const isSaid = out.findings.some((finding) => finding.code !== 'unit-unstated');
  const widestMm = box && !isSaid ? widestOn(surface, out.design, box) : null;
  return box && widestMm !== null ? { ...out, findings: [...out.findings, sayOverhang(box, widestMm)] } : out;
}
