import { describe, expect, it } from 'vitest';
import { IDENTITY, rotation, scaling, type Box, type Matrix } from '../../geometry/index.js';
import { placeOf, placeRules, spotsOf } from './places.js';

const box = (x: number, y: number, width: number, height: number): Box => ({
  minX: x,
  minY: y,
  maxX: x + width,
  maxY: y + height,
});
/** Which boxes are at the place of the first, kept with the part placed by one matrix and looked up by another. */
const found = (boxes: readonly Box[], kept: Matrix, now: Matrix = kept, shown: readonly Box[] = boxes) => {
  const place = placeOf(boxes[0]!, 'a', kept)!;
  const rules = placeRules(spotsOf({ only: { thicken: [place] }, spared: {} }, ['thicken'], () => now));
  return shown.map((one) => rules.reaches('thicken', one));
};

describe('a place', () => {
  it('is one of five bars side by side, and not its neighbours', () => {
    const bars = Array.from({ length: 5 }, (_, i) => box(10, 10 + 1.6 * i, 40, 0.4));
    expect(found(bars, IDENTITY)).toEqual([true, false, false, false, false]);
    // A bar that comes out a little shorter at another size is the same.
    expect(found(bars, IDENTITY, IDENTITY, [box(10, 10, 34, 0.42)])).toEqual([true]);
  });
  it('reaches no further on a part made a hundred times smaller', () => {
    const [speck, other] = [box(0.1, 0.1, 0.004, 0.004), box(0.13, 0.1, 0.004, 0.004)];
    expect(found([speck, other], scaling(0.01))).toEqual([true, false]);
  });
  it.each([30, 45, 90, 180])('goes along when its part is turned by %i°', (deg) => {
    const half = 5 * (Math.abs(Math.cos((deg * Math.PI) / 180)) + Math.abs(Math.sin((deg * Math.PI) / 180)));
    const turn = rotation(deg);
    const [x, y] = [turn[0] * 25 + turn[2] * 25, turn[1] * 25 + turn[3] * 25];
    expect(found([box(20, 20, 10, 10)], IDENTITY, turn, [box(x - half, y - half, 2 * half, 2 * half)])).toEqual([true]);
  });
});
