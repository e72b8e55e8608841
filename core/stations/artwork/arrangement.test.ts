import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import {
  aligned,
  ALIGNMENTS,
  atTrueSize,
  distributed,
  placedBox,
  reordered,
  snapped,
  spaced,
  withGroups,
  withPlaces,
  type PartExtent,
  type PlacedPart,
} from './arrangement.js';
import { AT_ORIGIN, carryAlternates, drawingPart } from './artwork-part.js';

/** What a part takes up that is so large, about its middle. */
const upright = (widthMm: number, heightMm: number): PartExtent => ({
  box: { minX: -widthMm / 2, minY: -heightMm / 2, maxX: widthMm / 2, maxY: heightMm / 2 },
  turnDeg: 0,
  mirrored: false,
});

/** Parts of random sizes, places and turns, as a design has them. */
function randomParts(seed: number, count = 5): { parts: PlacedPart[]; own: Map<string, PartExtent> } {
  const random = seeded(seed);
  const own = new Map<string, PartExtent>();
  const parts = Array.from({ length: count }, (_, i): PlacedPart => {
    const id = `p${i}`;
    const size = upright(5 + 90 * random(), 5 + 60 * random());
    own.set(id, size);
    const place = {
      xMm: 400 * random() - 200,
      yMm: 400 * random() - 200,
      scale: 0.2 + 3 * random(),
      turnDeg: Math.round(360 * random()) - 180,
      mirrored: random() < 0.5,
    };
    return { id, group: null, place, box: placedBox(place, size) };
  });
  return { parts, own };
}

const after = ({ parts, own }: ReturnType<typeof randomParts>, places: ReadonlyMap<string, PlacedPart['place']>) =>
  parts.map((part) => placedBox(places.get(part.id)!, own.get(part.id)!));
const SEEDS = Array.from({ length: 20 }, (_, seed) => seed);

describe('a placed part', () => {
  it('turns, scales and mirrors round its middle', () => {
    const own = upright(40, 20);
    expect(placedBox({ ...AT_ORIGIN, xMm: 5, yMm: 7, turnDeg: 90, scale: 2 }, own)).toEqual({
      minX: expect.closeTo(-15, 9),
      maxX: expect.closeTo(25, 9),
      minY: expect.closeTo(-33, 9),
      maxY: expect.closeTo(47, 9),
    });
    expect(placedBox({ ...AT_ORIGIN, mirrored: true, turnDeg: 30 }, own)).toEqual(
      expect.objectContaining({ minX: expect.closeTo(-(20 * Math.cos(Math.PI / 6) + 10 * Math.sin(Math.PI / 6)), 9) }),
    );
  });
});

describe('what a placed part takes up', () => {
  it.each(SEEDS)(
    'seed %i: holds all of it however it was turned when that was looked at, and fits exactly when it stands as then',
    (seed) => {
      const { parts, own } = randomParts(seed, 2);
      const [asIs, other] = parts.map(({ place }) => place) as [PlacedPart['place'], PlacedPart['place']];
      const upRight = own.get('p0')!;
      const then = {
        box: placedBox({ ...asIs, xMm: 0, yMm: 0, scale: 1 }, upRight),
        turnDeg: asIs.turnDeg,
        mirrored: asIs.mirrored,
      };
      expect(placedBox(asIs, then)).toEqual(
        Object.fromEntries(Object.entries(placedBox(asIs, upRight)).map(([side, mm]) => [side, expect.closeTo(mm, 6)])),
      );
      const [held, exact] = [placedBox(other, then), placedBox(other, upRight)];
      for (const side of ['minX', 'minY'] as const) expect(held[side]).toBeLessThan(exact[side] + 1e-6);
      for (const side of ['maxX', 'maxY'] as const) expect(held[side]).toBeGreaterThan(exact[side] - 1e-6);
    },
  );
});

describe('aligning', () => {
  it.each(SEEDS.flatMap((seed) => ALIGNMENTS.map((to) => [seed, to] as const)))(
    'seed %i: brings all to one line, %s, and moves only across it',
    (seed, to) => {
      const design = randomParts(seed);
      const boxes = after(design, aligned(design.parts, to));
      const at = { left: 'minX', right: 'maxX', top: 'minY', bottom: 'maxY', centre: 'minX', middle: 'minY' } as const;
      const line = (b: (typeof boxes)[number]) =>
        to === 'centre' ? b.minX + b.maxX : to === 'middle' ? b.minY + b.maxY : b[at[to]];
      for (const box of boxes) expect(line(box)).toBeCloseTo(line(boxes[0]!), 6);
      boxes.forEach((box, i) => {
        const before = design.parts[i]!.box;
        if (['left', 'right', 'centre'].includes(to)) expect(box.minY).toBeCloseTo(before.minY, 6);
        else expect(box.minX).toBeCloseTo(before.minX, 6);
      });
    },
  );
});

describe('setting out', () => {
  it.each(SEEDS)('seed %i: makes gaps or steps equal and leaves the outermost where they are', (seed) => {
    const design = randomParts(seed);
    for (const axis of ['x', 'y'] as const) {
      const [low, high] = axis === 'x' ? (['minX', 'maxX'] as const) : (['minY', 'maxY'] as const);
      const sorted = (boxes: ReturnType<typeof after>) =>
        [...boxes].sort((a, b) => a[low] + a[high] - b[low] - b[high]);
      const steps = (values: number[]) => values.slice(1).map((v, i) => v - values[i]!);
      const middles = sorted(after(design, distributed(design.parts, axis, 'middles'))).map(
        (b) => (b[low] + b[high]) / 2,
      );
      for (const step of steps(middles)) expect(step).toBeCloseTo(steps(middles)[0]!, 6);
      const places = distributed(design.parts, axis, 'gaps');
      const row = [...design.parts]
        .sort((a, b) => a.box[low] + a.box[high] - b.box[low] - b.box[high])
        .map((part) => placedBox(places.get(part.id)!, design.own.get(part.id)!));
      const gaps = row.slice(1).map((b, i) => b[low] - row[i]![high]);
      for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 6);
      const before = sorted(design.parts.map((part) => part.box));
      expect(row[0]![low]).toBeCloseTo(before[0]![low], 6);
      expect(row.at(-1)![high]).toBeCloseTo(before.at(-1)![high], 6);
    }
  });

  it('needs three', () => {
    const { parts } = randomParts(3, 2);
    expect([...distributed(parts, 'x', 'gaps').values()]).toEqual(parts.map((part) => part.place));
  });
});

