import { areaOf, regionsOf, signedArea, type Region, type Ring, type Rings } from '../../geometry/index.js';

/** The pieces of a cut that are smaller than `mm2`. */
export function speckRegions(cut: Rings, mm2: number): Region[] {
  return mm2 > 0 ? regionsOf(cut).filter((region) => areaOf([region.outer, ...region.holes]) < mm2) : [];
}

/** The holes of a cut that are smaller than `mm2`. */
export function pinholes(cut: Rings, mm2: number): Ring[] {
  return mm2 > 0 ? cut.filter((ring) => signedArea(ring) < 0 && -signedArea(ring) < mm2) : [];
}

/** A cut without some of its pieces. */
export function cutBesides(cut: Rings, pieces: readonly Region[]): Rings {
  const gone = new Set(pieces.flatMap((piece) => [piece.outer, ...piece.holes]));
  return gone.size === 0 ? cut : cut.filter((ring) => !gone.has(ring));
}
