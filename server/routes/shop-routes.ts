import type { CutterProfile, Film } from '../../core/job/index.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';

const figure = (maximum: number) => ({ type: 'number', minimum: 0, maximum });

/** What the shop has, and the figures of it that a maker measures. */
export function shopRoutes({ shop }: Services): Route[] {
  return [
    { method: 'get', path: '/api/shop', summary: 'Films, pieces, mats and the cutter', answers: 'The shop', handle: () => shop.get() },
    {
      method: 'patch',
      path: '/api/shop/films/:id',
      summary: 'Correct a film’s figures: linear shrink in percent, thinnest weedable stroke in mm',
      body: { type: 'object', additionalProperties: false, minProperties: 1, properties: { shrinkPct: figure(5), thinnestMm: figure(50) } },
      answers: 'The shop',
      handle: async ({ params, body }) => {
        await shop.changeFilm(params['id']!, body as Partial<Film>);
        return shop.get();
      },
    },
    {
      method: 'patch',
      path: '/api/shop/cutter',
      summary: 'Correct how truly the cutter comes back to a point, mm',
      body: { type: 'object', additionalProperties: false, minProperties: 1, properties: { repeatabilityMm: figure(1) } },
      answers: 'The shop',
      handle: async ({ body }) => {
        await shop.changeCutter(body as Partial<CutterProfile>);
        return shop.get();
      },
    },
  ];
}
