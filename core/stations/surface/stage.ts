import {
  developedOf,
  hasSides,
  limitsOf,
  movedMap,
  placeOn,
  placeSeveral,
  SEEN_SHARE,
  seenAtOnceMm,
  sideMiddleMm,
  spanRad,
  strainHolds,
  strainPct,
  stretchAt,
  takesSeveral,
  taperMap,
  warpBox,
  type LiesAt,
  type PlacedDesign,
  type SeveralWish,
  type Size,
  type Surface,
  type TaperMap,
} from '../../engines/surface/index.js';
import { joinBoxes, transformBox, translation, type Box } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import { LONGEST_DESIGN_MM, measuredOf, slantMmOf, type SurfaceDecisions, type SurfacePatch } from './decisions.js';
import { instancesOf, type Instance } from './instances.js';
import { measureTroubles } from './measures.js';
import { sayPlacing, sayTooLong, sayUnit, THING } from './say.js';
import { sayFreshPaint, sayMatter } from './say-ground.js';
import { sayNoLetters, saySizes, saySpot, sayTeam } from './say-garment.js';
import {
  sayGlass,
  sayLimits,
  sayMovedAside,
  saySeen,
  saySide,
  sayStrain,
  sayWarp,
  sayWiderThanSeen,
} from './say-kinds.js';
import { sayMeasureTrouble } from './say-measures.js';
import { saySeveral, saySeveralSize, saySeveralTrouble, sayTakenAsOne } from './say-several.js';
import type { DesignOnThing } from './several.js';

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
  /** Where the design lies; several on one thing all together. */
  readonly design: PlacedDesign;
  /** How large that design is whose size is decided: of several the first. */
  readonly ruled: Size;
  readonly figures: SurfaceFigures;
  /** How the design is bent for a taper; null on all else. */
  readonly map: TaperMap | null;
  /** What the design takes up once it is bent, from 0, 0; or all designs beside each other. */
  readonly frame: Size;
  /** The designs that are made of the one; null for the one. */
  readonly instances: readonly Instance[] | null;
  /** The design is longer than any may be: nothing more is made of it. */
  readonly isTooLong: boolean;
  readonly findings: readonly Finding<SurfacePatch>[];
  readonly rulings: readonly Ruling<SurfacePatch>[];
}

/** One of several designs on one thing, at its own size. */
export interface OwnDesign extends Size, DesignOnThing {
  readonly label: string;
}

interface SurfaceContext {
  /** The design's own size, and what it is when the other counts: its artboards, or only what is cut. */
  readonly own: Size & { readonly otherwise: Size };
  /** The designs that stand on one thing; null for one design. */
  readonly each: readonly OwnDesign[] | null;
  /** How many designs the artwork is divided into, whatever it goes on. */
  readonly divided: number;
  readonly recipe: SurfaceDecisions;
  /** How far what is built of it reaches beyond it, as far as that is decided. */
  readonly reachMm: number;
  /** What one unit was taken for, of a design that is one drawing which does not say its unit. */
  readonly mmPerUnit: number | null;
}

type Decided = Omit<SurfaceDecisions['surface'], 'panels' | 'blankId' | 'readFromMm'>;

interface SurfaceRead {
  readonly own: Size & { readonly otherwise: Size };
  readonly each: readonly OwnDesign[] | null;
  readonly divided: number;
  readonly decided: Decided;
  readonly surface: Surface;
  readonly troubles: ReturnType<typeof measureTroubles>;
  readonly reachMm: number;
  readonly mmPerUnit: number | null;
}

/** The design sized for the surface and placed on it. */
export const surfaceStage: Stage<SurfaceContext, SurfaceRead, SurfaceOut> = {
  name: 'surface',
  read: ({ own, each, divided, recipe, reachMm, mmPerUnit }) => {
    const { panels: _panels, blankId: _blank, readFromMm: _from, ...decided } = recipe.surface;
    return {
      own: { widthMm: own.widthMm, heightMm: own.heightMm, otherwise: own.otherwise },
      each,
      divided,
      decided,
      surface: measuredOf(recipe),
      troubles: measureTroubles(recipe),
      reachMm,
      mmPerUnit,
    };
  },
  run(read) {
    const { own, each, decided, surface, troubles, mmPerUnit } = read;
    // A size that was given needs no unit.
    const isAsked = mmPerUnit !== null && decided.size.mode === 'own';
    const cone = { ...decided.taper, slantMm: slantMmOf(decided.taper) };
    const { findings, rulings, ...placed } =
      each && takesSeveral(surface) ? placedSeveral(surface, each, read) : placedAlone(read);
    const longest = longestDesign(placed);
    const isTooLong = Math.max(longest.widthMm, longest.heightMm) > LONGEST_DESIGN_MM + 1e-6;
    return {
      ...placed,
      isTooLong,
      findings: [
        ...(isTooLong ? [sayTooLong(longest)] : []),
        ...(isAsked ? [sayUnit(own, mmPerUnit)] : []),
        ...troubles.map((trouble) => sayMeasureTrouble(trouble, cone)),
        // Why there is no room is said by the figures.
        ...(troubles.length > 0 ? findings.filter(({ severity }) => severity !== 'blocker') : findings),
        ...(decided.ground && surface.kind !== 'unmeasured' ? sayMatter(decided.ground) : []),
        ...(decided.freshPaint && surface.kind !== 'unmeasured' ? [sayFreshPaint(decided.freshPaint)] : []),
        ...(each ? [] : tooFarRound(surface, placed.design)),
        ...(placed.instances &&
        !each &&
        decided.team &&
        decided.team.members.length > 1 &&
        decided.team.namePart === null &&
        decided.team.numberPart === null
          ? [sayNoLetters()]
          : []),
      ],
      rulings,
    };
  },
};

