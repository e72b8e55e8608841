import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { boundsOf, type Box } from '../geometry/index.js';
import {
  AT_ORIGIN,
  drawingPart,
  letteringPart,
  newLettering,
  picturePart,
  placedBox,
  type ArtworkPart,
} from '../stations/artwork/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import { InputError } from '../words/index.js';
import { Planner } from './planner.js';
import type { Plan } from './plan.js';

const bytes = (text: string) => new TextEncoder().encode(text);
const svg = (body: string, width = 100, height = 50) =>
  bytes(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`,
  );
const source = (id: string, fileName = `${id}.svg`) => ({
  id,
  fileName,
  sha256: [...id]
    .reduce((sum, c) => sum + c.charCodeAt(0).toString(16), '')
    .padEnd(64, '0')
    .slice(0, 64),
});
const RED = svg('<rect width="100" height="50" fill="#b3262b"/>');
const BLUE = svg('<circle cx="20" cy="20" r="20" fill="#1d4e89"/>', 40, 40);
const PNG = new Uint8Array(
  new Resvg(
    `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" fill="#fff"/><rect x="100" y="50" width="100" height="100" fill="#1f6b45"/></svg>`,
  )
    .render()
    .asPng(),
);
const words = letteringPart('w', { ...newLettering('HI'), capHeightMm: 25 });

const planner = new Planner(resourcesInNode);
const sources = new Map([
  ['red', RED],
  ['blue', BLUE],
  ['png', PNG],
  ['bad', bytes('<svg')],
]);
const input = (recipe: Recipe, more: ReadonlyMap<string, Uint8Array> = new Map()) => ({
  recipe: parseRecipe(JSON.parse(JSON.stringify(recipe))),
  shop: BENCH_SHOP,
  sources: new Map([...sources, ...more]),
});
const plan = (recipe: Recipe) => planner.plan(input(recipe));
const withParts = (artworks: readonly ArtworkPart[], patch: RecipePatch = {}) =>
  patchRecipe(patchRecipe(emptyRecipe('Parts'), { artworks, surface: { size: { mode: 'own' } } }), patch);
const at = (part: ArtworkPart, xMm: number, yMm: number, more: Partial<ArtworkPart['place']> = {}): ArtworkPart => ({
  ...part,
  place: { ...part.place, xMm, yMm, ...more },
});
const [red, blue, png] = [
  drawingPart(source('red')),
  drawingPart(source('blue')),
  picturePart(source('png', 'png.png')),
];
const shownBox = ({ regions }: Plan, colour: string): Box =>
  boundsOf(regions!.regions.filter((r) => r.colour === colour).flatMap((r) => [...r.rings]))!;
const round = (box: Box) => [box.minX, box.minY, box.maxX, box.maxY].map((v) => Math.round(v * 100) / 100 + 0);

describe('copies with other words', () => {
  it('stand on one baseline, as far apart as the widest needs, also upside down', async () => {
    for (const turnDeg of [0, 180]) {
      const name = {
        ...letteringPart('w', { ...newLettering('Hen'), capHeightMm: 20 }),
        place: { ...AT_ORIGIN, xMm: 50, yMm: 40, turnDeg },
      };
      const recipe = patchRecipe(emptyRecipe('Copies'), { artworks: [name], surface: { size: { mode: 'own' } } });
      const planner = new Planner(resourcesInNode);
      const patch = await planner.repeating(
        { recipe, shop: BENCH_SHOP, sources: new Map() },
        {
          ids: ['w'],
          how: { columns: 3, rows: 1, gapMm: 6, words: ['Hen', 'gypsy', 'Åland'], colours: null },
          newIds: ['a', 'b', 'c', 'd', 'e', 'f'],
        },
      );
      const { matrices, artwork } = await planner.plan({
        recipe: patchRecipe(recipe, patch),
        shop: BENCH_SHOP,
        sources: new Map(),
      });
      const baselines = artwork!.parts.map(({ part, read }) => {
        const [, , , d, , f] = matrices!.get(part.id)!;
        return f + d * read.artwork.baselineMm!;
      });
      expect(artwork!.parts.map(({ part }) => (part.kind === 'lettering' ? part.lettering.text : ''))).toEqual([
        'Hen',
        'gypsy',
        'Åland',
      ]);
      for (const y of baselines) expect(y).toBeCloseTo(baselines[0]!, 6);
      // They do not reach each other.
      const boxes = artwork!.parts
        .map(({ part, extents }) => placedBox(part.place, extents.cut))
        .sort((p, q) => p.minX - q.minX);
      boxes.slice(1).forEach((box, i) => expect(box.minX - boxes[i]!.maxX).toBeGreaterThanOrEqual(6 - 1e-6));
    }
  });
});

