import type { Labels } from './labels.js';
import type { Rgba } from './mixtures.js';
import type { Pixels } from './pixels.js';
import { saddleFinder } from './saddles.js';

/** The edge between two labels from one junction to another, or round and back: `left` and `right` of it in its own direction. */
export interface Chain {
  /** x0, y0, x1, y1, … in pixels; the middle of the upper left pixel is at 0.5, 0.5. Closed chains do not repeat their first point. */
  readonly points: Float64Array;
  readonly closed: boolean;
  readonly left: number;
  readonly right: number;
}

/** Steps along the grid of pixel corners: right, down, left, up. */
const DX = [1, 0, -1, 0] as const;
const DY = [0, 1, 0, -1] as const;

/**
 * The edges between all labels, each once, so that neighbours share them exactly. A point of an edge lies where the picture crosses
 * from one colour to the other, found between the middles of the two pixels on either side; junctions of three colours stay on the grid.
 * `colours` are those of the labels. Outside the picture is label 0.
 */
export function edgeChains(labels: Labels, pixels: Pixels, colours: readonly Rgba[]): Chain[] {
  const { width, height, of } = labels;
  const label = (x: number, y: number) => (x < 0 || y < 0 || x >= width || y >= height ? 0 : of[y * width + x]!);
  const across = width + 1;
  /** Whether the grid line from corner (x, y) in direction d parts two labels. */
  const parts = (x: number, y: number, d: number): boolean => {
    if (d === 0) return label(x, y - 1) !== label(x, y);
    if (d === 1) return label(x - 1, y) !== label(x, y);
    return d === 2 ? parts(x - 1, y, 0) : parts(x, y - 1, 1);
  };
  const saddleAt = saddleFinder(labels);
  const degree = (x: number, y: number) =>
    Number(parts(x, y, 0)) + Number(parts(x, y, 1)) + Number(parts(x, y, 2)) + Number(parts(x, y, 3));
  const crossing = crossingFinder(pixels, colours, label);
  // One bit for the line to the right of a corner, one for the line down from it.
  const used = new Uint8Array(across * (height + 1));
  const bit = (x: number, y: number, d: number): [number, number] =>
    d === 0
      ? [y * across + x, 1]
      : d === 1
        ? [y * across + x, 2]
        : d === 2
          ? [y * across + x - 1, 1]
          : [(y - 1) * across + x, 2];
  const isUsed = (x: number, y: number, d: number) => {
    const [i, mask] = bit(x, y, d);
    return (used[i]! & mask) !== 0;
  };

  /** Where an edge that comes to a corner in direction d goes on; null at a junction. What holds together across the corner lies between two edges that pass it. */
  const onward = (x: number, y: number, d: number): number | null => {
    if (degree(x, y) === 2) return [d, (d + 1) % 4, (d + 3) % 4].find((next) => parts(x, y, next))!;
    const saddle = saddleAt(x, y);
    // Round the upper right pixel, or the lower left one: coming down it turns right, coming from the right it turns up, and so on.
    return saddle && (saddle === 'falling' ? [1, 0, 3, 2] : [3, 2, 1, 0])[d]!;
  };

  const follow = (startX: number, startY: number, startD: number, isNode: boolean): Chain => {
    const points: number[] = isNode ? [startX, startY] : [];
    let [x, y, d] = [startX, startY, startD];
    const [left, right] = sides(label, x, y, d);
    for (;;) {
      const [i, mask] = bit(x, y, d);
      used[i]! |= mask;
      points.push(...crossing(x, y, d));
      x += DX[d]!;
      y += DY[d]!;
      const next = onward(x, y, d);
      if (next === null) {
        points.push(x, y);
        break;
      }
      // Back where it began: a loop is walked once.
      if (isUsed(x, y, next)) break;
      d = next;
    }
    return { points: Float64Array.from(points), closed: !isNode, left, right };
  };

  const chains: Chain[] = [];
  // From the junctions first; what is left are loops.
  for (let y = 0; y <= height; y += 1) {
    for (let x = 0; x <= width; x += 1) {
      if (label(x - 1, y - 1) === label(x, y - 1) && label(x, y - 1) === label(x, y) && label(x - 1, y) === label(x, y))
        continue;
      if (degree(x, y) === 2 || saddleAt(x, y)) continue;
      for (let d = 0; d < 4; d += 1) if (parts(x, y, d) && !isUsed(x, y, d)) chains.push(follow(x, y, d, true));
    }
  }
  for (let y = 0; y <= height; y += 1) {
    for (let x = 0; x <= width; x += 1) if (parts(x, y, 0) && !isUsed(x, y, 0)) chains.push(follow(x, y, 0, false));
  }
  return chains;
}

type LabelAt = (x: number, y: number) => number;

/** The labels to the left and right of a grid line walked along (y down). */
function sides(label: LabelAt, x: number, y: number, d: number): [left: number, right: number] {
  switch (d) {
    case 0:
      return [label(x, y - 1), label(x, y)];
    case 1:
      return [label(x, y), label(x - 1, y)];
    case 2:
      return [label(x - 1, y), label(x - 1, y - 1)];
    default:
      return [label(x - 1, y - 1), label(x, y - 1)];
  }
}

/** Gives the place near a grid line at which the picture is as much of the one colour as of the other. */
function crossingFinder({ width, height, data }: Pixels, colours: readonly Rgba[], label: LabelAt) {
  const share = (px: number, py: number, a: Rgba, b: Rgba) => {
    const i = 4 * (py * width + px);
    let along = 0;
    let length = 0;
    for (let c = 0; c < 4; c += 1) {
      const step = b[c]! - a[c]!;
      along += (data[i + c]! - a[c]!) * step;
      length += step * step;
    }
    return length === 0 ? 0.5 : Math.min(1, Math.max(0, along / length));
  };
  const inside = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height;
  return (x: number, y: number, d: number): [number, number] => {
    // The pixels on either side: above and below a level line, left and right of an upright one.
    const level = d % 2 === 0;
    const [gx, gy] = d === 2 ? [x - 1, y] : d === 3 ? [x, y - 1] : [x, y];
    const [px, py, qx, qy] = level ? [gx, gy - 1, gx, gy] : [gx - 1, gy, gx, gy];
    let offset = 0.5;
    if (inside(px, py) && inside(qx, qy)) {
      const [a, b] = [colours[label(px, py)]!, colours[label(qx, qy)]!];
      const [p, q] = [share(px, py, a, b), share(qx, qy, a, b)];
      // What is not on its own side of the middle was decided by its neighbourhood: the grid line is then the best guess.
      if (p <= 0.5 && q >= 0.5 && q > p) offset = (0.5 - p) / (q - p);
    }
    return level ? [gx + 0.5, gy - 0.5 + offset] : [gx - 0.5 + offset, gy + 0.5];
  };
}
