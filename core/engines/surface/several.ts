import type { Box } from '../../geometry/index.js';
import { sidesOf, SEEN_SHARE } from './cylinder.js';
import { OPTICAL_SHARE, roomOf, SLACK_MM } from './developed.js';
import { boxOfFree, type FreePlace } from './free-places.js';
import { BELOW_LIMIT, hasSides, type Cylinder, type Flat, type Side, type Surface } from './surface.js';
import { wishedScale, type PlacedDesign, type Size, type SizeWish } from './surface-kind.js';

/** At least so much lies between designs on one thing, mm: each is laid by itself, with tape round it. Source: trade practice. */
export const BETWEEN_MM = 20;
/** Designs on one thing at most: more are a run of stickers. */
export const MOST_DESIGNS = 24;
/** Fitted clear of what must stay free, designs are made smaller by such steps, and at most to this share. */
const SMALLER = 0.98;
const LEAST_SHARE = 0.2;
/** Rows of different lengths are taken only where that leaves this many times less between designs in even ones. */
const UNEVEN = 0.5;
/** A part of the surface reaches so far beyond the outermost designs, mm: further than anything that is built. */
const BEYOND_MM = 120;

/** One of several designs on a thing. */
export interface OneOfSeveral extends PlacedDesign {
  /** Where it may lie on the surface. */
  readonly room: Box;
  /** The part of the surface that is its own; parts do not overlap. */
  readonly cell: Box;
  /** Which way it faces, and where its middle lies from the handle's; null where there are no sides. */
  readonly side: Exclude<Side, 'both'> | null;
}

/** Several designs on one thing. */
export interface PlacedSeveral {
  readonly designs: readonly OneOfSeveral[];
  /** How large those are made that have no width of their own, by what they are drawn at. */
  readonly scale: number;
  /** The same when they are fitted. */
  readonly fittedScale: number;
  /** How many stand in each row, from above. */
  readonly rows: readonly number[];
  /** What lies between the nearest two, mm; with what is built of them. */
  readonly betweenMm: number;
  readonly trouble: 'no-room' | 'too-large' | 'on-free-place' | null;
}

/** How several designs are wanted. */
export interface SeveralWish {
  /** The first design's; the others keep to its scale. */
  readonly size: SizeWish;
  /** What is made so wide whatever the scale is, mm; null for what keeps to it. */
  readonly widthsMm: readonly (number | null)[];
  /** What lies between two of them, mm; null for an even spread. */
  readonly betweenMm: number | null;
}

/** Surfaces that several designs can lie on. */
export type ManySided = Flat | Cylinder;

/** Whether several designs can lie on a surface, each by itself: on what is flat, and round what has straight sides, unless one goes all the way round. */
export function takesSeveral(surface: Surface): surface is ManySided {
  return surface.kind === 'flat' || surface.kind === 'glass' || (surface.kind === 'cylinder' && !surface.wraps);
}

/**
 * Places several designs (their own sizes given, at least one) on one thing, all at one scale unless they have a width of their own. On what is flat they stand in
 * rows that are balanced within the margins; round a thing that is held the first faces its side, the second the other, the third away from the handle; more of
 * them, or round a thing without a handle, are spread evenly. `reachMm` is how far what is built of each reaches beyond it.
 */
export function placeSeveral(
  surface: ManySided,
  own: readonly Size[],
  wish: SeveralWish,
  reachMm: number,
): PlacedSeveral {
  return surface.kind === 'cylinder' ? roundIt(surface, own, wish, reachMm) : onBoard(surface, own, wish, reachMm);
}

/** How large each is at a scale. */
function sizesAt(
  own: readonly Size[],
  { widthsMm }: SeveralWish,
  scale: number,
): readonly (Size & { readonly scale: number })[] {
  return own.map((one, i) => {
    const given = widthsMm[i] ?? null;
    const times = given === null ? scale : given / one.widthMm;
    return { scale: times, widthMm: one.widthMm * times, heightMm: one.heightMm * times };
  });
}

/** Middles of designs round a thing, mm from the handle's middle or the seam. */
function middlesOf(surface: Cylinder, count: number): { readonly atMm: number; readonly side: OneOfSeveral['side'] }[] {
  const round = Math.PI * surface.diameterMm;
  const { gapMm, hand, side } = surface;
  if (!hasSides(surface) || count > 3)
    return Array.from({ length: count }, (_, k) => ({
      atMm: gapMm / 2 + ((round - gapMm) * (k + 0.5)) / count,
      side: null,
    }));
  const { holderMm, roomMm, frontMm } = sidesOf(round, hand);
  const at = { holder: holderMm, room: roomMm, front: frontMm };
  return sidesInOrder(side)
    .slice(0, count)
    .map((one) => ({ atMm: at[one], side: one }));
}

