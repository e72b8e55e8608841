import { describe, expect, it } from 'vitest';
import { drawingPart } from '../../core/stations/artwork/index.js';
import { emptyRecipe, type Recipe } from '../../core/recipe/index.js';
import { Planner } from '../../core/plan/index.js';
import { BENCH_SHOP } from '../../core/testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { planDesk } from './plan-desk.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';
import type { PlanRequest } from './worker-api.js';

const svg = (colours: readonly string[]) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">${colours.map((colour, i) => `<rect x="${i * 20}" width="40" height="60" fill="${colour}"/>`).join('')}</svg>`,
  );
const recipeOf = (id: string): Recipe => ({
  ...emptyRecipe(id),
  artworks: [drawingPart({ id, fileName: `${id}.svg`, sha256: '' })],
});
const FILES = { red: svg(['#b3262b']), two: svg(['#16181a', '#f7f5ef']) };

function desk() {
  const made = planDesk({
    planner: new Planner(resourcesInNode),
    ready: Promise.resolve(),
    breath: () => Promise.resolve(),
  });
  const request = (id: number, jobId: keyof typeof FILES, more: Partial<PlanRequest> = {}): PlanRequest => ({
    id,
    jobId,
    recipe: recipeOf(jobId),
    shop: BENCH_SHOP,
    taken: {},
    lies: {},
    sources: new Map([[jobId, FILES[jobId]]]),
    ...more,
  });
  const plan = async (asked: PlanRequest) => {
    const views: PlanView[] = [];
    await made.plan(
      asked,
      (view) => void views.push(view),
      () => {},
    );
    return views;
  };
  return { made, request, plan };
}

describe('the planning worker', () => {
  it('answers about the plan that is shown, and about no other job’s', async () => {
    const { made, request, plan } = desk();
    const [view] = (await plan(request(1, 'two'))).slice(-1);
    expect([view!.id, view!.layers!.length]).toEqual([1, 2]);
    const films = new Set((await made.section(1, 30, 'level'))!.value.map((bar) => bar.key));
    expect(films.size).toBe(2);
    await plan(request(2, 'red'));
    const late = [
      made.section(1, 30, 'level'),
      made.paints(1, 'after'),
      made.thinnest(1),
      made.changes(1),
      made.schools(1, { placements: 10, seed: 1, readingMm: 1000, risk: 0.1 }),
      made.gapTrial(1, { placements: 10, seed: 1, readingMm: 1000, risk: 0.1 }),
    ];
    expect(await Promise.all(late)).toEqual([null, null, null, null, null, null]);
    expect(new Set((await made.paints(2, 'after'))!.value.map((paint) => paint.part))).toEqual(new Set(['red']));
  });

  it('needs a file once, and forgets those of a job that was left', async () => {
    const { request, plan } = desk();
    await plan(request(1, 'red'));
    const again = await plan(request(2, 'red', { recipe: { ...recipeOf('red'), title: 'Other' }, sources: new Map() }));
    expect(again.at(-1)!.layers).toHaveLength(1);
    await plan(request(3, 'two'));
    // A client that thinks it is known still would find out.
    const [gone] = (await plan(request(4, 'red', { sources: new Map() })).catch((error: unknown) => [error])) as [
      unknown,
    ];
    expect(gone instanceof Error || (gone as PlanView).findings.some((finding) => finding.severity === 'blocker')).toBe(
      true,
    );
  });

  it('has been heard when it says that a plan is made', async () => {
    const { made, request } = desk();
    const heard: boolean[] = [];
    // A page that is slow to hear.
    const onView = async (_: PlanView, finished: boolean) => {
      for (let i = 0; i < 20; i += 1) await Promise.resolve();
      heard.push(finished);
    };
    await made.plan(request(1, 'two'), onView, () => {});
    expect(heard).toEqual([false, true]);
  });

  it('ends a plan that is overtaken or stopped without another word', async () => {
    const { made, request, plan } = desk();
    const first = plan(request(1, 'two'));
    const second = plan(request(2, 'two'));
    expect((await first).map((view) => view.id)).toEqual([]);
    expect((await second).at(-1)!.id).toBe(2);
    const third = plan(
      request(3, 'two', { recipe: { ...recipeOf('two'), surface: { ...recipeOf('two').surface, readFromMm: 777 } } }),
    );
    await made.stop();
    expect(await third).toEqual([]);
    expect((await made.section(2, 30, 'level'))!.value.length).toBeGreaterThan(0);
  });
});
