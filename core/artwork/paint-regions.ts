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
import { countFindings, NO_REPAIR, type Finding, type Recipe } from '../job/index.js';
import type { Artwork, Clip, Paint, PaintedRegion } from './artwork.js';
import { dashed } from './dashes.js';
import { whyNotSane } from './sane-lines.js';

/** Strokes thinner than this at the size of the job no blade can follow on both sides: its own play and the film's give are more, mm. */
const HAIRLINE_STROKE_MM = 0.3;
/** At most so many places are told of one finding. */
const MOST_PLACES = 60;

/** Where an artwork is painted, and the remedies that are taken on the way. */
export interface PaintPlace {
  /** From the artwork's mm to those of the design at its final size. */
  readonly matrix: Matrix;
  /** How true curves must be there, mm. */
  readonly toleranceMm: number;
  readonly repair: Pick<Recipe['repair'], 'hairlines' | 'fillCrossings'>;
}

/** The same for an artwork by itself, `scale` times its own size, nothing put right. */
export function paintRegions(artwork: Artwork, scale: number): { regions: PaintedRegion[]; findings: Finding[] } {
  const longest = Math.max(artwork.widthMm, artwork.heightMm) * scale;
  return paintPlaced(artwork, { matrix: scaling(scale), toleranceMm: flattenTolerance(longest), repair: NO_REPAIR });
}

/** How true curves must be on a design whose longer side is given, mm. */
export function flattenTolerance(longestMm: number): number {
  return Math.min(tolerances.FLATTEN_MM, longestMm * tolerances.FLATTEN_SHARE);
}

/**
 * The artwork's paints as areas in mm where it is placed, bottom first, cut down to its own frame.
 * Curves are flattened here and not before, so that they are true to the tolerance at the size that is cut.
 * Findings tell what reached beyond the frame, what had to be left out, hairlines, and outlines that cross themselves.
 */
export function paintPlaced(artwork: Artwork, place: PaintPlace): { regions: PaintedRegion[]; findings: Finding[] } {
  const frame = boxRing({ minX: 0, minY: 0, maxX: artwork.widthMm, maxY: artwork.heightMm });
  const frameRings = [transformRing(frame, place.matrix)];
  const edge = boundsOf(frameRings)!;
  const clipAreas: ClipAreas = { matrix: place.matrix, tolerance: place.toleranceMm, known: new Map() };
  const regions: PaintedRegion[] = [];
  const said: Said = { outside: [], hairlines: [], crossings: [], refused: [] };
  const filled = new Set(artwork.paints.filter((paint) => paint.how.kind === 'fill').map((paint) => paint.elementIndex));
  for (const paint of artwork.paints) {
    let rings = paintedArea(paint, place, said, filled);
    if (!rings) continue;
    for (const clip of paint.clips) rings = intersect(rings, clipArea(clip, clipAreas));
    const box = boundsOf(rings);
    if (!box) continue;
    const slack = tolerances.FLATTEN_MM;
    if (box.minX < edge.minX - slack || box.minY < edge.minY - slack || box.maxX > edge.maxX + slack || box.maxY > edge.maxY + slack) said.outside.push(box);
    if (isTurned(place.matrix) || box.minX < edge.minX || box.minY < edge.minY || box.maxX > edge.maxX || box.maxY > edge.maxY) rings = intersect(rings, frameRings);
    rings = rings.filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
    if (rings.length > 0) regions.push({ colour: paint.colour, rings, element: paint.element });
  }
  return { regions, findings: countFindings(findingsOf(said)) };
}

/** What was noticed while painting. */
interface Said {
  readonly outside: Box[];
  readonly hairlines: Box[];
  readonly crossings: Box[];
  readonly refused: { readonly why: 'out-of-range' | 'too-tangled'; readonly element: string }[];
}

