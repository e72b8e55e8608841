import type { PairDecision } from '../../../core/stations/build/index.js';

type Way = NonNullable<PairDecision['school']>;

/** The three schools as they are offered for a pair. */
export const WAYS_OF_BUILDING: readonly (readonly [Way, string])[] = [['overlay', 'overlay'], ['inlay', 'inlay'], ['trapped', 'trapped inlay']];
