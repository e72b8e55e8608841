import type { PairDecision } from '../../../core/stations/layers/index.js';
import type { PickOption } from '../../ui/picker.js';

type Way = NonNullable<PairDecision['school']>;

/** The three schools as they are offered for a pair. */
export const WAYS_OF_BUILDING: readonly (readonly [Way, string])[] = [
  ['overlay', 'overlay'],
  ['inlay', 'inlay'],
  ['trapped', 'trapped inlay'],
];

/** The same to be picked from; `ruled` is the one that the app would take. */
export function wayOptions(ruled?: Way): PickOption[] {
  return WAYS_OF_BUILDING.map(([id, said]) => ({ id, text: id === ruled ? `${said}, as ruled` : said }));
}
