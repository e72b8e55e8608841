import { CurvesBuilder } from '../../../geometry/index.js';
import { fittedPoints, splinePoints } from './spline.js';
import { numberOf, numbersOf, type Entity, type Tag } from './tags.js';

type Builder = CurvesBuilder;

/** The line that an entity draws, in its own coordinates (y up), or null when it is none of the kinds that draw one. */
export function outlineOf(entity: Entity, vertices: readonly Entity[]): Builder | null {
  const n = (code: number, otherwise = 0) => numberOf(entity, code, otherwise);
  const out = new CurvesBuilder();
  switch (entity.type) {
    case 'LINE':
      return out.add('M', n(10), n(20)).add('L', n(11), n(21));
    case 'CIRCLE':
      return out
        .add('M', n(10) + n(40), n(20))
        .add('A', n(10), n(20), n(40), n(40), 0, 0, 2 * Math.PI)
        .add('Z');
    case 'ARC':
      return arc(out, { x: n(10), y: n(20), r: n(40), fromDeg: n(50), toDeg: n(51) }, true);
    case 'ELLIPSE':
      // Seen from behind, its angles run the other way.
      return ellipse(
        out,
        {
          x: n(10),
          y: n(20),
          majorX: n(11),
          majorY: n(21),
          ratio: n(40, 1) * (n(230, 1) < 0 ? -1 : 1),
          from: n(41),
          to: n(42, 2 * Math.PI),
        },
        true,
      );
    case 'LWPOLYLINE':
      return polyline(out, bulgedPoints(entity.tags), (n(70) & 1) === 1);
    case 'POLYLINE':
      return polyline(
        out,
        // Control points of a fitted curve (16) are no corners of it.
        vertices
          .filter((v) => (numberOf(v, 70) & 16) === 0)
          .map((v) => ({ x: numberOf(v, 10), y: numberOf(v, 20), bulge: numberOf(v, 42) })),
        (n(70) & 1) === 1,
      );
    case 'SPLINE':
      return spline(out, entity);
    case 'SOLID':
    case 'TRACE':
      // The third and fourth corner are stored crossed over.
      return out
        .add('M', n(10), n(20))
        .add('L', n(11), n(21))
        .add('L', n(13, n(12)), n(23, n(22)))
        .add('L', n(12), n(22))
        .add('Z');
    default:
      return null;
  }
}

interface BulgedPoint {
  readonly x: number;
  readonly y: number;
  /** Tangent of a quarter of the angle of the arc to the next point; positive to the left. */
  readonly bulge: number;
}

function bulgedPoints(tags: readonly Tag[]): BulgedPoint[] {
  const points: { x: number; y: number; bulge: number }[] = [];
  for (const { code, value } of tags) {
    const number = Number(value);
    if (!Number.isFinite(number)) continue;
    if (code === 10) points.push({ x: number, y: 0, bulge: 0 });
    else if (points.length > 0 && code === 20) points.at(-1)!.y = number;
    else if (points.length > 0 && code === 42) points.at(-1)!.bulge = number;
  }
  return points;
}

const STRAIGHT = 1e-7;

/** How wide a polyline is drawn: one width all along, 0 for a plain line, null when it grows or shrinks on its way. */
export function widthOf(entity: Entity, vertices: readonly Entity[]): number | null {
  const constant = numberOf(entity, 43, 0);
  if (entity.type === 'LWPOLYLINE' && constant > 0) return constant;
  if (entity.type !== 'LWPOLYLINE' && entity.type !== 'POLYLINE') return 0;
  const own = (from: Entity) => [...numbersOf(from, 40), ...numbersOf(from, 41)];
  const each =
    entity.type === 'LWPOLYLINE'
      ? own(entity)
      : vertices.flatMap((vertex) => {
          const widths = own(vertex);
          return widths.length > 0 ? widths : own(entity);
        });
  const [first = 0] = each;
  return each.every((width) => width === first) ? first : null;
}

