import { spawnSync } from 'node:child_process';
import { ensureInstalled } from './ensure-installed.mjs';

// The command's own output must stay clean, so an install that is still owed speaks on stderr.
ensureInstalled();
const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'cli/lantern.ts', ...process.argv.slice(2)], { stdio: 'inherit' });
process.exitCode = status ?? 1;
