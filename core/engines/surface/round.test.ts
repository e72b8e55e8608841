import { describe, expect, it } from 'vitest';
import { boxRing } from '../../geometry/index.js';
import {
  developedOf,
  handleOf,
  limitsOf,
  placeOn,
  rimOf,
  seenAtOnceMm,
  seenLine,
  seenPoint,
  seenRings,
  sidesOf,
  spanRad,
  uprightOf,
  type Cylinder,
  type Solid,
  type Taper,
} from './index.js';

const mug: Cylinder = {
  kind: 'cylinder',
  diameterMm: 82,
  straightHeightMm: 90,
  lipMm: 12,
  footMm: 8,
  gapMm: 40,
  hand: 'right',
  side: 'room',
  wraps: false,
  at: null,
};
const round = Math.PI * 82;
const own = { widthMm: 60, heightMm: 20 };

describe('a design on a mug', () => {
  it('is seen as wide as a chord, and no wider than the mug', () => {
    expect(seenAtOnceMm(80, 40)).toBeCloseTo(80 * Math.sin(0.5), 9);
    // A chord by the two ends of the arc in the plane.
    const half = spanRad(80, 70) / 2;
    expect(seenAtOnceMm(80, 70)).toBeCloseTo(Math.hypot(40 * Math.sin(half) - 40 * Math.sin(-half), 0), 9);
    expect([seenAtOnceMm(80, 40 * Math.PI), seenAtOnceMm(80, 240)]).toEqual([80, 80]);
  });

  it('is at most a third of the way round, a little less, and as high as lip and foot leave', () => {
    expect(limitsOf(mug)).toEqual({
      widthMm: expect.closeTo((round / 3) * 0.97, 9),
      heightMm: expect.closeTo(70 * 0.97, 9),
    });
    const { design, trouble } = placeOn(mug, own, { mode: 'fit' }, 0);
    expect([design.widthMm, trouble]).toEqual([expect.closeTo((round / 3) * 0.97, 9), null]);
  });

  it('may go from one side of the handle to the other, or without one meet itself', () => {
    expect(limitsOf({ ...mug, wraps: true })!.widthMm).toBeCloseTo((round - 40) * 0.97, 9);
    expect(limitsOf({ ...mug, wraps: true, gapMm: 0 })!.widthMm).toBeCloseTo(round, 9);
  });

  it.each([
    ['right', 'holder', 0.75],
    ['right', 'room', 0.25],
    ['left', 'holder', 0.25],
    ['left', 'room', 0.75],
    ['right', 'front', 0.5],
  ] as const)('held in the %s hand faces the %s', (hand, side, share) => {
    const { design } = placeOn({ ...mug, hand, side }, own, { mode: 'fit' }, 0);
    expect(design.xMm + design.widthMm / 2).toBeCloseTo(round * share, 6);
  });

  it('has the handle on the side of the hand that holds it, as its holder looks at it', () => {
    const solid: Solid = {
      kind: 'round',
      roundMm: round,
      sideMm: 90,
      topRadiusMm: 41,
      footRadiusMm: 41,
      uprightMm: 90,
    };
    for (const hand of ['right', 'left'] as const) {
      const { holderMm } = sidesOf(round, hand);
      const look = { turnRad: (2 * Math.PI * holderMm) / round - Math.PI, aboveRad: 0 };
      // What the holder looks at is straight before them, and the handle to the side of the hand.
      expect(seenPoint(solid, look, holderMm, 45)).toMatchObject({
        x: expect.closeTo(0, 6),
        facing: expect.closeTo(1, 6),
      });
      const { line } = handleOf(solid, look, 30);
      const reach = line.filter((_, i) => i % 2 === 0).reduce((sum, x) => sum + x, 0);
      expect(Math.sign(reach)).toBe(hand === 'right' ? 1 : -1);
    }
  });

  it('leaves no room where lip and foot meet, and still has a finite size', () => {
    const { design, trouble } = placeOn({ ...mug, lipMm: 60, footMm: 40 }, own, { mode: 'fit' }, 0);
    expect([trouble, design.widthMm > 0, Number.isFinite(design.yMm)]).toEqual(['no-room', true, true]);
  });
});

