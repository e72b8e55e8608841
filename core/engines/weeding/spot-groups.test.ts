import { expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { spotGroups } from './spot-groups.js';

it.each([0, 1, 24, 25, 300, 1000, 5000])('%i places are all in one group each, in few of few', (count) => {
  const random = seeded(count + 1);
  const spots = Array.from({ length: count }, (_, i) => ({
    i,
    xMm: random() * 800,
    yMm: random() * (i % 3 === 0 ? 300 : 40),
  }));
  const groups = spotGroups(spots);
  expect(groups.flatMap((group) => group.spots.map(({ i }) => i)).sort((a, b) => a - b)).toEqual(
    spots.map(({ i }) => i),
  );
  for (const { spots: own, minX, maxX, minY, maxY } of groups) {
    expect(own.length).toBeLessThanOrEqual(24);
    for (const { xMm, yMm } of own) expect(xMm >= minX && xMm <= maxX && yMm >= minY && yMm <= maxY).toBe(true);
  }
  expect(groups.length).toBeLessThanOrEqual(Math.max(1, Math.ceil(count / 12)));
});
