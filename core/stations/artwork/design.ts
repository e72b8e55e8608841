import { compose, joinBoxes, scaling, translation, type Box, type Matrix } from '../../geometry/index.js';
import { placedBox, placementMatrix } from './arrangement.js';
import type { SizeOf } from './part-extent.js';
import type { PartAsRead } from './read-part.js';

/** All parts arranged: each with its place on the design before the surface sizes it. */
export interface Design {
  readonly parts: readonly PartAsRead[];
  /** What counts as its size. */
  readonly sizeOf: SizeOf;
  /** Round everything that counts, mm. */
  readonly frame: Box;
  readonly widthMm: number;
  readonly heightMm: number;
  /** The same where the other counts: the artboards, or only what is cut. */
  readonly otherwise: { readonly widthMm: number; readonly heightMm: number };
}

/** The parts as one design. */
export function designOf(parts: readonly PartAsRead[], sizeOf: SizeOf): Design {
  const frame = frameOf(parts, sizeOf);
  return {
    parts,
    sizeOf,
    frame,
    ...sizeIn(frame),
    otherwise: sizeIn(frameOf(parts, sizeOf === 'cut' ? 'artboard' : 'cut')),
  };
}

function frameOf(parts: readonly PartAsRead[], sizeOf: SizeOf): Box {
  return (
    parts.reduce<Box | null>(
      (box, { part, extents }) => joinBoxes(box, placedBox(part.place, extents[sizeOf])),
      null,
    ) ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 }
  );
}

function sizeIn({ minX, minY, maxX, maxY }: Box) {
  return { widthMm: maxX - minX, heightMm: maxY - minY };
}

/** From a part's own mm to the design's, `scale` times its own size. */
export function partMatrix({ part, read }: PartAsRead, frame: Box, scale: number): Matrix {
  return [translation(-frame.minX, -frame.minY), placementMatrix(part.place, read.artwork)].reduce(
    compose,
    scaling(scale),
  );
}
