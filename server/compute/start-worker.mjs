import { readlinkSync } from 'node:fs';
import { setPriority } from 'node:os';
import { basename } from 'node:path';
import { register } from 'tsx/esm/api';

/** Nice enough that answers go first, and not so nice that a plan starves on a machine that is busy with other things: a tenth of an equal share. */
const BEHIND = 10;

stepBehind();
// A worker thread does not inherit what its parent was started with, and modules that are loaded late must be understood here too.
register();
const { work } = await import('./worker.ts');

// What the pool of workers calls.
export default work;

/** Lets the thread that answers pages go before this one when both want the processor. Linux gives each thread a priority of its own; elsewhere nothing is done. */
function stepBehind() {
  try {
    setPriority(Number(basename(readlinkSync('/proc/thread-self'))), BEHIND);
  } catch {
    // Not Linux, or not allowed: plans then share the processor as before.
  }
}
