import { describe, expect, it } from 'vitest';
import { weedingBorders } from '../../engines/weeding/index.js';
import { areaOf, boundsOf, perimeter, type Rings } from '../../geometry/index.js';
import { openWaste } from '../../testing/open-waste.js';
import { rectangle, seeded } from '../../testing/seeded.js';
import { ruledBorder } from './rule-border.js';

const ruled = (stays: Rings, costPerM2: number, gapMm = 5) => ruledBorder(stays, { gapMm, costPerM2 });

/** What a layer with a border costs, by hand: of film between it and the box round it half is used again; a minute is worth 0.50; a sheet takes 40 s, a metre 12 s, lifting 5 s. */
function costOf(rings: Rings, costPerM2: number): number {
  const { minX, minY, maxX, maxY } = boundsOf(rings)!;
  const film = (areaOf(rings) + (maxX - minX) * (maxY - minY)) / 2 / 1e6;
  const seconds = rings.reduce((sum, ring) => sum + (perimeter(ring) / 1000) * 12 + 5, 40);
  return film * costPerM2 + (seconds / 60) * 0.5;
}

/** Artwork of few and of many parts, near and far, small and large; every fourth is a row of labels. */
function artwork(seed: number) {
  const random = seeded(seed + 50);
  if (seed % 4 === 0) {
    const labels = Array.from({ length: 1 + (seed % 3) }, (_, i) => rectangle(i * 62, 0, 60, 20 + random() * 9));
    return { stays: labels, costPerM2: 3 + random() * 150 };
  }
  const stays = openWaste(random, {
    widthMm: 40 + random() * 900,
    heightMm: 30 + random() * 500,
    shapes: 2 + Math.floor(random() * 8),
  });
  return { stays, costPerM2: 3 + random() * 150 };
}

describe('the border that is ruled', () => {
  it('is the box for what fills it, whatever the film costs', () => {
    expect(ruled([rectangle(0, 0, 300, 200)], 60).kind).toBe('box');
    expect(ruled([rectangle(0, 0, 20, 10)], 8).kind).toBe('box');
  });

  it('goes round each group where that leaves much film, and the more so the more it costs', () => {
    const far = [rectangle(0, 0, 80, 80), rectangle(700, 400, 80, 80)];
    expect(ruled(far, 15)).toMatchObject({ kind: 'groups' });
    expect(ruled(far, 15).rings).toHaveLength(2);
    const saved = [0, 5, 15, 60].map((cost) => ruled(far, cost).savedMm2);
    expect(saved).toEqual([...saved].sort((a, b) => a - b));
  });

  it.each(Array.from({ length: 40 }, (_, seed) => seed))('of all kinds none is cheaper by 1 %, artwork %i', (seed) => {
    const { stays, costPerM2 } = artwork(seed);
    const { rings } = ruled(stays, costPerM2);
    for (const kind of ['box', 'contour', 'groups'] as const)
      expect(costOf(rings, costPerM2), kind).toBeLessThanOrEqual(
        costOf(weedingBorders(kind, stays, 5), costPerM2) * 1.0102,
      );
  });

  it('is of every kind in some of them', () => {
    const kinds = new Set(
      Array.from({ length: 40 }, (_, seed) => artwork(seed)).map(
        ({ stays, costPerM2 }) => ruled(stays, costPerM2).kind,
      ),
    );
    expect([...kinds].sort()).toEqual(['box', 'contour', 'groups']);
  });
});
