import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { areaOf, boundsOf, containsPoint, squareToEdge, type Rings } from '../geometry/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import type { Shop } from '../shop/index.js';
import { AT_ORIGIN, drawingPart, letteringPart, newLettering } from '../stations/artwork/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { viewOf } from './page/make-view.js';
import type { Plan } from './plan.js';
import { Planner } from './planner.js';
import { planReport } from './report.js';

/** Two far-apart shapes on a wide sheet of waste, one colour over another. */
const WIDE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="520mm" height="260mm" viewBox="0 0 520 260"><path fill="#1d4e89" d="M0 0h120v260H0z M430 80h90v100h-90z"/><path fill="#f2b632" d="M20 20h60v60H20z M455 105h40v40h-40z"/></svg>';

async function planOf(
  patch: RecipePatch = {},
  planner = new Planner(resourcesInNode),
  shop: Shop = BENCH_SHOP,
): Promise<Plan> {
  const boxed = patchRecipe(emptyRecipe('Wide'), {
    artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
    surface: { size: { mode: 'own' } },
    preparation: { border: 'box', labels: false },
  });
  const recipe = parseRecipe(patchRecipe(boxed, patch));
  return planner.plan({ recipe, shop, taken: {}, sources: new Map([['a', new TextEncoder().encode(WIDE)]]) });
}

const begun = emptyRecipe('').preparation;
const relief = (to: Partial<Recipe['preparation']['relief']>): RecipePatch => ({
  preparation: { relief: { ...begun.relief, ...to } },
});
const said = ({ rulings }: Plan, id: string) => rulings.find((ruling) => ruling.id === id)!;
const distance = (rings: Rings, x: number, y: number) =>
  Math.sqrt(
    rings
      .flatMap((ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) =>
          squareToEdge(
            x,
            y,
            ring[2 * i]!,
            ring[2 * i + 1]!,
            ring[(2 * i + 2) % ring.length]!,
            ring[(2 * i + 3) % ring.length]!,
          ),
        ),
      )
      .reduce((a, b) => Math.min(a, b), Infinity),
  );

