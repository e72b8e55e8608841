import { resolve } from 'node:path';
import { BUILT, ensureBuilt } from './build-programs.mjs';

/** Before the tests of server and pages: their worker threads run what was built, since each would compile the sources anew. */
export async function setup() {
  await ensureBuilt();
  process.env['LANTERN_PROGRAMS'] = resolve(BUILT);
}
