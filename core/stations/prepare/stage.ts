import { CAREFUL_MM, thinParts, trapWidth, type TrapForm } from '../../engines/layers/index.js';
import { layOutMarks, markGapMm, placeMarks } from '../../engines/marks/index.js';
import { setBeside } from '../../engines/surface/index.js';
import { groupsFilmMm2, layerWeeding, weedingBorder, weedingMinutes, type ReliefLine, type Strip, type WeedingWork, type WeedMap } from '../../engines/weeding/index.js';
import { areaOf, boundsOf, boxesTouch, joinBoxes, type Box, type Ring, type Rings } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { clipOfPanel, layersOnPanel, ruledBorderMm, type BuildOut, type JobLayer, type Panel, type PanelsOut } from '../build/index.js';
import type { Stage } from '../stage.js';
import type { LettersOnDesign } from '../surface/index.js';
import type { PrepareDecisions, PreparePatch } from './decisions.js';
import { sayBorder, sayMarks, sayMinutes, sayNoMarks, sayRefusedLines, sayRelief, sayReverse, sayTurnedMarks, type MarksSet } from './say.js';

export interface PreparedLayer {
  readonly layer: JobLayer;
  /** What it is cut with. */
  readonly panel: PreparedPanel;
  readonly weed: WeedMap;
  /** What frees its waste, and what parts it. */
  readonly border: Rings;
  readonly relief: readonly ReliefLine[];
  /** Lines that the maker drew and that would run into what stays. */
  readonly refused: readonly ReliefLine[];
  readonly strips: readonly Strip[];
  readonly work: WeedingWork;
  /** The areas of parts under 2 mm across, mm². */
  readonly dotsMm2: readonly number[];
  /** How long one copy takes to weed. */
  readonly minutes: number;
}

/** A panel, or the whole design, with what all its layers share. */
export interface PreparedPanel {
  readonly number: number;
  readonly of: number;
  readonly label: string | null;
  readonly copies: number;
  readonly marks: MarksSet | null;
  /** The box that frees the waste of all its layers; null where each has its own, or none. */
  readonly border: Ring | null;
  /** Round everything that is cut. */
  readonly box: Box;
  /** Where one of several designs is measured from; null for panels, and for a design in one piece. */
  readonly corner: { readonly xMm: number; readonly yMm: number } | null;
  /** What of the design it is; null for a design in one piece. */
  readonly clip: Rings | null;
  /** How far it is moved where panels are shown beside each other, so that none lies on another. */
  readonly apart: { readonly xMm: number; readonly yMm: number };
}

export interface PrepareOut {
  readonly panels: readonly PreparedPanel[];
  /** Panel by panel, the lowest layer first. */
  readonly layers: readonly PreparedLayer[];
  readonly findings: readonly Finding<PreparePatch>[];
  readonly rulings: readonly Ruling<PreparePatch>[];
}

interface PrepareContext {
  readonly build: BuildOut;
  readonly panels: PanelsOut;
  /** Letters of the design: how high their capitals are. */
  readonly letters: readonly LettersOnDesign[];
  readonly recipe: PrepareDecisions & { readonly build: { readonly trapForm: TrapForm } };
}

interface PrepareRead {
  readonly build: BuildOut;
  readonly panels: readonly Panel[];
  readonly along: PanelsOut['along'];
  readonly letters: readonly LettersOnDesign[];
  readonly preparation: PrepareDecisions['preparation'];
  readonly trapForm: TrapForm;
}

