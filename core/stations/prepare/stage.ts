import { layOutMarks, markGapMm, type MarkLayout } from '../../engines/marks/index.js';
import { setBeside } from '../../engines/surface/index.js';
import { weedingBorder, weedMap, type WeedMap } from '../../engines/weeding/index.js';
import { boundsOf, boxesTouch, joinBoxes, type Box, type Ring, type Rings } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { clipOfPanel, layersOnPanel, ruledBorderMm, type BuildOut, type JobLayer, type Panel, type PanelsOut } from '../build/index.js';
import type { Stage } from '../stage.js';
import type { PrepareDecisions, PreparePatch } from './decisions.js';
import { sayBorder, sayMarks, sayNoMarks } from './say.js';

export interface PreparedLayer {
  readonly layer: JobLayer;
  /** What it is cut with. */
  readonly panel: PreparedPanel;
  readonly weed: WeedMap;
}

/** A panel, or the whole design, with what all its layers share. */
export interface PreparedPanel {
  readonly number: number;
  readonly of: number;
  readonly label: string | null;
  readonly copies: number;
  readonly marks: MarkLayout | null;
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
  readonly recipe: PrepareDecisions;
}

interface PrepareRead {
  readonly build: BuildOut;
  readonly panels: readonly Panel[];
  readonly along: PanelsOut['along'];
  readonly preparation: PrepareDecisions['preparation'];
}

/** Marks, border and weed maps for the built layers, for each panel its own; null when there is nothing to cut. */
export const prepareStage: Stage<PrepareContext, PrepareRead, PrepareOut | null> = {
  name: 'prepare',
  read: ({ build, panels, recipe }) => ({ build, panels: panels.panels, along: panels.along, preparation: recipe.preparation }),
  run({ build, panels, along, preparation }) {
    const prepared = panels.flatMap((panel) => preparedPanel({ ...panel, clip: clipOfPanel(panel, along) }, layersOnPanel(build.layers, panel, along), preparation) ?? []);
    const first = prepared[0];
    if (!first) return null;
    return { ...setApart(prepared, along), findings: [], rulings: first.rulings };
  },
};

/** Between two panels that are shown beside each other, mm. */
const BESIDE_MM = 20;

type Prepared = { readonly panel: Omit<PreparedPanel, 'apart'>; readonly layers: readonly Omit<PreparedLayer, 'panel'>[] };

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

function preparedPanel({ number, of, label, copies, corner, clip }: Omit<Panel, 'box'> & Pick<PreparedPanel, 'clip'>, layers: readonly JobLayer[], preparation: PrepareDecisions['preparation']) {
  const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null);
  if (!art) return null;
  const { markSizeMm: sizeMm, markDistanceMm: distanceMm } = preparation;
  const marks = preparation.marks && layers.length > 1 ? layOutMarks(art, { sizeMm, distanceMm }) : null;
  const ruledGapMm = ruledBorderMm({ widthMm: art.maxX - art.minX, heightMm: art.maxY - art.minY });
  const gapMm = preparation.borderGapMm ?? ruledGapMm;
  const border = preparation.border ? weedingBorder(art, marks?.marks ?? [], gapMm) : null;
  const box = joinBoxes(joinBoxes(art, boundsOf(marks?.marks.map((mark) => mark.ring) ?? [])), border ? boundsOf([border]) : null)!;
  const panel = { number, of, label, copies, corner, marks, border, box, clip };
  return {
    panel,
    layers: layers.map((layer) => ({ layer, weed: weedMap(layer.cut) })),
    rulings: [
      marks ? sayMarks(marks, { clearMm: markGapMm(sizeMm), isChosen: distanceMm !== null && Math.abs(marks.distanceMm - marks.leastMm) > 1e-6 }) : sayNoMarks(layers.length),
      sayBorder({ hasBorder: border !== null, gapMm, ruledGapMm, isChosen: preparation.borderGapMm !== null && preparation.borderGapMm !== ruledGapMm }),
    ],
  };
}
