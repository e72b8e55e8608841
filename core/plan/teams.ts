import { condensed } from '../engines/surface/index.js';
import { compose, scaling, transformRing, translation, type Matrix } from '../geometry/index.js';
import { placedBox, type Design, type PartAsRead } from '../stations/artwork/index.js';
import type { Team } from '../stations/surface/index.js';

/** How a name is narrowed: its width and its height as shares of what they were. */
export interface Condensed {
  readonly across: number;
  readonly down: number;
}

/** How the name in each of some designs, made at scales of their own, is narrowed so that none is too wide: each by itself, or all as the widest needs it; null where there is no name. */
export function namesCondensed(
  designs: readonly Design[],
  { namePart, widestMm, condense }: Team,
  scales: readonly number[],
): (Condensed | null)[] {
  const each = designs.map(({ parts }, i) => {
    const name = parts.find(({ part }) => part.id === namePart);
    if (!name) return null;
    const box = placedBox(name.part.place, name.extents.cut);
    return condensed((box.maxX - box.minX) * scales[i]!, widestMm);
  });
  if (condense === 'each') return each;
  const worst = each.reduce<Condensed>((least, one) => (one && one.across < least.across ? one : least), {
    across: 1,
    down: 1,
  });
  return each.map((one) => one && worst);
}

/** Where a part lies when it is the name that is narrowed: about the middle of its foot, so that it stays on its line. */
export function condensedMatrix(
  { part, read: { artwork } }: PartAsRead,
  matrix: Matrix,
  team: Team | null,
  how: Condensed | null,
): Matrix {
  if (!how || how.across === 1 || part.id !== team?.namePart) return matrix;
  const [x, y] = transformRing(Float64Array.of(artwork.widthMm / 2, artwork.baselineMm ?? artwork.heightMm), matrix);
  return [translation(x!, y!), scaling(how.across, how.down), translation(-x!, -y!), matrix].reduce(compose);
}
