import type { Box } from '../../../geometry/index.js';
import type { Rgba } from './mixtures.js';
import { binOf, nearestByBin, type PaletteColour } from './palette.js';
import type { Pixels } from './pixels.js';
import { saddleFinder } from './saddles.js';

/** Which colour every pixel is taken for: 0 is bare surface, n the nth colour. */
export interface Labels {
  readonly width: number;
  readonly height: number;
  readonly of: Uint8Array;
}

/** A pixel on an edge looks so far for the colours on either side of it. */
export const REACH = 3;

/** The labels of the plain pixels that a pixel looks at. */
export function labelsRound(
  { width, height }: Pick<Pixels, 'width' | 'height'>,
  plain: Uint8Array,
  labelAt: (p: number) => number,
  x: number,
  y: number,
): number[] {
  const seen = new Set<number>();
  for (let v = Math.max(0, y - REACH); v <= Math.min(height - 1, y + REACH); v += 1) {
    for (let u = Math.max(0, x - REACH); u <= Math.min(width - 1, x + REACH); u += 1)
      if (plain[v * width + u]) seen.add(labelAt(v * width + u));
  }
  return [...seen];
}

/** Every pixel's nearest colour; where it is not plain, only colours that are plain nearby count, so that mixtures do not become a third. */
export function labelPixels(
  { width, height, data }: Pixels,
  plain: Uint8Array,
  palette: readonly PaletteColour[],
): Labels {
  const of = new Uint8Array(width * height);
  const nearest = nearestByBin(palette);
  for (let p = 0; p < of.length; p += 1)
    of[p] = data[4 * p + 3]! < 128 ? 0 : nearest(binOf(data[4 * p]!, data[4 * p + 1]!, data[4 * p + 2]!));
  const colours: Rgba[] = [[255, 255, 255, 0], ...palette.map(({ rgb }): Rgba => [rgb[0], rgb[1], rgb[2], 255])];
  const distance = (p: number, label: number) => {
    const colour = colours[label]!;
    let sum = 0;
    for (let c = 0; c < 4; c += 1) sum += (data[4 * p + c]! - colour[c]!) ** 2;
    return sum;
  };
  const first = of.slice();
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const p = y * width + x;
      if (plain[p]) continue;
      let seen = 0;
      for (let v = Math.max(0, y - REACH); v <= Math.min(height - 1, y + REACH); v += 1) {
        for (let u = Math.max(0, x - REACH); u <= Math.min(width - 1, x + REACH); u += 1)
          if (plain[v * width + u]) seen |= 1 << first[v * width + u]!;
      }
      const own = first[p]!;
      if (seen === 0 || seen & (1 << own)) {
        if (seen !== 0) of[p] = nearestAmong(seen, p, distance);
        continue;
      }
      // A hair of its own ink may have no plain pixel: it stays what it nearly is.
      const among = nearestAmong(seen, p, distance);
      if (distance(p, own) > 0.12 * distance(p, among)) of[p] = among;
    }
  }
  return { width, height, of };
}

function nearestAmong(seen: number, p: number, distance: (p: number, label: number) => number): number {
  let best = -1;
  let least = Infinity;
  for (let label = 0, rest = seen; rest !== 0; label += 1, rest >>>= 1) {
    if (!(rest & 1)) continue;
    const d = distance(p, label);
    if (d < least) [best, least] = [label, d];
  }
  return best;
}

/** Connected patches of one label: each pixel's patch, and each patch's area and label. */
export interface Patches {
  readonly of: Int32Array;
  readonly area: Int32Array;
  readonly label: Uint8Array;
}

