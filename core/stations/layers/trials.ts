import { cutProgram } from '../../engines/cutting/index.js';
import {
  crossSection,
  gapTrial,
  placementErrorMm,
  type GapTrial,
  type GapTrialTerms,
  type School,
} from '../../engines/layers/index.js';
import { layOutMarks } from '../../engines/marks/index.js';
import {
  areaOf,
  boundsOf,
  commonBox,
  countPieces,
  grow,
  joinBoxes,
  longestSide,
  perimeter,
  turnedOver,
  type Box,
} from '../../geometry/index.js';
import { settingsFor, type Shop } from '../../shop/index.js';
import type { BuildDecisions } from './decisions.js';
import { layersOnPanel } from './panel-layers.js';
import type { PanelsOut } from './panels-stage.js';
import { carefulMm, pairKey, shrinkBetween } from './pairs.js';
import { markSizeOf } from './reach.js';
import { stripBox } from './strip-box.js';
import type { Separated } from './separate-stage.js';
import {
  buildJob,
  buildStage,
  firstLaid,
  laidHow,
  type BuildContext,
  type BuildOut,
  type LayingWanted,
} from './stage.js';

/** One minute of arc: what a good eye can part (tangent). */
const EYE = Math.tan(Math.PI / 180 / 60);

export interface TrialWish {
  readonly placements: number;
  readonly seed: number;
  /** From how far it is looked at, mm. */
  readonly readingMm: number;
  /** The share of assemblies that may show a gap. */
  readonly risk: number;
}

/** A gap trial's answer as plain data, with the trap that the chosen risk asks for. */
export type TrialAnswer = Omit<GapTrial, 'trapFor'> & { readonly trapMm: number | null; readonly visibleMm: number };

/** What a trial looks at besides the build. */
export interface TrialGround {
  readonly build: BuildOut;
  /** Of a job that is laid in several pieces the largest is tried. */
  readonly panels: PanelsOut;
  readonly recipe: BuildDecisions & LayingWanted;
  readonly repeatabilityMm: number;
}

/** The build laid many times, with the marks and by eye. Null when there are no two layers to be laid. */
export function tryGaps(
  ground: TrialGround,
  wish: TrialWish,
): { readonly marked: TrialAnswer; readonly byEye: TrialAnswer } | null {
  const one = onLargestPanel(ground);
  if (one.build.layers.length < 2) return null;
  return { marked: laid(one, wish, true), byEye: laid(one, wish, false) };
}

/** What is laid in one piece: the largest panel, or design, with what of the pairs lies on it. */
function onLargestPanel(ground: TrialGround): TrialGround {
  const { build, panels } = ground;
  if (panels.along === null) return ground;
  const panel = panels.panels.reduce((a, b) => (longestSide(a.box) >= longestSide(b.box) ? a : b));
  const pairs = build.pairs.map((pair) => {
    const both = commonBox(pair.box, panel.box);
    return { ...pair, box: both.minX < both.maxX && both.minY < both.maxY ? both : panel.box };
  });
  return { ...ground, build: { ...build, layers: layersOnPanel(build.layers, panel, panels.along), pairs } };
}

function laid(ground: TrialGround, wish: TrialWish, hasMarks: boolean): TrialAnswer {
  const { build } = ground;
  const pairs = new Map(build.pairs.map((pair) => [pair.key, pair]));
  const visibleMm = wish.readingMm * EYE;
  const { trapFor, ...trial } = gapTrial(build.layers, {
    terms: termsOf(ground, hasMarks),
    lap: (lower, upper) => {
      const pair = pairs.get(pairKey(lower, upper));
      if (!pair || pair.school === 'inlay') return 'none';
      // A pair with a trap of its own is as it was cut; the curve is about the job's.
      return pair.school === 'trapped' && pair.trapMm === build.trapMm ? 'trap' : 'cut';
    },
    trapMm: build.trapMm,
    visibleMm,
    placements: wish.placements,
    seed: wish.seed,
  });
  return { ...trial, trapMm: trapFor(wish.risk), visibleMm };
}

function termsOf({ build, panels, recipe, repeatabilityMm }: TrialGround, hasMarks: boolean): GapTrialTerms {
  const own = build.layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null)!;
  // Of a gang the copy at the corner of a strip is tried, which slips most.
  const art = stripBox(own, panels.along === null ? recipe.preparation.gang : null);
  const sizeMm = markSizeOf(
    recipe.preparation,
    build.layers.map(({ film }) => film),
  );
  const { markDistanceMm: distanceMm } = recipe.preparation;
  const [a, b] = layOutMarks(art, { sizeMm, distanceMm }).marks;
  const laying = recipe.assembly.way;
  const pairs = new Map(build.pairs.map((pair) => [pair.key, pair]));
  return {
    placementErrorMm: placementErrorMm(carefulMm(recipe.build, hasMarks), longestSide(art), laying),
    repeatabilityMm,
    marks: hasMarks
      ? [
          { x: a!.xMm, y: a!.yMm },
          { x: b!.xMm, y: b!.yMm },
        ]
      : null,
    // A backing is one of the layers here already.
    first: firstLaid(
      build.layers.map((layer) => layer.key),
      null,
      laidHow(recipe),
    ),
    pair(lower, upper) {
      const pair = pairs.get(pairKey(lower, upper));
      return {
        shrink: pair ? shrinkBetween(pair.lower, pair.upper) : 0,
        drawBackMm: pair?.terms.drawBackMm ?? 0,
        box: pair?.box ?? own,
      };
    },
  };
}