/** The sides that designs round a thing with a handle face, in their order, when the first faces a given one. */
export function sidesInOrder(first: Side): readonly NonNullable<OneOfSeveral['side']>[] {
  return ([first === 'both' ? 'holder' : first, 'holder', 'room', 'front'] as const).filter(
    (side, i, all) => all.indexOf(side) === i,
  );
}

function roundIt(surface: Cylinder, own: readonly Size[], wish: SeveralWish, reachMm: number): PlacedSeveral {
  const round = Math.PI * surface.diameterMm;
  const between = wish.betweenMm ?? BETWEEN_MM;
  const middles = middlesOf(surface, own.length);
  const halves = middles.map(({ atMm }) => {
    const toNext = middles.reduce(
      (least, other) => (other.atMm === atMm ? least : Math.min(least, Math.abs(other.atMm - atMm) / 2 - between / 2)),
      Infinity,
    );
    return Math.max(
      0,
      Math.min((round * SEEN_SHARE) / 2, toNext, atMm - surface.gapMm / 2, round - surface.gapMm / 2 - atMm),
    );
  });
  const [top, bottom] = [surface.lipMm, surface.straightHeightMm - surface.footMm];
  const rooms = middles.map(({ atMm }, i): Box => ({
    minX: atMm - halves[i]!,
    minY: top,
    maxX: atMm + halves[i]!,
    maxY: bottom,
  }));
  const roomy = rooms.every(({ minX, minY, maxX, maxY }) => maxX - minX > 2 * reachMm && maxY - minY > 2 * reachMm);
  const most = least(
    own.map(({ widthMm, heightMm }, i) =>
      (wish.widthsMm[i] ?? null) !== null
        ? Infinity
        : Math.min((2 * (halves[i]! - reachMm)) / widthMm, (bottom - top - 2 * reachMm) / heightMm),
    ),
    1,
  );
  const fittedScale = Math.max(most, 1e-6) * BELOW_LIMIT;
  const scale = wishedScale(own[0]!, wish.size) ?? fittedScale;
  const sizes = sizesAt(own, wish, scale);
  const placed = sizes.map(({ scale: times, widthMm, heightMm }, i) => ({
    scale: times,
    widthMm,
    heightMm,
    xMm: middles[i]!.atMm - widthMm / 2,
    yMm: (top + bottom - heightMm) / 2,
    room: rooms[i]!,
    side: middles[i]!.side,
  }));
  const cells = cellsOf([placed.map((_, i) => i)], placed);
  const isOver = placed.some((one) => !isWithin(one, one.room, reachMm));
  return {
    designs: placed.map((one, i) => ({ ...one, cell: cells[i]! })),
    scale,
    fittedScale,
    rows: [own.length],
    betweenMm: betweenAll(placed, reachMm),
    trouble: roomy ? (isOver ? 'too-large' : null) : 'no-room',
  };
}

function onBoard(surface: Flat, own: readonly Size[], wish: SeveralWish, reachMm: number): PlacedSeveral {
  const room = roomOf(surface);
  const between = wish.betweenMm ?? BETWEEN_MM;
  const layouts = Array.from({ length: own.length }, (_, i) => inRows(own.length, i + 1)).filter(
    (rows, i, all) => all.findIndex((other) => other.length === rows.length) === i,
  );
  const tried = layouts.map((rows) => {
    const fitted = fittedTo(room, rows, { own, wish, between, reachMm });
    const at = (scale: number) => spread(room, rows, { own, wish, scale, between, reachMm });
    const clearFit = shrunkUntil(fitted, (scale) => isClear(at(scale), surface.free, reachMm));
    return { rows, fitted, clearFit, at };
  });
  const wished = wishedScale(own[0]!, wish.size);
  const fittedScale = Math.max(...tried.map(({ clearFit, fitted }) => clearFit ?? fitted * LEAST_SHARE));
  const scale = wished ?? fittedScale;
  // What fits and is clear comes first; of those, where most lies between them. Rows of one length look better than others.
  const looks = ({ rows, between: apart }: { readonly rows: readonly number[]; readonly between: number }) =>
    apart * (rows.every((many) => many === rows[0]) ? 1 : UNEVEN);
  const ranked = tried
    .map(({ rows, fitted, at }) => {
      const placed = at(scale);
      return {
        rows,
        placed,
        fits: scale <= fitted * (1 + 1e-9),
        clear: isClear(placed, surface.free, reachMm),
        fitted,
        between: betweenAll(placed, reachMm),
      };
    })
    .sort(
      (a, b) =>
        Number(b.fits) - Number(a.fits) ||
        Number(b.clear) - Number(a.clear) ||
        (a.fits ? looks(b) - looks(a) : b.fitted - a.fitted),
    );
  const { rows, placed, fits, clear, between: betweenMm } = ranked[0]!;
  let k = 0;
  const cells = cellsOf(
    rows.map((count) => Array.from({ length: count }, () => k++)),
    placed,
  );
  const hasRoom = room.maxX - room.minX > 2 * reachMm && room.maxY - room.minY > 2 * reachMm;
  return {
    designs: placed.map((one, i) => ({ ...one, room, side: null, cell: cells[i]! })),
    scale,
    fittedScale,
    rows,
    betweenMm,
    trouble: !hasRoom ? 'no-room' : !fits ? 'too-large' : clear ? null : 'on-free-place',
  };
}

