import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf, boundsOf, containsPoint, squareToEdge, type Rings } from '../geometry/index.js';
import { emptyRecipe } from '../recipe/index.js';
import { batchJob as jobOf, svg } from '../testing/batch-job.js';
import { gapBetween, gapToEdges } from '../testing/gaps.js';
import { seeded } from '../testing/seeded.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { NEW_LAY_WISH, toCutOf, type LaidSheets, type LayWish, type SheetPlan, layJobs } from '../laying/index.js';
import { freezeSheet, placeByHand, withPin, type PreparedJob } from './index.js';
import { programOf, restToFreeze, type FrozenSheet } from '../stations/cut/index.js';
import { InputError } from '../words/index.js';
import { sampled } from '../testing/long-run.js';

const BADGE = svg(60, 50, '<path fill="#1d4e89" d="M0 0h60v50H0z"/><path fill="#f2b632" d="M15 12h30v26H15z"/>');
const NAME = svg(180, 40, '<path fill="#16181a" d="M0 0h60v40H0z M80 0h100v12H80z"/>');
const LONG = svg(700, 120, '<path fill="#16181a" d="M0 0h700v120H0z"/><path fill="#f2b632" d="M40 30h600v50H40z"/>');

let jobs: readonly PreparedJob[];
beforeAll(async () => {
  jobs = [await jobOf(BADGE, 4, '2026-12-20'), await jobOf(NAME, 2, '2026-12-02'), await jobOf(BADGE, 1)];
});
const plan = (wish: Partial<LayWish> = {}, of = jobs) =>
  layJobs(of, BENCH_SHOP, { ...NEW_LAY_WISH, spacingMm: 4, ...wish });

function checkSheet({ groups, zones, pieces, mat, edges }: SheetPlan): void {
  groups.forEach((one, i) => {
    const box = boundsOf([...one.contours, ...one.borders])!;
    const home = zones
      ? zones.find(
          ({ film, xMm, yMm, widthMm, lengthMm }) =>
            film.id === one.filmId &&
            box.minX >= xMm - 1e-6 &&
            box.minY >= yMm - 1e-6 &&
            box.maxX <= xMm + widthMm + 1e-6 &&
            box.maxY <= yMm + lengthMm + 1e-6,
        )
      : null;
    if (zones) expect(home).toBeDefined();
    else
      expect(
        box.minX >= edges.sides - 1e-6 &&
          box.maxX <= pieces[0]!.widthMm - edges.sides + 1e-6 &&
          box.minY >= edges.bottom - 1e-6 &&
          box.maxY <= pieces[0]!.lengthMm - edges.top + 1e-6,
      ).toBe(true);
    for (const other of groups.slice(i + 1))
      expect(
        gapBetween(
          one.borders.filter((ring) => areaOf([ring]) > 1),
          other.borders.filter((ring) => areaOf([ring]) > 1),
        ),
      ).toBeGreaterThan(3.98);
  });
  for (const { xMm, yMm, widthMm, lengthMm } of zones ?? [])
    expect(
      xMm >= mat!.edgeMm &&
        yMm >= mat!.edgeMm &&
        xMm + widthMm <= mat!.widthMm - mat!.edgeMm + 1e-6 &&
        yMm + lengthMm <= mat!.lengthMm - mat!.edgeMm + 1e-6,
    ).toBe(true);
}

const copiesOf = ({ sheets }: LaidSheets) =>
  sheets.flatMap(({ groups }) => groups.map(({ job, filmId, copy }) => `${job} ${filmId} ${copy}`)).sort();