/** The design; of several beside each other the longest. */
function longestDesign({ design, instances }: Pick<SurfaceOut, 'design' | 'instances'>): Size {
  const sideOf = ({ widthMm, heightMm }: Size) => Math.max(widthMm, heightMm);
  const each = (instances ?? []).flatMap(({ among }) => among ?? []);
  return each.reduce<Size>((longest, one) => (sideOf(one) > sideOf(longest) ? one : longest), each[0] ?? design);
}

/** One design, or one that several are made of. */
function placedAlone({ own, divided, decided, surface, reachMm }: SurfaceRead): Omit<SurfaceOut, 'isTooLong'> {
  const { design, ...placing } = placeOn(surface, own, decided.size, reachMm);
  const said = sayPlacing({ design, ...placing }, own, decided, reachMm);
  const { map, frame } = bentIn(surface, design);
  const figures = figuresOf(surface, design);
  const instances = instancesOf(decided, design);
  return {
    surface,
    design,
    ruled: { widthMm: design.widthMm, heightMm: design.heightMm },
    figures,
    map,
    frame,
    instances,
    findings: [...said.findings, ...(divided > 1 && surface.kind !== 'unmeasured' ? [sayTakenAsOne(divided)] : [])],
    rulings: [
      ...said.rulings,
      ...(placing.movedAside && surface.kind !== 'unmeasured'
        ? [sayMovedAside(decided.flat.free, surface.kind === 'cylinder' || surface.kind === 'taper')]
        : []),
      ...kindRulings(surface, design, { figures, map, decided }),
      ...(instances
        ? [decided.team && decided.team.members.length > 0 ? sayTeam(decided.team) : saySizes(instances, design)]
        : []),
    ],
  };
}

/** Several designs on one thing, each where it lies on it. */
function placedSeveral(
  measured: Extract<Surface, { kind: 'flat' | 'glass' | 'cylinder' }>,
  each: readonly OwnDesign[],
  { decided, reachMm }: SurfaceRead,
): Omit<SurfaceOut, 'isTooLong'> {
  // One on each side is a design for each.
  const surface =
    measured.kind === 'cylinder' && measured.side === 'both' ? { ...measured, side: 'holder' as const } : measured;
  const placing = placeSeveral(surface, each, severalWish(decided, each), reachMm);
  const { designs, fittedScale } = placing;
  const box = designs.reduce<Box | null>(
    (all, one) =>
      joinBoxes(all, { minX: one.xMm, minY: one.yMm, maxX: one.xMm + one.widthMm, maxY: one.yMm + one.heightMm }),
    null,
  )!;
  const frame = { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY };
  const toFrame = translation(-box.minX, -box.minY);
  const [first] = designs;
  const widest = Math.max(...designs.map(({ widthMm }) => widthMm));
  const named = designs.map((one, i) => ({ ...one, label: each[i]!.label }));
  const figures = figuresOf(surface, { ...first!, widthMm: widest });
  return {
    surface,
    design: { scale: first!.scale, ...frame, xMm: box.minX, yMm: box.minY },
    ruled: { widthMm: first!.widthMm, heightMm: first!.heightMm },
    figures,
    map: null,
    frame,
    instances: designs.map((one, i): Instance => ({
      label: each[i]!.label,
      copies: 1,
      factor: one.scale / first!.scale,
      words: {},
      among: {
        parts: each[i]!.parts,
        own: { widthMm: each[i]!.widthMm, heightMm: each[i]!.heightMm },
        widthMm: one.widthMm,
        heightMm: one.heightMm,
        xMm: toStep(one.xMm - box.minX),
        yMm: toStep(one.yMm - box.minY),
        room: transformBox(one.room, toFrame),
        cell: transformBox(one.cell, toFrame),
      },
    })),
    findings: placing.trouble ? saySeveralTrouble(placing.trouble, THING[decided.kind], decided) : [],
    rulings: [
      saySeveralSize(named[0]!, decided, {
        fittedWidthMm: each[0]!.widthMm * fittedScale,
        ownWidthMm: each[0]!.widthMm,
        reachMm,
      }),
      saySeveral(named, placing, decided),
      ...(surface.kind === 'glass'
        ? [sayGlass()]
        : surface.kind === 'cylinder'
          ? roundRulings(surface, figures, widest)
          : []),
    ],
  };
}

