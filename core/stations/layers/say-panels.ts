import { PANEL_LAP_MM } from '../../engines/surface/index.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { SurfaceDecisions, SurfacePatch } from '../surface/index.js';

type Wish = SurfaceDecisions['surface']['panels'];

/** How many panels, and where they part. */
export function sayPanels({
  count,
  along,
  crossedMm,
  bent,
  fitsWhole,
  longestMm,
  widestMm,
  wish,
}: {
  readonly wish: Wish;
  readonly bent: number;
  readonly count: number;
  readonly along: 'across' | 'down';
  readonly crossedMm: number;
  readonly fitsWhole: boolean;
  readonly longestMm: number;
  readonly widestMm: number;
}): Ruling<SurfacePatch> {
  return {
    id: 'surface.panels',
    stage: 'surface',
    subject: 'Panels',
    sentence: 'It is made in {value}, over all layers at once.',
    value: `${count} panels`,
    unit: '',
    because: [
      fitsWhole
        ? `It is ${formatLength(longestMm / 1000)} m long. A piece longer than ${formatLength(widestMm / 1000)} m cannot be laid true by hand.`
        : `No piece in stock holds it whole. A panel may be ${formatLength(widestMm)} mm ${along === 'across' ? 'wide' : 'high'}, marks and border not counted.`,
      crossedMm > 0.05
        ? `The split lines lie where they cross least: ${formatLength(crossedMm)} mm of artwork in all. Everywhere was looked at.`
        : 'The split lines cross no artwork.',
      ...(bent > 0
        ? [
            `${bent === 1 ? 'One of them bends' : `${bent} of them bend`} between the letters: no straight line would have a way.`,
          ]
        : []),
    ],
    ...(fitsWhole
      ? {
          alternatives: [
            { label: 'Make it in one piece', patch: { surface: { panels: { ...wish, split: 'never' } } } },
          ],
        }
      : {}),
  };
}

/** A design of several parts that stand apart. `areApart`: each is laid by itself. */
export function sayParts(parts: number, areApart: boolean, wish: Wish): Ruling<SurfacePatch> {
  const none = parts < 2;
  return {
    id: 'surface.parts',
    stage: 'surface',
    subject: 'Parts that stand apart',
    sentence: areApart ? 'Its parts are {value}.' : 'Its parts are laid {value}.',
    value: areApart ? `${parts} decals` : 'in one go',
    unit: '',
    because: [
      areApart
        ? 'Each lies on the film where it takes least, with a border of its own, and those that are alike count as copies.'
        : none
          ? 'You chose to lay each part by itself, but no two parts stand 10 mm apart, so it changes nothing.'
          : `${parts} parts stand apart. Laid on tape in one go they keep their places. If they are decals of their own, each can lie where it takes least film.`,
    ],
    overridden: areApart || none,
    alternatives: [
      areApart || none
        ? { label: 'Lay them in one go', patch: { surface: { panels: { ...wish, split: 'auto' } } } }
        : { label: 'They are decals of their own', patch: { surface: { panels: { ...wish, split: 'parts' } } } },
    ],
  };
}

/** How panels lap, and in which order they are laid. */
export function sayPanelLap({
  lapMm,
  along,
  laying,
  wish,
  butts,
}: {
  readonly lapMm: number;
  readonly along: 'across' | 'down';
  readonly laying: readonly number[];
  readonly wish: Wish;
  readonly butts: readonly string[];
}): Ruling<SurfacePatch> {
  const over =
    along === 'down'
      ? 'The upper lies over the lower, so that water runs off.'
      : wish.hangs === 'wall'
        ? `The one nearer to the weather, on the ${wish.weather}, lies over the other, so that wind and rain do not get under its edge.`
        : `The one nearer to the ${wish.hangs === 'boat' ? 'bow' : 'front'}, on the ${wish.weather}, lies over the one behind it.`;
  return {
    id: 'surface.lap',
    stage: 'surface',
    subject: 'Lap of the panels',
    sentence: 'Panels lap by {value}.',
    value: lapMm,
    unit: 'mm',
    because: [
      over,
      `Lay them in this order: ${laying.join(', ')}. They are numbered from the ${along === 'down' ? 'top' : 'left'}.`,
      ...(butts.length > 0 ? [`${butts.join(' and ')} butts: a lap of it would show.`] : []),
    ],
    overridden: wish.lapMm !== null,
    proposed: PANEL_LAP_MM,
  };
}

/** It is long, and made in one piece all the same. */
export function sayWhole(longestMm: number, wish: Wish): Ruling<SurfacePatch> {
  return {
    id: 'surface.panels',
    stage: 'surface',
    subject: 'Panels',
    sentence: 'It is made in {value}.',
    value: 'one piece',
    unit: '',
    because: [`You chose so. It is ${formatLength(longestMm / 1000)} m long: lay it wet or with helping hands.`],
    overridden: true,
    proposed: 'panels',
    alternatives: [{ label: 'Make it in panels', patch: { surface: { panels: { ...wish, split: 'auto' } } } }],
  };
}

export function sayNoPanels(widthMm: number, heightMm: number): Finding<SurfacePatch> {
  return {
    code: 'no-panels',
    severity: 'warning',
    stage: 'surface',
    message: `The design is ${formatLength(widthMm)} × ${formatLength(heightMm)} mm: both ways larger than the film in stock. Make it smaller, or order wider film.`,
  };
}
