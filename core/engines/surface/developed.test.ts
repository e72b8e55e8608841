import { describe, expect, it } from 'vitest';
import { surfaceSlice } from '../../stations/surface/decisions.js';
import { surfaceStage } from '../../stations/surface/stage.js';
import { placeOn, widestOn, type Flat, type SizeWish } from './index.js';

const panel: Flat = {
  kind: 'flat',
  free: [],
  widthMm: 300,
  heightMm: 200,
  marginMm: { top: 10, right: 20, bottom: 30, left: 40 },
  at: null,
};
const begun = surfaceSlice.beginning.surface;
const square = { widthMm: 50, heightMm: 50 };
const placed = (
  own: { readonly widthMm: number; readonly heightMm: number },
  wish: SizeWish,
  on = panel,
  reachMm = 0,
) => placeOn(on, own, wish, reachMm);

describe('a design on a board', () => {
  it('is fitted between the margins by the side that limits it, and set a little above the middle', () => {
    const { design, trouble, room } = placed(square, { mode: 'fit' });
    expect([design.widthMm, design.heightMm, room!.bound, trouble]).toEqual([160, 160, 'height', null]);
    expect(design.xMm).toBe(40 + (240 - 160) / 2);
    const lower = placed({ widthMm: 100, heightMm: 10 }, { mode: 'fit' }).design;
    expect(lower.yMm - 10).toBeLessThan((160 - lower.heightMm) / 2);
  });

  it.each([
    [{ mode: 'width', mm: 100 } as const, 100],
    [{ mode: 'height', mm: 80 } as const, 80],
    [{ mode: 'own' } as const, 50],
    [{ mode: 'scale', times: 10 } as const, 500],
  ])('takes the size that is wished: %o', (wish, size) => expect(placed(square, wish).design.widthMm).toBe(size));

  it.each([
    [{ mode: 'width', mm: 160 } as const, 0, null],
    [{ mode: 'width', mm: 160 } as const, 5, 'into-margins'],
    [{ mode: 'width', mm: 170 } as const, 0, 'into-margins'],
    [{ mode: 'width', mm: 210 } as const, 0, 'too-large'],
  ])('is in trouble when it does not fit: %o with %d mm round it', (wish, reachMm, trouble) =>
    expect(placed(square, wish, panel, reachMm).trouble).toBe(trouble),
  );

  it('is in trouble when the margins leave no room, and still has a finite size', () => {
    const none = placed(square, { mode: 'fit' }, { ...panel, widthMm: 50 });
    expect(none.trouble).toBe('no-room');
    expect(none.design.widthMm).toBeGreaterThan(0);
  });

  it('may be as wide as keeps what is built of it within the margins, and no wider', () => {
    const { design } = placed(square, { mode: 'fit' });
    const around = (size: number, mm: number) => ({ minX: -mm, minY: -mm, maxX: size + mm, maxY: size + mm });
    expect(widestOn(panel, design, around(160, 0))).toBeNull();
    const widest = widestOn(panel, design, around(160, 4))!;
    for (const reachMm of [0, 4]) {
      const smaller = placed(square, { mode: 'width', mm: widest }, panel, reachMm).design;
      expect(widestOn(panel, smaller, around(widest, 4))).toBeNull();
    }
    const wider = placed(square, { mode: 'width', mm: widest + 0.1 }).design;
    expect(widestOn(panel, wider, around(widest + 0.1, 4))).not.toBeNull();
  });

  it('lies where it is put, and is in trouble when that is beyond the margins though it would fit', () => {
    const put = { ...panel, at: { xMm: 40, yMm: 10 } };
    expect(placed(square, { mode: 'own' }, put)).toMatchObject({
      design: { xMm: 40, yMm: 10, widthMm: 50 },
      trouble: null,
    });
    expect(placed(square, { mode: 'own' }, put, 1).trouble).toBe('put-beyond');
    expect(placed(square, { mode: 'own' }, { ...panel, at: { xMm: 231, yMm: 10 } }).trouble).toBe('put-beyond');
    expect(placed(square, { mode: 'own' }, { ...panel, at: { xMm: 230, yMm: 120 } }).trouble).toBeNull();
    const { design } = placed(square, { mode: 'own' }, put);
    expect([
      widestOn(put, design, { minX: 0, minY: 0, maxX: 50, maxY: 50 }),
      widestOn(put, design, { minX: -3, minY: 0, maxX: 50, maxY: 50 }),
    ]).toEqual([null, 0]);
  });

  it('is within its margins when it is fitted with what reaches beyond it', () => {
    for (const reachMm of [1, 4, 20]) {
      const { design } = placed({ widthMm: 70, heightMm: 50 }, { mode: 'fit' }, panel, reachMm);
      expect(
        widestOn(panel, design, {
          minX: -reachMm,
          minY: -reachMm,
          maxX: design.widthMm + reachMm,
          maxY: design.heightMm + reachMm,
        }),
      ).toBeNull();
    }
  });
});

