import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { Resvg } from '@resvg/resvg-js';
import { Ajv } from 'ajv';
import { parseShop, type ShopFile } from '../core/shop/index.js';
import { drawingPart } from '../core/stations/artwork/index.js';
import { emptyRecipe, patchRecipe, type RecipePatch } from '../core/recipe/index.js';
import { pictureDifference } from '../core/testing/picture-difference.js';

const DRAWING = 'demo/artwork/heron-window.svg';
const DXF = [
  '0',
  'SECTION',
  '2',
  'HEADER',
  '9',
  '$INSUNITS',
  '70',
  '4',
  '0',
  'ENDSEC',
  '0',
  'SECTION',
  '2',
  'ENTITIES',
  '0',
  'CIRCLE',
  '8',
  'RED',
  '62',
  '1',
  '10',
  '20',
  '20',
  '20',
  '40',
  '15',
  '0',
  'ENDSEC',
  '0',
  'EOF',
  '',
].join('\n');
const folder = mkdtempSync(join(tmpdir(), 'lantern-cli-'));
const inFolder = (name: string, text?: string) => {
  const path = join(folder, name);
  if (text !== undefined) writeFileSync(path, text);
  return path;
};
const lantern = (...args: string[]) =>
  spawnSync(process.execPath, [join(process.env['LANTERN_PROGRAMS']!, 'cli/lantern.js'), ...args], {
    encoding: 'utf8',
  });
const json = <T>(path: string) => JSON.parse(readFileSync(path, 'utf8')) as T;

interface Separation {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly trapMm: number;
  readonly layers: readonly {
    id: string;
    colour: string;
    order: number;
    areaMm2: number;
    pieces: number;
    holes: number;
    svg: string;
  }[];
  readonly findings: readonly { code: string }[];
}

describe('lantern separate', () => {
  it('writes layers that laid over each other look like the artwork', () => {
    const out = inFolder('sep');
    expect(lantern('separate', DRAWING, '--out', out, '--width', '120').status).toBe(0);
    const report = json<Separation>(join(out, 'separation.json'));
    expect([report.widthMm, report.heightMm]).toEqual([120, 120]);
    expect(report.layers.map((layer) => layer.order)).toEqual([1, 2, 3, 4]);
    const svgs = report.layers.map((layer) => readFileSync(join(out, layer.svg), 'utf8'));
    for (const svg of svgs)
      expect(svg).toMatch(
        /^<svg [^>]*width="120mm" height="120mm" viewBox="0 0 120 120"><path fill="#[0-9a-f]{6}" fill-rule="evenodd" d="[^"]+"\/><\/svg>\n$/,
      );
    const all = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 120 120">${svgs.map((svg) => svg.replace(/<\/?svg[^>]*>/g, '')).join('')}</svg>`;
    expect(pictureDifference(readFileSync(DRAWING, 'utf8'), all)).toBeLessThan(0.0005);
  });

  it('takes a school, a height and a trap', () => {
    const out = inFolder('sep2');
    expect(
      lantern('separate', DRAWING, '--out', out, '--height', '60', '--build', 'trapped', '--trap', '0.8').status,
    ).toBe(0);
    expect(json<Separation>(join(out, 'separation.json'))).toMatchObject({ heightMm: 60, trapMm: 0.8 });
    expect(lantern('separate', DRAWING, '--out', out, '--build', 'stacked').status).toBe(0);
  });
});

describe('lantern separate, of other files', () => {
  it.each([
    ['a PDF', 'core/testing/pdfs/gs-1.pdf', 4],
    [
      'HP-GL',
      inFolder('old.plt', 'IN;SP1;PU0,0;PD400,0,400,400,0,400,0,0;PU;SP2;PU800,0;PD1200,0,1200,400,800,400,800,0;PU;'),
      2,
    ],
  ])('takes %s apart', (name, file, layers) => {
    const out = inFolder(name);
    expect(lantern('separate', file, '--out', out).status).toBe(0);
    expect(json<Separation>(join(out, 'separation.json')).layers).toHaveLength(layers);
  });

  it('refuses a PDF that is locked, with a sentence', () => {
    const { status, stderr } = lantern('separate', 'core/testing/pdfs/locked.pdf', '--out', inFolder('locked'));
    expect([status, stderr]).toEqual([2, expect.stringContaining('locked with a password')]);
  });
});

