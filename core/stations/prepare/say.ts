import type { MarkLayout, PlacedMarks } from '../../engines/marks/index.js';
import { WEEDING_FIGURES, type BorderKind, type ReliefLine, type Strip, type WeedingWork } from '../../engines/weeding/index.js';
import type { Box } from '../../geometry/index.js';
import { count, formatLength, type Finding, type Ruling } from '../../words/index.js';
import { MARK_PLACES, type MarkPlaces, type PrepareDecisions, type PreparePatch } from './decisions.js';

type Preparation = PrepareDecisions['preparation'];

/** Marks where they stand; with what they cost, where they were set to cost least. */
export interface MarksSet extends MarkLayout {
  readonly cost: Omit<PlacedMarks, 'marks' | 'distanceMm'> | null;
}

const PLACES: Readonly<Record<MarkPlaces, string>> = {
  outside: 'Outside the ends of the longer side',
  ends: 'Far apart, where they cost least film',
  edge: 'Two along one edge',
  bar: 'One long bar',
  three: 'Three of them',
};
const SET: Readonly<Record<MarkPlaces, string>> = {
  outside: 'A diamond and a bar stand {value} apart, at the same place on every layer.',
  ends: 'A diamond and a notched bar stand {value} apart where they cost least film.',
  edge: 'A diamond and a notched bar stand {value} apart along one edge.',
  bar: 'One notched bar, {value} long, stands at the same place on every layer.',
  three: 'Three diamonds stand in a triangle of unlike sides, the farthest {value} apart.',
};

