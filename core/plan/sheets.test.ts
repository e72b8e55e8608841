import { describe, expect, it } from 'vitest';
import { frozenSheet } from '../testing/frozen-sheet.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { UNITS_PER_MM } from '../engines/cutting/index.js';
import { areaOf, boundsOf, containsPoint, fingerprintOf, holdsBox, intersect, grow } from '../geometry/index.js';
import { seeded } from '../testing/seeded.js';
import { drawingPart } from '../stations/artwork/index.js';
import { emptyRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import type { FilmPiece, Shop } from '../shop/index.js';
import { Planner } from './planner.js';
import { cutSoFar, restToFreeze, type FrozenSheet } from '../stations/cut/index.js';
import type { Plan } from './plan.js';
import { NEW_LAY_WISH, type TakenCopies, type TakenDirections, layJobs } from '../laying/index.js';

const SVG = (w: number, h: number) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}"><rect width="${w}" height="${h}" fill="#16181a"/><circle cx="${w / 2}" cy="${h / 2}" r="${Math.min(w, h) / 3}" fill="#f7f5ef"/></svg>`;
const planner = new Planner(resourcesInNode);
const plan = (
  svg: string,
  patch: RecipePatch,
  shop: Shop,
  taken: TakenCopies = {},
  lies: TakenDirections = {},
): Promise<Plan> =>
  planner.plan({
    recipe: patchRecipe(
      patchRecipe(emptyRecipe('Test'), {
        artworks: [
          drawingPart({
            id: svg,
            fileName: 'a.svg',
            sha256: fingerprintOf([Float64Array.from(svg, (c) => c.charCodeAt(0))]).repeat(2),
          }),
        ],
        surface: { size: { mode: 'own' } },
        sheets: { zones: false },
      }),
      patch,
    ),
    shop,
    sources: new Map([[svg, new TextEncoder().encode(svg)]]),
    taken,
    lies,
  });
const piece = (
  kind: FilmPiece['kind'],
  widthMm: number,
  lengthMm: number,
  more: Partial<FilmPiece> = {},
): FilmPiece => ({
  id: `${kind}-${widthMm}-${lengthMm}`,
  filmId: 'tar',
  kind,
  number: null,
  widthMm,
  lengthMm,
  quantity: 1,
  edgeMm: 5,
  ...more,
});
/** The demo shop with these pieces of black and no others. */
const shopWith = (pieces: readonly FilmPiece[], more: Partial<Shop> = {}): Shop => ({
  ...BENCH_SHOP,
  pieces: [...BENCH_SHOP.pieces.filter((one) => one.filmId !== 'tar'), ...pieces],
  ...more,
});
/** Strips for a run of copies are another matter (gang.test.ts). */
const said = ({ findings }: Plan) =>
  findings
    .filter(({ stage, code }) => stage === 'sheets' && code !== 'gang-saves')
    .map(({ code, severity }) => `${code}: ${severity}`);

