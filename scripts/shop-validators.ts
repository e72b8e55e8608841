import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv } from 'ajv';
import standaloneModule from 'ajv/dist/standalone/index.js';
import { SHOP_SCHEMAS } from '../core/shop/index.js';

/**
 * Writes the checks of the shop's records as a module: the very schemas of the API, compiled beforehand, since the pages' security policy lets no page
 * write code for itself. Gives the module's path.
 */
export function writeShopValidators(folder: string): string {
  const kinds = Object.keys(SHOP_SCHEMAS);
  const ajv = new Ajv({
    allErrors: true,
    strict: false,
    verbose: true,
    schemas: Object.entries(SHOP_SCHEMAS).map(([kind, schema]) => ({ ...schema, $id: kind })),
    code: { source: true, esm: true },
  });
  // A module of the old kind, whose own face lies within what an import of it gives.
  const standalone = (standaloneModule as unknown as { default: typeof standaloneModule }).default;
  const code = standalone(
    ajv as unknown as Parameters<typeof standalone>[0],
    Object.fromEntries(kinds.map((kind) => [kind, kind])),
  );
  const needed = 'require("ajv/dist/runtime/ucs2length").default';
  // It counts signs as the server does; what it was written for knows no import.
  const path = join(folder, 'shop-validators.js');
  mkdirSync(folder, { recursive: true });
  writeFileSync(path, `const signs = (text) => [...text].length;\n${code.replaceAll(needed, 'signs')}`);
  return path;
}
