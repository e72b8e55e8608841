import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { areaOf, boundsOf, intersect, unite } from '../geometry/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import { Planner } from './planner.js';
import { planReport } from './report.js';
import type { Plan } from './plan.js';

const DRAWINGS = { heron: 'heron-window.svg', wren: 'marsh-wren.svg' } as const;
const drawing = (name: keyof typeof DRAWINGS) =>
  readFileSync(new URL(`../../demo/artwork/${DRAWINGS[name]}`, import.meta.url));

const withArtwork = (patch: RecipePatch = {}): Recipe =>
  parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Test'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
      }),
      patch,
    ),
  );
const plan = (
  bytes: Uint8Array | string,
  patch: RecipePatch = {},
  planner = new Planner(resourcesInNode),
): Promise<Plan> =>
  planner.plan({
    recipe: withArtwork(patch),
    shop: BENCH_SHOP,
    sources: new Map([['a', typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes]]),
  });
const codes = ({ findings }: Plan) => findings.map((finding) => finding.code);
const ruling = ({ rulings }: Plan, id: string) => rulings.find((r) => r.id === id);

describe('the demo jobs', () => {
  it('is a window decal of four films', async () => {
    const { build, sheets, cut, assemble, findings } = await plan(drawing('heron'), {
      surface: { size: { mode: 'width', mm: 230 } },
    });
    expect(build!.layers.map((layer) => layer.film.id).sort()).toEqual([
      'chalk',
      'narrow-blue',
      'towpath',
      'wick-yellow',
    ]);
    // Two films of each maker's settings go through the cutter side by side.
    expect([sheets!.sheets.length, cut!.programs.length, assemble!.steps.length]).toEqual([2, 2, 6]);
    expect(findings.filter((finding) => finding.severity === 'blocker')).toEqual([]);
  });

  it('is a boat’s name of two films, 1.4 m long, turned to lie along the roll', async () => {
    const { surface, sheets } = await plan(drawing('wren'), { surface: { size: { mode: 'width', mm: 1400 } } });
    expect(surface!.design.widthMm).toBeCloseTo(1400, 6);
    expect(sheets!.sheets.map((sheet) => [sheet.films[0]!.id, sheet.pieces[0]!.kind])).toEqual([
      ['wick-yellow', 'roll'],
      ['tar', 'roll'],
    ]);
    for (const sheet of sheets!.sheets) expect(sheet.usedLengthMm).toBeGreaterThan(1300);
  });
});