describe('snapping', () => {
  const other = { minX: 100, minY: 0, maxX: 140, maxY: 20 };
  const box = { minX: 0, minY: 50, maxX: 30, maxY: 70 };
  it('goes to the nearest edge or middle within reach, each way by itself', () => {
    expect(snapped(box, { x: 69, y: -31 }, [other], 2)).toEqual({
      by: { x: 70, y: -30 },
      lines: [
        { axis: 'x', at: 100 },
        { axis: 'y', at: 20 },
      ],
    });
    expect(snapped(box, { x: 104, y: 9 }, [other], 2)).toEqual({
      by: { x: 105, y: 9 },
      lines: [{ axis: 'x', at: 120 }],
    });
  });
  it('leaves alone what is out of reach', () =>
    expect(snapped(box, { x: 60, y: 9 }, [other], 2)).toEqual({ by: { x: 60, y: 9 }, lines: [] }));
});

describe('spacing out', () => {
  it.each(SEEDS)(
    'seed %i: leaves the same gap between each two, as given, in their order, the first staying',
    (seed) => {
      const design = randomParts(seed);
      for (const [axis, low, high] of [
        ['x', 'minX', 'maxX'],
        ['y', 'minY', 'maxY'],
      ] as const) {
        const boxes = after(design, spaced(design.parts, axis, 7.5)).sort((a, b) => a[low] - b[low]);
        boxes.slice(1).forEach((box, i) => expect(box[low] - boxes[i]![high]).toBeCloseTo(7.5, 6));
        const first = design.parts.reduce((best, part) =>
          part.box[low] + part.box[high] < best.box[low] + best.box[high] ? part : best,
        );
        expect(boxes[0]![low]).toBeCloseTo(first.box[low], 6);
      }
    },
  );
});

describe('groups', () => {
  it.each(SEEDS)('seed %i: are arranged as one, each part keeping its place in its group', (seed) => {
    const design = randomParts(seed);
    const parts = design.parts.map((part, i) => (i < 2 ? { ...part, group: 'g' } : part));
    const [a, b] = [parts[0]!, parts[1]!];
    for (const places of [
      aligned(parts, 'left'),
      aligned(parts, 'middle'),
      distributed(parts, 'x', 'gaps'),
      spaced(parts, 'y', 3),
    ]) {
      const [na, nb] = [places.get(a.id)!, places.get(b.id)!];
      expect([na.xMm - nb.xMm, na.yMm - nb.yMm]).toEqual([
        expect.closeTo(a.place.xMm - b.place.xMm, 6),
        expect.closeTo(a.place.yMm - b.place.yMm, 6),
      ]);
    }
    const frame = { minX: -500, maxX: -400, minY: 0, maxY: 10 };
    const boxes = after({ parts, own: design.own }, aligned(parts, 'right', frame));
    expect(Math.max(boxes[0]!.maxX, boxes[1]!.maxX)).toBeCloseTo(-400, 6);
    for (const box of boxes.slice(2)) expect(box.maxX).toBeCloseTo(-400, 6);
  });
  it('are taken hold of whole', () =>
    expect(
      withGroups(
        [
          { id: 'a', group: 'g' },
          { id: 'b', group: null },
          { id: 'c', group: 'g' },
          { id: 'd', group: 'h' },
        ],
        ['a', 'b'],
      ),
    ).toEqual(['a', 'b', 'c']));
});

describe('parts', () => {
  const part = (id: string) => drawingPart({ id, fileName: `${id}.svg`, sha256: '' });
  const ids = (parts: readonly { readonly id: string }[]) => parts.map((p) => p.id).join('');
  it('are put above or below each other', () => {
    const all = ['a', 'b', 'c'].map(part);
    expect(ids(reordered(all, 'a', 1))).toBe('bac');
    expect(ids(reordered(all, 'c', -9))).toBe('cab');
    expect(ids(reordered(all, 'none', 1))).toBe('abc');
  });
  it('keep their size when the design takes its own from then on', () => {
    const [at] = atTrueSize(withPlaces([part('a')], new Map([['a', { ...AT_ORIGIN, xMm: 10, scale: 2 }]])), 1.5);
    expect(at!.place).toMatchObject({ xMm: 15, scale: 3 });
  });
});

describe('other forms of letters', () => {
  it.each([
    ['Heron', 'Herons', { 0: 'ss01', 4: 'swsh' }, { 0: 'ss01', 4: 'swsh' }],
    ['Heron', 'The Heron', { 0: 'ss01', 4: 'swsh' }, { 4: 'ss01', 8: 'swsh' }],
    ['Heron', 'Hern', { 3: 'salt', 4: 'swsh' }, { 3: 'swsh' }],
    ['Heron', 'Wick', { 0: 'ss01' }, {}],
  ])('stay with their letters: %s to %s', (before, now, forms, kept) =>
    expect(carryAlternates(before, now, forms)).toEqual(kept),
  );
});
