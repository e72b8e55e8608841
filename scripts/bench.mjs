import { spawnSync } from 'node:child_process';
import { ensureInstalled } from './ensure-installed.mjs';

ensureInstalled();
for (const args of [
  ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'error'],
  ['--import', 'tsx', 'bench/main.ts'],
]) {
  const { status } = spawnSync(process.execPath, args, { stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