describe('relief lines of a job', () => {
  it('part bulky waste of every layer, and every strip is comfortable', async () => {
    const plan = await planOf();
    for (const { relief: lines, strips } of plan.prepare!.layers) {
      expect(lines.length).toBeGreaterThan(0);
      for (const { bulkMm } of strips) expect(bulkMm).toBeLessThanOrEqual(80.01);
    }
    expect(said(plan, 'prepare.relief').value).toMatch(/^\d+ relief lines$/);
    expect(
      planReport(plan).weeding!.every(
        ({ reliefLines, bulkMm, minutes }) => reliefLines > 0 && bulkMm <= 80.01 && minutes > 0.6,
      ),
    ).toBe(true);
  });

  it('part each film by what it bears, unless the job says how', async () => {
    const usual = await planOf();
    const [film, other] = usual.prepare!.layers.map(({ layer }) => layer.film.id);
    const shop = {
      ...BENCH_SHOP,
      films: BENCH_SHOP.films.map((one) => (one.id === film ? { ...one, stripBulkMm: 50 } : one)),
    };
    const bulkest = (plan: Plan, id: string) =>
      Math.max(...plan.prepare!.layers.find(({ layer }) => layer.film.id === id)!.strips.map(({ bulkMm }) => bulkMm));
    const finer = await planOf({}, new Planner(resourcesInNode), shop);
    expect([bulkest(finer, film!) <= 50.01, bulkest(usual, film!) > 50.01, bulkest(finer, other!)]).toEqual([
      true,
      true,
      bulkest(usual, other!),
    ]);
    expect(said(finer, 'prepare.relief')).toMatchObject({
      overridden: false,
      because: expect.arrayContaining([
        expect.stringContaining('more than 50 or 80 mm fits into it, as each film says'),
      ]) as string[],
    });
    const own = await planOf(relief({ bulkMm: 120 }), new Planner(resourcesInNode), shop);
    expect(Math.max(bulkest(own, film!), bulkest(own, other!))).toBeGreaterThan(80.01);
    expect(said(own, 'prepare.relief')).toMatchObject({
      overridden: true,
      because: expect.arrayContaining([
        expect.stringContaining('120 mm fits into it, as you set it for this job'),
      ]) as string[],
    });
    // And what the app would do is one press away.
    const back = said(own, 'prepare.relief').alternatives!.find(({ label }) => label === 'As the app would part it')!
      .patch as RecipePatch;
    expect(bulkest(await planOf(back, new Planner(resourcesInNode), shop), film!)).toBeLessThanOrEqual(50.01);
  });

  it('are cut once, after the parts, and the border last; the time holds them', async () => {
    const [with_, without] = await Promise.all([planOf(), planOf(relief({ ruled: false }))]);
    for (const [i, sheet] of with_.sheets!.sheets.entries()) {
      const [group] = sheet.groups;
      const lines = with_.prepare!.layers.find(({ layer }) => layer.film.id === sheet.films[0]!.id)!.relief;
      const { paths } = with_.cut!.programs[i]!;
      const kinds = paths.map(({ contour }) =>
        contour! < group!.contours.length ? 'part' : contour === group!.contours.length ? 'border' : 'line',
      );
      expect(kinds.filter((kind) => kind === 'line').length).toBeGreaterThanOrEqual(lines.length);
      expect(kinds.join(' ')).toMatch(/^(part )+(line )+border$/);
    }
    expect(with_.cut!.seconds).toBeGreaterThan(without.cut!.seconds);
    // What lies on a sheet is what it was: a copy that is cut fits either way.
    expect(with_.sheets!.toCut.map(({ fingerprint }) => fingerprint)).toEqual(
      without.sheets!.toCut.map(({ fingerprint }) => fingerprint),
    );
  });

  it('of the maker stay where they were put when the design changes elsewhere, and one that was taken away stays away', async () => {
    const plan = await planOf();
    const film = plan.prepare!.layers[0]!.layer.film.id;
    const [first] = plan.prepare!.layers[0]!.relief;
    const mine = { filmId: film, line: [300, -3, 300, 263] };
    const gone = { filmId: film, xMm: (first![0]! + first![2]!) / 2, yMm: (first![1]! + first![3]!) / 2 };
    const patched = (more: RecipePatch) =>
      planOf({ ...more, preparation: { ...relief({ drawn: [mine], gone: [gone] }).preparation, ...more.preparation } });
    for (const change of [
      {},
      { build: { trapMm: 1.2 } },
      { preparation: { borderGapMm: 6 } },
    ] satisfies RecipePatch[]) {
      const { relief: lines, border } = (await patched(change)).prepare!.layers[0]!;
      expect(
        lines.some(
          (line) =>
            line[0] === 300 &&
            line.at(-2) === 300 &&
            distance(border, 300, line[1]!) < 1e-6 &&
            distance(border, 300, line.at(-1)!) < 1e-6,
        ),
      ).toBe(true);
      for (const line of lines)
        for (let i = 2; i < line.length; i += 2)
          expect(squareToEdge(gone.xMm, gone.yMm, line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!)).toBeGreaterThan(
            3.9,
          );
    }
  });

  it('of a design that is laid in several pieces lie on the one they were drawn on', async () => {
    const letters = (id: string, yMm: number) => ({
      ...letteringPart(id, { ...newLettering('OOO'), capHeightMm: 60, colours: ['#1d4e89'] }),
      place: { ...AT_ORIGIN, yMm },
    });
    const recipe = parseRecipe(
      patchRecipe(emptyRecipe('Two'), {
        artworks: [letters('a', 0), letters('b', 200)],
        preparation: { border: 'box' },
        surface: {
          kind: 'flat',
          flat: { ...emptyRecipe('').surface.flat, widthMm: 700, heightMm: 500 },
          size: { mode: 'own' },
          several: { others: [{ parts: ['b'], widthMm: null }], copies: 1, betweenMm: null },
        },
      }),
    );
    const of = (from: Recipe) =>
      new Planner(resourcesInNode).plan({ recipe: from, shop: BENCH_SHOP, taken: {}, sources: new Map() });
    const [first, second] = (await of(recipe)).prepare!.layers;
    const gap = (first!.panel.box.minX + boundsOf(first!.layer.cut)!.minX) / 2;
    const drawn = [{ filmId: first!.layer.film.id, line: [gap, first!.panel.box.minY, gap, first!.panel.box.maxY] }];
    const after = (await of(parseRecipe(patchRecipe(recipe, relief({ drawn }))))).prepare!.layers;
    expect(after.map(({ relief: lines }) => lines.length)).toEqual([first!.relief.length + 1, second!.relief.length]);
  });

  it('that would run into a part are not cut, and the remedy ends it', async () => {
    const film = (await planOf()).prepare!.layers[0]!.layer.film.id;
    const plan = await planOf(relief({ drawn: [{ filmId: film, line: [60, -3, 300, 263] }] }));
    const finding = plan.findings.find(({ code }) => code === 'relief-into-part')!;
    for (const { layer, relief: lines } of plan.prepare!.layers)
      for (const line of lines)
        expect(containsPoint(layer.cut, (line[0]! + line[2]!) / 2, (line[1]! + line[3]!) / 2)).toBe(false);
    expect((await planOf(finding.remedies![0]!.patch as RecipePatch)).findings.map(({ code }) => code)).not.toContain(
      'relief-into-part',
    );
  });

  it('that end in the open are rounded there', async () => {
    const film = (await planOf()).prepare!.layers[0]!.layer.film.id;
    const { relief: lines } = (
      await planOf(relief({ ruled: false, drawn: [{ filmId: film, line: [300, -3, 300, 120] }] }))
    ).prepare!.layers[0]!;
    expect(lines).toHaveLength(1);
    expect(lines[0]!.length).toBeGreaterThan(12);
    // The round is as wide as a nail, not wider.
    const end = lines[0]!.slice(-14);
    expect(
      Math.max(...end.filter((_, i) => i % 2 === 0)) - Math.min(...end.filter((_, i) => i % 2 === 0)),
    ).toBeLessThan(3);
  });
});