export function sayMarks({ distanceMm, leastMm, cost }: MarksSet, { clearMm, preparation: { markPlaces, markDistanceMm } }: { readonly clearMm: number; readonly preparation: Preparation }): Ruling<PreparePatch> {
  const cm2 = (mm2: number) => `${Number((mm2 / 100).toFixed(1))} cm²`;
  return {
    id: 'prepare.marks',
    stage: 'prepare',
    subject: 'Registration marks',
    sentence: SET[markPlaces],
    value: distanceMm,
    unit: 'mm',
    because: cost
      ? [
          cost.extraFilmMm2 < 1 ? 'They stand in free corners, so they cost no film.' : `They cost ${cm2(cost.extraFilmMm2)} of film over all layers.`,
          `Laid as truly as a careful hand can, the farthest corner is off by up to ${formatLength(cost.slipMm)} mm.`,
          markPlaces === 'three' ? 'The triangle has no two sides alike, so a layer cannot be turned over or turned round by mistake.' : 'The notch makes the bar differ from its mirror image, so a layer cannot be turned over or turned round by mistake, not even about its own line.',
          ...(cost.others.length > 0 ? [`The next best places cost ${cost.others.map(({ extraFilmMm2 }) => cm2(extraFilmMm2)).join(', ')}.`] : []),
        ]
      : [
          'At the ends of the longer side they hold the angle best.',
          'They differ in shape and height, so a layer cannot be turned over or turned round by mistake.',
          `The further apart they are, the less a layer turns when it is laid a little off (docs/trap.md). They must only be ${formatLength(clearMm)} mm away from the artwork, which makes ${formatLength(leastMm)} mm.`,
        ],
    overridden: markPlaces !== 'outside' || (markDistanceMm !== null && Math.abs(distanceMm - leastMm) > 1e-6),
    proposed: leastMm,
    alternatives: [...MARK_PLACES.filter((places) => places !== markPlaces).map((places) => ({ label: PLACES[places], patch: { preparation: { markPlaces: places } } })), { label: 'No marks: lay by eye', patch: { preparation: { marks: false } } }],
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

/** Marks that let a layer turn more than the trap covers. */
export function sayTurnedMarks(neededMm: number): Finding<PreparePatch & { readonly build?: { readonly trapMm?: number } }> {
  return {
    code: 'marks-turn',
    severity: 'warning',
    stage: 'prepare',
    message: `Where the marks stand now, layers can turn more than was reckoned with. The trap should be ${formatLength(neededMm)} mm.`,
    remedies: [{ label: `Make the trap ${formatLength(neededMm)} mm`, patch: { build: { trapMm: neededMm } } }, { label: PLACES.outside, patch: { preparation: { markPlaces: 'outside' } } }],
  };
}

/** The figures behind the weeding border, mm. */
export interface BorderFigures {
  readonly kind: BorderKind;
  readonly gapMm: number;
  readonly ruledGapMm: number;
  /** The maker gave another gap than the app would. */
  readonly isChosen: boolean;
  /** Film inside the borders of all layers, and what it would be with one round each group. */
  readonly filmMm2: number;
  readonly groupsMm2: number;
}

const BORDERS: Readonly<Record<BorderKind, string>> = {
  box: 'A box {value} away from everything frees the waste.',
  contour: 'A smooth line {value} away goes round everything and frees the waste.',
  groups: 'A smooth line {value} away goes round each group of parts.',
  none: 'There is {value} weeding border.',
};
const OTHER_BORDERS: Readonly<Record<BorderKind, string>> = { box: 'A box', contour: 'A line round everything', groups: 'One round each group', none: 'No border' };

export function sayBorder({ kind, gapMm, ruledGapMm, isChosen, filmMm2, groupsMm2 }: BorderFigures): Ruling<PreparePatch> {
  const saved = 1 - groupsMm2 / filmMm2;
  return {
    id: 'prepare.border',
    stage: 'prepare',
    subject: 'Weeding border',
    sentence: BORDERS[kind],
    value: kind === 'none' ? 'no' : gapMm,
    unit: kind === 'none' ? '' : 'mm',
    because:
      kind === 'none'
        ? ['You took it out. The waste stays joined to the rest of the sheet.']
        : [
            'It is wide enough for a fingernail and narrow enough to save film. Larger work gets a little more.',
            ...(kind === 'box' ? ['A box is straight to cut and lies tight beside others on a sheet.'] : ['It is cut round each layer by itself, so it needs less film where layers are smaller.']),
            ...(kind !== 'groups' && saved > 0.1 ? [`One round each group of parts would leave about ${Math.round(20 * saved) * 5} % less waste to weed.`] : []),
          ],
    overridden: kind !== 'box' || isChosen,
    proposed: ruledGapMm,
    alternatives: (Object.keys(OTHER_BORDERS) as BorderKind[]).filter((other) => other !== kind).map((other) => ({ label: OTHER_BORDERS[other], patch: { preparation: { border: other } } })),
  };
}

/** Letters so small that they come off with the waste. */
export function sayReverse(words: string, capHeightMm: number, where: Box): Finding<PreparePatch> {
  return {
    code: 'reverse-weeding',
    severity: 'note',
    stage: 'prepare',
    message: `The letters of ${words} are ${formatLength(capHeightMm)} mm high. Below about 8 mm they come off with the waste: put the tape on first, turn it over, and weed on the tape.`,
    where,
  };
}

interface Weeded {
  readonly layer: { readonly film: { readonly name: string } };
  readonly panel: { readonly copies: number };
  readonly border: readonly unknown[];
  readonly relief: readonly ReliefLine[];
  readonly strips: readonly Strip[];
  readonly work: WeedingWork;
  readonly dotsMm2: readonly number[];
  readonly minutes: number;
}

/** How the waste is parted into strips that a hand can pull. */
export function sayRelief(layers: readonly Weeded[], { relief }: Preparation): Ruling<PreparePatch>[] {
  if (layers.every(({ border }) => border.length === 0)) return [];
  const lines = layers.reduce((sum, one) => sum + one.relief.length, 0);
  const bulk = Math.max(0, ...layers.flatMap(({ strips }) => strips.map(({ bulkMm }) => bulkMm)));
  const set = (to: Partial<Preparation['relief']>) => ({ preparation: { relief: { ...relief, ...to } } });
  return [
    {
      id: 'prepare.relief',
      stage: 'prepare',
      subject: 'Relief lines',
      sentence: lines === 0 ? 'The waste comes off in {value}.' : 'The waste is parted by {value}.',
      value: lines === 0 ? 'one pull' : count(lines, 'relief line'),
      unit: '',
      because: [
        ...(relief.ruled ? [`A strip is comfortable to pull while no circle of more than ${formatLength(relief.bulkMm)} mm fits into it. These are the fewest that make every strip so, where a line can reach.`] : ['You part the waste yourself.']),
        ...(bulk > 0 ? [`The bulkiest strip holds a circle of ${formatLength(bulk)} mm.`] : []),
        ...(lines > 0 ? ['They are cut through the waste only, 0.2 mm clear of everything that stays, after the parts and before the border.'] : []),
        ...(bulk > relief.bulkMm + 0.01 && relief.ruled && relief.gone.length === 0 ? ['Some of the waste is closed in so tightly that no line reaches it.'] : []),
        ...(relief.gone.length > 0 ? [`You took ${count(relief.gone.length, 'line')} away.`] : []),
      ],
      overridden: !relief.ruled || relief.drawn.length > 0 || relief.gone.length > 0,
      alternatives: [
        relief.ruled ? { label: 'No relief lines of the app', patch: set({ ruled: false }) } : { label: 'Part the waste for me', patch: set({ ruled: true }) },
        ...(relief.drawn.length > 0 || relief.gone.length > 0 ? [{ label: 'As the app would part it', patch: set({ ruled: true, drawn: [], gone: [] }) }] : []),
      ],
    },
  ];
}

/** Lines that would run into what stays. */
export function sayRefusedLines(layers: readonly { readonly layer: { readonly film: { readonly id: string; readonly name: string } }; readonly refused: readonly ReliefLine[] }[], { relief }: Preparation): Finding<PreparePatch> {
  const all = layers.flatMap(({ layer: { film }, refused }) => refused.map((line) => ({ film, line })));
  const [{ film, line }] = all as [(typeof all)[number]];
  const isRefused = (drawn: Preparation['relief']['drawn'][number]) => all.some((one) => one.film.id === drawn.filmId && one.line === drawn.line);
  return {
    code: 'relief-into-part',
    severity: 'warning',
    stage: 'prepare',
    message: `${all.length === 1 ? 'A relief line' : `${all.length} relief lines`} that you drew in ${film.name} would run into what stays, so ${all.length === 1 ? 'it is' : 'they are'} not cut.`,
    where: { minX: Math.min(line[0]!, line.at(-2)!), minY: Math.min(line[1]!, line.at(-1)!), maxX: Math.max(line[0]!, line.at(-2)!), maxY: Math.max(line[1]!, line.at(-1)!) },
    remedies: [{ label: all.length === 1 ? 'Take it away' : 'Take them away', patch: { preparation: { relief: { ...relief, drawn: relief.drawn.filter((drawn) => !isRefused(drawn)) } } } }],
  };
}

/** So many minutes less are worth a word. */
const WORTH_MIN = 0.5;

/** How long weeding takes, and what of it. */
export function sayMinutes(layers: readonly Weeded[]): Ruling<PreparePatch & { readonly repair?: { readonly speckMm2?: number } }>[] {
  const dots = layers.flatMap(({ dotsMm2, panel }) => dotsMm2.map((areaMm2) => ({ areaMm2, copies: panel.copies })));
  const savedMin = (dots.reduce((sum, { copies }) => sum + copies, 0) * WEEDING_FIGURES.smallPartS) / 60;
  const above = Math.ceil(Math.max(0, ...dots.map(({ areaMm2 }) => areaMm2)) * 10 + 1e-6) / 10 + 0.1;
  const minutes = layers.reduce((sum, one) => sum + one.minutes * one.panel.copies, 0);
  const total = (of: (work: WeedingWork) => number) => layers.reduce((sum, one) => sum + of(one.work) * one.panel.copies, 0);
  const byFilm = new Map<string, number>();
  for (const one of layers) byFilm.set(one.layer.film.name, (byFilm.get(one.layer.film.name) ?? 0) + one.minutes * one.panel.copies);
  return [
    {
      id: 'prepare.minutes',
      stage: 'prepare',
      subject: 'Time to weed',
      sentence: 'Weeding one copy takes about {value}.',
      value: sayMinutesRoundly(minutes),
      unit: '',
      because: [
        `${count(total((work) => work.counters), 'counter')}, ${count(total((work) => work.smallParts), 'small part')}, ${count(total((work) => work.looseParts - work.smallParts), 'larger part')}, ${formatLength(total((work) => work.outlineMm) / 1000)} m of outline, ${formatLength(total((work) => work.thinMm) / 1000)} m of it thin.`,
        ...(byFilm.size > 1 ? [[...byFilm].filter(([, own]) => own >= WORTH_MIN / 5).map(([film, own]) => `${film}: ${sayMinutesRoundly(own)}`).join(', ') + '.'] : []),
        ...(savedMin >= WORTH_MIN ? [`${count(dots.length, 'dot')} under 2 mm across ${dots.length === 1 ? 'takes' : 'take'} ${sayMinutesRoundly(savedMin)} of it, and may be lost all the same.`] : []),
        'To begin with 40 s a sheet, 5 s a counter, 4 s a small part, 0.7 s a larger one, 12 s a metre of outline, half as much again where strokes are thin.',
      ],
      ...(savedMin >= WORTH_MIN ? { alternatives: [{ label: `Leave out the ${count(dots.length, 'dot')}: ${sayMinutesRoundly(savedMin)} less`, patch: { repair: { speckMm2: above } } }] } : {}),
    },
  ];
}

function sayMinutesRoundly(minutes: number): string {
  return minutes < 1 ? `${Math.max(5, Math.round((minutes * 60) / 5) * 5)} s` : `${minutes < 10 ? Number(minutes.toFixed(1)) : Math.round(minutes)} min`;
}
