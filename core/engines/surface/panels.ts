import type { Rings } from '../../geometry/index.js';
import { bentLine, partsOfAreas } from './bent-line.js';
import { CrossedLength, firstAbove } from './crossed-length.js';

/** One panel of a design that is wider than the roll: from x0 to x1 on the design. It laps the one before by lapMm, its first mm. */
export interface PanelSpan {
  readonly x0: number;
  readonly x1: number;
  readonly lapMm: number;
  /** Where it ends instead of upright at x1: a line that bends, x, y, x, y, … from top to bottom. What it shares with the next is then only how far that one reaches beside it. */
  readonly bend?: readonly number[];
}

/** Panels, and what their split lines cross: the artwork on each line at x1, summed over the layers. */
export interface Tiling {
  readonly panels: readonly PanelSpan[];
  readonly crossedMm: number;
}

export interface TilingWish {
  readonly widthMm: number;
  /** No panel is wider. */
  readonly rollMm: number;
  /** Less than rollMm. */
  readonly lapMm: number;
}

/** Lines that bend begin above a design and end below it, mm. */
const BEYOND_MM = 5;
/** How much panels lap unless it is said otherwise, mm. Source: trade practice, 6 to 12. */
export const PANEL_LAP_MM = 10;
/** More panels are nobody's sign. */
export const MOST_PANELS = 400;
/** A line this far beside an upright outline does not touch it, mm. */
const BESIDE_MM = 0.001;
/** How much a gap counts for each mm that it is wide, up to so many: between words a line lies better than between letters. */
const WIDE = 1e-8;
const WIDE_ENOUGH_MM = 60;
/** How much a line's way from where panels would be alike counts beside what it crosses, for each mm². */
const EVEN = 1e-12;
/** Sums of lengths are off by less than this, mm. */
const ROUNDING_MM = 1e-9;
/** Differences of what is crossed below this are rounding, mm. */
const ALIKE_MM = 1e-7;

/**
 * The panels of a design: the fewest that the roll allows, or one more where that at least halves what is crossed, with upright split lines where the least
 * artwork is crossed in all. Exact over all x: what lines cross runs straight between the corners of outlines, and lines that hold each other at a distance can
 * be moved together until one of them comes to a corner, so only corners and what lies whole panels away from them need be tried. Of lines that cross as little
 * each lies in the middle of its gap. Null when the design would need more than MOST_PANELS. Cost: corners × panels², times a logarithm.
 */
export function tile(areas: readonly Rings[], wish: TilingWish): Tiling | null {
  return tileBy(new CrossedLength(areas), wish);
}

function tileBy(crossed: CrossedLength, wish: TilingWish): Tiling | null {
  const { widthMm, rollMm, lapMm } = wish;
  if (widthMm <= rollMm) return { panels: [{ x0: 0, x1: widthMm, lapMm: 0 }], crossedMm: 0 };
  const fewest = Math.ceil((widthMm - lapMm) / (rollMm - lapMm) - 1e-9);
  if (fewest > MOST_PANELS) return null;
  const least = bestLines(crossed, fewest, wish);
  if (least.crossedMm <= ALIKE_MM) return tilingOf(least.lines, crossed, wish);
  const more = bestLines(crossed, fewest + 1, wish);
  return tilingOf((more.crossedMm <= least.crossedMm / 2 ? more : least).lines, crossed, wish);
}

/**
 * The panels of `tile`, with each split line that crosses artwork bent round it where there is a way between the pieces that keeps both panels no wider than the
 * roll. `heightMm` is how high the design is.
 */
export function tileBending(areas: readonly Rings[], wish: TilingWish & { readonly heightMm: number }): Tiling | null {
  const crossed = new CrossedLength(areas);
  const straight = tileBy(crossed, wish);
  if (!straight || straight.crossedMm <= ALIKE_MM) return straight;
  const parts = partsOfAreas(areas);
  const panels = [...straight.panels];
  let left = 0;
  for (let k = 0; k + 1 < panels.length; k += 1) {
    const [panel, next] = [panels[k]!, panels[k + 1]!];
    const crosses = crossed.at(panel.x1);
    if (crosses <= ALIKE_MM) continue;
    const bend = bentLine(parts, {
      low: Math.max(panel.x0 + wish.lapMm, next.x1 - wish.rollMm),
      high: Math.min(next.x1 - wish.lapMm, panel.x0 + wish.rollMm),
      top: -BEYOND_MM,
      bottom: wish.heightMm + BEYOND_MM,
    });
    if (!bend) {
      left += crosses;
      continue;
    }
    const xs = bend.filter((_, i) => i % 2 === 0);
    panels[k] = { ...panel, x1: Math.max(...xs), bend };
    panels[k + 1] = { ...next, x0: Math.min(...xs), lapMm: 0 };
  }
  return { panels, crossedMm: left };
}

function tilingOf(lines: readonly number[], crossed: CrossedLength, { widthMm, lapMm }: TilingWish): Tiling {
  const ends = [...lines, widthMm];
  return {
    panels: ends.map((x1, k) => (k === 0 ? { x0: 0, x1, lapMm: 0 } : { x0: ends[k - 1]! - lapMm, x1, lapMm })),
    crossedMm: lines.reduce((sum, x) => sum + crossed.at(x), 0),
  };
}

