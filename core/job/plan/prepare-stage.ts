import { boundsOf, joinBoxes, type Box } from '../../geometry/index.js';
import { weedingBorder, weedMap } from '../../preparation/index.js';
import { formatLength } from '../length.js';
import type { Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';
import { markGapMm, marksOf } from './marks.js';
import type { PlanLayer, PrepareStage } from './plan.js';

/** Marks, border and weed maps for the built layers; null when there is nothing to cut. */
export function prepareStage(layers: readonly PlanLayer[], decisions: Recipe['preparation']): PrepareStage | null {
  const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null);
  if (!art) return null;
  const rulings: Ruling[] = [];
  const wantsMarks = decisions.marks && layers.length > 1;
  const marks = wantsMarks ? marksOf(art, decisions) : null;
  rulings.push(
    marks
      ? {
          id: 'prepare.marks',
          stage: 'prepare',
          subject: 'Registration marks',
          sentence: 'A diamond and a bar stand {value} apart, in the same place on every layer.',
          value: marks.distanceMm,
          unit: 'mm',
          because: [
            'At the ends of the longer side they hold the angle best.',
            'They differ in shape and height, so a layer can be neither turned over nor turned round.',
            `The further apart they stand, the less a layer laid a little off is turned (docs/trap.md); they need stand only ${formatLength(markGapMm(decisions))} mm clear of the artwork, ${formatLength(marks.leastMm)} mm apart.`,
          ],
          overridden: decisions.markDistanceMm !== null && Math.abs(marks.distanceMm - marks.leastMm) > 1e-6,
          proposed: marks.leastMm,
          alternatives: [{ label: 'Lay by eye, without marks', patch: { preparation: { marks: false } } }],
        }
      : {
          id: 'prepare.marks',
          stage: 'prepare',
          subject: 'Registration marks',
          sentence: 'There are {value} marks.',
          value: 'no',
          unit: '',
          because: [layers.length > 1 ? 'You lay the layers by eye; the trap is wider for it.' : 'A single layer has nothing to be aligned with.'],
          ...(layers.length > 1 ? { overridden: true, alternatives: [{ label: 'Add marks', patch: { preparation: { marks: true } } }] } : {}),
        },
  );
  const ruledGap = Math.max(3, Math.min(8, Math.round(Math.hypot(art.maxX - art.minX, art.maxY - art.minY) / 60)));
  const borderGap = decisions.borderGapMm ?? ruledGap;
  const border = decisions.border ? weedingBorder(art, marks?.marks ?? [], borderGap) : null;
  rulings.push({
    id: 'prepare.border',
    stage: 'prepare',
    subject: 'Weeding border',
    sentence: border ? 'A box {value} clear of everything frees the waste.' : 'There is {value} weeding border.',
    value: border ? borderGap : 'no',
    unit: border ? 'mm' : '',
    because: border
      ? ['Wide enough for a fingernail, narrow enough not to waste film; larger work gets a little more.']
      : ['You took it out; the waste hangs together with the rest of the sheet.'],
    overridden: !decisions.border || (decisions.borderGapMm !== null && decisions.borderGapMm !== ruledGap),
    proposed: ruledGap,
    alternatives: [border ? { label: 'No border', patch: { preparation: { border: false } } } : { label: 'Add a border', patch: { preparation: { border: true } } }],
  });
  const box = joinBoxes(joinBoxes(art, boundsOf(marks?.marks.map((m) => m.ring) ?? [])), border ? boundsOf([border]) : null)!;
  return { layers: layers.map((layer) => ({ layer, weed: weedMap(layer.cut) })), marks, border, box, rulings, findings: [] };
}