describe('what is cut on a piece', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'keeps clear of its edges, and the holder never leaves it, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const edgeMm = random() * 8;
      const [w, h] = [20 + random() * 60, 20 + random() * 60];
      const pieces = [
        piece('offcut', 120 + random() * 160, 120 + random() * 160, { edgeMm }),
        piece('roll', 300 + random() * 300, 2000, { edgeMm }),
      ];
      const made = await plan(
        SVG(w, h),
        { sheets: { copies: 1 + Math.floor(random() * 6) } },
        shopWith(pieces, { cutter: { ...BENCH_SHOP.cutter, bladeOffsetMm: random() * 0.9 } }),
      );
      const black = made.sheets!.sheets.filter(({ films }) => films[0]!.id === 'tar');
      expect(black.length).toBeGreaterThan(0);
      for (const sheet of black) {
        const piece = sheet.pieces[0]!;
        const program = made.cut!.programs[made.sheets!.sheets.indexOf(sheet)]!;
        expect(program.shiftMm).toEqual({ x: 0, y: 0 });
        const box = boundsOf(sheet.groups.flatMap((group) => [...group.contours, ...group.borders]))!;
        expect(
          Math.min(box.minX, box.minY, piece.widthMm - box.maxX, piece.lengthMm - box.maxY),
        ).toBeGreaterThanOrEqual(edgeMm - 1e-6);
        for (const run of program.runs) {
          for (let i = 0; i < run.length; i += 2) {
            const [x, y] = [run[i]! / UNITS_PER_MM, run[i + 1]! / UNITS_PER_MM];
            expect(x >= 0 && y >= 0 && x <= piece.widthMm && y <= piece.lengthMm).toBe(true);
          }
        }
        // The knife is turned in the waste: nowhere in or across what is cut.
        const turn = program.runs[0]!;
        for (let i = 0; i < turn.length; i += 2)
          expect(
            sheet.groups.some((group) =>
              containsPoint(group.borders, turn[i]! / UNITS_PER_MM, turn[i + 1]! / UNITS_PER_MM),
            ),
          ).toBe(false);
      }
    },
  );

  it('goes through the cutter on a roll alone or on a mat, and on no roll that is too wide', async () => {
    const made = await plan(SVG(60, 40), {}, shopWith([piece('roll', 700, 5000), piece('roll', 590, 5000)]));
    expect(said(made)).toEqual(['piece-too-wide: note']);
    expect(made.sheets!.sheets.find(({ films }) => films[0]!.id === 'tar')).toMatchObject({
      pieces: [{ id: 'roll-590-5000' }],
      mat: null,
    });
    const onMat = await plan(SVG(60, 40), {}, shopWith([piece('offcut', 280, 400)]));
    expect(onMat.sheets!.sheets.find(({ films }) => films[0]!.id === 'tar')).toMatchObject({
      mat: { id: 'mat-long' },
      zones: null,
    });
    // No mat at all that the cutter takes, and nothing is offered that would not help.
    const without = await plan(SVG(60, 40), {}, shopWith([piece('sheet', 280, 400)], { mats: [] }));
    expect(said(without)).toContain('piece-without-mat: note');
  });

  it.each(Array.from({ length: 24 }, (_, seed) => seed))(
    'is cut off a piece that no mat holds, and what is left of it goes back, seed %i',
    async (seed) => {
      const random = seeded(seed + 300);
      const [widthMm, lengthMm] = [120 + random() * 700, 120 + random() * 900];
      const [w, h] = [40 + random() * 80, 40 + random() * 80];
      const large = piece(random() < 0.5 ? 'sheet' : 'offcut', widthMm, lengthMm, { edgeMm: random() * 8 });
      const made = await plan(
        SVG(w, h),
        { sheets: { copies: 1 + Math.floor(random() * 3), zones: random() < 0.5 } },
        shopWith([large]),
      );
      const fields = BENCH_SHOP.mats
        .filter((mat) => mat.widthMm <= BENCH_SHOP.cutter.widthMm)
        .map((mat) => [mat.widthMm - 2 * mat.edgeMm, mat.lengthMm - 2 * mat.edgeMm] as const);
      const isHeld = fields.some(([across, along]) => widthMm <= across && lengthMm <= along);
      const black = made.sheets!.sheets.filter(({ films }) => films.some(({ id }) => id === 'tar'));
      expect(black.length).toBeGreaterThan(0);
      expect(said(made)).not.toContain('piece-without-mat: note');
      for (const { zones, mat, groups, leftovers } of black) {
        const zone = zones?.find(({ film }) => film.id === 'tar');
        if (isHeld && !zone) continue;
        expect(zone).toBeDefined();
        const { minX, minY, maxX, maxY } = boundsOf(
          groups.filter(({ filmId }) => filmId === 'tar').flatMap(({ contours, borders }) => [...contours, ...borders]),
        )!;
        // What is cut lies on the piece, the piece in the mat's field, and it is of whole millimetres.
        expect(
          Math.min(
            minX - zone!.xMm,
            minY - zone!.yMm,
            zone!.xMm + zone!.widthMm - maxX,
            zone!.yMm + zone!.lengthMm - maxY,
          ),
        ).toBeGreaterThanOrEqual(large.edgeMm - 1e-6);
        expect(
          Math.min(
            zone!.xMm - mat!.edgeMm,
            zone!.yMm - mat!.edgeMm,
            mat!.widthMm - mat!.edgeMm - zone!.xMm - zone!.widthMm,
            mat!.lengthMm - mat!.edgeMm - zone!.yMm - zone!.lengthMm,
          ),
        ).toBeGreaterThanOrEqual(-1e-6);
        // Nothing of what goes back was cut off.
        for (const left of leftovers.filter((one) => one.piece.id === large.id))
          expect(left.xMm >= zone!.widthMm - 1e-6 || left.yMm >= zone!.lengthMm - 1e-6).toBe(true);
        const why = made.rulings.find(({ id }) => id === 'sheets.tar')!.because.join(' ');
        // It is said where no mat holds the piece, and not where the mat that it shares is a small one.
        if (isHeld) expect(why).not.toContain('No mat holds');
        else expect(why).toMatch(/No mat holds .* are cut off the /);
      }
    },
  );
});