/** Marks, border, relief lines and weed maps for the built layers, for each panel its own; null when there is nothing to cut. */
export const prepareStage: Stage<PrepareContext, PrepareRead, PrepareOut | null> = {
  name: 'prepare',
  read: ({ build, panels, letters, recipe }) => ({ build, panels: panels.panels, along: panels.along, letters, preparation: recipe.preparation, trapForm: recipe.build.trapForm }),
  async run({ build, panels, along, letters, preparation, trapForm }, { breathe }) {
    const prepared: Prepared[] = [];
    for (const panel of panels) {
      const made = preparedPanel({ ...panel, clip: clipOfPanel(panel, along) }, layersOnPanel(build.layers, panel, along), preparation);
      if (made) prepared.push(made);
      await breathe?.();
    }
    const first = prepared[0];
    if (!first) return null;
    const { panels: apart, layers } = setApart(prepared, along);
    return { panels: apart, layers, findings: [...smallLetters(letters), ...turnedMarks(build, apart, { preparation, trapForm }), ...(layers.some(({ refused }) => refused.length > 0) ? [sayRefusedLines(layers, preparation)] : [])], rulings: [...first.rulings, ...sayRelief(layers, preparation), ...sayMinutes(layers)] };
  },
};

/** A dot of 2 mm across, mm². */
const DOT_MM2 = Math.PI;

/** Between two panels that are shown beside each other, mm. */
const BESIDE_MM = 20;

interface Prepared {
  readonly panel: Omit<PreparedPanel, 'apart'>;
  readonly layers: readonly Omit<PreparedLayer, 'panel'>[];
  readonly rulings: readonly Ruling<PreparePatch>[];
}

/** What is laid one by one, moved so that all of it can be shown side by side. */
function setApart(prepared: readonly Prepared[], along: PanelsOut['along']) {
  const layers: PreparedLayer[] = [];
  const moves = along === 'apart' ? movesOfDesigns(prepared.map(({ panel }) => panel.box)) : movesOfPanels(prepared.map(({ panel }) => panel.box), along);
  const panels = prepared.map((one, i): PreparedPanel => {
    const panel = { ...one.panel, apart: moves[i]! };
    layers.push(...one.layers.map((layer) => ({ ...layer, panel })));
    return panel;
  });
  return { panels, layers };
}

function movesOfPanels(boxes: readonly Box[], along: 'across' | 'down' | null): PreparedPanel['apart'][] {
  let end: number | null = null;
  return boxes.map(({ minX, minY, maxX, maxY }) => {
    const by: number = end === null || along === null ? 0 : end + BESIDE_MM - (along === 'across' ? minX : minY);
    end = (along === 'down' ? maxY : maxX) + by;
    return along === 'down' ? { xMm: 0, yMm: by } : { xMm: by, yMm: 0 };
  });
}

/** Designs that lie on one thing may be nearer to each other than their marks and borders leave room for. */
function movesOfDesigns(boxes: readonly Box[]): PreparedPanel['apart'][] {
  const isClear = boxes.every((box, i) => boxes.slice(i + 1).every((other) => !boxesTouch(box, other)));
  if (isClear) return boxes.map(() => ({ xMm: 0, yMm: 0 }));
  const corners = setBeside(boxes.map(({ minX, minY, maxX, maxY }) => ({ widthMm: maxX - minX, heightMm: maxY - minY })), BESIDE_MM);
  return boxes.map(({ minX, minY }, i) => ({ xMm: corners[i]!.xMm - minX, yMm: corners[i]!.yMm - minY }));
}

function preparedPanel({ number, of, label, copies, corner, clip }: Omit<Panel, 'box'> & Pick<PreparedPanel, 'clip'>, layers: readonly JobLayer[], preparation: PrepareDecisions['preparation']): Prepared | null {
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

function smallLetters(letters: readonly LettersOnDesign[]): Finding<PreparePatch>[] {
  const least = letters.reduce<LettersOnDesign | null>((small, one) => (small && small.capHeightMm <= one.capHeightMm ? small : one), null);
  return least && least.capHeightMm < REVERSE_MM ? [sayReverse(least.words, least.capHeightMm, least.box)] : [];
}

/** Traps that would have to be wider by this much for where the marks stand are told, mm. */
const TOLD_MM = 0.05;

/** Marks that hold the layers less truly than the trap was reckoned with. */
function turnedMarks({ pairs }: BuildOut, panels: readonly Omit<PreparedPanel, 'apart'>[], { preparation, trapForm }: Pick<PrepareRead, 'preparation' | 'trapForm'>): Finding<PreparePatch & { readonly build?: { readonly trapMm?: number } }>[] {
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
