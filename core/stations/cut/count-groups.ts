import { count } from '../../words/index.js';

/** What says of a group on a sheet whether it is like another. */
export interface GroupToCount {
  readonly fingerprint: string;
  readonly perStrip: number;
}

/**
 * So many of the groups on a sheet in words. Where all of them are alike they are copies, or strips of a gang. One copy of a design that is cut from two films is no two copies, so what is not alike is called layers.
 */
export function countGroups(many: number, groups: readonly GroupToCount[]): string {
  const isAlike = new Set(groups.map(({ fingerprint }) => fingerprint)).size <= 1;
  if (!isAlike) return count(many, 'layer');
  return groups.some(({ perStrip }) => perStrip > 1) ? count(many, 'strip') : count(many, 'copy', 'copies');
}