describe('the layers of one design', () => {
  /** By how much a sheet's copies are turned, modulo a half turn: their matrices tell. */
  const turnsIn = ({ sheets }: Plan) =>
    new Set(sheets!.sheets.flatMap(({ groups }) => groups.map(({ matrix: [a] }) => (Math.abs(a) > 0.5 ? 0 : 90))));

  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'lie in one direction on all films, whatever is in stock, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const [w, h] = [30 + random() * 110, 20 + random() * 60];
      const pieces = Array.from({ length: 1 + Math.floor(random() * 3) }, (_, i) =>
        piece('offcut', 90 + random() * 190, 90 + random() * 190, { id: `p${i}` }),
      );
      const made = await plan(SVG(w, h), { sheets: { copies: 1 + Math.floor(random() * 5) } }, shopWith(pieces));
      expect(turnsIn(made).size).toBeLessThanOrEqual(1);
    },
  );

  it('are all turned a quarter where one fits no other way; where films force them apart, each is turned as it fits at one press', async () => {
    const whole = {
      surface: { size: { mode: 'own' }, panels: { ...emptyRecipe('').surface.panels, split: 'never' } },
    } satisfies RecipePatch;
    const upright = [piece('offcut', 110, 260)];
    const turned = await plan(SVG(180, 60), whole, shopWith(upright));
    expect([said(turned), turnsIn(turned)]).toEqual([[], new Set([90])]);
    // The other film is there only across.
    const across: Shop = {
      ...shopWith(upright),
      pieces: [
        ...BENCH_SHOP.pieces.filter(({ filmId }) => filmId !== 'tar' && filmId !== 'chalk'),
        ...upright,
        piece('offcut', 260, 110, { filmId: 'chalk', id: 'other' }),
      ],
    };
    const stuck = await plan(SVG(180, 60), whole, across);
    expect(said(stuck)).toEqual(['film-too-small: blocker']);
    const finding = stuck.findings.find(({ code }) => code === 'film-too-small')!;
    expect(finding.message).toContain('while all layers lie in one direction');
    const freed = await plan(SVG(180, 60), { ...whole, ...(finding.remedies![0]!.patch as RecipePatch) }, across);
    expect([said(freed), turnsIn(freed).size]).toEqual([[], 2]);
    expect(freed.rulings.find(({ id }) => id === 'sheets.direction')).toMatchObject({
      overridden: true,
      sentence: 'Each layer is turned {value}.',
    });
  });

  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'lie as those that are cut already, whatever has become of the stock since, seed %i',
    async (seed) => {
      const random = seeded(seed + 50);
      const [w, h] = [60 + random() * 60, 30 + random() * 30];
      const rack = () => [
        ...Array.from({ length: 2 }, (_, i) =>
          piece('offcut', 100 + random() * 150, 100 + random() * 150, { id: `t${i}` }),
        ),
        ...Array.from({ length: 2 }, (_, i) =>
          piece('offcut', 100 + random() * 150, 100 + random() * 150, { id: `c${i}`, filmId: 'chalk' }),
        ),
      ];
      const only = (pieces: readonly FilmPiece[]): Shop => ({ ...BENCH_SHOP, pieces });
      const whole = {
        surface: { size: { mode: 'own' }, panels: { ...emptyRecipe('').surface.panels, split: 'never' } },
      } satisfies RecipePatch;
      const made = await plan(SVG(w, h), whole, only(rack()));
      const [first] = made.sheets!.sheets;
      if (!first) return;
      const cut = [
        {
          ...frozenSheet(made, first.id),
          id: 's',
          restOf: null,
          decided: null,
          runs: [{ state: 'finished', outcome: 'good', pairsDone: 9 }],
        },
      ].map((sheet) => ({
        ...sheet,
        groups: sheet.groups.map((group) => ({ ...group, jobId: 'j' })),
      })) as unknown as FrozenSheet[];
      const { taken, lies } = cutSoFar(cut, 'j');
      expect(Object.keys(lies)).toEqual(Object.keys(taken));
      const before = [...turnsIn({ ...made, sheets: { ...made.sheets!, sheets: [first] } })][0]!;
      for (let again = 0; again < 3; again += 1) {
        const later = await plan(SVG(w, h), whole, only(rack()), taken, lies);
        for (const turn of turnsIn(later)) expect(turn).toBe(before);
      }
      // Unless each is turned as it fits.
      const free = await plan(SVG(w, h), { ...whole, sheets: { oneDirection: false } }, only(rack()), taken, lies);
      expect(free.sheets!.toCut.some((layer) => layer.taken === 1)).toBe(true);
    },
  );

  it('of one film, and films with a direction, are no matter of it', async () => {
    const one = await plan(
      '<svg xmlns="http://www.w3.org/2000/svg" width="180mm" height="60mm" viewBox="0 0 180 60"><path fill="#16181a" d="M0 0h180v60H0z"/></svg>',
      {},
      shopWith([piece('offcut', 110, 260)]),
    );
    expect(one.rulings.some(({ id }) => id === 'sheets.direction')).toBe(false);
    expect(turnsIn(one)).toEqual(new Set([90]));
  });
});

