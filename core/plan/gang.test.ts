import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { trapWidth, placementErrorMm } from '../engines/layers/index.js';
import {
  areaOf,
  boundsOf,
  grow,
  intersect,
  longestSide,
  regionsOf,
  subtract,
  translateRings,
  unite,
  type Rings,
} from '../geometry/index.js';
import { NEW_LAY_WISH, layJobs } from '../laying/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { restToFreeze, type FrozenSheet } from '../stations/cut/index.js';
import { frozenSheet } from '../testing/frozen-sheet.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import type { Plan } from './plan.js';
import { Planner } from './planner.js';
import { seeds } from '../testing/long-run.js';

/** A sticker in three films: a round ground, a band across it, and two windows in the band. */
const STICKER = (w: number, h: number) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 60 40"><ellipse fill="#1d4e89" cx="30" cy="20" rx="30" ry="20"/><path fill="#f2b632" d="M12 14h36v12h-36z"/><path fill="#dd6b20" d="M16 17h8v6h-8z M36 17h8v6h-8z"/></svg>`;

async function plan(
  patch: RecipePatch = {},
  svg = STICKER(60, 40),
  planner = new Planner(resourcesInNode),
  taken: Readonly<Record<string, number>> = {},
): Promise<Plan> {
  const begun = patchRecipe(emptyRecipe('Sticker'), {
    artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
    surface: { size: { mode: 'own' } },
  });
  return planner.plan({
    recipe: parseRecipe(patchRecipe(begun, patch)),
    shop: BENCH_SHOP,
    taken,
    sources: new Map([['a', new TextEncoder().encode(svg)]]),
  });
}

const gang = (across: number, down: number, rows: 'straight' | 'tight' = 'straight', gapMm = 4) =>
  ({ preparation: { gang: { across, down, rows, gapMm } } }) satisfies RecipePatch;
const codes = ({ findings }: Plan) => findings.map(({ code }) => code);
const difference = (a: Rings, b: Rings) => areaOf(subtract(a, b)) + areaOf(subtract(b, a));

