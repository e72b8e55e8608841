import type { Film, Shop } from '../film.js';

/** The knife settings of a film on the shop's cutter. */
export function settingsFor(film: Film, shop: Shop): { forceG: number; speedMmS: number; bladeOffsetMm: number; overcutMm: number } {
  return { forceG: film.forceG, speedMmS: film.speedMmS, bladeOffsetMm: shop.cutter.bladeOffsetMm, overcutMm: shop.cutter.overcutMm };
}
