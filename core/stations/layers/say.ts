import { LEAST_TRAP_MM, type Crumbs, type School, type TrapForm } from '../../engines/layers/index.js';
import { tolerances, type Box } from '../../geometry/index.js';
import { LIVES, type Film, type Lives } from '../../shop/index.js';
import { formatLength, listed, type Finding, type Ruling } from '../../words/index.js';
import type { BuildDecisions, BuildPatch } from './decisions.js';
import type { Framed } from './framing.js';
import { sayFramed, sayFramedTroubles } from './say-framed.js';
import type { LayerOrder } from './order.js';
import { showsThrough, type RuledPair } from './pairs.js';

const mm = (value: number) => formatLength(value);

/** Why two layers meet as they do; `school` is the job's. */
export function sayPair({ lower, upper, why, decidedFor }: RuledPair, school: School): string[] {
  return [
    ...(decidedFor === null
      ? []
      : [
          decidedFor === 'pair'
            ? 'You decided it for this pair.'
            : `You decided it for ${decidedFor === 'lower' ? lower.name : upper.name} and all that it meets.`,
        ]),
    sayReason(lower, upper, why, school),
  ];
}

function sayReason(lower: Film, upper: Film, why: RuledPair['why'], school: School): string {
  switch (why) {
    case 'dyes-mix':
      return 'Dyes mix where they overlap, so the edges only touch.';
    case 'nothing-sticks':
      return `Nothing sticks on ${lower.name}, so it does not run under another film.`;
    case 'stiff':
      return `Together they are ${lower.thicknessUm + upper.thicknessUm} µm thick and would be stiff on cloth, so only the trap is left under.`;
    case 'ghost':
      return `${upper.name} lets light through and ${lower.name} is darker. What runs under shows as a line, so the trap is as narrow as the cutter and the films allow.`;
    case 'shadow':
      return `${lower.name} is darker, and ${upper.name} hides only ${upper.opacityPct} % of what lies under it. So the trap is no wider than this pair needs.`;
    case 'base':
      return `${lower.name} is the base: it lies in one piece under everything.`;
    case 'as-job':
      return {
        overlay: 'Like the job: it runs completely under.',
        inlay: 'Like the job: it is cut out exactly.',
        trapped: 'Like the job: it runs under by the trap.',
      }[school];
  }
}

/** What the formula was fed with that no pair knows by itself. */
interface TrapCase {
  readonly form: TrapForm;
  readonly hasMarks: boolean;
  /** The longest side of what is laid in one piece. */
  readonly sizeMm: number;
  /** What is laid in one piece is a strip of a gang. */
  readonly isGang: boolean;
  readonly lives: Lives;
}

/** The formula's terms, read aloud. */
export function sayTerms(
  { lower, upper, terms, width }: RuledPair,
  { form, hasMarks, sizeMm, isGang, lives }: TrapCase,
): string[] {
  const { parts, exactMm } = width;
  const byChance = form === 'chance';
  return [
    ...(parts.drawBack > 0
      ? [
          `${mm(parts.drawBack)} mm because the edges of ${lower.name} and ${upper.name} draw back once they are laid, ${lives === 'indoors' ? 'indoors' : 'in the sun'}.`,
        ]
      : []),
    ...(parts.shrink > 0
      ? [
          `${mm(parts.shrink)} mm because they shrink by ${Number((100 * terms.shrinkDifference).toFixed(2))} % more or less than each other under the press, and meet up to ${mm(terms.reachMm)} mm from the middle.`,
        ]
      : []),
    `${mm(parts.slip)} mm for slip: ${isGang ? 'a strip' : 'work'} of ${mm(sizeMm)} mm is laid within ${mm(terms.placementErrorMm)} mm of its place${hasMarks ? '' : ' by eye'}.${terms.bothLaid ? ' Both films are laid to a third one, so both may be off.' : ''}`,
    hasMarks
      ? `${mm(parts.turn)} mm for turning: they meet up to ${mm(terms.reachMm)} mm from the middle of the marks, which are ${mm(terms.markDistanceMm)} mm apart.`
      : `${mm(parts.turn)} mm for turning: without marks, the shared edge of ${mm(terms.markDistanceMm)} mm is all there is to align by.`,
    `${mm(parts.cutter)} mm for the cutter: it does not come back exactly to a point, and there are two cuts.`,
    byChance
      ? `Slip, turning and the cutter rarely come together, so their squares are added, and the root is taken. Fewer than one placement in a thousand then shows a gap. All in all ${mm(exactMm)} mm, rounded up to ${mm(width.mm)} mm (docs/trap.md).`
      : `In the worst case the larger of slip and turning counts, and all else in full: ${mm(exactMm)} mm, rounded up to ${mm(width.mm)} mm (docs/trap.md).`,
    ...(width.mm > exactMm + 0.05 ? [`Less than ${mm(LEAST_TRAP_MM)} mm is not enough for any hand.`] : []),
  ];
}