/** So many things in rows of at most so many, as even as can be, the longer rows first. */
function inRows(count: number, across: number): number[] {
  const rows = Math.ceil(count / across);
  return Array.from({ length: rows }, (_, i) => Math.floor(count / rows) + (i < count % rows ? 1 : 0));
}

interface BoardHow {
  readonly own: readonly Size[];
  readonly wish: SeveralWish;
  /** At least so much between two. */
  readonly between: number;
  readonly reachMm: number;
}

/** What is built of designs in rows: how wide each row is without what lies between, and how high. */
function extentsOf(sizes: readonly Size[], rows: readonly number[], reachMm: number) {
  let from = 0;
  return rows.map((count) => {
    const row = sizes.slice(from, (from += count));
    return {
      count,
      widthMm: row.reduce((sum, { widthMm }) => sum + widthMm + 2 * reachMm, 0),
      heightMm: Math.max(...row.map(({ heightMm }) => heightMm)) + 2 * reachMm,
    };
  });
}

/** The largest scale at which rows lie within a room. What has a width of its own stays. */
function fittedTo(room: Box, rows: readonly number[], { own, wish, between, reachMm }: BoardHow): number {
  const [width, height] = [room.maxX - room.minX, room.maxY - room.minY];
  const lies = (scale: number) => {
    const all = extentsOf(sizesAt(own, wish, scale), rows, reachMm);
    return (
      all.every(({ count, widthMm }) => widthMm + (count - 1) * between <= width) &&
      all.reduce((sum, { heightMm }) => sum + heightMm, 0) + (rows.length - 1) * between <= height
    );
  };
  let [low, high] = [
    1e-6,
    least(
      own.map(({ widthMm, heightMm }) => Math.min(width / widthMm, height / heightMm)),
      1,
    ),
  ];
  if (lies(high)) return high;
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (lies(middle)) low = middle;
    else high = middle;
  }
  return low;
}

function shrunkUntil(fitted: number, holds: (scale: number) => boolean): number | null {
  for (let scale = fitted; scale >= fitted * LEAST_SHARE; scale *= SMALLER) if (holds(scale)) return scale;
  return null;
}

/** Rows in a room: as much between two as at their ends, unless that were less than is wanted, or what lies between is given. */
function spread(
  room: Box,
  rows: readonly number[],
  { own, wish, scale, between, reachMm }: BoardHow & { readonly scale: number },
): PlacedDesign[] {
  const sizes = sizesAt(own, wish, scale);
  const extents = extentsOf(sizes, rows, reachMm);
  const gapOf = (spare: number, count: number) =>
    wish.betweenMm !== null ? between : Math.max(between, spare / (count + 1));
  const spareY = room.maxY - room.minY - extents.reduce((sum, { heightMm }) => sum + heightMm, 0);
  const gapY = gapOf(spareY, rows.length);
  let y = room.minY + (spareY - (rows.length - 1) * gapY) * OPTICAL_SHARE;
  let from = 0;
  const columns = columnsOf(sizes, rows, reachMm);
  const across = columns?.reduce((sum, wide) => sum + wide, 0) ?? Infinity;
  const inColumns =
    columns && across + (columns.length - 1) * between <= room.maxX - room.minX ? { columns, across } : null;
  return extents.flatMap(({ count, widthMm: ownWidth, heightMm: high }) => {
    // Rows of one length stand in columns where there is room for them.
    const filled = inColumns?.across ?? ownWidth;
    const spareX = room.maxX - room.minX - filled;
    const gapX = gapOf(spareX, count);
    let x = room.minX + (spareX - (count - 1) * gapX) / 2;
    const row = sizes.slice(from, (from += count)).map(({ scale: times, widthMm, heightMm }, i): PlacedDesign => {
      const column = inColumns?.columns[i] ?? widthMm + 2 * reachMm;
      const at = { scale: times, widthMm, heightMm, xMm: x + (column - widthMm) / 2, yMm: y + (high - heightMm) / 2 };
      x += column + gapX;
      return at;
    });
    y += high + gapY;
    return row;
  });
}

