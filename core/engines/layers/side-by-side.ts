import {
  boundsOf,
  boxesTouch,
  grow,
  intersect,
  regionsOf,
  ringsOf,
  subtract,
  tolerances,
  type Rings,
} from '../../geometry/index.js';
import { isCrumb, isNarrow } from './crumbs.js';
import type { BuiltLayer } from './layer.js';

/** A layer with what taking out its crumbs added to it: the holes and slits that it closed. */
export interface ClosedLayer {
  readonly layer: BuiltLayer;
  readonly closed: Rings;
}

/** Layers that lie side by side overlap by less than this, mm. */
const LAP_MM = 2 * tolerances.HAIRLINE_MM;
/** What is taken out goes this far over its edge, so that rounding leaves no thread, mm. */
const EDGE_MM = 0.002;

/**
 * Takes out of layers from the surface upwards where two lie on each other that should lie side by side: one closed a hole that no blade can cut, and a part of
 * the other lies in it. That part goes, since it is no wider than the hole. `isFlush` says which pairs must not overlap.
 * Cost: nothing for layers that closed nothing; otherwise one intersection with each layer beside.
 */
export function withoutLaps(
  layers: readonly ClosedLayer[],
  isFlush: (lower: string, upper: string) => boolean,
): BuiltLayer[] {
  return layers.map(({ layer }, i) => {
    const laps = layers.flatMap(({ layer: other, closed }, j) =>
      closed.length > 0 && i !== j && (i < j ? isFlush(layer.key, other.key) : isFlush(other.key, layer.key))
        ? lapsOf(layer.cut, closed)
        : [],
    );
    if (laps.length === 0) return layer;
    const left = regionsOf(subtract(layer.cut, laps));
    return { ...layer, cut: ringsOf(left.filter((piece) => !isCrumb(piece))) };
  });
}

/** Where an area lies on what another has closed, a hair larger. */
function lapsOf(cut: Rings, closed: Rings): Rings {
  const box = boundsOf(closed)!;
  const near = cut.filter((ring) => boxesTouch(boundsOf([ring])!, box));
  if (near.length === 0) return [];
  return regionsOf(intersect(closed, near)).flatMap((region) => {
    const lap = ringsOf([region]);
    return isNarrow(lap, LAP_MM) ? [] : grow(lap, EDGE_MM);
  });
}
