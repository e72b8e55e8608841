import type { FrozenSheet } from './frozen-sheet.js';

/** How long a sheet has been weeded for, s; up to `now` (ms since 1970) where the clock runs. */
export function weededSeconds({ weedTimes }: Pick<FrozenSheet, 'weedTimes'>, now: number): number {
  return weedTimes.reduce(
    (sum, { startedAt, stoppedAt }) =>
      sum + Math.max(0, ((stoppedAt === null ? now : Date.parse(stoppedAt)) - Date.parse(startedAt)) / 1000),
    0,
  );
}