describe('several jobs together', () => {
  it('every copy of every layer lies somewhere once, apart from all others, on its film, in settings that all on the sheet share', async () => {
    for (const zones of [true, false]) {
      const out = await plan({ zones });
      expect(out.unplaced).toEqual([]);
      const expected = jobs
        .flatMap(({ prepare, copies }, j) =>
          prepare.layers.flatMap(({ layer }) =>
            Array.from({ length: copies }, (_, copy) => `${j} ${layer.film.id} ${copy}`),
          ),
        )
        .sort();
      expect(copiesOf(out)).toEqual(expected);
      for (const sheet of out.sheets) {
        checkSheet(sheet);
        expect(new Set(sheet.films.map(({ forceG, speedMmS }) => `${forceG} ${speedMmS}`)).size).toBe(1);
        expect(sheet.usedMm2).toBeGreaterThan(sheet.groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0));
      }
    }
  });

  it('one film of all jobs is cut together, from less film than job by job; with zones in no more passes than without', async () => {
    const [together, apart] = [await plan(), await Promise.all(jobs.map((job) => plan({}, [job])))];
    const value = (out: LaidSheets) => out.sheets.reduce((sum, sheet) => sum + sheet.value, 0);
    expect(value(together)).toBeLessThanOrEqual(apart.reduce((sum, out) => sum + value(out), 0) + 1e-9);
    expect(together.sheets.length).toBeLessThanOrEqual((await plan({ zones: false })).sheets.length);
    expect(together.sheets.length).toBeLessThan(apart.reduce((sum, out) => sum + out.sheets.length, 0));
  });

  it('all layers of one design lie in one direction, a quarter round together where they fit no other way', async () => {
    const out = await plan({}, [await jobOf(LONG, 1), ...jobs]);
    expect(out.unplaced).toEqual([]);
    const quarters = new Map<number, Set<number>>();
    for (const {
      job,
      matrix: [a],
    } of out.sheets.flatMap(({ groups }) => groups))
      quarters.set(job, (quarters.get(job) ?? new Set()).add(Math.abs(Math.round(a))));
    expect(quarters.get(0)).toEqual(new Set([0]));
    expect(quarters.get(1)).toEqual(new Set([1]));
  });

  it('a film with a direction is not turned, and what finds no place is told', async () => {
    const brass = await jobOf(svg(120, 40, '<path fill="#b08d3f" d="M0 0h120v40H0z"/>'), 3, null, {
      films: { byColour: { '#b08d3f': 'brass' } },
    });
    for (const {
      matrix: [a, b],
    } of (await plan({}, [brass])).sheets.flatMap(({ groups }) => groups))
      expect([Math.round(a), Math.round(b)]).toEqual([1, 0]);
    const huge = await jobOf(svg(3000, 1500, '<path fill="#16181a" d="M0 0h3000v1500H0z"/>'), 2, null, {
      surface: { panels: { ...emptyRecipe('').surface.panels, split: 'never' } },
    });
    expect((await plan({}, [huge])).unplaced).toMatchObject([{ job: 0, quantity: 2, film: { id: 'tar' } }]);
  });

  it('sheets come in the order that is wished', async () => {
    const small = (await plan({ order: 'smallest' })).sheets.map(({ usedMm2 }) => usedMm2);
    expect(small).toEqual([...small].sort((a, b) => a - b));
    const urgent = (await plan({ order: 'urgent' })).sheets;
    expect(urgent[0]!.groups.some(({ job }) => job === 1)).toBe(true);
    const changes = (await plan({ order: 'changes' })).sheets.map(({ forceG, speedMmS }) => `${forceG} ${speedMmS}`);
    expect(changes.filter((one, i) => i > 0 && one !== changes[i - 1]).length).toBe(new Set(changes).size - 1);
  });

  it('a hand puts sheets in order, which holds while what lies on them changes', async () => {
    const keys = (await plan({ zones: false })).sheets.map(({ key }) => key).reverse();
    expect((await plan({ zones: false, order: 'by hand', sequence: keys })).sheets.map(({ key }) => key)).toEqual(keys);
    const [last] = keys.slice(-1);
    const changed = await plan({ zones: false, order: 'by hand', sequence: [last!, 'gone'] }, [
      { ...jobs[0]!, copies: 5 },
      ...jobs.slice(1),
    ]);
    expect(changed.sheets[0]!.key).toBe(last);
    expect(copiesOf(changed)).toHaveLength(copiesOf(await plan()).length + 2);
  });

  it('layers lie each as they fit where that is wished, in no more film', async () => {
    const value = (out: LaidSheets) => out.sheets.reduce((sum, sheet) => sum + sheet.value, 0);
    const each = await plan({ oneDirection: false });
    for (const sheet of each.sheets) checkSheet(sheet);
    expect(copiesOf(each)).toEqual(copiesOf(await plan()));
    expect(value(each)).toBeLessThanOrEqual(value(await plan()) * 1.02);
  });

  it('of a run spares are cut, more of layered work, and none once enough are good', async () => {
    const tag = await jobOf(svg(30, 20, '<path fill="#16181a" d="M0 0h30v20H0z"/>'), 1);
    const count = async (job: PreparedJob) => (await plan({}, [job])).sheets.flatMap(({ groups }) => groups).length;
    for (const copies of [1, 9, 10, 21, 40])
      expect(await count({ ...tag, copies })).toBe(copies < 10 ? copies : Math.ceil(copies * 1.05));
    const layers = jobs[0]!.prepare.layers.length;
    expect(await count({ ...jobs[0]!, copies: 20 })).toBe(layers * 22);
    const { fingerprint } = toCutOf(tag)[0]!;
    // Cut, of 21 with two spares: as many as are good.
    for (const [good, left] of [
      [0, 23],
      [10, 13],
      [20, 3],
      [21, 0],
      [22, 0],
    ])
      expect(await count({ ...tag, copies: 21, taken: { [fingerprint]: good! } })).toBe(left);
  });

  it('what of a piece is worth keeping is as it is decided', async () => {
    const kept = (out: LaidSheets) => out.sheets.flatMap(({ leftovers }) => leftovers.filter(({ keep }) => keep));
    expect(kept(await plan()).length).toBeGreaterThan(0);
    expect(kept(await plan({ leftovers: { ...NEW_LAY_WISH.leftovers, leastSideMm: 5000 } }))).toEqual([]);
    for (const { widthMm, lengthMm } of kept(
      await plan({ leftovers: { ...NEW_LAY_WISH.leftovers, leastSideMm: 20, leastMm2: 100 } }),
    ))
      expect(Math.min(widthMm, lengthMm)).toBeGreaterThanOrEqual(20);
  });

  it('is the same for the same jobs', async () => expect(await plan()).toEqual(await plan()));

  it('what is cut already is not laid again, and the copies that are left have the numbers that are left', async () => {
    const whole = await plan();
    const cut = whole.sheets.flatMap(({ groups }) => groups).filter(({ job, copy }) => job === 0 && copy < 3);
    const taken: Record<string, number> = {};
    for (const { fingerprint } of cut) taken[fingerprint] = (taken[fingerprint] ?? 0) + 1;
    const rest = await plan({}, [{ ...jobs[0]!, taken }, ...jobs.slice(1)]);
    expect([...copiesOf(rest), ...cut.map(({ job, filmId, copy }) => `${job} ${filmId} ${copy}`)].sort()).toEqual(
      copiesOf(whole),
    );
    const all = Object.fromEntries(toCutOf(jobs[0]!).map(({ fingerprint, copies }) => [fingerprint, copies]));
    expect((await plan({}, [{ ...jobs[0]!, taken: all }])).sheets).toEqual([]);
  });

  it('pieces that are to be left alone are not used', async () => {
    const avoid = (await plan()).sheets.flatMap(({ pieces }) => pieces.map(({ id }) => id));
    for (const { pieces } of (await plan({ avoid })).sheets)
      expect(pieces.filter(({ id }) => avoid.includes(id))).toEqual([]);
  });

  it('pieces for a mat are whole millimetres, which a hand can cut', async () => {
    const tag = await jobOf(
      svg(70, 50, '<path fill="#f7f5ef" d="M2 2h66v46h-66z"/><path fill="#16181a" d="M12.3 20h46v10.6h-46z"/>'),
      1,
    );
    const zones = (await plan({}, [tag])).sheets.flatMap((sheet) => sheet.zones ?? []);
    expect(zones.length).toBeGreaterThan(1);
    for (const { widthMm, lengthMm, piece } of zones)
      expect(
        [widthMm, lengthMm].every(
          (side, i) => Math.abs(side - Math.round(side)) < 1e-9 || side === (i === 0 ? piece.widthMm : piece.lengthMm),
        ),
      ).toBe(true);
  });

  it('a remedy for what is short remedies: the closer spacing, or the roll that is said', async () => {
    const tar = BENCH_SHOP.pieces.find(({ filmId, kind }) => filmId === 'tar' && kind === 'roll')!;
    const plate = await jobOf(svg(80, 60, '<path fill="#16181a" d="M0 0h80v60H0z"/>'), 1, null, {
      preparation: { border: 'none' },
    });
    let closer = 0;
    for (const [copies, lengthMm] of [
      [5, 140],
      [6, 136],
      [6, 140],
      [6, 144],
      [20, 140],
      [15, 300],
    ] as const) {
      const shop = {
        ...BENCH_SHOP,
        pieces: [...BENCH_SHOP.pieces.filter(({ filmId }) => filmId !== 'tar'), { ...tar, widthMm: 300, lengthMm }],
      };
      const many = [{ ...plate, copies }];
      const made = await layJobs(many, shop, { ...NEW_LAY_WISH, spacingMm: 12 });
      const [short] = made.short;
      if (!short) continue;
      expect(short.missing.reduce((sum, { quantity }) => sum + quantity, 0)).toBe(
        made.unplaced.reduce((sum, { quantity }) => sum + quantity, 0),
      );
      if (short.spacingMm !== null) {
        closer += 1;
        expect((await layJobs(many, shop, { ...NEW_LAY_WISH, spacingMm: short.spacingMm })).unplaced).toEqual([]);
      }
      const another = {
        ...shop,
        pieces: [
          ...shop.pieces,
          { ...tar, id: 'another', widthMm: short.roll!.widthMm, lengthMm: short.roll!.lengthMm + 1e-6 },
        ],
      };
      expect((await layJobs(many, another, { ...NEW_LAY_WISH, spacingMm: 12 })).unplaced).toEqual([]);
    }
    expect(closer).toBeGreaterThan(0);
  });

  it('and it remedies with what was laid by hand where it lies', async () => {
    const tar = BENCH_SHOP.pieces.find(({ filmId, kind }) => filmId === 'tar' && kind === 'roll')!;
    const plates = [
      {
        ...(await jobOf(svg(80, 60, '<path fill="#16181a" d="M0 0h80v60H0z"/>'), 1, null, {
          preparation: { border: 'none' },
        })),
        copies: 6,
      },
    ];
    const shop = {
      ...BENCH_SHOP,
      pieces: [...BENCH_SHOP.pieces.filter(({ filmId }) => filmId !== 'tar'), { ...tar, widthMm: 300, lengthMm: 140 }],
    };
    let [offered, silent] = [0, 0];
    for (const xMm of [0, 20, 60, 105, 150, 210]) {
      // In the middle of the piece it is in the way of what would have had room.
      const pin = {
        jobId: plates[0]!.id,
        fingerprint: toCutOf(plates[0]!)[0]!.fingerprint,
        copy: 0,
        pieceKey: tar.id,
        xMm,
        yMm: 30,
        rotation: 0,
      };
      const wish = { ...NEW_LAY_WISH, spacingMm: 12, pins: [pin] };
      const { short, loose } = await layJobs(plates, shop, wish);
      expect(loose).toEqual([]);
      if (short[0]!.spacingMm === null) silent += 1;
      else {
        offered += 1;
        expect((await layJobs(plates, shop, { ...wish, spacingMm: short[0]!.spacingMm })).unplaced).toEqual([]);
      }
    }
    expect(offered + silent).toBe(6);
    expect(silent).toBeGreaterThan(0);
  });

  it('a sheet is kept with all that lies on it: contours, parts and places to be ticked off by job', async () => {
    const out = await plan();
    for (const { id, groups, zones, pieces } of out.sheets) {
      const frozen = freezeSheet(out, id, { jobs, stopped: [], cutter: BENCH_SHOP.cutter, isAlone: false }).sheet;
      expect(
        frozen.groups.map(({ jobId, filmId, copy, fingerprint, matrix }) => [jobId, filmId, copy, fingerprint, matrix]),
      ).toEqual(
        groups.map(({ job, filmId, copy, fingerprint, matrix }) => [jobs[job]!.id, filmId, copy, fingerprint, matrix]),
      );
      const rings = frozen.groups.reduce((sum, { contours, marks, borders }) => sum + contours + marks + borders, 0);
      expect([frozen.program.outlines.length, frozen.program.partOf.length, frozen.program.wholeAt.length]).toEqual([
        rings,
        rings,
        rings,
      ]);
      expect(frozen.piece === null).toBe(zones !== null);
      // Of each piece no more is left than it had, and nothing of it twice.
      for (const piece of pieces)
        expect(
          frozen.leftovers
            .filter(({ pieceId }) => pieceId === piece.id)
            .every(({ widthMm, xMm }) => xMm + widthMm <= piece.widthMm + 1e-6),
        ).toBe(true);
      frozen.groups.forEach(({ jobId, filmId, weedPlaces }) => {
        const spots = jobs.find(({ id }) => id === jobId)!.prepare.layers.find(({ layer }) => layer.film.id === filmId)!
          .weed.spots;
        expect(weedPlaces).toHaveLength(Math.max(1, spots.length));
      });
    }
    expect(
      () => freezeSheet(out, 'another', { jobs, stopped: [], cutter: BENCH_SHOP.cutter, isAlone: false }).sheet,
    ).toThrow(/changed/);
  });
});

