import type { OneOfSeveral, PlacedSeveral } from '../../engines/surface/index.js';
import { count, formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { SurfaceDecisions, SurfacePatch } from './decisions.js';

/** What a design is called that some parts of the artwork make, and which of its copies: files by their names, words in quotes. */
export function sayDesignName(
  [first = '', ...more]: readonly string[],
  { copy, copies }: { readonly copy: number; readonly copies: number },
): string {
  return `${first}${more.length > 0 ? ` and ${more.length} more` : ''}${copies > 1 ? `, ${copy} of ${copies}` : ''}`;
}

type Wish = Pick<SurfaceDecisions['surface'], 'size' | 'several' | 'at'>;
type Named = OneOfSeveral & { readonly label: string };

const ONE: SurfaceDecisions['surface']['several'] = { others: [], copies: 1, betweenMm: null };

/** How large the first of several designs is, which rules the others. */
export function saySeveralSize(
  { label, widthMm, heightMm }: Named,
  { size: wish }: Wish,
  {
    fittedWidthMm,
    ownWidthMm,
    reachMm,
  }: { readonly fittedWidthMm: number; readonly ownWidthMm: number; readonly reachMm: number },
): Ruling<SurfacePatch> {
  const isGiven = wish.mode === 'width' || wish.mode === 'height';
  return {
    id: 'surface.size',
    stage: 'surface',
    subject: 'Size of the first design',
    sentence: `${label} is {value} wide and ${formatLength(heightMm)} mm high.`,
    value: widthMm,
    unit: 'mm',
    because: [
      wish.mode === 'fit'
        ? 'All designs are as large as they fit on it together, at one scale.'
        : isGiven
          ? `You gave the ${wish.mode}. The others keep to its scale.`
          : 'All designs are as large as they are drawn, or as many times as large as you gave.',
      ...(wish.mode === 'fit' && reachMm > 0 ? [`Outlines take ${formatLength(reachMm)} mm round each.`] : []),
      'Traps, marks and borders are worked out at this size. They are never scaled.',
    ],
    overridden: isGiven || wish.mode === 'scale',
    proposed: fittedWidthMm,
    alternatives: [
      ...(wish.mode === 'fit'
        ? []
        : [{ label: 'Fit all of them', patch: { surface: { size: { mode: 'fit' as const } } } }]),
      ...(wish.mode === 'own'
        ? []
        : [
            {
              label: `Artwork’s own size, ${formatLength(ownWidthMm)} mm wide`,
              patch: { surface: { size: { mode: 'own' as const } } },
            },
          ]),
    ],
  };
}

const FACES = { holder: 'faces its holder', room: 'faces the room', front: 'lies opposite the handle' } as const;

/** Which designs stand on a thing, and where. */
export function saySeveral(
  designs: readonly Named[],
  { rows, betweenMm }: Pick<PlacedSeveral, 'rows' | 'betweenMm'>,
  { kind, cylinder, several, at }: Wish & Pick<SurfaceDecisions['surface'], 'kind' | 'cylinder'>,
): Ruling<SurfacePatch> {
  const isRound = kind === 'cylinder';
  const from = cylinder.gapMm > 0 ? 'the middle of the handle, to the right' : 'the seam';
  const lies = ({ side, xMm, yMm, widthMm }: Named) =>
    isRound
      ? `${side ? `${FACES[side]}, ` : ''}its middle ${formatLength(xMm + widthMm / 2)} mm from ${from}`
      : `${formatLength(xMm)} mm from the left and ${formatLength(yMm)} mm from the top`;
  const { side, label } = designs[0]!;
  const turned = (to: 'holder' | 'room' | 'front', words: string) =>
    side === null || side === to ? [] : [{ label: words, patch: { surface: { cylinder: { ...cylinder, side: to } } } }];
  return {
    id: 'surface.several',
    stage: 'surface',
    subject: 'Designs on it',
    sentence: 'It carries {value}.',
    value: count(designs.length, 'design'),
    unit: '',
    because: [
      ...designs.map(
        (one) => `${one.label}: ${formatLength(one.widthMm)} × ${formatLength(one.heightMm)} mm, ${lies(one)}.`,
      ),
      ...(isRound
        ? []
        : [
            `They are balanced on it in ${rows.length === 1 ? 'one row' : `${rows.length} rows of ${rows.join(', ')}`}, with ${formatLength(Math.max(0, betweenMm))} mm between the nearest two.`,
          ]),
      'Each is cut with its own marks, and laid by itself.',
      ...(at ? ['Where one design was put by hand has no effect on several.'] : []),
    ],
    overridden: several.betweenMm !== null && !isRound,
    alternatives: [
      ...turned('holder', `Turn ${label} to its holder`),
      ...turned('room', `Turn ${label} to the room`),
      ...turned('front', `Set ${label} opposite the handle`),
      { label: 'Make all of it one design', patch: { surface: { several: ONE } } },
    ],
  };
}

/** Several designs that do not go on a thing together. */
export function saySeveralTrouble(
  trouble: NonNullable<PlacedSeveral['trouble']>,
  thing: string,
  { size, several }: Wish,
): Finding<SurfacePatch>[] {
  const fitted: SurfacePatch = {
    surface: {
      size: { mode: 'fit' },
      several: { ...several, others: several.others.map((other) => ({ ...other, widthMm: null })) },
    },
  };
  const isFitted = size.mode === 'fit' && several.others.every(({ widthMm }) => widthMm === null);
  switch (trouble) {
    case 'no-room':
      return [
        {
          code: 'margins-too-wide',
          severity: 'blocker',
          stage: 'surface',
          message: `What must stay free leaves no room for these designs on the ${thing}. Make the margins narrower, or measure again.`,
        },
      ];
    case 'too-large':
      return [
        {
          code: 'designs-too-large',
          severity: 'warning',
          stage: 'surface',
          message: `At this size the designs do not fit on the ${thing} beside each other.`,
          remedies: isFitted ? [] : [{ label: 'Fit all of them', patch: fitted }],
        },
      ];
    // What lies on a free place is said with its place once it is built.
    case 'on-free-place':
      return [];
  }
}

/** The size at which several designs lie where they may: how wide the first is then. */
interface Smaller {
  readonly name: string;
  readonly widthMm: number;
  readonly patch: SurfacePatch;
}

const smallerRemedy = (smaller: Smaller | null) =>
  smaller
    ? [
        {
          label: `Make ${smaller.name} ${formatLength(smaller.widthMm)} mm wide, the others to its scale, and spread them evenly`,
          patch: smaller.patch,
        },
      ]
    : [];

/** Where one of several designs reaches beyond what may be decorated. */
export function sayDesignBeyond(
  label: string,
  byMm: number,
  box: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number },
  smaller: Smaller | null,
): Finding<SurfacePatch> {
  return {
    code: 'outline-into-margins',
    severity: 'warning',
    stage: 'surface',
    message: `With its outline ${label} reaches ${formatLength(byMm)} mm too far.`,
    where: box,
    remedies: smallerRemedy(smaller),
  };
}

/** Two designs that touch once they are built could not be laid one by one. */
export function sayDesignsMeet(label: string, smaller: Smaller | null): Finding<SurfacePatch> {
  return {
    code: 'designs-meet',
    severity: 'blocker',
    stage: 'surface',
    message: `${label} touches the design beside it, so they cannot be cut one by one. Make them smaller, leave more between them, or make them one design.`,
    remedies: [...smallerRemedy(smaller), { label: 'Make all of it one design', patch: { surface: { several: ONE } } }],
  };
}

/** Artwork divided into several designs on a thing that carries one. */
export function sayTakenAsOne(designs: number): Finding<SurfacePatch> {
  return {
    code: 'several-as-one',
    severity: 'note',
    stage: 'surface',
    message: `The ${designs} designs are taken as one here. Boards, panes, and round things with straight sides carry several, unless one goes all the way round.`,
    remedies: [{ label: 'Make all of it one design', patch: { surface: { several: ONE } } }],
  };
}