describe('borders and marks of a job', () => {
  it('a box goes round the parts and marks of its own layer', async () => {
    const { layers, panels } = (await planOf({ preparation: { border: 'box', lowestMoreMm: 0 } })).prepare!;
    const marks = panels[0]!.marks!.marks.map(({ ring }) => ring);
    const gapMm = layers[0]!.borderGapMm;
    for (const { layer, border } of layers) {
      const [own, box] = [boundsOf([...layer.cut, ...marks])!, boundsOf(border)!];
      for (const side of ['minX', 'minY'] as const) expect(box[side]).toBeCloseTo(own[side] - gapMm, 6);
      for (const side of ['maxX', 'maxY'] as const) expect(box[side]).toBeCloseTo(own[side] + gapMm, 6);
    }
    expect(new Set(layers.map(({ border }) => areaOf(border).toFixed(3))).size).toBeGreaterThan(1);
  });

  it('pressed layers that no marks hold share one box, so that they can be laid to one corner', async () => {
    const family = 'heatTransfer' as const;
    const shop = { ...BENCH_SHOP, films: BENCH_SHOP.films.map((film) => ({ ...film, family })) };
    const borders = async (marks: boolean) => {
      const { prepare } = await planOf({ preparation: { border: 'ruled', marks } }, undefined, shop);
      expect(prepare!.layers.length).toBeGreaterThan(1);
      return {
        boxes: new Set(prepare!.layers.map(({ border }) => JSON.stringify(boundsOf(border)))),
        why: prepare!.rulings.find(({ id }) => id === 'prepare.border')!.because.join(' '),
      };
    };
    const [without, marked] = [await borders(false), await borders(true)];
    expect(without.boxes.size).toBe(1);
    expect(without.why).toContain('lay them to one corner');
    expect(marked.boxes.size).toBeGreaterThan(1);
    expect(marked.why).not.toContain('corner');
  });

  it.each(['contour', 'groups'] as const)(
    '%s: goes round each layer by itself, clear of all that stays, marks with it',
    async (border) => {
      const [plan, boxed] = await Promise.all([planOf({ preparation: { border } }), planOf()]);
      for (const { layer, border: rings, panel } of plan.prepare!.layers) {
        const marks = panel.marks!.marks.map(({ ring }) => ring);
        for (const ring of [...layer.cut, ...marks])
          for (let i = 0; i < ring.length; i += 2) {
            expect(containsPoint(rings, ring[i]!, ring[i + 1]!)).toBe(true);
            expect(distance(rings, ring[i]!, ring[i + 1]!)).toBeGreaterThan(4.9);
          }
      }
      const film = (of: Plan) => of.prepare!.layers.reduce((sum, one) => sum + areaOf(one.border), 0);
      if (border === 'groups') {
        expect(film(plan)).toBeLessThan(0.8 * film(boxed));
        expect(plan.prepare!.layers.some(({ border: rings }) => rings.length > 1)).toBe(true);
      } else for (const { border: rings } of plan.prepare!.layers) expect(rings).toHaveLength(1);
      expect(plan.sheets!.sheets.length).toBeGreaterThan(0);
      expect(viewOf(plan).prepare!.weed.every((one) => one.border !== '')).toBe(true);
    },
  );

  it.each(['ends', 'edge', 'bar', 'three'] as const)(
    'marks set by “%s” are cut into every layer, inside its border, at the same place',
    async (markPlaces) => {
      const plan = await planOf({ preparation: { markPlaces } });
      const [panel] = plan.prepare!.panels;
      const box = boundsOf(panel!.marks!.marks.map(({ ring }) => ring))!;
      expect(panel!.box.minX <= box.minX && panel!.box.maxX >= box.maxX).toBe(true);
      expect(new Set(plan.sheets!.sheets.map(({ groups }) => groups[0]!.marks))).toEqual(
        new Set([panel!.marks!.marks.length]),
      );
      expect(said(plan, 'prepare.marks').alternatives!.length).toBe(6);
      const turned = plan.findings.find(({ code }) => code === 'marks-turn');
      if (turned)
        for (const { patch } of turned.remedies!)
          expect(
            (
              await planOf({
                ...(patch as RecipePatch),
                preparation: { markPlaces, ...(patch as RecipePatch).preparation },
              })
            ).findings.map(({ code }) => code),
          ).not.toContain('marks-turn');
    },
  );
});