/** How wide columns are that rows of one length make; null for other rows. */
function columnsOf(sizes: readonly Size[], rows: readonly number[], reachMm: number): number[] | null {
  const [count] = rows;
  if (count === undefined || rows.some((many) => many !== count)) return null;
  return Array.from(
    { length: count },
    (_, k) => Math.max(...sizes.filter((_, i) => i % count === k).map(({ widthMm }) => widthMm)) + 2 * reachMm,
  );
}

/** The parts of a surface that belong to designs in rows: halfway to the next, and beyond the outermost. */
function cellsOf(rows: readonly (readonly number[])[], designs: readonly PlacedDesign[]): Box[] {
  const cells = new Array<Box>(designs.length);
  const extents = rows.map((row) => ({
    minY: Math.min(...row.map((i) => designs[i]!.yMm)),
    maxY: Math.max(...row.map((i) => designs[i]!.yMm + designs[i]!.heightMm)),
  }));
  rows.forEach((row, r) => {
    const minY = r === 0 ? extents[r]!.minY - BEYOND_MM : (extents[r - 1]!.maxY + extents[r]!.minY) / 2;
    const maxY = r === rows.length - 1 ? extents[r]!.maxY + BEYOND_MM : (extents[r]!.maxY + extents[r + 1]!.minY) / 2;
    const sorted = [...row].sort((a, b) => designs[a]!.xMm - designs[b]!.xMm);
    sorted.forEach((i, k) => {
      const [before, here, after] = [designs[sorted[k - 1] ?? -1], designs[i]!, designs[sorted[k + 1] ?? -1]];
      cells[i] = {
        minX: before ? (before.xMm + before.widthMm + here.xMm) / 2 : here.xMm - BEYOND_MM,
        minY,
        maxX: after ? (here.xMm + here.widthMm + after.xMm) / 2 : here.xMm + here.widthMm + BEYOND_MM,
        maxY,
      };
    });
  });
  return cells;
}

const boxOf = ({ xMm, yMm, widthMm, heightMm }: PlacedDesign, by: number): Box => ({
  minX: xMm - by,
  minY: yMm - by,
  maxX: xMm + widthMm + by,
  maxY: yMm + heightMm + by,
});

function isWithin(design: PlacedDesign, room: Box, reachMm: number): boolean {
  const { minX, minY, maxX, maxY } = boxOf(design, reachMm);
  return (
    minX >= room.minX - SLACK_MM &&
    minY >= room.minY - SLACK_MM &&
    maxX <= room.maxX + SLACK_MM &&
    maxY <= room.maxY + SLACK_MM
  );
}

function isClear(designs: readonly PlacedDesign[], free: readonly FreePlace[], reachMm: number): boolean {
  const places = free.map(boxOfFree);
  return designs.every((design) => {
    const { minX, minY, maxX, maxY } = boxOf(design, reachMm);
    return places.every(
      (place) =>
        minX >= place.maxX - SLACK_MM ||
        maxX <= place.minX + SLACK_MM ||
        minY >= place.maxY - SLACK_MM ||
        maxY <= place.minY + SLACK_MM,
    );
  });
}

/** What lies between the nearest two of some boxes, across or down, mm; what is nearest by a corner does not count. */
function betweenAll(designs: readonly PlacedDesign[], reachMm: number): number {
  const boxes = designs.map((design) => boxOf(design, reachMm));
  return least(
    boxes.flatMap((a, i) =>
      boxes.slice(i + 1).map((b) => Math.max(a.minX - b.maxX, b.minX - a.maxX, a.minY - b.maxY, b.minY - a.maxY)),
    ),
    0,
  );
}

/** The least of some figures; another where none is finite. */
function least(figures: readonly number[], otherwise: number): number {
  const smallest = Math.min(...figures);
  return Number.isFinite(smallest) ? smallest : otherwise;
}
