import { warpLine } from '../engines/surface/index.js';
import { boundsOf, boxRing, joinBoxes, unite, widenBox, type Box } from '../geometry/index.js';
import {
  tilePages,
  writePrint,
  writePrintPages,
  type Paper,
  type PrintDrawing,
  type Printed,
  type PrintFormat,
} from '../print/index.js';
import { wrapTemplate } from '../stations/surface/index.js';
import { formatLength, InputError } from '../words/index.js';
import type { Plan } from './plan.js';
import { weedMapDrawing } from './print-weed-map.js';
import { sayNothingSized, sayNothingToPrint } from './say.js';

/** What can be printed of a job at true scale: the design's outline to be taped to the surface, what is wrapped round it, or the map that its layers are weeded by. */
export const PRINTS = ['pattern', 'wrap', 'weed-map'] as const;
export type JobPrint = (typeof PRINTS)[number];

/** On one page of its own size in an open format, or on sheets of paper that are glued together. */
export const PRINT_ON = ['svg', 'dxf', 'pdf', 'a4', 'a3'] as const satisfies readonly (PrintFormat | Paper)[];
export type PrintOn = (typeof PRINT_ON)[number];

/** `filmId` prints the weed map of one layer. @throws InputError `nothing-to-print`, `no-wrap`, `too-long-for-pdf` */
export async function printJob(
  plan: Plan,
  what: JobPrint,
  on: PrintOn,
  filmId: string | null = null,
): Promise<Uint8Array> {
  const drawing = what === 'pattern' ? patternOf(plan) : what === 'wrap' ? wrapOf(plan) : weedMapDrawing(plan, filmId);
  return on === 'a4' || on === 'a3' ? writePrintPages(drawing, tilePages(drawing, on)) : writePrint(drawing, on);
}

function wrapOf({ surface }: Plan): PrintDrawing {
  if (!surface) throw new InputError('nothing-to-print', sayNothingSized(), { source: 'print' });
  return wrapTemplate(surface.surface);
}

const INK = '#000000';
const GREY = '#777777';
/** Round the drawing, mm. */
const EDGE_MM = 12;
const TEXT_MM = 5;

/** The outline of all that is laid, at true size, with its centre lines, measures, and the split lines of panels. */
function patternOf({ surface, panels, build }: Plan): PrintDrawing {
  const rings = unite((build?.layers ?? []).flatMap(({ cut }) => cut));
  const box = boundsOf(rings);
  if (!surface || !box) throw new InputError('nothing-to-print', sayNothingToPrint(), { source: 'print' });
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const { map, design } = surface;
  const [midX, midY] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const across = map
    ? warpLine(map, [-EDGE_MM, design.heightMm / 2, design.widthMm + EDGE_MM, design.heightMm / 2])
    : [box.minX - EDGE_MM, midY, box.maxX + EDGE_MM, midY];
  const isSplit = panels?.along === 'across' || panels?.along === 'down';
  const split = (isSplit && panels ? panels.panels.slice(1) : []).map(
    ({ own, bends }) =>
      bends.before ??
      (panels!.along === 'across'
        ? [own.minX, box.minY - EDGE_MM, own.minX, box.maxY + EDGE_MM]
        : [box.minX - EDGE_MM, own.minY, box.maxX + EDGE_MM, own.minY]),
  );
  const items: Printed[] = [
    {
      kind: 'lines',
      name: 'outline',
      colour: INK,
      widthMm: 0.35,
      dashed: false,
      lines: rings.map((points) => ({ points, closed: true })),
    },
    {
      kind: 'lines',
      name: 'frame',
      colour: GREY,
      widthMm: 0.2,
      dashed: false,
      lines: [{ points: boxRing(box), closed: true }],
    },
    {
      kind: 'lines',
      name: 'centre',
      colour: GREY,
      widthMm: 0.2,
      dashed: true,
      lines: [
        { points: [midX, box.minY - EDGE_MM, midX, box.maxY + EDGE_MM], closed: false },
        { points: across, closed: false },
      ],
    },
    ...(split.length > 0
      ? [
          {
            kind: 'lines',
            name: 'panels',
            colour: INK,
            widthMm: 0.25,
            dashed: true,
            lines: split.map((points) => ({ points, closed: false })),
          } as const,
        ]
      : []),
    ...(panels?.along
      ? panels.panels.map(({ number, label, own }): Printed => ({
          kind: 'text',
          name: 'numbers',
          text: label ?? `Panel ${number}`,
          xMm: (own.minX + own.maxX) / 2,
          yMm: own.minY - 2,
          heightMm: TEXT_MM,
          turnDeg: 0,
        }))
      : []),
    {
      kind: 'text',
      name: 'measures',
      text: `${formatLength(width)} mm`,
      xMm: midX + width / 4,
      yMm: box.maxY + TEXT_MM + 2,
      heightMm: TEXT_MM,
      turnDeg: 0,
    },
    {
      kind: 'text',
      name: 'measures',
      text: `${formatLength(height)} mm`,
      xMm: box.minX - 3,
      yMm: midY - height / 4,
      heightMm: TEXT_MM,
      turnDeg: -90,
    },
  ];
  const all = joinBoxes(box, boundsOf([Float64Array.from(across)]))! satisfies Box;
  return { title: 'Pattern', box: widenBox(all, EDGE_MM), items };
}
