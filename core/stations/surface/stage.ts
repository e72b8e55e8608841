import { developedOf, hasSides, limitsOf, movedMap, placeOn, SEEN_SHARE, seenAtOnceMm, sideMiddleMm, spanRad, strainHolds, strainPct, stretchAt, taperMap, warpBox, type PlacedDesign, type Size, type Surface, type TaperMap } from '../../engines/surface/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import { measuredOf, slantMmOf, type SurfaceDecisions, type SurfacePatch } from './decisions.js';
import { instancesOf, type Instance } from './instances.js';
import { measureTroubles } from './measures.js';
import { sayPlacing, sayUnit } from './say.js';
import { sayFreshPaint, sayMatter } from './say-ground.js';
import { sayNoLetters, saySizes, saySpot, sayTeam } from './say-garment.js';
import { sayGlass, sayLimits, sayMovedAside, saySeen, saySide, sayStrain, sayWarp, sayWiderThanSeen } from './say-kinds.js';
import { sayMeasureTrouble } from './say-measures.js';

/** What a surface comes to in figures. */
export interface SurfaceFigures {
  /** The largest size that goes on it. */
  readonly limits: Size | null;
  /** How wide the design looks from in front, and the angle it takes up, on what is round. */
  readonly seenAtOnceMm?: number;
  readonly spanDeg?: number;
  /** How far film must stretch, in percent, on what bends. */
  readonly strainPct?: number;
}