describe('a job by itself', () => {
  it.each(Array.from({ length: 10 }, (_, seed) => seed))(
    'is laid exactly as a batch of it alone, seed %i',
    async (seed) => {
      const random = seeded(seed + 300);
      const zones = random() < 0.7;
      const copies = 1 + Math.floor(random() * 6);
      const shop = shopWith([
        ...Array.from({ length: Math.floor(random() * 4) }, (_, i) =>
          piece('offcut', 60 + random() * 230, 60 + random() * 230, { id: `p${i}` }),
        ),
        piece('roll', 590, 6000),
      ]);
      const made = await plan(SVG(30 + random() * 120, 30 + random() * 120), { sheets: { copies, zones } }, shop);
      const alone = await layJobs(
        [{ id: '', prepare: made.prepare!, isInside: false, copies, taken: {}, lies: {}, due: null }],
        shop,
        { ...NEW_LAY_WISH, zones, spares: { single: 0, layered: 0 } },
      );
      expect(made.sheets!.sheets).toEqual(alone.sheets);
    },
  );
});

describe('large counters', () => {
  it('hold small decals of one drawing, as a ruling that can be overruled', async () => {
    const drawing =
      '<svg xmlns="http://www.w3.org/2000/svg" width="180mm" height="120mm" viewBox="0 0 180 120"><path fill="#16181a" fill-rule="evenodd" d="M0 0h120v120H0z M8 8v104h104V8z"/><path fill="#16181a" d="M140 0h40v40z"/></svg>';
    const shop = shopWith([piece('roll', 140, 6000, { filmId: 'tar' })]);
    const apart = { surface: { panels: { ...emptyRecipe('').surface.panels, split: 'parts' } } } as const;
    const [used, empty] = [
      await plan(drawing, apart, shop),
      await plan(drawing, { ...apart, sheets: { inCounters: false } }, shop),
    ];
    const lying = ({ sheets }: Plan) =>
      sheets!.sheets.flatMap(({ groups }) => groups.filter(({ liesInCounter }) => liesInCounter)).length;
    const ruling = ({ rulings }: Plan) => rulings.find(({ id }) => id === 'sheets.counters');
    expect([lying(used), lying(empty)]).toEqual([1, 0]);
    expect(ruling(used)).toMatchObject({
      value: '1 layer lies',
      overridden: false,
      alternatives: [{ patch: { sheets: { inCounters: false } } }],
    });
    expect(ruling(empty)).toMatchObject({
      value: 'empty',
      overridden: true,
      alternatives: [{ patch: { sheets: { inCounters: true } } }],
    });
    expect(sum(empty)).toBeGreaterThan(sum(used));
    // Where there is no such place, nothing is said.
    expect(ruling(await plan(SVG(30, 20), { sheets: { inCounters: false } }, BENCH_SHOP))).toBeUndefined();
  });
  const sum = ({ sheets }: Plan) => sheets!.sheets.reduce((total, { usedMm2 }) => total + usedMm2, 0);
});

