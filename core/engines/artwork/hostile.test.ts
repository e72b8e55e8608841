import { describe, expect, it } from 'vitest';
import { Planner } from '../../plan/index.js';
import { resourcesInNode } from '../../../platform/artwork-resources.js';
import { HOSTILE, hostileInput } from '../../testing/hostile-files.js';

describe('hostile and broken files', () => {
  it('are at least sixty', () => expect(HOSTILE.length).toBeGreaterThanOrEqual(60));

  it.each(HOSTILE)('%s: refused with a sentence or read with findings, and never a crash', async (...file) => {
    const plan = await new Planner(resourcesInNode).plan(hostileInput(file));
    const finite = (plan.build?.layers ?? []).every((layer) => layer.cut.every((ring) => ring.every(Number.isFinite)));
    expect(finite).toBe(true);
    const said = plan.findings.map((finding) => finding.message);
    if (!plan.cut) expect(plan.findings.some((finding) => finding.severity === 'blocker')).toBe(true);
    for (const sentence of said) expect(sentence).toMatch(/^.{10,400}$/su);
  });
});