describe('lantern separate, of what is too much or nothing', () => {
  const svg = (body: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 3000 3000">${body}</svg>`;
  const separated = (name: string, body: string, head = '') => {
    const out = inFolder(name);
    const { status } = lantern('separate', inFolder(`${name}.svg`, head + svg(body)), '--out', out);
    return {
      status,
      ...json<{ layers: unknown[]; findings: { code: string; severity: string }[] }>(join(out, 'separation.json')),
    };
  };
  const round = (points: number) =>
    Array.from(
      { length: points },
      (_, i) =>
        `${i === 0 ? 'M' : 'L'}${(1500 + 1400 * Math.cos((2 * Math.PI * i) / points)).toFixed(3)} ${(1500 + 1400 * Math.sin((2 * Math.PI * i) / points)).toFixed(3)}`,
    ).join('');

  it.each([
    ['points', `<path d="${round(260_000)}Z"/>`, 'too-many-points'],
    [
      'colours',
      Array.from(
        { length: 1100 },
        (_, i) =>
          `<rect x="${(i % 50) * 50}" y="${Math.floor(i / 50) * 50}" width="40" height="40" fill="#${(i * 977).toString(16).padStart(6, '0')}"/>`,
      ).join(''),
      'too-many-colours',
    ],
    ['nothing', '<g/>', 'nothing-painted'],
  ])('%s: nothing is cut, and a blocker says why', (name, body, code) => {
    const { status, layers, findings } = separated(name, body);
    expect([status, layers]).toEqual([0, []]);
    expect(findings.filter(({ severity }) => severity === 'blocker').map((finding) => finding.code)).toContain(code);
  });

  it('reads entities that a drawing declares for itself', () => {
    const { layers, findings } = separated(
      'entity',
      '<rect width="&w;" height="300" fill="&red;"/>',
      '<!DOCTYPE svg [<!ENTITY red "#b3262b"><!ENTITY w "1500">]>',
    );
    expect(layers).toMatchObject([{ colour: '#b3262b', areaMm2: expect.closeTo(4500, 3) }]);
    expect(findings.map(({ code }) => code)).not.toContain('entity-ignored');
  });

  it('names a folder that was given for a file', () => {
    const { status, stderr } = lantern('separate', folder, '--out', inFolder('none'));
    expect(status).toBe(2);
    expect(stderr).toContain('It is a folder');
  });

  it('simulates no more moves than a sheet has', () => {
    const { status, stderr } = lantern(
      'simulate',
      inFolder('long.hpgl', `IN;PU0,0;PD${'9,9,0,0,'.repeat(130_000)}1,1;`),
      '--out',
      inFolder('long.svg'),
    );
    expect(status).toBe(2);
    expect(stderr).toContain('at most 250000');
  });
});

describe('lantern nest', () => {
  const square = {
    id: 'square',
    quantity: 3,
    rotations: [0, 90],
    rings: [
      [
        [0, 0],
        [50, 0],
        [50, 50],
        [0, 50],
      ],
    ],
  };

  it('places what fits and says what does not', () => {
    const file = inFolder(
      'items.json',
      JSON.stringify({
        unit: 'mm',
        sheets: [{ id: 'm', width: 100, length: 100, quantity: 1 }],
        spacing: 0,
        items: [
          square,
          {
            ...square,
            id: 'large',
            quantity: 1,
            rings: [
              [
                [0, 0],
                [200, 0],
                [0, 200],
              ],
            ],
          },
        ],
      }),
    );
    const out = inFolder('nest');
    expect(lantern('nest', file, '--out', out).status).toBe(0);
    const { placements, unplaced } = json<{ placements: unknown[]; unplaced: { item: string }[] }>(
      join(out, 'nest.json'),
    );
    expect([placements.length, unplaced.map((u) => u.item)]).toEqual([3, ['large']]);
  });

  it('goes round what is pinned on an irregular piece, and makes a layout again from its number of steps', () => {
    const sheets = [
      {
        id: 'rest',
        quantity: 1,
        rings: [
          [
            [0, 0],
            [200, 0],
            [200, 80],
            [80, 80],
            [80, 200],
            [0, 200],
          ],
        ],
      },
    ];
    const file = inFolder(
      'pinned.json',
      JSON.stringify({
        unit: 'mm',
        sheets,
        spacing: 2,
        items: [{ ...square, quantity: 4, rotations: 'free' }],
        pinned: [{ item: 'square', copy: 2, sheet: 'rest', x: 10, y: 120 }],
      }),
    );
    const nested = (...args: string[]) => {
      const out = inFolder('nest-pinned');
      expect(lantern('nest', file, '--out', out, ...args).status).toBe(0);
      return json<{ placements: { item: string; copy: number; x: number; y: number }[]; steps: number }>(
        join(out, 'nest.json'),
      );
    };
    const first = nested('--seconds', '0.5');
    expect(first.placements.find(({ copy }) => copy === 2)).toMatchObject({ x: 10, y: 120 });
    expect(first.placements).toHaveLength(4);
    expect(nested('--steps', String(first.steps))).toEqual(first);
  });

  it.each([
    [
      'outside',
      [{ item: 'square', sheet: 'm', x: 60, y: 0 }],
      /What is pinned cannot lie so: square 0 reaches over the edge of m/,
    ],
    [
      'over each other',
      [
        { item: 'square', sheet: 'm', x: 0, y: 0 },
        { item: 'square', sheet: 'm', x: 40, y: 0 },
      ],
      /square 0 and square 1 are nearer than the spacing/,
    ],
    [
      'too often',
      [{ item: 'square', copy: 3, sheet: 'm', x: 0, y: 0 }],
      /Copy 3 of “square” is pinned, counted from 0; 3 of it are wanted/,
    ],
    ['nowhere', [{ item: 'square', sheet: 'n', x: 0, y: 0 }], /on the sheet “n”, which there is not/],
  ])('says what is wrong with what is pinned %s', (_name, pinned, said) => {
    const file = inFolder(
      'pinned.json',
      JSON.stringify({
        unit: 'mm',
        sheets: [{ id: 'm', width: 100, length: 100, quantity: 1 }],
        spacing: 0,
        items: [square],
        pinned,
      }),
    );
    const { status, stderr } = lantern('nest', file, '--out', inFolder('out'));
    expect([status, stderr]).toEqual([2, expect.stringMatching(said)]);
  });
});

describe('lantern cut and simulate', () => {
  it('agree on how long it takes and how much is cut', () => {
    const plt = inFolder('h.plt');
    const cut = JSON.parse(lantern('cut', DRAWING, '--out', plt).stdout) as {
      paths: number;
      cutMm: number;
      seconds: number;
    };
    const trace = inFolder('trace.svg');
    const sim = JSON.parse(lantern('simulate', plt, '--out', trace).stdout) as {
      paths: number;
      cutMm: number;
      seconds: number;
    };
    expect(readFileSync(plt, 'utf8')).not.toContain('-');
    // The simulated knife comes down once more: to be turned, before the first cut.
    expect(sim.paths).toBe(cut.paths + 1);
    expect(Math.abs(sim.seconds / cut.seconds - 1)).toBeLessThan(0.05);
    expect(readFileSync(trace, 'utf8').match(/<path/g)).toHaveLength(cut.paths + 1);
  });

  it('mirror only what a film asks to be mirrored', () => {
    const art = inFolder(
      'corner.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"><rect x="10" y="10" width="10" height="10"/></svg>',
    );
    const largestX = (material: string) => {
      const plt = inFolder(`${material}.plt`);
      expect(lantern('cut', art, '--out', plt, '--material', material).status).toBe(0);
      return Math.max(...[...readFileSync(plt, 'utf8').matchAll(/(\d+),\d+/g)].map((m) => Number(m[1])));
    };
    expect(largestX('tar')).toBeLessThan(25 * 40);
    expect(largestX('apron-cream')).toBeGreaterThan(75 * 40);
  });
});

describe('lantern plan', () => {
  it('runs a recipe to its last station', () => {
    const bytes = readFileSync(DRAWING);
    writeFileSync(inFolder('heron-window.svg'), bytes);
    const recipe = patchRecipe(emptyRecipe('Window'), {
      artworks: [
        drawingPart({
          id: 'a',
          fileName: 'heron-window.svg',
          sha256: createHash('sha256').update(bytes).digest('hex'),
        }),
      ],
    });
    const out = inFolder('plan');
    expect(lantern('plan', inFolder('recipe.json', JSON.stringify(recipe)), '--out', out).status).toBe(0);
    const report = json<{ sheets: { film: string; films: string[] }[]; layers: { film: string; order: number }[] }>(
      join(out, 'report.json'),
    );
    report.sheets.forEach((sheet, i) => expect(existsSync(join(out, `sheet-${i + 1}-${sheet.film}.plt`))).toBe(true));
    report.layers.forEach((layer) =>
      expect(existsSync(join(out, `layer-${layer.order}-${layer.film}.svg`))).toBe(true),
    );
    expect(report.sheets.flatMap(({ films }) => films).sort()).toEqual(report.layers.map(({ film }) => film).sort());
    expect(report.sheets.length).toBeLessThan(4);
  });
});

describe('lantern recipe, recipe-schema, shop', () => {
  const png = () =>
    new Uint8Array(
      new Resvg(
        '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="60" height="40" fill="#fff"/><rect x="10" y="8" width="26" height="22" fill="#1f6b45"/></svg>',
      )
        .render()
        .asPng(),
    );

  it('write a recipe for what lies beside it, which the schema and the plan take', () => {
    writeFileSync(inFolder('window.svg'), readFileSync(DRAWING));
    writeFileSync(inFolder('patch.png'), png());
    writeFileSync(inFolder('plate.dxf'), DXF);
    const out = inFolder('fresh.json');
    expect(
      lantern(
        'recipe',
        inFolder('window.svg'),
        inFolder('patch.png'),
        inFolder('plate.dxf'),
        '--title',
        'Three',
        '--width',
        '300',
        '--out',
        out,
      ).status,
    ).toBe(0);
    const recipe = json<{ title: string; artworks: { kind: string }[]; surface: { size: object } }>(out);
    expect([recipe.title, recipe.artworks.map(({ kind }) => kind), recipe.surface.size]).toEqual([
      'Three',
      ['drawing', 'picture', 'drawing'],
      { mode: 'width', mm: 300 },
    ]);
    const schema = JSON.parse(lantern('recipe-schema').stdout) as object;
    expect(new Ajv({ strict: false }).validate(schema, recipe)).toBe(true);
    const at = inFolder('fresh-out');
    expect(lantern('plan', out, '--out', at).status).toBe(0);
    expect(json<{ design: { widthMm: number } }>(join(at, 'report.json')).design.widthMm).toBeCloseTo(300, 1);
  });

  it('write the demo shop, and plan with another', () => {
    const file = inFolder('shop.json');
    expect(lantern('shop', '--out', file).status).toBe(0);
    const shop = json<ShopFile>(file);
    expect(parseShop(shop)).toEqual(shop);
    writeFileSync(inFolder('window.svg'), readFileSync(DRAWING));
    expect(lantern('recipe', inFolder('window.svg'), '--out', inFolder('r.json')).status).toBe(0);
    const only = inFolder(
      'one-film.json',
      JSON.stringify({
        ...shop,
        films: shop.films.filter(({ id }) => id === 'tar'),
        stock: shop.stock.filter(({ filmId }) => filmId === 'tar'),
      }),
    );
    expect(lantern('plan', inFolder('r.json'), '--shop', only, '--out', inFolder('one-out')).status).toBe(0);
    expect(
      json<{ colours: { film: string }[] }>(join(inFolder('one-out'), 'report.json')).colours.map(({ film }) => film),
    ).toEqual(['tar', 'tar', 'tar', 'tar']);
  });
});

describe('help', () => {
  const commands = [...lantern('--help').stdout.matchAll(/^ {2}(\S+)/gm)].map(([, name]) => name!);

  it('names every command, and each says how it is called, whatever else is given', () => {
    expect(commands.length).toBeGreaterThan(12);
    for (const name of commands) {
      const { status, stdout, stderr } = lantern(name, 'nowhere.svg', '--help');
      expect([status, stderr]).toEqual([0, '']);
      expect(stdout).toMatch(new RegExp(`^lantern ${name}\\b`));
    }
    // In the checkout it is called through a script that installs and builds first.
    const called = spawnSync(process.execPath, ['scripts/run.mjs', 'cli/lantern', '--help'], { encoding: 'utf8' });
    expect(called.stdout).toBe(lantern('--help').stdout);
  });

  it('says the version of the package', () => {
    const { version } = json<{ version: string }>('package.json');
    expect(lantern('--version').stdout).toBe(`lantern ${version}\n`);
  });
});

describe('bad input', () => {
  it.each([
    ['no command', [], /^lantern: no command: /],
    ['an unknown command', ['fly'], /^lantern: fly: expected one of /],
    ['a slip of the finger', ['seperate'], /^lantern: seperate: there is no such command\. Did you mean separate\?$/m],
    ['letters in another order', ['nset'], /Did you mean nest\?/],
    ['a missing file', ['separate', 'nowhere.svg', '--out', 'x'], /^lantern: nowhere\.svg: there is no such file/],
    ['a folder', ['separate', 'demo', '--out', 'x'], /^lantern: /],
    ['no SVG', ['separate', 'package.json', '--out', 'x'], /^lantern: package\.json: This is not well-formed XML/],
    ['no --out', ['separate', DRAWING], /^lantern: separate: The option --out is missing/],
    ['two sizes', ['separate', DRAWING, '--out', 'x', '--width', '1', '--height', '1'], /^lantern: separate: /],
    [
      'a size that is none',
      ['separate', DRAWING, '--out', 'x', '--width', 'wide'],
      /^lantern: separate: --width must be a number/,
    ],
    [
      'an unknown school',
      ['separate', DRAWING, '--out', 'x', '--build', 'glued'],
      /^lantern: separate: --build must be/,
    ],
    ['an unknown option', ['separate', DRAWING, '--out', 'x', '--shiny'], /^lantern: separate: .*--shiny/],
    ['items that are none', ['nest', 'package.json', '--out', 'x'], /^lantern: package\.json: /],
    ['a recipe that is none', ['plan', 'package.json', '--out', 'x'], /^lantern: package\.json: /],
    ['a recipe of nothing', ['recipe', '--out', 'x.json'], /^lantern: recipe: Expected at least one artwork/],
    [
      'an artwork elsewhere',
      ['recipe', DRAWING, '--out', inFolder('x.json')],
      /^lantern: heron-window\.svg: It does not lie beside the recipe/,
    ],
    [
      'a shop that is none',
      ['plan', 'package.json', '--shop', 'package.json', '--out', 'x'],
      /^lantern: package\.json: A field is /,
    ],
    [
      'an unknown material',
      ['cut', DRAWING, '--out', 'x.plt', '--material', 'gold'],
      /^lantern: cut: There is no film called/,
    ],
  ])('%s ends with 2 and one line', (_, args, line) => {
    const { status, stderr, stdout } = lantern(...args);
    expect(status).toBe(2);
    expect(stderr).toMatch(line);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(stdout).toBe('');
  });
});

describe('lantern warp', () => {
  const art = inFolder(
    'label.svg',
    '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100"><path fill="#1d4e89" d="M20 10h160v80H20z"/><circle fill="#f2b632" cx="70" cy="50" r="25"/><path fill="#b3262b" d="M120 30h50v40h-50zm10 8v24h30V38z"/></svg>',
  );
  interface Warped extends Separation {
    readonly build: string;
    readonly map: {
      apexX: number;
      apexY: number;
      innerRadiusMm: number;
      outerRadiusMm: number;
      angleDeg: number;
      centreDeg: number;
      midRadiusMm: number;
      midV: number;
    };
  }
  const points = (svg: string) => {
    const rings: [number, number][][] = [];
    for (const part of /d="([^"]+)"/.exec(svg)![1]!.split('M').slice(1)) {
      const numbers = part.match(/-?[\d.]+/g)!.map(Number);
      let [x, y] = [0, 0];
      rings.push(
        Array.from({ length: numbers.length / 2 }, (_, i) => [(x += numbers[2 * i]!), (y += numbers[2 * i + 1]!)]),
      );
    }
    return rings;
  };

  it.each(['top', 'foot'] as const)(
    'bends the layers for a taper that is wide at the %s, each point by the formula',
    (wide) => {
      const out = inFolder(`warp-${wide}`);
      // What is cut is 160 × 80 of the artboard's 200 × 100: its own size counts, at 120 mm that is 0.75 of it.
      expect(
        lantern(
          'warp',
          art,
          '--d1',
          '102',
          '--d2',
          '86',
          '--slant',
          '118',
          '--wide',
          wide,
          '--width',
          '120',
          '--out',
          out,
        ).status,
      ).toBe(0);
      const { map, layers, build, widthMm, heightMm } = json<Warped>(join(out, 'separation.json'));
      expect([build, map.centreDeg, map.midV, map.angleDeg]).toEqual([
        'inlay',
        wide === 'foot' ? 90 : -90,
        expect.closeTo(30, 3),
        expect.closeTo((180 * 16) / 118, 9),
      ]);
      const flat = (x: number, y: number) => {
        const down = wide === 'foot' ? 1 : -1;
        const radius = Math.hypot(x - map.apexX, y - map.apexY);
        return {
          u: 60 + Math.atan2(x - map.apexX, down * (y - map.apexY)) * map.midRadiusMm,
          v: map.midV + down * (radius - map.midRadiusMm),
        };
      };
      const base = points(readFileSync(join(out, layers.find(({ colour }) => colour === '#1d4e89')!.svg), 'utf8'));
      // The edge of the label is the edge of the design; holes are the disc and the frame, where they lie on the drawing.
      for (const ring of base) {
        for (const [x, y] of ring) {
          const { u, v } = flat(x, y);
          const onEdge = Math.min(Math.abs(u), Math.abs(u - 120), Math.abs(v), Math.abs(v - 60));
          const onDisc = Math.abs(Math.hypot(u - 37.5, v - 30) - 18.75);
          const onFrame = (left: number, upper: number, right: number, lower: number) =>
            Math.min(
              Math.max(Math.abs(Math.min(u - left, right - u)), upper - v, v - lower, 0),
              Math.max(Math.abs(Math.min(v - upper, lower - v)), left - u, u - right, 0),
            );
          expect(Math.min(onEdge, onDisc, onFrame(75, 15, 112.5, 45), onFrame(82.5, 21, 105, 39))).toBeLessThan(0.02);
        }
      }
      const all = layers.flatMap(({ svg }) => points(readFileSync(join(out, svg), 'utf8')).flat());
      // The frame is cut to what is there.
      expect([
        Math.min(...all.map(([x]) => x)),
        Math.min(...all.map(([, y]) => y)),
        Math.max(...all.map(([x]) => x)),
        Math.max(...all.map(([, y]) => y)),
      ]).toEqual([expect.closeTo(0, 3), expect.closeTo(0, 3), expect.closeTo(widthMm, 3), expect.closeTo(heightMm, 3)]);
    },
  );

  it.each([
    [['--d1', '80', '--d2', '80', '--slant', '90', '--width', '50'], 'no taper'],
    [['--d1', '60', '--d2', '80', '--slant', '90', '--width', '50'], 'larger diameter comes first'],
    [['--d1', '300', '--d2', '80', '--slant', '90', '--width', '50'], 'does not reach'],
    [['--d1', '0', '--d2', '80', '--slant', '90', '--width', '50'], 'more than 0'],
    [['--d1', '-5', '--d2', '80', '--slant', '90', '--width', '50'], '--d1'],
    [['--d1', '80', '--d2', '70', '--slant', '90', '--width', '0'], '--width'],
    [['--d1', '80', '--d2', '70', '--slant', '90', '--width', '900'], 'mm round'],
    [['--d1', '80', '--d2', '70', '--slant', '90', '--width', '50', '--wide', 'left'], '--wide'],
    [['--d1', '80', '--d2', '70', '--width', '50'], '--slant'],
  ])('refuses %j with a sentence', (options, sentence) => {
    const { status, stderr } = lantern('warp', art, ...options, '--out', inFolder('no-warp'));
    expect([status, stderr.split('\n').length]).toEqual([2, 2]);
    expect(stderr).toContain(sentence);
  });
});

