import {
  boundsOf,
  boxRing,
  compose,
  flatten,
  intersect,
  joinBoxes,
  scaling,
  signedArea,
  strokeArea,
  stretchOf,
  tolerances,
  transformRing,
  unite,
  type Box,
  type Curves,
  type FillRule,
  type Matrix,
  type Polyline,
  type Ring,
  type Rings,
} from '../geometry/index.js';
import { countFindings, type Finding } from '../job/index.js';
import type { Artwork, Clip, Paint, PaintedRegion } from './artwork.js';
import { dashed } from './dashes.js';
import { whyNotSane } from './sane-lines.js';

/**
 * The artwork's paints as areas in mm at `scale` times its own size, bottom first, cut down to the frame.
 * Curves are flattened here and not before, so that they are true to FLATTEN_MM or better at the size that is cut.
 * A finding says when something reached beyond the frame.
 */
export function paintRegions(artwork: Artwork, scale: number): { regions: PaintedRegion[]; findings: Finding[] } {
  const frame = { minX: 0, minY: 0, maxX: artwork.widthMm * scale, maxY: artwork.heightMm * scale };
  const frameRings = [boxRing(frame)];
  const tolerance = Math.min(tolerances.FLATTEN_MM, Math.max(frame.maxX, frame.maxY) * tolerances.FLATTEN_SHARE);
  const clipAreas: ClipAreas = { scale, tolerance, known: new Map() };
  const regions: PaintedRegion[] = [];
  const outside: Box[] = [];
  const refused: { readonly why: 'out-of-range' | 'too-tangled'; readonly element: string }[] = [];
  for (const paint of artwork.paints) {
    const matrix = compose(scaling(scale), paint.matrix);
    const lines = flatten(paint.curves, matrix, tolerance);
    const why = whyNotSane(lines);
    if (why) {
      refused.push({ why, element: paint.element });
      continue;
    }
    let rings: Rings = paint.how.kind === 'fill' ? areaOfLines(lines, paint.how.rule) : paintedStroke(paint, paint.how, matrix, tolerance);
    for (const clip of paint.clips) rings = intersect(rings, clipArea(clip, clipAreas));
    const box = boundsOf(rings);
    if (!box) continue;
    const slack = tolerances.FLATTEN_MM;
    if (box.minX < -slack || box.minY < -slack || box.maxX > frame.maxX + slack || box.maxY > frame.maxY + slack) outside.push(box);
    if (box.minX < 0 || box.minY < 0 || box.maxX > frame.maxX || box.maxY > frame.maxY) rings = intersect(rings, frameRings);
    rings = rings.filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
    if (rings.length > 0) regions.push({ colour: paint.colour, rings, element: paint.element });
  }
  const findings: Finding[] = refused.map(({ why, element }) => ({ code: why, severity: 'warning', stage: 'artwork', message: `${element} ${REFUSED[why]}; it was left out.` }));
  if (outside.length > 0) {
    findings.push({
      code: 'outside-frame',
      severity: 'note',
      stage: 'artwork',
      message: 'Something reaches beyond the artboard; what lies outside is not cut.',
      count: outside.length,
      where: outside.reduce<Box | null>(joinBoxes, null)!,
    });
  }
  return { regions, findings: countFindings(findings) };
}

function fillArea(curves: Curves, matrix: Matrix, rule: FillRule, tolerance: number): Ring[] {
  const lines = flatten(curves, matrix, tolerance);
  return whyNotSane(lines) ? [] : areaOfLines(lines, rule);
}

const REFUSED = {
  'out-of-range': 'reaches further than a kilometre',
  'too-tangled': 'crosses itself millions of times',
} as const;

function areaOfLines(lines: readonly Polyline[], rule: FillRule): Ring[] {
  return unite(
    lines.map((line) => line.points).filter((points) => points.length >= 6),
    rule,
  );
}

function paintedStroke(paint: Paint, how: Extract<Paint['how'], { kind: 'stroke' }>, matrix: Matrix, tolerance: number): Ring[] {
  // The stroke is made in user space enlarged to about mm, so that the kernel's grid is fine enough whatever the user unit is.
  const k = stretchOf(matrix);
  if (!(k > 0)) return [];
  let lines = flatten(paint.curves, scaling(k), tolerance);
  if (how.dashes.length > 0) {
    lines = dashed(
      lines,
      how.dashes.map((d) => d * k),
      how.dashOffset * k,
    );
  }
  const area = strokeArea(lines, { ...how.style, width: how.style.width * k }, tolerance / 2);
  const toMm = compose(matrix, scaling(1 / k));
  return unite(area.map((ring) => transformRing(ring, toMm)));
}

/** The areas of the clips met so far: many paints share one. */
interface ClipAreas {
  readonly scale: number;
  readonly tolerance: number;
  readonly known: Map<Clip, Rings>;
}

function clipArea(clip: Clip, areas: ClipAreas): Rings {
  const before = areas.known.get(clip);
  if (before) return before;
  const outlines = clip.outlines.map((o) => {
    let rings: Rings = fillArea(o.curves, compose(scaling(areas.scale), o.matrix), o.rule, areas.tolerance);
    for (const inner of o.clips) rings = intersect(rings, clipArea(inner, areas));
    return rings;
  });
  let area: Rings = unite(outlines.flat());
  for (const outer of clip.clips) area = intersect(area, clipArea(outer, areas));
  areas.known.set(clip, area);
  return area;
}