describe('several parts', () => {
  it('lie where they are placed, and the design is as large as all of them', async () => {
    const found = await plan(withParts([at(red, 0, 0), at(blue, 100, 30)]));
    expect(found.surface!.design).toMatchObject({ widthMm: 170, heightMm: 75 });
    expect(round(shownBox(found, '#b3262b'))).toEqual([0, 0, 100, 50]);
    expect(round(shownBox(found, '#1d4e89'))).toEqual([130, 35, 170, 75]);
  });

  it('are turned, scaled and mirrored round their middles', async () => {
    const found = await plan(
      withParts(
        [at(red, 0, 0), at(red, 200, 0, { turnDeg: 90, scale: 0.5, mirrored: true })].map((part, i) => ({
          ...part,
          id: `r${i}`,
        })),
      ),
    );
    expect(found.surface!.design).toMatchObject({ widthMm: expect.closeTo(262.5, 9), heightMm: 50 });
  });

  it('cover each other in their order, and one film is one piece where they meet', async () => {
    const stack = await plan(withParts([at(red, 0, 0), at(blue, 0, 0)], { build: { school: 'inlay' } }));
    expect(stack.build!.layers.map((layer) => layer.holes)).toEqual([1, 0]);
    const joined = await plan(withParts([at(red, 0, 0), at({ ...red, id: 'two' }, 80, 10)]));
    expect(joined.build!.layers.map((layer) => layer.pieces)).toEqual([1]);
  });

  it('are scaled together by the surface', async () => {
    const found = await plan(
      withParts([at(red, 0, 0), at(words, 0, 60)], { surface: { size: { mode: 'width', mm: 200 } } }),
    );
    expect(round(shownBox(found, '#b3262b'))).toEqual([0, 0, 200, 100]);
    const letters = shownBox(found, '#16181a');
    expect(letters.maxY - letters.minY).toBeCloseTo(50, 1);
  });

  it('go on when one of them cannot be read', async () => {
    const found = await plan(withParts([at(red, 0, 0), drawingPart(source('bad'))]));
    expect(found.findings.find((f) => f.code === 'not-xml')).toMatchObject({
      severity: 'blocker',
      message: expect.stringContaining('bad.svg'),
    });
    expect(found.build!.layers).toHaveLength(1);
  });

  it('keep what was computed of those that stay', async () => {
    let reads = 0;
    const counting = new Planner({
      ...resourcesInNode,
      unpackerOf: (kind) => ((reads += 1), resourcesInNode.unpackerOf(kind)),
    });
    const steps: string[] = [];
    const run = (x: number) =>
      counting.plan(input(withParts([at(png, 0, 0), at(red, x, 0)])), {
        onStep: (doing) => doing !== 'weeding' && steps.push(doing),
      });
    await run(200);
    const first = steps.length;
    await run(230);
    expect(first).toBeGreaterThan(4);
    expect(steps).toHaveLength(first);
    expect(reads).toBeLessThanOrEqual(1);
  });
});

