import {
  WEEDING_FIGURES,
  type BorderKind,
  type ReliefLine,
  type Strip,
  type WeedingFigures,
  type WeedingWork,
} from '../../engines/weeding/index.js';
import type { Box } from '../../geometry/index.js';
import { wayOf, type Film } from '../../shop/index.js';
import { count, formatLength, type Finding, type Ruling } from '../../words/index.js';
import { BORDER_WISHES, type BorderWish, type PrepareDecisions, type PreparePatch } from './decisions.js';
import { bulkOf } from './bulk-of.js';
import { MINUTE_COST } from './rule-border.js';
import type { LearnedWeeding } from './stage.js';

type Preparation = PrepareDecisions['preparation'];

/** The figures behind the weeding border. */
interface BorderFigures {
  /** Of each layer, the lowest first. */
  readonly kinds: readonly BorderKind[];
  readonly layers: readonly { readonly name: string; readonly family: Film['family'] }[];
  readonly gapMm: number;
  readonly ruledGapMm: number;
  readonly lowestMoreMm: number;
  readonly sharesCorner: boolean;
  /** Against a box round each layer. */
  readonly savedMm2: number;
  readonly savedMin: number;
  readonly preparation: Preparation;
}

const BORDERS: Readonly<Record<Exclude<BorderWish, 'ruled'>, string>> = {
  box: 'A box {value} away from everything frees the waste.',
  contour: 'A smooth line {value} away goes round everything and frees the waste.',
  groups: 'A smooth line {value} away goes round each group of parts.',
  none: 'There is {value} weeding border.',
  shared: 'One box goes round all copies on a sheet, {value} away from them.',
};
const OTHER_BORDERS: Readonly<Record<BorderWish, string>> = {
  ruled: 'The one that costs least, layer by layer',
  box: 'A box',
  contour: 'A line round everything',
  groups: 'One round each group',
  none: 'No border',
  shared: 'One box for all copies',
};
const KINDS: Readonly<Record<BorderKind, string>> = {
  box: 'a box',
  contour: 'one smooth line',
  groups: 'one round each group',
  none: 'none',
};

