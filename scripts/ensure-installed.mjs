import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const STAMP = 'node_modules/.installed-from';

/** Installs the locked packages unless that was done for this very lock file. Speaks on stderr only. */
export function ensureInstalled() {
  const lock = readFileSync('package-lock.json', 'utf8');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lock) return;
  if (!existsSync(STAMP) && existsSync('node_modules/tsx/package.json')) {
    writeFileSync(STAMP, lock);
    return;
  }
  console.error('Installing packages (a few minutes on a fresh machine: the database driver is compiled) …');
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { stdio: ['ignore', process.stderr, 'inherit'] });
  if (status !== 0) {
    console.error('npm ci failed; see above.');
    process.exit(status ?? 1);
  }
  writeFileSync(STAMP, lock);
}
