import {
  areaOf,
  boundsOf,
  boxRing,
  compose,
  flatten,
  intersect,
  scaling,
  signedArea,
  strokeArea,
  stretchOf,
  subtract,
  tolerances,
  transformRing,
  unite,
  type Curves,
  type FillRule,
  type Matrix,
  type Polyline,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { EVERYWHERE, type PlaceRules } from '../../words/index.js';
import type { Artwork, Clip, Paint, PaintedRegion } from './artwork.js';
import { dashed } from './dashes.js';
import { JOIN_MM } from './join-loops.js';
import { LooseLines } from './loose-lines.js';
import type { Noticed } from './noticed.js';
import { boxOfCrossings, HAIRLINE_STROKE_MM, noticedOf, nothingSaid, type Said } from './paint-notices.js';
import { areaOfLines, whyNotSane } from './sane-lines.js';

/** Remedies that are taken while an artwork is painted. */
export interface PaintRepair {
  /** Strokes thinner than a blade can follow: kept as they are, left out, or what they enclose filled. */
  readonly hairlines: 'keep' | 'drop' | 'fill';
  /** Outlines that cross themselves are filled whole, whatever their fill rule. */
  readonly fillCrossings: boolean;
  /** Ends of open outlines no further apart than this are joined. */
  readonly joinEndsMm: number;
  /** What reaches beyond the artboard is cut off at its edge, or taken all the same. */
  readonly beyondArtboard: 'cut' | 'take';
}

/** An artwork as it is drawn. */
export const NOTHING_PUT_RIGHT: PaintRepair = {
  hairlines: 'keep',
  fillCrossings: false,
  joinEndsMm: 0,
  beyondArtboard: 'cut',
};

/** Where an artwork is painted, and the remedies that are taken on the way. */
export interface PaintPlace {
  /** From the artwork's mm to those of the design at its final size. */
  readonly matrix: Matrix;
  /** How true curves must be there, mm. */
  readonly toleranceMm: number;
  readonly repair: PaintRepair;
  /** What was decided about single places of it. */
  readonly rules: PlaceRules;
}

/** The same for an artwork by itself, `scale` times its own size, nothing put right, its curves as true as they are cut or to `toleranceMm`. */
export function paintRegions(
  artwork: Artwork,
  scale: number,
  toleranceMm = flattenTolerance(Math.max(artwork.widthMm, artwork.heightMm) * scale),
): { regions: PaintedRegion[]; noticed: Noticed[] } {
  return paintPlaced(artwork, { matrix: scaling(scale), toleranceMm, repair: NOTHING_PUT_RIGHT, rules: EVERYWHERE });
}

/** Outlines of more points than this are no work for a blade, and would take minutes to plan. */
const MOST_POINTS = 250_000;

/** Every two colours are compared, and every one is a layer: nobody lays more. */
const MOST_COLOURS = 1000;

/** How true curves must be on a design whose longer side is given, mm. */
export function flattenTolerance(longestMm: number): number {
  return Math.min(tolerances.FLATTEN_MM, longestMm * tolerances.FLATTEN_SHARE);
}

/**
 * The artwork's paints as areas in mm where it is placed, bottom first, cut down to its own frame.
 * Curves are flattened here and not before, so that they are true to the tolerance at the size that is cut.
 * What was noticed tells what reached beyond the frame, what had to be left out, hairlines, and outlines that cross themselves.
 */
export function paintPlaced(artwork: Artwork, place: PaintPlace): { regions: PaintedRegion[]; noticed: Noticed[] } {
  const frame = boxRing({ minX: 0, minY: 0, maxX: artwork.widthMm, maxY: artwork.heightMm });
  const frameRings = [transformRing(frame, place.matrix)];
  const edge = boundsOf(frameRings)!;
  const clipAreas: ClipAreas = { matrix: place.matrix, tolerance: place.toleranceMm, known: new Map() };
  const regions: PaintedRegion[] = [];
  const said = nothingSaid();
  const keep = (paint: Pick<Paint, 'colour' | 'element' | 'clips'>, area: Rings): PaintedRegion | null => {
    let rings = area;
    for (const clip of paint.clips) rings = intersect(rings, clipArea(clip, clipAreas));
    const box = boundsOf(rings);
    if (!box) return null;
    const slack = tolerances.FLATTEN_MM;
    // The frame of a picture is no artboard: it lies round what makes up most of it.
    const isTaken = artwork.isPicture === true || place.repair.beyondArtboard === 'take';
    const reachesOut =
      !isTaken &&
      (box.minX < edge.minX - slack ||
        box.minY < edge.minY - slack ||
        box.maxX > edge.maxX + slack ||
        box.maxY > edge.maxY + slack);
    const whole = reachesOut ? areaOf(rings) : 0;
    if (
      !isTaken &&
      (isTurned(place.matrix) ||
        box.minX < edge.minX ||
        box.minY < edge.minY ||
        box.maxX > edge.maxX ||
        box.maxY > edge.maxY)
    )
      rings = intersect(rings, frameRings);
    // A hair beyond the frame is no loss that anyone could see.
    if (reachesOut && whole - areaOf(rings) > tolerances.CRUMB_MM2) said.outside.push(box);
    rings = rings.filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
    return rings.length > 0 ? { colour: paint.colour, rings, element: paint.element } : null;
  };
  const filled = new Set(
    artwork.paints.filter((paint) => paint.how.kind === 'fill').map((paint) => paint.elementIndex),
  );
  const loose = new LooseLines();
  for (const paint of artwork.paints) {
    const rings = paintedArea(paint, place, {
      said,
      filled,
      loose: (lines) => loose.add(paint, lines, regions.length),
    });
    if (said.points > MOST_POINTS) return { regions: [], noticed: [{ code: 'too-many-points', most: MOST_POINTS }] };
    const region = rings && keep(paint, rings);
    if (region) regions.push(region);
  }
  for (const { paint, at, rings, open } of loose.closed(Math.max(JOIN_MM, place.repair.joinEndsMm))) {
    const region = keep(paint, rings);
    if (region) regions.splice(at, 0, region);
    if (open.length > 0) said.open.push({ colour: paint.colour, lines: open });
  }
  const colours = new Set(regions.map((region) => region.colour)).size;
  if (colours > MOST_COLOURS)
    return { regions: [], noticed: [{ code: 'too-many-colours', colours, most: MOST_COLOURS }] };
  return { regions, noticed: noticedOf(said, place.repair.joinEndsMm) };
}

/** A dash ends square to the step that it ends on, wherever on a curve that is: steps are made shorter for it. */
const DASHED_SHARE = 1 / 25;

interface Around {
  readonly said: Said;
  /** Elements that have a fill, by their index. */
  readonly filled: ReadonlySet<number>;
  /** Takes hairlines that may close only together with others. */
  readonly loose: (lines: readonly Polyline[]) => void;
}

/** A paint's area before clipping, or null when it is left out. */
function paintedArea(paint: Paint, place: PaintPlace, around: Around): Rings | null {
  const { repair, rules } = place;
  const matrix = compose(place.matrix, paint.matrix);
  const lines = flatten(paint.curves, matrix, place.toleranceMm);
  for (const line of lines) around.said.points += line.points.length / 2;
  if (around.said.points > MOST_POINTS) return null;
  const why = whyNotSane(lines);
  if (why) {
    around.said.refused.push({ why, element: paint.element });
    return null;
  }
  if (paint.how.kind === 'fill') {
    if (paint.mayCross) return areaOfLines(lines, paint.how.rule);
    const rings = areaOfLines(lines, paint.how.rule);
    const crossing = boxOfCrossings(lines, rings);
    if (!crossing) return rings;
    if (repair.fillCrossings && rules.reaches('crossings', crossing)) return areaOfLines(lines, 'nonzero');
    around.said.crossings.push(crossing);
    return rings;
  }
  const box = boundsOf(lines.map((line) => line.points));
  if (box && paint.how.style.width * stretchOf(matrix) < HAIRLINE_STROKE_MM) {
    const remedy = rules.reaches('hairlines', box) ? repair.hairlines : 'keep';
    if (remedy === 'drop' || (remedy === 'fill' && around.filled.has(paint.elementIndex))) return null;
    if (remedy === 'fill') {
      const isLoose = (line: Polyline) => !line.closed && paint.clips.length === 0;
      around.loose(lines.filter(isLoose));
      const closed = lines.filter((line) => !isLoose(line));
      return closed.length > 0 ? areaOfLines(closed, 'nonzero') : null;
    }
    around.said.hairlines.push(box);
  }
  return paintedStroke(paint, paint.how, matrix, place.toleranceMm);
}

function isTurned([a, b, c, d]: Matrix): boolean {
  return (b !== 0 || c !== 0) && (a !== 0 || d !== 0);
}

function fillArea(curves: Curves, matrix: Matrix, rule: FillRule, tolerance: number): Ring[] {
  const lines = flatten(curves, matrix, tolerance);
  return whyNotSane(lines) ? [] : areaOfLines(lines, rule);
}

function paintedStroke(
  paint: Paint,
  how: Extract<Paint['how'], { kind: 'stroke' }>,
  matrix: Matrix,
  tolerance: number,
): Ring[] {
  // The stroke is made in user space enlarged to about mm, so that the kernel's grid is fine enough whatever the user unit is.
  const k = stretchOf(matrix);
  if (!(k > 0)) return [];
  const half = (how.style.width * k) / 2;
  let lines = flatten(paint.curves, scaling(k), how.dashes.length > 0 ? tolerance * DASHED_SHARE : tolerance, half);
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
  // One after the other only where some hide: the union of all at once is quicker.
  let area: Rings = clip.outlines.some(({ hides }) => hides)
    ? outlines.reduce<Rings>(
        (sum, rings, i) => (clip.outlines[i]!.hides ? subtract(sum, rings) : unite([...sum, ...rings])),
        [],
      )
    : unite(outlines.flat());
  for (const outer of clip.clips) area = intersect(area, clipArea(outer, areas));
  areas.known.set(clip, area);
  return area;
}
