import { layOutMarks, markGapMm, type MarkLayout } from '../../engines/marks/index.js';
import { weedingBorder, weedMap, type WeedMap } from '../../engines/weeding/index.js';
import { boundsOf, joinBoxes, type Box, type Ring } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { BuildOut, JobLayer } from '../build/index.js';
import type { Stage } from '../stage.js';
import type { PrepareDecisions, PreparePatch } from './decisions.js';
import { sayBorder, sayMarks, sayNoMarks } from './say.js';

export interface PreparedLayer {
  readonly layer: JobLayer;
  readonly weed: WeedMap;
}

export interface PrepareOut {
  readonly layers: readonly PreparedLayer[];
  readonly marks: MarkLayout | null;
  readonly border: Ring | null;
  /** Round everything that is cut. */
  readonly box: Box;
  readonly findings: readonly Finding<PreparePatch>[];
  readonly rulings: readonly Ruling<PreparePatch>[];
}

interface PrepareContext {
  readonly build: BuildOut;
  readonly recipe: PrepareDecisions;
}

interface PrepareRead {
  readonly build: BuildOut;
  readonly preparation: PrepareDecisions['preparation'];
}

/** A border stands clear of the work by this share of its diagonal, within bounds, mm. */
const BORDER_SHARE = 1 / 60;
const BORDER_MM = { least: 3, most: 8 };

/** Marks, border and weed maps for the built layers; null when there is nothing to cut. */
export const prepareStage: Stage<PrepareContext, PrepareRead, PrepareOut | null> = {
  name: 'prepare',
  read: ({ build, recipe }) => ({ build, preparation: recipe.preparation }),
  run({ build: { layers }, preparation }) {
    const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null);
    if (!art) return null;
    const { markSizeMm: sizeMm, markDistanceMm: distanceMm } = preparation;
    const marks = preparation.marks && layers.length > 1 ? layOutMarks(art, { sizeMm, distanceMm }) : null;
    const ruledGapMm = Math.max(BORDER_MM.least, Math.min(BORDER_MM.most, Math.round(Math.hypot(art.maxX - art.minX, art.maxY - art.minY) * BORDER_SHARE)));
    const gapMm = preparation.borderGapMm ?? ruledGapMm;
    const border = preparation.border ? weedingBorder(art, marks?.marks ?? [], gapMm) : null;
    return {
      layers: layers.map((layer) => ({ layer, weed: weedMap(layer.cut) })),
      marks,
      border,
      box: joinBoxes(joinBoxes(art, boundsOf(marks?.marks.map((mark) => mark.ring) ?? [])), border ? boundsOf([border]) : null)!,
      findings: [],
      rulings: [
        marks ? sayMarks(marks, { clearMm: markGapMm(sizeMm), isChosen: distanceMm !== null && Math.abs(marks.distanceMm - marks.leastMm) > 1e-6 }) : sayNoMarks(layers.length),
        sayBorder({ hasBorder: border !== null, gapMm, ruledGapMm, isChosen: preparation.borderGapMm !== null && preparation.borderGapMm !== ruledGapMm }),
      ],
    };
  },
};
