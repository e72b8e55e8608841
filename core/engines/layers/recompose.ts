import { intersect, subtract, unite, type Rings } from '../../geometry/index.js';
import type { BuiltLayer } from './layer.js';

/** What each layer shows once all of them lie on each other, nearest the surface first: the check that a build is right. */
export function recompose(layers: readonly BuiltLayer[]): { key: string; shows: Rings }[] {
  const out: { key: string; shows: Rings }[] = [];
  let above: Rings = [];
  for (const layer of [...layers].sort((a, b) => b.order - a.order)) {
    out.unshift({ key: layer.key, shows: subtract(layer.cut, above) });
    above = unite([...above, ...layer.cut]);
  }
  return out;
}

/** How much of a lower layer lies under an upper one: their overlap. */
export function lapOf(lower: BuiltLayer, upper: BuiltLayer): Rings {
  return intersect(lower.cut, upper.cut);
}
