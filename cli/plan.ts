import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { writeHpgl } from '../core/engines/cutting/index.js';
import { parseShop, planShop, wholeShop } from '../core/shop/index.js';
import { InputError } from '../core/words/index.js';
import { parseRecipe } from '../core/recipe/index.js';
import { sourcesOf } from '../core/stations/artwork/index.js';
import { layerSvg, Planner, planReport, sheetSvg } from '../core/plan/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { DEMO_SHOP } from '../demo/shop.js';
import { makeFolder, onlyFile, readInput, readJson, required } from './input.js';

/** Runs a whole recipe with a shop: report, layers, sheets and HP-GL. Artworks are looked for beside the recipe. */
export async function planCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' }, shop: { type: 'string' } } });
  const file = onlyFile(positionals, 'plan', 'the recipe');
  const out = required(values.out, 'plan', 'out');
  const shop = values.shop === undefined ? DEMO_SHOP : planShop(wholeShop(parseShop(await readJson(values.shop), basename(values.shop))));
  const recipe = parseRecipe(await readJson(file), basename(file));
  const sources = new Map<string, Uint8Array>();
  for (const artwork of recipe.artworks.flatMap(sourcesOf)) {
    const bytes = await readInput(join(dirname(file), basename(artwork.fileName)));
    if (createHash('sha256').update(bytes).digest('hex') !== artwork.sha256) {
      throw new InputError('artwork-changed', `${artwork.fileName} is not the file the recipe was made for: its SHA-256 differs.`, { source: basename(file) });
    }
    sources.set(artwork.id, bytes);
  }
  const plan = await new Planner(resourcesInNode).plan({ recipe, shop, sources });
  await makeFolder(out);
  const { build, surface, sheets, cut } = plan;
  const frame = surface?.frame;
  if (build && frame) {
    for (const layer of build.layers) await writeFile(join(out, `layer-${layer.order}-${layer.film.id}.svg`), layerSvg(layer.cut, layer.film.colour, frame));
  }
  for (const [i, sheet] of (sheets?.sheets ?? []).entries()) {
    await writeFile(join(out, `sheet-${i + 1}-${sheet.film.id}.svg`), sheetSvg(sheet));
    const program = cut?.programs[i];
    if (program) await writeFile(join(out, `sheet-${i + 1}-${sheet.film.id}.plt`), writeHpgl(program));
  }
  await writeFile(join(out, 'report.json'), JSON.stringify(planReport(plan), null, 2) + '\n');
}
