/** The fastest of several runs, ms: the one that was least disturbed. */
export function fastestMs(run: () => unknown, times = 7): number {
  run();
  let best = Infinity;
  for (let i = 0; i < times; i += 1) {
    const start = performance.now();
    run();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

export function print(title: string, rows: readonly (readonly [what: string, figure: string])[]): void {
  console.log(`\n${title}`);
  for (const [what, figure] of rows) console.log(`  ${what.padEnd(64)} ${figure}`);
}

export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 1)} ms`;
export const times = (value: number) => `${value.toFixed(2)} ×`;
export const percent = (value: number) => `${(100 * value).toFixed(1)} %`;

export function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}
