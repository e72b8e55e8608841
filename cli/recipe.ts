import { createHash, randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { basename, dirname, extname, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { pictureKind } from '../core/engines/artwork/index.js';
import { Planner } from '../core/plan/index.js';
import { emptyRecipe, patchRecipe, RECIPE_SCHEMA } from '../core/recipe/index.js';
import { drawingPart, picturePart } from '../core/stations/artwork/index.js';
import { InputError } from '../core/words/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { DEMO_SHOP } from '../demo/shop.js';
import { numberOption, readInput, required } from './input.js';

/** Writes a fresh recipe for artworks that lie beside it, all judgements left to the app. */
export async function recipeCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { out: { type: 'string' }, title: { type: 'string' }, width: { type: 'string' } },
  });
  if (positionals.length === 0) throw new InputError('usage', 'Expected at least one artwork.', { source: 'recipe' });
  const out = required(values.out, 'recipe', 'out');
  const width = numberOption(values.width, 'width', 1, 'recipe');
  const title = values.title ?? basename(positionals[0]!, extname(positionals[0]!));
  if (title.trim() === '' || title.length > 200)
    throw new InputError('usage', 'A title has 1 to 200 signs.', { source: 'recipe' });
  const planner = new Planner(resourcesInNode);
  const sources = new Map<string, Uint8Array>();
  let recipe = emptyRecipe(title);
  for (const file of positionals) {
    if (resolve(dirname(file)) !== resolve(dirname(out)))
      throw new InputError(
        'not-beside',
        `It does not lie beside the recipe, where it is looked for. Put both into one folder.`,
        { source: basename(file) },
      );
    const bytes = await readInput(file);
    const source = {
      id: randomUUID(),
      fileName: basename(file),
      sha256: createHash('sha256').update(bytes).digest('hex'),
    };
    sources.set(source.id, bytes);
    recipe = patchRecipe(
      recipe,
      await planner.adding(
        { recipe, shop: DEMO_SHOP, sources },
        pictureKind(bytes) ? picturePart(source) : drawingPart(source),
      ),
    );
  }
  if (width !== null) recipe = patchRecipe(recipe, { surface: { size: { mode: 'width', mm: width } } });
  await writeFile(out, `${JSON.stringify(recipe, null, 2)}\n`);
}

/** Prints the JSON schema of a recipe. */
export function recipeSchemaCommand(args: string[]): Promise<void> {
  parseArgs({ args, options: {} });
  console.log(JSON.stringify(RECIPE_SCHEMA, null, 2));
  return Promise.resolve();
}
