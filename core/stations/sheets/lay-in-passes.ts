import { nest, type NestItem, type NestResult, type Placement } from '../../engines/nesting/index.js';
import { areaOf, boundsOf, keyOf } from '../../geometry/index.js';
import type { Film, FilmPiece } from '../../shop/index.js';
import type { PreparedLayer } from '../prepare/index.js';
import { inOneBox, placed, type Group } from './group.js';
import { roomOn, type Loadable } from './loadable.js';
import type { PanelNumber, SheetGroup, SheetPlan } from './sheet-plan.js';

/** A layer of a panel, and how often it is cut. */
export interface LaidLayer {
  readonly prepared: PreparedLayer;
  readonly film: Film;
  readonly isMirrored: boolean;
  readonly group: Group;
  readonly copies: number;
  /** So many of them are cut already. */
  readonly done: number;
  readonly item: NestItem;
}

/** Panels and designs of one film are fed together up to this length, mm: a roll drifts on a long feed, and a long panel is better handled by itself. */
const LONG_FEED_MM = 1500;

interface PassWish {
  readonly spacingMm: number;
  /** One border goes round all copies on a sheet. */
  readonly sharesBorder: boolean;
}

export interface LaidInPasses {
  readonly sheets: readonly SheetPlan[];
  /** Copies of layers that found no place. */
  readonly left: readonly { readonly layer: LaidLayer; readonly left: number }[];
}

/**
 * The layers of one film on the pieces of it that are in stock, the first piece to be used first: all together, so that panels and designs share pieces and passes; each by itself where together they would be fed too
 * far in one pass, or fewer would find a place.
 */
export async function layInPasses(layers: readonly LaidLayer[], rack: readonly Loadable[], wish: PassWish, breathe?: () => Promise<void>): Promise<LaidInPasses> {
  const hooks = breathe ? { breathe } : {};
  const layTogether = async (some: readonly LaidLayer[], used: UsedUp) => sheetsOf(some, rack, await nest({ sheets: rack.flatMap((on) => used.leftOf(on)), spacingMm: wish.spacingMm, items: some.map(({ item }) => item) }, hooks), wish);
  const together = await layTogether(layers, new UsedUp());
  if (layers.length === 1) return together;
  const isFedFar = together.sheets.some(({ panels, usedLengthMm }) => panels.length > 1 && usedLengthMm > LONG_FEED_MM);
  if (!isFedFar && together.left.length === 0) return together;
  const used = new UsedUp();
  const alone: LaidInPasses[] = [];
  for (const layer of layers) {
    const found = await layTogether([layer], used);
    for (const { piece, usedLengthMm } of found.sheets) used.take(piece, usedLengthMm);
    alone.push(found);
  }
  const each: LaidInPasses = { sheets: alone.flatMap(({ sheets }) => sheets), left: alone.flatMap(({ left }) => left) };
  const leftIn = ({ left }: LaidInPasses) => left.reduce((sum, one) => sum + one.left, 0);
  return !isFedFar && leftIn(together) < leftIn(each) ? together : each;
}

function sheetsOf(layers: readonly LaidLayer[], rack: readonly Loadable[], { placements, unplaced }: NestResult, { sharesBorder }: PassWish): LaidInPasses {
  const byId = new Map(layers.map((layer) => [layer.item.id, layer]));
  const passes = new Map<string, Placement[]>();
  for (const placement of placements) {
    const key = `${placement.sheet}#${placement.sheetIndex}`;
    passes.set(key, [...(passes.get(key) ?? []), placement]);
  }
  return {
    sheets: [...passes].map(([key, own]) => {
      const { piece, mat, edges } = rack.find((on) => on.piece.id === own[0]!.sheet)!;
      // Layer by layer, as they are said; copies in order.
      const inOrder = layers.flatMap((layer) => own.filter(({ item }) => item === layer.item.id).map((placement) => ({ layer, placement })));
      const alone = inOrder.map(({ layer: { group, done, prepared }, placement }): SheetGroup => ({ ...placed(group, { ...placement, copy: done + placement.copy, x: placement.x + edges.sides, y: placement.y + edges.bottom }), panel: prepared.panel.number, keptMm2: areaOf(prepared.layer.cut) }));
      const groups = sharesBorder ? inOneBox(alone) : alone;
      const on = [...new Set(inOrder.map(({ layer }) => layer))];
      const { film, isMirrored } = on[0]!;
      const highest = boundsOf(groups.flatMap((group) => [...group.contours, ...group.borders]))!.maxY;
      return {
        id: keyOf(film.id, key, ...on.map(({ group }) => group.fingerprint), groups.map(({ panel, copy }) => [panel, copy])),
        film,
        panels: on.map(({ prepared }) => numberOf(prepared.panel)),
        isMirrored,
        piece,
        mat,
        edges,
        usedLengthMm: Math.min(piece.lengthMm, highest + edges.top),
        keptMm2: groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0),
        groups,
        hasOneBorder: groups !== alone && groups.length > 1,
      };
    }),
    left: unplaced.map(({ item, quantity }) => ({ layer: byId.get(item)!, left: quantity })),
  };
}

/** What of the pieces the layers before have taken. */
class UsedUp {
  readonly #lengths = new Map<string, number>();
  readonly #counts = new Map<string, number>();

  /** What is left of a piece to be nested on; nothing of one that is used up. */
  leftOf(on: Loadable) {
    const room = roomOn(on);
    const { id, kind } = on.piece;
    const left = kind === 'roll' ? { ...room, lengthMm: room.lengthMm - (this.#lengths.get(id) ?? 0) } : { ...room, quantity: room.quantity - (this.#counts.get(id) ?? 0) };
    return left.lengthMm > 0 && left.quantity > 0 ? [left] : [];
  }

  take({ id }: FilmPiece, lengthMm: number): void {
    this.#lengths.set(id, (this.#lengths.get(id) ?? 0) + lengthMm);
    this.#counts.set(id, (this.#counts.get(id) ?? 0) + 1);
  }
}

export function numberOf({ number, of, label }: PanelNumber): PanelNumber {
  return { number, of, label };
}
