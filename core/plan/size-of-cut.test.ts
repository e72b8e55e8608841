import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { boundsOf, joinBoxes, type Box } from '../geometry/index.js';
import { emptyRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart, letteringPart, newLettering, type ArtworkPart } from '../stations/artwork/index.js';
import { seeded } from '../testing/seeded.js';
import { Planner } from './planner.js';
import type { Plan } from './plan.js';

const svg = (body: string, width = 100, height = 60) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`,
  );
const source = (id: string) => ({ id, fileName: `${id}.svg`, sha256: id.charCodeAt(0).toString(16).padStart(64, '0') });
const planner = new Planner(resourcesInNode);
const plan = (drawing: string, patch: RecipePatch = {}) =>
  planner.plan({
    recipe: patchRecipe(
      patchRecipe(emptyRecipe('Size'), {
        artworks: [
          drawingPart({
            ...source('a'),
            sha256: [...drawing]
              .reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) >>> 0, 7)
              .toString(16)
              .padStart(64, '0'),
          }),
        ],
      }),
      patch,
    ),
    shop: BENCH_SHOP,
    sources: new Map([['a', svg(drawing)]]),
  });
const sizeOf = ({ surface }: Plan) =>
  [surface!.design.widthMm, surface!.design.heightMm].map((mm) => Number(mm.toFixed(4)));
const ruled = ({ rulings }: Plan) => rulings.find((ruling) => ruling.id === 'surface.size')!;
const boxOfCuts = ({ build }: Plan): Box =>
  build!.layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.cut)), null)!;

const DISC = '<circle cx="40" cy="30" r="20" fill="#b3262b"/>';

describe('the size of a design', () => {
  it('is that of what is cut; the artboard can be counted, and counted no more', async () => {
    const cut = await plan(DISC);
    expect([sizeOf(cut), boxOfCuts(cut).minX]).toEqual([[40, 40], expect.closeTo(0, 3)]);
    expect(ruled(cut).because.join(' ')).toContain('size of what is cut');
    const [whole] = ruled(cut).alternatives!;
    const counted = await plan(DISC, whole!.patch);
    expect([whole!.label, sizeOf(counted), boxOfCuts(counted).minX, ruled(counted).overridden]).toEqual([
      'Count the whole artboard',
      [100, 60],
      expect.closeTo(20, 2),
      true,
    ]);
    const [only] = ruled(counted).alternatives!;
    expect([only!.label, sizeOf(await plan(DISC, only!.patch))]).toEqual(['Count only what is cut', [40, 40]]);
  });
  it('offers no artboard that makes no difference', async () =>
    expect(ruled(await plan('<rect width="100" height="60" fill="#b3262b"/>')).alternatives).toEqual([]));
  it('a width that is given is the width of what is cut', async () => {
    const { minX, maxX } = boxOfCuts(await plan(DISC, { surface: { size: { mode: 'width', mm: 123 } } }));
    expect(maxX - minX).toBeCloseTo(123, 1);
  });
  it('leaves out a ground that is no film', async () => {
    const ground = `<rect width="100" height="60" fill="#ffffff"/>${DISC}`;
    expect([sizeOf(await plan(ground)), sizeOf(await plan(ground, { repair: { noFilm: ['#ffffff'] } }))]).toEqual([
      [100, 60],
      [40, 40],
    ]);
  });
  it('counts what reaches beyond the artboard when that is taken', async () => {
    const over = '<rect x="-20" y="10" width="60" height="20" fill="#b3262b"/>';
    expect([sizeOf(await plan(over)), sizeOf(await plan(over, { repair: { beyondArtboard: 'take' } }))]).toEqual([
      [40, 20],
      [60, 20],
    ]);
  });

  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'seed %i: is the box round all that is cut, however its parts are turned, mirrored and scaled',
    async (seed) => {
      const random = seeded(seed);
      const files = new Map<string, Uint8Array>();
      const parts = Array.from({ length: 1 + Math.floor(3 * random()) }, (_, i): ArtworkPart => {
        const place = {
          xMm: 300 * random(),
          yMm: 300 * random(),
          scale: 0.3 + 2 * random(),
          turnDeg: Math.round(360 * random()) - 180,
          mirrored: random() < 0.5,
        };
        if (random() < 0.3) return { ...letteringPart(`l${i}`, { ...newLettering('Quay'), capHeightMm: 20 }), place };
        const at = () => (80 * random()).toFixed(1);
        const id = `${i}${seed}`;
        files.set(
          id,
          svg(
            `<path d="M${at()} ${at()}L${at()} ${at()} ${at()} ${at()}z" fill="#b3262b" stroke="#1d4e89" stroke-width="3" stroke-linejoin="round"/><ellipse cx="${at()}" cy="${at()}" rx="12" ry="7" fill="#f2b632"/>`,
          ),
        );
        return { ...drawingPart({ ...source(id), sha256: `${seed}${i}`.padStart(64, 'a') }), place };
      });
      const found = await planner.plan({
        recipe: patchRecipe(emptyRecipe('Parts'), {
          artworks: parts,
          surface: { size: { mode: 'scale', times: 0.5 + 3 * random() } },
        }),
        shop: BENCH_SHOP,
        sources: files,
      });
      const box = boxOfCuts(found);
      expect([box.minX, box.minY]).toEqual([expect.closeTo(0, 1), expect.closeTo(0, 1)]);
      expect([box.maxX, box.maxY]).toEqual(sizeOf(found).map((mm) => expect.closeTo(mm!, 1)));
    },
  );
});

describe('what is offered', () => {
  it('has a name of its own, however much there is to put right', async () => {
    const spoilt = `<linearGradient id="g"><stop stop-color="#f2b632"/><stop offset="1" stop-color="#b3262b"/></linearGradient><pattern id="p" width="10" height="10" patternUnits="userSpaceOnUse"><rect width="10" height="10" fill="#1f6b45"/></pattern>
      <rect width="100" height="60" fill="#ffffff"/><rect x="5" y="5" width="30" height="20" fill="url(#g)"/><rect x="5" y="30" width="30" height="20" fill="url(#g)"/><rect x="40" y="5" width="30" height="20" fill="url(#p)"/>
      <text x="10" y="58" font-family="Harbour Slab" font-size="8">Wick</text><text x="40" y="58" font-family="Quay Sans" font-size="8">Lock</text><rect x="75" y="5" width="20" height="20" fill="none" stroke="#16181a" stroke-width="0.05"/>
      <circle cx="50" cy="40" r="5" fill="#b3262b"/><circle cx="50" cy="40" r="5" fill="#b3262b"/><circle cx="62" cy="40" r="5" fill="#b5282d"/><circle cx="70" cy="35" r=".3" fill="#1d4e89"/><circle cx="80" cy="40" r="8" fill="#fff" opacity=".2"/><path d="M75 50h20v.4H75z" fill="#1d4e89"/>
      <image x="2" y="2" width="3" height="3" href="data:image/png;base64,AAAA"/><path d="M90 30L98 38 98 30 90 38z" fill="#1f6b45"/>`;
    const { findings } = await plan(spoilt);
    expect(findings.length).toBeGreaterThan(10);
    const labels = findings.flatMap((finding) => (finding.remedies ?? []).map((remedy) => remedy.label));
    expect(labels.filter((label, i) => labels.indexOf(label) !== i)).toEqual([]);
    // Two gradients are one matter with two places; what is told of an element can be shown.
    const gradients = findings.filter((finding) => finding.code === 'gradient-flattened');
    expect(gradients).toMatchObject([
      { count: 2, places: [{ minX: expect.closeTo(5, 1) }, { minY: expect.closeTo(30, 1) }] },
    ]);
    for (const finding of findings.filter(({ message }) => /<\w+/.test(message)))
      expect([finding.message, finding.where]).toEqual([finding.message, expect.anything()]);
  });

  it('is nothing for one layer, which needs no build', async () => {
    const { rulings } = await plan(DISC);
    const school = rulings.find((ruling) => ruling.id === 'build.school')!;
    expect([school.sentence.replace('{value}', String(school.value)), school.alternatives]).toEqual([
      'One layer needs no build: it is cut as it is.',
      undefined,
    ]);
  });
});
