import {
  areaOf,
  boundsOf,
  boxesTouch,
  clipRingToBox,
  containsPoint,
  crossingsAt,
  signedArea,
  simplifyRing,
  subtract,
  tolerances,
  unite,
  widenBox,
  type Box,
  type Rings,
} from '../../geometry/index.js';
import { EVERYWHERE, type PlaceRules } from '../../words/index.js';
import { boxIndex, shapeKey } from './separate.js';

/** A painted area of the artwork, as much as putting right has to know of it. */
export interface ColouredArea {
  /** "#rrggbb", or BARE. */
  readonly colour: string;
  readonly rings: Rings;
}

/** Remedies that need know nothing of films. */
export interface PaintRemedies {
  /** Colours that are taken for others. */
  readonly recolour: Readonly<Record<string, string>>;
  /** Colours that mean bare surface. */
  readonly noFilm: readonly string[];
  /** Shapes of which nothing shows are left out. */
  readonly tidy: boolean;
  /** Outlines keep within this of their drawing with as few corners as possible; 0 keeps every corner. */
  readonly simplifyMm: number;
}

/** The colour of what is painted and means bare surface: it covers what lies under it, and no film is cut for it. */
export const BARE = 'bare';

/** White, or so near to it that it may be meant as paper. */
export function isWhite(colour: string): boolean {
  return /^#f[c-f]f[c-f]f[c-f]$/.test(colour);
}

/**
 * The painted areas after the remedies that need know nothing of films, in the order in which they mean something: colours first, then
 * what is left out, then outlines. Nothing of the artwork itself is changed; an empty `repair` gives the same areas back.
 */
export function putRight<T extends ColouredArea>(
  areas: readonly T[],
  repair: PaintRemedies,
  rules: PlaceRules = EVERYWHERE,
): T[] {
  let out: T[] = areas.map((area) => {
    const colour = meantColour(area, repair, rules);
    return colour === area.colour ? area : { ...area, colour };
  });
  if (repair.tidy) out = withoutUnseen(out, rules);
  const { simplifyMm } = repair;
  if (simplifyMm > 0)
    out = out.map((area) =>
      rules.reaches('simplify', boundsOf(area.rings)!)
        ? { ...area, rings: unite(area.rings.map((ring) => simplifyRing(ring, simplifyMm))) }
        : area,
    );
  return out.filter((area) => area.rings.length > 0);
}

/** The colour that an area is taken for; BARE when it means bare surface. */
export function meantColour(
  { colour, rings }: ColouredArea,
  { recolour, noFilm }: Pick<PaintRemedies, 'recolour' | 'noFilm'>,
  rules: PlaceRules,
): string {
  const now = recolour[colour] ?? colour;
  if (!noFilm.includes(now) && !isWhite(now)) return now;
  const box = boundsOf(rings);
  if (!box || rules.spares('bare', box)) return now;
  return noFilm.includes(now) || rules.chose('bare', box) ? BARE : now;
}

/** Leaves out what nothing shows of: areas wholly under others, and those painted twice. */
function withoutUnseen<T extends ColouredArea>(areas: readonly T[], rules: PlaceRules): T[] {
  const unseen = new Set(
    unseenAreas(areas).flatMap(({ index }) => (rules.reaches('tidy', boundsOf(areas[index]!.rings)!) ? [index] : [])),
  );
  return areas.filter((_, i) => !unseen.has(i));
}

/** So many of the areas above one are looked at, the largest first: more than these together hardly ever hide what none of them does. */
const MOST_COVERS = 48;

/** An area that nothing shows of, and whether an equal one of the same colour is what lies over it. */
export interface UnseenArea {
  readonly index: number;
  readonly doubled: boolean;
}

/** Which areas nothing shows of. */
export function unseenAreas(areas: readonly ColouredArea[]): UnseenArea[] {
  if (areas.length === 0) return [];
  const boxed = areas.map((area) => ({
    ...area,
    box: boundsOf(area.rings)!,
    ringBoxes: area.rings.map((ring) => boundsOf([ring])!),
    size: areaOf(area.rings),
  }));
  const touching = boxIndex(boxed.map((area) => area.box));
  // From the top down, so that of many equal ones the uppermost is the one that stays.
  const shapes = new Set<string>();
  const gone = new Set<number>();
  const out: UnseenArea[] = [];
  for (let index = areas.length - 1; index >= 0; index -= 1) {
    const area = boxed[index]!;
    const shape = `${area.colour} ${shapeKey(area)}`;
    if (shapes.has(shape)) {
      gone.add(index);
      out.push({ index, doubled: true });
      continue;
    }
    shapes.add(shape);
    const above = touching(area.box, (j) => j > index && !gone.has(j));
    if (
      above.length === 0 ||
      !reachesRound(
        area.box,
        above.map((j) => boxed[j]!.box),
      )
    )
      continue;
    if (
      peeksOut(
        area,
        above.map((j) => boxed[j]!),
      )
    )
      continue;
    const covers = above.sort((a, b) => boxed[b]!.size - boxed[a]!.size).slice(0, MOST_COVERS);
    const left = subtract(
      area.rings,
      nearRings(
        area.box,
        covers.map((j) => boxed[j]!),
      ),
    ).reduce((sum, ring) => sum + signedArea(ring), 0);
    if (left <= tolerances.CRUMB_MM2) out.push({ index, doubled: false });
  }
  return out.reverse();
}

