import { describe, expect, it } from 'vitest';
import { fitToPanel } from './index.js';

const panel = { widthMm: 300, heightMm: 200, marginMm: { top: 10, right: 20, bottom: 30, left: 40 } };
const square = { widthMm: 50, heightMm: 50 };

describe('a design on a panel', () => {
  it('is fitted between the margins by the side that limits it, and set a little above the middle', () => {
    const placed = fitToPanel(square, panel, { mode: 'fit' });
    expect([placed.widthMm, placed.heightMm]).toEqual([160, 160]);
    expect(placed.xMm).toBe(40 + (240 - 160) / 2);
    const lower = fitToPanel({ widthMm: 100, heightMm: 10 }, panel, { mode: 'fit' });
    expect(lower.yMm - 10).toBeLessThan((160 - lower.heightMm) / 2);
    expect(placed.findings).toEqual([]);
  });

  it.each([
    [{ mode: 'width', mm: 100 } as const, 100],
    [{ mode: 'height', mm: 80 } as const, 80],
    [{ mode: 'own' } as const, 50],
  ])('takes the size that is wished: %o', (wish, size) => expect(fitToPanel(square, panel, wish).widthMm).toBe(size));

  it('is told when it reaches into the margins or over the panel, and offered to fit', () => {
    const fit = [{ patch: { surface: { size: { mode: 'fit' } } } }];
    expect(fitToPanel(square, panel, { mode: 'width', mm: 170 }).findings).toMatchObject([{ code: 'into-margins', remedies: fit }]);
    expect(fitToPanel(square, panel, { mode: 'width', mm: 210 }).findings).toMatchObject([{ code: 'larger-than-panel', remedies: fit }]);
  });

  it('is blocked when the margins leave no room, and still has a finite size', () => {
    const none = fitToPanel(square, { ...panel, widthMm: 50 }, { mode: 'fit' });
    expect(none.findings[0]).toMatchObject({ code: 'margins-too-wide', severity: 'blocker' });
    expect(none.widthMm).toBeGreaterThan(0);
  });
});
