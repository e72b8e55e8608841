import type { Side, Size, TaperMap } from '../../engines/surface/index.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { CylinderMeasures, SurfaceDecisions, SurfacePatch } from './decisions.js';

const percent = (share: number) => `${Number((share * 100).toFixed(share < 0.1 ? 1 : 0))} %`;

/** The largest size that goes on it. */
export function sayLimits(
  { widthMm, heightMm }: Size,
  {
    kind,
    wraps,
    gapMm,
  }: { readonly kind: 'cylinder' | 'taper' | 'compound'; readonly wraps: boolean; readonly gapMm: number },
): Ruling<SurfacePatch> {
  return {
    id: 'surface.limits',
    stage: 'surface',
    subject: 'Largest size',
    sentence: `Nothing wider than {value} or higher than ${formatLength(heightMm)} mm should go on it.`,
    value: widthMm,
    unit: 'mm',
    because: [
      ...(kind === 'compound'
        ? []
        : wraps
          ? [
              gapMm > 0
                ? 'It may go round from one side of the handle to the other.'
                : 'It may go all the way round and meet itself at the seam.',
            ]
          : ['Past a third of the way round it cannot be seen from one place.']),
      wraps && gapMm === 0
        ? 'Height: a little below the straight part, since no two of one model are alike.'
        : 'That is 3 % below what was measured: no two of one model are alike.',
    ],
  };
}

/** How much of it is seen from one place. */
export function saySeen(seenMm: number, spanDeg: number, widthMm: number): Ruling<SurfacePatch> {
  return {
    id: 'surface.seen',
    stage: 'surface',
    subject: 'Seen from one place',
    sentence: 'From in front it looks {value} wide.',
    value: seenMm,
    unit: 'mm',
    because: [
      `It goes ${Math.round(spanDeg)}° round, so its ends turn away.`,
      ...(seenMm < 0.9 * widthMm ? [`That hides ${percent(1 - seenMm / widthMm)} of its width.`] : []),
    ],
  };
}

const SIDES: Readonly<Record<Side, string>> = {
  front: 'opposite the handle',
  holder: 'its holder',
  room: 'the room',
  both: 'its holder and the room',
};

/** Which way it faces. */
export function saySide(
  { hand, side }: Pick<CylinderMeasures, 'hand' | 'side'>,
  middleMm: number,
  measures: CylinderMeasures,
): Ruling<SurfacePatch> {
  const other = (to: Side, label: string) =>
    to === side ? [] : [{ label, patch: { surface: { cylinder: { ...measures, side: to } } } }];
  return {
    id: 'surface.side',
    stage: 'surface',
    subject: 'Which side it faces',
    sentence: side === 'front' ? 'It lies {value}.' : 'It faces {value}.',
    value: SIDES[side],
    unit: '',
    because: [
      `A ${hand}-handed holder has the handle to the ${hand}. Seen with the handle behind, ${side === 'both' ? 'one lies' : 'it lies'} with its middle ${formatLength(middleMm)} mm from the middle of the handle, to the right.`,
      ...(side === 'both' ? ['The other lies as far from the handle on its other side.'] : []),
    ],
    alternatives: [
      ...other('room', 'Turn it to the room'),
      ...other('holder', 'Turn it to its holder'),
      ...other('both', 'One on each side'),
      ...other('front', 'Opposite the handle'),
    ],
  };
}

/** One on each side needs an even number. */
export function sayBothSides(
  copies: number,
): Finding<SurfacePatch & { readonly sheets?: { readonly copies?: number } }> {
  return {
    code: 'both-sides',
    severity: 'warning',
    stage: 'surface',
    message: `One goes on each side, so every piece needs two, but ${copies === 1 ? 'one copy is' : `${copies} copies are`} to be cut.`,
    remedies: [{ label: `Cut ${copies + 1} copies`, patch: { sheets: { copies: copies + 1 } } }],
  };
}

/** A design wider than can be seen at once. */
export function sayWiderThanSeen(widthMm: number, roundMm: number): Finding<SurfacePatch> {
  return {
    code: 'wider-than-seen',
    severity: 'note',
    stage: 'surface',
    message: `The design goes ${percent(widthMm / roundMm)} of the way round: it cannot be seen from one place.`,
    remedies: [{ label: 'Fit it to what is seen', patch: { surface: { size: { mode: 'fit' } } } }],
  };
}

/** A design that is bent for a taper. */
export function sayWarp(
  { midRadiusMm, outerRadiusMm, innerRadiusMm, angleRad, wide }: TaperMap,
  most: number,
): Ruling<SurfacePatch> {
  return {
    id: 'surface.warp',
    stage: 'surface',
    subject: 'Bent for the taper',
    sentence: 'Level lines become arcs of {value} radius.',
    value: midRadiusMm,
    unit: 'mm',
    because: [
      `Rolled out, the side is part of a ring between ${formatLength(innerRadiusMm)} and ${formatLength(outerRadiusMm)} mm from its middle, ${Math.round((angleRad * 180) / Math.PI)}° of it. Only so does lettering read level on it.`,
      `It is bent before anything is built, so traps, strokes and marks stay true. Across its middle it keeps its width; at its ${wide} it is ${percent(most)} wider.`,
    ],
  };
}

