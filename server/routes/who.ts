import type { Context } from 'koa';
import type { RouteRequest } from '../route.js';
import type { ShopEdit, ShopStore } from '../stores/shop-store.js';

/** Which maker is at work on the device that asks: a header with the maker's id. */
const HEADER = 'lantern-maker';

/** The name of who is at work on the device that asks; empty when that was not said, or there is no such maker. */
export async function whoOf(shop: ShopStore, ctx: Context): Promise<string> {
  const id = ctx.get(HEADER);
  return id ? shop.nameOfMaker(id) : '';
}

/** What a request says of the write of the shop that it asks for. */
export async function shopEditOf(
  shop: ShopStore,
  { ctx, body }: Pick<RouteRequest, 'ctx' | 'body'>,
): Promise<ShopEdit> {
  const { revision, edit } = body as { revision: number; edit?: string };
  return { revision, ...(edit === undefined ? {} : { edit }), who: await whoOf(shop, ctx) };
}
