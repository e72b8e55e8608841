import { spawnSync } from 'node:child_process';
import { HOSTILE } from '../core/testing/hostile-files.js';
import { ms, print } from './measure.js';

/** Every hostile file planned in a process of its own: the slowest, and the one that took most memory. */
export function hostileBench(): void {
  const rows = HOSTILE.map(([name], i) => {
    const { stdout, status } = spawnSync(process.execPath, ['--import', 'tsx', 'bench/hostile-one.ts', String(i)], {
      encoding: 'utf8',
    });
    const { tookMs, mb } =
      status === 0 ? (JSON.parse(stdout) as { tookMs: number; mb: number }) : { tookMs: Infinity, mb: Infinity };
    return { name, tookMs, mb };
  });
  const slowest = rows.reduce((a, b) => (b.tookMs > a.tookMs ? b : a));
  const largest = rows.reduce((a, b) => (b.mb > a.mb ? b : a));
  print(`${rows.length} hostile and broken files, read and planned`, [
    [`slowest: ${slowest.name}`, ms(slowest.tookMs)],
    [`largest process: ${largest.name}`, `${largest.mb.toFixed(0)} MB`],
    ['fallen over', String(rows.filter((row) => row.mb === Infinity).length)],
  ]);
}
