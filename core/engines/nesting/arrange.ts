import type { NestHooks, NestItem, NestRequest, Placement } from './nest-request.js';
import type { NoFits } from './no-fit.js';
import { OpenSheet, type FillOptions, type Spot } from './open-sheet.js';
import type { Lying } from './separate.js';
import { orientationOf, type Orientation, type Shape } from './shape.js';

/** Copies of one thing fill in rows, so what is far below them leaves no gap for them; different things may still find one. */
const COPIES_BESIDE = 24;
const MANY_COPIES = 100;
const ITEMS_BESIDE = 80;

/** An item with what is known of it while it is placed. */
export interface Candidate {
  readonly item: NestItem;
  readonly area: number;
  readonly shape: Shape;
  readonly orientations: readonly Orientation[];
  /** The copies that are to be placed, by number: those that are pinned are not among them. */
  readonly copies: readonly number[];
}

/** What is laid next in an order: so many of a candidate's copies that are not laid yet, one after the other. */
export interface Turn {
  readonly candidate: Candidate;
  readonly count: number;
  /** Those of the candidate's that may be taken. */
  readonly orientations: readonly Orientation[];
  /** As far to the left as it goes without using more of a sheet's length; where it does not fit so, and for all others, as low as it goes. */
  readonly isAside: boolean;
}

/** A copy where it lies on its sheet. */
export interface Laid extends Lying {
  readonly candidate: Candidate;
  readonly copy: number;
  readonly isPinned: boolean;
}

/** A sheet in use and all that lies on it. */
export interface LaidSheet {
  readonly open: OpenSheet;
  laid: Laid[];
}

export interface Arrangement {
  readonly sheets: readonly LaidSheet[];
  readonly missing: readonly { readonly candidate: Candidate; readonly quantity: number }[];
  /** Fewest left over first, then least film. */
  readonly score: number;
}

/** Places candidates in an order: each copy on the first sheet in use that has room, else on the next sheet. */
export async function arrange(
  order: readonly Turn[],
  request: NestRequest,
  noFits: NoFits,
  hooks: NestHooks,
): Promise<Arrangement> {
  const sheets: LaidSheet[] = [];
  const left = request.sheets.map((sheet) => sheet.quantity ?? Infinity);
  const missing = new Map<Candidate, number>();
  const counts = new Map<string, number>();
  const fill: FillOptions = {
    spacingMm: request.spacingMm,
    closedAfter: order.length === 1 && order[0]!.candidate.item.quantity > MANY_COPIES ? COPIES_BESIDE : ITEMS_BESIDE,
  };
  const open = (at: number): LaidSheet => {
    const sheet = request.sheets[at]!;
    left[at]! -= 1;
    const index = counts.get(sheet.id) ?? 0;
    counts.set(sheet.id, index + 1);
    const opened = { open: new OpenSheet(sheet, index, noFits, fill), laid: [] };
    sheets.push(opened);
    return opened;
  };
  const openNext = (orientations: readonly Orientation[]): LaidSheet | null => {
    const at = request.sheets.findIndex(
      (sheet, i) =>
        left[i]! > 0 &&
        orientations.some((o) => o.width <= sheet.widthMm + 1e-6 && o.height <= (sheet.lengthMm ?? Infinity) + 1e-6),
    );
    return at < 0 ? null : open(at);
  };
  for (const pin of request.pinned ?? []) {
    const at = request.sheets.findIndex(({ id }) => id === pin.sheet);
    while ((counts.get(pin.sheet) ?? 0) <= pin.sheetIndex) open(at);
    const on = sheets.find(({ open: { sheet, index } }) => sheet.id === pin.sheet && index === pin.sheetIndex)!;
    const { candidate } = order.find(({ candidate: { item } }) => item.id === pin.item)!;
    const orientation =
      candidate.orientations.find(({ rotation }) => rotation === pin.rotation) ??
      orientationOf(
        candidate.item.group.map(({ outer }) => outer),
        pin.rotation,
        candidate.shape,
      );
    lay(on, {
      candidate,
      copy: pin.copy,
      isPinned: true,
      orientation,
      x: pin.x + orientation.originX,
      y: pin.y + orientation.originY,
    });
  }
  const laid = new Map<Candidate, number>();
  for (const { candidate, count, orientations, isAside } of order) {
    for (let k = 0; k < count; k += 1) {
      await hooks.breathe?.();
      const found = sheets.reduce<Found | null>(
        (hit, sheet) => hit ?? (isAside ? bestOn(sheet, orientations, true) : null) ?? bestOn(sheet, orientations),
        null,
      );
      const opened = found ? null : openNext(orientations);
      const place = found ?? (opened && bestOn(opened, orientations));
      if (!place) {
        missing.set(candidate, (missing.get(candidate) ?? 0) + count - k);
        break;
      }
      const number = laid.get(candidate) ?? 0;
      laid.set(candidate, number + 1);
      lay(place.sheet, {
        candidate,
        copy: candidate.copies[number]!,
        isPinned: false,
        orientation: place.orientation,
        ...place.spot,
      });
    }
  }
  const leftOver = [...missing].map(([candidate, quantity]) => ({ candidate, quantity }));
  return { sheets, missing: leftOver, score: scoreOf(sheets, leftOver) };
}

/** The film that is used, by area, with what is left over counted a million times: smaller is better. */
export function scoreOf(sheets: readonly LaidSheet[], missing: Arrangement['missing']): number {
  const film = sheets.reduce((sum, { open }) => sum + open.usedLength * open.sheet.widthMm, 0);
  const lost = missing.reduce((sum, m) => sum + m.quantity * m.candidate.area, 0);
  return film + lost * 1e6;
}

export function lay(on: LaidSheet, laid: Laid): void {
  on.open.place(laid.orientation, laid);
  on.laid.push(laid);
}

/** Those on a sheet of its own, as it was. */
export function laidAnew(
  { sheet, index }: OpenSheet,
  laid: readonly Laid[],
  noFits: NoFits,
  spacingMm: number,
): LaidSheet {
  const made: LaidSheet = { open: new OpenSheet(sheet, index, noFits, { spacingMm, closedAfter: Infinity }), laid: [] };
  for (const one of laid) lay(made, one);
  return made;
}

export function placementOf(
  { open: { sheet, index } }: LaidSheet,
  { candidate, copy, orientation, x, y }: Laid,
): Placement {
  return {
    item: candidate.item.id,
    copy,
    sheet: sheet.id,
    sheetIndex: index,
    x: x - orientation.originX,
    y: y - orientation.originY,
    rotation: orientation.rotation,
  };
}

interface Found {
  readonly sheet: LaidSheet;
  readonly orientation: Orientation;
  readonly spot: Spot;
}

/** The orientation and the place on a sheet at which a group's upper edge is lowest; aside, its right edge farthest to the left. Null when there is none. */
export function bestOn(sheet: LaidSheet, orientations: readonly Orientation[], isAside = false): Found | null {
  let best: Found | null = null;
  const edgeOf = ({ orientation, spot }: Pick<Found, 'orientation' | 'spot'>) =>
    isAside ? spot.x + orientation.width : spot.y + orientation.height;
  for (const orientation of orientations) {
    const spot = isAside ? sheet.open.spotAside(orientation) : sheet.open.bestSpot(orientation);
    if (spot && (!best || edgeOf({ orientation, spot }) < edgeOf(best) - 1e-6)) best = { sheet, orientation, spot };
  }
  return best;
}