describe('a picture in a plan', () => {
  it('is traced, ruled on and cut', async () => {
    const found = await plan(withParts([png]));
    expect(found.build!.layers.map((layer) => [layer.film.name, layer.pieces])).toEqual([[expect.any(String), 1]]);
    const ruling = found.rulings.find((r) => r.id === 'artwork.trace.colours.png')!;
    expect(ruling).toMatchObject({ value: 1, overridden: false });
    const background = found.rulings.find((r) => r.id === 'artwork.trace.background.png')!;
    const kept = await plan(
      patchRecipe(withParts([png]), background.alternatives!.find((a) => /All of it/.test(a.label))!.patch),
    );
    expect(kept.build!.layers).toHaveLength(2);
  });

  it('counts specks at the size it is made', async () => {
    const dotted = new Uint8Array(
      new Resvg(
        `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="200"><rect width="400" height="200" fill="#fff"/><rect x="100" y="50" width="100" height="100" fill="#1f6b45"/><circle cx="300" cy="100" r="6" fill="#1f6b45"/></svg>`,
      )
        .render()
        .asPng(),
    );
    const dots = picturePart(source('dots', 'dots.png'));
    const pieces = async (widthMm: number) =>
      (
        await planner.plan(
          input(withParts([dots], { surface: { size: { mode: 'width', mm: widthMm } } }), new Map([['dots', dotted]])),
        )
      ).build!.layers[0]!.pieces;
    expect([await pieces(8), await pieces(80)]).toEqual([1, 2]);
  });
});

describe('adding a part', () => {
  it('to nothing places it by itself; words keep their height', async () => {
    expect(await planner.adding(input(emptyRecipe('Empty')), red)).toEqual({ artworks: [red] });
    expect(await planner.adding(input(emptyRecipe('Empty')), words)).toEqual({
      artworks: [words],
      surface: { size: { mode: 'own' } },
    });
  });

  it('to a design puts it underneath, all as large as it was', async () => {
    const fitted = patchRecipe(emptyRecipe('Fitted'), { artworks: [red] });
    const before = await plan(fitted);
    const patch = await planner.adding(input(fitted), words);
    const after = await plan(patchRecipe(fitted, patch));
    const [old, now] = [shownBox(before, '#b3262b'), shownBox(after, '#b3262b')];
    expect(now.maxX - now.minX).toBeCloseTo(old.maxX - old.minX, 6);
    const letters = shownBox(after, '#16181a');
    expect(letters.maxY - letters.minY).toBeCloseTo(25, 1);
    expect(letters.minY).toBeGreaterThan(now.maxY);
    expect((letters.minX + letters.maxX) / 2).toBeCloseTo((now.minX + now.maxX) / 2, 1);
  });

  it('no larger than the design', async () => {
    const small = withParts([blue]);
    const { artworks } = await planner.adding(input(small), { ...red, id: 'large' });
    expect(artworks![1]!.place.scale).toBeCloseTo(0.4, 9);
  });

  it('that cannot be read is refused with its file’s name', async () => {
    const refused = await planner
      .adding(input(emptyRecipe('Empty')), drawingPart(source('bad')))
      .catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(InputError);
    expect((refused as InputError).source).toBe('bad.svg');
  });
});