describe('films that share a mat', () => {
  const together = { sheets: { zones: true } } satisfies RecipePatch;

  it.each(Array.from({ length: 8 }, (_, seed) => seed))(
    'lie on blanks of their own, each copy within its blank, in no more passes than one by one, seed %i',
    async (seed) => {
      const random = seeded(seed + 20);
      const [w, h] = [15 + random() * 40, 15 + random() * 40];
      const copies = 1 + Math.floor(random() * 4);
      const [zoned, apart] = await Promise.all([
        plan(SVG(w, h), { sheets: { ...together.sheets, copies } }, BENCH_SHOP),
        plan(SVG(w, h), { sheets: { copies } }, BENCH_SHOP),
      ]);
      const count = ({ sheets }: Plan) => sheets!.sheets.flatMap(({ groups }) => groups).length;
      expect([count(zoned), zoned.sheets!.sheets.length <= apart.sheets!.sheets.length]).toEqual([count(apart), true]);
      for (const { zones, mat, groups } of zoned.sheets!.sheets) {
        if (!zones) continue;
        const boxes = zones.map(({ xMm, yMm, widthMm, lengthMm }) => ({
          minX: xMm,
          minY: yMm,
          maxX: xMm + widthMm,
          maxY: yMm + lengthMm,
        }));
        boxes.forEach((box, i) => {
          expect(
            holdsBox(
              {
                minX: mat!.edgeMm - 1e-6,
                minY: mat!.edgeMm - 1e-6,
                maxX: mat!.widthMm - mat!.edgeMm + 1e-6,
                maxY: mat!.lengthMm - mat!.edgeMm + 1e-6,
              },
              box,
            ),
          ).toBe(true);
          for (const other of boxes.slice(i + 1))
            expect(
              Math.max(other.minX - box.maxX, box.minX - other.maxX, other.minY - box.maxY, box.minY - other.maxY),
            ).toBeGreaterThan(2.99);
        });
        for (const group of groups) {
          const box = boundsOf([...group.contours, ...group.borders])!;
          expect(zones.some(({ film }, i) => film.id === group.filmId && holdsBox(boxes[i]!, box))).toBe(true);
        }
      }
      const isShared = zoned.sheets!.sheets.some(({ zones }) => zones);
      expect(zoned.rulings.find(({ id }) => id === 'sheets.zones')?.alternatives?.[0]?.patch).toEqual(
        isShared ? { sheets: { zones: false } } : undefined,
      );
    },
  );

  it('have one border round all copies of a blank, which is cut after all that it holds', async () => {
    const made = await plan(
      SVG(30, 20),
      { preparation: { border: 'shared' }, sheets: { zones: true, copies: 4 } },
      BENCH_SHOP,
    );
    const at = made.sheets!.sheets.findIndex(({ zones }) => (zones?.length ?? 0) > 1);
    const { groups, zones } = made.sheets!.sheets[at]!;
    const { wholeAt } = made.cut!.programs[at]!;
    const all = groups.flatMap(({ contours, borders }) => [...contours, ...borders]);
    const frames = all.flatMap((ring, i) =>
      groups.some(({ borders }) => borders.includes(ring)) && areaOf([ring]) > 1 ? [i] : [],
    );
    expect(frames).toHaveLength(zones!.length);
    for (const frame of frames) {
      const held = all.flatMap((ring, i) =>
        i !== frame && holdsBox(boundsOf([all[frame]!])!, boundsOf([ring])!) ? [i] : [],
      );
      expect(held.length).toBeGreaterThan(3);
      for (const i of held) expect(wholeAt[i]!).toBeLessThan(wholeAt[frame]!);
    }
    // Cut in part, what is left of each film has one round it again.
    const frozen = frozenSheet(made, made.sheets!.sheets[at]!.id);
    for (const share of [0.1, 0.3, 0.5, 0.7]) {
      const rest = restToFreeze({
        sheet: frozen as unknown as FrozenSheet,
        program: frozen.program,
        pairsDone: Math.floor(frozen.pairsTotal * share),
        settings: frozen.program,
        motion: BENCH_SHOP.cutter,
      });
      const films = new Set(rest.groups.map(({ filmId }) => filmId));
      let first = 0;
      const rings = rest.groups.flatMap(({ filmId, contours, marks, borders }) => {
        const own = rest.program.outlines.slice(first, (first += contours + marks + borders));
        return own.map((ring, i) => ({
          filmId,
          box: boundsOf([ring])!,
          isPart: i < contours + marks,
          isBorder: i >= contours + marks && areaOf([ring]) > 1,
        }));
      });
      expect(rings.filter(({ isBorder }) => isBorder)).toHaveLength(films.size);
      for (const { filmId, box } of rings.filter(({ isBorder }) => isBorder))
        expect(rings.filter((one) => one.filmId === filmId && one.isPart).every((one) => holdsBox(box, one.box))).toBe(
          true,
        );
    }
  });

  it('are frozen with their blanks and what is left of each piece, and each film counts what is weeded of it', async () => {
    const made = await plan(SVG(40, 30), together, BENCH_SHOP);
    expect(made.sheets!.sheets).toHaveLength(1);
    const sheet = made.sheets!.sheets[0]!;
    const frozen = frozenSheet(made, sheet.id);
    expect([frozen.piece, frozen.zones, frozen.groups.map(({ filmId }) => filmId)]).toEqual([
      null,
      sheet.zones,
      sheet.groups.map(({ filmId }) => filmId),
    ]);
    expect(frozen.leftovers.map(({ pieceId }) => pieceId)).toEqual(sheet.leftovers.map((left) => left.piece.id));
    expect(frozen.keptMm2).toBeCloseTo(
      sheet.groups.reduce((sum, { layer }) => sum + areaOf(made.prepare!.layers[layer]!.layer.cut), 0),
      6,
    );
  });
});

