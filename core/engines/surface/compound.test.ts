import { describe, expect, it } from 'vitest';
import { radiusOf, safeScale, strainAt, strainHolds, strainPct } from './index.js';

const RADIUS = 100;
const sphere = { acrossMm: RADIUS, downMm: RADIUS };

/** How much longer a circle of the flat film is than the circle on the sphere that it must lie on, both at the arc length r: the exact stretch there. */
const circleStretch = (r: number) => r / RADIUS / Math.sin(r / RADIUS) - 1;
/** A strip along a great circle: its edges lie on a smaller circle of the sphere. */
const stripStretch = (h: number) => 1 / Math.cos(h / RADIUS) - 1;

describe('the strain on a sphere', () => {
  it.each([0.05, 0.1, 0.2, 0.3, 0.4, 0.5])(
    'is within a tenth of the exact lengths, up to %d of the radius',
    (share) => {
      const r = share * RADIUS;
      expect(Math.abs(strainPct(sphere, 2 * r, 2 * r) / 100 / circleStretch(r) - 1)).toBeLessThan(0.1);
      // A long strip gives way along its edges; beside the exact stretch and squeeze the rule lies between.
      const h = r / 4;
      const strip = strainPct(sphere, 2 * r, 2 * h) / 100;
      expect(Math.abs(strip / Math.min(stripStretch(h), circleStretch(r)) - 1)).toBeLessThan(0.1);
      expect(strainHolds(sphere, 2 * r, 2 * h)).toBe(true);
    },
  );

  it('says beyond what it holds', () => {
    expect([
      strainHolds(sphere, 101, 20),
      strainHolds(sphere, 20, 101),
      strainHolds({ acrossMm: null, downMm: 10 }, 900, 10),
    ]).toEqual([false, false, true]);
  });

  it('is nothing where the surface bends in one direction only, whatever the size', () => {
    expect([
      strainPct({ acrossMm: 30, downMm: null }, 90, 500),
      strainPct({ acrossMm: null, downMm: 30 }, 90, 500),
      safeScale({ acrossMm: 30, downMm: null }, 90, 500, 1),
    ]).toEqual([0, 0, null]);
  });

  it('grows with the square of the size, so that the safe size is where it is just borne', () => {
    for (const [width, height, most] of [
      [80, 60, 1],
      [200, 15, 1],
      [90, 90, 5],
    ] as const) {
      const scale = safeScale(sphere, width, height, most)!;
      expect(strainPct(sphere, width * scale, height * scale)).toBeCloseTo(most, 9);
    }
  });

  it('is none in the middle of a design and most at its edge', () => {
    for (const [width, height] of [
      [80, 60],
      [120, 20],
      [20, 120],
    ] as const) {
      const at = (x: number, y: number) => strainAt(sphere, width, height, x, y);
      expect(at(width / 2, height / 2)).toBe(0);
      expect(Math.max(at(0, 0), at(width, height))).toBeCloseTo(strainPct(sphere, width, height), 9);
      expect(at(width / 4, height / 4)).toBeLessThan(at(0, 0));
    }
  });
});

it('a radius comes from a chord and its height', () => {
  // By the circle itself: half a chord, the radius, and what is left of it.
  for (const radius of [40, 150, 2000]) {
    const chord = radius * 0.8;
    const height = radius - Math.sqrt(radius ** 2 - (chord / 2) ** 2);
    expect(radiusOf(chord, height)).toBeCloseTo(radius, 6);
  }
  expect(radiusOf(100, 0)).toBeNull();
});
