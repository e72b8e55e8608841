import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';

/** npm's own note of what it installed. */
const INSTALLED = 'node_modules/.package-lock.json';

/** Installs the locked packages unless they are there already. Speaks on stderr only. */
export function ensureInstalled() {
  if (isInstalled()) return;
  console.error('Installing packages (a few minutes on a fresh machine: the database driver is compiled) …');
  // A whole install throws away what is compiled, so it is kept for machines that have nothing yet.
  const command = existsSync(INSTALLED) ? 'install' : 'ci';
  const { status } = spawnSync('npm', [command, '--no-audit', '--no-fund'], {
    stdio: ['ignore', process.stderr, 'inherit'],
  });
  if (status !== 0) {
    console.error(`npm ${command} failed; see above.`);
    process.exit(status ?? 1);
  }
}

function isInstalled() {
  if (!existsSync(INSTALLED)) return false;
  const locked = JSON.parse(readFileSync('package-lock.json', 'utf8')).packages;
  const installed = JSON.parse(readFileSync(INSTALLED, 'utf8')).packages;
  return Object.entries(locked).every(
    ([path, { version, optional }]) => path === '' || optional || installed[path]?.version === version,
  );
}