export function sayBorder({
  kinds,
  layers,
  gapMm,
  ruledGapMm,
  lowestMoreMm,
  sharesCorner,
  savedMm2,
  savedMin,
  preparation,
}: BorderFigures): Ruling<PreparePatch> {
  const { border: wish, borderGapMm } = preparation;
  const first = kinds[0]!;
  const areAlike = kinds.every((kind) => kind === first);
  const isNone = wish === 'none';
  return {
    id: 'prepare.border',
    stage: 'prepare',
    subject: 'Weeding border',
    sentence:
      wish === 'shared'
        ? BORDERS.shared
        : areAlike
          ? BORDERS[first]
          : 'Each layer has the border that costs least, {value} away from what stays.',
    value: isNone ? 'no' : gapMm,
    unit: isNone ? '' : 'mm',
    because: isNone
      ? ['You took it out. The waste stays joined to the rest of the sheet.']
      : [
          ...(layers.some((film) => wayOf(film) === 'stencil')
            ? ['A stencil wants a wide margin: paint and grit reach beyond the edge.']
            : ['It is wide enough for a fingernail and narrow enough to save film. Larger work gets a little more.']),
          ...(areAlike ? [] : [`${layers.map(({ name }, i) => `${name}: ${KINDS[kinds[i]!]}`).join('. ')}.`]),
          ...(wish === 'ruled' && savedMm2 > 0
            ? [
                `Against a box round each that saves ${Math.round(savedMm2 / 100)} cm² of film${Math.abs(savedMin) < 0.05 ? '' : `, and ${savedMin > 0 ? 'saves' : 'takes'} ${sayMinutesRoundly(Math.abs(savedMin))}${savedMin > 0 ? '' : ' more'}`}. A minute at the bench counts as much as film for ${MINUTE_COST.toFixed(2)}.`,
              ]
            : []),
          ...(sharesCorner
            ? [
                'No marks hold these pressed layers, so all of them have the same box: trim their carriers to it, and lay them to one corner.',
              ]
            : []),
          ...(wish === 'ruled' && savedMm2 <= 0 && !sharesCorner
            ? [
                'A box is straight to cut and lies tight beside others on a sheet. Another border would save too little film for the minutes it takes.',
              ]
            : []),
          ...(wish === 'shared'
            ? ['The waste between the copies lifts as one lattice, so there are no relief lines in it.']
            : []),
          ...(lowestMoreMm > 0
            ? [`The lowest layer has ${formatLength(lowestMoreMm)} mm more at each side: the others are laid on it.`]
            : []),
        ],
    overridden: wish !== 'ruled' || (borderGapMm !== null && borderGapMm !== ruledGapMm),
    proposed: ruledGapMm,
    alternatives: [
      ...BORDER_WISHES.filter((other) => other !== wish).map((other) => ({
        label: OTHER_BORDERS[other],
        patch: { preparation: { border: other } },
      })),
      ...(layers.length > 1 && !isNone && !sharesCorner
        ? [
            lowestMoreMm > 0
              ? { label: 'The lowest layer as large as the others', patch: { preparation: { lowestMoreMm: 0 } } }
              : { label: 'More film round the lowest layer', patch: { preparation: { lowestMoreMm: null } } },
          ]
        : []),
    ],
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
  readonly layer: { readonly film: { readonly name: string; readonly stripBulkMm: number } };
  readonly panel: { readonly copies: number; readonly perStrip: number };
  readonly border: readonly unknown[];
  readonly relief: readonly ReliefLine[];
  readonly labels: readonly ReliefLine[];
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
  // Where films differ, the strips of each are as bulky as it bears.
  const bulks = [...new Set(layers.map(({ layer }) => bulkOf(layer.film, relief)))].sort((a, b) => a - b);
  const isTooBulky = layers.some(({ layer, strips }) =>
    strips.some(({ bulkMm }) => bulkMm > bulkOf(layer.film, relief) + 0.01),
  );
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
        ...(relief.ruled
          ? [
              `A strip is comfortable to pull while no circle of more than ${bulks.map((mm) => formatLength(mm)).join(' or ')} mm fits into it${relief.bulkMm !== null ? ', as you set it for this job' : bulks.length > 1 ? ', as each film says' : ''}. These are the fewest that make every strip so, where a line can reach.`,
            ]
          : ['You part the waste yourself.']),
        ...(bulk > 0 ? [`The bulkiest strip holds a circle of ${formatLength(bulk)} mm.`] : []),
        ...(lines > 0
          ? [
              'They are cut through the waste only, 0.2 mm clear of everything that stays, after the parts and before the border.',
            ]
          : []),
        ...(layers.some(({ work }) => work.counters > 0)
          ? ['Pull the strips first, by their numbers, then take out the counters: so no waste falls back into them.']
          : []),
        ...(isTooBulky && relief.ruled && relief.gone.length === 0
          ? ['Some of the waste is closed in so tightly that no line reaches it.']
          : []),
        ...(relief.gone.length > 0 ? [`You took ${count(relief.gone.length, 'line')} away.`] : []),
      ],
      overridden: !relief.ruled || relief.bulkMm !== null || relief.drawn.length > 0 || relief.gone.length > 0,
      alternatives: [
        relief.ruled
          ? { label: 'No relief lines of the app', patch: set({ ruled: false }) }
          : { label: 'Part the waste for me', patch: set({ ruled: true }) },
        ...(relief.bulkMm !== null || relief.drawn.length > 0 || relief.gone.length > 0
          ? [{ label: 'As the app would part it', patch: set({ ruled: true, bulkMm: null, drawn: [], gone: [] }) }]
          : []),
      ],
    },
  ];
}

/** What is written into the waste. */
export function sayLabels(layers: readonly Weeded[], { labels: isWanted }: Preparation): Ruling<PreparePatch> {
  const written = layers.filter(({ labels }) => labels.some((line) => line.length > 4)).length;
  return {
    id: 'prepare.labels',
    stage: 'prepare',
    subject: 'Labels in the waste',
    sentence: !isWanted
      ? 'Nothing is written into the waste: there are {value} labels.'
      : written === 0
        ? 'There is room for {value} label in the waste.'
        : `The waste of {value} says which it is, and which way is up.`,
    value:
      !isWanted || written === 0 ? 'no' : layers.length === 1 ? 'the layer' : `${written} of ${layers.length} layers`,
    unit: '',
    because: isWanted
      ? [
          'Job, film and layer are cut in single strokes where there is room, with an arrow to the top, so that grey sheets can be told apart. Small ticks stand at the middle of each side of the border. All of it comes off with the waste.',
          ...(written < layers.length
            ? ['Where letters of 3 mm do not fit between the parts and the border, there are none.']
            : []),
        ]
      : ['You left them out.'],
    overridden: !isWanted,
    alternatives: [
      isWanted
        ? { label: 'Write nothing into the waste', patch: { preparation: { labels: false } } }
        : { label: 'Label the waste', patch: { preparation: { labels: true } } },
    ],
  };
}

