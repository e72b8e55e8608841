import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf, regionsOf, ringsOf, subtract, unite, type Region } from '../../geometry/index.js';
import { CUT_APART, cutApart, type CutInto } from '../../testing/cut-apart.js';
import { blob, disc, rectangle, seeded } from '../../testing/seeded.js';
import { nest, nestingFaults, type NestItem, type NestRequest, type NestResult } from './index.js';
import { turned } from './shape.js';
import { sampled, seeds } from '../../testing/long-run.js';

const one = (ring: Float64Array): Region[] => regionsOf(unite([ring]));
const item = (
  id: string,
  ring: Float64Array,
  quantity = 1,
  rotations: NestItem['rotations'] = [0, 90, 180, 270],
): NestItem => ({ id, quantity, rotations, group: one(ring) });
const roll = { id: 'roll', widthMm: 300, lengthMm: null, quantity: 1 };

function randomRequest(seed: number): NestRequest {
  const random = seeded(seed);
  const items = Array.from({ length: 5 }, (_, i) =>
    item(
      `item-${i}`,
      blob(random, 0, 0, 15 + 35 * random()),
      1 + Math.floor(random() * 4),
      random() < 0.3 ? 'free' : [0, 90, 180, 270],
    ),
  );
  return {
    sheets: [{ id: 'offcut', widthMm: 120, lengthMm: 160, quantity: 2 }, roll],
    spacingMm: Math.round(random() * 6),
    items,
  };
}

describe('nesting', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'never overlaps, keeps the spacing and the edges, and loses nothing, seed %i',
    async (seed) => {
      const request = randomRequest(seed);
      const { placements, unplaced } = await nest(request, { mayTryMore: () => false });
      expect(nestingFaults(request, placements)).toEqual([]);
      for (const { id, quantity } of request.items) {
        const left = unplaced.find((u) => u.item === id)?.quantity ?? 0;
        expect(placements.filter((p) => p.item === id).map((p) => p.copy)).toEqual(
          Array.from({ length: quantity - left }, (_, copy) => copy),
        );
      }
    },
  );

  it.each([0, 1, 2, 3])(
    'keeps the arrangement that costs its caller least, and leaves no more over for it, seed %i',
    async (seed) => {
      const request = randomRequest(seed);
      const few = { ...request, items: request.items.map((one) => ({ ...one, quantity: 1 + (one.quantity % 3) })) };
      const reach = ({ placements }: NestResult) =>
        placements.reduce(
          (sum, { item: id, x, rotation }) =>
            sum +
            x +
            Math.max(
              ...few.items
                .find((one) => one.id === id)!
                .group.map(({ outer }) => boundsOf([turned(outer, rotation)])!.maxX),
            ),
          0,
        );
      const [usual, cheapest] = [await nest(few), await nest(few, { costOf: reach })];
      expect(nestingFaults(few, cheapest.placements)).toEqual([]);
      expect(cheapest.placements.length).toBe(usual.placements.length);
      expect(reach(cheapest)).toBeLessThanOrEqual(reach(usual));
      expect(await nest(few, { costOf: reach })).toEqual(cheapest);
    },
  );

  it('is the same twice', async () => {
    expect(await nest(randomRequest(3))).toEqual(await nest(randomRequest(3)));
  });

  it('fills a sheet to the last row with pieces that fit it exactly', async () => {
    const request: NestRequest = {
      sheets: [{ id: 'mat', widthMm: 300, lengthMm: 300, quantity: 1 }],
      spacingMm: 0,
      items: [item('tile', rectangle(0, 0, 100, 50), 18)],
    };
    const { placements, density } = await nest(request);
    expect(placements).toHaveLength(18);
    expect(density).toBeCloseTo(1, 6);
    expect(nestingFaults(request, placements)).toEqual([]);
  });

  it('uses outlines and not boxes: triangles lie into each other', async () => {
    const triangle = Float64Array.of(0, 0, 100, 0, 0, 100);
    const { usedLengthMm } = await nest({
      sheets: [{ ...roll, widthMm: 210 }],
      spacingMm: 0,
      items: [item('triangle', triangle, 4)],
    });
    expect(usedLengthMm).toBeLessThan(150);
  });

  it('turns what is longer than the sheet is wide', async () => {
    const { placements, unplaced } = await nest({
      sheets: [roll],
      spacingMm: 5,
      items: [item('name', rectangle(0, 0, 1400, 220))],
    });
    expect(unplaced).toEqual([]);
    expect(placements[0]!.rotation % 180).toBe(90);
  });

  it('does not turn a film that has a direction', async () => {
    const { unplaced } = await nest({
      sheets: [roll],
      spacingMm: 5,
      items: [item('brushed', rectangle(0, 0, 400, 100), 1, [0])],
    });
    expect(unplaced).toEqual([{ item: 'brushed', quantity: 1, reason: 'it is larger than every sheet' }]);
  });

  it('goes on to the next sheet when one is full, and says what is left when all are', async () => {
    const { placements, unplaced } = await nest({
      sheets: [{ id: 'mat', widthMm: 100, lengthMm: 100, quantity: 2 }],
      spacingMm: 0,
      items: [item('square', rectangle(0, 0, 60, 60), 3)],
    });
    expect(placements.map((p) => p.sheetIndex)).toEqual([0, 1]);
    expect(unplaced).toEqual([{ item: 'square', quantity: 1, reason: 'no room is left on the sheets there are' }]);
  });

  it('keeps the pieces of a group as they lie to each other', async () => {
    const group = regionsOf(unite([disc(0, 0, 10), disc(80, 0, 10)]));
    const request: NestRequest = {
      sheets: [roll],
      spacingMm: 3,
      items: [{ id: 'pair', quantity: 6, rotations: [0, 90, 180, 270], group }],
    };
    const { placements } = await nest(request);
    expect(placements).toHaveLength(6);
    expect(nestingFaults(request, placements)).toEqual([]);
  });

  it('stops when it is asked to', async () => {
    let breaths = 0;
    const breathe = () => {
      breaths += 1;
      return breaths > 3 ? Promise.reject(new Error('stopped')) : Promise.resolve();
    };
    await expect(nest(randomRequest(1), { breathe })).rejects.toThrow('stopped');
  });
});