describe('lantern panels', () => {
  const letters = Array.from(
    { length: 9 },
    (_, i) => `<path fill="${i % 2 === 0 ? '#1d4e89' : '#b3262b'}" d="M${10 + i * 30} 10h22v40h-22z"/>`,
  ).join('');
  const art = inFolder(
    'sign.svg',
    `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="60mm" viewBox="0 0 300 60">${letters}</svg>`,
  );

  it('splits all layers at once where least is crossed, in the frame of the whole', () => {
    const out = inFolder('panels');
    // What is cut is 262 wide: at 2620 a letter is 220 and a gap 80.
    expect(lantern('panels', art, '--width', '2620', '--roll', '1000', '--lap', '8', '--out', out).status).toBe(0);
    const { panels } = json<{
      panels: { x0: number; x1: number; lapMm: number; layers: { id: string; svg: string }[] }[];
    }>(join(out, 'panels.json'));
    expect(panels).toHaveLength(3);
    for (const [k, { x0, x1, lapMm }] of panels.entries()) {
      expect(x1 - x0).toBeLessThanOrEqual(1000 + 1e-6);
      expect(x0).toBeCloseTo(k === 0 ? 0 : panels[k - 1]!.x1 - 8, 9);
      expect(lapMm).toBe(k === 0 ? 0 : 8);
      // In a gap: letters are 220 wide and 300 apart.
      if (k < 2) expect(x1 % 300).toBeGreaterThan(220);
    }
    for (const { layers } of panels)
      for (const { svg } of layers) expect(readFileSync(join(out, svg), 'utf8')).toContain('viewBox="0 0 2620 400"');
  });

  it.each([
    [['--width', '2000', '--roll', '0'], '--roll'],
    [['--width', '2000', '--roll', '10', '--lap', '9'], 'lap'],
    [['--width', '900000', '--roll', '20', '--lap', '1'], 'panels'],
  ])('refuses %j with a sentence', (options, sentence) => {
    const { status, stderr } = lantern('panels', art, ...options, '--out', inFolder('no-panels'));
    expect([status, stderr.includes(sentence)]).toEqual([2, true]);
  });
});

