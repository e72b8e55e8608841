import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { newBlank, type Blank } from '../shop/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { newOutline } from '../stations/layers/index.js';
import { fromBlank } from '../stations/surface/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { Planner } from './planner.js';

const reading = (what: Blank['readings'][number]['what'], mm: number) =>
  ({ what, mm, on: '2026-04-20', by: '', with: 'tape' }) as const;
/** Things on which a design of some size sat well: it keeps clear of every edge, though some take up more than is seen from one place. */
const WORKED: readonly { readonly blank: Blank; readonly widthMm: number; readonly heightMm: number }[] = [
  {
    blank: {
      ...newBlank('flask'),
      kind: 'cylinder',
      readings: [reading('circumference', 229), reading('straight height', 142)],
    },
    widthMm: 110,
    heightMm: 38,
  },
  {
    blank: {
      ...newBlank('mug'),
      kind: 'cylinder',
      readings: [reading('circumference', 256.5), reading('straight height', 88), reading('handle gap', 46)],
    },
    widthMm: 84,
    heightMm: 42,
  },
  {
    blank: {
      ...newBlank('tumbler'),
      kind: 'taper',
      readings: [reading('diameter at the top', 90), reading('diameter at the foot', 60), reading('slant', 150)],
    },
    widthMm: 100,
    heightMm: 60,
  },
  {
    blank: { ...newBlank('board'), kind: 'flat', readings: [reading('width', 310), reading('height', 205)] },
    widthMm: 240,
    heightMm: 150,
  },
];
/** What is said where a design, or its outline, lies where it should not. */
const OF_MARGINS = ['margins-too-wide', 'into-margins', 'put-beyond', 'outline-into-margins', 'larger-than-board'];

describe('a size that worked on a blank before', () => {
  const cases = WORKED.flatMap((worked) => [false, true].map((hasOutline) => ({ ...worked, hasOutline })));
  it.each(cases)(
    'raises no warning about margins that it does not touch: $blank.id, $widthMm mm, outline $hasOutline',
    async ({ blank, widthMm, heightMm, hasOutline }) => {
      const name = `${blank.id}.svg`;
      const bytes = new TextEncoder().encode(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}"><rect width="${widthMm}" height="${heightMm}" fill="#16181a"/></svg>`,
      );
      const made = patchRecipe(emptyRecipe('Known'), {
        artworks: [drawingPart({ id: 'a', fileName: name, sha256: '0'.repeat(64) })],
      });
      const patch: RecipePatch = {
        surface: { size: { mode: 'width', mm: widthMm } },
        ...(hasOutline ? { build: { outlines: [newOutline('o', 'lock-gate')] } } : {}),
      };
      const plan = await new Planner(resourcesInNode).prepared({
        recipe: parseRecipe(patchRecipe(patchRecipe(made, fromBlank(blank, made) as RecipePatch), patch)),
        shop: BENCH_SHOP,
        sources: new Map([['a', bytes]]),
      });
      const found = plan.findings.filter(({ stage }) => stage === 'surface');
      expect(found.filter(({ code }) => OF_MARGINS.includes(code))).toEqual([]);
      expect(found.filter(({ severity }) => severity !== 'note')).toEqual([]);
      const { design, surface } = plan.surface!;
      expect(design.widthMm).toBeCloseTo(widthMm, 6);
      // It keeps clear of half of the handle's gap on either side.
      if (surface.kind === 'cylinder') expect(design.xMm).toBeGreaterThanOrEqual(surface.gapMm / 2);
    },
  );
});
