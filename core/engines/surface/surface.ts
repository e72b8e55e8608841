import { widenBox, type Box } from '../../geometry/index.js';
import type { Bend } from './compound.js';
import { sidesOf, SEEN_SHARE, type Hand } from './cylinder.js';
import {
  OPTICAL_SHARE,
  liesWithin,
  placeOnDeveloped,
  roomOf,
  widestOnDeveloped,
  type Developed,
  type Margins,
} from './developed.js';
import type { FreePlace } from './free-places.js';
import { SPOTS, type Spot } from './garment.js';
import { sectorOf, type Cone } from './taper.js';
import { wishedScale, type PlacedDesign, type Placing, type Size, type SizeWish } from './surface-kind.js';

/** Nothing was measured yet: the artwork's own size rules, and nothing is too large. */
export interface Unmeasured {
  readonly kind: 'unmeasured';
}

interface Measured {
  /** Where the design's upper left corner was put; null where the app puts it. */
  readonly at: { readonly xMm: number; readonly yMm: number } | null;
}

/** A flat board, or glass that is decorated from inside. */
export interface Flat extends Size, Measured {
  readonly kind: 'flat' | 'glass';
  readonly marginMm: Margins;
  readonly free: readonly FreePlace[];
}

/** Which way a design looks on a thing with a handle. */
export type Side = 'front' | 'holder' | 'room' | 'both';

/** A round thing with straight sides. */
export interface Cylinder extends Measured {
  readonly kind: 'cylinder';
  readonly diameterMm: number;
  readonly straightHeightMm: number;
  /** Kept free below the lip and above the foot. */
  readonly lipMm: number;
  readonly footMm: number;
  /** Round the handle, or a seam; 0 for none. */
  readonly gapMm: number;
  readonly hand: Hand;
  readonly side: Side;
  /** All the way round, and not only as far as can be seen at once. */
  readonly wraps: boolean;
}

/** A round thing that is wider at one end. */
export interface Taper extends Measured {
  readonly kind: 'taper';
  readonly cone: Cone;
  readonly lipMm: number;
  readonly footMm: number;
  readonly gapMm: number;
  readonly wraps: boolean;
}

/** A thing that bends in two directions; its size is measured along it. */
export interface Compound extends Size, Measured {
  readonly kind: 'compound';
  readonly bend: Bend;
}

/** A garment: a print is as wide as is usual where it sits. */
export interface Garment {
  readonly kind: 'garment';
  readonly spot: Spot;
}

/** What gets decorated, by its kind. */
export type Surface = Unmeasured | Flat | Cylinder | Taper | Compound | Garment;

/** A little below the largest size: no two blanks of one model are alike. Source: trade practice. */
export const BELOW_LIMIT = 0.97;

const NO_MARGINS: Margins = { top: 0, right: 0, bottom: 0, left: 0 };

/** Where a design lies on a side, mm from its upper edge. */
export type LiesAt = Pick<PlacedDesign, 'yMm' | 'heightMm'>;

/**
 * A surface rolled out flat, in the design's own mm: a taper as if it were as wide all over as at the middle of the design; without a design, as at the middle of what lip and foot
 * leave, where the app puts one. Null where nothing was measured.
 */
export function developedOf(surface: Surface, lies: LiesAt | null = null): Developed | null {
  switch (surface.kind) {
    case 'unmeasured':
    case 'garment':
      return null;
    case 'flat':
    case 'glass':
      return { ...surface, middleXMm: null, shareAbove: OPTICAL_SHARE, fitShare: 1 };
    case 'cylinder': {
      const { diameterMm, straightHeightMm, lipMm, footMm, gapMm, wraps } = surface;
      const round = Math.PI * diameterMm;
      return {
        ...rolledOut(round, straightHeightMm, {
          lipMm,
          footMm,
          gapMm,
          wraps,
          middleMm: hasSides(surface) ? sideMiddleMm(surface) : round / 2,
        }),
        at: surface.at,
      };
    }
    case 'taper': {
      const { cone, lipMm, footMm, gapMm, wraps } = surface;
      const round = circumferenceAt(cone, lies ? lies.yMm + lies.heightMm / 2 : (lipMm + cone.slantMm - footMm) / 2);
      return {
        ...rolledOut(round, cone.slantMm, { lipMm, footMm, gapMm, wraps, middleMm: round / 2 }),
        at: surface.at,
      };
    }
    case 'compound':
      return {
        ...surface,
        marginMm: NO_MARGINS,
        free: [],
        middleXMm: null,
        shareAbove: OPTICAL_SHARE,
        fitShare: BELOW_LIMIT,
      };
  }
}

