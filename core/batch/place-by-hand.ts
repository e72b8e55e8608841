import { joinBoxes, type Box } from '../geometry/index.js';
import { nearestFree, type Placement } from '../engines/nesting/index.js';
import type { Shop } from '../shop/index.js';
import { InputError } from '../words/index.js';
import {
  BoxesOf,
  drawnIn,
  longestOf,
  neighboursOf,
  nestItemOf,
  nestSheetOf,
  rackOf,
  type LaidSheets,
  type LayWish,
  type Pin,
  type SheetGroup,
} from '../laying/index.js';
import { saySheetChanged, sayNoPlaceNearer, sayNoRoomThere, sayNotTurnedSo } from './say.js';

/** A copy on a sheet that a hand moves, mm, y up, and turns about its middle, degrees counter-clockwise. */
export interface HandMove {
  readonly sheetId: string;
  /** Its number on the sheet, from 0. */
  readonly group: number;
  readonly dxMm: number;
  readonly dyMm: number;
  readonly turn: number;
}

/** No farther than this it is drawn to where it touches what lies there; let go in the midst of others, these make room. */
const SNAP_MM = 15;
/** A shorter drag keeps a copy where it is, mm. */
const LEAST_MOVE_MM = 1;
/** A copy that ends nearer than this to its old place has not moved, mm. */
const STAYED_MM = 0.05;

/**
 * Where a copy comes to lie that a hand has moved: as near as it can, at the spacing from its neighbours and on its piece. What was laid by hand before is never moved for it; the rest is nested round it.
 * @throws InputError `sheet-changed` when there is no such copy (any more), `turn-not-allowed`, `no-room-there`, `no-place-nearer` when it would stay where it is
 */
export function placeByHand(
  out: LaidSheets,
  { shop, wish }: { readonly shop: Shop; readonly wish: LayWish },
  { sheetId, group: number, dxMm, dyMm, turn }: HandMove,
): Pin {
  const group = out.sheets.find(({ id }) => id === sheetId)?.groups[number];
  if (!group) throw new InputError('sheet-changed', saySheetChanged(), { source: 'batch' });
  const items = out.items.filter(({ film }) => film.id === group.filmId);
  const itemOf = (one: SheetGroup) => items.find(({ job, layer }) => job === one.job && layer === one.layer)!;
  const item = itemOf(group);
  const on = rackOf(item.film, shop, {
    longFeedMm: wish.longFeedMm,
    longestMm: longestOf(items.filter(({ quantity }) => quantity > 0)),
  }).find(({ key }) => key === group.place.pieceKey)!;
  const rotation = (group.place.rotation + turn + 360) % 360;
  if (!item.rotations.includes(rotation))
    throw new InputError('turn-not-allowed', sayNotTurnedSo(item.film, item.rotations.length === 1), {
      source: 'batch',
    });
  const beside = out.sheets
    .flatMap(({ groups }) => groups)
    .filter((one) => one !== group && one.filmId === group.filmId && one.place.pieceKey === group.place.pieceKey);
  const placementOf = (one: SheetGroup): Placement => ({
    item: itemOf(one).id,
    copy: one.copy,
    sheet: one.place.pieceKey,
    sheetIndex: 0,
    x: one.place.xMm,
    y: one.place.yMm,
    rotation: one.place.rotation,
  });
  const boxes = new BoxesOf(items);
  const [was, is] = [group.place.rotation, rotation].map((turned) =>
    boxes.at(item.id, turned).reduce((all, own) => joinBoxes(all, own)!),
  ) as [Box, Box];
  const at = {
    x: group.place.xMm + (was.minX + was.maxX - is.minX - is.maxX) / 2 + dxMm,
    y: group.place.yMm + (was.minY + was.maxY - is.minY - is.maxY) / 2 + dyMm,
  };
  const between = neighboursOf(items, wish);
  const { spacingMm, insetMm } = between;
  const free = nearestFree({
    sheet: nestSheetOf(on, insetMm),
    spacingMm,
    items: items.map((one) => nestItemOf(one, between)),
    item: item.id,
    rotation,
    wish: drawnIn(at, insetMm),
  });
  const among = (others: readonly SheetGroup[]) => {
    const found = free(others.map((one) => drawnIn(placementOf(one), insetMm)));
    return found && drawnIn(found, -insetMm);
  };
  const near = among(beside);
  const place =
    near && Math.hypot(near.x - at.x, near.y - at.y) <= SNAP_MM
      ? near
      : among(beside.filter(({ isPinned }) => isPinned));
  if (!place) throw new InputError('no-room-there', sayNoRoomThere(), { source: 'batch' });
  const isMoved = Math.hypot(place.x - group.place.xMm, place.y - group.place.yMm) > STAYED_MM;
  if (!isMoved && turn === 0 && Math.hypot(dxMm, dyMm) > LEAST_MOVE_MM)
    throw new InputError('no-place-nearer', sayNoPlaceNearer(), { source: 'batch' });
  return {
    jobId: item.jobId,
    fingerprint: group.fingerprint,
    copy: group.copy,
    pieceKey: on.key,
    xMm: place.x,
    yMm: place.y,
    rotation,
  };
}

/** What is laid by hand with one more in its place: a copy is laid once. */
export function withPin(pins: readonly Pin[], pin: Pin): Pin[] {
  return [
    ...pins.filter((one) => one.jobId !== pin.jobId || one.fingerprint !== pin.fingerprint || one.copy !== pin.copy),
    pin,
  ];
}