describe('a design before anything is measured', () => {
  const free = (wish: SizeWish) => placeOn({ kind: 'unmeasured' }, square, wish, 0);
  it('has its own size, and is never enlarged', () =>
    expect(
      [free({ mode: 'own' }), free({ mode: 'fit' })].map(({ design, trouble }) => [
        design.widthMm,
        design.xMm,
        trouble,
      ]),
    ).toEqual([
      [50, 0, null],
      [50, 0, null],
    ]));
  it('can be drawn at a scale, or given a side', () =>
    expect(
      [free({ mode: 'scale', times: 10 }), free({ mode: 'height', mm: 80 })].map(({ design }) => design.widthMm),
    ).toEqual([500, 80]));
  it('is as wide as it likes', () =>
    expect(
      widestOn({ kind: 'unmeasured' }, free({ mode: 'own' }).design, { minX: -9, minY: -9, maxX: 900, maxY: 900 }),
    ).toBeNull());

  it('asks for the unit of a drawing that does not say it, and every answer ends the question', async () => {
    const said = (size: SizeWish, mmPerUnit: number | null) =>
      surfaceStage.run(
        surfaceStage.read({
          own: { ...square, otherwise: square },
          each: null,
          divided: 1,
          recipe: { surface: { ...begun, size } },
          reachMm: 0,
          mmPerUnit,
        }),
        {},
      );
    const [finding, ...others] = (await said({ mode: 'own' }, 25.4 / 96)).findings;
    expect(others).toEqual([]);
    expect(finding!.remedies!.map((remedy) => remedy.label)).toEqual([
      'Keep 50 × 50 mm',
      'A millimetre: 189 × 189 mm',
      'A centimetre: 1889.8 × 1889.8 mm',
      'An inch: 4800 × 4800 mm',
    ]);
    for (const { patch } of finding!.remedies!)
      expect((await said(patch.surface!.size!, 25.4 / 96)).findings).toEqual([]);
    expect((await said({ mode: 'own' }, null)).findings).toEqual([]);
    expect((await said({ mode: 'width', mm: 80 }, 1)).findings).toEqual([]);
  });
});

describe('what is said of it', () => {
  const said = (size: SizeWish, on = panel) =>
    surfaceStage.run(
      surfaceStage.read({
        own: { ...square, otherwise: square },
        each: null,
        divided: 1,
        recipe: { surface: { ...begun, kind: 'flat', flat: on, at: on.at, size } },
        reachMm: 0,
        mmPerUnit: null,
      }),
      {},
    );
  const fit = [{ patch: { surface: { size: { mode: 'fit' } } } }];

  it.each([
    [{ mode: 'width', mm: 170 } as const, { code: 'into-margins', severity: 'warning', remedies: fit }],
    [{ mode: 'width', mm: 210 } as const, { code: 'larger-than-board', severity: 'warning', remedies: fit }],
  ])('%o', async (wish, finding) => expect((await said(wish)).findings).toMatchObject([finding]));

  it('put beyond the margins, with the way back, and where it lies', async () => {
    const put = { ...panel, at: { xMm: 0, yMm: 0 } };
    const { findings, rulings } = await said({ mode: 'own' }, put);
    expect(findings).toMatchObject([{ code: 'put-beyond', remedies: [{ patch: { surface: { at: null } } }] }]);
    expect(rulings.find(({ id }) => id === 'surface.place')).toMatchObject({ value: 0, overridden: true });
  });

  it('stops a job whose margins leave no room', async () =>
    expect((await said({ mode: 'fit' }, { ...panel, widthMm: 50 })).findings).toMatchObject([
      { code: 'margins-too-wide', severity: 'blocker' },
    ]));
});
