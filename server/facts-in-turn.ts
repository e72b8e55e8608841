import pLimit from 'p-limit';

/**
 * One act on facts at a time: sending a sheet, deciding about one, judging copies. Each looks at what is cut, and what it does holds only while that stays so:
 * of two acts at one moment the second looks after the first is done. All of the shop's devices work through one server process.
 */
export class FactsInTurn {
  readonly #limit = pLimit(1);

  /** Does something when everything asked for before it is done; throws what it throws. */
  run<T>(act: () => Promise<T>): Promise<T> {
    return this.#limit(act);
  }
}
