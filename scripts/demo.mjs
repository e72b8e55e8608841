import { spawn, spawnSync } from 'node:child_process';
import { ensureInstalled } from './ensure-installed.mjs';

/* Everything for a look round: packages, pages, a demo shop, the simulated cutter and the server. Ctrl+C ends it. */

const TIME_LAPSE = '6';
const DATA = 'data/demo';

function run(args) {
  const { status } = spawnSync(process.execPath, args, { stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}

ensureInstalled();
const { ensureBuilt } = await import('./build-programs.mjs');
run(['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn']);
await ensureBuilt();
run(['dist/programs/demo/seed.js', '--data', DATA]);
const children = [
  spawn(process.execPath, ['dist/programs/cutter/main.js', '--time-lapse', TIME_LAPSE], { stdio: 'inherit' }),
  spawn(process.execPath, ['dist/programs/server/main.js', '--data', DATA], { stdio: 'inherit' }),
];
const end = () => {
  for (const child of children) child.kill('SIGTERM');
};
process.once('SIGINT', end);
process.once('SIGTERM', end);
for (const child of children) {
  child.once('exit', (code) => {
    process.exitCode ||= code ?? 0;
    end();
  });
}
