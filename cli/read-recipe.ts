import { createHash } from 'node:crypto';
import { basename, dirname, join } from 'node:path';
import { parseRecipe, type Recipe } from '../core/recipe/index.js';
import { parseShop, shopForPlans, wholeShop, type Shop } from '../core/shop/index.js';
import { sourcesOf } from '../core/stations/artwork/index.js';
import { InputError } from '../core/words/index.js';
import { DEMO_SHOP } from '../demo/shop.js';
import { readInput, readJson } from './input.js';

/** A recipe with its artworks, which are looked for beside it. @throws InputError when one is not the file that the recipe was made for */
export async function readRecipe(
  file: string,
): Promise<{ readonly recipe: Recipe; readonly sources: ReadonlyMap<string, Uint8Array> }> {
  const recipe = parseRecipe(await readJson(file), basename(file));
  const sources = new Map<string, Uint8Array>();
  for (const artwork of recipe.artworks.flatMap(sourcesOf)) {
    const bytes = await readInput(join(dirname(file), basename(artwork.fileName)));
    if (createHash('sha256').update(bytes).digest('hex') !== artwork.sha256) {
      throw new InputError(
        'artwork-changed',
        `${artwork.fileName} is not the file the recipe was made for: its SHA-256 differs.`,
        { source: basename(file) },
      );
    }
    sources.set(artwork.id, bytes);
  }
  return { recipe, sources };
}

/** The shop of a file; the demo's where none is named. */
export async function readShop(file: string | undefined): Promise<Shop> {
  return file === undefined ? DEMO_SHOP : shopForPlans(wholeShop(parseShop(await readJson(file), basename(file))));
}