describe('a roll that would be fed far', () => {
  it.each(Array.from({ length: 8 }, (_, seed) => seed))(
    'is cut in sections, each copy once and none across an end, and takes no more than the roll is long, seed %i',
    async (seed) => {
      const random = seeded(seed + 70);
      const [w, h] = [60 + random() * 200, 60 + random() * 200];
      const copies = 20 + Math.floor(random() * 30);
      const [lengthMm, cutter] = [
        2500 + random() * 4000,
        { ...BENCH_SHOP.cutter, leaderMm: random() * 120, tailMm: random() * 80 },
      ];
      const shop: Shop = { ...BENCH_SHOP, cutter, pieces: [piece('roll', 400, lengthMm)] };
      const made = await plan(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}"><path fill="#16181a" d="M0 0h${w}v${h}z"/></svg>`,
        { sheets: { copies } },
        shop,
      );
      const { sheets } = made.sheets!;
      const longest = Math.max(
        ...sheets
          .flatMap(({ groups }) => groups.map((group) => boundsOf([...group.contours, ...group.borders])!))
          .map(({ minX, minY, maxX, maxY }) => Math.min(maxX - minX, maxY - minY)),
      );
      expect(sheets.reduce((sum, { usedLengthMm }) => sum + usedLengthMm, 0)).toBeLessThanOrEqual(
        lengthMm - cutter.tailMm + 10,
      );
      const laid = sheets.flatMap(({ groups }) => groups.map(({ copy }) => copy));
      expect(new Set(laid).size).toBe(laid.length);
      expect(laid.length === copies || made.findings.some(({ code }) => code === 'film-used-up')).toBe(true);
      expect(sheets.map(({ section }) => section)).toEqual(
        sheets.length > 1 ? sheets.map((_, i) => ({ number: i + 1, of: sheets.length })) : [null],
      );
      sheets.forEach(({ usedLengthMm, groups, edges, endMarks, section }, i) => {
        expect(usedLengthMm).toBeLessThanOrEqual(Math.max(1500, longest + 2 * edges.bottom + edges.top + 130) + 1e-6);
        const boxes = groups.map((group) => boundsOf([...group.contours, ...group.borders])!);
        expect(Math.min(...boxes.map(({ minY }) => minY))).toBeGreaterThanOrEqual(edges.bottom - 1e-6);
        expect(Math.max(...boxes.map(({ maxY }) => maxY))).toBeLessThanOrEqual(usedLengthMm + 1e-6);
        // Only the first begins behind the leader.
        if (i > 0) expect(edges.bottom).toBeLessThan(sheets[0]!.edges.bottom + 1e-6);
        expect(endMarks).toHaveLength(section && section.number < section.of ? 2 : 0);
        for (const mark of endMarks) {
          const box = boundsOf([mark])!;
          expect([box.minY, box.maxY]).toEqual([usedLengthMm, usedLengthMm]);
          expect(box.minX >= 5 && box.maxX <= 395 && boxes.every(({ maxY }) => maxY < box.minY)).toBe(true);
          // They are in the program, on top of what is cut of the copies.
          expect(
            made.cut!.programs[i]!.runs.some(
              (run) =>
                run.length >= 4 && run.every((v, k) => k % 2 === 0 || Math.abs(v / UNITS_PER_MM - usedLengthMm) < 0.5),
            ),
          ).toBe(true);
        }
      });
      for (const { groups } of sheets)
        for (const [i, one] of groups.entries())
          for (const other of groups.slice(i + 1))
            expect(areaOf(intersect(grow(one.contours, 2), other.contours))).toBe(0);
    },
  );

  it('is told of where one piece is longer than that, and only then', async () => {
    const long = {
      surface: { size: { mode: 'own' }, panels: { ...emptyRecipe('').surface.panels, split: 'never' } },
    } satisfies RecipePatch;
    const found = await plan(SVG(300, 1900), long, shopWith([piece('roll', 590, 8000)]));
    expect(said(found)).toEqual(['long-feed: warning', 'long-feed: warning']);
    expect(said(await plan(SVG(300, 1300), long, shopWith([piece('roll', 590, 8000)])))).toEqual([]);
    // Its marks and border do not make it longer.
    expect(said(await plan(SVG(300, 1490), long, shopWith([piece('roll', 590, 8000)])))).toEqual([]);
  });

  it.each([
    [1800, 1490],
    [590, 1500],
    [2500, 1250],
    [5000, 2500],
    [400, 4000],
  ])('is no warning about panels that the app laid out itself, %i × %i mm', async (w, h) => {
    const found = await plan(
      SVG(w, h),
      { surface: { size: { mode: 'own' } } },
      shopWith([piece('roll', 590, 30_000, { filmId: 'tar' })]),
    );
    expect(found.prepare!.panels.length).toBeGreaterThan(1);
    expect(said(found).filter((one) => one.startsWith('long-feed'))).not.toContain('long-feed: warning');
  });
});

