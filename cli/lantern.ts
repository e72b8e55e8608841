import { basename } from 'node:path';
import { InputError } from '../core/words/index.js';

/** Each command is loaded when it is called: help should not have to wait for all of them. */
const COMMANDS: ReadonlyMap<string, () => Promise<(args: string[]) => Promise<void>>> = new Map([
  ['separate', async () => (await import('./separate.js')).separateCommand],
  ['warp', async () => (await import('./warp.js')).warpCommand],
  ['panels', async () => (await import('./panels.js')).panelsCommand],
  ['prepare', async () => (await import('./prepare.js')).prepareCommand],
  ['learn', async () => (await import('./learn.js')).learnCommand],
  ['wrap-template', async () => (await import('./wrap-template.js')).wrapTemplateCommand],
  ['nest', async () => (await import('./nest.js')).nestCommand],
  ['batch', async () => (await import('./batch.js')).batchCommand],
  ['cut', async () => (await import('./cut.js')).cutCommand],
  ['simulate', async () => (await import('./simulate.js')).simulateCommand],
  ['plan', async () => (await import('./plan.js')).planCommand],
  ['recipe', async () => (await import('./recipe.js')).recipeCommand],
  ['recipe-schema', async () => (await import('./recipe.js')).recipeSchemaCommand],
  ['shop', async () => (await import('./shop.js')).shopCommand],
]);

const USAGE = `Commands:
  separate ART.svg --out DIR [--width MM | --height MM] [--build overlay|inlay|trapped] [--trap MM]
  warp ART --d1 MM --d2 MM --slant MM [--wide top|foot] --width MM --out DIR
  panels ART --width MM --roll MM [--lap MM] --out DIR
  wrap-template RECIPE.json --out FILE.svg|dxf|pdf
  prepare LAYER.svg... --out DIR [--family F] [--border box|contour|groups|none] [--relief] [--marks ends|edge|bar|three|none]
  learn HISTORY.json
  nest ITEMS.json --out DIR [--seconds N]
  batch BATCH.json --out DIR [--shop SHOP.json] [--seconds N]
  cut PATHS.svg --out FILE.plt [--cutter NAME] [--material NAME]
  simulate FILE.plt --out TRACE.svg
  recipe ART... [--title T] [--width MM] --out RECIPE.json
  recipe-schema
  shop --out SHOP.json
  plan RECIPE.json --out DIR [--shop SHOP.json]
See docs/command-line.md.`;

const SYSTEM_ERRORS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    ENOENT: 'there is no such file or folder',
    EACCES: 'access is refused',
    EISDIR: 'this is a folder, a file was expected',
    ENOTDIR: 'a part of this path is a file, not a folder',
    EEXIST: 'a file is in the way',
  }),
);

const [name, ...args] = process.argv.slice(2);
const load = name === undefined ? undefined : COMMANDS.get(name);

if (name === '--help' || name === 'help') console.log(USAGE);
else if (!load) {
  console.error(`lantern: ${name ?? 'no command'}: expected one of ${[...COMMANDS.keys()].join(', ')}`);
  process.exitCode = 2;
} else {
  try {
    const command = await load();
    await (await import('../platform/load-kernel.js')).loadKernelInNode();
    await command(args);
  } catch (error) {
    console.error(`lantern: ${describe(error, name!)}`);
    process.exitCode = 2;
  }
}

/** One line for any failure: `FILE: reason`, with the place in the file where it is known. */
function describe(error: unknown, commandName: string): string {
  if (error instanceof InputError) {
    const file = error.source ?? commandName;
    const place = error.path ? ` (${error.path})` : '';
    return oneLine(`${file}: ${error.message}${place}`);
  }
  const { code, path, message } = error as NodeJS.ErrnoException;
  if (code?.startsWith('ERR_PARSE_ARGS')) return oneLine(`${commandName}: ${message}`);
  if (code && path) return oneLine(`${basename(path)}: ${SYSTEM_ERRORS.get(code) ?? `the system answered ${code}`}`);
  return oneLine(`${commandName}: this should not happen (${message}); please keep the file and report it`);
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
