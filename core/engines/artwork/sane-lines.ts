import { unite, type FillRule, type Polyline, type Ring } from '../../geometry/index.js';

/** Coordinates beyond this are no place on a sheet (a kilometre), and the polygon kernel has no room for them, mm. */
const FARTHEST_MM = 1e6;
/** Below so many points no tangle can take long. */
const SOME_POINTS = 20_000;
/** Stretches that are tried against all others to estimate how often they cross. */
const TRIED = 120;
/** More crossings than this are no drawing, and would take the polygon kernel minutes. */
const MOST_CROSSINGS = 3_000_000;

/** Why lines cannot be made an area, or null when they can. */
export function whyNotSane(lines: readonly Polyline[]): 'out-of-range' | 'too-tangled' | null {
  let count = 0;
  for (const { points } of lines) {
    count += points.length / 2;
    for (let i = 0; i < points.length; i += 1) if (!(Math.abs(points[i]!) < FARTHEST_MM)) return 'out-of-range';
  }
  return count > SOME_POINTS && crossings(lines, count) > MOST_CROSSINGS ? 'too-tangled' : null;
}

/** How many pairs of stretches cross, estimated from an even sample of them. */
function crossings(lines: readonly Polyline[], count: number): number {
  const flat = new Float64Array(4 * count);
  let n = 0;
  for (const { points } of lines) {
    for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
      flat.set([points[j]!, points[j + 1]!, points[i]!, points[i + 1]!], 4 * n);
      n += 1;
    }
  }
  const side = (ax: number, ay: number, bx: number, by: number, x: number, y: number) =>
    (bx - ax) * (y - ay) - (by - ay) * (x - ax) > 0;
  let found = 0;
  const step = Math.max(1, Math.floor(n / TRIED));
  let tried = 0;
  for (let s = 0; s < n; s += step, tried += 1) {
    const [ax, ay, bx, by] = [flat[4 * s]!, flat[4 * s + 1]!, flat[4 * s + 2]!, flat[4 * s + 3]!];
    for (let t = 0; t < n; t += 1) {
      const [cx, cy, dx, dy] = [flat[4 * t]!, flat[4 * t + 1]!, flat[4 * t + 2]!, flat[4 * t + 3]!];
      if (
        side(ax, ay, bx, by, cx, cy) !== side(ax, ay, bx, by, dx, dy) &&
        side(cx, cy, dx, dy, ax, ay) !== side(cx, cy, dx, dy, bx, by)
      )
        found += 1;
    }
  }
  return (found * n) / tried / 2;
}

/** The area that lines enclose, each closed by a straight stretch where it is open. */
export function areaOfLines(lines: readonly Polyline[], rule: FillRule): Ring[] {
  return unite(
    lines.map((line) => line.points).filter((points) => points.length >= 6),
    rule,
  );
}
