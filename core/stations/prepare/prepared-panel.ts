import { CAREFUL_MM, thinParts, trapWidth, type TrapForm } from '../../engines/layers/index.js';
import {
  faultsOfMarks,
  layOutMarks,
  markGapMm,
  movedMarks,
  placeMarks,
  type MarkLayout,
  type MarkSchool,
  type MarksWish,
} from '../../engines/marks/index.js';
import type { GangWish } from '../../engines/nesting/index.js';
import {
  layerWeeding,
  weedingBorder,
  weedingBorders,
  weedingMinutes,
  type BorderKind,
  type WeedingFigures,
  type WeedingWork,
} from '../../engines/weeding/index.js';
import { boundsOf, joinBoxes, type Box, type Rings } from '../../geometry/index.js';
import { wayOf } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { LOWEST_MORE_MM, markSizeOf, ruledGapMm, type BuildOut, type JobLayer, type Panel } from '../layers/index.js';
import type { StageHooks } from '../stage.js';
import type { LettersOnDesign } from '../surface/index.js';
import type { PrepareDecisions, PreparePatch } from './decisions.js';
import { bulkOf } from './bulk-of.js';
import { ruledBorder, type RuledBorder } from './rule-border.js';
import { sayGang, sayGangIdle } from './say-gang.js';
import {
  sayMarks,
  sayMarksAlike,
  sayMarksNear,
  sayMarksOnArtwork,
  sayNoMarks,
  sayTurnedMarks,
  type MarksSet,
} from './say-marks.js';
import { sayBorder, sayLabels, sayMinutes, sayRefusedLines, sayRelief, sayReverse } from './say.js';
import { rulingsOfDesigns } from './say-designs.js';
import { boxInStrip, stripOf } from './strip-of.js';
import type { LearnedWeeding, PreparedLayer, PreparedPanel, PrepareOut } from './stage.js';

/* What a panel is prepared with. Fetched with the first panel that is prepared: a page shows the layers before. */

/** A panel with what is prepared of its layers. */
export interface Prepared {
  readonly panel: Omit<PreparedPanel, 'apart'>;
  readonly layers: readonly Omit<PreparedLayer, 'panel'>[];
  readonly rulings: readonly Ruling<PreparePatch>[];
  readonly findings: readonly Finding<PreparePatch>[];
}

/** What all panels are prepared by. */
interface PrepareHow {
  readonly preparation: PrepareDecisions['preparation'];
  /** The copies that are laid together; null where each is laid by itself. */
  readonly gang: GangWish | null;
  readonly pairs: BuildOut['pairs'];
  readonly trapForm: TrapForm;
  readonly title: string;
  readonly isInside: boolean;
  readonly figures: WeedingFigures;
  readonly hooks: StageHooks;
  /** How much of all panels is done before this one, and how much it is of them. */
  readonly begun: number;
  readonly share: number;
}

/** A copy in one part without counters: of a strip of such all waste lifts in one pull. */
function isPlain({ pieces, holes }: JobLayer): boolean {
  return pieces === 1 && holes === 0;
}

/** A lattice lifts in one: the outline of one copy counts, once a strip. Source: trade practice. */
function asLattice(work: WeedingWork, perStrip: number): WeedingWork {
  return { ...work, outlineMm: work.outlineMm / perStrip, thinMm: work.thinMm / perStrip };
}

/** A dot of 2 mm across, mm². */
const DOT_MM2 = Math.PI;

