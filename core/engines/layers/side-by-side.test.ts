import { describe, expect, it } from 'vitest';
import { boundsOf, grow, intersect, regionsOf, subtract, unite, type Rings } from '../../geometry/index.js';
import { openArtwork, type OpenArtwork } from '../../testing/open-artwork.js';
import { sampled } from '../../testing/long-run.js';
import { rectangle } from '../../testing/seeded.js';
import { paintRegions, readSvg } from '../artwork/index.js';
import { buildLayers, separate, withoutFineParts } from './index.js';

/** The worst once: two films lay on each other where a hole was closed that no blade can cut, in places up to 0.1 mm wide and 0.4 mm long. */
const PINNED = new Set(['flags/ec.svg', 'flags/ni.svg', 'flags/py.svg', 'flags/uy.svg', 'flags/bl.svg']);
/** All of them in the long run, else some of them; and always the worst. */
const ALL = openArtwork(48, 5);
const chosen = new Set(sampled(ALL, 20));
const drawings = ALL.filter((drawing) => chosen.has(drawing) || PINNED.has(drawing.name));
/** A blade leaves nothing smaller. */
const CRUMB_MM = 0.1;
const LIMIT_MM = 0.02;

/** Drawn 120 mm across, a layer for each colour. */
function separated({ name, svg }: OpenArtwork) {
  const artwork = readSvg(new TextEncoder().encode(svg), name);
  const scale = 120 / Math.max(artwork.widthMm, artwork.heightMm);
  return separate(
    paintRegions(artwork, scale).regions.map((region) => ({ layer: region.colour, rings: region.rings })),
  );
}

/** What of an area is wider than the limit and larger than a crumb. */
const widerThanLimit = (rings: Rings) =>
  regionsOf(rings.length > 0 ? grow(unite(rings), -LIMIT_MM / 2) : []).flatMap(({ outer }) => {
    const { minX, minY, maxX, maxY } = boundsOf([outer])!;
    return Math.max(maxX - minX, maxY - minY) > CRUMB_MM - LIMIT_MM ? [[minX, minY, maxX, maxY].join(' ')] : [];
  });

/** What vanishes when an area is moved in by a crumb all round: it may belong to a neighbour. A hair more, for where it was cut off. */
const tooFine = (rings: Rings) => {
  const open = grow(grow(rings, -CRUMB_MM / 2 - 0.0005), CRUMB_MM / 2 + 0.0005);
  return grow(subtract(rings, open), 0.012);
};

describe('drawings of five open sets as inlay', () => {
  it('are as many as meant', () =>
    expect([ALL.length, drawings.length].every((many, i) => many > [237, 20][i]!)).toBe(true));

  it.each(drawings)('have no film on film, and show what was drawn: $name', (drawing) => {
    const drawn = separated(drawing);
    const painted = unite(drawn.layers.flatMap(({ visible }) => [...visible]));
    const { minX, minY, maxX, maxY } = boundsOf(painted)!;
    const bare = subtract([rectangle(minX - 1, minY - 1, maxX - minX + 2, maxY - minY + 2)], painted);
    const fine = unite([...drawn.layers.map(({ visible }) => visible), bare].flatMap((area) => [...tooFine(area)]));
    const { layers } = buildLayers(withoutFineParts(drawn), { school: 'inlay', trapMm: 0, thinnestMm: () => 1 });
    let above: Rings = [];
    const seen = new Map<string, Rings>();
    for (const { key, cut } of [...layers].reverse()) {
      expect(widerThanLimit(intersect(cut, above)), `${key} lies under others`).toEqual([]);
      seen.set(key, subtract(cut, above));
      above = unite([...above, ...cut]);
    }
    for (const { key, visible } of drawn.layers) {
      const shown = seen.get(key) ?? [];
      expect(widerThanLimit(subtract(subtract(visible, shown), fine)), `${key} is missing`).toEqual([]);
      expect(widerThanLimit(subtract(subtract(shown, visible), fine)), `${key} is added`).toEqual([]);
    }
  });
});