/** Clear room round an area, mm: what is cut down to it must not touch what lies in it. */
const ROOM_MM = 0.05;

/** What of covers lies round a box: only that can cover what is in it. */
function nearRings(box: Box, covers: readonly BoxedRings[]): Rings {
  const room = widenBox(box, ROOM_MM);
  return covers.flatMap(({ rings, ringBoxes }) =>
    rings
      .flatMap((ring, i) => (boxesTouch(ringBoxes[i]!, room) ? [clipRingToBox(ring, room, ringBoxes[i])] : []))
      .filter((ring) => ring.length >= 6),
  );
}

/** Edges of an area that are looked at, evenly spread, and how far inside it they are looked at, mm: further than a rim that rounding leaves. */
const LOOKS = 24;
const INSIDE_MM = 0.02;

/** Whether some spot of an area plainly lies under none of the others: most do, and the kernel need not be asked. False says nothing. */
function peeksOut({ rings, box }: { readonly rings: Rings; readonly box: Box }, above: readonly BoxedRings[]): boolean {
  const isBare = ([x, y]: readonly [number, number]) => above.every((cover) => !isCovered(cover, x, y));
  if (innerSpots(rings, box).some(isBare)) return true;
  const ring = rings[0]!;
  const n = ring.length / 2;
  for (let look = 0; look < Math.min(LOOKS, n); look += 1) {
    const i = Math.floor((look * n) / Math.min(LOOKS, n));
    const j = (i + 1) % n;
    const [dx, dy] = [ring[2 * j]! - ring[2 * i]!, ring[2 * j + 1]! - ring[2 * i + 1]!];
    const long = Math.hypot(dx, dy) || 1;
    const [x, y] = [
      (ring[2 * i]! + ring[2 * j]!) / 2 - (dy / long) * INSIDE_MM,
      (ring[2 * i + 1]! + ring[2 * j + 1]!) / 2 + (dx / long) * INSIDE_MM,
    ];
    if (!containsPoint(rings, x, y)) continue;
    if (isBare([x, y])) return true;
  }
  return false;
}

/**
 * Heights of an area, as shares of its box, at which a spot of its widest stretch is looked at: a fill's edges lie under its own stroke, its middle
 * does not. Never the very middle, where two halves that hide it together meet.
 */
const HEIGHTS = [0.47, 0.27, 0.73];
const ALONG = 0.47;

function innerSpots(rings: Rings, { minY, maxY }: Box): [number, number][] {
  return HEIGHTS.flatMap((share): [number, number][] => {
    const y = minY + share * (maxY - minY);
    const crossed = crossingsAt(rings, y);
    let [best, widest] = [0, 2 * INSIDE_MM];
    for (let k = 0; k + 1 < crossed.length; k += 2) {
      const wide = crossed[k + 1]! - crossed[k]!;
      if (wide > widest) [best, widest] = [crossed[k]! + ALONG * wide, wide];
    }
    return widest > 2 * INSIDE_MM ? [[best, y]] : [];
  });
}

interface BoxedRings {
  readonly rings: Rings;
  readonly ringBoxes: readonly Box[];
}

/** Whether a cover lies over a spot; only rings whose boxes hold it can say. */
function isCovered({ rings, ringBoxes }: BoxedRings, x: number, y: number): boolean {
  return containsPoint(
    rings.filter((_, i) => {
      const box = ringBoxes[i]!;
      return x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
    }),
    x,
    y,
  );
}

/** Boxes can only hide another together if they reach all its sides. */
function reachesRound(box: Box, others: readonly Box[]): boolean {
  const slack = 1e-6;
  return (
    others.some((b) => b.minX <= box.minX + slack) &&
    others.some((b) => b.maxX >= box.maxX - slack) &&
    others.some((b) => b.minY <= box.minY + slack) &&
    others.some((b) => b.maxY >= box.maxY - slack)
  );
}