describe('lantern wrap-template', () => {
  const recipe = (surface: RecipePatch['surface']) =>
    inFolder('wrap.json', JSON.stringify(patchRecipe(emptyRecipe('Wrap'), { surface: surface! })));
  const { taper, cylinder } = emptyRecipe('Wrap').surface;

  it.each(['svg', 'dxf', 'pdf'])('writes a sector as %s, at true scale', (format) => {
    const out = inFolder(`wrap.${format}`);
    expect(
      lantern(
        'wrap-template',
        recipe({ kind: 'taper', taper: { ...taper, d1Mm: 100, d2Mm: 80, sideMm: 100 } }),
        '--out',
        out,
      ).status,
    ).toBe(0);
    expect(readFileSync(out, 'latin1').slice(0, 5)).toMatch(/^(<svg|0\nSEC|%PDF)/);
  });

  it.each([
    ['what is not round', { kind: 'flat' }, 'w.svg', 'round things'],
    ['figures that make no taper', { kind: 'taper', taper: { ...taper, d1Mm: 65 } }, 'w.svg', 'no taper'],
    ['another format', { kind: 'cylinder', cylinder }, 'w.png', '.svg, .dxf or .pdf'],
  ] as const)('refuses %s', (_, surface, name, sentence) => {
    const { status, stderr } = lantern('wrap-template', recipe(surface), '--out', inFolder(name));
    expect([status, stderr.includes(sentence)]).toEqual([2, true]);
  });
});

