import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import { WEEDING_FIGURES, weedingMinutes, type WeedingFigures, type WeedingWork } from '../weeding/index.js';
import { learnWeeding } from './index.js';

const work = (random: () => number): WeedingWork => {
  const looseParts = 1 + Math.floor(random() * 60);
  const outlineMm = 300 + random() * 12_000;
  return {
    sheets: 1 + Math.floor(random() * 3),
    counters: Math.floor(random() * 80),
    looseParts,
    smallParts: Math.floor(random() * looseParts * 0.5),
    strips: 1 + Math.floor(random() * 8),
    outlineMm,
    thinMm: random() * 0.6 * outlineMm,
  };
};
/** A maker's own figures: all faster or slower, and each a little differently. */
const maker = (random: () => number): WeedingFigures => {
  const whole = 0.5 + random() * 1.3;
  return Object.fromEntries(
    Object.entries(WEEDING_FIGURES).map(([key, figure]) => [key, figure * whole * (0.65 + random() * 0.7)]),
  ) as unknown as WeedingFigures;
};
const normal = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

describe('weeding, learned from a log', () => {
  it('is the trade’s figures without one', () => expect(learnWeeding([])).toEqual(WEEDING_FIGURES));

  it('is known by hand: 40 s a sheet, 5 a counter, 4 a small part, 0.7 a larger one, 12 a metre, 6 more where it is thin', () => {
    expect(
      weedingMinutes({
        sheets: 1,
        counters: 10,
        looseParts: 7,
        smallParts: 2,
        strips: 3,
        outlineMm: 5000,
        thinMm: 1000,
      }) * 60,
    ).toBeCloseTo(40 + 50 + 8 + 3.5 + 60 + 6, 9);
  });

  it('from ten logs with 15 % of noise is under 10 % off on new work, in the mean over 60 makers, and seldom over 15 % for one', () => {
    const errors = Array.from({ length: 60 }, (_, k) => {
      const random = seeded(k + 1);
      const own = maker(random);
      const log = Array.from({ length: 10 }, () => {
        const done = work(random);
        return { ...done, minutes: Math.max(0.1, weedingMinutes(done, own) * (1 + 0.15 * normal(random))) };
      });
      const learned = learnWeeding(log);
      const fresh = Array.from({ length: 40 }, () => work(random));
      return (
        fresh.reduce((sum, one) => sum + Math.abs(weedingMinutes(one, learned) / weedingMinutes(one, own) - 1), 0) /
        fresh.length
      );
    });
    expect(errors.reduce((sum, error) => sum + error, 0) / errors.length).toBeLessThan(0.1);
    expect(errors.filter((error) => error > 0.15).length).toBeLessThan(4);
  });

  it('already helps after three logs, and one odd log does little', () => {
    const random = seeded(7);
    const own = Object.fromEntries(
      Object.entries(WEEDING_FIGURES).map(([key, figure]) => [key, figure * 1.7]),
    ) as unknown as WeedingFigures;
    const log = Array.from({ length: 3 }, () => {
      const done = work(random);
      return { ...done, minutes: weedingMinutes(done, own) };
    });
    const fresh = work(random);
    const off = (figures: WeedingFigures) => Math.abs(weedingMinutes(fresh, figures) / weedingMinutes(fresh, own) - 1);
    expect(off(learnWeeding(log))).toBeLessThan(0.12);
    const more = Array.from({ length: 9 }, () => {
      const done = work(random);
      return { ...done, minutes: weedingMinutes(done, own) };
    });
    const odd = { ...more[0]!, minutes: more[0]!.minutes * 6 };
    expect(off(learnWeeding([...more, odd]))).toBeLessThan(0.12);
  });

  it('never comes out below nothing', () => {
    const random = seeded(9);
    for (let k = 0; k < 20; k += 1) {
      const figures = learnWeeding(
        Array.from({ length: 6 }, () => ({ ...work(random), minutes: 0.1 + random() * 60 })),
      );
      for (const figure of Object.values(figures)) expect(figure).toBeGreaterThanOrEqual(0);
    }
  });
});