/** Two films that meet on a small plate. */
const PLATE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60"><path fill="#1d4e89" d="M0 0h90v60H0z"/><path fill="#f2b632" d="M20 15h50v30H20z"/></svg>';
async function plateOf(patch: RecipePatch = {}): Promise<Plan> {
  const recipe = parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Plate'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '4'.repeat(64) })],
        surface: { size: { mode: 'own' } },
        build: { school: 'trapped' },
      }),
      patch,
    ),
  );
  return new Planner(resourcesInNode).plan({
    recipe,
    shop: BENCH_SHOP,
    taken: {},
    sources: new Map([['a', new TextEncoder().encode(PLATE)]]),
  });
}
const codes = (plan: Plan) => plan.findings.map(({ code }) => code);

describe('marks that the app rules', () => {
  it('stand where they cost least film as long as the trap covers that, else outside the ends; nothing is warned of', async () => {
    for (const plan of [
      await plateOf(),
      await planOf({ preparation: { markPlaces: 'ruled' } }),
      await plateOf({ build: { trapMm: 0.05 } }),
    ]) {
      expect(codes(plan)).not.toContain('marks-turn');
      expect(said(plan, 'prepare.marks').overridden).toBe(false);
    }
    const [ruled, outside] = [
      await planOf({ preparation: { markPlaces: 'ruled' } }),
      await planOf({ preparation: { markPlaces: 'outside' } }),
    ];
    const film = (plan: Plan) => plan.prepare!.layers.reduce((sum, one) => sum + areaOf(one.border), 0);
    expect(film(ruled)).toBeLessThan(film(outside));
  });

  it('are as large as the thickest film wants, or as the maker does', async () => {
    const sizeOf = async (patch: RecipePatch) => {
      const { marks } = (await plateOf(patch)).prepare!.panels[0]!.marks!;
      const box = boundsOf([marks[0]!.ring])!;
      return box.maxX - box.minX;
    };
    expect(await sizeOf({})).toBeCloseTo(6, 9);
    expect(await sizeOf({ films: { byColour: { '#f2b632': 'brass' } } })).toBeCloseTo(10, 9);
    expect(await sizeOf({ preparation: { markSizeMm: 4, markShape: 'square' } })).toBeCloseTo(4, 9);
  });

  it('are moved on all layers at once; on the work they stop the job, and the remedy ends it', async () => {
    const free = await plateOf({
      preparation: {
        marksAt: [
          { xMm: -20, yMm: 10 },
          { xMm: 110, yMm: 55 },
        ],
      },
    });
    expect(free.prepare!.panels[0]!.marks!.marks.map(({ xMm, yMm }) => [xMm, yMm])).toEqual([
      [-20, 10],
      [110, 55],
    ]);
    expect(new Set(free.sheets!.sheets.map(({ groups }) => groups[0]!.marks))).toEqual(new Set([2]));
    expect(codes(free).filter((code) => code.startsWith('marks-'))).toEqual([]);
    const on = await plateOf({ preparation: { marksAt: [{ xMm: 30, yMm: 30 }] } });
    const finding = on.findings.find(({ code }) => code === 'marks-on-artwork')!;
    expect(finding.severity).toBe('blocker');
    expect(codes(await plateOf(finding.remedies![0]!.patch as RecipePatch))).not.toContain('marks-on-artwork');
    // Near each other they let the layers turn: the trap that is asked for ends it.
    const near = await plateOf({
      preparation: {
        marksAt: [
          { xMm: -8, yMm: 10 },
          { xMm: -8, yMm: 40 },
        ],
      },
    });
    const turned = near.findings.find(({ code }) => code === 'marks-turn')!;
    const wider = await plateOf({
      preparation: {
        marksAt: [
          { xMm: -8, yMm: 10 },
          { xMm: -8, yMm: 40 },
        ],
      },
      ...(turned.remedies![0]!.patch as RecipePatch),
    });
    expect(codes(wider)).not.toContain('marks-turn');
  });
});

