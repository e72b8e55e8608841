import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe } from '../recipe/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { surfaceSlice } from '../stations/surface/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { Planner } from './planner.js';

/* Nothing is warned of that is not so. */

const begun = surfaceSlice.beginning.surface;
const codesOf = async (surface: Partial<Recipe['surface']>) => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="40mm" viewBox="0 0 120 40"><path fill="#1d4e89" d="M0 0h120v40H0z"/></svg>';
  const recipe = parseRecipe(
    patchRecipe(emptyRecipe('Calm'), {
      artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
      surface,
    }),
  );
  const plan = await new Planner(resourcesInNode).plan({
    recipe,
    shop: BENCH_SHOP,
    sources: new Map([['a', new TextEncoder().encode(svg)]]),
  });
  return plan.findings.map(({ code }) => code);
};
const OF_MARGINS = ['into-margins', 'put-beyond', 'outline-into-margins', 'too-large'];

describe('a design wider than a third of the way round', () => {
  it.each([
    ['a mug', { kind: 'cylinder', cylinder: { ...begun.cylinder, gapMm: 0 } }],
    ['a tin', { kind: 'taper' }],
  ] as const)('is told of once on %s, as a note, and touches no margin', async (_, thing) => {
    const codes = await codesOf({ ...thing, size: { mode: 'width', mm: 120 } });
    expect(codes.filter((code) => code === 'wider-than-seen')).toHaveLength(1);
    expect(codes.filter((code) => OF_MARGINS.includes(code))).toEqual([]);
  });

  it('is warned of when it reaches the handle', async () => {
    const codes = await codesOf({
      kind: 'cylinder',
      cylinder: { ...begun.cylinder, gapMm: 30, side: 'front' },
      size: { mode: 'width', mm: 240 },
    });
    expect(codes).toContain('into-margins');
  });
});
