import { describe, expect, it } from 'vitest';
import { batchJob, svg } from '../testing/batch-job.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import { freezeSheet, type PreparedJob } from '../batch/index.js';
import type { Rings } from '../geometry/index.js';
import type { FilmPiece, Shop } from '../shop/index.js';
import { layJobs, NEW_LAY_WISH, type LaidSheets, type LayWish, type SheetPlan } from './index.js';

/*
 * Film is money. What a sheet takes, what goes back to the rack, what stays on the work and what is booked are counted again here, from the
 * pieces and the outlines alone.
 */

const INKS = ['#16181a', '#b3262b', '#f7f5ef'];

async function jobsOf(seed: number): Promise<PreparedJob[]> {
  const random = seeded(seed + 100);
  const below = (n: number) => Math.floor(random() * n);
  const jobs: PreparedJob[] = [];
  for (let i = 0; i < 3; i += 1) {
    const [w, h, ink] = [40 + below(160), 30 + below(120), INKS[below(3)]!];
    const hole = `M${w / 4} ${h / 4}v${h / 4}h${w / 4}v-${h / 4}z`;
    const drawing = svg(w, h, `<path fill="${ink}" fill-rule="evenodd" d="M0 0h${w}v${h}h-${w}z${hole}"/>`);
    jobs.push(await batchJob(drawing, 1 + below(4), null, { preparation: { labels: false } }));
  }
  return jobs;
}

/** The area between rings, by the shoelace formula: holes run the other way round. */
const shoelace = (rings: Rings) =>
  Math.abs(
    rings.reduce((sum, ring) => {
      let twice = 0;
      for (let i = 0; i < ring.length; i += 2) {
        const j = (i + 2) % ring.length;
        twice += ring[i]! * ring[j + 1]! - ring[j]! * ring[i + 1]!;
      }
      return sum + twice / 2;
    }, 0),
  );

/** Each piece of a sheet: what of it goes through the cutter, from its own corner, and the sheet's lines on it. */
function piecesOn(sheet: SheetPlan) {
  const zones = sheet.zones ?? [{ piece: sheet.pieces[0]!, film: sheet.films[0]!, xMm: 0, yMm: 0 }];
  return zones.map(({ piece, film, xMm, yMm, ...zone }) => ({
    piece,
    film,
    // Of a roll what is fed; of any other piece all of it.
    widthMm: piece.widthMm,
    lengthMm:
      piece.kind !== 'roll' ? piece.lengthMm : 'lengthMm' in zone ? (zone.lengthMm as number) : sheet.usedLengthMm,
    lines: sheet.groups
      .filter(({ filmId }) => filmId === film.id)
      .flatMap(({ contours, borders }) => [...contours, ...borders])
      .filter((ring) => !sheet.zones || isOn(ring, { xMm, yMm, ...(zone as { widthMm: number; lengthMm: number }) }))
      .map((ring) => ring.map((v, i) => v - (i % 2 === 0 ? xMm : yMm))),
    left: sheet.leftovers.filter((one) => one.piece === piece),
  }));
}

function isOn(ring: Float64Array, at: { xMm: number; yMm: number; widthMm: number; lengthMm: number }): boolean {
  return (
    ring[0]! >= at.xMm && ring[0]! <= at.xMm + at.widthMm && ring[1]! >= at.yMm && ring[1]! <= at.yMm + at.lengthMm
  );
}

const WISHES: readonly Partial<LayWish>[] = [
  {},
  { zones: false },
  { sharesBorders: true },
  { leftovers: { ...NEW_LAY_WISH.leftovers, leastSideMm: 40, leastMm2: 4000 } },
];

/** The bench's shop with an offcut of every film on its rack. */
const WITH_OFFCUTS: Shop = {
  ...BENCH_SHOP,
  pieces: [
    ...BENCH_SHOP.pieces,
    ...BENCH_SHOP.films.map(({ id }): FilmPiece => ({
      id: `${id}-left-over`,
      filmId: id,
      kind: 'offcut',
      number: 1,
      widthMm: 280,
      lengthMm: 210,
      edgeMm: 0,
      quantity: 1,
    })),
  ],
};

async function laidOut(seed: number): Promise<{ jobs: PreparedJob[]; wish: LayWish; out: LaidSheets }> {
  const wish: LayWish = { ...NEW_LAY_WISH, spacingMm: 4, ...WISHES[seed % WISHES.length] };
  const jobs = await jobsOf(seed);
  return { jobs, wish, out: await layJobs(jobs, seed < 4 ? BENCH_SHOP : WITH_OFFCUTS, wish) };
}

