import { colourLightness } from '../../engines/artwork/index.js';
import {
  buildLayers,
  withoutCrumbs,
  type BuiltLayer,
  type Laying,
  type TrapWidth,
} from '../../engines/layers/index.js';
import type { MarkWish } from '../../engines/marks/index.js';
import type { GangWish } from '../../engines/nesting/index.js';
import type { TaperMap } from '../../engines/surface/index.js';
import {
  areaOf,
  boundsOf,
  countPieces,
  grow,
  joinBoxes,
  longestSide,
  subtract,
  unite,
  type Box,
  type Matrix,
  type Rings,
} from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { Finding, PlaceRemedy, Ruling } from '../../words/index.js';
import { placeRules, spotsOf, type ArtworkDecisions, type PlaceSpots } from '../artwork/index.js';
import type { Stage } from '../stage.js';
import type { SurfaceDecisions } from '../surface/index.js';
import type { BlockOut, BuildDecisions, BuildPatch } from './decisions.js';
import type { LaidBase } from './framing.js';
import { idleDecisions, type Idle } from './idle.js';
import { stackingOrder, type LayerOrder } from './order.js';
import type { PanelsOut } from './panels-stage.js';
import { pairKey, rulePairs, showsThrough, widestPair, type RuledPair } from './pairs.js';
import { markSizeOf } from './reach.js';
import { sayBuild, sayPair } from './say.js';
import { sayIdle } from './say-idle.js';
import type { Separated } from './separate-stage.js';
import { stripBox } from './strip-box.js';
import { sayWholeBase, wholeBase, type WholeBase } from './whole-base.js';

/** A layer of a job: what is cut from one film. */
export interface JobLayer extends BuiltLayer {
  readonly film: Film;
  readonly areaMm2: number;
  readonly pieces: number;
  readonly holes: number;
}

/** A pair of layers that meet, with the reasons in words. */
export interface PairPlan extends RuledPair {
  readonly because: readonly string[];
}

export interface BuildOut {
  readonly layers: readonly JobLayer[];
  /** Every two layers that meet. */
  readonly pairs: readonly PairPlan[];
  readonly trapMm: number;
  readonly trap: TrapWidth | null;
  readonly findings: readonly Finding<BuildPatch>[];
  readonly rulings: readonly Ruling<BuildPatch>[];
}

/** What Build reads of how the layers will be aligned and laid: the trap depends on it. */
export interface LayingWanted {
  readonly surface: Pick<SurfaceDecisions['surface'], 'kind'>;
  readonly preparation: {
    readonly marks: boolean;
    readonly markSizeMm: number | null;
    readonly markDistanceMm: number | null;
    readonly gang: GangWish | null;
  };
  readonly assembly: { readonly way: Laying };
}

export interface BuildContext {
  readonly separated: Separated;
  readonly recipe: BuildDecisions & LayingWanted & Pick<ArtworkDecisions, 'repair'>;
  readonly repeatabilityMm: number;
  /** A panel is laid by itself. */
  readonly panels: PanelsOut;
  /** From each part's own mm to the design's at its final size. */
  readonly matrices: ReadonlyMap<string, Matrix>;
  /** How the design is bent after that. */
  readonly map: TaperMap | null;
}

export interface BuildRead {
  readonly separated: Separated;
  readonly build: Pick<
    BuildDecisions['build'],
    | 'school'
    | 'trapMm'
    | 'placementErrorMm'
    | 'trapForm'
    | 'lives'
    | 'pairs'
    | 'filmPairs'
    | 'base'
    | 'knockOuts'
    | 'outlines'
    | 'blockOut'
    | 'order'
  >;
  readonly marks: MarkWish | null;
  readonly laid: LaidHow;
  readonly repeatabilityMm: number;
  /** Copies that are laid together; null where each is laid by itself, and of designs in panels or apart. */
  readonly gang: GangWish | null;
  /** The largest panel of a design that is laid in panels. */
  readonly panel: Box | null;
  readonly closeGapsMm: number;
  readonly spots: PlaceSpots;
}

const REMEDIES: readonly PlaceRemedy[] = ['gaps'];

/** The marks as Build reckons with them; null when layers are laid by eye. */
export function marksWanted(
  { preparation: { marks, markSizeMm, markDistanceMm } }: LayingWanted,
  films: Iterable<Film>,
): MarkWish | null {
  return marks ? { sizeMm: markSizeOf({ markSizeMm }, films), distanceMm: markDistanceMm } : null;
}

export function laidHow({ assembly, surface }: LayingWanted): LaidHow {
  return { laying: assembly.way, isInside: surface.kind === 'glass' };
}