/** Whether a design faces one side or the other: a thing that is held has two, for what does not go all round it. */
export function hasSides({ gapMm, wraps }: Pick<Cylinder, 'gapMm' | 'wraps'>): boolean {
  return gapMm > 0 && !wraps;
}

/** Whether one goes on each side. */
export function facesBothSides(surface: Surface): surface is Cylinder {
  return surface.kind === 'cylinder' && surface.side === 'both' && hasSides(surface);
}

/** Where the middle of a design lies that faces a side, mm from the handle’s middle; with one on each side, that of the holder’s. */
export function sideMiddleMm({ diameterMm, hand, side }: Pick<Cylinder, 'diameterMm' | 'hand' | 'side'>): number {
  const { holderMm, roomMm, frontMm } = sidesOf(Math.PI * diameterMm, hand);
  return { holder: holderMm, both: holderMm, room: roomMm, front: frontMm }[side];
}

/** How far it is round a frustum so far below its upper edge, along its slant, mm. */
export function circumferenceAt(cone: Cone, fromTopMm: number): number {
  const { innerRadiusMm, outerRadiusMm, angleRad } = sectorOf(cone);
  const within = Math.min(cone.slantMm, Math.max(0, fromTopMm));
  return angleRad * (cone.wide === 'foot' ? innerRadiusMm + within : outerRadiusMm - within);
}

/** A round thing cut open at the middle of its handle or seam and rolled out. What goes on one side may be a third of the way round. */
function rolledOut(
  roundMm: number,
  heightMm: number,
  {
    lipMm,
    footMm,
    gapMm,
    wraps,
    middleMm,
  }: {
    readonly lipMm: number;
    readonly footMm: number;
    readonly gapMm: number;
    readonly wraps: boolean;
    readonly middleMm: number;
  },
): Omit<Developed, 'at'> {
  const half = Math.min(roundMm * SEEN_SHARE, roundMm - gapMm) / 2;
  const left = wraps ? gapMm / 2 : Math.max(gapMm / 2, middleMm - half);
  const right = wraps ? gapMm / 2 : Math.max(gapMm / 2, roundMm - middleMm - half);
  // What goes all the way round without a handle meets itself: it is as long as the way.
  return {
    widthMm: roundMm,
    heightMm,
    marginMm: { top: lipMm, bottom: footMm, left, right },
    free: [],
    middleXMm: wraps ? null : middleMm,
    shareAbove: 0.5,
    fitShare: wraps && gapMm === 0 ? 1 : BELOW_LIMIT,
  };
}

/**
 * A round thing with all that may be decorated, and not only what is seen from one place: a third of the way round is what a design is fitted to, and no margin. Null where
 * the two are alike.
 */
function pastSeen(surface: Surface, developed: Developed): Developed | null {
  if ((surface.kind !== 'cylinder' && surface.kind !== 'taper') || surface.wraps) return null;
  return { ...developed, marginMm: { ...developed.marginMm, left: surface.gapMm / 2, right: surface.gapMm / 2 } };
}

/** A design sized for a surface and placed on it. See placeOnDeveloped. */
export function placeOn(surface: Surface, own: Size, wish: SizeWish, reachMm: number): Placing {
  const placing = placedOn(surface, own, wish, reachMm);
  const { design, trouble } = placing;
  if (trouble !== 'into-margins' && trouble !== 'put-beyond') return placing;
  const past = pastSeen(surface, developedOf(surface, design)!);
  if (!past) return placing;
  const around = widenBox({ minX: 0, minY: 0, maxX: design.widthMm, maxY: design.heightMm }, reachMm);
  if (liesWithin(past, design, around)) return { ...placing, trouble: null };
  const aside = past.at ? null : besideHandle(past, design, reachMm);
  return aside && liesWithin(past, aside, around)
    ? { ...placing, design: aside, movedAside: true, trouble: null }
    : placing;
}