describe('film that does not suffice', () => {
  it('is used up, not too small, when it holds some of the copies; the remedy makes as many as it holds', async () => {
    const shop = shopWith([piece('offcut', 200, 200)]);
    const made = await plan(SVG(60, 40), { sheets: { copies: 20 } }, shop);
    expect(said(made)).toEqual(['film-used-up: blocker']);
    const [finding] = made.findings.filter((one) => one.code === 'film-used-up');
    const again = await plan(
      SVG(60, 40),
      finding!.remedies!.find(({ label }) => label.startsWith('Make'))!.patch,
      shop,
    );
    expect([said(again), again.sheets!.toCut.find((layer) => layer.film.id === 'tar')!.copies]).toEqual([
      [],
      Number(/ for (\d+) of/.exec(finding!.message)![1]),
    ]);
  });

  it('is missing when there is none', async () => {
    expect(said(await plan(SVG(60, 40), {}, shopWith([])))).toEqual(['film-missing: blocker']);
  });

  it.each([
    ['offers to leave out the border where it then fits', 100, 90, true],
    ['does not offer what would not help', 700, 700, false],
  ])('%s', async (_, w, h, helps) => {
    const shop = shopWith([piece('offcut', 112, 102)]);
    const made = await plan(SVG(w, h), { preparation: { marks: false } }, shop);
    const finding = made.findings.find((one) => one.code === 'film-too-small' && one.message.includes('Tar black'))!;
    expect((finding.remedies ?? []).length > 0).toBe(helps);
    if (helps)
      expect(
        said(
          await plan(SVG(w, h), { preparation: { marks: false, ...finding.remedies![0]!.patch.preparation } }, shop),
        ),
      ).toEqual([]);
  });
});

