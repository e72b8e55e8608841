import type { CutterProfile, Film } from '../../core/shop/index.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';

const figure = (maximum: number) => ({ type: 'number', minimum: 0, maximum });

const REVISION = { revision: { type: 'integer', minimum: 0 } } as const;

/** What the shop has, and the figures of it that a maker measures. */
export function shopRoutes({ shop }: Services): Route[] {
  return [
    { method: 'get', path: '/api/shop', summary: 'Films, pieces, mats and the cutter', answer: 'Shop', answers: 'The shop', handle: () => shop.get() },
    {
      method: 'patch',
      path: '/api/shop/films/:id',
      summary: 'Correct a film’s figures: how far its edges draw back indoors and in the sun in mm, its shrink under the press in percent, its thinnest weedable stroke in mm, how well it hides in percent',
      body: { type: 'object', additionalProperties: false, required: ['revision'], minProperties: 2, properties: { drawBackIndoorsMm: figure(2), drawBackSunMm: figure(2), shrinkPct: figure(5), thinnestMm: figure(50), opacityPct: figure(100), ...REVISION } },
      answer: 'Shop',
      answers: 'The shop',
      handle: async ({ params, body }) => {
        const { revision, ...change } = body as Partial<Film> & { revision: number };
        await shop.changeFilm(params['id']!, change, revision);
        return shop.get();
      },
    },
    {
      method: 'patch',
      path: '/api/shop/cutter',
      summary: 'Correct how truly the cutter comes back to a point, mm',
      body: { type: 'object', additionalProperties: false, required: ['revision'], minProperties: 2, properties: { repeatabilityMm: figure(1), ...REVISION } },
      answer: 'Shop',
      answers: 'The shop',
      handle: async ({ body }) => {
        const { revision, ...change } = body as Partial<CutterProfile> & { revision: number };
        await shop.changeCutter(change, revision);
        return shop.get();
      },
    },
  ];
}
