import {
  compose,
  CurvesBuilder,
  flatten,
  IDENTITY,
  rotation,
  scaling,
  translation,
  type Curves,
  type Matrix,
} from '../../../geometry/index.js';
import { parseSvgLength } from './lengths.js';
import { parseViewBox, viewBoxMatrix } from './transform.js';
import type { XmlElement } from './xml.js';

/** A corner of a path, and the ways in and out of it as unit vectors; none at an open end. */
export interface PathVertex {
  readonly x: number;
  readonly y: number;
  readonly into: Direction | null;
  readonly out: Direction | null;
}
type Direction = readonly [dx: number, dy: number];

const COORDS = { M: 2, L: 2, C: 6, A: 7, Z: 0 } as const;
/** Directions of arcs are taken from stretches this fine, as a share of the path's own size. */
const FINE = 1e-7;

/** The corners of a path in the order in which it is drawn, as markers stand on them. */
export function verticesOf({ ops, coords }: Curves): PathVertex[] {
  const vertices: { x: number; y: number; into: Direction | null; out: Direction | null }[] = [];
  let at = 0;
  let [x, y, first] = [0, 0, 0];
  const size = coords.reduce((most, v) => Math.max(most, Math.abs(v)), 1e-6);
  for (const op of ops) {
    const own = coords.slice(at, at + COORDS[op]);
    at += COORDS[op];
    if (op === 'M') {
      first = vertices.length;
      [x, y] = [own[0]!, own[1]!];
      vertices.push({ x, y, into: null, out: null });
      continue;
    }
    const segment = new CurvesBuilder();
    segment.add('M', x, y);
    if (op === 'Z') segment.add('L', vertices[first]!.x, vertices[first]!.y);
    else segment.add(op, ...own);
    // A Bézier curve sets out towards its control points, and comes in from them; of arcs fine stretches tell as much.
    const points =
      op === 'C'
        ? withoutRepeats([x, y, ...own])
        : withoutRepeats(flatten(segment.build(), IDENTITY, size * FINE)[0]?.points ?? [x, y]);
    const n = points.length;
    const unit = (dx: number, dy: number): Direction | null =>
      Math.hypot(dx, dy) > 0 ? [dx / Math.hypot(dx, dy), dy / Math.hypot(dx, dy)] : null;
    vertices.at(-1)!.out = n >= 4 ? unit(points[2]! - points[0]!, points[3]! - points[1]!) : null;
    const into = n >= 4 ? unit(points[n - 2]! - points[n - 4]!, points[n - 1]! - points[n - 3]!) : null;
    [x, y] = [points[n - 2]!, points[n - 1]!];
    // A closed path ends where it began, and there turns into its own first stretch.
    const out = op === 'Z' ? vertices[first]!.out : null;
    if (op === 'Z') vertices[first]!.into ??= into;
    vertices.push({ x, y, into, out });
  }
  return vertices;
}

function withoutRepeats(points: ArrayLike<number>): number[] {
  const out = [points[0]!, points[1]!];
  for (let i = 2; i < points.length; i += 2)
    if (points[i] !== out.at(-2) || points[i + 1] !== out.at(-1)) out.push(points[i]!, points[i + 1]!);
  return out;
}

/** From a marker's own space to the path's: where it stands, turned and sized as it asks. `which` is its place on the path. */
export function markerPlacement(
  marker: XmlElement,
  { x, y, into, out }: PathVertex,
  which: 'start' | 'mid' | 'end',
  strokeWidth: number,
): MarkerPlacement {
  const a = marker.attributes;
  const [width, height] = [parseSvgLength(a['markerWidth'], 3) ?? 3, parseSvgLength(a['markerHeight'], 3) ?? 3];
  const box = parseViewBox(a['viewBox']);
  const fit = box ? viewBoxMatrix(box, width, height, a['preserveAspectRatio']) : IDENTITY;
  const [refX, refY] = [
    parseSvgLength(a['refX'], box?.width ?? width) ?? 0,
    parseSvgLength(a['refY'], box?.height ?? height) ?? 0,
  ];
  const k = a['markerUnits'] === 'userSpaceOnUse' ? 1 : strokeWidth;
  const orient = (a['orient'] ?? '0').trim();
  const turn =
    orient === 'auto' || orient === 'auto-start-reverse'
      ? wayThrough(into, out) + (orient === 'auto-start-reverse' && which === 'start' ? 180 : 0)
      : Number.parseFloat(orient) || 0;
  // The reference point, as it lies after fitting, stands on the corner.
  const [px, py] = [fit[0] * refX + fit[2] * refY + fit[4], fit[1] * refX + fit[3] * refY + fit[5]];
  const frame = [rotation(turn), scaling(k), translation(-px, -py)].reduce(compose, translation(x, y));
  return { frame, content: compose(frame, fit), width, height, viewport: box ?? { width, height } };
}

export interface MarkerPlacement {
  /** From the marker's frame, `width` by `height`, to the path's space. */
  readonly frame: Matrix;
  /** From the units its content is drawn in. */
  readonly content: Matrix;
  readonly width: number;
  readonly height: number;
  readonly viewport: { readonly width: number; readonly height: number };
}

/** Degrees of the way through a corner: half-way between in and out. */
function wayThrough(into: Direction | null, out: Direction | null): number {
  const [a, b] = [into ?? out ?? ([1, 0] as const), out ?? into ?? ([1, 0] as const)];
  const [dx, dy] = [a[0] + b[0], a[1] + b[1]];
  // Straight back: across the way in, as good as any.
  const turned = Math.hypot(dx, dy) < 1e-9 ? Math.atan2(a[0], -a[1]) : Math.atan2(dy, dx);
  return (turned * 180) / Math.PI;
}
