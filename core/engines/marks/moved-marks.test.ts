import { describe, expect, it } from 'vitest';
import { markGapMm } from './marks.js';
import { faultsOfMarks, layOutMarks, movedMarks } from './index.js';

const art = { minX: 0, minY: 0, maxX: 100, maxY: 60 };
const bar = (x: number, y: number, width: number, height: number) =>
  Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height);
const layers = [[bar(0, 0, 100, 20)], [bar(0, 40, 100, 20)]];
const { marks } = layOutMarks(art, { sizeMm: 6, distanceMm: null });
const told = (...places: { xMm: number; yMm: number }[]) =>
  faultsOfMarks(movedMarks(marks, places), layers, markGapMm(6));

describe('marks that a hand has moved', () => {
  it('are where it put them, each as it was, and those without a place stay', () => {
    const [moved, stayed] = movedMarks(marks, [{ xMm: 30, yMm: 30 }]);
    expect([moved!.xMm, moved!.yMm, moved!.shape]).toEqual([30, 30, 'diamond']);
    expect([...moved!.ring]).toEqual([30, 27, 33, 30, 30, 33, 27, 30]);
    expect(stayed).toBe(marks[1]);
    expect(movedMarks(marks, [])).toEqual(marks);
  });

  it('are told where they lie on what any layer cuts, or too near to it', () => {
    expect(told()).toMatchObject({ onArtwork: [], near: [], areAlike: false });
    expect(told({ xMm: 50, yMm: 10 }).onArtwork).toHaveLength(1);
    expect(told({ xMm: 50, yMm: 41 }).onArtwork).toHaveLength(1);
    // A stroke so thin that no corner of either lies in the other crosses it all the same.
    expect(
      faultsOfMarks(movedMarks(marks, [{ xMm: 50, yMm: 30 }]), [[bar(0, 29.9, 100, 0.2)]], 3).onArtwork,
    ).toHaveLength(1);
    // 20 to 40 is free: a mark of 6 stands 3 clear from 26 to 34.
    expect(told({ xMm: 50, yMm: 30 })).toMatchObject({ onArtwork: [], near: [] });
    expect(told({ xMm: 50, yMm: 24.5 }).near).toHaveLength(1);
  });

  it('are told where a turned layer could look right', () => {
    expect(told({ xMm: -10, yMm: 30 }, { xMm: 110, yMm: 30 }).areAlike).toBe(true);
    expect(told({ xMm: 30, yMm: 30 }, { xMm: 30, yMm: -20 }).areAlike).toBe(true);
    expect(told({ xMm: -10, yMm: 10 }, { xMm: 110, yMm: 50 }).areAlike).toBe(false);
    const three = [0, 1, 2].map(() => marks[0]!);
    expect(
      faultsOfMarks(
        movedMarks(three, [
          { xMm: -20, yMm: 0 },
          { xMm: 120, yMm: 0 },
          { xMm: 50, yMm: 100 },
        ]),
        layers,
        3,
      ).areAlike,
    ).toBe(true);
    expect(
      faultsOfMarks(
        movedMarks(three, [
          { xMm: -20, yMm: 0 },
          { xMm: 120, yMm: 0 },
          { xMm: 10, yMm: 40 },
        ]),
        layers,
        3,
      ).areAlike,
    ).toBe(false);
    const notched = movedMarks(layOutMarks(art, { sizeMm: 6, distanceMm: null, shape: 'bar' }).marks, [
      { xMm: -10, yMm: 30 },
      { xMm: 110, yMm: 30 },
    ]);
    expect(faultsOfMarks(notched, layers, 3).areAlike).toBe(false);
  });
});
