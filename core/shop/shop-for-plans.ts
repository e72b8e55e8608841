import type { CutterCard } from './cutter.js';
import { asFilmPiece } from './piece.js';
import type { Shop, ShopFile, WholeShop } from './shop.js';

/** The cutter that a shop cuts with. */
export function cutterInUse({ cutters, settings }: Pick<ShopFile, 'cutters' | 'settings'>): CutterCard {
  return cutters.find(({ id }) => id === settings.cutterId) ?? cutters[0]!;
}

/** All of a shop, with what a plan reads of it: pieces as they can be cut, and the cutter that is used. */
export function wholeShop(file: ShopFile): WholeShop {
  return { ...file, pieces: file.stock.map(asFilmPiece), cutter: cutterInUse(file) };
}

/** What a plan reads of a shop: nothing that would make it another plan when only a note was changed. */
export function shopForPlans(shop: WholeShop): Shop {
  const { films, mats, pieces } = shop;
  const { bladeId: _blade, retired: _retired, ...profile } = cutterInUse(shop);
  return {
    films,
    mats: mats
      .filter((mat) => !mat.retired)
      .map(({ id, name, widthMm, lengthMm, edgeMm }) => ({ id, name, widthMm, lengthMm, edgeMm })),
    pieces,
    cutter: profile,
  };
}