describe('lantern prepare', () => {
  interface Prepared {
    readonly marks: readonly { shape: string; x: number; y: number; ring: [number, number][] }[];
    readonly markGapMm: number;
    readonly extraFilmMm2: number;
    readonly layers: readonly {
      svg: string;
      border: [number, number][][];
      relief: number[][];
      strips: { areaMm2: number; bulkMm: number; ring: [number, number][][] }[];
      counters: { x: number; y: number; areaMm2: number }[];
      looseParts: { x: number; y: number; areaMm2: number; easilyLost: boolean }[];
      minutes: number;
    }[];
  }
  const PX = 8;
  const out = inFolder('prepared');
  const layersOf = () => {
    const folderOf = inFolder('to-prepare');
    if (!existsSync(join(folderOf, 'separation.json')))
      expect(lantern('separate', DRAWING, '--out', folderOf, '--width', '260').status).toBe(0);
    return json<Separation>(join(folderOf, 'separation.json')).layers.map(({ svg }) => join(folderOf, svg));
  };

  /** What a picture of a layer shows, by its own counting: pieces of film, and pieces of nothing that film goes all round. */
  function counted(svg: string) {
    const { pixels, width, height } = new Resvg(readFileSync(svg, 'utf8'), {
      fitTo: { mode: 'zoom', value: (PX * 25.4) / 96 },
    }).render();
    const isFilm = (i: number) => pixels[4 * i + 3]! > 127;
    const seen = new Uint8Array(width * height);
    let [parts, counters] = [0, 0];
    for (let start = 0; start < width * height; start += 1) {
      if (seen[start]) continue;
      const film = isFilm(start);
      const stack = [start];
      seen[start] = 1;
      let [many, isOutside] = [0, false];
      while (stack.length > 0) {
        const i = stack.pop()!;
        many += 1;
        const x = i % width;
        if (x === 0 || x === width - 1 || i < width || i >= width * (height - 1)) isOutside = true;
        for (const next of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
          if (next < 0 || next >= width * height || seen[next] || isFilm(next) !== film) continue;
          seen[next] = 1;
          stack.push(next);
        }
      }
      if (many < PX * PX) continue;
      if (film) parts += 1;
      else if (!isOutside) counters += 1;
    }
    return { parts, counters };
  }

  it('finds the counters and parts that another count finds, and puts marks, borders and lines where they may be', () => {
    const layers = layersOf();
    expect(lantern('prepare', ...layers, '--relief', '--border', 'groups', '--out', out).status).toBe(0);
    const prepared = json<Prepared>(join(out, 'prepare.json'));
    expect(prepared.marks.map(({ shape }) => shape)).toEqual(['diamond', 'notched bar']);
    expect(prepared.layers.map(({ svg }) => svg)).toEqual(layers.map((path) => path.split('/').at(-1)));
    prepared.layers.forEach((layer, i) => {
      const found = counted(layers[i]!);
      expect([
        layer.looseParts.filter(({ areaMm2 }) => areaMm2 > 1).length,
        layer.counters.filter(({ areaMm2 }) => areaMm2 > 1).length,
      ]).toEqual([found.parts, found.counters]);
      expect(layer.minutes).toBeGreaterThan(40 / 60);
      for (const { bulkMm } of layer.strips) expect(bulkMm).toBeLessThanOrEqual(80.01);
      expect(layer.border.length).toBeGreaterThan(0);
    });
  });

  it('takes other films, borders and marks, and one layer without marks', () => {
    const [first] = layersOf();
    const one = inFolder('one');
    expect(lantern('prepare', first!, '--family', 'flock', '--border', 'none', '--out', one).status).toBe(0);
    const alone = json<Prepared>(join(one, 'prepare.json'));
    expect([alone.marks, alone.extraFilmMm2, alone.layers[0]!.border, alone.layers[0]!.strips]).toEqual([
      [],
      0,
      [],
      [],
    ]);
    expect(lantern('prepare', ...layersOf(), '--marks', 'three', '--border', 'contour', '--out', one).status).toBe(0);
    const three = json<Prepared>(join(one, 'prepare.json'));
    expect(three.marks).toHaveLength(3);
    for (const { border } of three.layers) expect(border).toHaveLength(1);
  });

  it.each([
    [['--marks', 'four'], '--marks must be one of'],
    [['--border', 'round'], '--border must be one of'],
    [['--family', 'paper'], '--family must be one of'],
  ])('refuses %j with a sentence', (options, sentence) => {
    const { status, stderr } = lantern('prepare', layersOf()[0]!, ...options, '--out', inFolder('no-prepare'));
    expect([status, stderr.includes(sentence)]).toEqual([2, true]);
    expect(lantern('prepare', '--out', inFolder('no-prepare')).status).toBe(2);
  });
});

