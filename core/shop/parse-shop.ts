import { Ajv, type ValidateFunction } from 'ajv';
import { InputError } from '../words/index.js';
import { object } from '../words/schema.js';
import { STRIP_BULK_MM } from './film.js';
import { sayFault, worst, type Fault } from './fields/say-fault.js';
import { SHOP_SCHEMAS, type ShopFile } from './shop.js';

const list = (schema: object) => ({ type: 'array', maxItems: 100_000, items: schema });

/** JSON schema of a shop as a file holds it (docs/shop.schema.json). */
export const SHOP_FILE_SCHEMA = {
  $id: 'https://wry-lantern.example/schemas/shop.json',
  title: 'Shop',
  ...object({
    settings: SHOP_SCHEMAS.settings,
    films: list(SHOP_SCHEMAS.films),
    stock: list(
      object({ ...SHOP_SCHEMAS.pieces.properties, left: { type: 'number', minimum: 0, maximum: 100_000_000 } }),
    ),
    mats: list(SHOP_SCHEMAS.mats),
    blades: list(SHOP_SCHEMAS.blades),
    cutters: { ...list(SHOP_SCHEMAS.cutters), minItems: 1 },
    tapes: list(SHOP_SCHEMAS.tapes),
    presses: list(SHOP_SCHEMAS.presses),
    makers: list(SHOP_SCHEMAS.makers),
    blanks: list(SHOP_SCHEMAS.blanks),
  }),
};

let compiled: ValidateFunction<ShopFile> | null = null;

/** A shop's file as today's are: files from before films and makers said how bulky waste may be, and cutters how they hold a roll, are completed with what is typical. What is no shop comes back as it is, for the schema to refuse. */
function completed(json: unknown): unknown {
  if (typeof json !== 'object' || json === null) return json;
  const shop = json as Readonly<Record<string, unknown>>;
  const each = (list: unknown, more: object) =>
    Array.isArray(list)
      ? list.map((one: unknown) =>
          typeof one === 'object' && one !== null && !Array.isArray(one) ? { ...more, ...one } : one,
        )
      : list;
  return {
    ...shop,
    ...('films' in shop && { films: each(shop['films'], { stripBulkMm: STRIP_BULK_MM }) }),
    ...('cutters' in shop && { cutters: each(shop['cutters'], { leaderMm: 0, tailMm: 0 }) }),
    ...('makers' in shop && { makers: each(shop['makers'], { stripBulkMm: null }) }),
  };
}

/** Reads a shop from parsed JSON. @throws InputError (code `shop-invalid`) with the place of the first thing that is wrong, or that names what is not there */
export function parseShop(from: unknown, source = 'shop'): ShopFile {
  const json = completed(from);
  // Compiled when first needed: compiling writes code, which a page's security policy refuses.
  const validate = (compiled ??= new Ajv({ allErrors: true, strict: false, verbose: true }).compile<ShopFile>(
    SHOP_FILE_SCHEMA,
  ));
  if (!validate(json)) {
    const fault = worst((validate.errors ?? []) as unknown as Fault[])!;
    const named =
      fault.keyword === 'required' || fault.keyword === 'additionalProperties'
        ? ` “${String(fault.params['missingProperty'] ?? fault.params['additionalProperty'])}”`
        : '';
    throw new InputError(
      'shop-invalid',
      `${fault.keyword === 'additionalProperties' ? 'A field is not known:' : fault.keyword === 'required' ? 'A field is missing:' : sayFault(fault)}${named}`,
      { source, path: fault.instancePath || '/' },
    );
  }
  const films = new Set(json.films.map(({ id }) => id));
  const twice = [...json.films, ...json.stock, ...json.cutters]
    .map(({ id }) => id)
    .find((id, i, all) => all.indexOf(id) !== i);
  if (twice !== undefined) throw new InputError('shop-invalid', `The id “${twice}” is given twice.`, { source });
  const lost = json.stock.findIndex(({ filmId }) => !films.has(filmId));
  if (lost >= 0)
    throw new InputError('shop-invalid', `There is no film called “${json.stock[lost]!.filmId}”.`, {
      source,
      path: `/stock/${lost}/filmId`,
    });
  if (!json.cutters.some(({ id }) => id === json.settings.cutterId))
    throw new InputError('shop-invalid', `There is no cutter called “${json.settings.cutterId}”.`, {
      source,
      path: '/settings/cutterId',
    });
  return json;
}
