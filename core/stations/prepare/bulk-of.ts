import type { Film } from '../../shop/index.js';
import type { PrepareDecisions } from './decisions.js';

/** No larger circle fits into a strip of waste that is comfortable to pull: as the job says, else its film. */
export function bulkOf(
  { stripBulkMm }: Pick<Film, 'stripBulkMm'>,
  { bulkMm }: Pick<PrepareDecisions['preparation']['relief'], 'bulkMm'>,
): number {
  return bulkMm ?? stripBulkMm;
}