/** The layers by the chosen school, pair by pair, with the trap ruled by formula unless the maker set it. */
export const buildStage: Stage<BuildContext, BuildRead, BuildOut> = {
  name: 'build',
  read({ separated, recipe, repeatabilityMm, panels, matrices, map }) {
    const {
      school,
      trapMm,
      placementErrorMm,
      trapForm,
      lives,
      pairs,
      filmPairs,
      base,
      knockOuts,
      outlines,
      blockOut,
      order,
    } = recipe.build;
    return {
      separated,
      build: {
        school,
        trapMm,
        placementErrorMm,
        trapForm,
        lives,
        pairs,
        filmPairs,
        base,
        knockOuts,
        outlines,
        blockOut,
        order,
      },
      marks: marksWanted(recipe, separated.films.values()),
      laid: laidHow(recipe),
      repeatabilityMm,
      gang: panels.along === null ? recipe.preparation.gang : null,
      panel:
        panels.along === null
          ? null
          : panels.panels.map(({ box }) => box).reduce((a, b) => (longestSide(a) >= longestSide(b) ? a : b)),
      closeGapsMm: recipe.repair.closeGapsMm,
      spots: spotsOf(recipe.repair, REMEDIES, (part) => matrices.get(part), map),
    };
  },
  run: buildJob,
};

/** The same at once, of what was read. */
export function buildJob({
  separated: { separation, neighbours, framed, films },
  build,
  marks,
  laid,
  repeatabilityMm,
  gang,
  panel,
  closeGapsMm,
  spots,
}: BuildRead): BuildOut {
  const filmOf = (key: string) => films.get(key)!;
  const baseId = framed?.base?.film.id ?? null;
  const behind = new Set(
    (framed?.outlines ?? []).filter(({ outline }) => outline.around === null).map(({ film }) => film.id),
  );
  const order = stackingOrder(separation, neighbours, build.order, { filmOf, baseId, behind });
  const art = separation.layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.visible)), null);
  const isBaseHidden = baseId !== null && !order.keys.includes(baseId) && behind.size === 0;
  const first =
    isBaseHidden && (laid.laying === 'tape') === laid.isInside ? baseId : firstLaid(order.keys, build.blockOut, laid);
  const inOnePiece = art && (panel ?? stripBox(art, gang));
  // The copy that lies farthest from the middle of a strip reaches into its corners.
  const contacts = gang
    ? neighbours.contacts.map((contact) => ({ ...contact, farthestMm: Infinity }))
    : neighbours.contacts;
  const pairsIn = (keys: readonly string[]) =>
    inOnePiece
      ? rulePairs(
          {
            order: keys,
            first,
            contacts,
            art: inOnePiece,
            build,
            baseId,
            marks,
            laying: laid.laying,
            repeatabilityMm,
          },
          filmOf,
        )
      : [];
  const pairs = pairsIn(order.keys);
  const byKey = new Map(pairs.map((pair) => [pair.key, pair]));
  const widest = widestPair(pairs);
  const trapMm = build.trapMm ?? widest?.ruledTrapMm ?? 0;
  const rules = placeRules(spots);
  const { layers, crumbs, filled } = buildLayers(separation, {
    school: build.school,
    trapMm,
    order: order.keys,
    thinnestMm: (key) => filmOf(key).thinnestMm,
    takesOnTop: (key) => filmOf(key).takesOnTop,
    closesGap: {
      widthMm: (key) => Math.min(closeGapsMm, filmOf(key).thinnestMm),
      at: (box) => rules.reaches('gaps', box),
    },
    // What lies above without touching it follows what was decided for the whole film.
    pair: (lower, upper) => {
      const whole = build.filmPairs[lower]?.school === 'overlay' ? ('overlay' as const) : build.school;
      return byKey.get(pairKey(lower, upper)) ?? { school: whole, trapMm };
    },
  });
  const isTrapped = pairs.some((pair) => pair.school === 'trapped');
  return {
    layers: withBlockOut(withBase(layers, framed?.base ?? null, behind), build.blockOut, films).map((layer) => ({
      ...layer,
      film: filmOf(layer.key),
      areaMm2: areaOf(layer.cut),
      ...countPieces(layer.cut),
    })),
    pairs: pairs.map((pair) => ({ ...pair, because: sayPair(pair, build.school) })),
    trapMm: isTrapped ? trapMm : 0,
    trap: widest?.width ?? null,
    ...saidOf(
      idleDecisions({ build, films, framed, pairs, layers }),
      wholeBase(separation, layers, pairs, gang),
      sayBuild({
        build,
        layers: layers.length,
        joined: separation.joined,
        crumbs,
        filled,
        coversAll: (pair) => coversAll(layers, pair),
        lighterLower: lighterLower(order, baseId, { pairs, pairsIn, filmOf }),
        order,
        pairs,
        widest,
        trapMm,
        hasMarks: marks !== null,
        sizeMm: inOnePiece ? longestSide(inOnePiece) : 0,
        isGang: gang !== null,
        framed,
        filmOf,
      }),
      build,
      films,
    ),
  };
}

