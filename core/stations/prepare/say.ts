import type { MarkLayout } from '../../engines/marks/index.js';
import { formatLength, type Ruling } from '../../words/index.js';
import type { PreparePatch } from './decisions.js';

export function sayMarks({ distanceMm, leastMm }: MarkLayout, { clearMm, isChosen }: { readonly clearMm: number; readonly isChosen: boolean }): Ruling<PreparePatch> {
  return {
    id: 'prepare.marks',
    stage: 'prepare',
    subject: 'Registration marks',
    sentence: 'A diamond and a bar stand {value} apart, at the same place on every layer.',
    value: distanceMm,
    unit: 'mm',
    because: [
      'At the ends of the longer side they hold the angle best.',
      'They differ in shape and height, so a layer cannot be turned over or turned round by mistake.',
      `The further apart they are, the less a layer turns when it is laid a little off (docs/trap.md). They must only be ${formatLength(clearMm)} mm away from the artwork, which makes ${formatLength(leastMm)} mm.`,
    ],
    overridden: isChosen,
    proposed: leastMm,
    alternatives: [{ label: 'No marks: lay by eye', patch: { preparation: { marks: false } } }],
  };
}

export function sayNoMarks(layers: number): Ruling<PreparePatch> {
  return {
    id: 'prepare.marks',
    stage: 'prepare',
    subject: 'Registration marks',
    sentence: 'There are {value} marks.',
    value: 'no',
    unit: '',
    because: [layers > 1 ? 'You lay the layers by eye, so the trap is wider.' : 'One layer needs no alignment.'],
    ...(layers > 1 ? { overridden: true, alternatives: [{ label: 'Add marks', patch: { preparation: { marks: true } } }] } : {}),
  };
}

/** The figures behind the weeding border, mm. */
export interface BorderFigures {
  readonly hasBorder: boolean;
  readonly gapMm: number;
  readonly ruledGapMm: number;
  /** The maker gave another gap than the app would. */
  readonly isChosen: boolean;
}

export function sayBorder({ hasBorder, gapMm, ruledGapMm, isChosen }: BorderFigures): Ruling<PreparePatch> {
  return {
    id: 'prepare.border',
    stage: 'prepare',
    subject: 'Weeding border',
    sentence: hasBorder ? 'A box {value} away from everything frees the waste.' : 'There is {value} weeding border.',
    value: hasBorder ? gapMm : 'no',
    unit: hasBorder ? 'mm' : '',
    because: hasBorder ? ['It is wide enough for a fingernail and narrow enough to save film. Larger work gets a little more.'] : ['You took it out. The waste stays joined to the rest of the sheet.'],
    overridden: !hasBorder || isChosen,
    proposed: ruledGapMm,
    alternatives: [hasBorder ? { label: 'No border', patch: { preparation: { border: false } } } : { label: 'Add a border', patch: { preparation: { border: true } } }],
  };
}