/** The patches of a label map, connected over edges, and over corners where a line runs aslant. Runs of a row are joined, not pixels: there are far fewer. */
export function patchesOf(labels: Labels): Patches {
  const { width, height, of } = labels;
  const saddleAt = saddleFinder(labels);
  const starts: number[] = [];
  const parent: number[] = [];
  const find = (run: number): number => {
    let root = run;
    while (parent[root]! !== root) root = parent[root]!;
    for (let at = run; parent[at]! !== root;) {
      const next = parent[at]!;
      parent[at] = root;
      at = next;
    }
    return root;
  };
  let above = 0;
  for (let y = 0; y < height; y += 1) {
    const firstOfRow = starts.length;
    const end = (y + 1) * width;
    for (let p = y * width; p < end;) {
      const start = p;
      const label = of[p]!;
      while (p < end && of[p] === label) p += 1;
      const run = starts.length;
      starts.push(start);
      parent.push(run);
      if (y === 0) continue;
      // Runs of the row above that reach over this one or touch its corners: those that end before it were passed already.
      while (above + 1 < firstOfRow && starts[above + 1]! < start - width) above += 1;
      const rowAbove = (y - 1) * width;
      for (let up = above; up < firstOfRow && starts[up]! <= p - width; up += 1) {
        if (of[starts[up]!] !== label) continue;
        const [from, to] = [starts[up]! - rowAbove, (up + 1 < firstOfRow ? starts[up + 1]! : y * width) - rowAbove];
        const [own, ownEnd] = [start - y * width, p - y * width];
        if (to === own && saddleAt(own, y) !== 'falling') continue;
        if (from === ownEnd && saddleAt(ownEnd, y) !== 'rising') continue;
        const [a, b] = [find(run), find(up)];
        // The lower index stays the root, so that a patch is numbered by its first pixel.
        if (a < b) parent[b] = a;
        else parent[a] = b;
      }
    }
    above = firstOfRow;
  }
  const patch = new Int32Array(width * height);
  const area: number[] = [];
  const label: number[] = [];
  const numbers = new Int32Array(starts.length);
  starts.forEach((start, run) => {
    const root = find(run);
    if (root === run) {
      numbers[run] = area.length;
      area.push(0);
      label.push(of[start]!);
    } else numbers[run] = numbers[root]!;
    const stop = starts[run + 1] ?? patch.length;
    patch.fill(numbers[run]!, start, stop);
    area[numbers[run]!]! += stop - start;
  });
  return { of: patch, area: Int32Array.from(area), label: Uint8Array.from(label) };
}

/** The label of each patch that is not of label 0 and has at least so many pixels, and the box round it: in pixels, the far sides of the last ones included. */
export function boxesOfPatches(labels: Labels, leastPixels: number): { readonly label: number; readonly box: Box }[] {
  if (!labels.of.some((label) => label !== 0)) return [];
  const patches = patchesOf(labels);
  const boxes = new Map<number, Box>();
  for (let y = 0, p = 0; y < labels.height; y += 1) {
    for (let x = 0; x < labels.width; x += 1, p += 1) {
      const patch = patches.of[p]!;
      if (labels.of[p] === 0 || patches.area[patch]! < leastPixels) continue;
      const box = boxes.get(patch) ?? { minX: x, minY: y, maxX: x + 1, maxY: y + 1 };
      boxes.set(patch, { minX: Math.min(box.minX, x), minY: box.minY, maxX: Math.max(box.maxX, x + 1), maxY: y + 1 });
    }
  }
  return [...boxes].map(([patch, box]) => ({ label: patches.label[patch]!, box }));
}

/** The map with patches smaller than `leastPixels` taken for what surrounds most of each; `dropped` counts them. */
export function withoutSpecks(
  labels: Labels,
  patches: Patches,
  leastPixels: number,
): { labels: Labels; dropped: number } {
  const { width, height } = labels;
  if (!patches.area.some((area) => area < leastPixels)) return { labels, dropped: 0 };
  const of = labels.of.slice();
  const small = (patch: number) => patches.area[patch]! < leastPixels;
  /** Votes of the neighbours of each small patch, by label; large neighbours count, small ones only when there are no others. */
  const votes = new Map<number, Map<number, number>>();
  const vote = (p: number, q: number) => {
    const a = patches.of[p]!;
    const b = patches.of[q]!;
    if (a === b || !small(a)) return;
    const own = votes.get(a) ?? new Map<number, number>();
    votes.set(a, own);
    const label = patches.label[b]!;
    own.set(label, (own.get(label) ?? 0) + (small(b) ? 0.001 : 1));
  };
  for (let y = 0, p = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, p += 1) {
      if (x > 0) {
        vote(p, p - 1);
        vote(p - 1, p);
      }
      if (y > 0) {
        vote(p, p - width);
        vote(p - width, p);
      }
    }
  }
  const taken = new Map<number, number>();
  for (const [patch, own] of votes) taken.set(patch, [...own].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0]![0]);
  for (let p = 0; p < of.length; p += 1) {
    const other = taken.get(patches.of[p]!);
    if (other !== undefined) of[p] = other;
  }
  return { labels: { width, height, of }, dropped: taken.size };
}