describe('a stack of sheets', () => {
  it('is used as far as it is needed, and what more there is stays on the rack', async () => {
    const [copy] = [
      await jobOf(svg(150, 100, '<path fill="#16181a" d="M0 0h150v100H0z"/>'), 25, null, {
        preparation: { border: 'box', labels: false },
      }),
    ];
    const stack = {
      id: 'stack',
      filmId: 'tar',
      kind: 'sheet',
      number: null,
      widthMm: 200,
      lengthMm: 140,
      quantity: 60,
      edgeMm: 5,
    } as const;
    const { sheets, unplaced, short } = await layJobs(
      [copy!],
      { ...BENCH_SHOP, pieces: [stack] },
      { ...NEW_LAY_WISH, zones: false, spares: { single: 0, layered: 0 } },
    );
    expect([sheets.length, unplaced, short]).toEqual([25, [], []]);
    expect(sheets.every(({ pieces: [only], groups }) => only!.id === 'stack' && groups.length === 1)).toBe(true);
  });
});

describe('a roll', () => {
  it.each([
    [0, 0],
    [35, 0],
    [0, 120],
    [60, 200],
  ])('begins behind its leader of %i mm, and ends before its tail of %i mm', async (leaderMm, tailMm) => {
    // A roll that holds four copies and no more, whatever else is out of reach.
    const [copy] = [
      await jobOf(svg(200, 80, '<path fill="#16181a" d="M0 0h200v80H0z"/>'), 9, null, {
        preparation: { border: 'box', labels: false },
      }),
    ];
    const roll = {
      ...BENCH_SHOP.pieces.find(({ kind, filmId }) => kind === 'roll' && filmId === 'tar')!,
      widthMm: 240,
      lengthMm: 4 * 88 + 3 * 4 + Math.max(5, leaderMm) + Math.max(5, tailMm),
    };
    const shop = { ...BENCH_SHOP, cutter: { ...BENCH_SHOP.cutter, leaderMm, tailMm }, pieces: [roll] };
    const { sheets, unplaced } = await layJobs([copy!], shop, { ...NEW_LAY_WISH, spacingMm: 4, zones: false });
    const boxes = sheets.flatMap(({ groups }) =>
      groups.map(({ contours, borders }) => boundsOf([...contours, ...borders])!),
    );
    expect([boxes.length, unplaced[0]!.quantity]).toEqual([4, 5]);
    expect(Math.min(...boxes.map(({ minY }) => minY))).toBeCloseTo(Math.max(5, leaderMm), 6);
    expect(Math.max(...boxes.map(({ maxY }) => maxY))).toBeLessThanOrEqual(roll.lengthMm - tailMm + 1e-6);
    // What is cut off is as long as what is laid, with the leader, and no longer: the tail stays with the roll.
    expect(sheets[0]!.usedLengthMm).toBeCloseTo(Math.max(5, leaderMm) + 4 * 88 + 3 * 4 + 5, 6);
  });
});

