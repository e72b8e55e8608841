import { describe, expect, it } from 'vitest';
import { ringsToPathData } from '../../geometry/index.js';
import { buildLayers, separate, type School } from '../layers/index.js';
import { openArtwork, type OpenArtwork } from '../../testing/open-artwork.js';
import { layersSvg, pictureDifference } from '../../testing/picture-difference.js';
import { paintRegions, readSvg, type Artwork } from './index.js';
import { sampled } from '../../testing/long-run.js';

const SCHOOLS: readonly School[] = ['overlay', 'inlay', 'trapped'];
/** Findings that say that the look cannot be kept in flat film. */
const LOST = new Set([
  'gradient-flattened',
  'pattern-left',
  'mask-ignored',
  'filter-ignored',
  'picture-left',
  'text-left',
  'opacity-flattened',
  'blend-ignored',
  'colour-unknown',
]);

const read = ({ name, svg }: OpenArtwork) => readSvg(new TextEncoder().encode(svg), name);

function remade(artwork: Artwork, school: School): string {
  const { regions } = paintRegions(artwork, 1);
  const separation = separate(regions.map((r) => ({ layer: r.colour, rings: r.rings })));
  const { layers } = buildLayers(separation, { school, trapMm: 0.3 });
  return layersSvg(
    layers.map((l) => ({ colour: l.key, path: ringsToPathData(l.cut) })),
    artwork,
  );
}

describe('flat artwork of five open sets, taken apart and laid together again', () => {
  const flat = openArtwork(20, 3)
    .map((drawing) => ({ ...drawing, artwork: read(drawing) }))
    .filter(({ artwork }) => artwork.noticed.every((noticed) => !LOST.has(noticed.code)));

  it('is at least 40 drawings', () => expect(flat.length).toBeGreaterThanOrEqual(40));

  it.each(
    sampled(
      flat.map((drawing, i) => ({ ...drawing, school: SCHOOLS[i % 3]! })),
      24,
    ),
  )('looks as it was drawn: $name, $school', ({ svg, artwork, school }) => {
    expect(pictureDifference(svg, remade(artwork, school))).toBeLessThanOrEqual(0.005);
  });
});