/** The figures of a build that there is something to say about. */
export interface BuildFigures {
  readonly build: Pick<
    BuildDecisions['build'],
    'school' | 'trapMm' | 'trapForm' | 'lives' | 'pairs' | 'filmPairs' | 'outlines'
  >;
  readonly layers: number;
  /** Shapes that were joined with others of their film. */
  readonly joined: number;
  readonly crumbs: Crumbs;
  /** Holes that are filled since the layers above cover them. */
  readonly filled: number;
  /** Whether all of a pair's upper layer lies on the lower one. */
  readonly coversAll: (pair: RuledPair) => boolean;
  /** An order of the layers in which no darker film runs under a lighter one; null when there is none, or they lie so. */
  readonly lighterLower: readonly string[] | null;
  readonly order: LayerOrder;
  readonly pairs: readonly RuledPair[];
  readonly widest: RuledPair | null;
  readonly trapMm: number;
  readonly hasMarks: boolean;
  readonly sizeMm: number;
  readonly isGang: boolean;
  readonly framed: Framed | null;
  readonly filmOf: (key: string) => Film;
}

/** All rulings and findings of a build, in the order in which they are read. */
export function sayBuild(figures: BuildFigures): {
  readonly findings: Finding<BuildPatch>[];
  readonly rulings: Ruling<BuildPatch>[];
} {
  const { build, layers, joined, order, pairs, widest, framed, filmOf } = figures;
  return {
    rulings: [
      saySchool(build.school, layers, pairs.length > 0),
      ...sayOrder(order, filmOf),
      ...(widest && pairs.some((pair) => pair.school === 'trapped') ? [sayTrap(widest, figures)] : []),
      sayLives(build.lives),
      ...(joined > 0 ? [sayJoined(joined)] : []),
      ...sayCrumbs(figures.crumbs),
      ...sayFilled(figures.filled),
      ...(framed ? sayFramed(framed) : []),
    ],
    findings: [
      ...(order.bare.length > 1 ? [TWO_TEXTURED] : []),
      ...sayNarrowTrap(figures),
      ...sayShadows(
        pairs.filter((pair) => pair.school !== 'inlay' && showsThrough(pair.lower, pair.upper)),
        figures,
      ),
      ...(framed ? sayFramedTroubles(framed, build) : []),
    ],
  };
}

const SCHOOLS: Readonly<Record<School, { readonly name: string; readonly label: string; readonly because: string }>> = {
  overlay: {
    name: 'overlay',
    label: 'Overlay',
    because: 'Every lower layer runs completely under the upper ones. This is easy to lay, but thick to feel.',
  },
  inlay: {
    name: 'inlay',
    label: 'Inlay',
    because: 'Upper shapes are cut out of the lower layers exactly. The work is flat, but any slip shows as a gap.',
  },
  trapped: {
    name: 'trapped inlay',
    label: 'Trapped inlay',
    because: 'Like an inlay, but lower layers run a little under the upper ones, so that slip and shrink do not show.',
  },
};

