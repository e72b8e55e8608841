import { asFilmPiece } from './piece.js';
import type { Shop, ShopFile, WholeShop } from './shop.js';

/** All of a shop, with what a plan reads of it: pieces as they can be cut, and the cutter that is used. */
export function wholeShop(file: ShopFile): WholeShop {
  const { cutters, settings, stock } = file;
  const cutter = cutters.find(({ id }) => id === settings.cutterId) ?? cutters[0]!;
  return { ...file, pieces: stock.map(asFilmPiece), cutter };
}

/** What a plan reads of a shop: nothing that would make it another plan when only a note was changed. */
export function planShop({ films, mats, pieces, cutters, cutter }: WholeShop): Shop {
  const { bladeId: _blade, retired: _retired, ...profile } = cutters.find(({ id }) => id === cutter.id)!;
  return {
    films,
    mats: mats.filter((mat) => !mat.retired).map(({ id, name, widthMm, lengthMm, edgeMm }) => ({ id, name, widthMm, lengthMm, edgeMm })),
    pieces,
    cutter: profile,
  };
}
