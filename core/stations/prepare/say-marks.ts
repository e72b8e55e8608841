import {
  PLAIN_SHAPES,
  type Mark,
  type MarkLayout,
  type PlacedMarks,
  type PlainShape,
} from '../../engines/marks/index.js';
import { boundsOf, type Box } from '../../geometry/index.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import { MARK_PLACES, type MarkPlaces, type PrepareDecisions, type PreparePatch } from './decisions.js';

type Preparation = PrepareDecisions['preparation'];

/** Marks where they stand; with what they cost, where they were set to cost least. */
export interface MarksSet {
  readonly marks: MarkLayout;
  readonly cost: Omit<PlacedMarks, 'marks' | 'distanceMm'> | null;
  /** Where they were set, by the maker or the app. */
  readonly places: Exclude<MarkPlaces, 'ruled'>;
  readonly sizeMm: number;
  /** The maker moved some of them. */
  readonly isMoved: boolean;
}

const PLACES: Readonly<Record<MarkPlaces, string>> = {
  ruled: 'Where the app would set them',
  outside: 'Outside the ends of the longer side',
  ends: 'Far apart, where they cost least film',
  edge: 'Two along one edge',
  bar: 'One long bar',
  three: 'Three of them',
};

const SHAPES: Readonly<Record<PlainShape, readonly [one: string, more: string]>> = {
  diamond: ['diamond', 'diamonds'],
  square: ['square', 'squares'],
  bar: ['bar', 'bars'],
  cross: ['cross', 'crosses'],
  ring: ['ring', 'rings'],
};

/** What a mark may look like, to be chosen from. */
export const SHAPE_CHOICES = PLAIN_SHAPES.map((shape) => [shape, SHAPES[shape][0]] as const);

function sentenceOf(places: MarksSet['places'], shape: PlainShape): string {
  const [one, more] = SHAPES[shape];
  const other = shape === 'bar' ? 'a notched one' : places === 'outside' ? 'a bar' : 'a notched bar';
  switch (places) {
    case 'outside':
      return `A ${one} and ${other} stand {value} apart, at the same place on every layer.`;
    case 'ends':
      return `A ${one} and ${other} stand {value} apart where they cost least film.`;
    case 'edge':
      return `A ${one} and ${other} stand {value} apart along one edge.`;
    case 'bar':
      return 'One notched bar, {value} long, stands at the same place on every layer.';
    case 'three':
      return `Three ${more} stand in a triangle of unlike sides, the farthest {value} apart.`;
  }
}

const MOVED = 'The marks stand where you put them, {value} apart, on every layer.';
const cm2 = (mm2: number) => `${Number((mm2 / 100).toFixed(1))} cm²`;

function becauseOf(
  { marks: { leastMm }, cost, places, isMoved }: MarksSet,
  { clearMm, preparation: { markPlaces, marksAt }, isInPanels }: MarksSaid,
): string[] {
  const kept =
    marksAt.length > 0 && isInPanels
      ? ['You moved marks. Those places count for a design in one piece, and this one is laid in several.']
      : [];
  if (isMoved) return ['They move on all layers at once: marks that differ from layer to layer would be of no use.'];
  if (cost) {
    return [
      cost.extraFilmMm2 < 1
        ? 'They stand in free corners, so they cost no film.'
        : `They cost ${cm2(cost.extraFilmMm2)} of film over all layers.`,
      `Laid as truly as a careful hand can, the farthest corner is off by up to ${formatLength(cost.slipMm)} mm.`,
      places === 'three'
        ? 'The triangle has no two sides alike, so a layer cannot be turned over or turned round by mistake.'
        : 'The notch makes the bar differ from its mirror image, so a layer cannot be turned over or turned round by mistake, not even about its own line.',
      ...(cost.others.length > 0
        ? [`The next best places cost ${cost.others.map(({ extraFilmMm2 }) => cm2(extraFilmMm2)).join(', ')}.`]
        : []),
      ...kept,
    ];
  }
  return [
    markPlaces === 'ruled'
      ? 'Nearer to each other they would cost less film, but let the layers turn more than the trap covers.'
      : 'At the ends of the longer side they hold the angle best.',
    'They differ in shape and height, so a layer cannot be turned over or turned round by mistake.',
    `The further apart they are, the less a layer turns when it is laid a little off (docs/trap.md). They must only be ${formatLength(clearMm)} mm away from the artwork, which makes ${formatLength(leastMm)} mm.`,
    ...kept,
  ];
}

