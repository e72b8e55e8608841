import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { ensureInstalled } from './ensure-installed.mjs';

/* Every check there is, on a machine that may have nothing yet. The last line counts the tests, lint and types among them. */

const RESULTS = 'coverage/results.json';

ensureInstalled();
ensureBrowser();
mkdirSync('coverage', { recursive: true });
const steps = [
  ['formatting', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']],
  ['lint', ['node_modules/eslint/bin/eslint.js', '.']],
  ['no circle of folders', ['scripts/folder-circles.mjs']],
  ['types', ['node_modules/typescript/bin/tsc', '-p', '.']],
  ['types of core, which knows no platform', ['node_modules/typescript/bin/tsc', '-p', 'core']],
  ['pages build', ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn']],
];
let [passed, failed] = [0, 0];
// The command line and backups are tested as they are run.
await (await import('./build-programs.mjs')).ensureBuilt();
for (const [name, args] of steps) {
  const ok = spawnSync(process.execPath, args, { stdio: 'inherit' }).status === 0;
  console.log(`${ok ? '✓' : '✗'} ${name}`);
  if (ok) passed += 1;
  else failed += 1;
}
const vitest = spawnSync(
  process.execPath,
  ['node_modules/vitest/vitest.mjs', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${RESULTS}`],
  { stdio: 'inherit' },
);
if (existsSync(RESULTS)) {
  const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(RESULTS, 'utf8'));
  passed += numPassedTests;
  // A file that could not even be loaded has no failed tests of its own.
  failed += Math.max(numFailedTests, numFailedTestSuites > 0 ? 1 : 0);
}
if (vitest.status !== 0 && failed === 0) failed += 1;
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed > 0 ? 1 : 0;

/** The browser tests need Debian's chromium and its driver. */
function ensureBrowser() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
  console.error('Installing chromium and chromium-driver …');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  for (const args of [
    ['update', '-q'],
    ['install', '-y', '-q', '--no-install-recommends', 'chromium', 'chromium-driver'],
  ]) {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    const { status } = spawnSync(command, rest, {
      stdio: ['ignore', process.stderr, 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (status !== 0) {
      console.error(
        'chromium and chromium-driver could not be installed; install them from Debian’s packages and try again.',
      );
      process.exit(1);
    }
  }
}