describe('borders that neighbours share', () => {
  const boxed = { preparation: { border: 'box', labels: false } } as const;
  const boxesOf = ({ groups }: SheetPlan) =>
    groups.map(({ borders }) => boundsOf(borders.filter((ring) => areaOf([ring]) > 1))!);

  it.each([1, 2, 3])(
    'lie edge to edge: no line is cut twice, none is left out, and no more film is taken, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const drawings = Array.from(
        { length: 2 + seed },
        () => [20 + Math.round(60 * random()), 15 + Math.round(40 * random()), 2 + Math.floor(4 * random())] as const,
      );
      const all = await Promise.all(
        drawings.map(([w, h, copies]) =>
          jobOf(svg(w, h, `<path fill="#16181a" d="M0 0h${w}v${h}H0z"/>`), copies, null, boxed),
        ),
      );
      const [own, shared] = [
        await plan({ spares: { single: 0, layered: 0 } }, all),
        await plan({ spares: { single: 0, layered: 0 }, sharesBorders: true }, all),
      ];
      const sum = (out: LaidSheets, of: (sheet: SheetPlan) => number) =>
        out.sheets.reduce((total, sheet) => total + of(sheet), 0);
      expect([copiesOf(shared), shared.unshared]).toEqual([copiesOf(own), []]);
      expect(sum(shared, ({ value }) => value)).toBeLessThanOrEqual(sum(own, ({ value }) => value) + 1e-9);
      let touching = 0;
      for (const sheet of shared.sheets) {
        const boxes = boxesOf(sheet);
        boxes.forEach((a, i) =>
          boxes.slice(i + 1).forEach((b) => {
            const [across, along] = [
              Math.min(a.maxX, b.maxX) - Math.max(a.minX, b.minX),
              Math.min(a.maxY, b.maxY) - Math.max(a.minY, b.minY),
            ];
            expect(across <= 1e-4 || along <= 1e-4).toBe(true);
            if (Math.min(Math.abs(across), Math.abs(along)) < 1e-4 && Math.max(across, along) > 1) touching += 1;
          }),
        );
        const { paths } = programOf(sheet, BENCH_SHOP.cutter);
        const stretches = paths.flatMap(({ points, closed }) =>
          Array.from(
            { length: points.length / 2 - (closed ? 0 : 1) },
            (_, i) =>
              [
                points[2 * i]!,
                points[2 * i + 1]!,
                points[(2 * i + 2) % points.length]!,
                points[(2 * i + 3) % points.length]!,
              ] as const,
          ),
        );
        for (const [x0, y0, x1, y1] of stretches) {
          // A place on it, not its middle, where another may end: it is cut by nothing else.
          expect(
            stretches.filter(
              (one) =>
                Math.hypot(x1 - x0, y1 - y0) > 0.2 &&
                Math.sqrt(squareToEdge(x0 + 0.4137 * (x1 - x0), y0 + 0.4137 * (y1 - y0), ...one)) < 0.01,
            ),
          ).toHaveLength(Math.hypot(x1 - x0, y1 - y0) > 0.2 ? 1 : 0);
        }
        for (const { minX, minY, maxX, maxY } of boxes) {
          for (let t = 0.02; t < 1; t += 0.04) {
            for (const [x, y] of [
              [minX + t * (maxX - minX), minY],
              [minX + t * (maxX - minX), maxY],
              [minX, minY + t * (maxY - minY)],
              [maxX, minY + t * (maxY - minY)],
            ] as const) {
              expect(stretches.some((one) => squareToEdge(x, y, ...one) < 0.03 ** 2)).toBe(true);
            }
          }
        }
      }
      expect(touching).toBeGreaterThan(0);
    },
  );

  const bay = (w: number, h: number, t: number) =>
    `<path fill="#16181a" d="M0 0h${w}v${t}H${t}v${h - t}h-${t}z"/><circle fill="#16181a" cx="${w * 0.7}" cy="${h * 0.7}" r="${t * 0.6}"/>`;
  const isLine = (ring: Rings[number]) => areaOf([ring]) < 1;
  /** By its own means: whether a border goes round something, with so much between them. */
  const goesRound = (border: Rings[number], ring: Rings[number], clearMm: number) =>
    containsPoint([border], ring[0]!, ring[1]!) && gapToEdges(ring, border) > clearMm;

  it.each([1, 2, 3, 4])(
    'run into one another where they are no boxes: what stays keeps as clear as ever, one line goes round what runs together and is cut last, and no more film is taken, seed %i',
    async (seed) => {
      const random = seeded(seed + 40);
      const all = await Promise.all(
        Array.from({ length: 3 }, () => {
          const [w, h] = [50 + Math.round(90 * random()), 40 + Math.round(60 * random())];
          return jobOf(svg(w, h, bay(w, h, 8 + Math.round(8 * random()))), 1 + Math.floor(4 * random()), null, {
            preparation: {
              border: random() < 0.5 ? 'contour' : 'groups',
              relief: { ...emptyRecipe('').preparation.relief, bulkMm: 40 },
            },
          });
        }),
      );
      const spared = { spares: { single: 0, layered: 0 } };
      const [own, shared] = [await plan(spared, all), await plan({ ...spared, sharesBorders: true }, all)];
      const value = ({ sheets }: LaidSheets) => sheets.reduce((sum, one) => sum + one.value, 0);
      expect([copiesOf(shared), shared.unshared]).toEqual([copiesOf(own), []]);
      expect(value(shared)).toBeLessThanOrEqual(value(own) + 1e-9);
      expect(JSON.stringify(await plan({ ...spared, sharesBorders: true }, all))).toBe(JSON.stringify(shared));
      let merged = 0;
      for (const sheet of shared.sheets) {
        const { groups, edges, pieces } = sheet;
        const clearMm =
          Math.min(...groups.map(({ job, layer }) => all[job]!.prepare.layers[layer]!.borderGapMm)) - 0.02;
        const frees = groups.flatMap(({ borders }) => borders.filter((ring) => !isLine(ring)));
        merged += groups.filter(({ borders }) => borders.every(isLine)).length;
        for (const { minX, minY, maxX, maxY } of frees.map((ring) => boundsOf([ring])!))
          expect(
            minX > edges.sides - 1e-4 &&
              minY > edges.bottom - 1e-4 &&
              maxX < pieces[0]!.widthMm - edges.sides + 1e-4 &&
              maxY < pieces[0]!.lengthMm - edges.top + 1e-4,
          ).toBe(true);
        groups.forEach((one, g) => {
          for (const other of groups.slice(g + 1))
            expect(gapBetween(one.contours, other.contours)).toBeGreaterThan(clearMm);
          // Lines of one stay off what stays of another.
          for (const line of one.borders.filter(isLine))
            for (const other of groups.filter((_, k) => k !== g))
              for (const ring of other.contours) expect(gapToEdges(line, ring)).toBeGreaterThan(0.7);
          for (const ring of one.contours) {
            expect(frees.filter((border) => goesRound(border, ring, clearMm - 0.05))).toHaveLength(1);
            for (const border of frees) expect(gapToEdges(ring, border)).toBeGreaterThan(clearMm - 0.05);
          }
        });
        frees.forEach((a, i) => frees.slice(i + 1).forEach((b) => expect(gapToEdges(a, b)).toBeGreaterThan(0)));
        // Nothing is freed before it is cut.
        const { wholeAt } = programOf(sheet, BENCH_SHOP.cutter);
        const numbered = groups.flatMap(({ contours, borders }) => [
          ...contours.map((ring) => ({ ring, isCut: true })),
          ...borders.map((ring) => ({ ring, isCut: false })),
        ]);
        numbered.forEach(
          (border, b) =>
            !border.isCut &&
            !isLine(border.ring) &&
            numbered.forEach(
              ({ ring, isCut }, c) =>
                isCut &&
                containsPoint([border.ring], ring[0]!, ring[1]!) &&
                expect(wholeAt[c]!).toBeLessThan(wholeAt[b]!),
            ),
        );
      }
      expect(merged).toBeGreaterThan(0);
    },
  );

  it.each([0.02, 0.15, 0.3, 0.5])(
    'have one round what is left when the cut broke off at %f, as clear of it as before',
    async (share) => {
      const all = [
        await jobOf(svg(90, 70, bay(90, 70, 12)), 5, null, { preparation: { border: 'contour' } }),
        await jobOf(svg(60, 50, bay(60, 50, 10)), 3, null, { preparation: { border: 'groups' } }),
      ];
      const out = await plan({ sharesBorders: true, zones: false }, all);
      const sheet = out.sheets.find(({ groups }) => groups.some(({ borders }) => borders.every(isLine)))!;
      const clearMm =
        Math.min(...all.flatMap(({ prepare }) => prepare.layers.map(({ borderGapMm }) => borderGapMm))) - 0.1;
      const frozen = freezeSheet(out, sheet.id, {
        jobs: all,
        stopped: [],
        cutter: BENCH_SHOP.cutter,
        isAlone: false,
      }).sheet;
      const rest = restToFreeze({
        sheet: frozen as unknown as FrozenSheet,
        program: frozen.program,
        pairsDone: Math.floor(frozen.pairsTotal * share),
        settings: frozen.program,
        motion: BENCH_SHOP.cutter,
      });
      let first = 0;
      const rings = rest.groups.flatMap(({ contours, marks, borders }) =>
        rest.program.outlines
          .slice(first, (first += contours + marks + borders))
          .map((ring, i) => ({ ring, isPart: i < contours + marks })),
      );
      const frees = rings.filter(({ ring, isPart }) => !isPart && !isLine(ring));
      const parts = rings.filter(({ isPart }) => isPart);
      expect(parts.length).toBeGreaterThan(0);
      for (const { ring } of parts) {
        expect(frees.filter((border) => goesRound(border.ring, ring, clearMm))).toHaveLength(1);
        for (const border of frees) expect(gapToEdges(ring, border.ring)).toBeGreaterThan(clearMm);
      }
    },
  );

  it('a drag moves its copy, or says that it stays and why', async () => {
    const all = [
      { ...(await jobOf(svg(80, 60, '<path fill="#16181a" d="M0 0h80v60H0z"/>'), 1, null, boxed)), copies: 9 },
    ];
    const out = await layJobs(all, BENCH_SHOP, NEW_LAY_WISH);
    const [sheet] = out.sheets;
    const random = seeded(11);
    const [moved, stayed]: string[][] = [[], []];
    for (let i = 0; i < 60; i += 1) {
      const group = Math.floor(random() * sheet!.groups.length);
      const { place } = sheet!.groups[group]!;
      const [dxMm, dyMm] = [(random() - 0.5) * 90, (random() - 0.5) * 90];
      try {
        const pin = placeByHand(
          out,
          { shop: BENCH_SHOP, wish: NEW_LAY_WISH },
          { sheetId: sheet!.id, group, dxMm, dyMm, turn: 0 },
        );
        expect(Math.hypot(pin.xMm - place.xMm, pin.yMm - place.yMm)).toBeGreaterThan(0.05);
        moved!.push(pin.pieceKey);
      } catch (error) {
        if (!(error instanceof InputError)) throw error;
        expect(error.code).toBe('no-place-nearer');
        stayed!.push(error.message);
      }
    }
    expect([moved!.length > 0, stayed!.every((said) => said.includes('in the way'))]).toEqual([true, true]);
    expect(stayed!.length).toBeGreaterThan(0);
  });

  it('hold what was laid by hand, before and after they are shared', async () => {
    const all = [await jobOf(svg(90, 70, bay(90, 70, 12)), 3, null, { preparation: { border: 'contour' } })];
    let wish: LayWish = { ...NEW_LAY_WISH, spacingMm: 4, sharesBorders: true };
    const random = seeded(9);
    for (let i = 0; i < 4; i += 1) {
      const out = await layJobs(all, BENCH_SHOP, wish);
      const pin = placeByHand(
        out,
        { shop: BENCH_SHOP, wish },
        {
          sheetId: out.sheets[0]!.id,
          group: Math.floor(random() * out.sheets[0]!.groups.length),
          dxMm: 60 * random(),
          dyMm: 60 * random(),
          turn: 0,
        },
      );
      wish = { ...wish, pins: withPin(wish.pins, pin) };
      const after = await layJobs(all, BENCH_SHOP, wish);
      expect([after.loose, after.unplaced]).toEqual([[], []]);
      expect(
        after.sheets
          .flatMap(({ groups }) => groups)
          .find(({ fingerprint, copy }) => fingerprint === pin.fingerprint && copy === pin.copy),
      ).toMatchObject({ isPinned: true, place: { xMm: expect.closeTo(pin.xMm, 6), yMm: expect.closeTo(pin.yMm, 6) } });
      for (const { groups } of after.sheets)
        groups.forEach((one, g) =>
          groups
            .slice(g + 1)
            .forEach((other) =>
              expect(gapBetween(one.contours, other.contours)).toBeGreaterThan(
                all[0]!.prepare.layers[0]!.borderGapMm - 0.02,
              ),
            ),
        );
    }
    // Apart again, all that kept far enough from the others stays.
    const [far] = wish.pins;
    expect((await layJobs(all, BENCH_SHOP, { ...wish, sharesBorders: false, pins: [far!] })).loose).toEqual([]);
  });

  it('need borders: where a layer has none, or one that is too tight, its film is laid as ever, and that is told', async () => {
    for (const preparation of [{ border: 'none' }, { border: 'contour', borderGapMm: 1 }] as const) {
      const all = [await jobOf(BADGE, 3, null, boxed), await jobOf(NAME, 2, null, { preparation })];
      const [own, shared] = [await plan({}, all), await plan({ sharesBorders: true }, all)];
      expect(shared.unshared.map(({ id }) => id)).toEqual(['tar']);
      const tarOf = (out: LaidSheets) =>
        out.sheets.flatMap(({ groups }) => groups.filter(({ filmId }) => filmId === 'tar').map(({ place }) => place));
      expect(tarOf(shared)).toEqual(tarOf(own));
    }
  });
});

