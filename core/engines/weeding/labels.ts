import { boundsOf, edgeIndex, edgesOf, type Box, type Edges } from '../../geometry/index.js';
import type { ReliefLine } from './relief-wish.js';
import { strokesOf } from '../../geometry/stroke-letters.js';
import { insideOf, type Waste } from './waste.js';

/** What is written into the waste, so that nobody loses track of which layer it is, and which way is up. */
export interface LabelWish {
  /** The first of them are left out first where there is little room: what tells the layer comes last. */
  readonly words: readonly string[];
  /** The film is cut mirrored: letters are turned over, so that they read right on the film. */
  readonly isMirrored: boolean;
}

/** Capitals are so high, mm: the largest for which there is room. */
const HEIGHTS_MM = [5, 4, 3];
/** Letters keep so clear of all that is cut, mm. */
const CLEAR_MM = 1;
/** The font's own measures: its capitals, and from one line to the next. */
const FONT = { capital: 21, line: 36, gap: 14 };
/** Longer words are cut short: nobody reads a whole sentence in a strip of waste. */
const MOST_LETTERS = 22;
/** Places are looked for in so many steps along the waste. */
const STEPS = 48;
/** A stroke shorter than this is not cut: a blade would only prick the film, mm. */
const SHORTEST_MM = 0.3;

type Point = readonly [number, number];
type Stroke = readonly Point[];

