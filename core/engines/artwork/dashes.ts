import { lineLength, type Polyline } from '../../geometry/index.js';

/**
 * Cuts polylines into dashes: lengths alternate between drawn and left out, beginning `offset` into the pattern.
 * `lengths` must be even in number, none negative, their sum above 0. More than 20,000 dashes on a line leave it whole.
 */
export function dashed(lines: readonly Polyline[], lengths: readonly number[], offset: number): Polyline[] {
  const period = lengths.reduce((sum, v) => sum + v, 0);
  const out: Polyline[] = [];
  for (const line of lines) {
    const p = line.closed ? Float64Array.of(...line.points, line.points[0]!, line.points[1]!) : line.points;
    if ((lineLength(p) / period) * lengths.length > 20_000) {
      out.push(line);
      continue;
    }
    let phase = ((offset % period) + period) % period;
    let index = 0;
    // A dash of no length at the very beginning is a dot there.
    while (phase > lengths[index]! || (phase === lengths[index]! && phase > 0)) {
      phase -= lengths[index]!;
      index = (index + 1) % lengths.length;
    }
    let left = lengths[index]! - phase;
    let dash: number[] = index % 2 === 0 ? [p[0]!, p[1]!] : [];
    const firstOf = out.length;
    const beginsDrawn = index % 2 === 0 && left > 0;
    for (let i = 2; i < p.length; i += 2) {
      let [x, y] = [p[i - 2]!, p[i - 1]!];
      let rest = Math.hypot(p[i]! - x, p[i + 1]! - y);
      while (rest > left) {
        const t = left / rest;
        x += (p[i]! - x) * t;
        y += (p[i + 1]! - y) * t;
        rest -= left;
        if (index % 2 === 0) {
          // What has no length keeps its direction, for caps.
          if (dash.length === 2 && dash[0] === x && dash[1] === y) dash.push(...shortOf(p, i, x, y));
          else dash.push(x, y);
          out.push({ points: Float64Array.from(dash), closed: false });
        }
        index = (index + 1) % lengths.length;
        left = lengths[index]!;
        dash = index % 2 === 0 ? [x, y] : [];
      }
      left -= rest;
      if (index % 2 === 0) dash.push(p[i]!, p[i + 1]!);
    }
    if (dash.length < 4) continue;
    const first = out[firstOf];
    // On a closed line the last dash runs on into the first, round the corner where the line begins.
    if (line.closed && beginsDrawn && first)
      out[firstOf] = { points: Float64Array.from([...dash, ...first.points.subarray(2)]), closed: false };
    else out.push({ points: Float64Array.from(dash), closed: line.closed && !first && beginsDrawn && index % 2 === 0 });
  }
  return out;
}

/** A dash of no length is drawn as long as this share of its stretch. */
const DOT_SHARE = 1e-5;

/** A point a hair further along the stretch that ends at point `i`. */
function shortOf(p: Float64Array, i: number, x: number, y: number): [number, number] {
  return [x + (p[i]! - p[i - 2]!) * DOT_SHARE, y + (p[i + 1]! - p[i - 1]!) * DOT_SHARE];
}
