import { boundsOf, boxesTouch, clipRingToBox, grow, intersect, joinBoxes, widenBox, type Box, type Rings } from '../../geometry/index.js';
import type { Separation, StackedPaint, VisibleLayer } from './layer.js';
import { ringsNear } from './separate.js';

/** Two layers whose visible areas meet, the one named first lying first in the separation. */
export interface LayerContact {
  readonly a: string;
  readonly b: string;
  /** Round the edge that they share, mm. */
  readonly box: Box;
}

/** Edges no further apart than this meet: half a cutter's step and a little. */
const REACH_MM = 0.02;

/** Which layers meet, and where. Only what lies in the common box of two layers is looked at. */
export function contactsOf(layers: readonly VisibleLayer[]): LayerContact[] {
  const boxed = layers.map((layer) => ({ ...layer, box: boundsOf(layer.visible)! }));
  const found: LayerContact[] = [];
  boxed.forEach((one, i) => {
    for (const other of boxed.slice(i + 1)) {
      if (!boxesTouch(one.box, other.box, REACH_MM)) continue;
      const common = widenBox(
        { minX: Math.max(one.box.minX, other.box.minX), minY: Math.max(one.box.minY, other.box.minY), maxX: Math.min(one.box.maxX, other.box.maxX), maxY: Math.min(one.box.maxY, other.box.maxY) },
        2 * REACH_MM,
      );
      const [near, far] = [clipped(one.visible, common), clipped(other.visible, common)];
      if (near.length === 0 || far.length === 0) continue;
      const box = clipped(intersect(grow(near, REACH_MM), far), common, 0).reduce<Box | null>((sum, ring) => joinBoxes(sum, boundsOf([ring])), null);
      if (box) found.push({ a: one.key, b: other.key, box });
    }
  });
  return found;
}

/** How layers lie to each other: which meet, and which the artwork paints over which. */
export interface Neighbours {
  readonly contacts: readonly LayerContact[];
  /** Lower and upper layer of every two that overlap, once each way that they do. */
  readonly overlaps: readonly (readonly [lower: string, upper: string])[];
}

export function neighboursOf({ stack, layers }: Separation): Neighbours {
  const known = new Map<string, readonly [string, string]>();
  for (const paint of stack) {
    for (const j of paint.coveredBy) {
      const upper = stack[j]!;
      const key = `${paint.layer} > ${upper.layer}`;
      if (!known.has(key) && overlap(paint, upper)) known.set(key, [paint.layer, upper.layer]);
    }
  }
  return { contacts: contactsOf(layers), overlaps: [...known.values()] };
}

/** Whether two paints share an area; those that only abut do not. */
function overlap(a: StackedPaint, b: StackedPaint): boolean {
  const [width, height] = [Math.min(a.box.maxX, b.box.maxX) - Math.max(a.box.minX, b.box.minX), Math.min(a.box.maxY, b.box.maxY) - Math.max(a.box.minY, b.box.minY)];
  if (width < REACH_MM || height < REACH_MM) return false;
  const common = { minX: Math.max(a.box.minX, b.box.minX), minY: Math.max(a.box.minY, b.box.minY), maxX: Math.min(a.box.maxX, b.box.maxX), maxY: Math.min(a.box.maxY, b.box.maxY) };
  const [near, far] = [ringsNear([a], common), ringsNear([b], common)];
  if (near.length === 0 || far.length === 0) return false;
  // Edges that should coincide overlap by hairs, which are no overlap.
  return grow(intersect(near, far), -REACH_MM).length > 0;
}

/** Cut down to a box with room round it: where a ring leaves the room it runs along its edge, which must not touch what is asked about. */
function clipped(rings: Rings, box: Box, roomMm = 1): Rings {
  const room = widenBox(box, roomMm);
  return rings.filter((ring) => boxesTouch(boundsOf([ring])!, room)).map((ring) => clipRingToBox(ring, room)).filter((ring) => ring.length >= 6);
}
