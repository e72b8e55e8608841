import { isBoxRing } from '../geometry/index.js';
import { isOutline } from '../engines/cutting/index.js';
import { outlinesOf } from './group.js';
import type { LayItem } from './lay-film.js';
import type { LayWish } from './lay-wish.js';

type Laying = Pick<LayItem, 'group' | 'quantity'>;
type BordersWish = Pick<LayWish, 'spacingMm' | 'sharesBorders'>;

/** What stays keeps at least so clear of what stays beside it, mm: less waste between two parts tears while it is weeded. */
const LEAST_CLEAR_MM = 2;

/** How the layers of a film lie beside each other. */
export interface Neighbours {
  /** Each has its border to itself; boxes touch, and the line between two is cut once; or borders run into those of neighbours, and one line goes round them all. */
  readonly borders: 'apart' | 'touch' | 'merge';
  /** Between what is nested. */
  readonly spacingMm: number;
  /** So much of a border, all round, may be a neighbour's, too. */
  readonly insetMm: number;
}

/**
 * How the layers of a film lie beside each other. Where borders are shared, boxes touch. Other borders would meet in points, with slivers of waste between them: there each runs into its
 * neighbours' by half of what the tightest of them keeps clear all round, so that what stays of one keeps as clear of what stays of another as of a border of its own. What has no border, or one
 * too tight for that, lies apart as ever.
 */
export function neighboursOf(items: readonly Laying[], { spacingMm, sharesBorders }: BordersWish): Neighbours {
  const apart: Neighbours = { borders: 'apart', spacingMm, insetMm: 0 };
  const groups = items.filter(({ quantity }) => quantity > 0).map(({ group }) => group);
  if (!sharesBorders || groups.some(({ borders }) => !borders.some(isOutline))) return apart;
  if (groups.every(isBoxed)) return { borders: 'touch', spacingMm: 0, insetMm: 0 };
  const clearMm = Math.min(...groups.map(({ borderGapMm }) => borderGapMm));
  return clearMm >= LEAST_CLEAR_MM ? { borders: 'merge', spacingMm: 0, insetMm: clearMm / 2 } : apart;
}

function isBoxed(group: Laying['group']): boolean {
  const outlines = outlinesOf(group);
  return outlines.length === 1 && isBoxRing(outlines[0]!.outer);
}
