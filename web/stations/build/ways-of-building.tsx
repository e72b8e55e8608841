import type { PairDecision } from '../../../core/stations/build/index.js';

type Way = NonNullable<PairDecision['school']>;

/** The three schools as they are offered for a pair. */
export const WAYS_OF_BUILDING: readonly (readonly [Way, string])[] = [['overlay', 'overlay'], ['inlay', 'inlay'], ['trapped', 'trapped inlay']];

/** The same as options; `ruled` is the one that the app would take. */
export function WayOptions({ ruled }: { readonly ruled?: Way }) {
  return WAYS_OF_BUILDING.map(([way, said]) => (
    <option key={way} value={way}>
      {said}
      {way === ruled ? ', as ruled' : ''}
    </option>
  ));
}