export interface SurfaceOut {
  readonly surface: Surface;
  readonly design: PlacedDesign;
  readonly figures: SurfaceFigures;
  /** How the design is bent for a taper; null on all else. */
  readonly map: TaperMap | null;
  /** What the design takes up once it is bent, from 0, 0; or all designs beside each other. */
  readonly frame: Size;
  /** The designs that are made of the one; null for the one. */
  readonly instances: readonly Instance[] | null;
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

type Decided = Omit<SurfaceDecisions['surface'], 'panels' | 'blankId' | 'readFromMm'>;

interface SurfaceRead {
  readonly own: Size & { readonly otherwise: Size };
  readonly decided: Decided;
  readonly surface: Surface;
  readonly troubles: ReturnType<typeof measureTroubles>;
  readonly reachMm: number;
  readonly mmPerUnit: number | null;
}

/** The design sized for the surface and placed on it. */
export const surfaceStage: Stage<SurfaceContext, SurfaceRead, SurfaceOut> = {
  name: 'surface',
  read: ({ own, recipe, reachMm, mmPerUnit }) => {
    const { panels: _panels, blankId: _blank, readFromMm: _from, ...decided } = recipe.surface;
    return { own: { widthMm: own.widthMm, heightMm: own.heightMm, otherwise: own.otherwise }, decided, surface: measuredOf(recipe), troubles: measureTroubles(recipe), reachMm, mmPerUnit };
  },
  run({ own, decided, surface, troubles, reachMm, mmPerUnit }) {
    const { design, ...placing } = placeOn(surface, own, decided.size, reachMm);
    const said = sayPlacing({ design, ...placing }, own, decided, reachMm);
    // A size that was given needs no unit.
    const isAsked = mmPerUnit !== null && decided.size.mode === 'own';
    const { map, frame } = bentIn(surface, design);
    const figures = figuresOf(surface, design);
    const instances = instancesOf(decided, design);
    const cone = { ...decided.taper, slantMm: slantMmOf(decided.taper) };
    return {
      surface,
      design,
      figures,
      map,
      frame,
      instances,
      findings: [
        ...(isAsked ? [sayUnit(own, mmPerUnit)] : []),
        ...troubles.map((trouble) => sayMeasureTrouble(trouble, cone)),
        // Why there is no room is said by the figures.
        ...(troubles.length > 0 ? said.findings.filter(({ severity }) => severity !== 'blocker') : said.findings),
        ...(decided.ground && surface.kind !== 'unmeasured' ? sayMatter(decided.ground) : []),
        ...(decided.freshPaint && surface.kind !== 'unmeasured' ? [sayFreshPaint(decided.freshPaint)] : []),
        ...tooFarRound(surface, design),
        ...(instances && decided.team && decided.team.members.length > 1 && decided.team.namePart === null && decided.team.numberPart === null ? [sayNoLetters()] : []),
      ],
      rulings: [...said.rulings, ...(placing.movedAside && surface.kind !== 'unmeasured' ? [sayMovedAside(decided.flat.free)] : []), ...kindRulings(surface, design, { figures, map, decided }), ...(instances ? [decided.team && decided.team.members.length > 0 ? sayTeam(decided.team) : saySizes(instances, design)] : [])],
    };
  },
};

/** A design is bent about the middle of where it lies on the side. */
function bentIn(surface: Surface, design: PlacedDesign): { readonly map: TaperMap | null; readonly frame: Size } {
  const { widthMm, heightMm } = design;
  const flat = { map: null, frame: { widthMm, heightMm } };
  if (surface.kind !== 'taper') return flat;
  const map = taperMap(surface.cone, design, design.yMm);
  // What would reach the apex, or round more than once, lies on no side: it keeps its shape until it is made smaller.
  if (map.midRadiusMm - heightMm <= 0 || widthMm > 2 * Math.PI * map.midRadiusMm) return flat;
  const box = warpBox(map, { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm });
  return { map: movedMap(map, -box.minX, -box.minY), frame: { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY } };
}

function figuresOf(surface: Surface, { widthMm, heightMm }: PlacedDesign): SurfaceFigures {
  const limits = limitsOf(surface);
  switch (surface.kind) {
    case 'cylinder':
      return { limits, ...roundFigures(surface.diameterMm, widthMm) };
    case 'taper':
      return { limits, ...roundFigures(developedOf(surface)!.widthMm / Math.PI, widthMm) };
    case 'compound':
      return { limits, strainPct: strainPct(surface.bend, widthMm, heightMm) };
    default:
      return { limits };
  }
}

function roundFigures(diameterMm: number, widthMm: number) {
  return { seenAtOnceMm: seenAtOnceMm(diameterMm, widthMm), spanDeg: (spanRad(diameterMm, widthMm) * 180) / Math.PI };
}

/** What was meant to be seen from one place, and cannot be. */
function tooFarRound(surface: Surface, { widthMm }: PlacedDesign): Finding<SurfacePatch>[] {
  if ((surface.kind !== 'cylinder' && surface.kind !== 'taper') || surface.wraps) return [];
  const round = developedOf(surface)!.widthMm;
  return widthMm > round * SEEN_SHARE + 0.1 ? [sayWiderThanSeen(widthMm, round)] : [];
}

function kindRulings(surface: Surface, design: PlacedDesign, { figures, map, decided }: { readonly figures: SurfaceFigures; readonly map: TaperMap | null; readonly decided: Decided }): Ruling<SurfacePatch>[] {
  const limits = (wraps: boolean, gapMm: number) => (figures.limits && (surface.kind === 'cylinder' || surface.kind === 'taper' || surface.kind === 'compound') ? [sayLimits(figures.limits, { kind: surface.kind, wraps, gapMm })] : []);
  const seen = figures.seenAtOnceMm === undefined ? [] : [saySeen(figures.seenAtOnceMm, figures.spanDeg!, design.widthMm)];
  switch (surface.kind) {
    case 'glass':
      return [sayGlass()];
    case 'cylinder':
      return [...limits(surface.wraps, surface.gapMm), ...seen, ...(hasSides(surface) ? [saySide(surface, sideMiddleMm(surface), decided.cylinder)] : [])];
    case 'taper':
      return [...(map ? [sayWarp(map, Math.max(stretchAt(map, 0), stretchAt(map, design.heightMm)) - 1)] : []), ...limits(surface.wraps, surface.gapMm), ...seen];
    case 'compound': {
      const { bend } = surface;
      return [sayStrain(figures.strainPct!, { isBent: bend.acrossMm !== null && bend.downMm !== null, holds: strainHolds(bend, design.widthMm, design.heightMm) }), ...limits(false, 0)];
    }
    case 'garment':
      return [saySpot(decided.garment)];
    default:
      return [];
  }
}
