import { CAREFUL_MM, thinParts, trapWidth, type TrapForm } from '../../engines/layers/index.js';
import { layOutMarks, markGapMm, placeMarks } from '../../engines/marks/index.js';
import { groupsFilmMm2, layerWeeding, weedingBorder, weedingMinutes } from '../../engines/weeding/index.js';
import { areaOf, boundsOf, joinBoxes, type Box, type Rings } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { ruledBorderMm, type BuildOut, type JobLayer, type Panel } from '../build/index.js';
import type { LettersOnDesign } from '../surface/index.js';
import type { PrepareDecisions, PreparePatch } from './decisions.js';
import { sayBorder, sayMarks, sayMinutes, sayNoMarks, sayRefusedLines, sayRelief, sayReverse, sayTurnedMarks, type MarksSet } from './say.js';
import type { PreparedLayer, PreparedPanel, PrepareOut } from './stage.js';

/* What a panel is prepared with. Fetched with the first panel that is prepared: a page shows the layers before. */

/** A panel with what is prepared of its layers. */
export interface Prepared {
  readonly panel: Omit<PreparedPanel, 'apart'>;
  readonly layers: readonly Omit<PreparedLayer, 'panel'>[];
  readonly rulings: readonly Ruling<PreparePatch>[];
}

/** A dot of 2 mm across, mm². */
const DOT_MM2 = Math.PI;

/** Marks, borders, relief lines and the weed maps of a panel; null where nothing of the design lies on it. */
export function preparedPanel({ number, of, label, copies, corner, clip }: Omit<Panel, 'box'> & Pick<PreparedPanel, 'clip'>, layers: readonly JobLayer[], preparation: PrepareDecisions['preparation']): Prepared | null {
  const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null);
  if (!art) return null;
  const { border: kind, relief, markSizeMm: sizeMm } = preparation;
  const marks = preparation.marks && layers.length > 1 ? setMarks(layers, art, preparation) : null;
  const rings = marks?.marks.map(({ ring }) => ring) ?? [];
  const ruledGapMm = ruledBorderMm({ widthMm: art.maxX - art.minX, heightMm: art.maxY - art.minY });
  const gapMm = preparation.borderGapMm ?? ruledGapMm;
  // A box is the same for all layers, so that they lie alike on their films.
  const border = kind === 'box' ? weedingBorder(art, marks?.marks ?? [], gapMm) : null;
  const prepared = layers.map((layer): Omit<PreparedLayer, 'panel'> => {
    const { thinnestMm, id } = layer.film;
    const { map: weed, ...made } = layerWeeding(layer.cut, rings, thinParts(layer.cut, 2 * thinnestMm), {
      border: border ? { rings: [border] } : { kind, gapMm },
      relief: relief.ruled,
      bulkMm: relief.bulkMm,
      drawn: relief.drawn.filter(({ filmId }) => filmId === id).map(({ line }) => line),
      gone: relief.gone.filter(({ filmId }) => filmId === id),
      thinnestMm,
    });
    return { layer, weed, refused: made.refused, border: made.border, relief: made.relief, strips: made.strips, dotsMm2: made.looseParts.filter(({ areaMm2 }) => areaMm2 < DOT_MM2).map(({ areaMm2 }) => areaMm2), work: made.work, minutes: weedingMinutes(made.work) };
  });
  const box = joinBoxes(joinBoxes(art, boundsOf(rings)), boundsOf(prepared.flatMap((one) => one.border)))!;
  const groups = layers.reduce((sum, { cut }) => sum + groupsFilmMm2([...cut, ...rings], gapMm), 0);
  return {
    panel: { number, of, label, copies, corner, marks, border, box, clip },
    layers: prepared,
    rulings: [
      marks ? sayMarks(marks, { clearMm: markGapMm(sizeMm), preparation }) : sayNoMarks(layers.length),
      sayBorder({ kind, gapMm, ruledGapMm, isChosen: preparation.borderGapMm !== null && preparation.borderGapMm !== ruledGapMm, filmMm2: filmMm2(prepared.map((one) => one.border)), groupsMm2: groups }),
    ],
  };
}