/** A paint's area before clipping, or null when it is left out. */
function paintedArea(paint: Paint, place: PaintPlace, said: Said, filled: ReadonlySet<number>): Rings | null {
  const matrix = compose(place.matrix, paint.matrix);
  const lines = flatten(paint.curves, matrix, place.toleranceMm);
  const why = whyNotSane(lines);
  if (why) {
    said.refused.push({ why, element: paint.element });
    return null;
  }
  if (paint.how.kind === 'fill') {
    const rings = areaOfLines(lines, place.repair.fillCrossings ? 'nonzero' : paint.how.rule);
    if (!paint.mayCross && !place.repair.fillCrossings) said.crossings.push(...crossingPlaces(lines, rings));
    return rings;
  }
  if (paint.how.style.width * stretchOf(matrix) < HAIRLINE_STROKE_MM) {
    const box = boundsOf(lines.map((line) => line.points));
    if (place.repair.hairlines === 'drop' || (place.repair.hairlines === 'fill' && filled.has(paint.elementIndex))) return null;
    if (place.repair.hairlines === 'fill') return areaOfLines(lines, 'nonzero');
    if (box) said.hairlines.push(box);
  }
  return paintedStroke(paint, paint.how, matrix, place.toleranceMm);
}

function isTurned([a, b, c, d]: Matrix): boolean {
  return (b !== 0 || c !== 0) && (a !== 0 || d !== 0);
}

/** Where an area has corners that its outlines did not have: there they cross. */
function crossingPlaces(lines: readonly Polyline[], rings: Rings): Box[] {
  // Far under the kernel's own rounding two points are one; a cell's four corners are tried, since a point may lie by its edge.
  const cell = 1e-4;
  const key = (x: number, y: number) => Math.round(x / cell) * 4_294_967 + Math.round(y / cell);
  const corners = new Set<number>();
  for (const { points } of lines) for (let i = 0; i < points.length; i += 2) corners.add(key(points[i]!, points[i + 1]!));
  const near = 2e-7;
  const isOld = (x: number, y: number) => [-near, near].some((dx) => [-near, near].some((dy) => corners.has(key(x + dx, y + dy))));
  const places: Box[] = [];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      if (!isOld(x, y)) places.push({ minX: x, minY: y, maxX: x, maxY: y });
    }
  }
  return places;
}

function findingsOf({ outside, hairlines, crossings, refused }: Said): Finding[] {
  const findings: Finding[] = refused.map(({ why, element }) => ({ code: why, severity: 'warning', stage: 'artwork', message: `${element} ${REFUSED[why]}; it was left out.` }));
  const placed = (places: readonly Box[]) => ({ count: places.length, where: places[0]!, places: places.slice(0, MOST_PLACES) });
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
  if (hairlines.length > 0) {
    findings.push({
      code: 'hairlines',
      severity: 'warning',
      stage: 'artwork',
      message: `Strokes are thinner than ${HAIRLINE_STROKE_MM} mm at this size: a blade cannot follow both their sides.`,
      ...placed(hairlines),
      remedies: [
        { label: 'Fill what they enclose', patch: { repair: { hairlines: 'fill' } } },
        { label: 'Leave them out', patch: { repair: { hairlines: 'drop' } } },
      ],
    });
  }
  if (crossings.length > 0) {
    findings.push({
      code: 'self-crossing',
      severity: 'note',
      stage: 'artwork',
      message: 'Outlines cross themselves. They are joined as their drawing paints them, so that no cut runs across.',
      ...placed(crossings),
      remedies: [{ label: 'Fill them whole', patch: { repair: { fillCrossings: true } } }],
    });
  }
  return findings;
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
  readonly matrix: Matrix;
  readonly tolerance: number;
  readonly known: Map<Clip, Rings>;
}

function clipArea(clip: Clip, areas: ClipAreas): Rings {
  const before = areas.known.get(clip);
  if (before) return before;
  const outlines = clip.outlines.map((o) => {
    let rings: Rings = fillArea(o.curves, compose(areas.matrix, o.matrix), o.rule, areas.tolerance);
    for (const inner of o.clips) rings = intersect(rings, clipArea(inner, areas));
    return rings;
  });
  let area: Rings = unite(outlines.flat());
  for (const outer of clip.clips) area = intersect(area, clipArea(outer, areas));
  areas.known.set(clip, area);
  return area;
}