/** So many steps and no more. */
const steps = (most: number) => ({ mayTryMore: (made: number) => made < most });

function cutUp(into: CutInto, pieces: number, seed: number, spacingMm = 0): NestRequest {
  const items = cutApart(into, pieces, seeded(seed)).map((ring, i) => item(`piece-${i}`, ring));
  return { sheets: [{ id: 'strip', widthMm: CUT_APART.widthMm, lengthMm: null, quantity: 1 }], spacingMm, items };
}

describe('the search for less film', () => {
  it.each(
    (['rectangles', 'convex', 'jigsaw'] as const).flatMap((into) =>
      seeds(1, 2).map((seed) => [into, seed + 1] as const),
    ),
  )('never overlaps, loses nothing and is no longer than what it began with: %s, seed %i', async (into, seed) => {
    const request = cutUp(into, 10, seed, seed === 1 ? 0 : 3);
    const [first, searched] = [await nest(request), await nest(request, steps(120))];
    expect(nestingFaults(request, searched.placements)).toEqual([]);
    expect(searched.placements.map((one) => one.item).sort()).toEqual(first.placements.map((one) => one.item).sort());
    expect(searched.usedLengthMm).toBeLessThanOrEqual(first.usedLengthMm);
    expect(searched.steps).toBeLessThanOrEqual(120);
  });

  it.each([1, 2, 3, 4])(
    'finds orders that cost their caller less: right, of the same copies, told as they are found, seed %i',
    async (seed) => {
      const made = randomRequest(seed);
      // On some sheets not all finds room: then the first copies are laid, and none of them twice.
      const request = seed % 2 === 0 ? made : { ...made, sheets: [{ ...made.sheets[0]!, quantity: 1 }] };
      // What is left over to the right of all counts for something.
      const cost = ({ placements }: NestResult) => {
        const boxes = placements.map(({ item: id, x, y, rotation }) => ({
          x,
          y,
          box: boundsOf(request.items.find((own) => own.id === id)!.group.map(({ outer }) => turned(outer, rotation)))!,
        }));
        return (
          Math.max(...boxes.map(({ y, box }) => y + box.maxY)) *
          (100 + Math.max(...boxes.map(({ x, box }) => x + box.maxX)))
        );
      };
      const first = await nest(request, { costOf: cost });
      const told: NestResult[] = [];
      const found = await nest(request, { ...steps(150), costOf: cost, onBetter: (better) => told.push(better()) });
      const missing = ({ unplaced }: NestResult) => new Map(unplaced.map(({ item: id, quantity }) => [id, quantity]));
      for (const one of [...told, found]) {
        expect(nestingFaults(request, one.placements)).toEqual([]);
        for (const { id, quantity } of request.items)
          expect(
            one.placements
              .filter((own) => own.item === id)
              .map(({ copy }) => copy)
              .sort((a, b) => a - b),
          ).toEqual(Array.from({ length: quantity - (missing(one).get(id) ?? 0) }, (_, copy) => copy));
      }
      const lost = (of: NestResult) =>
        of.unplaced.reduce(
          (sum, { item: id, quantity }) =>
            sum + quantity * areaOf(ringsOf(request.items.find((own) => own.id === id)!.group)),
          0,
        );
      expect(lost(found)).toBeLessThanOrEqual(lost(first));
      if (lost(found) === lost(first)) expect(cost(found)).toBeLessThan(cost(first));
      expect(told.at(-1)!.placements).toEqual(found.placements);
      expect(await nest(request, { ...steps(150), costOf: cost })).toEqual(found);
    },
  );

  it.each([1, 2, 3])(
    'tries other orders round what is pinned, also where all copies of an item are, seed %i',
    async (seed) => {
      const made = randomRequest(seed);
      const request = { ...made, sheets: [roll] };
      const { placements } = await nest(request);
      const [whole] = request.items.filter(({ rotations }) => rotations !== 'free');
      const pinned = placements.filter(
        ({ item: id, copy }) => id === whole!.id || (id === request.items.at(-1)!.id && copy === 0),
      );
      const reach = (of: NestResult) =>
        Math.max(
          ...of.placements.map(
            ({ item: id, y, rotation }) =>
              y +
              boundsOf(request.items.find((own) => own.id === id)!.group.map(({ outer }) => turned(outer, rotation)))!
                .maxY,
          ),
        );
      const found = await nest({ ...request, pinned }, { ...steps(40), costOf: reach });
      expect(nestingFaults(request, found.placements)).toEqual([]);
      expect(found.placements).toEqual(
        expect.arrayContaining(
          pinned.map((one) => ({
            ...one,
            x: expect.closeTo(one.x, 6) as number,
            y: expect.closeTo(one.y, 6) as number,
          })),
        ),
      );
      expect(found.placements).toHaveLength(placements.length);
    },
  );

  it('is the same for the same number of steps, however often it is asked whether to go on', async () => {
    const request = cutUp('convex', 8, 3, 2);
    const once = await nest(request, steps(60));
    let asked = 0;
    const again = await nest(request, { mayTryMore: () => (asked += 1) <= 60 });
    expect([once.steps, again]).toEqual([60, once]);
  });

  it.each([
    ['rectangles', 12, 400],
    ['convex', 10, 200],
  ] as const)(
    'tells what it finds on the way: %s, each whole and right, each on less film than all before, the last what it ends with',
    async (into, pieces, most) => {
      const request = cutUp(into, pieces, 2, 2);
      const first = await nest(request);
      const told: NestResult[] = [];
      const last = await nest(request, { ...steps(most), onBetter: (found) => told.push(found()) });
      expect(told.length).toBeGreaterThan(0);
      let before = first.usedLengthMm;
      for (const { placements, usedLengthMm, unplaced } of told) {
        expect([nestingFaults(request, placements), placements.length, unplaced]).toEqual([[], pieces, []]);
        expect(usedLengthMm).toBeLessThan(before);
        before = usedLengthMm;
      }
      expect(told.at(-1)!.placements).toEqual(last.placements);
      // Being told changes nothing.
      expect(await nest(request, steps(most))).toEqual(last);
    },
  );

  it.each([1, 2, 3])(
    'draws the others together beside one that is as long as the sheet, which stays, seed %i',
    async (seed) => {
      const random = seeded(seed + 20);
      const request: NestRequest = {
        sheets: [{ id: 'roll', widthMm: 220, lengthMm: 600, quantity: 1 }],
        spacingMm: 3,
        items: [
          item('bar', rectangle(0, 0, 40, 580), 1, [0]),
          ...Array.from({ length: 7 }, (_, i) => item(`blob-${i}`, blob(random, 0, 0, 18 + 20 * random()), 1, 'free')),
        ],
      };
      const [first, searched] = [await nest(request), await nest(request, steps(400))];
      expect(nestingFaults(request, searched.placements)).toEqual([]);
      expect(searched.placements).toHaveLength(8);
      const top = ({ placements }: NestResult) =>
        Math.max(
          ...placements
            .filter(({ item: id }) => id !== 'bar')
            .map(
              ({ item: id, y, rotation }) =>
                y +
                Math.max(
                  ...request.items
                    .find((one) => one.id === id)!
                    .group.map(({ outer }) => boundsOf([turned(outer, rotation)])!.maxY),
                ),
            ),
        );
      const bar = ({ placements }: NestResult) => placements.find(({ item: id }) => id === 'bar');
      expect(bar(searched)).toEqual(bar(first));
      expect(top(searched)).toBeLessThan(top(first) - 1);
    },
  );

  it('finds the way in which ten rectangles fill a larger one', async () => {
    const { usedLengthMm } = await nest(cutUp('rectangles', 10, 1), steps(2000));
    expect(usedLengthMm).toBeCloseTo(CUT_APART.lengthMm, 3);
  });

  it.each([1, 2, 3])(
    'goes on over several sheets, and what it draws together makes room for what lay on the last, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const items = Array.from({ length: 9 }, (_, i) =>
        item(
          `item-${i}`,
          seed === 1 ? rectangle(0, 0, 25 + 40 * random(), 20 + 40 * random()) : blob(random, 0, 0, 20 + 20 * random()),
          2,
        ),
      );
      const request: NestRequest = {
        sheets: [{ id: 'mat', widthMm: 140, lengthMm: 150, quantity: 4 }, roll],
        spacingMm: 2,
        items,
      };
      const [first, searched] = [await nest(request), await nest(request, steps(300))];
      expect(nestingFaults(request, searched.placements)).toEqual([]);
      expect([searched.placements.length, searched.unplaced]).toEqual([18, []]);
      expect(new Set(searched.placements.map(({ item: id, copy }) => `${id} ${copy}`)).size).toBe(18);
      expect(searched.usedLengthMm).toBeLessThanOrEqual(first.usedLengthMm);
    },
  );

  it('stops when it is asked to', async () => {
    let asked = 0;
    const breathe = () => ((asked += 1) > 60 ? Promise.reject(new Error('stopped')) : Promise.resolve());
    await expect(nest(cutUp('convex', 12, 1), { breathe, mayTryMore: () => true })).rejects.toThrow('stopped');
  });
});

