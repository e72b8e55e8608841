import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { colourDifference } from '../artwork/index.js';
import { colourFamilies, withFamilies } from './colour-families.js';

describe('families of near colours', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'leave no kept colour like a larger one, and give every other one a home, seed %i',
    (seed) => {
      const random = seeded(seed);
      const hex = () => `#${[0, 1, 2].map(() => Math.floor(120 + 60 * random()).toString(16)).join('')}`;
      const colours = [...new Map(Array.from({ length: 20 }, () => [hex(), 1 + 100 * random()] as const))].map(
        ([colour, areaMm2]) => ({ colour, areaMm2 }),
      );
      const within = 2 + 12 * random();
      const families = colourFamilies(colours, within, colourDifference);
      const gone = families.flatMap(({ others }) => others);
      expect(new Set(gone).size).toBe(gone.length);
      const area = new Map(colours.map(({ colour, areaMm2 }) => [colour, areaMm2]));
      for (const { keep, others } of families) {
        expect(gone).not.toContain(keep);
        for (const other of others) {
          expect(colourDifference(keep, other)).toBeLessThan(within);
          expect(area.get(keep)).toBeGreaterThanOrEqual(area.get(other)!);
        }
      }
      const left = colours.filter(({ colour }) => !gone.includes(colour));
      for (const [i, a] of left.entries())
        for (const b of left.slice(i + 1)) expect(colourDifference(a.colour, b.colour)).toBeGreaterThanOrEqual(within);
    },
  );

  it('grow with the difference, and one of all comes of a large one', () => {
    const colours = ['#101010', '#202020', '#404040', '#808080'].map((colour, i) => ({ colour, areaMm2: 10 - i }));
    const left = (within: number) =>
      colours.length - colourFamilies(colours, within, colourDifference).flatMap(({ others }) => others).length;
    expect([left(0.1), left(8), left(1000)]).toEqual([4, 3, 1]);
  });

  it('take along what was taken for one of them before', () =>
    expect(withFamilies({ '#a': '#b', '#x': '#y' }, [{ keep: '#c', others: ['#b'] }])).toEqual({
      '#a': '#c',
      '#b': '#c',
      '#x': '#y',
    }));
});