describe.each([0, 1, 2, 3, 4, 5, 6, 7])('the film of seed %i', (seed) => {
  it('that is taken is what was loaded less what goes back, which nothing was cut in and which is worth keeping', async () => {
    const { wish, out } = await laidOut(seed);
    expect(out.sheets.length).toBeGreaterThan(0);
    for (const sheet of out.sheets) {
      let [taken, spent] = [0, 0];
      for (const { piece, film, widthMm, lengthMm, lines, left } of piecesOn(sheet)) {
        expect(lines.length).toBeGreaterThan(0);
        const worth = (w: number, l: number) => {
          const { leastSideMm, leastMm2, narrowMm, narrowShare, share } = wish.leftovers;
          if (w < leastSideMm || l < leastSideMm || w * l < leastMm2) return 0;
          return w * l * 1e-6 * film.costPerM2 * (w < narrowMm || l < narrowMm ? narrowShare : share);
        };
        let back = 0;
        for (const one of left) {
          expect(one.keep).toBe(worth(one.widthMm, one.lengthMm) > 0);
          expect([one.xMm, one.yMm, widthMm - one.xMm - one.widthMm].every((room) => room > -1e-6)).toBe(true);
          if (one.keep) back += one.widthMm * one.lengthMm;
          // No line that is cut comes into it.
          const inside = (x: number, y: number) =>
            x > one.xMm + 1e-6 &&
            x < one.xMm + one.widthMm - 1e-6 &&
            y > one.yMm + 1e-6 &&
            y < one.yMm + one.lengthMm - 1e-6;
          for (const ring of lines)
            for (let i = 0; i < ring.length; i += 2) expect(inside(ring[i]!, ring[i + 1]!)).toBe(false);
        }
        // Leftovers lie apart: on a grid of 4 mm none counts twice.
        for (let x = 2; x < widthMm; x += 4)
          for (let y = 2; y < lengthMm; y += 4) {
            const on = left.filter(
              (one) => x > one.xMm && x < one.xMm + one.widthMm && y > one.yMm && y < one.yMm + one.lengthMm,
            );
            if (on.length > 1) throw new Error(`Two leftovers lie at ${x}, ${y}.`);
          }
        taken += widthMm * lengthMm - back;
        const was =
          piece.kind === 'offcut' ? worth(piece.widthMm, piece.lengthMm) : widthMm * lengthMm * 1e-6 * film.costPerM2;
        spent += was - left.reduce((sum, one) => sum + worth(one.widthMm, one.lengthMm), 0);
      }
      expect(sheet.usedMm2).toBeCloseTo(taken, 3);
      expect(sheet.value).toBeCloseTo(spent, 6);
    }
  });

  it('that stays on the work is what its outlines enclose, and all of it is booked with the sheet', async () => {
    const { jobs, out } = await laidOut(seed);
    for (const sheet of out.sheets) {
      const stays = sheet.groups.map(({ contours, marks }) => shoelace(contours.slice(0, contours.length - marks)));
      sheet.groups.forEach(({ keptMm2 }, i) => expect(keptMm2).toBeCloseTo(stays[i]!, 3));
      const made = freezeSheet(out, sheet.id, { jobs, stopped: [], cutter: BENCH_SHOP.cutter, isAlone: false });
      const inAll = stays.reduce((sum, mm2) => sum + mm2, 0);
      expect(made.sheet.keptMm2).toBeCloseTo(inAll, 3);
      expect(made.sheet.groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0)).toBeCloseTo(inAll, 3);
      expect([made.sheet.filmMm2, made.sheet.filmCost]).toEqual([sheet.usedMm2, sheet.value]);
      const back = (some: readonly { keep: boolean; widthMm: number; lengthMm: number }[]) =>
        some.filter(({ keep }) => keep).map(({ widthMm, lengthMm }) => widthMm * lengthMm);
      expect(back(made.sheet.leftovers)).toEqual(back(sheet.leftovers));
      // Every copy is asked for as often as its job wants it.
      const carried = [...new Set(sheet.groups.map(({ job }) => jobs[job]!))];
      expect(made.toCut.map(({ jobId }) => jobId).sort()).toEqual(carried.map(({ id }) => id).sort());
      for (const { jobId, layers } of made.toCut)
        expect(layers.map(({ copies }) => copies)).toEqual(
          carried
            .find(({ id }) => id === jobId)!
            .prepare.layers.map(() => carried.find(({ id }) => id === jobId)!.copies),
        );
    }
  });
});

describe('a sheet of a job alone', () => {
  const freeze = (out: LaidSheets, jobs: readonly PreparedJob[], more: object = {}) =>
    freezeSheet(out, out.sheets[0]!.id, { jobs, stopped: [], cutter: BENCH_SHOP.cutter, isAlone: true, ...more });

  it('is not sent while a copy of it finds no place, nor while something stops it', async () => {
    const [job] = (await jobsOf(1)) as [PreparedJob];
    const few = {
      ...BENCH_SHOP,
      pieces: BENCH_SHOP.pieces.map((piece) => (piece.kind === 'roll' ? { ...piece, lengthMm: 400 } : piece)),
    };
    const [enough, short] = [
      await layJobs([job], BENCH_SHOP, NEW_LAY_WISH),
      await layJobs([{ ...job, copies: 400 }], few, NEW_LAY_WISH),
    ];
    expect(freeze(enough, [job]).sheet.groups.length).toBeGreaterThan(0);
    expect(short.sheets.length).toBeGreaterThan(0);
    expect(() => freeze(short, [job])).toThrow(
      /Nothing was cut, because something stops this job: There is not enough/,
    );
    expect(freeze(short, [job], { isAlone: false }).sheet.groups.length).toBeGreaterThan(0);
    const stopped = [{ jobId: 'other', why: 'A line is open.' }];
    expect(() => freeze(enough, [job], { stopped })).toThrow(/A line is open/);
  });
});