describe('what else is cut into the waste', () => {
  it('says job, film and layer on every layer that has room, and comes off with the waste', async () => {
    const [labelled, plain] = [await planOf({ preparation: { labels: true } }), await planOf()];
    expect(labelled.prepare!.layers.every(({ labels }) => labels.length > 20)).toBe(true);
    expect(said(labelled, 'prepare.labels')).toMatchObject({ value: '2 of 2 layers', overridden: false });
    expect(labelled.cut!.seconds).toBeGreaterThan(plain.cut!.seconds);
    // What is on the film is what it was: a copy that is cut fits either way, and no part's outline is touched.
    expect(labelled.sheets!.toCut).toEqual(plain.sheets!.toCut);
    for (const { layer, labels } of labelled.prepare!.layers)
      for (const line of labels)
        for (let i = 0; i < line.length; i += 2) expect(containsPoint(layer.cut, line[i]!, line[i + 1]!)).toBe(false);
    for (const [i, sheet] of labelled.sheets!.sheets.entries()) {
      const [group] = sheet.groups;
      const kinds = labelled.cut!.programs[i]!.paths.map(({ contour }) =>
        contour! < group!.contours.length ? 'part' : contour === group!.contours.length ? 'border' : 'line',
      );
      expect(kinds.join(' ')).toMatch(/^(part )+(line )+border$/);
    }
  });

  it('the lowest layer has more film round it, unless it is not wanted', async () => {
    const widths = async (patch: RecipePatch) =>
      (await plateOf(patch))
        .prepare!.layers.map(({ border }) => boundsOf(border)!)
        .map(({ minX, maxX }) => maxX - minX);
    const [low, high] = await widths({ preparation: { border: 'box' } });
    expect(low! - high!).toBeCloseTo(10, 6);
    const [a, b] = await widths({ preparation: { border: 'box', lowestMoreMm: 0 } });
    expect(a).toBeCloseTo(b!, 9);
  });

  it('a stencil has a wide margin and no relief lines: its cut-outs come out, its islands are told', async () => {
    const ring =
      '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200"><path fill="#7fb7d6" fill-rule="evenodd" d="M10 10h280v180H10z M100 60h100v80H100z"/></svg>';
    const recipe = parseRecipe(
      patchRecipe(emptyRecipe('Mask'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '5'.repeat(64) })],
        surface: { size: { mode: 'own' } },
        films: { byColour: { '#7fb7d6': 'grainy-mask' } },
      }),
    );
    const plan = await new Planner(resourcesInNode).plan({
      recipe,
      shop: BENCH_SHOP,
      taken: {},
      sources: new Map([['a', new TextEncoder().encode(ring)]]),
    });
    const [layer] = plan.prepare!.layers;
    expect(layer!.weed.spots.map(({ kind }) => kind)).toEqual(['cut-out', 'island']);
    expect([layer!.relief, layer!.strips, layer!.labels]).toEqual([[], [], []]);
    expect(boundsOf(layer!.border)!.minX).toBeCloseTo(boundsOf(layer!.layer.cut)!.minX - 40, 6);
    expect(plan.rulings.some(({ id }) => id === 'prepare.relief' || id === 'prepare.labels')).toBe(false);
  });

  it('one box goes round all copies of a sheet: it is cut last, and the copies as before', async () => {
    const [shared, boxed] = await Promise.all(
      (['shared', 'box'] as const).map((border) =>
        plateOf({ preparation: { border }, sheets: { copies: 6, zones: false } }),
      ),
    );
    for (const [i, sheet] of shared!.sheets!.sheets.entries()) {
      const program = shared!.cut!.programs[i]!;
      const frames = sheet.groups.flatMap(({ borders }) => borders.filter((ring) => areaOf([ring]) > 1));
      expect(frames).toHaveLength(1);
      const [frame] = frames.map((ring) => boundsOf([ring])!);
      for (const ring of sheet.groups.flatMap(({ contours }) => contours)) {
        const box = boundsOf([ring])!;
        expect(
          box.minX > frame!.minX + 2 &&
            box.maxX < frame!.maxX - 2 &&
            box.minY > frame!.minY + 2 &&
            box.maxY < frame!.maxY - 2,
        ).toBe(true);
      }
      const last = boundsOf([program.paths.at(-1)!.points])!;
      expect(last.maxX - last.minX).toBeCloseTo(frame!.maxX - frame!.minX, 6);
      expect(Math.max(...program.wholeAt)).toBe(program.wholeAt[sheet.groups[0]!.contours.length]);
    }
    expect(shared!.sheets!.toCut).toEqual(boxed!.sheets!.toCut);
    expect(shared!.cut!.programs.reduce((sum, { cutMm }) => sum + cutMm, 0)).toBeLessThan(
      boxed!.cut!.programs.reduce((sum, { cutMm }) => sum + cutMm, 0),
    );
    viewOf(shared!);
  });
});

