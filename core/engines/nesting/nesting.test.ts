import { describe, expect, it } from 'vitest';
import { regionsOf, unite, type Region } from '../../geometry/index.js';
import { blob, disc, rectangle, seeded } from '../../testing/seeded.js';
import { nest, nestingFaults, type NestItem, type NestRequest } from './index.js';

const one = (ring: Float64Array): Region[] => regionsOf(unite([ring]));
const item = (id: string, ring: Float64Array, quantity = 1, rotations: NestItem['rotations'] = [0, 90, 180, 270]): NestItem => ({ id, quantity, rotations, group: one(ring) });
const roll = { id: 'roll', widthMm: 300, lengthMm: null, quantity: 1 };

function randomRequest(seed: number): NestRequest {
  const random = seeded(seed);
  const items = Array.from({ length: 5 }, (_, i) => item(`item-${i}`, blob(random, 0, 0, 15 + 35 * random()), 1 + Math.floor(random() * 4), random() < 0.3 ? 'free' : [0, 90, 180, 270]));
  return { sheets: [{ id: 'offcut', widthMm: 120, lengthMm: 160, quantity: 2 }, roll], spacingMm: Math.round(random() * 6), items };
}

describe('nesting', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))('never overlaps, keeps the spacing and the edges, and loses nothing, seed %i', async (seed) => {
    const request = randomRequest(seed);
    const { placements, unplaced } = await nest(request, { mayTryMore: () => false });
    expect(nestingFaults(request, placements)).toEqual([]);
    for (const { id, quantity } of request.items) {
      const left = unplaced.find((u) => u.item === id)?.quantity ?? 0;
      expect(placements.filter((p) => p.item === id).map((p) => p.copy)).toEqual(Array.from({ length: quantity - left }, (_, copy) => copy));
    }
  });

  it('is the same twice', async () => {
    expect(await nest(randomRequest(3))).toEqual(await nest(randomRequest(3)));
  });

  it('fills a sheet to the last row with pieces that fit it exactly', async () => {
    const request: NestRequest = { sheets: [{ id: 'mat', widthMm: 300, lengthMm: 300, quantity: 1 }], spacingMm: 0, items: [item('tile', rectangle(0, 0, 100, 50), 18)] };
    const { placements, density } = await nest(request);
    expect(placements).toHaveLength(18);
    expect(density).toBeCloseTo(1, 6);
    expect(nestingFaults(request, placements)).toEqual([]);
  });

  it('uses outlines and not boxes: triangles lie into each other', async () => {
    const triangle = Float64Array.of(0, 0, 100, 0, 0, 100);
    const { usedLengthMm } = await nest({ sheets: [{ ...roll, widthMm: 210 }], spacingMm: 0, items: [item('triangle', triangle, 4)] });
    expect(usedLengthMm).toBeLessThan(150);
  });

  it('turns what is longer than the sheet is wide', async () => {
    const { placements, unplaced } = await nest({ sheets: [roll], spacingMm: 5, items: [item('name', rectangle(0, 0, 1400, 220))] });
    expect(unplaced).toEqual([]);
    expect(placements[0]!.rotation % 180).toBe(90);
  });

  it('does not turn a film that has a direction', async () => {
    const { unplaced } = await nest({ sheets: [roll], spacingMm: 5, items: [item('brushed', rectangle(0, 0, 400, 100), 1, [0])] });
    expect(unplaced).toEqual([{ item: 'brushed', quantity: 1, reason: 'it is larger than every sheet' }]);
  });

  it('goes on to the next sheet when one is full, and says what is left when all are', async () => {
    const { placements, unplaced } = await nest({ sheets: [{ id: 'mat', widthMm: 100, lengthMm: 100, quantity: 2 }], spacingMm: 0, items: [item('square', rectangle(0, 0, 60, 60), 3)] });
    expect(placements.map((p) => p.sheetIndex)).toEqual([0, 1]);
    expect(unplaced).toEqual([{ item: 'square', quantity: 1, reason: 'no room is left on the sheets there are' }]);
  });

  it('keeps the pieces of a group as they lie to each other', async () => {
    const group = regionsOf(unite([disc(0, 0, 10), disc(80, 0, 10)]));
    const request: NestRequest = { sheets: [roll], spacingMm: 3, items: [{ id: 'pair', quantity: 6, rotations: [0, 90, 180, 270], group }] };
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

describe('the check of an arrangement', () => {
  const request: NestRequest = { sheets: [{ id: 'mat', widthMm: 100, lengthMm: 100, quantity: 1 }], spacingMm: 5, items: [item('a', rectangle(0, 0, 20, 20), 2)] };
  const at = (copy: number, x: number, y: number) => ({ item: 'a', copy, sheet: 'mat', sheetIndex: 0, x, y, rotation: 0 });

  it('sees what overlaps, comes too near, or reaches over the edge', () => {
    expect(nestingFaults(request, [at(0, 0, 0), at(1, 25, 0)])).toEqual([]);
    expect(nestingFaults(request, [at(0, 0, 0), at(1, 24, 0)])).toHaveLength(1);
    expect(nestingFaults(request, [at(0, 85, 0)])).toHaveLength(1);
  });
});