function saySchool(school: School, layers: number, doMeet: boolean): Ruling<BuildPatch> {
  const ruling = { id: 'build.school', stage: 'build', subject: 'Way of building', unit: '' } as const;
  if (layers < 2)
    return {
      ...ruling,
      sentence: '{value} needs no build: it is cut as it is.',
      value: 'One layer',
      because: [
        'Nothing lies on it or runs under it. With a second film, or an outline in another one, there is something to build.',
      ],
    };
  if (!doMeet)
    return {
      ...ruling,
      sentence: `{value} of the ${layers} layers meet, so each is cut as it is.`,
      value: 'No two',
      because: ['Nothing runs under another film where no two films meet, whichever way of building is chosen.'],
    };
  return {
    ...ruling,
    sentence: `The ${layers} layers are built as {value}.`,
    value: SCHOOLS[school].name,
    because: [SCHOOLS[school].because],
    alternatives: (['overlay', 'inlay', 'trapped'] as const)
      .filter((other) => other !== school)
      .map((other) => ({ label: SCHOOLS[other].label, patch: { build: { school: other } } })),
  };
}

function sayOrder(
  { proposed, byTurns, bare, isMovedToTop }: LayerOrder,
  filmOf: (key: string) => Film,
): Ruling<BuildPatch>[] {
  const names = (keys: readonly string[]) => keys.map((key) => filmOf(key).name);
  const rulings: Ruling<BuildPatch>[] = [];
  if (proposed) {
    rulings.push({
      id: 'build.order',
      stage: 'build',
      subject: 'Order of the layers',
      sentence: 'From the surface up: {value}.',
      value: names(proposed).join(', '),
      unit: '',
      because: [
        'Where shapes overlap, the artwork decides.',
        'Where they only touch, a translucent film lies lower, then the lighter one, so that the darker hides what runs under it. Of films about as light, the one with more area lies lower (docs/order.md).',
        ...(byTurns.length > 0
          ? [
              `${listed(names(byTurns))} lie over each other in turns. Whole films cannot do that. Each keeps what shows of it, and only the traps lie one way round.`,
            ]
          : []),
      ],
    });
  }
  if (isMovedToTop) {
    rulings.push({
      id: 'build.top',
      stage: 'build',
      subject: 'What lies on top',
      sentence: '{value} moves to the top of the build.',
      value: listed(names(bare)),
      unit: '',
      because: ['Nothing sticks on it, so nothing can lie over it. All other films keep their order.'],
    });
  }
  return rulings;
}

const TWO_TEXTURED: Finding<BuildPatch> = {
  code: 'two-textured',
  severity: 'warning',
  stage: 'build',
  message: 'Nothing sticks on two of these films. Where they meet, their edges only touch, without a trap.',
};

function sayTrap(
  widest: RuledPair,
  { build: { trapMm, trapForm, lives }, hasMarks, sizeMm, isGang }: BuildFigures,
): Ruling<BuildPatch> {
  const { ruledTrapMm } = widest;
  return {
    id: 'build.trap',
    stage: 'build',
    subject: 'Trap width',
    sentence: 'Lower layers run {value} under the upper ones.',
    value: trapMm ?? ruledTrapMm,
    unit: 'mm',
    because: sayTerms(widest, { form: trapForm, hasMarks, sizeMm, isGang, lives }),
    overridden: trapMm !== null && trapMm !== ruledTrapMm,
    proposed: ruledTrapMm,
    alternatives: [
      trapForm === 'worst'
        ? { label: 'Allow for chance', patch: { build: { trapForm: 'chance' } } }
        : { label: 'Plan for the worst case', patch: { build: { trapForm: 'worst' } } },
    ],
  };
}

function sayJoined(joined: number): Ruling<BuildPatch> {
  return {
    id: 'build.joined',
    stage: 'build',
    subject: 'Overlaps of one film',
    sentence: '{value} overlapping or touching shapes of one film were joined.',
    value: joined,
    unit: '',
    because: ['If they were not joined, the blade would cut through where they overlap.'],
  };
}

function sayCrumbs({ pieces, holes, joins }: Crumbs): Ruling<BuildPatch>[] {
  const all = pieces + holes + joins;
  if (all === 0) return [];
  const many = (count: number, one: string, several: string) =>
    count === 0 ? [] : [`${count} ${count === 1 ? one : several}`];
  return [
    {
      id: 'build.crumbs',
      stage: 'build',
      subject: 'Crumbs',
      sentence: all === 1 ? '{value} crumb is left out.' : '{value} crumbs are left out.',
      value: all,
      unit: '',
      because: [
        `No blade can cut what is less than ${mm(2 * tolerances.CRUMB_MM)} mm across. They are ${[...many(pieces, 'speck', 'specks'), ...many(holes, 'hole', 'holes'), ...many(joins, 'thread between pieces', 'threads between pieces')].join(', ')} (docs/checks.md).`,
      ],
    },
  ];
}

