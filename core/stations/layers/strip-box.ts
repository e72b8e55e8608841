import type { GangWish } from '../../engines/nesting/index.js';
import type { Box } from '../../geometry/index.js';

/** Round a strip of a gang, from the box of the copy that lies first in it, mm: what is laid in one piece. Tight rows take no more room than this. Without a gang the copy is by itself. */
export function stripBox(art: Box, gang: GangWish | null): Box {
  if (!gang) return art;
  const { across, down, gapMm } = gang;
  return {
    ...art,
    maxX: art.maxX + (across - 1) * (art.maxX - art.minX + gapMm),
    maxY: art.maxY + (down - 1) * (art.maxY - art.minY + gapMm),
  };
}
