import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';

/*
 * Server, cutter and command line as plain JavaScript, folder by folder as their sources are: a command that has to be compiled each time it
 * is called takes seconds to begin.
 */

const ROOMS = ['core', 'platform', 'cutter', 'server', 'cli', 'demo'];
export const BUILT = 'dist/programs';
const STAMP = 'built.txt';

const sources = () =>
  ROOMS.flatMap((room) =>
    readdirSync(room, { recursive: true, withFileTypes: true }).flatMap((file) =>
      file.isFile() ? [join(file.parentPath, file.name)] : [],
    ),
  ).filter((file) => /\.(ts|mjs)$/.test(file) && !/\.(test|tmp|d)\.|[\\/]testing[\\/]/.test(file));

/** Another one whenever a source is changed, added or taken away. */
function stampOf(files) {
  return [...files]
    .sort()
    .map((file) => `${file} ${statSync(file).mtimeMs}`)
    .join('\n');
}

/** Builds the programs unless they are there as their sources are. */
export async function ensureBuilt() {
  const files = sources();
  const stamp = stampOf(files);
  if (existsSync(join(BUILT, STAMP)) && readFileSync(join(BUILT, STAMP), 'utf8') === stamp) return;
  const { build } = await import('esbuild');
  // Beside it and then in its place: another process may be doing the same.
  const beside = `${BUILT}-${process.pid}`;
  await build({
    entryPoints: files.filter((file) => file.endsWith('.ts')),
    outdir: beside,
    outbase: '.',
    format: 'esm',
    platform: 'node',
    target: 'node20.19',
    sourcemap: 'linked',
    logLevel: 'error',
  });
  for (const file of files.filter((name) => name.endsWith('.mjs'))) {
    mkdirSync(dirname(join(beside, file)), { recursive: true });
    copyFileSync(file, join(beside, file));
  }
  writeFileSync(join(beside, STAMP), stamp);
  rmSync(BUILT, { recursive: true, force: true });
  renameSync(beside, BUILT);
}