describe('lantern learn', () => {
  const one = { sheets: 1, counters: 10, looseParts: 6, outlineMm: 5000, thinMm: 500 };

  it('prints the figures it learned and the minutes they make, in order', () => {
    const history = inFolder(
      'history.json',
      JSON.stringify({
        weeds: Array.from({ length: 5 }, (_, i) => ({ ...one, counters: 10 + i, minutes: 6 + 0.2 * i })),
        predict: [one, { ...one, smallParts: 6, strips: 2 }],
      }),
    );
    const { status, stdout } = lantern('learn', history);
    const { weeding, minutes } = JSON.parse(stdout) as { weeding: Record<string, number>; minutes: number[] };
    expect([status, minutes.length, Object.keys(weeding).length]).toEqual([0, 2, 7]);
    // Twice as slow as the trade: what is predicted goes there.
    expect(minutes[0]!).toBeGreaterThan(4.5);
    expect(minutes[1]!).toBeGreaterThan(minutes[0]!);
  });

  it('without a log keeps to the trade, and refuses what is no history', () => {
    const { stdout } = lantern('learn', inFolder('none.json', JSON.stringify({ weeds: [], predict: [one] })));
    expect((JSON.parse(stdout) as { minutes: number[] }).minutes[0]).toBeCloseTo((40 + 50 + 4.2 + 60 + 3) / 60, 9);
    const { status, stderr } = lantern(
      'learn',
      inFolder('bad.json', JSON.stringify({ weeds: [{ ...one, minutes: -1 }], predict: [] })),
    );
    expect([status, stderr.includes('/weeds/0/minutes')]).toEqual([2, true]);
  });
});

