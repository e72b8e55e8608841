import { areaOf, boundsOf } from '../../geometry/index.js';
import { outlinesOf } from './group.js';
import type { LayItem } from './lay-film.js';
import type { LayWish } from './lay-wish.js';

type Laying = Pick<LayItem, 'group' | 'quantity'>;
type SpacingWish = Pick<LayWish, 'spacingMm' | 'sharesBorders'>;

/** Whether neighbours in a film can share a line of their borders: all that is laid has a straight box round it. Contours would meet in points, with slivers of waste between them. */
export function canShareBorders(items: readonly Laying[]): boolean {
  return items.filter(({ quantity }) => quantity > 0).every(({ group }) => {
    const outlines = outlinesOf(group);
    const box = boundsOf(outlines.map(({ outer }) => outer))!;
    return group.borders.length > 0 && outlines.length === 1 && areaOf([outlines[0]!.outer]) > (box.maxX - box.minX) * (box.maxY - box.minY) - 1e-3;
  });
}

/** How far the layers of a film lie apart: where borders are shared, a box touches the next, and the line between them is cut once. */
export function spacingOf(items: readonly Laying[], { spacingMm, sharesBorders }: SpacingWish): number {
  return sharesBorders && canShareBorders(items) ? 0 : spacingMm;
}
