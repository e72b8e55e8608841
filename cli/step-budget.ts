/** Whether a further step of a search may be made after so many: no more than `most`, and none after `endsAt` (by `performance.now`), null for no end. */
export function stepBudget(most: number, endsAt: number | null): (steps: number) => boolean {
  return (steps) => steps < most && (endsAt === null || performance.now() < endsAt);
}
