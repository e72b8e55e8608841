import { describe, expect, it } from 'vitest';
import { boundsOf, transformRing } from '../geometry/index.js';
import { NEW_LAY_WISH, type LaidSheets, type LayWish, layJobs } from '../laying/index.js';
import { batchJob, svg } from '../testing/batch-job.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { gapBetween } from '../testing/gaps.js';
import { seeded } from '../testing/seeded.js';
import type { PreparedJob } from './index.js';

const plan = (jobs: readonly PreparedJob[], wish: Partial<LayWish> = {}) =>
  layJobs(jobs, BENCH_SHOP, {
    ...NEW_LAY_WISH,
    spacingMm: 3,
    spares: { single: 0, layered: 0 },
    anyTurn: true,
    ...wish,
  });
const all = ({ sheets }: LaidSheets) => sheets.flatMap(({ groups }) => groups);
const slanted = (ink: string, w: number, h: number, t: number) =>
  svg(w, h, `<path fill="${ink}" d="M0 0h${t}L${w} ${h}h-${t}z"/>`);
const turnsOf = (out: LaidSheets, job: number) =>
  all(out)
    .filter((one) => one.job === job)
    .map(({ place }) => place.rotation);

describe('turns by any angle', () => {
  it.each([1, 2, 3])(
    'lay single layers aslant, clear of each other and as they are drawn, and leave layers that must fit in their direction, seed %i',
    async (seed) => {
      const random = seeded(seed + 10);
      const size = () => 60 + Math.round(60 * random());
      const jobs = [
        await batchJob(slanted('#16181a', size(), size(), 10), 4, null, { preparation: { border: 'contour' } }),
        await batchJob(slanted('#16181a', size(), size(), 14), 3, null, { preparation: { border: 'contour' } }),
        await batchJob(
          svg(60, 50, '<path fill="#16181a" d="M0 0h60v50H0z"/><path fill="#f2b632" d="M15 12h30v26H15z"/>'),
          2,
        ),
      ];
      const [any, quarters] = [await plan(jobs), await plan(jobs, { anyTurn: false })];
      expect(
        all(any)
          .map(({ job, filmId, copy }) => `${job} ${filmId} ${copy}`)
          .sort(),
      ).toEqual(
        all(quarters)
          .map(({ job, filmId, copy }) => `${job} ${filmId} ${copy}`)
          .sort(),
      );
      expect([any.unplaced, any.loose]).toEqual([[], []]);
      expect([...turnsOf(any, 0), ...turnsOf(any, 1)].some((turn) => turn % 90 !== 0)).toBe(true);
      expect(turnsOf(any, 2).every((turn) => turn % 180 === 0)).toBe(true);
      expect(all(quarters).every(({ place }) => place.rotation % 90 === 0)).toBe(true);
      for (const {
        groups,
        pieces: [piece],
        zones,
      } of any.sheets) {
        groups.forEach((one, i) => {
          for (const other of groups.slice(i + 1))
            expect(gapBetween(one.borders.slice(0, 1), other.borders.slice(0, 1))).toBeGreaterThan(2.98);
          // What the design is mapped by is how it lies.
          const drawn = jobs[one.job]!.prepare.layers[one.layer]!.layer.cut.map((ring) =>
            transformRing(ring, one.matrix),
          );
          drawn.forEach((ring, k) => ring.forEach((v, o) => expect(v).toBeCloseTo(one.contours[k]![o]!, 6)));
          const { minX, maxX } = boundsOf([...one.contours, ...one.borders])!;
          if (!zones) expect(minX > 0 && maxX < piece!.widthMm).toBe(true);
        });
      }
    },
  );

  it('stay straight where boxes touch, and in a film with a direction', async () => {
    const boxed = { preparation: { border: 'box', labels: false } } as const;
    const touching = await plan(
      [
        await batchJob(slanted('#16181a', 90, 60, 10), 4, null, boxed),
        await batchJob(slanted('#16181a', 70, 80, 10), 4, null, boxed),
      ],
      { sharesBorders: true },
    );
    expect(all(touching).every(({ place }) => place.rotation % 90 === 0)).toBe(true);
    const brushed = await plan([
      await batchJob(slanted('#b08d3f', 90, 60, 12), 4, null, {
        films: { byColour: { '#b08d3f': 'brass' } },
        preparation: { border: 'contour' },
      }),
    ]);
    expect(all(brushed).map(({ filmId, place }) => [filmId, place.rotation])).toEqual(
      Array.from({ length: 4 }, () => ['brass', 0]),
    );
  });
});
