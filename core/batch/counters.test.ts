import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf, containsPoint, type Ring } from '../geometry/index.js';
import { programOf, restToFreeze, type FrozenSheet } from '../stations/cut/index.js';
import {
  NEW_LAY_WISH,
  type LaidSheets,
  type LayWish,
  type SheetGroup,
  type SheetPlan,
  layJobs,
} from '../laying/index.js';
import { batchJob, svg } from '../testing/batch-job.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { gapToEdges } from '../testing/gaps.js';
import { seeded } from '../testing/seeded.js';
import { freezeSheet, placeByHand, type PreparedJob } from './index.js';

const SPACING_MM = 4;
/** A roll hardly wider than the frames. */
const shop = {
  ...BENCH_SHOP,
  pieces: BENCH_SHOP.pieces.filter(({ kind }) => kind === 'roll').map((roll) => ({ ...roll, widthMm: 282 })),
};
const plan = (jobs: readonly PreparedJob[], wish: Partial<LayWish> = {}) =>
  layJobs(jobs, shop, { ...NEW_LAY_WISH, spacingMm: SPACING_MM, spares: { single: 0, layered: 0 }, ...wish });

type Islands = 'none' | 'corners' | 'middle';
const ISLANDS: readonly Islands[] = ['none', 'corners', 'middle'];
const island = (x: number, y: number) => `<circle fill="#16181a" cx="${x}" cy="${y}" r="5"/>`;
/** A frame round a large counter, with or without islands in it: where others would lie first, or so that they lie round one. */
const frame = (w: number, h: number, t: number, islands: Islands = 'none') =>
  `<path fill="#16181a" fill-rule="evenodd" d="M0 0h${w}v${h}H0z M${t} ${t}v${h - 2 * t}h${w - 2 * t}v${2 * t - h}z"/>${{ none: '', corners: island(t + 24, t + 24) + island(w - t - 24, h - t - 24), middle: island(w * 0.3, h * 0.5) }[islands]}`;
const small = (w: number, h: number) => `<path fill="#16181a" d="M0 0h${w}v${h}z"/>`;

const isLine = (ring: Ring) => areaOf([ring]) < 1;
const kinds = ['box', 'contour', 'groups'] as const;

async function jobsOf(seed: number, border?: 'none'): Promise<PreparedJob[]> {
  const random = seeded(seed + 70);
  const any = () => border ?? kinds[Math.floor(random() * kinds.length)]!;
  const size = () =>
    [150 + Math.round(100 * random()), 120 + Math.round(60 * random()), 8 + Math.round(8 * random())] as const;
  return [
    await batchJob(svg(260, 190, frame(...size(), ISLANDS[seed % 3])), 2, null, { preparation: { border: any() } }),
    await batchJob(svg(60, 60, small(25 + Math.round(10 * random()), 22 + Math.round(10 * random()))), 6, null, {
      preparation: { border: any() },
    }),
  ];
}

/** By its own means: the copies in the counters of others, each with the copy round it. */
function inside({ groups }: SheetPlan): { readonly inner: SheetGroup; readonly outer: SheetGroup }[] {
  return groups.flatMap((inner) =>
    groups.flatMap((outer) =>
      outer !== inner &&
      outer.contours.filter((ring) => containsPoint([ring], inner.contours[0]![0]!, inner.contours[0]![1]!)).length > 0
        ? [{ inner, outer }]
        : [],
    ),
  );
}

const value = ({ sheets }: LaidSheets) => sheets.reduce((sum, one) => sum + one.value, 0);
const copies = ({ sheets, unplaced }: LaidSheets) => [
  sheets.flatMap(({ groups }) => groups.map(({ job, copy }) => `${job} ${copy}`)).sort(),
  unplaced,
];