/** How far film must stretch. */
export function sayStrain(
  strainPct: number,
  { isBent, holds }: { readonly isBent: boolean; readonly holds: boolean },
): Ruling<SurfacePatch> {
  return {
    id: 'surface.strain',
    stage: 'surface',
    subject: 'Stretch',
    sentence: 'The film must stretch by {value} at its edges.',
    value: `${Number(strainPct.toFixed(strainPct < 1 ? 2 : 1))} %`,
    unit: '',
    because: [
      isBent
        ? 'The surface bends in both directions, so flat film does not lie on it by itself. Lay it from the middle out.'
        : 'It bends in one direction only: film lies on it without stretching.',
      ...(holds
        ? []
        : ['The design goes so far round that this is only a rough figure: the rule holds up to half the radius.']),
    ],
  };
}

/** Film that cannot stretch as far. */
export function sayTooStiff(
  film: string,
  strainPct: number,
  mostPct: number,
  safeWidthMm: number,
  isOther: boolean,
): Finding<SurfacePatch> {
  const mm = Math.floor(safeWidthMm * 10) / 10;
  return {
    code: 'stretches-too-far',
    severity: 'warning',
    stage: 'surface',
    message: `${film} stretches by about ${mostPct} %, but it must stretch by ${Number(strainPct.toFixed(1))} % at its edges. ${isOther ? 'A cast film stretches by about 5 %. Or cut it' : 'Cut it'} open at its edges where it lifts (relief cuts), or lay the letters one by one, from the middle out.`,
    remedies:
      mm >= 1
        ? [
            {
              label: `Make the design ${formatLength(mm)} mm wide`,
              patch: { surface: { size: { mode: 'width', mm } } },
            },
          ]
        : [],
  };
}

/** A design on the inner face of glass. */
export function sayGlass(): Ruling<SurfacePatch> {
  return {
    id: 'surface.glass',
    stage: 'surface',
    subject: 'Behind glass',
    sentence: 'Everything is cut {value}.',
    value: 'mirrored',
    unit: '',
    because: [
      'It is laid on the inner face and read from outside.',
      'What is in front lies against the glass, so the order of laying turns over. Put together on tape it turns over twice: then what lies lowest comes first.',
      'By day the room behind glass looks dark: light films read best.',
    ],
  };
}

/** Films that show nothing through glass. */
export function sayBehindGlass(film: string, why: 'grey' | 'textured' | 'reflective' | 'press'): Finding<SurfacePatch> {
  const reasons = {
    grey: 'Its glue is grey, and that is what would be seen.',
    textured: 'Its texture is on its face, which is turned away from the glass.',
    reflective: 'It shines on its face, which is turned away from the glass.',
    press: 'It is pressed on, not stuck.',
  };
  return {
    code: 'not-behind-glass',
    severity: 'blocker',
    stage: 'surface',
    message: `${film} is of no use behind glass. ${reasons[why]} Choose another film, or lay it outside.`,
  };
}

export function sayDarkOnGlass(film: string): Finding<SurfacePatch> {
  return {
    code: 'dark-on-glass',
    severity: 'note',
    stage: 'surface',
    message: `${film} is dark and covers much of the pane. In the sun it warms the glass: sealed or wired panes can crack. Ask who made the pane.`,
  };
}

/** The design, or an outline, lies on a place that must stay free. */
export function sayOnFree(
  what: string,
  box: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number },
  { couldMove, isFitted }: { readonly couldMove: boolean; readonly isFitted: boolean },
): Finding<SurfacePatch> {
  return {
    code: 'on-free-place',
    severity: 'warning',
    stage: 'surface',
    message: `The work covers ${what === '' ? 'a place that must stay free' : `“${what}”, which must stay free`}.`,
    where: box,
    // Several that are fitted already could not be set clear of it at any size.
    remedies: isFitted
      ? []
      : [
          {
            label: couldMove ? 'Let it be set clear of it' : 'Fit it clear of it',
            patch: { surface: couldMove ? { at: null } : { at: null, size: { mode: 'fit' } } },
          },
        ],
  };
}

export function sayMovedAside(
  free: SurfaceDecisions['surface']['flat']['free'],
  isRound: boolean,
): Ruling<SurfacePatch> {
  return {
    id: 'surface.aside',
    stage: 'surface',
    subject: 'Kept clear',
    sentence: 'The design lies {value}.',
    value: 'beside the middle',
    unit: '',
    because: [
      isRound
        ? 'In the middle of its side it would reach into the handle. This is the nearest place that is clear.'
        : `In the middle it would cover ${free.length === 1 && free[0]!.what !== '' ? `“${free[0]!.what}”` : 'a place that must stay free'}. This is the nearest place that is clear.`,
    ],
  };
}
