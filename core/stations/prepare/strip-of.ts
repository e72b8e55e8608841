import { gangPitch, gangPlaces, type GangWish } from '../../engines/nesting/index.js';
import { joinBoxes, translateRings, type Box } from '../../geometry/index.js';
import type { JobLayer } from '../layers/index.js';

/** Where the copies of a strip lie, from the first of them. */
export type PlacesInStrip = readonly { readonly xMm: number; readonly yMm: number }[];

/** A strip of a gang: on every film the same copies at the same places, the first of them where the design itself is. */
export function stripOf(
  layers: readonly JobLayer[],
  gang: GangWish,
): { readonly layers: readonly JobLayer[]; readonly places: PlacesInStrip } {
  const places = gangPlaces(
    gang,
    gangPitch(
      layers.flatMap((layer) => layer.cut),
      gang,
    ),
  );
  const copied = (rings: JobLayer['cut']) => places.flatMap(({ xMm, yMm }) => translateRings(rings, xMm, yMm));
  return {
    places,
    layers: layers.map((layer) => {
      const whole = copied(layer.cut);
      return {
        ...layer,
        cut: whole,
        visible: layer.visible === layer.cut ? whole : copied(layer.visible),
        areaMm2: layer.areaMm2 * places.length,
        pieces: layer.pieces * places.length,
        holes: layer.holes * places.length,
      };
    }),
  };
}

/** Round all copies in a strip of what is in a box of the design. */
export function boxInStrip(box: Box, places: PlacesInStrip): Box {
  return (
    places.reduce<Box | null>(
      (all, { xMm, yMm }) =>
        joinBoxes(all, { minX: box.minX + xMm, minY: box.minY + yMm, maxX: box.maxX + xMm, maxY: box.maxY + yMm }),
      null,
    ) ?? box
  );
}