describe('replacing a part', () => {
  const old = svg(
    '<rect width="100" height="50" fill="#b3262b"/><circle cx="30" cy="25" r="10" fill="#f2b632"/><circle cx="70" cy="25" r="10" fill="#1d4e89"/>',
  );
  const next = svg(
    '<rect width="200" height="100" fill="#b3272c"/><circle cx="60" cy="50" r="20" fill="#f2b632"/><circle cx="140" cy="50" r="20" fill="#1f6b45"/>',
    200,
    100,
  );
  const files = new Map([
    ['old', old],
    ['next', next],
  ]);
  const [a, b] = [drawingPart(source('old')), drawingPart(source('next'))];
  const recipe = withParts([at(a, 10, 20, { turnDeg: 15 })], {
    films: { byColour: { '#b3262b': 'ember', '#f2b632': 'brass', '#1d4e89': 'tar' } },
    repair: { recolour: { '#1d4e89': '#f2b632' }, noFilm: ['#b3262b'] },
    build: { trapMm: 0.7 },
  });

  it('keeps its place and size, and the decisions that still apply', async () => {
    const { patch, notes } = await planner.replacing(input(recipe, files), 'old', b);
    const { artworks, films, repair, build } = patchRecipe(recipe, patch);
    expect(artworks).toEqual([
      {
        ...b,
        id: 'old',
        place: {
          ...AT_ORIGIN,
          xMm: expect.closeTo(10, 6),
          yMm: expect.closeTo(20, 6),
          turnDeg: 15,
          scale: expect.closeTo(0.5, 6),
        },
      },
    ]);
    // Near enough to be the same red; the blue is gone for good.
    expect(films.byColour).toEqual({ '#b3272c': 'ember', '#f2b632': 'brass' });
    expect([repair.recolour, repair.noFilm, build.trapMm]).toEqual([{}, ['#b3272c'], 0.7]);
    expect(notes.join(' ')).toMatch(
      /vivid red \(#b3262b\) now apply to vivid red \(#b3272c\).*Deep blue \(#1d4e89\) is gone.*New colours: .*\(#1f6b45\)/,
    );
  });

  it('carries what colours are taken for to their heirs, each heir to one of them, and places to the new size', async () => {
    const two = svg(
      '<rect width="100" height="50" fill="#b3262b"/><circle cx="30" cy="25" r="10" fill="#b3282d"/><circle cx="70" cy="25" r="10" fill="#1d4e89"/>',
    );
    const place = { part: 'duo', xMm: 70, yMm: 25, acrossMm: 28 };
    const decided = withParts([drawingPart(source('duo'))], {
      repair: { recolour: { '#1d4e89': '#b3262b', '#b3282d': '#b3262b' }, only: { thicken: [place] } },
      films: { byColour: { '#b3262b': 'ember', '#b3282d': 'brass' } },
    });
    const { patch } = await planner.replacing(
      input(
        decided,
        new Map([
          ['duo', two],
          [
            'duet',
            svg(
              '<rect width="200" height="100" fill="#b3272c"/><circle cx="140" cy="50" r="20" fill="#1d4e89"/>',
              200,
              100,
            ),
          ],
        ]),
      ),
      'duo',
      drawingPart(source('duet')),
    );
    const { repair, films } = patchRecipe(decided, patch);
    // Both reds are nearly the new one; only the nearer one's decisions go to it.
    expect(Object.keys(films.byColour)).toEqual(['#b3272c']);
    expect(repair.recolour).toEqual({ '#1d4e89': '#b3272c' });
    expect(repair.only.thicken).toEqual([{ part: 'duo', xMm: 140, yMm: 50, acrossMm: 56 }]);
  });

  it('keeps decisions about a colour that another part still has', async () => {
    const both = patchRecipe(recipe, { artworks: [...recipe.artworks, blue] });
    const { patch } = await planner.replacing(input(both, files), 'old', b);
    expect(patchRecipe(both, patch).films.byColour['#1d4e89']).toBe('tar');
  });

  it.each([
    ['keeps its scale on the same artboard, where it stood', 100, 50, 1, 0, null],
    ['keeps its scale on a wider artboard, says so, and can be made as large as before', 160, 50, 1, 0, 31.25],
    [
      'is made as large as before when the whole drawing comes at another size, and can keep its scale',
      200,
      100,
      0.5,
      1,
      50,
    ],
  ] as const)('%s', async (_, width, height, scale, isFitted, otherMm) => {
    const [was, is] = [`board-${width}`, `next-${width}`];
    const rect = (w: number) => `<rect x="0" y="0" width="${w}" height="20" fill="#b3262b"/>`;
    const files = new Map([
      [was, svg(rect(50))],
      // The same square, and a dot that changes how large all of it is.
      [
        is,
        svg(
          `${rect(width === 200 ? 100 : 50)}<rect x="${width - 2}" y="0" width="2" height="2" fill="#b3262b"/>`,
          width,
          height,
        ),
      ],
    ]);
    const decided = withParts([at(drawingPart(source(was)), 10, 20, { scale: 1 })]);
    const { patch, notes, otherSize } = await planner.replacing(input(decided, files), was, drawingPart(source(is)));
    const [part] = patchRecipe(decided, patch).artworks;
    if (isFitted) expect(part!.place.scale).toBeLessThan(1);
    else expect(part!.place.scale).toBe(scale);
    if (width === 100) expect(part!.place).toMatchObject({ xMm: 10, yMm: 20 });
    expect(notes.join(' ').includes('The artboard was 100 × 50 mm')).toBe(otherMm !== null);
    if (otherMm === null) expect(otherSize).toBeNull();
    else expect([otherSize!.partId, otherSize!.place.scale === 1]).toEqual([was, isFitted === 1]);
  });

  it('that is gone is refused', async () => {
    await expect(planner.replacing(input(recipe, files), 'nobody', b)).rejects.toThrow('does not have this artwork');
  });
});