/** Marks, borders, relief lines and the weed maps of a panel; null where nothing of the design lies on it. */
export async function preparedPanel(
  { number, of, label, copies, corner, clip }: Omit<Panel, 'box'> & Pick<PreparedPanel, 'clip'>,
  single: readonly JobLayer[],
  given: PrepareHow,
): Promise<Prepared | null> {
  const { layers, places } = given.gang ? stripOf(single, given.gang) : { layers: single, places: [] };
  const perStrip = Math.max(1, places.length);
  const how = given.gang
    ? { ...given, pairs: given.pairs.map((pair) => ({ ...pair, box: boxInStrip(pair.box, places) })) }
    : given;
  const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null);
  if (!art) return null;
  const { preparation, figures, hooks } = how;
  const { relief } = preparation;
  const set = preparation.marks && layers.length > 1 ? setMarks(layers, art, of, how) : null;
  const rings = set?.marks.marks.map(({ ring }) => ring) ?? [];
  const borders = bordersOf(layers, art, rings, preparation);
  const prepared: Omit<PreparedLayer, 'panel'>[] = [];
  for (const [i, layer] of layers.entries()) {
    const tell = (done: number) => hooks.onStep?.('weeding', how.begun + (how.share * (i + done)) / layers.length);
    tell(0);
    await hooks.breathe?.();
    const { thinnestMm, id } = layer.film;
    const words = [how.title, ...(label === null ? [] : [label]), layer.film.name, `${i + 1}/${layers.length}`];
    const isLattice = perStrip > 1 && isPlain(single[i]!);
    const { map: weed, ...made } = layerWeeding(layer.cut, rings, thinParts(layer.cut, 2 * thinnestMm), {
      border: { rings: borders.of[i]! },
      // Between copies in one box, and plain ones in a strip, the waste is a lattice, which lifts in one.
      relief: relief.ruled && preparation.border !== 'shared' && !isLattice,
      bulkMm: bulkOf(layer.film, relief),
      drawn: relief.drawn.filter(({ filmId }) => filmId === id).map(({ line }) => line),
      gone: relief.gone.filter(({ filmId }) => filmId === id),
      label: preparation.labels ? { words, isMirrored: layer.film.mirrored !== how.isInside } : null,
      thinnestMm,
      isStencil: wayOf(layer.film) === 'stencil',
      onProgress: tell,
    });
    const { border, relief: lines, asDrawn, labels, refused, strips } = made;
    const work = isLattice ? asLattice(made.work, perStrip) : made.work;
    const dotsMm2 = made.looseParts.filter(({ areaMm2 }) => areaMm2 < DOT_MM2).map(({ areaMm2 }) => areaMm2);
    prepared.push({
      layer,
      weed,
      refused,
      border,
      borderGapMm: borders.gaps[i]!,
      relief: lines,
      asDrawn,
      labels,
      strips,
      dotsMm2,
      work,
      minutes: weedingMinutes(work, figures),
    });
  }
  const box = joinBoxes(joinBoxes(art, boundsOf(rings)), boundsOf(prepared.flatMap((one) => one.border)))!;
  return {
    panel: {
      number,
      of,
      label,
      copies,
      perStrip,
      corner,
      marks: set?.marks ?? null,
      markSizeMm: set?.sizeMm ?? 0,
      sharesBorder: preparation.border === 'shared',
      box,
      clip,
    },
    layers: prepared,
    rulings: [
      set
        ? sayMarks(set, { clearMm: markGapMm(set.sizeMm), preparation, isInPanels: of > 1 })
        : sayNoMarks(layers.length),
      sayBorder({ ...borders, preparation, layers: layers.map(({ film }) => film) }),
    ],
    findings: set ? sayMarkFaults(set, layers) : [],
  };
}

/** The borders of a panel's layers, and what is said of them. */
interface PanelBorders {
  /** Layer by layer. */
  readonly of: readonly Rings[];
  /** How far each keeps clear of what it goes round, mm. */
  readonly gaps: readonly number[];
  readonly kinds: readonly BorderKind[];
  readonly gapMm: number;
  readonly ruledGapMm: number;
  readonly lowestMoreMm: number;
  /** All layers have the same border, because their carriers are trimmed to one corner. */
  readonly sharesCorner: boolean;
  /** What the borders save against a box round each, over all layers. */
  readonly savedMm2: number;
  readonly savedMin: number;
}

function bordersOf(
  layers: readonly JobLayer[],
  art: Box,
  marks: Rings,
  { border: wish, borderGapMm, lowestMoreMm: more }: PrepareDecisions['preparation'],
): PanelBorders {
  const ruled = ruledGapMm(
    { widthMm: art.maxX - art.minX, heightMm: art.maxY - art.minY },
    layers.map(({ film }) => film),
  );
  const gapMm = borderGapMm ?? ruled;
  // Where no marks hold pressed layers together, their carriers are trimmed to one corner: along borders that are all one.
  const sharesCorner =
    layers.length > 1 &&
    marks.length === 0 &&
    layers.every(({ film }) => wayOf(film) === 'press') &&
    (wish === 'ruled' || wish === 'box');
  const lowestMoreMm = layers.length > 1 && !sharesCorner ? (more ?? LOWEST_MORE_MM) : 0;
  const whole = joinBoxes(art, boundsOf(marks))!;
  const gaps = layers.map((_, i) => gapMm + (i === 0 ? lowestMoreMm : 0));
  const made = layers.map((layer, i): Omit<RuledBorder, 'kind'> & { readonly kind: BorderKind } => {
    const own = gaps[i]!;
    // One box for all copies goes round all layers too, so that they lie alike on their films.
    if (wish === 'shared' || sharesCorner)
      return { kind: 'box', rings: [weedingBorder(whole, own)], savedMm2: 0, savedMin: 0 };
    const stays = [...layer.cut, ...marks];
    if (wish === 'ruled') return ruledBorder(stays, { gapMm: own, costPerM2: layer.film.costPerM2 });
    return { kind: wish, rings: weedingBorders(wish, stays, own), savedMm2: 0, savedMin: 0 };
  });
  const total = (of: 'savedMm2' | 'savedMin') => made.reduce((sum, one) => sum + one[of], 0);
  return {
    of: made.map(({ rings }) => rings),
    gaps,
    kinds: made.map(({ kind }) => kind),
    gapMm,
    ruledGapMm: ruled,
    lowestMoreMm,
    sharesCorner,
    savedMm2: total('savedMm2'),
    savedMin: total('savedMin'),
  };
}