describe('what is laid by hand', () => {
  const shopOf = BENCH_SHOP;
  /** Drags some copy until one can be moved. */
  const move = async (wish: LayWish, random: () => number, of = jobs) => {
    const out = await layJobs(of, shopOf, wish);
    for (;;) {
      const sheet = out.sheets[Math.floor(random() * out.sheets.length)]!;
      const group = Math.floor(random() * sheet.groups.length);
      const [dxMm, dyMm] = [random() * 160 - 80, random() * 120 - 60];
      const drag = { sheetId: sheet.id, group, dxMm, dyMm, turn: random() < 0.3 ? 180 : 0 };
      try {
        return { out, sheet, group, pin: placeByHand(out, { shop: shopOf, wish }, drag) };
      } catch (error) {
        if (!(error instanceof InputError) || error.code !== 'no-place-nearer') throw error;
      }
    }
  };

  it.each(sampled([1, 2, 3, 4], 1))(
    'stays where it came to lie, and the rest goes round it with the spacing, seed %i',
    async (seed) => {
      const random = seeded(seed);
      let wish: LayWish = { ...NEW_LAY_WISH, spacingMm: 4, zones: seed % 2 === 0 };
      for (let i = 0; i < 6; i += 1) {
        const { pin } = await move(wish, random);
        wish = { ...wish, pins: withPin(wish.pins, pin) };
        const out = await layJobs(jobs, shopOf, wish);
        expect(out.loose).toEqual([]);
        expect(out.unplaced).toEqual([]);
        for (const sheet of out.sheets) checkSheet(sheet);
        const groups = out.sheets.flatMap((sheet) => sheet.groups);
        for (const { jobId, fingerprint, copy, ...place } of wish.pins) {
          const own = groups.find(
            (one) => jobs[one.job]!.id === jobId && one.fingerprint === fingerprint && one.copy === copy,
          )!;
          expect(own).toMatchObject({
            isPinned: true,
            place: { ...place, xMm: expect.closeTo(place.xMm, 6), yMm: expect.closeTo(place.yMm, 6) },
          });
        }
        expect(groups.filter(({ isPinned }) => isPinned)).toHaveLength(wish.pins.length);
        expect(copiesOf(out)).toEqual(copiesOf(await plan()));
      }
    },
  );

  it('does not hold any more when its layer is another, its piece is gone or the spacing is wider: it is told, and laid anew', async () => {
    const { pin } = await move({ ...NEW_LAY_WISH }, seeded(5));
    const wish = { ...NEW_LAY_WISH, pins: [pin] };
    expect((await layJobs(jobs, shopOf, wish)).loose).toEqual([]);
    for (const wrong of [
      { ...pin, fingerprint: 'another' },
      { ...pin, jobId: 'gone' },
      { ...pin, pieceKey: 'nowhere' },
      { ...pin, xMm: 5000 },
      { ...pin, copy: 77 },
    ]) {
      const out = await layJobs(jobs, shopOf, { ...wish, pins: [wrong] });
      expect(out.loose).toEqual([wrong]);
      expect(copiesOf(out)).toEqual(copiesOf(await plan()));
    }
    // Two that lie on each other: the first stays.
    const like = (await layJobs(jobs, shopOf, wish)).sheets
      .flatMap(({ groups }) => groups)
      .find((one) => one.fingerprint === pin.fingerprint && one.copy !== pin.copy);
    if (like)
      expect((await layJobs(jobs, shopOf, { ...wish, pins: [pin, { ...pin, copy: like.copy }] })).loose).toEqual([
        { ...pin, copy: like.copy },
      ]);
  });

  it('a layer is not turned against the others of its design, and nothing that is not there is moved', async () => {
    const out = await layJobs(jobs, shopOf, NEW_LAY_WISH);
    const [sheet] = out.sheets;
    const at =
      (group: number, turn: number, sheetId = sheet!.id) =>
      () =>
        placeByHand(out, { shop: shopOf, wish: NEW_LAY_WISH }, { sheetId, group, dxMm: 0, dyMm: 0, turn });
    const layered = sheet!.groups.findIndex(({ job }) => jobs[job]!.prepare.layers.length > 1);
    expect(at(layered, 90)).toThrow(/by half only/);
    expect(at(999, 0)).toThrow(/changed/);
    expect(at(0, 0, 'none')).toThrow(/changed/);
  });
});
