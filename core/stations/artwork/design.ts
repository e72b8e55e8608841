import { compose, joinBoxes, scaling, translation, type Box, type Matrix } from '../../geometry/index.js';
import { placedBox, placementMatrix } from './arrangement.js';
import type { PartAsRead } from './read-part.js';

/** All parts arranged: each with its place on the design before the surface sizes it. */
export interface Design {
  readonly parts: readonly PartAsRead[];
  /** Round everything, mm. */
  readonly frame: Box;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The parts as one design. */
export function designOf(parts: readonly PartAsRead[]): Design {
  const frame = parts.reduce<Box | null>((box, { part, read }) => joinBoxes(box, placedBox(part.place, read.artwork)), null) ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  return { parts, frame, widthMm: frame.maxX - frame.minX, heightMm: frame.maxY - frame.minY };
}

/** From a part's own mm to the design's, `scale` times its own size. */
export function partMatrix({ part, read }: PartAsRead, frame: Box, scale: number): Matrix {
  return [translation(-frame.minX, -frame.minY), placementMatrix(part.place, read.artwork)].reduce(compose, scaling(scale));
}
