import { spawn, spawnSync } from 'node:child_process';
import { ensureInstalled } from './ensure-installed.mjs';

/*
 * The shop: installs and builds what is missing, then serves it from the data folder, which begins empty. What follows is handed on:
 * --data FOLDER, --port N, --share [ADDRESS[:PORT]], --cert FILE --key FILE. Ctrl+C ends it.
 */

ensureInstalled();
const { ensureBuilt } = await import('./build-programs.mjs');
const { status } = spawnSync(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'], {
  stdio: 'inherit',
});
if (status !== 0) process.exit(status ?? 1);
await ensureBuilt();
const server = spawn(process.execPath, ['dist/programs/server/main.js', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => server.kill(signal));
server.once('exit', (code) => {
  process.exitCode = code ?? 0;
});