describe('pieces of one whole', () => {
  const lay = async (rings: readonly Float64Array[], rotations: NestItem['rotations'], most: number) => {
    const request = {
      sheets: [{ id: 'strip', widthMm: CUT_APART.widthMm, lengthMm: null, quantity: 1 }],
      spacingMm: 0,
      items: rings.map((ring, i) => item(`piece-${i}`, ring, 1, rotations)),
    };
    const found = await nest(request, steps(most));
    expect(nestingFaults(request, found.placements)).toEqual([]);
    expect(new Set(found.placements.map((one) => one.item)).size).toBe(rings.length);
    return { ...found, first: await nest(request) };
  };
  const rounded = (rings: readonly Float64Array[], decimals: number) =>
    rings.map((ring) => ring.map((v) => Number(v.toFixed(decimals))));

  it.each(
    (['convex', 'jigsaw'] as const).flatMap((into) =>
      [10, 25, 60].flatMap((pieces) => [11, 12].map((seed) => [into, pieces, seed] as const)),
    ),
  )('are put together again without a gap: %s, %i pieces, seed %i', async (into, pieces, seed) => {
    const {
      usedLengthMm,
      density,
      steps: made,
    } = await lay(cutApart(into, pieces, seeded(seed)), [0, 90, 180, 270], 5000);
    expect([usedLengthMm, density]).toEqual([expect.closeTo(CUT_APART.lengthMm, 4), expect.closeTo(1, 6)]);
    // What is full needs no further search.
    expect(made).toBeLessThan(5000);
  });

  // Tabs that are a thousandth too wide for each other have no place in a strip that they fill: those are rounded by less.
  it.each(
    (
      [
        ['convex', 3],
        ['jigsaw', 5],
      ] as const
    ).flatMap(([into, decimals]) => [1, 2, 3].map((seed) => [into, decimals, seed] as const)),
  )(
    'are drawn apart where rounding has made them overlap: %s of %i decimals, seed %i',
    async (into, decimals, seed) => {
      const { usedLengthMm } = await lay(rounded(cutApart(into, 12, seeded(seed)), decimals), [0, 90, 180, 270], 1500);
      expect(usedLengthMm).toBeLessThan(CUT_APART.lengthMm * 1.005);
    },
  );

  it.each(
    [10, 25, 60].flatMap((pieces) =>
      [21, 22, 23].flatMap((seed) => [0, 3].map((spacingMm) => [pieces, seed, spacingMm] as const)),
    ),
  )(
    'are joined again where they are rectangles, at a spacing and rounded, too: %i, seed %i, %i mm apart',
    async (pieces, seed, spacingMm) => {
      for (const decimals of [3, 12]) {
        // Each less the spacing to its neighbours; rounded, none is too large.
        const side = (mm: number) => (decimals === 3 ? Math.floor((mm - spacingMm) * 1000) / 1000 : mm - spacingMm);
        const cut = cutApart('rectangles', pieces, seeded(seed))
          .map((ring) => boundsOf([ring])!)
          .map(({ maxX, maxY }) => rectangle(0, 0, side(maxX), side(maxY)));
        const request = {
          sheets: [{ id: 'strip', widthMm: CUT_APART.widthMm - spacingMm, lengthMm: null, quantity: 1 }],
          spacingMm,
          items: cut.map((ring, i) => item(`piece-${i}`, ring)),
        };
        const { placements, usedLengthMm } = await nest(request, steps(10));
        expect([nestingFaults(request, placements), placements.length]).toEqual([[], pieces]);
        expect(Math.abs(usedLengthMm + spacingMm - CUT_APART.lengthMm)).toBeLessThan(0.03);
      }
    },
  );

  it.each(sampled([1, 2, 3], 1))('are found in any turn where they may be turned freely, seed %i', async (seed) => {
    const random = seeded(seed + 50);
    const { usedLengthMm } = await lay(
      cutApart('jigsaw', 9, seeded(seed)).map((ring) => turned(ring, 360 * random())),
      'free',
      1500,
    );
    expect(usedLengthMm).toBeCloseTo(CUT_APART.lengthMm, 3);
  });

  it.each([1, 2, 3, 4])(
    'that miss some, or lie among others, are all laid, on no more than without the search, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const some = cutApart(seed % 2 ? 'jigsaw' : 'convex', 16, seeded(seed)).slice(0, 12);
      const others = Array.from({ length: seed }, () => blob(random, 0, 0, 10 + 10 * random()));
      const { usedLengthMm, first } = await lay([...some, ...others], [0, 90, 180, 270], 300);
      expect(usedLengthMm).toBeLessThanOrEqual(first.usedLengthMm);
    },
  );
});