/** A label as it lies about its middle: strokes, y down, where its arrow goes, and how much room it takes, mm. */
interface Label {
  readonly strokes: readonly Stroke[];
  readonly arrowX: number;
  readonly capitalMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/**
 * A label in single strokes in the waste, with an arrow to the top, clear of all that stays, of relief lines and of the border; nothing where there is no room for it. All words if they
 * fit, else the last of them with the arrow. The upper left place of those with room is taken.
 */
export function labelLines(
  { border, rings }: Waste,
  relief: readonly ReliefLine[],
  { words, isMirrored }: LabelWish,
): ReliefLine[] {
  const box = boundsOf(border);
  if (!box || rings.length === 0) return [];
  const places = roomyPlaces(edgesOf(rings, relief), insideOf(rings), box);
  for (const lines of arrangements(words)) {
    for (const heightMm of HEIGHTS_MM) {
      const label = labelOf(lines, heightMm);
      for (const isUpright of [false, true]) {
        const [w, h] = isUpright ? [label.heightMm, label.widthMm] : [label.widthMm, label.heightMm];
        const at = places(w / 2 + CLEAR_MM, h / 2 + CLEAR_MM);
        if (!at) continue;
        const place = ([x, y]: Point) => placed(isMirrored ? -x : x, y, at, isUpright);
        return [
          ...label.strokes.map((stroke) => stroke.flatMap(place)),
          ...arrowUp(place([label.arrowX, 0]), label.capitalMm),
        ];
      }
    }
  }
  return [];
}

/** What is above in a label that is read from the right lies to the left. */
function placed(x: number, y: number, [atX, atY]: Point, isUpright: boolean): [number, number] {
  return isUpright ? [atX + y, atY - x] : [atX + x, atY + y];
}

/** All in one line, in two, each word by itself, and at last only the last one. */
function arrangements(words: readonly string[]): (readonly string[])[] {
  const said = words.map(readable).filter((word) => /[A-Z0-9]/.test(word));
  const last = said.at(-1);
  if (last === undefined) return [];
  const all: (readonly string[])[] = [
    [said.join('  ')],
    ...(said.length > 2 ? [[said[0]!, said.slice(1).join('  ')]] : []),
    said,
    [said.slice(1).join('  ')],
    [last],
  ];
  return all.filter((lines) => lines.every((line) => line !== ''));
}

/** In letters that the font has: without accents, and no longer than is read at a glance. */
function readable(word: string): string {
  const plain = word
    .normalize('NFD')
    .replace(/[^A-Za-z0-9 .,:;!?"$/()|\-+='#&*%@]/g, '')
    .replace(/\s+/g, ' ')
    .trim()
    .toUpperCase();
  return plain.length > MOST_LETTERS ? plain.slice(0, MOST_LETTERS).trim() : plain;
}

function labelOf(lines: readonly string[], heightMm: number): Label {
  const scale = heightMm / FONT.capital;
  const made = lines.map(strokesOf);
  const widths = made.map(
    (paths) => Math.max(...paths.flat().map(([x]) => x)) - Math.min(...paths.flat().map(([x]) => x)),
  );
  const textWidth = Math.max(...widths);
  const width = textWidth + FONT.gap + FONT.capital;
  const set = made.flatMap((paths, row) => {
    const left = Math.min(...paths.flat().map(([x]) => x));
    // Capitals stand from −12 to 9 in the font.
    return paths.map((path) => path.map(([x, y]): Point => [x - left - width / 2, row * FONT.line + 12 + y]));
  });
  // Some signs reach above or below capitals.
  const [top, bottom] = [
    Math.min(...set.flat().map(([, y]) => y)),
    Math.max(...set.flat().map(([, y]) => y), FONT.capital),
  ];
  const strokes = set.map((path) => path.map(([x, y]): Point => [x * scale, (y - (top + bottom) / 2) * scale]));
  const isCut = (stroke: Stroke) =>
    stroke.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - stroke[i]![0], y - stroke[i]![1]), 0) >=
    SHORTEST_MM;
  return {
    strokes: strokes.filter(isCut),
    arrowX: ((width - FONT.capital) * scale) / 2,
    capitalMm: heightMm,
    widthMm: width * scale,
    heightMm: (bottom - top) * scale,
  };
}

/** An arrow to the top of the design, whichever way the words beside it run. */
function arrowUp([x, y]: Point, heightMm: number): ReliefLine[] {
  const [half, wing] = [heightMm / 2, heightMm / 4];
  return [
    [x, y + half, x, y - half],
    [x - wing, y - half + 1.5 * wing, x, y - half, x + wing, y - half + 1.5 * wing],
  ];
}

/** Tells the upper left place at which a box of some half width and height lies in the waste, clear of every edge. */
function roomyPlaces(
  edges: Edges,
  isWaste: (x: number, y: number) => boolean,
  { minX, minY, maxX, maxY }: Box,
): (halfWidth: number, halfHeight: number) => Point | null {
  const index = edgeIndex(edges);
  const crossesBox = (left: number, top: number, right: number, bottom: number) =>
    index.search(left, top, right, bottom).some((i) => crosses(edges[i]!, left, top, right, bottom));
  const step = Math.max(1, Math.max(maxX - minX, maxY - minY) / STEPS);
  const least = Math.min(...HEIGHTS_MM) / 2 + CLEAR_MM;
  const places: Point[] = [];
  for (let y = minY + least; y <= maxY - least; y += step) {
    for (let x = minX + least; x <= maxX - least; x += step)
      if (!crossesBox(x - least, y - least, x + least, y + least) && isWaste(x, y)) places.push([x, y]);
  }
  return (w, h) =>
    places.find(
      ([x, y]) =>
        x - w >= minX && x + w <= maxX && y - h >= minY && y + h <= maxY && !crossesBox(x - w, y - h, x + w, y + h),
    ) ?? null;
}

/** Whether an edge comes into a box. */
function crosses([x0, y0, x1, y1]: Edges[number], left: number, top: number, right: number, bottom: number): boolean {
  // Cut off at each side in turn, something is left of it.
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [x0 - x1, x0 - left],
    [x1 - x0, right - x0],
    [y0 - y1, y0 - top],
    [y1 - y0, bottom - y0],
  ] as const) {
    if (p === 0) {
      if (q < 0) return false;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  return from <= to;
}

/** A tick is so long, or half of the way to what stays, mm. */
const TICK_MM = 3;
const LEAST_TICK_MM = 0.8;

/** Short lines inwards from the middle of each side of the borders' box, where they stay clear of what stays: by them layers and tape are lined up. */
export function centreTicks({ border, stays }: Waste, clearMm: number): ReliefLine[] {
  const box = boundsOf(border);
  if (!box) return [];
  const [midX, midY] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const freed = edgesOf(border, []);
  const kept = edgesOf(stays, []);
  const across = (edges: Edges, isUpright: boolean) => {
    const at = isUpright ? midX : midY;
    return edges.flatMap((edge) => {
      const [u0, v0, u1, v1] = isUpright ? edge : [edge[1], edge[0], edge[3], edge[2]];
      return u0 > at === u1 > at ? [] : [v0 + ((v1 - v0) * (at - u0)) / (u1 - u0)];
    });
  };
  return [true, false].flatMap((isUpright) => {
    const ends = across(freed, isUpright);
    if (ends.length === 0) return [];
    const stay = across(kept, isUpright);
    return (
      [
        [Math.min(...ends), 1],
        [Math.max(...ends), -1],
      ] as const
    ).flatMap(([end, inwards]): ReliefLine[] => {
      const room = Math.min(Infinity, ...stay.map((v) => (v - end) * inwards).filter((v) => v > 0));
      const length = Math.min(TICK_MM, room - clearMm > TICK_MM ? TICK_MM : room / 2);
      if (!(length >= LEAST_TICK_MM)) return [];
      const to = end + inwards * length;
      const clear = kept.every(
        (edge) =>
          !crosses(
            edge,
            ...(isUpright
              ? ([midX - clearMm, Math.min(end, to), midX + clearMm, Math.max(end, to)] as const)
              : ([Math.min(end, to), midY - clearMm, Math.max(end, to), midY + clearMm] as const)),
          ),
      );
      return clear ? [isUpright ? [midX, end, midX, to] : [end, midY, to, midY]] : [];
    });
  });
}
