import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { learnSpares, SPARES, type SpoiledRun } from './index.js';

describe('spares', () => {
  it('are those of the trade before anything is known, and of the kind that nothing is known of', () => {
    const shares = (runs: readonly SpoiledRun[]) => Object.values(learnSpares(runs)).map(({ share }) => share);
    expect(shares([])).toEqual([SPARES.single, SPARES.layered]);
    expect(shares([{ cut: 500, spoiled: 150, isLayered: true }])[0]).toBe(SPARES.single);
  });

  it.each([0, 0.02, 0.08, 0.2])('come to make up for what a shop spoils when it spoils %f of all', (spoils) => {
    const random = seeded(Math.round(spoils * 1000) + 1);
    const runs = Array.from({ length: 400 }, (): SpoiledRun => {
      const cut = 10 + Math.floor(60 * random());
      return {
        cut,
        spoiled: Array.from({ length: cut }, () => random()).filter((one) => one < spoils).length,
        isLayered: true,
      };
    });
    const { layered } = learnSpares(runs);
    // Of 1 + share copies so many are good.
    expect((1 + layered.share) * (1 - spoils)).toBeCloseTo(1, 1);
    expect([layered.cut, layered.spoiled]).toEqual([
      runs.reduce((sum, { cut }) => sum + cut, 0),
      runs.reduce((sum, { spoiled }) => sum + spoiled, 0),
    ]);
  });

  it('grow with every spoiled copy, fall with every good one, and are never more than as many again', () => {
    const random = seeded(4);
    for (let i = 0; i < 200; i += 1) {
      const cut = Math.floor(200 * random());
      const run = { cut, spoiled: Math.floor((cut + 1) * random()), isLayered: false };
      const share = ({ spoiled, cut: of }: Pick<SpoiledRun, 'spoiled' | 'cut'>) =>
        learnSpares([{ ...run, spoiled, cut: of }]).single.share;
      expect(share({ spoiled: run.spoiled + 1, cut: cut + 1 })).toBeGreaterThanOrEqual(share(run));
      expect(share({ spoiled: run.spoiled, cut: cut + 1 })).toBeLessThanOrEqual(share(run));
      expect(share(run)).toBeLessThanOrEqual(1);
    }
  });
});
