import { comesOut, pullOrder } from '../engines/weeding/index.js';
import { boundsOf, joinBoxes, translateRings, widenBox, type Box } from '../geometry/index.js';
import type { PrintDrawing, Printed } from '../print/index.js';
import type { PreparedLayer } from '../stations/prepare/index.js';
import { InputError } from '../words/index.js';
import type { Plan } from './plan.js';
import { sayNothingToPrint } from './say.js';

const INK = '#000000';
const GREY = '#777777';
const LIGHT = '#e4e4e4';
/** Round the drawing, and between two layers, mm. */
const EDGE_MM = 12;
/** How high numbers are, mm; titles. */
const NUMBER_MM = 3;
const TITLE_MM = 5;
/** Across the box or ring round a number, mm. */
const SPOT_MM = 5;

/** The weed map of a layer, or of all of them below each other, at true size: what stays is grey, numbers and arrows as on the screen. @throws InputError `nothing-to-print` */
export function weedMapDrawing({ prepare }: Plan, filmId: string | null): PrintDrawing {
  const layers = (prepare?.layers ?? []).filter(({ layer }) => filmId === null || layer.film.id === filmId);
  if (layers.length === 0) throw new InputError('nothing-to-print', sayNothingToPrint(), { source: 'print' });
  const items: Printed[] = [];
  let all: Box | null = null;
  for (const layer of layers) {
    const box = boundsOf([...layer.border, ...layer.layer.cut])!;
    // Below what is there already, with room for its title.
    const [dx, dy] = [-box.minX, (all ? all.maxY + EDGE_MM : 0) + 2 * TITLE_MM - box.minY];
    items.push(...itemsOf(layer, box, dx, dy));
    all = joinBoxes(all, { minX: 0, minY: dy + box.minY - 2 * TITLE_MM, maxX: dx + box.maxX, maxY: dy + box.maxY });
  }
  return { title: 'Weed map', box: widenBox(all!, EDGE_MM), items };
}

function itemsOf(
  { layer, panel, border, relief, labels, strips, weed }: PreparedLayer,
  box: Box,
  dx: number,
  dy: number,
): Printed[] {
  const rings = (some: readonly Float64Array[]) => translateRings(some, dx, dy);
  const lines = (some: readonly (readonly number[])[]) =>
    some.map((line) => ({ points: line.map((v, i) => v + (i % 2 === 0 ? dx : dy)), closed: false }));
  const number = (text: string, x: number, y: number): Printed => ({
    kind: 'text',
    name: 'numbers',
    text,
    xMm: x + dx,
    yMm: y + dy + NUMBER_MM / 3,
    heightMm: NUMBER_MM,
    turnDeg: 0,
  });
  const pulled = pullOrder(strips);
  const marks = panel.marks?.marks.map(({ ring }) => ring) ?? [];
  const part = panel.of > 1 ? `, ${panel.label ?? `panel ${panel.number}`}` : '';
  return [
    {
      kind: 'text',
      name: 'titles',
      text: `${layer.film.name}${part}: ${weed.spots.length} to look for`,
      xMm: (box.minX + box.maxX) / 2 + dx,
      yMm: box.minY + dy - TITLE_MM,
      heightMm: TITLE_MM,
      turnDeg: 0,
    },
    { kind: 'area', name: 'stays', colour: LIGHT, rings: rings(layer.cut) },
    {
      kind: 'lines',
      name: 'outlines',
      colour: INK,
      widthMm: 0.25,
      dashed: false,
      lines: rings([...layer.cut, ...border]).map((points) => ({ points, closed: true })),
    },
    // Marks have a look of their own: they stay until the end, and are no part of the work.
    ...(marks.length > 0
      ? [
          {
            kind: 'lines',
            name: 'marks',
            colour: INK,
            widthMm: 0.6,
            dashed: true,
            lines: rings(marks).map((points) => ({ points, closed: true })),
          } as const,
        ]
      : []),
    ...(relief.length > 0
      ? [{ kind: 'lines', name: 'relief', colour: INK, widthMm: 0.35, dashed: true, lines: lines(relief) } as const]
      : []),
    ...(labels.length > 0
      ? [{ kind: 'lines', name: 'labels', colour: GREY, widthMm: 0.15, dashed: false, lines: lines(labels) } as const]
      : []),
    ...(weed.spots.length > 0
      ? [
          {
            kind: 'lines',
            name: 'places',
            colour: INK,
            widthMm: 0.2,
            dashed: false,
            lines: weed.spots.map(({ kind, xMm, yMm }) => ({
              points: signAt(xMm + dx, yMm + dy, comesOut(kind)),
              closed: true,
            })),
          } as const,
        ]
      : []),
    ...weed.spots.map(({ xMm, yMm }, i) => number(String(i + 1), xMm, yMm)),
    ...(pulled.length > 1
      ? [
          {
            kind: 'lines',
            name: 'pulls',
            colour: INK,
            widthMm: 0.35,
            dashed: false,
            lines: lines(pulled.flatMap(({ pull: { fromX, fromY, toX, toY } }) => arrow(fromX, fromY, toX, toY))),
          } as const,
          ...pulled.map(({ strip }, i) => number(`strip ${i + 1}`, strip.xMm, strip.yMm)),
        ]
      : []),
  ];
}

function signAt(x: number, y: number, isRound: boolean): number[] {
  const r = SPOT_MM / 2;
  return isRound
    ? Array.from({ length: 24 }, (_, i) => [
        x + r * Math.cos((Math.PI * i) / 12),
        y + r * Math.sin((Math.PI * i) / 12),
      ]).flat()
    : [x - r, y - r, x + r, y - r, x + r, y + r, x - r, y + r];
}

function arrow(fromX: number, fromY: number, toX: number, toY: number): number[][] {
  const length = Math.hypot(toX - fromX, toY - fromY) || 1;
  const [ux, uy] = [((toX - fromX) / length) * NUMBER_MM, ((toY - fromY) / length) * NUMBER_MM];
  return [
    [fromX, fromY, toX, toY],
    [toX - ux - uy / 2, toY - uy + ux / 2, toX, toY, toX - ux + uy / 2, toY - uy - ux / 2],
  ];
}
