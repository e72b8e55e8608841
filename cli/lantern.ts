import { basename } from 'node:path';
import { closest, distance } from 'fastest-levenshtein';
import { InputError } from '../core/words/index.js';

/** A command: how it is called, and what runs it. */
interface Command {
  /** Its arguments. */
  readonly usage: string;
  readonly load: () => Promise<(args: string[]) => Promise<void>>;
}

/** Each command is loaded when it is called: help should not have to wait for all of them. */
const COMMANDS: ReadonlyMap<string, Command> = new Map(
  Object.entries({
    separate: {
      usage: 'ART.svg --out DIR [--width MM | --height MM] [--build overlay|inlay|trapped] [--trap MM]',
      load: async () => (await import('./separate.js')).separateCommand,
    },
    warp: {
      usage: 'ART --d1 MM --d2 MM --slant MM [--wide top|foot] --width MM --out DIR',
      load: async () => (await import('./warp.js')).warpCommand,
    },
    panels: {
      usage: 'ART --width MM --roll MM [--lap MM] --out DIR',
      load: async () => (await import('./panels.js')).panelsCommand,
    },
    prepare: {
      usage:
        'LAYER.svg... --out DIR [--family F] [--border box|contour|groups|none] [--relief] [--marks ends|edge|bar|three|none]',
      load: async () => (await import('./prepare.js')).prepareCommand,
    },
    learn: { usage: 'HISTORY.json', load: async () => (await import('./learn.js')).learnCommand },
    'wrap-template': {
      usage: 'RECIPE.json --out FILE.svg|dxf|pdf',
      load: async () => (await import('./wrap-template.js')).wrapTemplateCommand,
    },
    nest: { usage: 'ITEMS.json --out DIR [--seconds N]', load: async () => (await import('./nest.js')).nestCommand },
    batch: {
      usage: 'BATCH.json --out DIR [--shop SHOP.json] [--seconds N]',
      load: async () => (await import('./batch.js')).batchCommand,
    },
    cut: {
      usage: 'PATHS.svg --out FILE.plt [--cutter NAME] [--material NAME]',
      load: async () => (await import('./cut.js')).cutCommand,
    },
    simulate: { usage: 'FILE.plt --out TRACE.svg', load: async () => (await import('./simulate.js')).simulateCommand },
    plan: {
      usage: 'RECIPE.json --out DIR [--shop SHOP.json]',
      load: async () => (await import('./plan.js')).planCommand,
    },
    recipe: {
      usage: 'ART... [--title T] [--width MM] --out RECIPE.json',
      load: async () => (await import('./recipe.js')).recipeCommand,
    },
    'recipe-schema': { usage: '', load: async () => (await import('./recipe.js')).recipeSchemaCommand },
    shop: { usage: '--out SHOP.json', load: async () => (await import('./shop.js')).shopCommand },
  }),
);

/** As package.json has it. */
const VERSION = '0.1.0';

const usageOf = (name: string) => `${name} ${COMMANDS.get(name)!.usage}`.trim();
const USAGE = `Commands:
${[...COMMANDS.keys()].map((name) => `  ${usageOf(name)}`).join('\n')}
Any of them with --help says how it is called; --version says which version this is.
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
const command = name === undefined ? undefined : COMMANDS.get(name);

if (name === '--help' || name === 'help') console.log(USAGE);
else if (name === '--version') console.log(`lantern ${VERSION}`);
else if (!command) {
  console.error(`lantern: ${sayUnknown(name)}`);
  process.exitCode = 2;
} else if (args.includes('--help')) console.log(`lantern ${usageOf(name!)}\nSee docs/command-line.md.`);
else {
  try {
    const run = await command.load();
    await (await import('../platform/load-kernel.js')).loadKernelInNode();
    await run(args);
  } catch (error) {
    console.error(`lantern: ${describe(error, name!)}`);
    process.exitCode = 2;
  }
}

/** What to do about a command that there is none of: the nearest by its letters is suggested. */
function sayUnknown(given: string | undefined): string {
  const known = [...COMMANDS.keys()];
  if (given === undefined) return `no command: expected one of ${known.join(', ')}`;
  const nearest = closest(given, known);
  // Farther off than half its letters it is no slip of the finger.
  return distance(given, nearest) * 2 <= nearest.length
    ? `${given}: there is no such command. Did you mean ${nearest}?`
    : `${given}: expected one of ${known.join(', ')}`;
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