/** Marks where they stand, and how they came to be there. */
function setMarks(
  layers: readonly JobLayer[],
  art: Box,
  panels: number,
  { preparation, pairs, trapForm }: PrepareHow,
): MarksSet {
  const { markPlaces, markDistanceMm: distanceMm, markShape: shape, marksAt } = preparation;
  const sizeMm = markSizeOf(
    preparation,
    layers.map(({ film }) => film),
  );
  const cheapest = (
    school: MarkSchool,
    more: Pick<MarksWish, 'apartMm'> = {},
  ): Pick<MarksSet, 'marks' | 'cost'> | null => {
    const found = placeMarks(
      layers.map(({ cut }) => cut),
      { school, shape, sizeMm, gapMm: markGapMm(sizeMm), placementErrorMm: CAREFUL_MM.marked, ...more },
    );
    if (!found) return null;
    const { marks, distanceMm: apartMm, ...cost } = found;
    return { marks: { marks, distanceMm: apartMm, leastMm: apartMm }, cost };
  };
  const outside = { marks: layOutMarks(art, { sizeMm, distanceMm, shape }), cost: null, places: 'outside' } as const;
  const ruled = (): Pick<MarksSet, 'marks' | 'cost' | 'places'> => {
    // A distance that the maker gave is one outside the ends.
    if (distanceMm !== null) return outside;
    // As near as they may stand; or, where that is plainly too near, as far as Build reckoned with.
    const nearest = {
      xMm: (art.minX + art.maxX) / 2,
      yMm: (art.minY + art.maxY) / 2,
      distanceMm: Math.max(art.maxX - art.minX, art.maxY - art.minY),
    };
    const ends = cheapest(
      'ends',
      shortTraps(pairs, nearest, trapForm).length === 0 ? {} : { apartMm: outside.marks.distanceMm },
    );
    return ends && shortTraps(pairs, holdOf(ends.marks), trapForm).length === 0 ? { ...ends, places: 'ends' } : outside;
  };
  const placed =
    markPlaces === 'ruled'
      ? ruled()
      : markPlaces === 'outside'
        ? outside
        : { ...cheapest(markPlaces)!, places: markPlaces };
  // Panels are marked one by one; a design in one piece is where the maker sees it.
  if (marksAt.length === 0 || panels > 1) return { ...placed, sizeMm, isMoved: false };
  const marks = movedMarks(placed.marks.marks, marksAt);
  const apartMm =
    marks.length > 1
      ? Math.max(...marks.flatMap((a) => marks.map((b) => Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm))))
      : placed.marks.distanceMm;
  return { ...placed, marks: { ...placed.marks, marks, distanceMm: apartMm }, cost: null, sizeMm, isMoved: true };
}

/** What is wrong with marks that a hand has moved. */
function sayMarkFaults(
  { marks: { marks }, sizeMm, isMoved }: MarksSet,
  layers: readonly JobLayer[],
): Finding<PreparePatch>[] {
  if (!isMoved) return [];
  const faults = faultsOfMarks(
    marks,
    layers.map(({ cut }) => cut),
    markGapMm(sizeMm),
  );
  return [
    ...(faults.onArtwork.length > 0 ? [sayMarksOnArtwork(faults.onArtwork)] : []),
    ...(faults.near.length > 0 ? [sayMarksNear(faults.near, markGapMm(sizeMm))] : []),
    ...(faults.areAlike ? [sayMarksAlike(marks)] : []),
  ];
}