describe('a taper', () => {
  const tin: Taper = {
    kind: 'taper',
    cone: { d1Mm: 102, d2Mm: 86, slantMm: 118, wide: 'top' },
    lipMm: 0,
    footMm: 0,
    gapMm: 0,
    wraps: false,
    at: null,
  };
  it('is rolled out as wide as it is round at the middle, and holds a design at the middle of its slant', () => {
    expect(developedOf(tin)!.widthMm).toBeCloseTo(Math.PI * 94, 9);
    const { design } = placeOn(tin, own, { mode: 'fit' }, 0);
    expect(design.yMm + design.heightMm / 2).toBeCloseTo(59, 9);
  });
});

describe('a thing as it is seen', () => {
  const tumbler: Solid = {
    kind: 'round',
    roundMm: Math.PI * 80,
    sideMm: 120,
    topRadiusMm: 44,
    footRadiusMm: 36,
    uprightMm: uprightOf(120, 88, 72),
  };
  const dome: Solid = { kind: 'dome', widthMm: 120, heightMm: 90, bend: { acrossMm: 100, downMm: 140 } };
  const look = { turnRad: 0.7, aboveRad: 0.3 };

  it('shows nothing of what is turned away', () => {
    const behind = boxRing({ minX: 0, minY: 20, maxX: 20, maxY: 60 });
    expect(seenRings(tumbler, { turnRad: 0, aboveRad: 0 }, [behind])).toEqual([]);
    const before = boxRing({ minX: 40 * Math.PI - 10, minY: 20, maxX: 40 * Math.PI + 10, maxY: 60 });
    expect(seenRings(tumbler, { turnRad: 0, aboveRad: 0 }, [before])).toHaveLength(1);
  });

  it.each([
    ['tumbler', tumbler, Math.PI * 80, 120],
    ['dome', dome, 120, 90],
  ] as const)(
    'is where the skin is, whatever is done to a %s: lengths along it are true where it faces the eye',
    (_, solid, width, height) => {
      // A short step of the skin seen straight on is as long as it is.
      const [x, y] = [width / 2, height / 2];
      const straight = { turnRad: 0, aboveRad: 0 };
      const [a, b, c] = [
        seenPoint(solid, straight, x, y),
        seenPoint(solid, straight, x + 0.01, y),
        seenPoint(solid, straight, x, y + 0.01),
      ];
      expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(0.01, 4);
      expect(Math.hypot(c.x - a.x, c.y - a.y)).toBeCloseTo(
        solid.kind === 'round' ? (0.01 * tumbler.uprightMm) / 120 : 0.01,
        4,
      );
    },
  );

  it('faces the eye where the skin’s own turn says so, by differences', () => {
    for (const solid of [tumbler, dome]) {
      const [width, height] = solid.kind === 'round' ? [solid.roundMm, solid.sideMm] : [solid.widthMm, solid.heightMm];
      for (let i = 1; i < 12; i += 1) {
        const [x, y] = [(width * i) / 12, height * 0.4];
        const at = (dx: number, dy: number) => seenPoint(solid, look, x + dx, y + dy);
        const [right, down, here] = [at(1e-4, 0), at(0, 1e-4), at(0, 0)];
        // Seen from the front, a small square of the skin runs round with the clock; from behind, against it.
        const turn = (right.x - here.x) * (down.y - here.y) - (right.y - here.y) * (down.x - here.x);
        if (Math.abs(here.facing) > 0.02) expect(Math.sign(turn)).toBe(Math.sign(here.facing));
      }
    }
  });

  it('cuts lines where they go out of sight, and shows the whole rim', () => {
    const level = seenLine(tumbler, look, [0, 60, Math.PI * 80, 60]);
    expect(level.length).toBeGreaterThanOrEqual(1);
    const ends = level.flatMap((piece) => [Math.abs(piece[0]!), Math.abs(piece.at(-2)!)]);
    expect(Math.max(...ends)).toBeLessThan(40.5);
    expect(rimOf(tumbler, look, 'top')).toHaveLength(144);
  });
});