/** No hand lays film truer, mm. */
const STEP_MM = 0.01;

/** Designs lie on a grid that the outlines of all layers lie on too, so that alike ones are cut alike to the last digit. */
function toStep(mm: number): number {
  return Math.round(mm / STEP_MM) * STEP_MM;
}

/** How several designs are wanted. */
export function severalWish(
  { size, several }: Pick<SurfaceDecisions['surface'], 'size' | 'several'>,
  each: readonly DesignOnThing[],
): SeveralWish {
  return {
    size,
    widthsMm: each.map(({ other }) => (other === null ? null : several.others[other]!.widthMm)),
    betweenMm: several.betweenMm,
  };
}

/** A design is bent about the middle of where it lies on the side. */
function bentIn(surface: Surface, design: PlacedDesign): { readonly map: TaperMap | null; readonly frame: Size } {
  const { widthMm, heightMm } = design;
  const flat = { map: null, frame: { widthMm, heightMm } };
  if (surface.kind !== 'taper') return flat;
  const map = taperMap(surface.cone, design, design.yMm);
  // What would reach the apex, or round more than once, lies on no side: it keeps its shape until it is made smaller.
  if (map.midRadiusMm - heightMm <= 0 || widthMm > 2 * Math.PI * map.midRadiusMm) return flat;
  const box = warpBox(map, { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm });
  return {
    map: movedMap(map, -box.minX, -box.minY),
    frame: { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY },
  };
}

function figuresOf(surface: Surface, lies: LiesAt & Size): SurfaceFigures {
  const { widthMm, heightMm } = lies;
  const limits = limitsOf(surface, lies);
  switch (surface.kind) {
    case 'cylinder':
      return { limits, ...roundFigures(surface.diameterMm, widthMm) };
    case 'taper':
      return { limits, ...roundFigures(developedOf(surface, lies)!.widthMm / Math.PI, widthMm) };
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
function tooFarRound(surface: Surface, design: PlacedDesign): Finding<SurfacePatch>[] {
  if ((surface.kind !== 'cylinder' && surface.kind !== 'taper') || surface.wraps) return [];
  const { widthMm } = design;
  const round = developedOf(surface, design)!.widthMm;
  return widthMm > round * SEEN_SHARE + 0.1 ? [sayWiderThanSeen(widthMm, round)] : [];
}

/** The largest size on what is round, and how wide a design looks on it. */
function roundRulings(
  { kind, wraps, gapMm }: Pick<Extract<Surface, { kind: 'cylinder' | 'taper' }>, 'kind' | 'wraps' | 'gapMm'>,
  { limits, seenAtOnceMm: seenMm, spanDeg }: SurfaceFigures,
  widthMm: number,
): Ruling<SurfacePatch>[] {
  return [
    ...(limits ? [sayLimits(limits, { kind, wraps, gapMm })] : []),
    ...(seenMm === undefined ? [] : [saySeen(seenMm, spanDeg!, widthMm)]),
  ];
}

function kindRulings(
  surface: Surface,
  design: PlacedDesign,
  {
    figures,
    map,
    decided,
  }: { readonly figures: SurfaceFigures; readonly map: TaperMap | null; readonly decided: Decided },
): Ruling<SurfacePatch>[] {
  switch (surface.kind) {
    case 'glass':
      return [sayGlass()];
    case 'cylinder':
      return [
        ...roundRulings(surface, figures, design.widthMm),
        ...(hasSides(surface) ? [saySide(surface, sideMiddleMm(surface), decided.cylinder)] : []),
      ];
    case 'taper':
      return [
        ...(map ? [sayWarp(map, Math.max(stretchAt(map, 0), stretchAt(map, design.heightMm)) - 1)] : []),
        ...roundRulings(surface, figures, design.widthMm),
      ];
    case 'compound': {
      const { bend } = surface;
      return [
        sayStrain(figures.strainPct!, {
          isBent: bend.acrossMm !== null && bend.downMm !== null,
          holds: strainHolds(bend, design.widthMm, design.heightMm),
        }),
        ...(figures.limits ? [sayLimits(figures.limits, { kind: 'compound', wraps: false, gapMm: 0 })] : []),
      ];
    }
    case 'garment':
      return [saySpot(decided.garment)];
    default:
      return [];
  }
}
