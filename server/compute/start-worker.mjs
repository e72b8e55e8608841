import { existsSync, readlinkSync } from 'node:fs';
import { setPriority } from 'node:os';
import { basename, join } from 'node:path';
import { pathToFileURL } from 'node:url';

/** Nice enough that answers go first, and not so nice that a plan starves on a machine that is busy with other things: a tenth of an equal share. */
const BEHIND = 10;

stepBehind();
const { work } = await load();

// What the pool of workers calls.
export default work;

/** The worker as it was built (beside this file, or in the folder that LANTERN_PROGRAMS names), else its source: a worker thread does not inherit what its parent was started with. */
async function load() {
  const programs = process.env['LANTERN_PROGRAMS'];
  const built = programs
    ? pathToFileURL(join(programs, 'server/compute/worker.js'))
    : new URL('./worker.js', import.meta.url);
  if (existsSync(built)) return import(built.href);
  const { register } = await import('tsx/esm/api');
  register();
  return import('./worker.ts');
}

/** Lets the thread that answers pages go before this one when both want the processor. Linux gives each thread a priority of its own; elsewhere nothing is done. */
function stepBehind() {
  try {
    setPriority(Number(basename(readlinkSync('/proc/thread-self'))), BEHIND);
  } catch {
    // Not Linux, or not allowed: plans then share the processor as before.
  }
}
