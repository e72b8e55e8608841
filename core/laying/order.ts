import type { LayWish } from './lay-wish.js';
import type { SheetPlan } from './sheet-plan.js';

/**
 * Sheets in the order of cutting. With the fewest changes: those of the same settings follow each other, and in them those of the same films. `due` tells the day of each job; those without one
 * come last.
 */
export function inOrder(
  sheets: readonly SheetPlan[],
  { order, sequence }: Pick<LayWish, 'order' | 'sequence'>,
  due: readonly (string | null)[],
): SheetPlan[] {
  const byChanges = (a: SheetPlan, b: SheetPlan) =>
    a.forceG - b.forceG || a.speedMmS - b.speedMmS || filmsOf(a).localeCompare(filmsOf(b));
  // A day as text sorts by itself; this one is after all of them.
  const dayOf = ({ groups }: SheetPlan) => groups.map(({ job }) => due[job] ?? '9').sort()[0] ?? '9';
  switch (order) {
    case 'smallest':
      return [...sheets].sort((a, b) => a.usedMm2 - b.usedMm2);
    case 'urgent':
      return [...sheets].sort((a, b) => dayOf(a).localeCompare(dayOf(b)) || byChanges(a, b));
    case 'by hand': {
      const placeOf = ({ key }: SheetPlan) => (sequence.includes(key) ? sequence.indexOf(key) : sequence.length);
      return [...sheets].sort((a, b) => placeOf(a) - placeOf(b) || byChanges(a, b));
    }
    case 'changes':
      return [...sheets].sort(byChanges);
  }
}

const filmsOf = ({ films }: SheetPlan) => films.map(({ id }) => id).join(' ');