/** Below this height of capitals letters are weeded on the tape, mm. Source: trade practice. */
const REVERSE_MM = 8;

/** Letters that are better weeded on the tape. */
function smallLetters(letters: readonly LettersOnDesign[]): Finding<PreparePatch>[] {
  const least = letters.reduce<LettersOnDesign | null>(
    (small, one) => (small && small.capHeightMm <= one.capHeightMm ? small : one),
    null,
  );
  return least && least.capHeightMm < REVERSE_MM ? [sayReverse(least.words, least.capHeightMm, least.box)] : [];
}

/** Traps that would have to be wider by this much for where the marks stand are told, mm. */
const TOLD_MM = 0.05;

/** How marks hold a layer: the middle between them, and how far apart they are. */
interface Hold {
  readonly xMm: number;
  readonly yMm: number;
  readonly distanceMm: number;
}

function holdOf({ marks, distanceMm }: MarkLayout): Hold {
  const box = boundsOf(marks.map(({ ring }) => ring))!;
  return { xMm: (box.minX + box.maxX) / 2, yMm: (box.minY + box.maxY) / 2, distanceMm };
}

/** The traps that would be needed for where marks stand, of pairs whose trap is too small for it. */
function shortTraps(pairs: BuildOut['pairs'], { xMm: x, yMm: y, distanceMm }: Hold, trapForm: TrapForm): number[] {
  return pairs.flatMap(({ school, trapMm, terms, box: shared }) => {
    if (school !== 'trapped') return [];
    const reachMm = Math.max(
      ...[shared.minX, shared.maxX].flatMap((px) => [shared.minY, shared.maxY].map((py) => Math.hypot(px - x, py - y))),
    );
    const needed = trapWidth({ ...terms, reachMm, markDistanceMm: distanceMm }, trapForm).mm;
    return needed > trapMm + TOLD_MM ? [needed] : [];
  });
}

/** Marks that hold the layers less truly than the trap was reckoned with. */
function turnedMarks(
  { pairs }: BuildOut,
  panels: readonly Omit<PreparedPanel, 'apart'>[],
  { preparation, trapForm }: { readonly preparation: PrepareDecisions['preparation']; readonly trapForm: TrapForm },
): Finding<PreparePatch & { readonly build?: { readonly trapMm?: number } }>[] {
  // Build reckons with marks outside the ends; where the app rules, this was looked at.
  if ((preparation.markPlaces === 'outside' || preparation.markPlaces === 'ruled') && preparation.marksAt.length === 0)
    return [];
  const short = panels.flatMap(({ marks }) => (marks ? shortTraps(pairs, holdOf(marks), trapForm) : []));
  return short.length === 0 ? [] : [sayTurnedMarks(Math.max(...short))];
}

interface SaidOf {
  readonly build: BuildOut;
  readonly letters: readonly LettersOnDesign[];
  readonly preparation: PrepareDecisions['preparation'];
  /** That is made use of. */
  readonly gang: GangWish | null;
  readonly trapForm: TrapForm;
  readonly weeding: LearnedWeeding | null;
  /** The first panel, which the others of a split design are prepared like; of several designs each. */
  readonly designs: readonly Prepared[];
}

/** What is said of all panels together. */
export function saidOfPrepared(
  { panels, layers }: Pick<PrepareOut, 'panels' | 'layers'>,
  { build, letters, preparation, gang, trapForm, weeding, designs }: SaidOf,
): Pick<PrepareOut, 'findings' | 'rulings'> {
  const isStencil = layers.every(({ layer }) => wayOf(layer.film) === 'stencil');
  return {
    findings: [
      ...(preparation.gang && !gang ? [sayGangIdle()] : []),
      ...designs.flatMap(({ findings }) => findings),
      ...smallLetters(letters),
      ...turnedMarks(build, panels, { preparation, trapForm }),
      ...(layers.some(({ refused }) => refused.length > 0) ? [sayRefusedLines(layers, preparation)] : []),
    ],
    // Round a stencil nothing is waste.
    rulings: [
      ...(gang ? [sayGang(gang, panels[0]!, layers.length)] : []),
      ...rulingsOfDesigns(designs.map(({ panel, rulings }) => ({ label: panel.label ?? '', rulings }))),
      ...(isStencil ? [] : [...sayRelief(layers, preparation), sayLabels(layers, preparation)]),
      ...sayMinutes(layers, weeding),
    ],
  };
}