describe('what is cut already', () => {
  it.each(Array.from({ length: 8 }, (_, seed) => seed))(
    'is left out of the plan, copy by copy, and the rest is all there, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const copies = 1 + Math.floor(random() * 8);
      const patch: RecipePatch = { sheets: { copies } };
      const fresh = await plan(SVG(50, 40), patch, BENCH_SHOP);
      const taken: Record<string, number> = { somethingElse: 3 };
      for (const { fingerprint } of fresh.sheets!.toCut) taken[fingerprint] = Math.floor(random() * (copies + 3));
      const left = await plan(SVG(50, 40), patch, BENCH_SHOP, taken);
      for (const { film, fingerprint } of fresh.sheets!.toCut) {
        const laid = left
          .sheets!.sheets.filter(({ films }) => films[0]!.id === film.id)
          .flatMap((sheet) => sheet.groups.map((group) => group.copy));
        expect(laid.sort((a, b) => a - b)).toEqual(
          Array.from({ length: Math.max(0, copies - taken[fingerprint]!) }, (_, i) => taken[fingerprint]! + i),
        );
      }
    },
  );

  it('is told apart by film, outline, side and marks, and by nothing else', async () => {
    const names = async (patch: RecipePatch, svg = SVG(50, 40), shop = BENCH_SHOP) =>
      (await plan(svg, patch, shop)).sheets!.toCut.map((layer) => layer.fingerprint);
    const base = await names({});
    expect(
      await names({
        title: 'Other',
        sheets: { copies: 4, spacingMm: 9 },
        assembly: { way: 'tape' },
        preparation: { borderGapMm: 9 },
      }),
    ).toEqual(base);
    expect(await names({}, SVG(50, 40), shopWith([piece('roll', 400, 900)]))).toEqual(base);
    for (const patch of [
      { build: { trapMm: 1.1 } },
      { preparation: { markSizeMm: 8 } },
      { films: { byColour: { '#16181a': 'lock-gate' } } },
    ] satisfies RecipePatch[])
      expect(await names(patch)).not.toEqual(base);
    expect(await names({}, SVG(50, 41))).not.toEqual(base);
  });

  it('a sheet is known by what lies on it: it is not found any more when that is another', async () => {
    const made = await plan(SVG(50, 40), { sheets: { copies: 3 } }, BENCH_SHOP);
    const { id } = made.sheets!.sheets[0]!;
    expect(frozenSheet(made, id).groups).toHaveLength(made.sheets!.sheets[0]!.groups.length);
    const other = await plan(SVG(50, 40), { sheets: { copies: 2 } }, BENCH_SHOP);
    expect(() => frozenSheet(other, id)).toThrow(/This sheet has changed/);
  });
});
