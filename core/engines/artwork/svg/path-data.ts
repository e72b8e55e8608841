import svgpath from 'svgpath';
import { CurvesBuilder, type Curves } from '../../../geometry/index.js';

/**
 * Reads SVG path data. An error ends the path where it stands, as the specification asks: what came before is kept,
 * and `error` says what went wrong.
 */
export function parsePathData(d: string): { curves: Curves; error: string | null } {
  const whole = readValid(d);
  const out = new CurvesBuilder();
  let [x, y, startX, startY] = [0, 0, 0, 0];
  // A move that nothing is drawn from is no dot.
  const segments = segmentsOf(whole.path.abs().unshort());
  for (const [op, ...n] of segments.filter(
    ([name], i) => name !== 'M' || !['M', undefined].includes(segments[i + 1]?.[0]),
  )) {
    switch (op) {
      case 'M':
        [x, y] = [n[0]!, n[1]!];
        [startX, startY] = [x, y];
        out.add('M', x, y);
        break;
      case 'L':
        [x, y] = [n[0]!, n[1]!];
        out.add('L', x, y);
        break;
      case 'H':
        x = n[0]!;
        out.add('L', x, y);
        break;
      case 'V':
        y = n[0]!;
        out.add('L', x, y);
        break;
      case 'C':
        out.add('C', n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!);
        [x, y] = [n[4]!, n[5]!];
        break;
      case 'Q': {
        // A quadratic curve is a cubic one whose controls stand two thirds of the way to its own.
        const [qx, qy, ex, ey] = [n[0]!, n[1]!, n[2]!, n[3]!];
        out.add(
          'C',
          x + (2 / 3) * (qx - x),
          y + (2 / 3) * (qy - y),
          ex + (2 / 3) * (qx - ex),
          ey + (2 / 3) * (qy - ey),
          ex,
          ey,
        );
        [x, y] = [ex, ey];
        break;
      }
      case 'A':
        addArc(out, x, y, n);
        [x, y] = [n[5]!, n[6]!];
        break;
      default:
        out.add('Z');
        [x, y] = [startX, startY];
    }
  }
  return { curves: out.build(), error: whole.error };
}

/** Only finite coordinates get through: a drawing cannot be a light year wide. */
const LARGEST = 1e9;

function readValid(d: string): { path: ReturnType<typeof svgpath>; error: string | null } {
  const path = svgpath(d);
  const error = (path as unknown as { err: string }).err || null;
  if (segmentsOf(path).some(([, ...numbers]) => numbers.some((v) => !(Math.abs(v) < LARGEST)))) {
    return { path: svgpath(''), error: 'a coordinate is not a usable number' };
  }
  return { path, error };
}

/** The parsed segments and the error are there at run time but not in the library's types. */
function segmentsOf(path: ReturnType<typeof svgpath>): readonly (readonly [string, ...number[]])[] {
  return (path as unknown as { segments: readonly (readonly [string, ...number[]])[] }).segments;
}

/** From endpoints to centre, SVG 1.1 implementation notes F.6.5 and F.6.6. */
function addArc(out: CurvesBuilder, x0: number, y0: number, n: readonly number[]): void {
  const [rx0, ry0, turn, large, positive, x, y] = [n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!, n[6]!];
  if (x0 === x && y0 === y) return;
  let rx = Math.abs(rx0);
  let ry = Math.abs(ry0);
  if (rx === 0 || ry === 0) {
    out.add('L', x, y);
    return;
  }
  const phi = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const px = (cos * (x0 - x)) / 2 + (sin * (y0 - y)) / 2;
  const py = (-sin * (x0 - x)) / 2 + (cos * (y0 - y)) / 2;
  const lambda = (px / rx) ** 2 + (py / ry) ** 2;
  if (lambda > 1) {
    rx *= Math.sqrt(lambda);
    ry *= Math.sqrt(lambda);
  }
  const denominator = (rx * py) ** 2 + (ry * px) ** 2;
  const root = Math.sqrt(Math.max(0, ((rx * ry) ** 2 - denominator) / denominator)) * (large === positive ? -1 : 1);
  const ux = (root * rx * py) / ry;
  const uy = (-root * ry * px) / rx;
  const theta = Math.atan2((py - uy) / ry, (px - ux) / rx);
  let sweep = Math.atan2((-py - uy) / ry, (-px - ux) / rx) - theta;
  if (positive && sweep < 0) sweep += 2 * Math.PI;
  if (!positive && sweep > 0) sweep -= 2 * Math.PI;
  out.add('A', cos * ux - sin * uy + (x0 + x) / 2, sin * ux + cos * uy + (y0 + y) / 2, rx, ry, phi, theta, sweep);
}