interface MarksSaid {
  readonly clearMm: number;
  readonly preparation: Preparation;
  readonly isInPanels: boolean;
}

export function sayMarks(set: MarksSet, said: MarksSaid): Ruling<PreparePatch> {
  const { distanceMm, leastMm } = set.marks;
  const { markPlaces, markDistanceMm, markShape } = said.preparation;
  return {
    id: 'prepare.marks',
    stage: 'prepare',
    subject: 'Registration marks',
    sentence: set.isMoved ? MOVED : sentenceOf(set.places, markShape),
    value: distanceMm,
    unit: 'mm',
    because: becauseOf(set, said),
    overridden:
      markPlaces !== 'ruled' || set.isMoved || (markDistanceMm !== null && Math.abs(distanceMm - leastMm) > 1e-6),
    proposed: leastMm,
    alternatives: [
      ...MARK_PLACES.filter((places) => places !== markPlaces && places !== set.places).map((places) => ({
        label: PLACES[places],
        patch: { preparation: { markPlaces: places, marksAt: [] } },
      })),
      { label: 'No marks: lay by eye', patch: { preparation: { marks: false } } },
    ],
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
    ...(layers > 1
      ? { overridden: true, alternatives: [{ label: 'Add marks', patch: { preparation: { marks: true } } }] }
      : {}),
  };
}

/** Marks that let a layer turn more than the trap covers. */
export function sayTurnedMarks(
  neededMm: number,
): Finding<PreparePatch & { readonly build?: { readonly trapMm?: number } }> {
  return {
    code: 'marks-turn',
    severity: 'warning',
    stage: 'prepare',
    message: `Where the marks stand now, layers can turn more than was reckoned with. The trap should be ${formatLength(neededMm)} mm.`,
    remedies: [
      { label: `Make the trap ${formatLength(neededMm)} mm`, patch: { build: { trapMm: neededMm } } },
      { label: PLACES.outside, patch: { preparation: { markPlaces: 'outside', marksAt: [] } } },
    ],
  };
}

const PUT_BACK = [{ label: 'Put the marks back', patch: { preparation: { marksAt: [] } } }];

const boxOf = (marks: readonly Mark[]): Box => boundsOf(marks.map(({ ring }) => ring))!;

/** Marks that would be cut into what stays. */
export function sayMarksOnArtwork(marks: readonly Mark[]): Finding<PreparePatch> {
  return {
    code: 'marks-on-artwork',
    severity: 'blocker',
    stage: 'prepare',
    message: `${marks.length === 1 ? 'A mark lies' : 'Marks lie'} on what is cut of a layer. It would be cut into the work. Move it off, or put the marks back.`,
    where: boxOf(marks),
    remedies: PUT_BACK,
  };
}

/** Marks that are hard to lift without touching the work. */
export function sayMarksNear(marks: readonly Mark[], clearMm: number): Finding<PreparePatch> {
  return {
    code: 'marks-near',
    severity: 'warning',
    stage: 'prepare',
    message: `${marks.length === 1 ? 'A mark stands' : 'Marks stand'} nearer than ${formatLength(clearMm)} mm to what is cut. They are hard to take off without touching the work.`,
    where: boxOf(marks),
    remedies: PUT_BACK,
  };
}

/** Marks that do not tell a turned layer. */
export function sayMarksAlike(marks: readonly Mark[]): Finding<PreparePatch> {
  return {
    code: 'marks-alike',
    severity: 'warning',
    stage: 'prepare',
    message:
      'Where the marks stand now, a layer that is turned over or turned round could look right. Move one of them, so that their places differ more.',
    where: boxOf(marks),
    remedies: PUT_BACK,
  };
}