/** Split lines for so many panels that cross least in all; they are in order, and no panel is wider than the roll. */
function bestLines(
  crossed: CrossedLength,
  count: number,
  { widthMm, rollMm, lapMm }: TilingWish,
): { readonly lines: readonly number[]; readonly crossedMm: number } {
  const step = rollMm - lapMm;
  const candidates = candidatesOf(crossed, count, { widthMm, rollMm, lapMm });
  const costs = Float64Array.from(candidates, (x) => crossed.at(x));
  // Of lines that cross as little, those in wide gaps, and then those that make panels of one width: so small a share of what is crossed that it decides nothing else.
  const wide = Float64Array.from(candidates, (x, i) => (costs[i]! > ALIKE_MM ? 0 : gapWidth(crossed, x)));
  const costAt = (i: number, k: number) =>
    costs[i]! - WIDE * wide[i]! + EVEN * (candidates[i]! - evenAt(k, count, widthMm, lapMm)) ** 2;
  // For each candidate as line k: the least that lines 1 to k cross when line k is there, and where line k − 1 then is.
  let sums = Float64Array.from(candidates, (x, i) => (x <= rollMm + ROUNDING_MM ? costAt(i, 1) : Infinity));
  const before: Int32Array[] = [];
  for (let k = 2; k < count; k += 1) {
    const from = new Int32Array(candidates.length).fill(-1);
    const next = new Float64Array(candidates.length).fill(Infinity);
    // The least of those within a panel before, kept as the window moves along.
    const window: number[] = [];
    let [head, low] = [0, 0];
    for (let i = 0; i < candidates.length; i += 1) {
      // A panel is at least as wide as its lap, or it would hold nothing of its own.
      for (; low < i && candidates[low]! <= candidates[i]! - Math.max(lapMm, ALIKE_MM); low += 1) {
        while (window.length > head && sums[window.at(-1)!]! > sums[low]!) window.pop();
        window.push(low);
      }
      while (head < window.length && candidates[window[head]!]! < candidates[i]! - step - ROUNDING_MM) head += 1;
      const best = window[head];
      if (best !== undefined && sums[best]! < Infinity) {
        next[i] = sums[best]! + costAt(i, k);
        from[i] = best;
      }
    }
    before.push(from);
    sums = next;
  }
  let last = -1;
  for (let i = firstAbove(candidates, widthMm + lapMm - rollMm - ROUNDING_MM); i < candidates.length; i += 1)
    if (last < 0 || sums[i]! < sums[last]!) last = i;
  const lines = [candidates[last]!];
  for (let k = before.length - 1, at = last; k >= 0; k -= 1) {
    at = before[k]![at]!;
    lines.unshift(candidates[at]!);
  }
  return {
    lines: centred(lines, crossed, { widthMm, rollMm, lapMm }),
    crossedMm: lines.reduce((sum, x) => sum + crossed.at(x), 0),
  };
}

/** Where line k lies when all panels are of one width. */
function evenAt(k: number, count: number, widthMm: number, lapMm: number): number {
  return (k * (widthMm + (count - 1) * lapMm)) / count - (k - 1) * lapMm;
}

/** Where lines may best lie: at corners, a hair beside them, and whole panels away from those and from the ends. */
function candidatesOf(crossed: CrossedLength, count: number, { widthMm, rollMm, lapMm }: TilingWish): Float64Array {
  const step = rollMm - lapMm;
  const even = Array.from({ length: count - 1 }, (_, i) => evenAt(i + 1, count, widthMm, lapMm));
  const seeds = [
    rollMm,
    widthMm + lapMm - rollMm,
    ...even,
    ...crossed.corners.flatMap((x) => [x - BESIDE_MM, x, x + BESIDE_MM]),
  ];
  const all: number[] = [];
  for (let k = -count; k <= count; k += 1)
    for (const x of seeds) if (x + k * step > lapMm && x + k * step < widthMm) all.push(x + k * step);
  return Float64Array.from(new Set(all)).sort();
}

/** Each line moved to the middle of the gap that it lies in, as far as its neighbours and the roll allow. */
function centred(lines: readonly number[], crossed: CrossedLength, { widthMm, rollMm, lapMm }: TilingWish): number[] {
  const out = [...lines];
  const { corners } = crossed;
  for (let k = 0; k < out.length; k += 1) {
    const x = out[k]!;
    if (crossed.at(x) > ALIKE_MM) continue;
    const low = Math.max(
      k === 0 ? lapMm : out[k - 1]! + lapMm,
      (out[k + 1] ?? widthMm + lapMm) - (k + 1 < out.length ? rollMm - lapMm : rollMm),
    );
    const high = Math.min(
      k === 0 ? rollMm : out[k - 1]! + rollMm - lapMm,
      out[k + 1] === undefined ? widthMm : out[k + 1]! - lapMm,
    );
    const [from, to] = gapRound(crossed, x);
    const [least, most] = [Math.max(low, from), Math.min(high, to)];
    if (least <= most)
      out[k] = Math.min(
        most,
        Math.max(least, (Math.max(from, corners[0] ?? 0) + Math.min(to, corners.at(-1) ?? widthMm)) / 2),
      );
  }
  return out;
}

/** How wide the gap round x is, as far as that counts. */
function gapWidth(crossed: CrossedLength, x: number): number {
  const [from, to] = gapRound(crossed, x);
  return Math.min(WIDE_ENOUGH_MM, to - from);
}

/** From where to where round x lines cross nothing. */
function gapRound(crossed: CrossedLength, x: number): [from: number, to: number] {
  const { corners } = crossed;
  const isFree = (i: number) => crossed.at((corners[i]! + corners[i + 1]!) / 2) <= ALIKE_MM;
  let low = firstAbove(corners, x) - 1;
  if (corners[low] === x && low > 0 && !isFree(low)) low -= 1;
  let high = low + 1;
  while (low > 0 && isFree(low - 1)) low -= 1;
  while (high < corners.length - 1 && isFree(high)) high += 1;
  return [low < 0 ? -Infinity : corners[low]!, high >= corners.length ? Infinity : corners[high]!];
}