describe('what would make weeding shorter', () => {
  it('leaving out dots is offered, and does what it says', async () => {
    const dots = Array.from(
      { length: 16 },
      (_, i) => `<circle fill="#16181a" cx="${10 + i * 7}" cy="60" r="0.9"/>`,
    ).join('');
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="140mm" height="70mm" viewBox="0 0 140 70"><path fill="#16181a" d="M10 10h120v30H10z"/>${dots}</svg>`;
    const of = (patch: RecipePatch = {}) => {
      const recipe = parseRecipe(
        patchRecipe(emptyRecipe('Dots'), {
          artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '1'.repeat(64) })],
          surface: { size: { mode: 'own' } },
          ...patch,
        }),
      );
      return new Planner(resourcesInNode).plan({
        recipe,
        shop: BENCH_SHOP,
        taken: {},
        sources: new Map([['a', new TextEncoder().encode(svg)]]),
      });
    };
    const before = await of();
    const [shorter] = said(before, 'prepare.minutes').alternatives!;
    expect(shorter!.label).toMatch(/^Leave out the 16 dots: 1\.1 min less$/);
    const after = await of(shorter!.patch as RecipePatch);
    const minutes = (plan: Plan) => plan.prepare!.layers.reduce((sum, one) => sum + one.minutes, 0);
    expect(minutes(before) - minutes(after)).toBeGreaterThan(1.05);
    expect(after.prepare!.layers[0]!.weed.pieces).toBe(1);
  });
});
