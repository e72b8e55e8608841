import {
  boundsOf,
  fingerprintOf,
  joinBoxes,
  keyOf,
  regionsOf,
  translateRings,
  widenBox,
  type Box,
  type Rings,
} from '../../geometry/index.js';
import type { DesignApart } from './panels-stage.js';

/** Closer than this, two parts are one decal to the eye, mm. */
const LEAST_GAP_MM = 10;
/** Of more pieces nobody lays each by itself. */
const MOST_PIECES = 1000;

/**
 * The parts of a design that stand apart from each other on all its layers, as designs that are laid one by one; those that are alike are one with as many copies. `reachMm` is how far what is built reaches beyond what
 * shows: parts nearer than that belong together. One or none where the design does not fall into parts.
 */
export function partsApart(
  layers: readonly { readonly key: string; readonly visible: Rings }[],
  reachMm: number,
): DesignApart[] {
  const pieces = layers.flatMap(({ visible }) => regionsOf(visible).map(({ outer }) => boundsOf([outer])!));
  if (pieces.length > MOST_PIECES) return [];
  const halfGap = Math.max(LEAST_GAP_MM, 2 * reachMm + 1) / 2;
  const cells = joined(pieces.map((box) => widenBox(box, halfGap))).sort((a, b) => a.minY - b.minY || a.minX - b.minX);
  const alike = new Map<string, { readonly cell: Box; copies: number }>();
  for (const cell of cells) {
    const inside = layers.map(
      ({ key, visible }) =>
        [
          key,
          fingerprintOf(
            translateRings(
              visible.filter((ring) => isIn(cell, boundsOf([ring])!)),
              -cell.minX,
              -cell.minY,
            ),
          ),
        ] as const,
    );
    const name = keyOf(inside);
    const known = alike.get(name);
    if (known) known.copies += 1;
    else alike.set(name, { cell, copies: 1 });
  }
  return [...alike.values()].map(({ cell, copies }, i): DesignApart => ({
    label: `Part ${i + 1}`,
    copies,
    box: widenBox(cell, -halfGap),
    cell,
    corner: { xMm: cell.minX, yMm: cell.minY },
  }));
}

/** Boxes that touch are one, until none does. */
function joined(boxes: readonly Box[]): Box[] {
  let left = [...boxes];
  for (let isChanged = true; isChanged;) {
    isChanged = false;
    const next: Box[] = [];
    for (const box of left) {
      const at = next.findIndex(
        (other) => box.minX < other.maxX && other.minX < box.maxX && box.minY < other.maxY && other.minY < box.maxY,
      );
      if (at < 0) next.push(box);
      else {
        next[at] = joinBoxes(next[at]!, box)!;
        isChanged = true;
      }
    }
    left = next;
  }
  return left;
}

function isIn(cell: Box, box: Box): boolean {
  return box.minX >= cell.minX && box.maxX <= cell.maxX && box.minY >= cell.minY && box.maxY <= cell.maxY;
}
