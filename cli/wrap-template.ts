import { writeFile } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import { parseArgs } from 'node:util';
import { PRINT_FORMATS, writePrint } from '../core/print/index.js';
import { parseRecipe } from '../core/recipe/index.js';
import { measuredOf, sayRecipeTroubles, wrapTemplate } from '../core/stations/surface/index.js';
import { InputError } from '../core/words/index.js';
import { onlyFile, readJson, required } from './input.js';

/** Writes the wrap template of a recipe's surface at true scale. */
export async function wrapTemplateCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' } } });
  const file = onlyFile(positionals, 'wrap-template', 'the recipe');
  const out = required(values.out, 'wrap-template', 'out');
  const format = PRINT_FORMATS.find((one) => extname(out).toLowerCase() === `.${one}`);
  if (!format)
    throw new InputError('usage', `--out must end in .svg, .dxf or .pdf, but is “${basename(out)}”.`, {
      source: 'wrap-template',
    });
  const recipe = parseRecipe(await readJson(file), basename(file));
  const [trouble] = sayRecipeTroubles(recipe);
  if (trouble) throw new InputError('measures-wrong', trouble, { source: basename(file), path: '/surface' });
  await writeFile(out, await writePrint(wrapTemplate(measuredOf(recipe)), format));
}