describe('lantern batch', () => {
  interface Batch {
    readonly sheets: readonly {
      readonly pieceIds: readonly string[];
      readonly mat?: string;
      readonly film?: string;
      readonly zones?: readonly {
        readonly film: string;
        readonly x: number;
        readonly y: number;
        readonly width: number;
        readonly length: number;
      }[];
      readonly groups: readonly {
        readonly job: number;
        readonly layer: string;
        readonly copy: number;
        readonly x: number;
        readonly y: number;
        readonly rotation: number;
        readonly mirrored: boolean;
      }[];
      readonly usedMm2: number;
    }[];
    readonly passes: number;
    readonly keptMm2: number;
    readonly takenMm2: number;
    readonly unplaced: readonly unknown[];
    readonly steps: readonly { readonly film: string; readonly steps: number }[];
  }

  it('lays two jobs together: each layer, mirrored, turned and moved as it says, lies where its program cuts', () => {
    const recipeFile = inFolder('name.json');
    writeFileSync(
      inFolder('name.svg'),
      '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="50mm" viewBox="0 0 80 50"><path fill="#16181a" d="M0 0h80v50H0z"/><path fill="#f2b632" d="M20 10h30v25H20z"/></svg>',
    );
    expect(lantern('recipe', inFolder('name.svg'), '--out', recipeFile).status).toBe(0);
    const batch = inFolder(
      'batch.json',
      JSON.stringify({
        jobs: [
          { recipe: 'name.json', copies: 3 },
          { recipe: 'name.json', copies: 1 },
        ],
        spacing: 4,
      }),
    );
    expect(lantern('batch', batch, '--out', inFolder('batched'), '--seconds', '0.2').stderr).toBe('');
    expect(lantern('plan', recipeFile, '--out', inFolder('alone')).status).toBe(0);
    const made = json<Batch>(join(folder, 'batched', 'batch.json'));
    expect(made.unplaced).toEqual([]);
    expect(
      made.sheets.flatMap(({ groups }) => groups.map(({ job, layer, copy }) => `${job} ${layer} ${copy}`)).sort(),
    ).toEqual(
      ['tar', 'wick-yellow']
        .flatMap((layer) => [`0 ${layer} 0`, `0 ${layer} 1`, `0 ${layer} 2`, `1 ${layer} 0`])
        .sort(),
    );
    expect(made.passes).toBe(made.sheets.length);
    // With the steps that it says it made it comes out the same.
    expect(made.steps.map(({ film }) => film).sort()).toEqual(['tar', 'wick-yellow']);
    const again = inFolder('again.json', JSON.stringify({ ...json<object>(batch), steps: made.steps }));
    expect(lantern('batch', again, '--out', inFolder('batched-again')).status).toBe(0);
    expect(json<Batch>(join(folder, 'batched-again', 'batch.json'))).toEqual(made);
    expect(made.takenMm2).toBeGreaterThan(made.keptMm2);
    made.sheets.forEach(({ groups }, i) => {
      const pairs = [
        ...readFileSync(join(folder, 'batched', `sheet-${i + 1}.plt`), 'utf8').matchAll(/(-?\d+),(-?\d+)/g),
      ].map(([, x, y]) => [Number(x) / 40, Number(y) / 40] as const);
      expect(pairs.length).toBeGreaterThan(8);
      for (const { layer, x, y, rotation, mirrored } of groups) {
        const svg = readFileSync(
          join(folder, 'alone', layer === 'tar' ? 'layer-1-tar.svg' : 'layer-2-wick-yellow.svg'),
          'utf8',
        );
        const height = Number(/viewBox="0 0 [\d.]+ ([\d.]+)"/.exec(svg)![1]);
        const [, px, py] = /d="M(-?[\d.]+) (-?[\d.]+)/.exec(svg)!;
        const [mx, my] = [(mirrored ? -1 : 1) * Number(px), height - Number(py)];
        const r = (rotation * Math.PI) / 180;
        const [cx, cy] = [mx * Math.cos(r) - my * Math.sin(r) + x, mx * Math.sin(r) + my * Math.cos(r) + y];
        // The knife trails its holder: a corner is passed within the blade's offset and overcut.
        expect(Math.min(...pairs.map(([hx, hy]) => Math.hypot(hx - cx, hy - cy)))).toBeLessThan(1.2);
      }
    });
  });

  it.each([
    ['{"jobs":[]}', 'not-a-batch'],
    ['{"jobs":[{"recipe":"nowhere.json"}]}', 'nowhere.json'],
    ['{"jobs":[{"recipe":"name.json","copies":0}]}', 'copies'],
    ['{"jobs":[{"recipe":"name.json"}],"order":"backwards"}', 'order'],
  ])('refuses %s in one line', (text, said) => {
    const { status, stderr } = lantern('batch', inFolder('bad-batch.json', text), '--out', inFolder('never'));
    expect(status).toBe(2);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    if (said !== 'not-a-batch') expect(stderr).toContain(said);
  });
});