function sayFilled(filled: number): Ruling<BuildPatch>[] {
  if (filled === 0) return [];
  return [
    {
      id: 'build.filled',
      stage: 'build',
      subject: 'Hidden holes',
      sentence: filled === 1 ? '{value} hole is filled.' : '{value} holes are filled.',
      value: filled,
      unit: '',
      because: [
        `The films above cover ${filled === 1 ? 'it' : 'them'} completely, so nobody sees the difference: ${filled === 1 ? 'one counter' : `${filled} counters`} less to weed.`,
      ],
    },
  ];
}

function sayNarrowTrap({ build: { school, trapMm: own }, trapMm, widest }: BuildFigures): Finding<BuildPatch>[] {
  if (school !== 'trapped' || own === null || !widest || own >= widest.ruledTrapMm - 1e-9) return [];
  return [
    {
      code: 'trap-narrow',
      severity: 'warning',
      stage: 'build',
      message: `A trap of ${mm(trapMm)} mm is less than the ${mm(widest.ruledTrapMm)} mm that the formula gives. Bare surface may show.`,
      remedies: [{ label: `Use ${mm(widest.ruledTrapMm)} mm`, patch: { build: { trapMm: null } } }],
    },
  ];
}

/** All dark laps under light films, as one: they are looked at and settled together. */
function sayShadows(
  pairs: readonly RuledPair[],
  { build: { pairs: decided }, coversAll, lighterLower }: BuildFigures,
): Finding<BuildPatch>[] {
  const [first] = pairs;
  if (!first) return [];
  const seen = pairs.map(
    (pair) =>
      `${pair.lower.name} ${pair.school !== 'overlay' ? `runs ${mm(pair.trapMm)} mm under` : coversAll(pair) ? 'lies under all of' : 'lies under part of'} ${pair.upper.name}, which hides ${pair.upper.opacityPct} %`,
  );
  return [
    {
      code: 'ghost',
      severity: 'warning',
      stage: 'build',
      message: `A darker film under a lighter one can be seen as a faint dark line: ${seen.join('; ')}.`,
      where: first.box,
      remedies: [
        ...(lighterLower ? [{ label: 'Lay the lighter films lower', patch: { build: { order: lighterLower } } }] : []),
        {
          label: 'Let these edges only touch',
          patch: {
            build: {
              pairs: {
                ...decided,
                ...Object.fromEntries(pairs.map(({ key }) => [key, { school: 'inlay' as const, trapMm: null }])),
              },
            },
          },
        },
      ],
    },
  ];
}

const LIVES_IN: Readonly<Record<Lives, { readonly value: string; readonly label: string }>> = {
  indoors: { value: 'indoors', label: 'Indoors' },
  outdoors: { value: 'outdoors', label: 'Outdoors' },
  washed: { value: 'where it is washed or handled', label: 'Washed or handled' },
  'walked-on': { value: 'on a floor', label: 'On a floor' },
};

function sayLives(lives: Lives): Ruling<BuildPatch> {
  return {
    id: 'build.lives',
    stage: 'build',
    subject: 'Where it will live',
    sentence: 'The work will live {value}.',
    value: LIVES_IN[lives].value,
    unit: '',
    because: [
      lives === 'indoors'
        ? 'Indoors, films draw back least at their edges. Anywhere else counts as sun (docs/films.md).'
        : 'Films draw back more at their edges in sun, and thin strokes lift sooner (docs/films.md).',
    ],
    alternatives: LIVES.filter((other) => other !== lives).map((other) => ({
      label: LIVES_IN[other].label,
      patch: { build: { lives: other } },
    })),
  };
}

/** An upper layer is so narrow that what runs under it from both sides meets. */
export function sayClosesUnder({ lower, upper }: RuledPair, where: Box): Finding<BuildPatch> {
  return {
    code: 'closes-under',
    severity: 'note',
    stage: 'build',
    message: `Most of ${upper.name} is narrower than twice the trap, so ${lower.name} runs completely under it there.`,
    where,
  };
}
