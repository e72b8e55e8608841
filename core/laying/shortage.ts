import type { Placement } from '../engines/nesting/index.js';
import type { Film } from '../shop/index.js';
import { layFilm, type LayItem, type Loaded, type ShopToLay } from './lay-film.js';
import type { LayWish } from './lay-wish.js';
import { loadableOf, roomOn } from './loadable.js';
import type { Neighbours } from './shared-borders.js';
import type { Shortage } from './sheet-plan.js';

/** So little is tried between groups, mm: less, and waste between them no longer holds together while it is weeded. */
const CLOSE_MM = 2;
/** No roll is longer than this, mm. */
const LONGEST_MM = 50_000;
/** What stays free round a roll of which nothing is known, mm. */
const EDGE_MM = 5;

interface Short {
  readonly film: Film;
  readonly all: readonly LayItem[];
  readonly missing: readonly LayItem[];
  readonly rack: readonly Loaded[];
  readonly shop: ShopToLay;
  readonly wish: Pick<LayWish, 'leftovers'> & Neighbours;
  /** What was laid by hand: it stays where it is. */
  readonly pinned: readonly Placement[];
}

/** What would help where there is not enough of a film: each is tried, so that it helps when it is done. */
export async function shortageOf(
  { film, all, missing, rack, shop, wish, pinned }: Short,
  hooks: { readonly breathe?: () => Promise<void> },
): Promise<Shortage> {
  const closer =
    wish.spacingMm > CLOSE_MM && rack.length > 0
      ? await layFilm(all, rack, { ...wish, spacingMm: CLOSE_MM, pinned }, hooks)
      : null;
  const widths = shop.pieces
    .filter((piece) => piece.filmId === film.id && piece.kind === 'roll' && piece.widthMm <= shop.cutter.widthMm)
    .map(({ widthMm }) => widthMm);
  const widthMm = widths.length > 0 ? Math.max(...widths) : shop.cutter.widthMm;
  const on = loadableOf(
    {
      id: 'another roll',
      filmId: film.id,
      kind: 'roll',
      number: null,
      widthMm,
      lengthMm: LONGEST_MM,
      edgeMm: EDGE_MM,
      quantity: 1,
    },
    shop,
  );
  const another = on
    ? await layFilm(missing, [{ ...on, key: on.piece.id, room: roomOn(on) }], { ...wish, pinned: [] }, hooks)
    : null;
  const holdsAll = another !== null && another.result.unplaced.length === 0;
  return {
    film,
    missing: missing.map(({ job, quantity }) => ({ job, quantity })),
    spacingMm: closer && closer.result.unplaced.length === 0 ? CLOSE_MM : null,
    roll: holdsAll ? { widthMm, lengthMm: another.laid[0]!.used.lengthMm } : null,
  };
}
