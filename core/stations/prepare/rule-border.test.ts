import { describe, expect, it } from 'vitest';
import { weedingBorder, weedingBorders } from '../../engines/weeding/index.js';
import { areaOf, boundsOf, perimeter, type Rings } from '../../geometry/index.js';
import { openWaste } from '../../testing/open-waste.js';
import { rectangle, seeded } from '../../testing/seeded.js';
import { ruledBorder } from './rule-border.js';

const ruled = (stays: Rings, costPerM2: number, gapMm = 5) =>
  ruledBorder(stays, { box: [weedingBorder(boundsOf(stays)!, gapMm)], gapMm, costPerM2 });

describe('the border that is ruled', () => {
  it('is the box for what fills it, and for small work, whatever the film costs', () => {
    expect(ruled([rectangle(0, 0, 300, 200)], 60).kind).toBe('box');
    expect(ruled([rectangle(0, 0, 20, 10), rectangle(40, 30, 10, 10)], 8).kind).toBe('box');
  });

  it('goes round each group where that leaves much film, and the more so the more it costs', () => {
    const far = [rectangle(0, 0, 80, 80), rectangle(700, 400, 80, 80)];
    expect(ruled(far, 15)).toMatchObject({ kind: 'groups' });
    expect(ruled(far, 15).rings).toHaveLength(2);
    const saved = [0, 5, 15, 60].map((cost) => ruled(far, cost).savedMm2);
    expect(saved).toEqual([...saved].sort((a, b) => a - b));
  });

  it.each(Array.from({ length: 20 }, (_, seed) => seed))(
    'costs no more than any other, by hand, artwork %i',
    (seed) => {
      const random = seeded(seed + 50);
      const stays = openWaste(random, {
        widthMm: 100 + random() * 900,
        heightMm: 80 + random() * 500,
        shapes: 2 + Math.floor(random() * 8),
      });
      const costPerM2 = 3 + random() * 50;
      // Half of the film that is left is used; a minute is worth 0.50; a metre of border takes 12 s, lifting 5 s.
      const minutes = (rings: Rings) =>
        (areaOf(rings) / 1e6) * costPerM2 +
        rings.reduce((sum, ring) => sum + (perimeter(ring) / 1000) * 12 + 5, 0) / 60;
      const all = (['box', 'groups'] as const).map((kind) => minutes(weedingBorders(kind, stays, 5)));
      const chosen = ruled(stays, costPerM2);
      const best = Math.min(...all);
      if (chosen.kind === 'box') expect(all[0]! - best).toBeLessThan(0.2501);
      else expect(minutes(chosen.rings)).toBeCloseTo(best, 9);
    },
  );
});