describe('small layers in large counters', () => {
  it.each(
    [1, 2, 3, 4, 5, 6].flatMap(
      (seed) =>
        [
          [seed, false],
          [seed, true],
        ] as const,
    ),
  )(
    'lie as clear as ever, are cut first, and no line runs through them, seed %i, borders shared %s',
    async (seed, sharesBorders) => {
      const jobs = await jobsOf(seed);
      const [used, empty] = [
        await plan(jobs, { sharesBorders }),
        await plan(jobs, { sharesBorders, inCounters: false }),
      ];
      expect(copies(used)).toEqual(copies(empty));
      expect(value(used)).toBeLessThanOrEqual(value(empty) + 1e-9);
      expect(empty.sheets.flatMap(inside)).toEqual([]);
      expect(empty.sheets.flatMap(({ groups }) => groups.filter(({ liesInCounter }) => liesInCounter))).toEqual([]);
      const gapOf = ({ job, layer }: SheetGroup) => jobs[job]!.prepare.layers[layer]!.borderGapMm;
      for (const sheet of used.sheets) {
        const pairs = inside(sheet);
        expect(sheet.groups.filter(({ liesInCounter }) => liesInCounter)).toEqual(
          sheet.groups.filter((group) => pairs.some(({ inner }) => inner === group)),
        );
        const { wholeAt } = programOf(sheet, BENCH_SHOP.cutter);
        const firstOf = (group: SheetGroup) =>
          sheet.groups
            .slice(0, sheet.groups.indexOf(group))
            .reduce((sum, { contours, borders }) => sum + contours.length + borders.length, 0);
        const wholeOf = (group: SheetGroup) =>
          Array.from(wholeAt.slice(firstOf(group), firstOf(group) + group.contours.length));
        for (const { inner, outer } of pairs) {
          const round = inner.borders.filter((ring) => !isLine(ring));
          const what = sharesBorders || round.length === 0 ? inner.contours : round;
          const clear = Math.min(...outer.contours.flatMap((ring) => what.map((own) => gapToEdges(ring, own))));
          expect(clear).toBeGreaterThan(
            (sharesBorders ? Math.min(gapOf(inner), gapOf(outer)) : Math.max(gapOf(outer), SPACING_MM)) - 0.05,
          );
          for (const line of outer.borders.filter(isLine)) {
            for (const own of what) expect(gapToEdges(line, own)).toBeGreaterThan(0.7);
            expect(containsPoint(what, line[0]!, line[1]!)).toBe(false);
          }
          expect(Math.max(...wholeOf(inner))).toBeLessThan(Math.min(...wholeOf(outer)));
        }
      }
      // Boxes that touch leave nothing open inside of them.
      const allBoxes =
        sharesBorders &&
        used.sheets.every(({ groups }) =>
          groups.every(({ borders }) => borders.filter((ring) => !isLine(ring)).every((ring) => ring.length === 8)),
        );
      if (!allBoxes) expect(used.sheets.flatMap(inside).length).toBeGreaterThan(0);
    },
  );

  it.each([1, 2])('lie there without borders, too, at the spacing, seed %i', async (seed) => {
    const jobs = await jobsOf(seed, 'none');
    const { sheets } = await plan(jobs);
    expect(sheets.flatMap(inside).length).toBeGreaterThan(0);
    for (const { groups } of sheets)
      groups.forEach((one, i) =>
        groups
          .slice(i + 1)
          .forEach((other) =>
            expect(
              Math.min(...one.contours.flatMap((ring) => other.contours.map((own) => gapToEdges(ring, own)))),
            ).toBeGreaterThan(SPACING_MM - 0.02),
          ),
      );
  });

  it.each([
    [0.05, false],
    [0.3, false],
    [0.6, false],
    [0.3, true],
  ] as const)(
    'have a border of their own round what is left when the cut broke off at %f, borders shared %s',
    async (share, sharesBorders) => {
      const jobs = await jobsOf(3);
      const out = await plan(jobs, { sharesBorders, zones: false });
      const sheet = out.sheets.find((one) => inside(one).length > 0)!;
      const clearMm =
        Math.min(...jobs.flatMap(({ prepare }) => prepare.layers.map(({ borderGapMm }) => borderGapMm))) - 0.1;
      const frozen = freezeSheet(out, sheet.id, { jobs, stopped: [], cutter: BENCH_SHOP.cutter, isAlone: false }).sheet;
      const rest = restToFreeze({
        sheet: frozen as unknown as FrozenSheet,
        program: frozen.program,
        pairsDone: Math.floor(frozen.pairsTotal * share),
        settings: frozen.program,
        motion: BENCH_SHOP.cutter,
      });
      let first = 0;
      const rings = rest.groups.flatMap(({ contours, marks, borders }, group) =>
        rest.program.outlines
          .slice(first, (first += contours + marks + borders))
          .map((ring, i) => ({ ring, group, isPart: i < contours + marks })),
      );
      const frees = rings.filter(({ ring, isPart }) => !isPart && !isLine(ring));
      expect(rings.some(({ isPart }) => isPart)).toBe(true);
      if (!sharesBorders) expect(new Set(frees.map(({ group }) => group)).size).toBe(rest.groups.length);
      for (const { ring } of rings.filter(({ isPart }) => isPart)) {
        expect(frees.filter((border) => containsPoint([border.ring], ring[0]!, ring[1]!)).length).toBeGreaterThan(0);
        for (const border of frees) expect(gapToEdges(ring, border.ring)).toBeGreaterThan(clearMm);
      }
    },
  );

  it('lie there by a hand, too, and the rest is laid round them', async () => {
    const jobs = [
      await batchJob(svg(250, 180, frame(250, 180, 12)), 1, null, { preparation: { border: 'box' } }),
      await batchJob(svg(30, 30, small(30, 30)), 3, null, { preparation: { border: 'contour' } }),
    ];
    const wish: LayWish = {
      ...NEW_LAY_WISH,
      spacingMm: SPACING_MM,
      zones: false,
      spares: { single: 0, layered: 0 },
      inCounters: true,
    };
    const out = await layJobs(jobs, shop, wish);
    const sheet = out.sheets[0]!;
    const middle = (group: SheetGroup) => {
      const { minX, minY, maxX, maxY } = boundsOf(group.contours)!;
      return [(minX + maxX) / 2, (minY + maxY) / 2] as const;
    };
    const at = sheet.groups.findIndex(({ job }) => job === 1);
    const [[x, y], [toX, toY]] = [middle(sheet.groups[at]!), middle(sheet.groups.find(({ job }) => job === 0)!)];
    const pin = placeByHand(
      out,
      { shop: shop, wish },
      { sheetId: sheet.id, group: at, dxMm: toX - x, dyMm: toY - y, turn: 0 },
    );
    const laid = await layJobs(jobs, shop, { ...wish, pins: [pin] });
    expect([laid.loose, laid.unplaced]).toEqual([[], []]);
    const [pinned] = laid.sheets.flatMap(({ groups }) => groups.filter(({ isPinned }) => isPinned));
    expect(Math.hypot(middle(pinned!)[0] - toX, middle(pinned!)[1] - toY)).toBeLessThan(0.01);
    expect(pinned!.liesInCounter).toBe(true);
    // Where counters are to stay empty, what is round it moves.
    const emptied = await layJobs(jobs, shop, { ...wish, pins: [pin], inCounters: false });
    expect([emptied.loose, emptied.unplaced, emptied.sheets.flatMap(inside)]).toEqual([[], [], []]);
    expect(emptied.sheets.flatMap(({ groups }) => groups.filter(({ isPinned }) => isPinned))).toHaveLength(1);
  });

  it('lie nowhere in a stencil: its islands stay', async () => {
    const masked = { films: { byColour: { '#16181a': 'grainy-mask' } }, preparation: { borderGapMm: 3 } };
    const jobs = [
      await batchJob(svg(260, 190, frame(250, 180, 8)), 2, null, masked),
      await batchJob(svg(60, 60, small(25, 25)), 6, null, masked),
    ];
    const { sheets } = await plan(jobs);
    expect(sheets.flatMap(({ groups }) => groups).length).toBe(8);
    expect(sheets.flatMap(inside)).toEqual([]);
  });
});
