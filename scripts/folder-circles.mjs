import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';

/*
 * Finds circles of folders: rooms that import each other, by whatever way round, at two and at three levels. The linter sees walls and
 * circles of files; a circle of folders can hide between both. Tests may set a scene from any room and are left out.
 */

const ROOMS = ['core', 'platform', 'cutter', 'server', 'web', 'cli', 'demo', 'scripts'];
const IMPORT = /(?:from|import\()\s*'(\.[^']+)'/g;

const files = ROOMS.flatMap((room) => readdirSync(room, { recursive: true }).map((path) => join(room, path))).filter(
  (file) => /\.tsx?$/.test(file) && !/\.(test|tmp|d)\.|[\\/]testing[\\/]/.test(file),
);
const imports = files.map((file) => ({
  file,
  to: [...readFileSync(file, 'utf8').matchAll(IMPORT)].map(([, path]) => normalize(join(dirname(file), path))),
}));

/** Which folders import which, at so many levels. A folder inside another is part of it. */
function arrows(levels) {
  const folderOf = (file) => dirname(file).split('/').slice(0, levels).join('/');
  const found = new Map();
  for (const { file, to } of imports) {
    const from = folderOf(file);
    for (const target of to.map(folderOf)) {
      if (target === from || target.startsWith(`${from}/`) || from.startsWith(`${target}/`)) continue;
      found.set(from, (found.get(from) ?? new Set()).add(target));
    }
  }
  return found;
}

/** Folders that come back to themselves, with the way round. */
function circles(levels) {
  const to = arrows(levels);
  const done = new Set();
  const found = [];
  const visit = (folder, way) => {
    const at = way.indexOf(folder);
    if (at >= 0) found.push([...way.slice(at), folder]);
    if (at >= 0 || done.has(folder)) return;
    for (const next of to.get(folder) ?? []) visit(next, [...way, folder]);
    done.add(folder);
  };
  for (const folder of to.keys()) visit(folder, []);
  return found;
}

const all = [2, 3].flatMap(circles);
for (const way of all) console.error(`A circle of folders: ${way.join(' → ')}`);
process.exitCode = all.length > 0 ? 1 : 0;
