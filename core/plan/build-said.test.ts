import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { areaOf, countPieces, intersect, subtract } from '../geometry/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { newOutline } from '../stations/layers/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import type { Plan } from './plan.js';
import { Planner } from './planner.js';

/* What is said of a build is so, and what is offered does what it says. */

const drawn = (body: string) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">${body}</svg>`,
  );
const planOf = (body: string, patch: RecipePatch = {}, planner = new Planner(resourcesInNode)) =>
  planner.prepared({
    recipe: parseRecipe(
      patchRecipe(
        patchRecipe(emptyRecipe('Said'), {
          artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
          surface: { size: { mode: 'own' } },
        }),
        patch,
      ),
    ),
    shop: BENCH_SHOP,
    sources: new Map([['a', drawn(body)]]),
  });
const layer = (found: Plan, film: string) => found.build!.layers.find((one) => one.film.id === film)!;
const ruling = (found: Plan, id: string) => found.rulings.find((one) => one.id === id);
const finding = (found: Plan, code: string) => found.findings.find((one) => one.code === code);

const RING =
  '<path fill-rule="evenodd" fill="#b3262b" d="M10 10H50V50H10Z M20 20H40V40H20Z"/><rect x="18" y="18" width="24" height="24" fill="#f2b632"/>';

describe('holes that nobody sees', () => {
  it('are filled in overlay where the film above covers them completely, and the counters that this saves are said', async () => {
    const found = await planOf(RING, { build: { school: 'overlay' } });
    expect(countPieces(layer(found, 'lock-gate').cut)).toEqual({ pieces: 1, holes: 0 });
    expect(ruling(found, 'build.filled')).toMatchObject({ value: 1 });
    expect(found.prepare!.layers.find(({ layer: { film } }) => film.id === 'lock-gate')!.weed.counters).toBe(0);
  });

  it('stay where some of them shows', async () => {
    const found = await planOf(RING.replace('width="24"', 'width="10"'), { build: { school: 'overlay' } });
    expect(layer(found, 'lock-gate').holes).toBe(1);
    expect(ruling(found, 'build.filled')).toBeUndefined();
  });
});

describe('layers that do not meet', () => {
  it('are not called trapped', async () => {
    const found = await planOf(
      '<rect width="30" height="30" fill="#b3262b"/><rect x="60" width="30" height="30" fill="#f2b632"/>',
    );
    expect(found.build!.trapMm).toBe(0);
    expect(ruling(found, 'build.school')!.value).toBe('No two');
  });
});

describe('a change of school', () => {
  it('does not make outlines and cut-outs look as if they did nothing, nor hides those that do nothing', async () => {
    const planner = new Planner(resourcesInNode);
    const body =
      '<rect width="50" height="50" fill="#b3262b"/><rect x="10" y="10" width="20" height="20" fill="#f2b632"/><rect x="80" width="20" height="20" fill="#1d4e89"/>';
    const build = {
      outlines: [{ ...newOutline('o', 'tar'), around: { by: 'films' as const, ids: ['wick-yellow'] } }],
      // These two lie apart.
      knockOuts: [
        {
          shapeFilmId: 'narrow-blue',
          baseFilmId: 'wick-yellow',
          clearanceMm: 1,
          fillBelowMm: 0,
          dropBelowMm2: null,
          joinWords: false,
        },
      ],
    };
    for (const school of ['trapped', 'overlay', 'inlay', 'trapped'] as const) {
      const found = await planOf(
        body,
        JSON.parse(JSON.stringify({ build: { ...build, school } })) as RecipePatch,
        planner,
      );
      expect(finding(found, 'outline-idle'), school).toBeUndefined();
      expect(finding(found, 'knock-out-idle'), school).toBeDefined();
    }
  });
});

describe('an outline that falls into islands', () => {
  it('runs completely under by one press, and all other pairs stay as they were', async () => {
    const body =
      '<path fill-rule="evenodd" fill="#b3262b" d="M0 0H60V60H0Z M20 20H40V40H20Z"/><rect x="70" width="40" height="60" fill="#f2b632"/><rect x="80" y="10" width="20" height="40" fill="#1d4e89"/>';
    const outlines = [{ ...newOutline('o', 'tar'), fillBelowMm: 1000, widthMm: 8 }];
    const build = { outlines, school: 'inlay' as const };
    const found = await planOf(body, { build });
    const islands = finding(found, 'outline-islands')!;
    const remedy = islands.remedies![0]!.patch as { build: Record<string, unknown> };
    expect(Object.keys(remedy.build).sort()).toEqual(['filmPairs', 'pairs']);
    const after = await planOf(body, { build: { ...build, ...remedy.build } });
    expect(finding(after, 'outline-islands')).toBeUndefined();
    expect(layer(after, 'tar')).toMatchObject({ pieces: 1, holes: 0 });
    // What lies above without touching the outline has it beneath, too.
    expect(areaOf(subtract(layer(after, 'narrow-blue').cut, layer(after, 'tar').cut))).toBeLessThan(0.01);
    const lap = (plan: Plan) => areaOf(intersect(layer(plan, 'wick-yellow').cut, layer(plan, 'narrow-blue').cut));
    expect(lap(after)).toBeCloseTo(lap(found), 3);
  });
});

describe('a darker film under a lighter one', () => {
  it('can be turned round by one press', async () => {
    const body =
      '<rect width="60" height="60" fill="#16181a"/><rect x="10" y="10" width="30" height="30" fill="#f7f5ef"/>';
    const found = await planOf(body);
    const remedy = finding(found, 'ghost')!.remedies!.find(({ label }) => label.includes('lighter'))!;
    const after = await planOf(body, remedy.patch as RecipePatch);
    expect(finding(after, 'ghost')).toBeUndefined();
    expect(after.build!.layers.map(({ film }) => film.id)).toEqual(['chalk', 'tar']);
  });

  it('is said to lie under all of it only where it does', async () => {
    const all =
      '<rect width="60" height="60" fill="#16181a"/><rect x="10" y="10" width="30" height="30" fill="#f7f5ef"/>';
    const part = all.replace('x="10" y="10"', 'x="45" y="10"');
    const message = async (body: string) =>
      finding(await planOf(body, { build: { school: 'overlay' } }), 'ghost')!.message;
    expect(await message(all)).toContain('lies under all of Chalk white');
    expect(await message(part)).toContain('lies under part of Chalk white');
  });
});

describe('with a base', () => {
  it('the trap that is said is the one that is cut', async () => {
    const body =
      '<rect width="30" height="60" fill="#16181a"/><rect x="30" width="30" height="60" fill="#f2b632"/><rect x="10" y="20" width="40" height="10" fill="#f7f5ef"/>';
    const found = await planOf(body, { build: { base: { filmId: 'heron' } } });
    const cut = found.build!.pairs.filter(({ school }) => school === 'trapped').map(({ trapMm }) => trapMm);
    expect(cut.length).toBeGreaterThan(0);
    expect(found.build!.trapMm).toBeGreaterThan(0);
    expect(cut).toContain(found.build!.trapMm);
  });
});
