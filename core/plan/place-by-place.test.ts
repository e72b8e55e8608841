import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { drawingPart, spared, takenAt, takenBack, takenEverywhere } from '../stations/artwork/index.js';
import type { PlaceRemedy } from '../words/index.js';
import {
  emptyRecipe,
  parseRecipe,
  patchRecipe,
  type JobFinding,
  type Recipe,
  type RecipePatch,
} from '../recipe/index.js';
import { Planner } from './planner.js';
import type { Plan } from './plan.js';

/** Two of everything that spoils a cut, one to the left and one to the right. */
const twice = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="60mm" viewBox="0 0 200 60">${[0, 100].map((x) => `<g transform="translate(${x})">${body}</g>`).join('')}</svg>`;
const PLATE = '<rect x="5" y="5" width="60" height="50" fill="#1d4e89"/>';
const SPOILT: Readonly<Record<PlaceRemedy, readonly [code: string, body: string]>> = {
  tidy: ['hidden', `<circle cx="30" cy="30" r="4" fill="#b3262b"/>${PLATE}`],
  specks: ['specks', `${PLATE}<circle cx="80" cy="30" r=".3" fill="#1d4e89"/>`],
  thicken: ['thin-parts', `${PLATE}<path d="M64 29.800h30v.4h-30z" fill="#1d4e89"/>`],
  gaps: ['narrow-gaps', `${PLATE}<path d="M65.300 10h20v40h-20z" fill="#1d4e89"/>`],
  simplify: [
    'crowded-outline',
    `<path fill="#1d4e89" d="M${Array.from({ length: 4000 }, (_, i) => `${(30 + 20 * Math.cos((i * Math.PI) / 2000)).toFixed(4)} ${(30 + 20 * Math.sin((i * Math.PI) / 2000)).toFixed(4)}`).join('L')}Z"/>`,
  ],
  hairlines: [
    'hairlines',
    `${PLATE}<rect x="70" y="10" width="20" height="40" fill="none" stroke="#1d4e89" stroke-width=".1"/>`,
  ],
  crossings: ['self-crossing', `<path fill="#1d4e89" fill-rule="evenodd" d="M50 5L65 55 25 25H75L35 55z"/>`],
  bare: [
    'white-shapes',
    `${PLATE}<circle cx="30" cy="30" r="10" fill="#ffffff"/><circle cx="30" cy="30" r="3" fill="#1d4e89"/>`,
  ],
};
const KINDS = Object.keys(SPOILT) as PlaceRemedy[];

const start = patchRecipe(emptyRecipe('Places'), {
  artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
  surface: { size: { mode: 'own' } },
  build: { school: 'inlay' },
});
const planOf = (body: string, recipe: Recipe): Promise<Plan> =>
  new Planner(resourcesInNode).plan({
    recipe: parseRecipe(JSON.parse(JSON.stringify(recipe))),
    shop: BENCH_SHOP,
    sources: new Map([['a', new TextEncoder().encode(twice(body))]]),
  });
const atLeft = (finding: JobFinding) => finding.places!.filter((box) => box.maxX < 100).length;
const of = (plan: Plan, code: string) => plan.findings.find((finding) => finding.code === code);
const after = (recipe: Recipe, patch: RecipePatch) => patchRecipe(recipe, patch);
/** The remedy that acts at single places, and the first of the finding's places at the left. */
const pick = (finding: JobFinding) => {
  const remedy = finding.remedies!.find((other) => other.acts)!;
  const left = finding.places!.findIndex((box) => box.maxX < 100);
  return { remedy: { ...remedy, acts: remedy.acts! }, place: finding.at![left]! };
};

describe.each(KINDS)('a remedy that acts at places: %s', (kind) => {
  const [code, body] = SPOILT[kind];

  it('acts at one place alone, then everywhere, and is taken back', async () => {
    const found = of(await planOf(body, start), code)!;
    const [before, left] = [found.places!.length, atLeft(found)];
    expect(before).toBe(2 * left);
    const { remedy, place } = pick(found);
    const here = after(start, takenAt(start.repair, remedy, place));
    const rest = of(await planOf(body, here), code)!;
    expect([atLeft(rest), rest.places!.length]).toEqual([left - 1, before - 1]);
    const everywhere = after(here, takenEverywhere(here.repair, remedy));
    expect(of(await planOf(body, everywhere), code)).toBeUndefined();
    const back = after(here, takenBack(here.repair, kind));
    expect(of(await planOf(body, back), code)!.places).toHaveLength(before);
  });

  it('leaves a place that is let be, and says no more of it', async () => {
    const found = of(await planOf(body, start), code)!;
    const { remedy, place } = pick(found);
    const letBe = after(start, spared(start.repair, kind, place));
    expect(of(await planOf(body, letBe), code)!.places).toHaveLength(found.places!.length - 1);
    const everywhere = after(letBe, takenEverywhere(letBe.repair, remedy));
    const plain = await planOf(body, after(start, takenEverywhere(start.repair, remedy)));
    const kept = await planOf(body, everywhere);
    expect(of(kept, code)).toBeUndefined();
    expect(JSON.stringify(kept.regions!.regions)).not.toBe(JSON.stringify(plain.regions!.regions));
  });
});

it('an artwork that is nothing but specks stops the job once they are dropped, with a word', async () => {
  const dropped = await planOf(
    '<circle cx="30" cy="30" r=".3" fill="#1d4e89"/>',
    after(start, { repair: { speckMm2: 1 } }),
  );
  expect(dropped.findings).toMatchObject([{ code: 'nothing-painted', severity: 'blocker' }]);
  expect(dropped.build).toBeUndefined();
});

it('a place stays with what it means when the design is made larger', async () => {
  const [code, body] = SPOILT.bare;
  const { remedy, place } = pick(of(await planOf(body, start), code)!);
  const here = after(start, takenAt(start.repair, remedy, place));
  const larger = await planOf(body, after(here, { surface: { size: { mode: 'width', mm: 700 } } }));
  expect(of(larger, code)!.places!.map((box) => box.minX > 350)).toEqual([true]);
});
