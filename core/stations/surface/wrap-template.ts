import {
  developedOf,
  sidesOf,
  taperMap,
  warpLine,
  warpPoint,
  type Cylinder,
  type Surface,
  type TaperMap,
  type Taper,
} from '../../engines/surface/index.js';
import { boundsOf, joinBoxes, widenBox } from '../../geometry/index.js';
import type { PrintDrawing, Printed, PrintLines } from '../../print/index.js';
import { InputError } from '../../words/index.js';
import { sayNoWrap, sayTemplateSize, sayTemplateTitle } from './say-template.js';

/** A tab is this wide where no handle says otherwise, mm. */
const TAB_MM = 10;
/** Tabs lie above and below a handle, each this share of the height. */
const TAB_SHARE = 0.22;
/** Kept from the handle on each side, mm. */
const PLAY_MM = 1;
const TEXT_MM = 4;
const PAGE_MM = 8;
const INK = '#000000';
const GREY = '#777777';

interface Line {
  readonly points: readonly number[];
  readonly closed: boolean;
}

/**
 * What is wrapped round a round thing to try a design on it, at true scale: a rectangle, or the sector of a taper, with tabs that meet above and below a
 * handle, or one to glue, its centre line, its sides, what stays free, and which way is up. @throws InputError `no-wrap` on what is not round
 */
export function wrapTemplate(surface: Surface): PrintDrawing {
  if (surface.kind !== 'cylinder' && surface.kind !== 'taper')
    throw new InputError('no-wrap', sayNoWrap(), { source: 'wrap-template' });
  // All of the side: a taper is as wide as at the middle of its slant.
  const whole = { yMm: 0, heightMm: surface.kind === 'taper' ? surface.cone.slantMm : surface.straightHeightMm };
  const { widthMm: round, heightMm: height } = developedOf(surface, whole)!;
  const map = surface.kind === 'taper' ? taperMap(surface.cone, { widthMm: round, heightMm: height }, 0) : null;
  const [left, right] = [surface.gapMm / 2, round - surface.gapMm / 2];
  const lines = (name: string, colour: string, widthMm: number, dashed: boolean, all: readonly Line[]): PrintLines => ({
    kind: 'lines',
    name,
    colour,
    widthMm,
    dashed,
    lines: all.map((line) => bent(map, line)),
  });
  const upright = (x: number): Line => ({ points: [x, 0, x, height], closed: false });
  const items: Printed[] = [
    lines('outline', INK, 0.3, false, [{ points: outline(surface, { left, right, height }), closed: true }]),
    lines('fold', GREY, 0.2, true, [upright(left), upright(right)]),
    lines('centre', INK, 0.2, false, [upright(round / 2)]),
    lines(
      'stays free',
      GREY,
      0.2,
      true,
      [surface.lipMm, height - surface.footMm]
        .filter((y) => y > 0 && y < height)
        .map((y) => ({ points: [left, y, right, y], closed: false })),
    ),
    ...sideLines(surface, round, lines, upright),
    text(map, 'TOP', round / 2 + 3 * TEXT_MM, Math.min(height / 3, 3 * TEXT_MM)),
    text(map, sayTemplateSize(round, height, surface.kind === 'taper'), round / 2 + round / 8, height / 2),
  ];
  const box = items.reduce<ReturnType<typeof boundsOf>>(
    (sum, item) =>
      item.kind === 'lines' ? joinBoxes(sum, boundsOf(item.lines.map(({ points }) => Float64Array.from(points)))) : sum,
    null,
  )!;
  return { title: sayTemplateTitle(surface.kind), box: widenBox(box, PAGE_MM), items };
}

/** Round the wrap and its tabs, from its upper left corner with the clock. */
function outline(
  { gapMm }: Cylinder | Taper,
  { left, right, height }: { readonly left: number; readonly right: number; readonly height: number },
): number[] {
  if (gapMm === 0)
    return [left, 0, right, 0, right + TAB_MM, 3, right + TAB_MM, height - 3, right, height, left, height];
  // Half the gap each way, so that tabs of both ends meet behind the handle's ends.
  const tab = Math.max(1, gapMm / 2 - PLAY_MM);
  const [upper, lower] = [height * TAB_SHARE, height * (1 - TAB_SHARE)];
  return [
    left - tab,
    0,
    right + tab,
    0,
    right + tab,
    upper,
    right,
    upper,
    right,
    lower,
    right + tab,
    lower,
    right + tab,
    height,
    left - tab,
    height,
    left - tab,
    lower,
    left,
    lower,
    left,
    upper,
    left - tab,
    upper,
  ];
}

function sideLines(
  surface: Cylinder | Taper,
  round: number,
  lines: (name: string, colour: string, widthMm: number, dashed: boolean, all: readonly Line[]) => PrintLines,
  upright: (x: number) => Line,
): Printed[] {
  if (surface.kind !== 'cylinder' || surface.gapMm === 0) return [];
  const { holderMm, roomMm } = sidesOf(round, surface.hand);
  const at = (x: number, what: string): Printed[] => [
    lines(what, GREY, 0.2, true, [upright(x)]),
    text(null, what, x, surface.straightHeightMm - 2 * TEXT_MM),
  ];
  return [...at(holderMm, 'to the holder'), ...at(roomMm, 'to the room')];
}

function bent(map: TaperMap | null, { points, closed }: Line) {
  if (!map) return { points, closed };
  return { points: warpLine(map, closed ? [...points, points[0]!, points[1]!] : points), closed };
}

function text(map: TaperMap | null, words: string, u: number, v: number): Printed {
  const [xMm, yMm] = map ? warpPoint(map, u, v) : [u, v];
  const turn = map ? ((u - map.widthMm / 2) / map.midRadiusMm) * (map.wide === 'foot' ? -1 : 1) : 0;
  return { kind: 'text', name: 'words', text: words, xMm, yMm, heightMm: TEXT_MM, turnDeg: (turn * 180) / Math.PI };
}