describe('what lies in the way', () => {
  it('is gone round where it is pinned, and its copies are not placed again', async () => {
    const pinned = [
      { item: 'a', copy: 1, sheet: 'roll', sheetIndex: 0, x: 120, y: 40, rotation: 30 },
      { item: 'b', copy: 0, sheet: 'roll', sheetIndex: 0, x: 10, y: 90, rotation: 0 },
    ];
    const request: NestRequest = {
      sheets: [roll],
      spacingMm: 4,
      items: [item('a', rectangle(0, 0, 60, 30), 6), item('b', disc(20, 20, 20), 5)],
      pinned,
    };
    for (const hooks of [{}, steps(100)]) {
      const { placements } = await nest(request, hooks);
      expect(nestingFaults(request, placements)).toEqual([]);
      for (const pin of pinned)
        expect(placements.find(({ item: id, copy }) => id === pin.item && copy === pin.copy)).toEqual({
          ...pin,
          x: expect.closeTo(pin.x, 9),
          y: expect.closeTo(pin.y, 9),
        });
      expect(placements.map(({ item: id, copy }) => `${id}${copy}`).sort()).toEqual([
        'a0',
        'a1',
        'a2',
        'a3',
        'a4',
        'a5',
        'b0',
        'b1',
        'b2',
        'b3',
        'b4',
      ]);
    }
  });

  it.each([1, 2, 3])(
    'is what an irregular piece lacks: its outline and what is cut out of it, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const [outline] = regionsOf(
        subtract([rectangle(0, 0, 200, 220)], [rectangle(120, 0, 80, 70), disc(60, 110, 25)]),
      );
      const items = Array.from({ length: 6 }, (_, i) => item(`item-${i}`, blob(random, 0, 0, 12 + 14 * random()), 2));
      const request: NestRequest = {
        sheets: [{ id: 'rest', widthMm: 200, lengthMm: 220, quantity: 1, outline: outline! }],
        spacingMm: 2,
        items,
      };
      for (const hooks of [{}, steps(80)]) {
        const { placements } = await nest(request, hooks);
        expect(placements.length).toBeGreaterThan(8);
        expect(nestingFaults(request, placements)).toEqual([]);
      }
    },
  );

  it('leaves counters free: small parts lie in large ones, at the spacing', async () => {
    const ring = regionsOf(unite([disc(0, 0, 60), disc(0, 0, 40)], 'evenodd'));
    const request: NestRequest = {
      sheets: [{ ...roll, widthMm: 122 }],
      spacingMm: 3,
      items: [{ id: 'ring', quantity: 2, rotations: [0], group: ring }, item('dot', disc(0, 0, 15), 4)],
    };
    const { placements, usedLengthMm } = await nest(request);
    expect(nestingFaults(request, placements)).toEqual([]);
    // The two rings by themselves are as long.
    expect(usedLengthMm).toBeLessThan(2 * 120 + 3 + 0.5);
  });
});