/** Corners joined by straight lines, or by arcs where they bulge. */
export function polyline(out: Builder, points: readonly BulgedPoint[], closed: boolean): Builder | null {
  const [first] = points;
  if (!first || points.length < 2) return null;
  out.add('M', first.x, first.y);
  points.forEach((from, i) => {
    const to = points[i + 1] ?? (closed ? first : null);
    if (!to) return;
    // Straighter than this, the middle of its arc is too far away to reckon with.
    if (Math.abs(from.bulge) < STRAIGHT) out.add('L', to.x, to.y);
    else {
      const sweep = 4 * Math.atan(from.bulge);
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      const k = (1 / from.bulge - from.bulge) / 4;
      const [cx, cy] = [(from.x + to.x) / 2 - k * dy, (from.y + to.y) / 2 + k * dx];
      const r = Math.hypot(from.x - cx, from.y - cy);
      out.add('A', cx, cy, r, r, 0, Math.atan2(from.y - cy, from.x - cx), sweep);
    }
  });
  return closed ? out.add('Z') : out;
}

interface ArcFigures {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly fromDeg: number;
  readonly toDeg: number;
}

/** An arc counter-clockwise from one angle to the other, begun with a move when it stands alone. */
export function arc(out: Builder, { x, y, r, fromDeg, toDeg }: ArcFigures, begin: boolean, clockwise = false): Builder {
  const from = (fromDeg * Math.PI) / 180;
  let sweep = ((toDeg - fromDeg) * Math.PI) / 180;
  while (sweep <= 1e-12) sweep += 2 * Math.PI;
  while (sweep > 2 * Math.PI + 1e-12) sweep -= 2 * Math.PI;
  // Hatch edges that run clockwise give their angles mirrored.
  const [start, turn] = clockwise ? [-from, -sweep] : [from, sweep];
  out.add(begin ? 'M' : 'L', x + r * Math.cos(start), y + r * Math.sin(start));
  return out.add('A', x, y, r, r, 0, start, turn);
}

interface EllipseFigures {
  readonly x: number;
  readonly y: number;
  readonly majorX: number;
  readonly majorY: number;
  readonly ratio: number;
  readonly from: number;
  readonly to: number;
}

export function ellipse(
  out: Builder,
  { x, y, majorX, majorY, ratio, from, to }: EllipseFigures,
  begin: boolean,
): Builder {
  const rx = Math.hypot(majorX, majorY);
  const [ry, phi] = [rx * ratio, Math.atan2(majorY, majorX)];
  let sweep = to - from;
  while (sweep <= 1e-9) sweep += 2 * Math.PI;
  const whole = sweep >= 2 * Math.PI - 1e-6;
  const [ex, ey] = [rx * Math.cos(from), ry * Math.sin(from)];
  out
    .add(begin ? 'M' : 'L', x + Math.cos(phi) * ex - Math.sin(phi) * ey, y + Math.sin(phi) * ex + Math.cos(phi) * ey)
    .add('A', x, y, rx, ry, phi, from, whole ? 2 * Math.PI : sweep);
  return whole && begin ? out.add('Z') : out;
}

function spline(out: Builder, entity: Entity): Builder | null {
  const pair = (cx: number, cy: number) => {
    const [xs, ys] = [numbersOf(entity, cx), numbersOf(entity, cy)];
    return xs.slice(0, ys.length).flatMap((x, i) => [x, ys[i]!]);
  };
  const control = pair(10, 20);
  const isClosed = (numberOf(entity, 70) & 1) === 1;
  const points =
    control.length >= 4
      ? splinePoints(numberOf(entity, 71, 3), control, numbersOf(entity, 40), numbersOf(entity, 41))
      : fittedPoints(pair(11, 21), isClosed, { start: pair(12, 22), end: pair(13, 23) });
  if (points.length < 4) return null;
  out.add('M', points[0]!, points[1]!);
  for (let i = 2; i < points.length; i += 2) out.add('L', points[i]!, points[i + 1]!);
  return isClosed ? out.add('Z') : out;
}
