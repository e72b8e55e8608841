import { Helper } from 'dxf';
import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import {
  areaOf,
  boundsOf,
  subtract,
  transformRing,
  translateRings,
  unite,
  type Rings,
} from '../../../geometry/index.js';
import { randomDxf } from '../../../testing/dxf-grammar.js';
import { ArtworkReader, paintRegions, readArtwork } from '../index.js';

/** Ends nearer than this meet, in the drawing's units. */
const MEET = 0.001;

/** What a reader that shares no code with ours draws, as areas in mm, y down: its open lines joined end to end, and all filled by even-odd. */
function drawnByAnother(text: string, mmPerUnit: number): Rings {
  const open = new Helper(text).toPolylines().polylines.map(({ vertices }) => [...vertices]);
  const closed: (readonly (readonly [number, number])[])[] = [];
  const isAt = (a: readonly [number, number], b: readonly [number, number]) =>
    Math.hypot(a[0] - b[0], a[1] - b[1]) < MEET;
  while (open.length > 0) {
    let line = open.shift()!;
    while (!isAt(line[0]!, line.at(-1)!)) {
      const next = open.findIndex((other) => isAt(other[0]!, line.at(-1)!) || isAt(other.at(-1)!, line.at(-1)!));
      if (next < 0) break;
      const [other] = open.splice(next, 1);
      line = [...line, ...(isAt(other![0]!, line.at(-1)!) ? other! : other!.toReversed())];
    }
    closed.push(line);
  }
  return unite(
    closed.map((line) => transformRing(Float64Array.from(line.flat()), [mmPerUnit, 0, 0, -mmPerUnit, 0, 0])),
    'evenodd',
  );
}

/** Areas with the corner of their box at 0, 0: only where they lie to each other counts. */
function fromCorner(rings: Rings): Rings {
  const { minX, minY } = boundsOf(rings)!;
  return translateRings(rings, -minX, -minY);
}

describe('lines held against the edges that they became', () => {
  const reader = new ArtworkReader(resourcesInNode);
  it.each(Array.from({ length: 30 }, (_, seed) => seed))(
    'are all there, and one that is lost is missed, seed %i',
    async (seed) => {
      const artwork = readArtwork(new TextEncoder().encode(randomDxf(seed).text), 'made-up.dxf');
      expect(await reader.notAsDrawn(new Uint8Array(), artwork)).toEqual([]);
      const [paint] = artwork.paints;
      const starts = paint!.curves.ops.flatMap((op, i) => (op === 'M' ? [i] : []));
      // Without its last loop: each has an M, lines of two figures, and a Z.
      const [ops, end] = [
        paint!.curves.ops.slice(0, starts.at(-1)),
        paint!.curves.ops.slice(0, starts.at(-1)).filter((op) => op !== 'Z').length * 2,
      ];
      const lost = {
        ...artwork,
        paints: [
          { ...paint!, curves: { ops, coords: paint!.curves.coords.slice(0, end) } },
          ...artwork.paints.slice(1),
        ],
      };
      expect(await reader.notAsDrawn(new Uint8Array(), lost)).toMatchObject([
        { code: 'not-as-drawn', difference: 'missing' },
      ]);
    },
  );
});

describe('drawings made up by a grammar have the areas that another reader gives them', () => {
  const SEEDS = Array.from({ length: process.env['LANTERN_LONG'] ? 3000 : 100 }, (_, seed) => seed);
  it.each(SEEDS)('seed %i', (seed) => {
    const { text, mmPerUnit } = randomDxf(seed);
    const artwork = readArtwork(new TextEncoder().encode(text), 'made-up.dxf');
    expect(artwork.noticed).toEqual([]);
    const own = fromCorner(paintRegions(artwork, 1).regions.flatMap(({ rings }) => [...rings]));
    const other = fromCorner(drawnByAnother(text, mmPerUnit));
    // The other reader's circles are polygons of 72 sides.
    expect((areaOf(subtract(own, other)) + areaOf(subtract(other, own))) / areaOf(other)).toBeLessThan(0.015);
  });
});
