import { count } from '../../words/index.js';

/** What says of a group on a sheet whether it is like another. */
export interface GroupToCount {
  readonly fingerprint: string;
  readonly perStrip: number;
}

/**
 * A number of groups on a sheet, in words. Groups that are all alike are called copies, or strips of a gang. Others are
 * called layers: one copy of a design in two films makes two groups.
 */
export function countGroups(many: number, groups: readonly GroupToCount[]): string {
  const isAlike = new Set(groups.map(({ fingerprint }) => fingerprint)).size <= 1;
  if (!isAlike) return count(many, 'layer');
  return groups.some(({ perStrip }) => perStrip > 1) ? count(many, 'strip') : count(many, 'copy', 'copies');
}
