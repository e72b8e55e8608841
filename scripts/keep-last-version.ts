import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';

/** Which assets each of the last two versions is made of, the newest first. */
const LIST = 'versions.json';

/**
 * Leaves the assets of the version before in place, so that a page that is open while a new version is put there can still fetch what it has
 * not fetched yet. What only older versions used is deleted.
 */
export function keepLastVersion(folder: string): Plugin {
  return {
    name: 'keep-last-version',
    apply: 'build',
    writeBundle: {
      order: 'post',
      handler(_, bundle) {
        const now = Object.keys(bundle)
          .filter((file) => /^assets\/.*(?<!\.br|\.gz)$/.test(file))
          .sort();
        const path = join(folder, LIST);
        const before = existsSync(path) ? (JSON.parse(readFileSync(path, 'utf8')) as string[][]) : [];
        // The same pages built again are no new version.
        const versions = [now, ...before.filter((version) => version.join() !== now.join())].slice(0, 2);
        writeFileSync(path, JSON.stringify(versions));
        const kept = new Set(versions.flat());
        for (const file of readdirSync(join(folder, 'assets'))) {
          if (!kept.has(`assets/${file.replace(/\.(br|gz)$/, '')}`)) rmSync(join(folder, 'assets', file));
        }
      },
    },
  };
}
