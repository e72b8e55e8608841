import { describe, expect, it } from 'vitest';
import { DEMO_SHOP } from '../../demo/shop.js';
import { drawingPart, emptyRecipe, patchRecipe, picturePart } from '../job/index.js';
import { Planner } from '../job/plan/index.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { HOSTILE, hostileFile } from '../testing/hostile-files.js';
import { pictureKind } from './index.js';

describe('hostile and broken files', () => {
  it('are at least sixty', () => expect(HOSTILE.length).toBeGreaterThanOrEqual(60));

  it.each(HOSTILE)('%s: refused with a sentence or read with findings, and never a crash', async (...file) => {
    const { bytes, fileName } = hostileFile(file);
    const source = { id: 'a', fileName, sha256: '0'.repeat(64) };
    const recipe = patchRecipe(emptyRecipe('Hostile'), { artworks: [pictureKind(bytes) ? picturePart(source) : drawingPart(source)], repair: { pictures: 'trace', patterns: 'flat', gradientBands: 3 } });
    const plan = await new Planner(resourcesInNode).plan({ recipe, shop: DEMO_SHOP, sources: new Map([['a', bytes]]) });
    const finite = (plan.build?.layers ?? []).every((layer) => layer.cut.every((ring) => ring.every(Number.isFinite)));
    expect(finite).toBe(true);
    const said = plan.findings.map((finding) => finding.message);
    if (!plan.cut) expect(plan.findings.some((finding) => finding.severity === 'blocker')).toBe(true);
    for (const sentence of said) expect(sentence).toMatch(/^.{10,400}$/su);
  });
});