/** Film inside borders, over all layers. */
function filmMm2(borders: readonly Rings[]): number {
  return borders.reduce((sum, border) => sum + areaOf(border), 0);
}

function setMarks(layers: readonly JobLayer[], art: Box, { markPlaces, markSizeMm: sizeMm, markDistanceMm: distanceMm }: PrepareDecisions['preparation']): MarksSet {
  const outside = layOutMarks(art, { sizeMm, distanceMm });
  if (markPlaces === 'outside') return { ...outside, cost: null };
  const { marks, distanceMm: apartMm, ...cost } = placeMarks(layers.map(({ cut }) => cut), { school: markPlaces, shape: 'diamond', sizeMm, gapMm: markGapMm(sizeMm), placementErrorMm: CAREFUL_MM.marked })!;
  return { marks, distanceMm: apartMm, leastMm: apartMm, cost };
}

/** Below this height of capitals letters are weeded on the tape, mm. Source: trade practice. */
const REVERSE_MM = 8;

/** Letters that are better weeded on the tape. */
function smallLetters(letters: readonly LettersOnDesign[]): Finding<PreparePatch>[] {
  const least = letters.reduce<LettersOnDesign | null>((small, one) => (small && small.capHeightMm <= one.capHeightMm ? small : one), null);
  return least && least.capHeightMm < REVERSE_MM ? [sayReverse(least.words, least.capHeightMm, least.box)] : [];
}

/** Traps that would have to be wider by this much for where the marks stand are told, mm. */
const TOLD_MM = 0.05;

/** Marks that hold the layers less truly than the trap was reckoned with. */
function turnedMarks({ pairs }: BuildOut, panels: readonly Omit<PreparedPanel, 'apart'>[], { preparation, trapForm }: { readonly preparation: PrepareDecisions['preparation']; readonly trapForm: TrapForm }): Finding<PreparePatch & { readonly build?: { readonly trapMm?: number } }>[] {
  if (preparation.markPlaces === 'outside') return [];
  const short = panels.flatMap(({ marks }) => {
    if (!marks) return [];
    const box = boundsOf(marks.marks.map(({ ring }) => ring))!;
    const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    return pairs.flatMap(({ school, trapMm, terms, box: shared }) => {
      if (school !== 'trapped') return [];
      const reachMm = Math.max(...[shared.minX, shared.maxX].flatMap((px) => [shared.minY, shared.maxY].map((py) => Math.hypot(px - x, py - y))));
      const needed = trapWidth({ ...terms, reachMm, markDistanceMm: marks.distanceMm }, trapForm).mm;
      return needed > trapMm + TOLD_MM ? [needed] : [];
    });
  });
  return short.length === 0 ? [] : [sayTurnedMarks(Math.max(...short))];
}

interface SaidOf {
  readonly build: BuildOut;
  readonly letters: readonly LettersOnDesign[];
  readonly preparation: PrepareDecisions['preparation'];
  readonly trapForm: TrapForm;
  /** Of the first panel: others are prepared alike. */
  readonly rulings: readonly Ruling<PreparePatch>[];
}

/** What is said of all panels together. */
export function saidOfPrepared({ panels, layers }: Pick<PrepareOut, 'panels' | 'layers'>, { build, letters, preparation, trapForm, rulings }: SaidOf): Pick<PrepareOut, 'findings' | 'rulings'> {
  return {
    findings: [...smallLetters(letters), ...turnedMarks(build, panels, { preparation, trapForm }), ...(layers.some(({ refused }) => refused.length > 0) ? [sayRefusedLines(layers, preparation)] : [])],
    rulings: [...rulings, ...sayRelief(layers, preparation), ...sayMinutes(layers)],
  };
}
