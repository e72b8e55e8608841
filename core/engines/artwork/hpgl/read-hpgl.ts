import { boundsOf, CurvesBuilder, IDENTITY, joinBoxes, widenBox, type Box } from '../../../geometry/index.js';
import { UNITS_PER_MM } from '../../cutting/index.js';
import type { Artwork, Paint } from '../artwork.js';
import { JOIN_MM } from '../join-loops.js';
import { paintsOfLines, type ColouredLines } from '../line-paints.js';
import type { Noticed } from '../noticed.js';
import { Refusal } from '../refusal.js';
import { instructionsOf } from './instructions.js';
import { Plotter, type DrawnLine } from './plotter.js';

/** Of a plotter's pens, the colours that ours draw in; further pens begin with the first again. */
const PENS = ['#16181a', '#b3262b', '#1f6b45', '#1d4e89', '#f2b632', '#7a3e8e', '#8a5a2b', '#5b6770'];
const MOST_MOVES = 2_000_000;
/** A pen that is said to be wider draws areas, mm; a finer one draws the outlines of areas. Source: technical pens are up to 0.7 wide. */
const FINE_PEN_MM = 0.7;
/** As wide as a pen is that nothing is said of, mm. Source: the HP-GL/2 reference. */
const USUAL_PEN_MM = 0.35;

/**
 * Reads HP-GL of a plotter or an old cutter by pen, at true size (40 units to the millimetre): what is driven with the pen down, with arcs, circles, wedges,
 * rectangles, polygons and Béziers. Closed lines are outlines, as in a DXF; a pen is a colour. Lines of a wide pen are areas by themselves, and so are the single
 * strokes of letters that the plotter would write.
 *
 * @throws Refusal when nothing in it is drawn
 */
export function readHpgl(bytes: Uint8Array, source: string, joinEndsMm = 0): Artwork {
  const plotter = new Plotter();
  for (const instruction of instructionsOf(new TextDecoder('latin1').decode(bytes))) {
    plotter.take(instruction);
    if (plotter.moves > MOST_MOVES) throw new Refusal('too-many-shapes', { most: MOST_MOVES }, { source });
  }
  plotter.lift();
  return artworkOf(plotter, source, Math.max(JOIN_MM, joinEndsMm));
}

/** How wide a line is as an area by itself, mm; null where it is the outline of one. */
function bandOf({ widthMm, isLetter }: DrawnLine): number | null {
  if (isLetter) return widthMm ?? USUAL_PEN_MM;
  return widthMm !== null && widthMm > FINE_PEN_MM ? widthMm : null;
}

function colourOf(pen: number): string {
  return PENS[(Math.max(1, Math.round(pen)) - 1) % PENS.length]!;
}

function artworkOf({ lines: drawn, left, far }: Plotter, source: string, joinMm: number): Artwork {
  const noticed: Noticed[] = [...left].map(([name, count]) => ({ code: 'hpgl-left', name, count }));
  if (far > 0) noticed.push({ code: 'out-of-range', what: 'A line', why: 'far', count: far });
  const box = [...drawn.values()].flat().reduce<Box | null>((all, line) => {
    const own = boundsOf([line.points]);
    return joinBoxes(all, own && widenBox(own, ((bandOf(line) ?? 0) * UNITS_PER_MM) / 2));
  }, null);
  if (!box) throw new Refusal('hpgl-nothing-drawn', {}, { source });
  const { minX, minY, maxX, maxY } = box;
  const byColour = new Map<string, ColouredLines>();
  const bands = new Map<
    string,
    { readonly colour: string; readonly widthMm: number; readonly curves: CurvesBuilder }
  >();
  const lines = new CurvesBuilder();
  for (const [pen, some] of drawn) {
    const colour = colourOf(pen);
    for (const line of some) {
      const points = Float64Array.from(line.points, (v, i) => (i % 2 === 0 ? v - minX : maxY - v) / UNITS_PER_MM);
      const widthMm = bandOf(line);
      const key = `${colour} ${widthMm}`;
      const band = bands.get(key) ?? { colour, widthMm: widthMm ?? 0, curves: new CurvesBuilder() };
      const curves = widthMm === null ? lines : band.curves;
      points.forEach((_, i) => i % 2 === 0 && curves.add(i === 0 ? 'M' : 'L', points[i]!, points[i + 1]!));
      if (widthMm !== null) {
        bands.set(key, band);
        continue;
      }
      const group = byColour.get(colour) ?? { loops: [], open: [] };
      byColour.set(colour, group);
      const closes = points.length >= 8 && Math.hypot(points[0]! - points.at(-2)!, points[1]! - points.at(-1)!) < 1e-6;
      if (closes) group.loops.push(points.subarray(0, -2));
      else group.open.push([...points]);
    }
  }
  const paints = paintsOfLines(byColour, joinMm, (one) => noticed.push(one));
  return {
    widthMm: Math.max((maxX - minX) / UNITS_PER_MM, 1e-3),
    heightMm: Math.max((maxY - minY) / UNITS_PER_MM, 1e-3),
    paints: [...paints, ...[...bands.values()].map((band, i) => bandPaint(band, paints.length + i))],
    lines: [{ curves: lines.build(), matrix: IDENTITY }],
    noticed,
  };
}

function bandPaint(
  { colour, widthMm, curves }: { readonly colour: string; readonly widthMm: number; readonly curves: CurvesBuilder },
  elementIndex: number,
): Paint {
  return {
    colour,
    curves: curves.build(),
    matrix: IDENTITY,
    how: {
      kind: 'stroke',
      style: { width: widthMm, join: 'round', cap: 'round', miterLimit: 4 },
      dashes: [],
      dashOffset: 0,
    },
    clips: [],
    element: `strokes in ${colour}`,
    elementIndex,
    mayCross: true,
  };
}
