import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { writeHpgl } from '../core/engines/cutting/index.js';
import { layerSvg, Planner, planReport, sheetSvg } from '../core/plan/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { makeFolder, onlyFile, required } from './input.js';
import { readRecipe, readShop } from './read-recipe.js';

/** Runs a whole recipe with a shop: report, layers, sheets and HP-GL. Artworks are looked for beside the recipe. */
export async function planCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { out: { type: 'string' }, shop: { type: 'string' } },
  });
  const file = onlyFile(positionals, 'plan', 'the recipe');
  const out = required(values.out, 'plan', 'out');
  const shop = await readShop(values.shop);
  const { recipe, sources } = await readRecipe(file);
  const plan = await new Planner(resourcesInNode).plan({ recipe, shop, sources });
  await makeFolder(out);
  const { build, surface, sheets, cut } = plan;
  const frame = surface?.frame;
  if (build && frame) {
    for (const layer of build.layers)
      await writeFile(
        join(out, `layer-${layer.order}-${layer.film.id}.svg`),
        layerSvg(layer.cut, layer.film.colour, frame),
      );
  }
  for (const [i, sheet] of (sheets?.sheets ?? []).entries()) {
    const name = `sheet-${i + 1}-${sheet.films[0]!.id}`;
    await writeFile(join(out, `${name}.svg`), sheetSvg(sheet));
    const program = cut?.programs[i];
    if (program) await writeFile(join(out, `${name}.plt`), writeHpgl(program));
  }
  await writeFile(join(out, 'report.json'), JSON.stringify(planReport(plan), null, 2) + '\n');
}