/** Lines that would run into what stays. */
export function sayRefusedLines(
  layers: readonly {
    readonly layer: { readonly film: { readonly id: string; readonly name: string } };
    readonly refused: readonly ReliefLine[];
  }[],
  { relief }: Preparation,
): Finding<PreparePatch> {
  const all = layers.flatMap(({ layer: { film }, refused }) => refused.map((line) => ({ film, line })));
  const [{ film, line }] = all as [(typeof all)[number]];
  const isRefused = (drawn: Preparation['relief']['drawn'][number]) =>
    all.some((one) => one.film.id === drawn.filmId && one.line === drawn.line);
  return {
    code: 'relief-into-part',
    severity: 'warning',
    stage: 'prepare',
    message: `${all.length === 1 ? 'A relief line' : `${all.length} relief lines`} that you drew in ${film.name} would run into what stays, so ${all.length === 1 ? 'it is' : 'they are'} not cut.`,
    where: {
      minX: Math.min(line[0]!, line.at(-2)!),
      minY: Math.min(line[1]!, line.at(-1)!),
      maxX: Math.max(line[0]!, line.at(-2)!),
      maxY: Math.max(line[1]!, line.at(-1)!),
    },
    remedies: [
      {
        label: all.length === 1 ? 'Take it away' : 'Take them away',
        patch: { preparation: { relief: { ...relief, drawn: relief.drawn.filter((drawn) => !isRefused(drawn)) } } },
      },
    ],
  };
}

/** So many minutes less are worth a word. */
const WORTH_MIN = 0.5;

/** How long weeding takes, and what of it. */
export function sayMinutes(
  layers: readonly Weeded[],
  weeding: LearnedWeeding | null,
): Ruling<PreparePatch & { readonly repair?: { readonly speckMm2?: number } }>[] {
  const figures = weeding?.figures ?? WEEDING_FIGURES;
  const dots = layers.flatMap(({ dotsMm2, panel }) => dotsMm2.map((areaMm2) => ({ areaMm2, copies: panel.copies })));
  const savedMin = (dots.reduce((sum, { copies }) => sum + copies, 0) * figures.smallPartS) / 60;
  const above = Math.ceil(Math.max(0, ...dots.map(({ areaMm2 }) => areaMm2)) * 10 + 1e-6) / 10 + 0.1;
  const minutes = layers.reduce((sum, one) => sum + one.minutes * one.panel.copies, 0);
  const total = (of: (work: WeedingWork) => number) =>
    layers.reduce((sum, one) => sum + of(one.work) * one.panel.copies, 0);
  const perStrip = layers[0]?.panel.perStrip ?? 1;
  const byFilm = new Map<string, number>();
  for (const one of layers)
    byFilm.set(one.layer.film.name, (byFilm.get(one.layer.film.name) ?? 0) + one.minutes * one.panel.copies);
  return [
    {
      id: 'prepare.minutes',
      stage: 'prepare',
      subject: 'Time to weed',
      sentence:
        perStrip > 1
          ? `Weeding one strip of ${perStrip} takes about {value}.`
          : 'Weeding one copy takes about {value}.',
      value: sayMinutesRoundly(minutes),
      unit: '',
      because: [
        `${count(
          total((work) => work.counters),
          'counter',
        )}, ${count(
          total((work) => work.smallParts),
          'small part',
        )}, ${count(
          total((work) => work.looseParts - work.smallParts),
          'larger part',
        )}, ${formatLength(total((work) => work.outlineMm) / 1000)} m of outline, ${formatLength(total((work) => work.thinMm) / 1000)} m of it thin.`,
        ...(byFilm.size > 1
          ? [
              [...byFilm]
                .filter(([, own]) => own >= WORTH_MIN / 5)
                .map(([film, own]) => `${film}: ${sayMinutesRoundly(own)}`)
                .join(', ') + '.',
            ]
          : []),
        ...(savedMin >= WORTH_MIN
          ? [
              `${count(dots.length, 'dot')} under 2 mm across ${dots.length === 1 ? 'takes' : 'take'} ${sayMinutesRoundly(savedMin)} of it, and may be lost all the same.`,
            ]
          : []),
        `${weeding ? `By ${count(weeding.logs, 'time')} that you timed it:` : 'To begin with'} ${sayFigures(figures)}.${weeding ? '' : ' Time it on the map, and these become your own figures.'}`,
      ],
      ...(savedMin >= WORTH_MIN
        ? {
            alternatives: [
              {
                label: `Leave out the ${count(dots.length, 'dot')}: ${sayMinutesRoundly(savedMin)} less`,
                patch: { repair: { speckMm2: above } },
              },
            ],
          }
        : {}),
    },
  ];
}

function sayFigures({ sheetS, counterS, smallPartS, partS, stripS, metreS, thinMetreS }: WeedingFigures): string {
  const s = (seconds: number) => `${Number(seconds.toFixed(seconds < 10 ? 1 : 0))} s`;
  return `${s(sheetS)} a sheet, ${s(counterS)} a counter, ${s(smallPartS)} a small part, ${s(partS)} a larger one,${stripS >= 0.05 ? ` ${s(stripS)} a strip,` : ''} ${s(metreS)} a metre of outline, ${s(thinMetreS)} more where strokes are thin`;
}

function sayMinutesRoundly(minutes: number): string {
  return minutes < 1
    ? `${Math.max(5, Math.round((minutes * 60) / 5) * 5)} s`
    : `${minutes < 10 ? Number(minutes.toFixed(1)) : Math.round(minutes)} min`;
}
