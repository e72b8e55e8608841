import type { Context } from 'koa';
import type { ShopStore } from '../stores/shop-store.js';

/** Which maker is at work on the device that asks: a header with the maker's id. */
const HEADER = 'lantern-maker';

/** The name of who is at work on the device that asks; empty when that was not said, or there is no such maker. */
export async function whoOf(shop: ShopStore, ctx: Context): Promise<string> {
  const id = ctx.get(HEADER);
  return id ? shop.nameOfMaker(id) : '';
}
