/** A run of copies that is done: how many were cut, how many of them were spoiled while they were weeded and laid, and whether they are of several layers. */
export interface SpoiledRun {
  readonly cut: number;
  readonly spoiled: number;
  readonly isLayered: boolean;
}

/** So many more than wanted are to be cut of a run, as a share, and from how many copies that is. */
export interface LearnedSpares {
  readonly share: number;
  readonly cut: number;
  readonly spoiled: number;
}

export type SparesOfKinds = Readonly<Record<'single' | 'layered', LearnedSpares>>;

/** What is reckoned with before anything is known: 5 % of single films, 10 % of layered runs. Source: trade practice. */
export const SPARES = { single: 0.05, layered: 0.1 } as const;
/** The starting share weighs as much as so many copies of the shop's own. */
const WEIGHT_COPIES = 100;
/** Shares are told in tenths of a percent. */
const STEPS = 1000;

/** How many spares a shop needs, from its own runs: what was spoiled of what was cut, begun with the starting shares as if they were a run of 100 copies. Spares for so many good ones, so the share is of those. */
export function learnSpares(runs: readonly SpoiledRun[]): SparesOfKinds {
  const learned = (kind: keyof typeof SPARES): LearnedSpares => {
    const own = runs.filter(({ isLayered }) => isLayered === (kind === 'layered'));
    const [cut, spoiled] = [own.reduce((sum, run) => sum + run.cut, 0), own.reduce((sum, run) => sum + run.spoiled, 0)];
    const good = WEIGHT_COPIES + cut - spoiled;
    return {
      share: Math.min(1, Math.round((STEPS * (WEIGHT_COPIES * SPARES[kind] + spoiled)) / good) / STEPS),
      cut,
      spoiled,
    };
  };
  return { single: learned('single'), layered: learned('layered') };
}
