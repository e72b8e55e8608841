import { describe, expect, it } from 'vitest';
import { areaOf, countPieces, grow, intersect, regionsOf, ringsOf, subtract, unite } from '../../geometry/index.js';
import { openArtwork } from '../../testing/open-artwork.js';
import { rectangle } from '../../testing/seeded.js';
import { paintRegions, readSvg } from '../artwork/index.js';
import { knockedOut, leastForOnePiece, outlineArea, separate } from './index.js';

/** Drawings of five open sets, 100 mm across, each with what shows of its colours. */
const drawings = openArtwork(11, 7).flatMap(({ name, svg }) => {
  const artwork = readSvg(new TextEncoder().encode(svg), name);
  const scale = 100 / Math.max(artwork.widthMm, artwork.heightMm);
  const { layers } = separate(
    paintRegions(artwork, scale).regions.map((region) => ({ layer: region.colour, rings: region.rings })),
  );
  const all = unite(layers.flatMap(({ visible }) => [...visible]));
  const largest = layers.reduce(
    (best, layer) => (areaOf(layer.visible) < areaOf(best.visible) ? layer : best),
    layers[0]!,
  );
  return layers.length > 1 ? [{ name, all, shapes: largest.visible }] : [];
});

describe('cut-outs and outlines of drawings of five open sets', () => {
  it('are at least 50', () => expect(drawings.length).toBeGreaterThanOrEqual(50));

  it.each(drawings.map((drawing, seed) => ({ ...drawing, seed })))(
    'keep their clearance, leave nothing under the size, and are one piece from the least width on: $name',
    ({ shapes, all, seed }) => {
      const [clearanceMm, fillBelowMm, dropBelowMm2] = [
        0.6 + 0.3 * (seed % 5),
        [0, 4, 100_000][seed % 3]!,
        [1, 9, 30][seed % 3]!,
      ];
      const base = [rectangle(-10, -10, 120, 120)];
      const open = knockedOut(base, shapes, { clearanceMm, fillBelowMm, dropBelowMm2 });
      expect(areaOf(intersect(open, grow(shapes, clearanceMm - 0.02)))).toBeLessThan(0.01);
      // Beyond the clearance all is there but what was filled and dropped, and that is no wider than told.
      const missing = regionsOf(subtract(subtract(base, grow(shapes, clearanceMm + 0.02)), open))
        .map((region) => ringsOf([region]))
        .filter((piece) => areaOf(piece) > 0.05);
      for (const piece of missing)
        expect(grow(piece, -fillBelowMm / 2 - 0.05).length === 0 || areaOf(piece) < dropBelowMm2).toBe(true);
      for (const region of regionsOf(open)) expect(areaOf(ringsOf([region]))).toBeGreaterThanOrEqual(dropBelowMm2);
      // One piece means one, and a little less is not.
      const least = leastForOnePiece(all);
      expect(countPieces(outlineArea(all, Math.max(least, 0.5), 'round', 0)).pieces).toBe(1);
      if (least > 0.1) expect(countPieces(outlineArea(all, least - 0.06, 'round', 0)).pieces).toBeGreaterThan(1);
    },
  );
});
