import { pathToFileURL } from 'node:url';
import { ensureInstalled } from './ensure-installed.mjs';

/*
 * Runs a program of the checkout by its path without an ending, with the arguments that follow: node scripts/run.mjs cli/lantern help. What
 * it needs is installed and built first, if it is not; both speak on stderr only.
 */

const [program] = process.argv.splice(2, 1);
ensureInstalled();
const { ensureBuilt } = await import('./build-programs.mjs');
await ensureBuilt();
await import(pathToFileURL(`dist/programs/${program}.js`).href);