describe('a strip of a gang', () => {
  it.each([
    ['straight', 4, 2],
    ['tight', 4, 2],
    ['tight', 3, 3],
    ['straight', 1, 5],
  ] as const)(
    '%s, %d × %d, holds the same copies at the same places on every film, and one set of marks clear of all of them',
    async (rows, across, down) => {
      const [alone, strip] = await Promise.all([plan(), plan(gang(across, down, rows))]);
      expect(strip.findings.filter(({ severity }) => severity === 'blocker')).toEqual([]);
      const {
        panels: [panel],
        layers,
      } = strip.prepare!;
      expect([strip.prepare!.panels.length, panel!.perStrip, layers.length]).toEqual([1, across * down, 3]);
      // Where the copies lie is read off the lowest layer: its parts, one a copy.
      const single = (filmId: string) => strip.build!.layers.find(({ film }) => film.id === filmId)!.cut;
      const corner = (rings: Rings) => {
        const box = boundsOf(rings)!;
        return [box.minX, box.minY] as const;
      };
      const lowest = layers[0]!.layer;
      const [x0, y0] = corner(single(lowest.film.id));
      const places = regionsOf(lowest.cut).map(({ outer }) => {
        const [x, y] = corner([outer]);
        return [x - x0, y - y0] as const;
      });
      expect(places).toHaveLength(across * down);
      for (const { layer } of layers)
        expect(
          difference(
            layer.cut,
            places.flatMap(([x, y]) => translateRings(single(layer.film.id), x, y)),
          ),
        ).toBeLessThan(0.01);
      // Copies keep their gap from each other.
      const all = unite(layers.flatMap(({ layer }) => layer.cut));
      expect(regionsOf(unite(grow(all, 1.99)))).toHaveLength(across * down);
      // One set of marks: no more than for one copy, clear of all of them.
      const marks = panel!.marks!.marks.map(({ ring }) => ring);
      expect(marks).toHaveLength(alone.prepare!.panels[0]!.marks!.marks.length);
      expect(areaOf(intersect(grow(marks, 2.9), all))).toBe(0);
      // And one border round all copies of a layer and the marks.
      for (const { border, layer } of layers) {
        expect(border).toHaveLength(1);
        expect(areaOf(subtract([...layer.cut, ...marks], border))).toBeLessThan(0.01);
      }
    },
  );

  it('is what is counted, laid and cut: twelve wanted in strips of five are three strips', async () => {
    const made = await plan({ ...gang(5, 1), sheets: { copies: 12 } });
    expect(made.sheets!.toCut.map(({ copies, perStrip }) => [copies, perStrip])).toEqual([
      [3, 5],
      [3, 5],
      [3, 5],
    ]);
    for (const id of new Set(made.sheets!.toCut.map(({ film }) => film.id)))
      expect(
        made
          .sheets!.sheets.flatMap(({ groups }) => groups)
          .filter(({ filmId }) => filmId === id)
          .map(({ copy }) => copy)
          .sort(),
      ).toEqual([0, 1, 2]);
    expect(made.rulings.find(({ id }) => id === 'sheets.gang')).toMatchObject({
      value: '3 strips of 5',
      because: expect.arrayContaining([
        'That makes 3 more than asked for, which make up for what is spoiled.',
      ]) as string[],
    });
    expect(made.assemble!.steps.at(-1)!.title).toBe('Part the strips');
  });

  it('of a batch makes up its spares with what a strip holds more than is wanted', async () => {
    const strips = async (copies: number) => {
      const made = await plan({ ...gang(6, 1), sheets: { copies } });
      const out = await layJobs(
        [{ id: 'a', prepare: made.prepare!, isInside: false, copies, taken: {}, lies: {}, due: null }],
        BENCH_SHOP,
        NEW_LAY_WISH,
      );
      return out.sheets
        .flatMap(({ groups }) => groups)
        .filter(({ filmId }) => filmId === made.prepare!.layers[0]!.layer.film.id).length;
    };
    // 20 and 10 % are 22, which four strips of six hold; 22 and 10 % are 25, which want a fifth.
    expect([await strips(20), await strips(22), await strips(6)]).toEqual([4, 5, 1]);
  });

  it('has a trap for the size in which it is laid, and none that its marks let turn too far', async () => {
    const [alone, strip] = await Promise.all([plan(), plan(gang(4, 2))]);
    const [before, after] = [alone.build!.pairs[0]!.terms, strip.build!.pairs[0]!.terms];
    const box = strip.prepare!.layers.reduce<Rings>((all, { layer }) => [...all, ...layer.cut], []);
    expect(after.placementErrorMm).toBeCloseTo(placementErrorMm(0.25, longestSide(boundsOf(box)!), 'dry'), 2);
    expect(after.placementErrorMm).toBeGreaterThan(before.placementErrorMm);
    expect(strip.build!.trapMm).toBe(Math.max(...strip.build!.pairs.map(({ terms }) => trapWidth(terms).mm)));
    expect(codes(strip)).not.toContain('marks-turn');
    expect(strip.rulings.find(({ id }) => id === 'build.trap')!.because.join(' ')).toMatch(
      /a strip of 25\d mm is laid/,
    );
  });

  it('is weeded as one: plain copies lift as a lattice, with the outline of one; others as they are', async () => {
    const overlay = { build: { school: 'overlay' } } satisfies RecipePatch;
    const [alone, strip] = await Promise.all([plan(overlay), plan({ ...gang(4, 2), ...overlay })]);
    const work = ({ prepare }: Plan, i: number) => prepare!.layers[i]!.work;
    // Under the others the ground is one part without counters; the windows are two parts.
    const plain = 0;
    const other = strip.build!.layers.findIndex(({ pieces }) => pieces === 2);
    expect(work(strip, plain).outlineMm).toBeCloseTo(work(alone, plain).outlineMm, 0);
    expect([work(strip, plain).sheets, work(strip, plain).looseParts]).toEqual([1, 8]);
    expect(work(strip, other).outlineMm).toBeCloseTo(8 * work(alone, other).outlineMm, 0);
    expect(strip.rulings.find(({ id }) => id === 'prepare.minutes')!.sentence).toBe(
      'Weeding one strip of 8 takes about {value}.',
    );
  });

  it('that failed half way is cut again with its marks: what is open of it, where it was', async () => {
    const made = await plan({ ...gang(4, 1), sheets: { copies: 4, zones: false } });
    const {
      id,
      groups: [group],
    } = made.sheets!.sheets.find(({ films: [film] }) => film!.id === made.prepare!.layers[0]!.layer.film.id)!;
    const frozen = frozenSheet(made, id);
    expect(frozen.groups).toMatchObject([
      { perStrip: 4, contours: group!.contours.length - group!.marks, marks: group!.marks },
    ]);
    // Of four grounds, each with a hole for the band, two are whole.
    const wholeAt = [...frozen.program.wholeAt].slice(0, 8).sort((a, b) => a - b);
    const rest = restToFreeze({
      sheet: {
        ...frozen,
        id: 's',
        forceG: 90,
        speedMmS: 200,
        groups: frozen.groups.map((one) => ({ ...one, jobId: 'a', revision: 1, ticked: [] })),
      } as unknown as FrozenSheet,
      program: frozen.program,
      pairsDone: wholeAt[3]!,
      settings: { forceG: 90, speedMmS: 200, bladeOffsetMm: 0.25, overcutMm: 0.5 },
      motion: BENCH_SHOP.cutter,
    });
    expect(rest.groups).toMatchObject([{ perStrip: 4, contours: 4, marks: group!.marks }]);
    const apart = (rings: Rings) => {
      const box = boundsOf(rings)!;
      return [box.maxX - box.minX, box.maxY - box.minY];
    };
    const marksOf = ({
      program,
      groups: [own],
    }: {
      readonly program: { readonly outlines: Rings };
      readonly groups: readonly { readonly contours: number; readonly marks: number }[];
    }) => program.outlines.slice(own!.contours, own!.contours + own!.marks);
    expect(apart(marksOf(rest))).toEqual(apart(marksOf(frozen)).map((v) => expect.closeTo(v, 6) as number));
  });

  it('of several designs is not made, and that is said with what takes it back', async () => {
    const made = await plan({
      ...gang(3, 1),
      surface: { panels: { split: 'never', lapMm: null, widestMm: null, hangs: 'wall', weather: 'right' } },
    });
    expect(codes(made)).not.toContain('gang-idle');
    const long = await plan(gang(3, 1), STICKER(2400, 800));
    expect(long.prepare!.panels.length).toBeGreaterThan(1);
    expect(long.prepare!.panels.every(({ perStrip }) => perStrip === 1)).toBe(true);
    const idle = long.findings.find(({ code }) => code === 'gang-idle')!;
    expect(codes(await plan(idle.remedies![0]!.patch as RecipePatch, STICKER(2400, 800)))).not.toContain('gang-idle');
  });
});

