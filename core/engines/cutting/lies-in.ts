import { boundsOf, containsPoint, holdsBox, type Rings } from '../../geometry/index.js';

/** For each of some groups that lie clear of each other, by their outlines (mm), those that lie in its counters, by number. */
export function liesIn(groups: readonly Rings[]): number[][] {
  const boxes = groups.map(boundsOf);
  return groups.map((outlines, i) => {
    const box = boxes[i];
    if (!box) return [];
    const within = groups.flatMap((_, k) => (k !== i && boxes[k] && holdsBox(box, boxes[k]) ? [k] : []));
    // Clear of all outlines, it is within one of them only in a counter.
    return within.filter((k) => outlines.some((ring) => containsPoint([ring], groups[k]![0]![0]!, groups[k]![0]![1]!)));
  });
}