describe('the check of an arrangement', () => {
  const request: NestRequest = {
    sheets: [{ id: 'mat', widthMm: 100, lengthMm: 100, quantity: 1 }],
    spacingMm: 5,
    items: [item('a', rectangle(0, 0, 20, 20), 2)],
  };
  const at = (copy: number, x: number, y: number) => ({
    item: 'a',
    copy,
    sheet: 'mat',
    sheetIndex: 0,
    x,
    y,
    rotation: 0,
  });

  it('sees what overlaps, comes too near, or reaches over the edge', () => {
    expect(nestingFaults(request, [at(0, 0, 0), at(1, 25, 0)])).toEqual([]);
    expect(nestingFaults(request, [at(0, 0, 0), at(1, 24, 0)])).toHaveLength(1);
    expect(nestingFaults(request, [at(0, 85, 0)])).toHaveLength(1);
    const [outline] = regionsOf(unite([Float64Array.of(0, 0, 100, 0, 0, 100)]));
    const irregular = { ...request, sheets: [{ ...request.sheets[0]!, outline: outline! }] };
    expect([nestingFaults(irregular, [at(0, 30, 30)]), nestingFaults(irregular, [at(0, 31, 31)])]).toEqual([
      [],
      [expect.stringContaining('outline')],
    ]);
  });
});