describe('the base of a gang', () => {
  /** A white ground with two dark boxes on it, one of them with an eye in which the ground shows. */
  const on = (ground: string, boxes: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><ellipse fill="${ground}" cx="30" cy="20" rx="30" ry="20"/><path fill="${boxes}" fill-rule="evenodd" d="M10 14h12v12h-12z M34 12h16v16h-16z M39 17h6v6h-6z"/></svg>`;
  const WHITE = on('#f7f5ef', '#1d4e89');
  const found = ({ findings }: Plan) => findings.find(({ code }) => code === 'base-whole-saves');
  /** Holes of the lowest layer of a strip. */
  const countersOf = ({ prepare }: Plan) =>
    regionsOf(prepare!.layers.find(({ layer }) => layer.order === 1)!.layer.cut).reduce(
      (sum, { holes }) => sum + holes.length,
      0,
    );

  it.each([
    [4, 2],
    [3, 1],
  ] as const)('is proposed whole with the counters that it spares, %d × %d', async (across, down) => {
    const cutOut = await plan(gang(across, down), WHITE);
    const proposal = found(cutOut)!;
    const whole = await plan({ ...gang(across, down), ...(proposal.remedies![0]!.patch as RecipePatch) }, WHITE);
    expect(countersOf(cutOut) - countersOf(whole)).toBe(across * down * 2);
    expect(proposal.message).toContain(`${across * down * 2} counters`);
    expect(found(whole)).toBeUndefined();
    const before = new Set(codes(cutOut));
    expect(codes(whole).filter((code) => !before.has(code))).toEqual([]);
  });

  it('is not proposed of single pieces, where it would show through, or where it was decided otherwise', async () => {
    expect(found(await plan({}, WHITE))).toBeUndefined();
    expect(found(await plan({ ...gang(4, 2), build: { school: 'overlay' } }, WHITE))).toBeUndefined();
    const made = await plan(gang(4, 2), WHITE);
    const [base] = made.build!.layers;
    const { film } = base!;
    const decided = { filmPairs: { [film.id]: { school: 'inlay' as const, trapMm: null } } };
    expect(found(await plan({ ...gang(4, 2), build: decided }, WHITE))).toBeUndefined();
    expect(found(await plan(gang(4, 2), on('#1d4e89', '#f2b632')))).toBeUndefined();
  });
});

describe('strips that the app proposes', () => {
  it.each(seeds(4, 10))('fit, are few, and are what was said, seed %i', async (seed) => {
    const random = seeded(seed);
    const [w, h, copies] = [
      20 + Math.floor(random() * 90),
      15 + Math.floor(random() * 70),
      10 + Math.floor(random() * 60),
    ];
    const planner = new Planner(resourcesInNode);
    const alone = await plan({ sheets: { copies } }, STICKER(w, h), planner);
    const found = alone.findings.find(({ code }) => code === 'gang-saves')!;
    const patch = found.remedies![0]!.patch as typeof gang extends (...a: never[]) => infer P ? P : never;
    const { across, down } = patch.preparation.gang;
    const strip = await plan({ ...patch, sheets: { copies } }, STICKER(w, h), planner);
    expect(strip.findings.filter(({ code, severity }) => severity === 'blocker' || code === 'gang-saves')).toEqual([]);
    expect(longestSide(boundsOf(strip.prepare!.layers.flatMap(({ layer }) => layer.cut))!)).toBeLessThan(300 + 2);
    expect(found.message).toContain(`In ${Math.ceil(copies / (across * down))} strip`);
    expect(strip.sheets!.toCut.every((layer) => layer.copies === Math.ceil(copies / (across * down)))).toBe(true);
    // No layout of the same limits holds so many more that a strip fewer would do, with spoils.
    const wanted = Math.ceil(copies * 1.1 - 1e-9);
    const [most] = Array.from({ length: 20 }, (_, i) => i + 1)
      .flatMap((a) =>
        Array.from({ length: 20 }, (_, i) => i + 1)
          .filter((d) => a * w + (a - 1) * 5 <= 280 && d * h + (d - 1) * 5 <= 280 && a * d <= wanted)
          .map((d) => a * d),
      )
      .sort((a, b) => b - a);
    expect(Math.ceil(wanted / (across * down))).toBeLessThanOrEqual(Math.ceil(wanted / most!));
  });

  it('are not proposed for few copies, one film, or what is cut in part already', async () => {
    expect(codes(await plan({ sheets: { copies: 9 } }))).not.toContain('gang-saves');
    expect(codes(await plan({ sheets: { copies: 40 } }))).toContain('gang-saves');
    expect(
      codes(
        await plan(
          { sheets: { copies: 40 } },
          '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path fill="#1d4e89" d="M0 0h60v40h-60z"/></svg>',
        ),
      ),
    ).not.toContain('gang-saves');
    const planner = new Planner(resourcesInNode);
    const made = await plan({ sheets: { copies: 40 } }, STICKER(60, 40), planner);
    const again = await plan({ sheets: { copies: 40 } }, STICKER(60, 40), planner, {
      [made.sheets!.toCut[0]!.fingerprint]: 3,
    });
    expect(codes(again)).not.toContain('gang-saves');
  });
});