/** One school's figures for a job: what a maker decides by. */
export interface SchoolFigures {
  readonly school: School;
  readonly thickestUm: number;
  /** Edges of two layers that have to meet exactly, mm. */
  readonly exactEdgesMm: number;
  readonly weedPieces: number;
  readonly filmMm2: number;
  /** Share of assemblies with a gap that can be seen. */
  readonly risk: number;
  readonly cutSeconds: number;
}

/** What the schools are compared on. */
export interface SchoolsGround {
  readonly separated: Separated;
  readonly recipe: BuildContext['recipe'];
  readonly shop: Shop;
  readonly panels: PanelsOut;
  /** How high the design is made, mm. */
  readonly heightMm: number;
}

/** The job built in all three schools, by the job's own rules for pairs. */
export function schoolsSideBySide(
  { separated, recipe, shop, panels, heightMm }: SchoolsGround,
  wish: TrialWish,
): SchoolFigures[] {
  const repeatabilityMm = shop.cutter.repeatabilityMm;
  return (['overlay', 'inlay', 'trapped'] as const).map((school) => {
    // Remedies at single places change no school's figures by anything that could be seen here.
    const own = {
      ...recipe,
      repair: { ...recipe.repair, only: {}, spared: {} },
      build: { ...recipe.build, school, pairs: {}, filmPairs: {} },
    };
    const built = buildJob(
      buildStage.read({ separated, recipe: own, repeatabilityMm, panels, matrices: new Map(), map: null }),
    );
    const ground = onLargestPanel({ build: built, panels, recipe: own, repeatabilityMm });
    const trial = ground.build.layers.length < 2 ? null : laid(ground, wish, recipe.preparation.marks);
    return {
      school,
      thickestUm: thickest(built, heightMm),
      exactEdgesMm: built.pairs
        .filter((pair) => pair.school === 'inlay')
        .reduce((sum, pair) => sum + sharedEdgeMm(built, pair.lower.id, pair.upper.id), 0),
      weedPieces: built.layers.reduce((sum, { cut }) => sum + countPieces(cut).pieces + countPieces(cut).holes, 0),
      filmMm2: built.layers.reduce((sum, { cut }) => sum + areaOf(cut), 0),
      risk: trial?.risk ?? 0,
      cutSeconds: built.layers.reduce(
        (sum, { cut, film }) =>
          sum +
          cutProgram({
            groups: [{ contours: upright(cut), borders: [] }],
            settings: settingsFor(film, shop.cutter),
            motion: shop.cutter,
          }).seconds,
        0,
      ),
    };
  });
}

/** The cutter counts upwards. */
function upright(rings: BuildOut['layers'][number]['cut']) {
  return turnedOver(rings, boundsOf(rings)?.maxY ?? 0);
}

/** So many cuts through the build are looked at for its thickest place. */
const SECTIONS = 40;

function thickest({ layers }: BuildOut, heightMm: number): number {
  const um = new Map(layers.map((layer) => [layer.key, layer.film.thicknessUm]));
  let most = 0;
  for (let i = 0; i < SECTIONS; i += 1) {
    for (const bar of crossSection(layers, ((i + 0.5) / SECTIONS) * heightMm, (key) => um.get(key)!))
      most = Math.max(most, bar.baseUm + bar.thicknessUm);
  }
  return most;
}

/** A seam between two layers is narrower than this, mm. */
const SEAM_MM = 0.02;

/** Length of the edge that two layers share: half of what their outlines have more than the outline of both. */
function sharedEdgeMm({ layers }: BuildOut, lower: string, upper: string): number {
  const rings = (key: string) => layers.find((layer) => layer.key === key)!.visible;
  const length = (list: readonly Float64Array[]) => list.reduce((sum, ring) => sum + perimeter(ring), 0);
  // Grown and shrunk by a hair, or the seam between them would stay.
  const both = grow(grow([...rings(lower), ...rings(upper)], SEAM_MM), -SEAM_MM);
  return Math.max(0, (length(rings(lower)) + length(rings(upper)) - length(both)) / 2);
}
