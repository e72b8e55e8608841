import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { countPieces, grow, unite } from '../../../geometry/index.js';
import { newLettering } from '../../../stations/artwork/index.js';
import { ArtworkReader, paintRegions, SHIPPED_FONTS, type Lettering } from '../index.js';

const reader = new ArtworkReader(resourcesInNode);
const CAP_MM = 40;
async function set(text: string, more: Partial<Lettering>) {
  const artwork = await reader.lettering({ ...newLettering(text), capHeightMm: CAP_MM, ...more }, null);
  const all = unite(paintRegions(artwork, 1).regions.flatMap(({ rings }) => [...rings]));
  return { all, pieces: countPieces(all).pieces, joined: artwork.joined ?? [] };
}

/** Fonts whose letters are one piece each. */
const WHOLE = SHIPPED_FONTS.filter(({ style }) => style !== 'stencil').map(({ id }) => id);

describe('words that are joined', () => {
  it.each(WHOLE)('are one piece each in %s, which holds when it is cut', async (font) => {
    for (const text of ['Heron', 'Boat', 'AVOWAL', 'Woad\nFen']) {
      const { all, pieces } = await set(text, { font, joinWords: true });
      expect(pieces).toBe(text.split('\n').length);
      expect(countPieces(grow(all, -0.05)).pieces).toBe(pieces);
    }
  });

  it.each(WHOLE)('stand no closer than they must in %s', async (font) => {
    const { joined } = await set('Heron', { font, joinWords: true, ligatures: false });
    if (joined.length === 0) return;
    // Half a millimetre more room, and the overlap given back, and it falls apart.
    const roomier = joined[0]!.byMm - 0.6 - 0.5;
    const { pieces } = await set('Heron', { font, trackingPct: (-roomier / CAP_MM) * 100 });
    expect(pieces).toBeGreaterThan(1);
  });

  it('are told with how much closer each stands; one that holds together is not', async () => {
    const { joined } = await set('Moor Wharf', { font: 'archivo', joinWords: true });
    expect(joined.map(({ word }) => word)).toEqual(['Moor', 'Wharf']);
    for (const { byMm } of joined) expect(byMm).toBeGreaterThan(0.5);
    expect((await set('Moor', { font: 'archivo', joinWords: true, trackingPct: -20 })).joined).toEqual([]);
  });

  it('leave dots and accents where they are', async () => {
    expect((await set('nin', { font: 'archivo', joinWords: true })).pieces).toBe(2);
    expect((await set('nön', { font: 'archivo', joinWords: true })).pieces).toBe(3);
  });

  it.each(['up', 'down'] as const)('are one piece on an arc bent %s', async (bend) => {
    for (const font of ['archivo', 'zilla-slab', 'oswald'])
      expect((await set('HERON', { font, joinWords: true, arc: { radiusMm: 150, bend } })).pieces).toBe(1);
  });
});