/** An order in which no darker film runs under a lighter one; null when none is needed, or this one would not do. */
function lighterLower(
  { keys, bare }: LayerOrder,
  baseId: string | null,
  {
    pairs,
    pairsIn,
    filmOf,
  }: {
    readonly pairs: readonly RuledPair[];
    readonly pairsIn: (keys: readonly string[]) => readonly RuledPair[];
    readonly filmOf: (key: string) => Film;
  },
): readonly string[] | null {
  const shows = (some: readonly RuledPair[]) =>
    some.some((pair) => pair.school !== 'inlay' && showsThrough(pair.lower, pair.upper));
  if (baseId !== null || !shows(pairs)) return null;
  const light = (key: string) => colourLightness(filmOf(key).colour);
  const order = [...keys.filter((key) => !bare.includes(key)).sort((a, b) => light(b) - light(a)), ...bare];
  return shows(pairsIn(order)) ? null : order;
}

/** Less than this of an upper layer shows beside the lower one, mm²: rounding. */
const BESIDE_MM2 = 0.01;

/** Whether all of the upper layer of a pair lies on the lower one. */
function coversAll(layers: readonly BuiltLayer[], { lower, upper }: RuledPair): boolean {
  const [below, above] = [lower, upper].map(({ id }) => layers.find(({ key }) => key === id));
  return !!below && !!above && areaOf(subtract(above.visible, below.cut)) < BESIDE_MM2;
}

/** What is said of a build, with what is said of decisions that do nothing. */
function saidOf(
  idle: readonly Idle[],
  whole: WholeBase | null,
  said: ReturnType<typeof sayBuild>,
  build: BuildRead['build'],
  films: ReadonlyMap<string, Film>,
): ReturnType<typeof sayBuild> {
  return {
    ...said,
    findings: [
      ...idle.map((one) => sayIdle(one, build, (id) => films.get(id))),
      ...said.findings,
      ...(whole ? [sayWholeBase(whole, build)] : []),
    ],
  };
}

/** How the layers come onto the surface. */
export interface LaidHow {
  readonly laying: Laying;
  /** On the inner face of glass, read from outside: what is in front lies against the glass. */
  readonly isInside: boolean;
}

/** What is laid first: on tape, or behind glass, what lies uppermost (on tape behind glass it turns over twice), else what lies lowest, which may be a backing that shows nowhere. */
export function firstLaid(order: readonly string[], blockOut: BlockOut | null, { laying, isInside }: LaidHow): string {
  if ((laying === 'tape') !== isInside) return order.at(-1) ?? '';
  return blockOut && order.includes(blockOut.underFilmId) && !order.includes(blockOut.filmId)
    ? blockOut.filmId
    : (order[0] ?? '');
}

/** The base cut as one, also where others lie on it; where nothing of it shows it is a layer by itself, over the outlines that lie behind everything. */
function withBase(
  layers: readonly BuiltLayer[],
  base: LaidBase | null,
  behind: ReadonlySet<string>,
): readonly BuiltLayer[] {
  return base
    ? withHidden(
        layers,
        base.film.id,
        withoutCrumbs(base.rings).rings,
        layers.filter(({ key }) => behind.has(key)).length,
      )
    : layers;
}

/** A film laid beneath another all over, a little within its edge. It shows nowhere, so it is no part of the separation. */
function withBlockOut(
  layers: readonly BuiltLayer[],
  blockOut: BlockOut | null,
  films: ReadonlyMap<string, Film>,
): readonly BuiltLayer[] {
  const backed = blockOut && layers.find((layer) => layer.key === blockOut.underFilmId);
  if (!blockOut || !backed || !films.has(blockOut.filmId) || blockOut.filmId === blockOut.underFilmId) return layers;
  const cut = withoutCrumbs(grow(backed.cut, -blockOut.insetMm)).rings;
  return cut.length === 0 ? layers : withHidden(layers, blockOut.filmId, cut, 0);
}

/** What is cut of a film though nothing of it shows: more of a layer that is there, or a layer by itself over the first `at`. */
function withHidden(layers: readonly BuiltLayer[], key: string, cut: Rings, at: number): readonly BuiltLayer[] {
  if (layers.some((layer) => layer.key === key))
    return layers.map((layer) => (layer.key === key ? { ...layer, cut: unite([...layer.cut, ...cut]) } : layer));
  return [
    ...layers.slice(0, at),
    { key, order: at + 1, visible: [], cut },
    ...layers.slice(at).map((layer) => ({ ...layer, order: layer.order + 1 })),
  ];
}