/** What is moved out of the handle's way keeps this clear of it, mm, where there is room: an outline may still be put round it. */
const BESIDE_HANDLE_MM = 3;

/** A design on the side of a held thing, moved from the side's middle as far as it must be to keep clear of the handle. */
function besideHandle(past: Developed, design: PlacedDesign, reachMm: number): PlacedDesign | null {
  const { minX, maxX } = roomOf(past);
  const room = maxX - minX - 2 * reachMm - design.widthMm;
  if (room < 0) return null;
  const clearMm = reachMm + Math.min(BESIDE_HANDLE_MM, room / 2);
  const xMm = Math.min(maxX - clearMm - design.widthMm, Math.max(minX + clearMm, design.xMm));
  return { ...design, xMm };
}

function placedOn(surface: Surface, own: Size, wish: SizeWish, reachMm: number): Placing {
  const developed = developedOf(surface);
  if (developed && surface.kind === 'taper') return placeOnTaper(surface, developed, { own, wish, reachMm });
  if (developed) return placeOnDeveloped(developed, own, wish, reachMm);
  if (surface.kind === 'garment') return placeOnGarment(surface, own, wish);
  const scale = wishedScale(own, wish) ?? 1;
  return {
    design: { scale, widthMm: own.widthMm * scale, heightMm: own.heightMm * scale, xMm: 0, yMm: 0 },
    room: null,
    movedAside: false,
    trouble: null,
  };
}

/** So often at most a design is placed again: each time it lies nearer to the height that it was sized for, by the taper's own slope or more. */
const MOST_PLACINGS = 60;
/** Nearer than this it lies at that height, mm. */
const SAME_HEIGHT_MM = 1e-6;

/** On a taper a design is as wide as goes round at its own height, and how high it lies depends on how large it is. */
function placeOnTaper(
  surface: Taper,
  first: Developed,
  { own, wish, reachMm }: { readonly own: Size; readonly wish: SizeWish; readonly reachMm: number },
): Placing {
  let placing = placeOnDeveloped(first, own, wish, reachMm);
  for (let n = 0; n < MOST_PLACINGS; n += 1) {
    const lies = placing.design;
    placing = placeOnDeveloped(developedOf(surface, lies)!, own, wish, reachMm);
    const moved = placing.design.yMm + placing.design.heightMm / 2 - lies.yMm - lies.heightMm / 2;
    if (Math.abs(moved) < SAME_HEIGHT_MM) break;
  }
  return placing;
}

/** A garment has no edge near a print: it is as wide as is usual, or as is wished. */
function placeOnGarment({ spot }: Garment, own: Size, wish: SizeWish): Placing {
  const { widthMm: usual } = SPOTS[spot];
  const scale = wishedScale(own, wish) ?? usual / own.widthMm;
  const heightMm = own.heightMm * scale;
  return {
    design: { scale, widthMm: own.widthMm * scale, heightMm, xMm: 0, yMm: 0 },
    room: { widthMm: usual, heightMm, bound: 'width', fittedWidthMm: usual },
    movedAside: false,
    trouble: null,
  };
}

/** How wide a design may be on a surface; null when it stays where it may lie. See widestOnDeveloped. */
export function widestOn(surface: Surface, design: PlacedDesign, box: Box): number | null {
  const developed = developedOf(surface, design);
  const past = developed && pastSeen(surface, developed);
  if (past && liesWithin(past, design, box)) return null;
  return developed && widestOnDeveloped(developed, design, box);
}

/** The largest size that goes on a surface, mm, on a taper at the height where a design lies; null where nothing was measured. */
export function limitsOf(surface: Surface, lies: LiesAt | null = null): Size | null {
  const developed = developedOf(surface, lies);
  if (!developed) return null;
  const { minX, minY, maxX, maxY } = roomOf(developed);
  return {
    widthMm: Math.max(0, maxX - minX) * developed.fitShare,
    heightMm: Math.max(0, maxY - minY) * developed.fitShare,
  };
}