describe('rulings', () => {
  it('can each be followed to their rule and its source', async () => {
    const page = readFileSync(new URL('../../docs/rulings.md', import.meta.url), 'utf8');
    const made = await plan(drawing('heron'), {
      films: { byColour: { '#f2b632': 'brass', '#1d4e89': 'apron-cream', '#f7f5ef': 'apron-cream' } },
      build: {
        outlines: [{ id: 'o', filmId: 'chalk', around: null, each: 'all', widthMm: 3, join: 'round', fillBelowMm: 0 }],
        knockOuts: [
          {
            shapeFilmId: 'brass',
            baseFilmId: 'towpath',
            clearanceMm: 1,
            fillBelowMm: 0,
            dropBelowMm2: null,
            joinWords: false,
          },
        ],
      },
    });
    const kinds = new Set(
      made.rulings.map(({ id }) =>
        id.replace(/^(films|sheets|cut)\.(?!join|mirror).*/, '$1.<').replace(/^(\w+\.[\w-]+)\..*/, '$1'),
      ),
    );
    expect(kinds.size).toBeGreaterThan(12);
    for (const kind of kinds) expect(page).toContain(`\`${kind}`);
    for (const [, file] of page.matchAll(/`(core\/[^`]+)`/g))
      expect(existsSync(new URL(`../../${file}`, import.meta.url)), file).toBe(true);
  });
});

describe('films', () => {
  it('are the nearest in stock, unless the maker chose, and colours of one film are one layer', async () => {
    const own = await plan(drawing('heron'));
    expect(own.films!.colours.every((use) => !use.chosen && use.difference < 0.1)).toBe(true);
    const joined = await plan(drawing('heron'), { films: { byColour: { '#f2b632': 'chalk' } } });
    expect(joined.build!.layers).toHaveLength(3);
    expect(ruling(joined, 'films.join.chalk')).toBeDefined();
  });

  it('put on in the same way as the maker’s choice are preferred, and mixed ways are warned of', async () => {
    const pressed = await plan(
      '<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60"><rect width="30" height="60" fill="#f0e6cd"/><rect x="30" width="30" height="60" fill="#f7f5ef"/><rect x="60" width="30" height="60" fill="#16181a"/></svg>',
      { films: { byColour: { '#f0e6cd': 'apron-cream' } } },
    );
    expect(Object.fromEntries(pressed.films!.colours.map((use) => [use.colour, use.film.id]))).toEqual({
      '#f0e6cd': 'apron-cream',
      '#f7f5ef': 'apron-cream',
      '#16181a': 'tar',
    });
    expect(codes(pressed)).toContain('families-mixed');
  });

  it('that are no longer in stock are stood in for, with a word about it', async () => {
    expect(codes(await plan(drawing('heron'), { films: { byColour: { '#f2b632': 'sold-out' } } }))).toContain(
      'film-unknown',
    );
  });

  it('that take nothing on top are moved to the top', async () => {
    const brass = await plan(drawing('heron'), { films: { byColour: { '#1d4e89': 'brass' } } });
    expect(brass.build!.layers.at(-1)!.film.id).toBe('brass');
    expect(ruling(brass, 'build.top')).toBeDefined();
  });
});

describe('what would spoil the cut', () => {
  const paper =
    '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><rect width="100" height="60" fill="#ffffff"/><rect x="10" y="10" width="40" height="40" fill="#16181a"/><rect x="49" y="29.800" width="30" height=".4" fill="#16181a"/></svg>';
  const own = { surface: { size: { mode: 'own' } as const } };

  it('is found, and its remedies end it', async () => {
    const found = await plan(paper, own);
    expect(codes(found)).toEqual(expect.arrayContaining(['white-ground', 'thin-parts']));
    const remedies = found.findings
      .filter((f) => ['white-ground', 'thin-parts'].includes(f.code))
      .map((f) => f.remedies![0]!.patch.repair);
    const right = await plan(paper, {
      ...own,
      repair: Object.assign({}, ...remedies) as RecipePatch['repair'] & object,
    });
    expect(codes(right)).not.toEqual(expect.arrayContaining(['white-ground']));
    expect(codes(right)).not.toEqual(expect.arrayContaining(['thin-parts']));
    expect(right.regions!.asDrawn).toHaveLength(3);
  });

  it('is let be when the maker says so, and kept in sight', async () => {
    const { findings, letBe } = await plan(paper, { ...own, repair: { letBe: { 'white-ground': 'it is film' } } });
    expect(letBe.map((finding) => finding.code)).toEqual(['white-ground']);
    expect(findings.map((finding) => finding.code)).not.toContain('white-ground');
  });

  it('leaves the surface bare where a colour is no film, also under its edge', async () => {
    const window =
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><rect width="60" height="60" fill="#16181a"/><circle cx="30" cy="30" r="15" fill="#ffffff"/></svg>';
    for (const school of ['overlay', 'inlay', 'trapped'] as const) {
      const { build } = await plan(window, { ...own, build: { school }, repair: { noFilm: ['#ffffff'] } });
      expect(build!.layers).toHaveLength(1);
      expect(areaOf(build!.layers[0]!.cut)).toBeCloseTo(3600 - Math.PI * 225, 0);
    }
  });
});

describe('the trap', () => {
  it('is ruled with every term explained, and a smaller one is warned about with a way back', async () => {
    const ruled = await plan(drawing('heron'));
    expect(ruling(ruled, 'build.trap')!.because).toHaveLength(5);
    const narrow = await plan(drawing('heron'), { build: { trapMm: 0.1 } });
    expect(ruling(narrow, 'build.trap')).toMatchObject({ overridden: true, proposed: ruled.build!.trapMm, value: 0.1 });
    expect(narrow.findings.find((f) => f.code === 'trap-narrow')!.remedies).toEqual([
      expect.objectContaining({ patch: { build: { trapMm: null } } }),
    ]);
  });

  it('is wider when the layers are laid by eye', async () => {
    const [marked, byEye] = await Promise.all([
      plan(drawing('heron')),
      plan(drawing('heron'), { preparation: { marks: false } }),
    ]);
    expect(byEye.build!.trap!.exactMm).toBeGreaterThan(marked.build!.trap!.exactMm);
  });
});

describe('preparation and sheets', () => {
  it('put the same marks on every layer, clear of the artwork, and keep layers rigid on the sheet', async () => {
    const { prepare, sheets, build } = await plan(drawing('heron'), { surface: { size: { mode: 'width', mm: 230 } } });
    const art = unite(build!.layers.flatMap((layer) => [...layer.cut]));
    const marks = prepare!.panels[0]!.marks!.marks.map((mark) => mark.ring);
    expect(areaOf(intersect(art, unite(marks)))).toBe(0);
    for (const sheet of sheets!.sheets) {
      const [group] = sheet.groups;
      const [a, b, c, d, e, f] = group!.matrix;
      for (const { xMm, yMm } of prepare!.panels[0]!.marks!.marks) {
        const [x, y] = [a * xMm + c * yMm + e, b * xMm + d * yMm + f];
        const found = group!.contours
          .map((ring) => boundsOf([ring])!)
          .some((box) => Math.hypot((box.minX + box.maxX) / 2 - x, (box.minY + box.maxY) / 2 - y) < 1e-6);
        expect(found).toBe(true);
      }
    }
  });

  it('mirror a film that is cut from its back, loudly', async () => {
    const { sheets, rulings } = await plan(drawing('heron'), {
      surface: { size: { mode: 'width', mm: 230 } },
      films: { byColour: { '#f7f5ef': 'apron-cream' } },
    });
    const matrix = sheets!.sheets
      .flatMap(({ groups }) => groups)
      .find(({ filmId }) => filmId === 'apron-cream')!.matrix;
    expect(matrix[0] * matrix[3] - matrix[1] * matrix[2]).toBeCloseTo(1, 9);
    expect(rulings.some((r) => r.id === 'sheets.mirror.apron-cream')).toBe(true);
    const plain = sheets!.sheets.flatMap(({ groups }) => groups).find(({ filmId }) => filmId !== 'apron-cream')!.matrix;
    // From y down to y up is itself a mirror: a film cut from the front has it, a mirrored one has it twice.
    expect(plain[0] * plain[3] - plain[1] * plain[2]).toBeCloseTo(-1, 9);
  });

  it('say which film is too small, and still place the others', async () => {
    const large = await plan(drawing('heron'), {
      surface: { size: { mode: 'width', mm: 900 }, panels: { ...emptyRecipe('x').surface.panels, split: 'never' } },
      preparation: { border: 'box', markPlaces: 'outside' },
    });
    expect(codes(large).filter((code) => code === 'film-too-small')).toHaveLength(4);
    expect(large.sheets!.sheets).toEqual([]);
  });

  it('make as many copies as are asked for', async () => {
    const { sheets } = await plan(drawing('heron'), {
      surface: { size: { mode: 'width', mm: 60 } },
      sheets: { copies: 5 },
    });
    for (const film of ['chalk', 'narrow-blue'])
      expect(sheets!.sheets.reduce((n, s) => n + s.groups.filter(({ filmId }) => filmId === film).length, 0)).toBe(5);
  });
});

describe('a plan', () => {
  it('says what is missing when there is no artwork', async () => {
    const empty = await new Planner(resourcesInNode).plan({
      recipe: emptyRecipe('Empty'),
      shop: BENCH_SHOP,
      sources: new Map(),
    });
    expect(codes(empty)).toEqual(['no-artwork']);
  });

  it.each([
    ['nothing painted', '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"/>', 'nothing-painted'],
    [
      'all of it outside',
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><rect x="20" width="5" height="5"/></svg>',
      'nothing-painted',
    ],
    ['a broken file', '<svg', 'not-xml'],
  ])('is a blocker and no crash for %s', async (_, text, code) => {
    const broken = await plan(text);
    expect(broken.findings.find((finding) => finding.code === code)?.severity).toBe('blocker');
    expect(broken.cut).toBeUndefined();
  });

  it('is the same from a planner that has seen other things as from a new one', async () => {
    const used = new Planner(resourcesInNode);
    for (const trapMm of [0.2, 0.9, null]) await plan(drawing('heron'), { build: { trapMm } }, used);
    const [again, fresh] = [
      await plan(drawing('heron'), { build: { trapMm: 0.9 } }, used),
      await plan(drawing('heron'), { build: { trapMm: 0.9 } }),
    ];
    expect(planReport(again)).toEqual(planReport(fresh));
    expect(again.cut!.programs.map((program) => program.runs)).toEqual(
      fresh.cut!.programs.map((program) => program.runs),
    );
  });

  it('keeps the stages that a decision does not touch', async () => {
    const planner = new Planner(resourcesInNode);
    const before = await plan(drawing('heron'), {}, planner);
    const after = await plan(drawing('heron'), { preparation: { borderGapMm: 6 } }, planner);
    expect(after.build).toBe(before.build);
    expect(after.panels).toEqual(before.panels);
    expect(after.surface).toEqual(before.surface);
    expect(after.prepare).not.toBe(before.prepare);
  });

  it('can be stopped between stages', async () => {
    const stop = new Planner(resourcesInNode).plan(
      { recipe: withArtwork(), shop: BENCH_SHOP, sources: new Map([['a', drawing('heron')]]) },
      { breathe: () => Promise.reject(new Error('stopped')) },
    );
    await expect(stop).rejects.toThrow('stopped');
  });
});
