import { describe, expect, it } from 'vitest';
import { frozenSheet } from '../testing/frozen-sheet.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { unwarpPoint } from '../engines/surface/index.js';
import {
  areaOf,
  boundsOf,
  grow,
  intersect,
  joinBoxes,
  signedArea,
  subtract,
  unite,
  type Box,
  type Rings,
} from '../geometry/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import { newBlank, type Shop } from '../shop/index.js';
import { AT_ORIGIN, drawingPart, letteringPart, newLettering, type ArtworkPart } from '../stations/artwork/index.js';
import {
  fromBlank,
  measureTroubles,
  newReadings,
  partsInDesigns,
  readingsOf,
  readTeam,
  sayFieldTroubles,
  surfaceSlice,
  wrapTemplate,
} from '../stations/surface/index.js';
import { viewOf } from './page/make-view.js';
import type { Plan } from './plan.js';
import { Planner } from './planner.js';
import { printJob, PRINT_ON, PRINTS } from './print-job.js';
import { planReport } from './report.js';

const begun = surfaceSlice.beginning.surface;
const SIGN =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="50mm" viewBox="0 0 120 50"><path fill="#1d4e89" d="M0 0h120v50H0z"/><circle fill="#f2b632" cx="35" cy="25" r="15"/><path fill="#b3262b" d="M62 10h40v30H62zm10 8v14h20V18z"/></svg>';

async function planOf(
  svg: string,
  patch: RecipePatch = {},
  {
    shop = BENCH_SHOP,
    taken = {},
    planner = new Planner(resourcesInNode),
  }: { readonly shop?: Shop; readonly taken?: Readonly<Record<string, number>>; readonly planner?: Planner } = {},
): Promise<Plan> {
  const recipe = parseRecipe(
    patchRecipe(emptyRecipe('Surface'), {
      artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: shaOf(svg) })],
      ...patch,
    }),
  );
  return planner.plan({ recipe, shop, taken, sources: new Map([['a', new TextEncoder().encode(svg)]]) });
}

/** Tells drawings of one test apart. */
function shaOf(text: string): string {
  return [...text]
    .reduce((sum, sign) => (Math.imul(sum, 31) + sign.charCodeAt(0)) >>> 0, 7)
    .toString(16)
    .padStart(8, '0')
    .repeat(8);
}

const boxOf = (all: readonly Rings[]) => all.reduce<Box | null>((sum, rings) => joinBoxes(sum, boundsOf(rings)), null)!;
const codes = ({ findings }: Plan) => findings.map(({ code }) => code);
const said = ({ rulings }: Plan, id: string) => rulings.find((ruling) => ruling.id === id);
const surface = (patch: Partial<Recipe['surface']>): RecipePatch => ({ surface: patch });

describe('a design that is longer than any may be', () => {
  it('stops the job at once, in each direction, and the remedy puts it right', async () => {
    for (const size of [
      { mode: 'width', mm: 10_001 },
      { mode: 'height', mm: 90_000 },
      { mode: 'scale', times: 500 },
    ] as const) {
      const plan = await planOf(SIGN, { surface: { ...begun, size } });
      const blockers = plan.findings.filter(({ severity }) => severity === 'blocker');
      expect(blockers.map(({ code }) => code)).toEqual(['design-too-long']);
      expect([plan.artwork !== undefined, plan.surface !== undefined, plan.build]).toEqual([true, true, undefined]);
      const { surface } = parseRecipe(patchRecipe(emptyRecipe('Large'), blockers[0]!.remedies![0]!.patch));
      expect(surface.size).toEqual({ mode: 'width', mm: 10_000 });
    }
    const most = await planOf(SIGN, { surface: { ...begun, size: { mode: 'width', mm: 10_000 } } });
    expect(most.findings.map(({ code }) => code)).not.toContain('design-too-long');
    expect(most.build).toBeDefined();
  });
});

describe('a design on a taper', () => {
  const onTin = surface({
    kind: 'taper',
    taper: { ...begun.taper, d1Mm: 102, d2Mm: 86, sideBy: 'slant', sideMm: 118, lipMm: 5, footMm: 5 },
    size: { mode: 'width', mm: 90 },
  });

  it('is bent before anything is built: every layer, laid back flat, is the flat one with its own laps', async () => {
    const [bent, flat] = [
      await planOf(SIGN, { ...onTin, build: { school: 'inlay' } }),
      await planOf(SIGN, { surface: { size: { mode: 'width', mm: 90 } }, build: { school: 'inlay' } }),
    ];
    const { map } = bent.surface!;
    expect(bent.build!.layers.map(({ key }) => key)).toEqual(flat.build!.layers.map(({ key }) => key));
    for (const [i, layer] of bent.build!.layers.entries()) {
      const back = layer.cut.map((ring) =>
        Float64Array.from(
          Array.from({ length: ring.length / 2 }, (_, k) => unwarpPoint(map!, ring[2 * k]!, ring[2 * k + 1]!)).flat(),
        ),
      );
      const other = flat.build!.layers[i]!.cut;
      const apart = areaOf(subtract(unite(back), other)) + areaOf(subtract(other, unite(back)));
      expect(apart).toBeLessThan(0.002 * areaOf(other));
    }
  });

  it('has its traps at their width, whatever the bend', async () => {
    const bent = await planOf(SIGN, { ...onTin, build: { school: 'trapped', trapMm: 0.8 } });
    const base = bent.build!.layers[0]!;
    // The lap is a strip of the trap's width along the edge of what lies over it.
    const over = bent.build!.layers.slice(1).flatMap(({ visible }) => visible);
    const lap = areaOf(base.cut) - areaOf(base.visible);
    const length = over.reduce((sum, ring) => sum + lengthOf(ring), 0);
    expect(lap / length).toBeGreaterThan(0.74);
    expect(lap / length).toBeLessThan(0.82);
  });

  it('reports its map, in the frame that the layers are written in', async () => {
    const bent = await planOf(SIGN, onTin);
    const { surface: report } = planReport(bent);
    expect(report).toMatchObject({
      kind: 'taper',
      designMm: { width: 90, height: 37.5 },
      map: { angleDeg: expect.closeTo((180 * 16) / 118, 6), centreDeg: -90, midV: 18.75 },
      spanDeg: expect.any(Number),
      seenAtOnceMm: expect.any(Number),
    });
    const box = boxOf(bent.build!.layers.map(({ cut }) => cut));
    expect([box.minX, box.minY].every((mm) => Math.abs(mm) < 0.1)).toBe(true);
    expect(box.maxX).toBeCloseTo(bent.surface!.frame.widthMm, 1);
  });

  it('has remedies taken at one place where that place comes to lie', async () => {
    const dots =
      '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="50mm" viewBox="0 0 120 50"><path fill="#1d4e89" d="M0 20h120v10H0z"/><circle fill="#1d4e89" cx="10" cy="5" r=".5"/><circle fill="#1d4e89" cx="110" cy="45" r=".5"/></svg>';
    const found = await planOf(dots, onTin);
    const finding = found.findings.find(({ code }) => code === 'specks')!;
    expect(finding.at).toHaveLength(2);
    // Where it was found on the flat drawing, so that it is shown at the artwork.
    expect(finding.places!.map(({ minX, maxX }) => Math.round((minX + maxX) / 2)).sort((a, b) => a - b)).toEqual([
      8, 83,
    ]);
    const spared = await planOf(dots, {
      ...onTin,
      repair: { speckMm2: 1, spared: { specks: [{ ...finding.at![0]!, reason: 'a star' }] } },
    });
    expect(spared.build!.layers[0]!.pieces).toBe(2);
  });
});

const lengthOf = (ring: Float64Array) =>
  ring.reduce(
    (sum, _, i) =>
      i % 2 === 0
        ? sum + Math.hypot(ring[i]! - ring[(i + 2) % ring.length]!, ring[i + 1]! - ring[(i + 3) % ring.length]!)
        : sum,
    0,
  );

describe('glass that is read from outside', () => {
  const onGlass = surface({
    kind: 'glass',
    flat: { ...begun.flat, widthMm: 300, heightMm: 200 },
    size: { mode: 'width', mm: 120 },
  });

  it('is cut as a mirror image, every layer, and is the same again on a film that is cut from its back', async () => {
    const [inside, outside] = [
      await planOf(SIGN, onGlass),
      await planOf(SIGN, surface({ kind: 'flat', flat: { ...begun.flat }, size: { mode: 'width', mm: 120 } })),
    ];
    const turn = ({ sheets }: Plan) =>
      sheets!.sheets.map(({ groups }) => [
        groups.every(({ isMirrored }) => isMirrored),
        Math.sign(groups[0]!.matrix[0]! * groups[0]!.matrix[3]! - groups[0]!.matrix[1]! * groups[0]!.matrix[2]!),
      ]);
    // From the design, y down, to the sheet, y up: a plain film turns over once for the axis alone.
    expect(turn(outside).every(([isMirrored, sign]) => isMirrored === false && sign === -1)).toBe(true);
    expect(turn(inside).every(([isMirrored, sign]) => isMirrored === true && sign === 1)).toBe(true);
    expect(inside.rulings.filter(({ id }) => id.startsWith('sheets.mirror.'))).toHaveLength(3);
    expect(said(inside, 'surface.glass')).toBeDefined();
    // A copy cut for outside does not do for inside.
    expect(
      inside.sheets!.toCut.some(({ fingerprint }) =>
        outside.sheets!.toCut.some((other) => other.fingerprint === fingerprint),
      ),
    ).toBe(false);
  });

  it('has the front laid first, and reckons the traps so', async () => {
    const [inside, outside] = [await planOf(SIGN, onGlass), await planOf(SIGN)];
    const laid = ({ assemble }: Plan) => assemble!.steps.flatMap(({ laying }) => laying ?? []);
    expect(laid(inside)).toEqual([...laid(outside)].reverse());
    const front = inside.build!.layers.at(-1)!.film.id;
    for (const pair of inside.build!.pairs)
      expect(pair.terms.bothLaid).toBe(pair.lower.id !== front && pair.upper.id !== front);
    const onTape = await planOf(SIGN, { ...onGlass, assembly: { way: 'tape' } });
    expect(laid(onTape)).toEqual(laid(outside));
  });

  it.each([
    ['reflective', { family: 'reflective' }],
    ['textured', { family: 'textured', finish: 'textured' }],
    ['grey-glued', { adhesiveColour: 'grey' }],
    ['pressed', { family: 'heatTransfer' }],
  ] as const)('refuses a film that is %s', async (_, own) => {
    const shop: Shop = {
      ...BENCH_SHOP,
      films: BENCH_SHOP.films.map((film) => (film.id === 'wick-yellow' ? { ...film, ...own } : film)),
    };
    const found = await planOf(
      SIGN,
      { ...onGlass, films: { byColour: { '#f2b632': 'wick-yellow', '#1d4e89': 'narrow-blue' } } },
      { shop },
    );
    expect(found.findings.filter(({ code }) => code === 'not-behind-glass').map(({ severity }) => severity)).toEqual([
      'blocker',
    ]);
  });
});

describe('a sign that is bigger than the roll', () => {
  const FASCIA = `<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="40mm" viewBox="0 0 400 40"><path fill="#f7f5ef" d="M0 0h400v40H0z"/>${Array.from({ length: 14 }, (_, i) => `<path fill="#1d4e89" d="M${8 + i * 28} 8h18v24h-18z"/>`).join('')}</svg>`;
  const long = { surface: { size: { mode: 'width', mm: 3900 } as const } };

  it('is parted over all layers at once; each part fits its film, has marks of its own, and together they are the layers and the laps', async () => {
    const found = await planOf(FASCIA, { ...long, build: { school: 'trapped' } });
    const { panels, prepare, build, sheets } = found;
    expect([panels!.along, panels!.panels.length]).toEqual(['across', 3]);
    expect(prepare!.layers.every(({ panel, border }) => panel.marks !== null && border.length > 0)).toBe(true);
    for (const layer of build!.layers) {
      const parts = prepare!.layers
        .filter((part) => part.layer.film.id === layer.film.id)
        .map((part) => part.layer.cut);
      expect(parts).toHaveLength(3);
      expect(
        areaOf(subtract(unite(parts.flat()), layer.cut)) + areaOf(subtract(layer.cut, unite(parts.flat()))),
      ).toBeLessThan(0.01);
      const laps = areaOf(layer.cut) - parts.reduce((sum, part) => sum + areaOf(part), 0);
      expect(-laps).toBeGreaterThan(0);
      expect(-laps).toBeLessThanOrEqual(2 * 10 * 390 + 1);
    }
    // Lines lie in the gaps of the letters: only the base is crossed.
    expect(panels!.crossedMm).toBeCloseTo(2 * 390, 0);
    expect(codes(found).filter((code) => code === 'film-too-small')).toEqual([]);
    // Three panels in two films: what is beside each other on a roll goes through the cutter once.
    expect(sheets!.sheets.flatMap(({ groups }) => groups)).toHaveLength(6);
    expect(sheets!.sheets.length).toBeLessThanOrEqual(6);
    for (const {
      groups,
      pieces: [piece],
    } of sheets!.sheets) {
      const box = boxOf(groups.map(({ contours, borders }) => [...contours, ...borders]));
      expect(box.minX >= 0 && box.maxX <= piece!.widthMm && box.minY >= 0 && box.maxY <= piece!.lengthMm).toBe(true);
    }
    expect(new Set(sheets!.toCut.map(({ fingerprint }) => fingerprint)).size).toBe(6);
  });

  it('is parted by lines that bend where no straight one has a way, and then nothing is crossed and nothing lapped', async () => {
    const slanted = `<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="40mm" viewBox="0 0 420 40">${Array.from({ length: 14 }, (_, i) => `<path fill="#1d4e89" d="M${26 + i * 28} 4h14l-20 32h-14z"/>`).join('')}</svg>`;
    const found = await planOf(slanted, { surface: { size: { mode: 'width', mm: 3900 } } });
    const { panels, prepare, build } = found;
    expect([panels!.along, panels!.crossedMm]).toEqual(['across', 0]);
    expect(panels!.panels.filter(({ bends }) => bends.before).length).toBeGreaterThan(0);
    const { cut } = build!.layers[0]!;
    const parts = prepare!.layers.map(({ layer }) => layer.cut);
    expect(parts.reduce((sum, part) => sum + areaOf(part), 0)).toBeCloseTo(areaOf(cut), 2);
    expect(areaOf(subtract(cut, unite(parts.flat())))).toBeLessThan(0.01);
    // No letter is cut through: as many pieces as before, and every panel fits what it is cut from.
    expect(prepare!.layers.reduce((sum, { layer }) => sum + layer.pieces, 0)).toBe(14);
    expect(codes(found).filter((code) => code === 'film-too-small')).toEqual([]);
    expect(prepare!.panels.every(({ box }) => box.maxX - box.minX < 1560)).toBe(true);
  });

  it('is parted where it was when film is used up: what is cut of it still fits', async () => {
    const before = await planOf(FASCIA, long);
    const cut = before.sheets!.toCut.slice(0, 3).map(({ fingerprint }) => [fingerprint, 1] as const);
    // Half of every roll is gone.
    const pieces = BENCH_SHOP.pieces.map((piece) =>
      piece.kind === 'roll' ? { ...piece, lengthMm: piece.lengthMm / 2 } : piece,
    );
    const after = await planOf(FASCIA, long, { shop: { ...BENCH_SHOP, pieces }, taken: Object.fromEntries(cut) });
    expect(after.panels!.panels).toEqual(before.panels!.panels);
    expect(after.sheets!.toCut.filter(({ taken }) => taken === 1)).toHaveLength(3);
  });

  it('is tried for gaps by its largest panel, as the trap is reckoned', async () => {
    const { tryGaps } = await import('../stations/layers/index.js');
    const wish = { placements: 200, seed: 4, readingMm: 1000, risk: 0.01 };
    const risk = async (patch: RecipePatch) => {
      const { build, panels } = await planOf(FASCIA, patch);
      return tryGaps(
        {
          build: build!,
          panels: panels!,
          recipe: patchRecipe(emptyRecipe('Gaps'), patch),
          repeatabilityMm: BENCH_SHOP.cutter.repeatabilityMm,
        },
        wish,
      )!.marked.risk;
    };
    const trap = { build: { school: 'trapped', trapMm: 0.6 } } as const;
    expect(await risk({ ...long, ...trap })).toBeLessThan(
      await risk({ surface: { ...long.surface, panels: { ...begun.panels, split: 'never' } }, ...trap }),
    );
  });

  it('takes no piece twice: what one panel is cut from is not there for the next', async () => {
    const pieces = [
      ...BENCH_SHOP.pieces
        .filter(({ filmId, kind }) => filmId !== 'narrow-blue' || kind === 'roll')
        .map((piece) => (piece.filmId === 'narrow-blue' ? { ...piece, lengthMm: 2000 } : piece)),
    ];
    const found = await planOf(FASCIA, long, { shop: { ...BENCH_SHOP, pieces } });
    const blue = found.sheets!.sheets.filter(({ films }) => films[0]!.id === 'narrow-blue');
    expect(blue.reduce((sum, { usedLengthMm }) => sum + usedLengthMm, 0)).toBeLessThanOrEqual(2000);
    expect(codes(found)).toContain('film-used-up');
  });

  it('butts where film is translucent', async () => {
    const found = await planOf(FASCIA, {
      ...long,
      films: { byColour: { '#f7f5ef': 'mist', '#1d4e89': 'narrow-blue' } },
    });
    const mist = found.prepare!.layers.filter(({ layer }) => layer.film.id === 'mist').map(({ layer }) => layer.cut);
    if (mist.length > 0)
      expect(mist.reduce((sum, part) => sum + areaOf(part), 0)).toBeCloseTo(areaOf(unite(mist.flat())), 2);
    expect(said(found, 'surface.lap')!.because.join(' ')).toContain('butts');
  });

  it.each([
    ['wall', 'left', [3, 2, 1]],
    ['wall', 'right', [1, 2, 3]],
    ['vehicle', 'left', [3, 2, 1]],
  ] as const)(
    'on a %s with the weather or the front on the %s is laid in the order %o',
    async (hangs, weather, order) => {
      const found = await planOf(FASCIA, { surface: { ...long.surface, panels: { ...begun.panels, hangs, weather } } });
      expect([found.panels!.laying, found.assemble!.steps[1]!.title]).toEqual([
        order,
        expect.stringContaining(order.join(', ')),
      ]);
    },
  );

  it('is made whole where that is wished, and then as it was before there were panels', async () => {
    const found = await planOf(FASCIA, { surface: { ...long.surface, panels: { ...begun.panels, split: 'never' } } });
    expect([found.panels!.along, found.sheets!.sheets.length, said(found, 'surface.panels')!.overridden]).toEqual([
      null,
      2,
      true,
    ]);
  });

  it('is parted downwards where it is high', async () => {
    const high = FASCIA.replace(
      'width="400mm" height="40mm" viewBox="0 0 400 40"',
      'width="40mm" height="400mm" viewBox="0 0 40 400"',
    ).replace(/<path fill="#f7f5ef"[^>]*>/, '<path fill="#f7f5ef" d="M0 0h40v400H0z"/>');
    const found = await planOf(high, { surface: { size: { mode: 'height', mm: 3900 } } });
    expect([found.panels!.along, found.panels!.laying]).toEqual(['down', [3, 2, 1]]);
  });

  it('reckons placement by a panel, and not by the whole', async () => {
    const [parted, whole] = [
      await planOf(FASCIA, { ...long, build: { school: 'trapped' } }),
      await planOf(FASCIA, {
        surface: { ...long.surface, panels: { ...begun.panels, split: 'never' } },
        build: { school: 'trapped' },
      }),
    ];
    expect(parted.build!.trapMm).toBeLessThan(whole.build!.trapMm);
  });
});

describe('an order of garments', () => {
  const letters = (id: string, words: string, capHeightMm: number, yMm = 0): ArtworkPart => ({
    ...letteringPart(id, { ...newLettering(words), font: 'oswald', capHeightMm, colours: ['#1d4e89'] }),
    place: { ...AT_ORIGIN, yMm },
  });
  const order = (sizes: Recipe['surface']['garment']['sizes'], more: Partial<Recipe['surface']> = {}): RecipePatch => ({
    artworks: [letters('l', 'QUAY', 40)],
    surface: { kind: 'garment', garment: { ...begun.garment, sizes }, size: { mode: 'fit' }, ...more },
  });
  const planned = async (
    patch: RecipePatch,
    taken: Readonly<Record<string, number>> = {},
    planner = new Planner(resourcesInNode),
  ) =>
    planner.plan({
      recipe: parseRecipe(patchRecipe(emptyRecipe('Aprons'), patch)),
      shop: BENCH_SHOP,
      taken,
      sources: new Map(),
    });
  const size = (name: string, copies: number, widthMm: number | null = null) => ({ size: name, copies, widthMm });

  it('makes each size as wide as it is ruled or wished, as often as it is wanted', async () => {
    const found = await planned({
      ...order([size('S', 2), size('M', 4), size('XL', 1, 333), size('L', 0)]),
      sheets: { copies: 2 },
    });
    const widths = found
      .prepare!.layers.map(({ layer }) => boundsOf(layer.cut)!)
      .map(({ minX, maxX }) => Math.round(maxX - minX));
    expect(widths).toEqual([265, 280, 333]);
    expect(found.sheets!.toCut.map(({ copies, panel }) => [panel.label, copies])).toEqual([
      ['S', 4],
      ['M', 8],
      ['XL', 2],
    ]);
    expect(found.sheets!.sheets.reduce((sum, { groups }) => sum + groups.length, 0)).toBe(14);
  });

  it.each([1, 2, 3, 4])(
    'lays all sizes of a film together: each copy once, apart from the others, in few passes that are not fed far, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const sizes = ['S', 'M', 'L', 'XL']
        .map((name, i) => size(name, Math.floor(random() * 4) + (i === 0 ? 1 : 0), 120 + Math.round(200 * random())))
        .filter(({ copies }) => copies > 0);
      const { prepare, sheets } = await planned(order(sizes));
      const { film } = prepare!.layers[0]!.layer;
      const panelOf = (layer: number) => prepare!.layers[layer]!.panel.number;
      const laid = sheets!.sheets.flatMap((sheet) =>
        sheet.groups.map(({ layer, copy }) => `${panelOf(layer)} ${copy}`),
      );
      expect(laid.sort()).toEqual(
        sizes.flatMap(({ copies }, i) => Array.from({ length: copies }, (_, copy) => `${i + 1} ${copy}`)).sort(),
      );
      expect(sheets!.sheets.length).toBeLessThan(Math.max(2, sizes.length));
      for (const sheet of sheets!.sheets) {
        expect(sheet.films.map(({ id }) => id)).toEqual([film.id]);
        expect(sheet.usedLengthMm).toBeLessThanOrEqual(1500);
        const closed = sheet.groups.map(({ borders }) => borders.filter((ring) => Math.abs(signedArea(ring)) > 1));
        closed.forEach((one, i) =>
          closed.slice(i + 1).forEach((other) => expect(areaOf(intersect(grow(one, 4.98), other))).toBeLessThan(0.01)),
        );
        // What is kept of it when it is sent is each copy’s own, not a share of the whole.
        const frozen = frozenSheet({ sheets: sheets!, prepare: prepare! }, sheet.id);
        expect(frozen.groups.map(({ keptMm2, weedPlaces }) => [keptMm2, weedPlaces.length])).toEqual(
          sheet.groups.map(({ layer }) => [
            expect.closeTo(areaOf(prepare!.layers[layer]!.layer.cut), 6),
            Math.max(1, prepare!.layers[layer]!.weed.spots.length),
          ]),
        );
        expect(frozen.weedWork!.outlineMm).toBeCloseTo(
          sheet.groups.reduce((sum, { layer }) => sum + prepare!.layers[layer]!.work.outlineMm, 0),
          6,
        );
      }
    },
  );

  it('is cut in sections where all of it would be fed too far', async () => {
    const { sheets } = await planned(
      order([size('S', 8, 320), size('M', 8, 330), size('L', 8, 340), size('XL', 30, 300)]),
    );
    expect(sheets!.sheets.length).toBeGreaterThan(1);
    expect(sheets!.sheets.every(({ usedLengthMm }) => usedLengthMm <= 1500)).toBe(true);
    expect(sheets!.sheets.reduce((sum, { groups }) => sum + groups.length, 0)).toBe(54);
  });

  it('knows what is cut of a size when others come and go', async () => {
    const first = await planned(order([size('S', 2), size('M', 4)]));
    const [small, medium] = first.sheets!.toCut;
    const taken = { [medium!.fingerprint]: 3 };
    const later = await planned(order([size('M', 4), size('XL', 1)]), taken);
    expect(later.sheets!.toCut.map(({ panel, taken: done }) => [panel.label, done])).toEqual([
      ['M', 3],
      ['XL', 0],
    ]);
    expect(later.sheets!.toCut.some(({ fingerprint }) => fingerprint === small!.fingerprint)).toBe(false);
  });

  it('shares what is cut between designs that are alike, and counts none twice', async () => {
    const twice = await planned(order([size('M', 2, 280), size('L', 2, 280)]));
    const [one, other] = twice.sheets!.toCut;
    expect(one!.fingerprint).toBe(other!.fingerprint);
    for (const done of [0, 1, 2, 3, 4]) {
      const later = await planned(order([size('M', 2, 280), size('L', 2, 280)]), { [one!.fingerprint]: done });
      expect(later.sheets!.toCut.reduce((sum, layer) => sum + layer.taken, 0)).toBe(done);
      expect(later.sheets!.sheets.reduce((sum, { groups }) => sum + groups.length, 0)).toBe(4 - done);
    }
  });

  const team = (
    members: Recipe['surface']['team'] extends infer T
      ? NonNullable<T> extends { members: infer M }
        ? M
        : never
      : never,
    condense: 'each' | 'all' = 'each',
  ): RecipePatch => ({
    artworks: [letters('name', 'NAME', 60), letters('number', '0', 220, 170)],
    surface: {
      kind: 'garment',
      garment: { ...begun.garment, spot: 'back' },
      team: { namePart: 'name', numberPart: 'number', members, widestMm: 300, condense },
      size: { mode: 'own' },
    },
  });
  const MEMBERS = [
    { name: 'ADA', number: '7', size: '' },
    { name: 'EVERDINGEN', number: '12', size: '' },
    { name: 'VANDERWATERINGEN', number: '70', size: '' },
    { name: '', number: '5', size: '' },
  ];

  it('makes a design of its own for each of a team; long names are condensed to three quarters and then made lower', async () => {
    const found = await planned(team(MEMBERS));
    expect(found.panels!.panels.map(({ label }) => label)).toEqual([
      '7 ADA',
      '12 EVERDINGEN',
      '70 VANDERWATERINGEN',
      '5',
    ]);
    const names = found.prepare!.layers.map(({ layer }) =>
      boxOf([layer.cut.filter((ring) => boundsOf([ring])!.minY < boundsOf(layer.cut)!.minY + 60)]),
    );
    const [short, long, longest] = names.map(({ minX, maxX, minY, maxY }) => ({
      width: maxX - minX,
      height: maxY - minY,
    }));
    expect(short!.width).toBeLessThan(300);
    expect([long!.width, longest!.width]).toEqual([expect.closeTo(300, 0), expect.closeTo(300, 0)]);
    expect(Math.abs(long!.height - short!.height)).toBeLessThan(3);
    expect(longest!.height).toBeLessThan(0.95 * short!.height);
    // Digits over the whole order, from the numbers themselves.
    expect(said(found, 'surface.team')!.because[0]).toContain('0: 1, 1: 1, 2: 1, 5: 1, 7: 2.');
    expect(said(found, 'surface.condensed')!.because).toHaveLength(2);
  });

  it('makes each print as large as its garment wants it', async () => {
    const [s, xl] = (
      await planned({
        ...team([
          { name: '', number: '7', size: 'S' },
          { name: '', number: '7', size: 'XL' },
        ]),
      })
    ).panels!.panels;
    // A print keeps its share of the chest: 0.95 and 1.1 of M, to 5 mm.
    const width = ({ box }: NonNullable<typeof s>) => box.maxX - box.minX;
    expect([s!.label, xl!.label]).toEqual(['7 (S)', '7 (XL)']);
    expect(width(xl!) / width(s!)).toBeGreaterThan(1.1);
    expect(
      said(
        await planned(
          team([
            { name: 'A', number: '7', size: 'S' },
            { name: 'B', number: '8', size: 'S' },
          ]),
        ),
        'surface.team',
      )!.because[1],
    ).toContain('S: 2');
  });

  it('condenses all alike where that is wished', async () => {
    const found = await planned(team(MEMBERS, 'all'));
    expect(said(found, 'surface.condensed')!.because).toHaveLength(3);
  });

  it('says so when nobody said which lettering is the name', async () => {
    const found = await planned({
      ...team(MEMBERS),
      surface: {
        ...team(MEMBERS).surface,
        team: { namePart: null, numberPart: null, members: MEMBERS, widestMm: 300, condense: 'each' },
      },
    });
    expect(codes(found)).toContain('team-without-letters');
  });

  it('is shown, reported and printed', async () => {
    const found = await planned(order([size('S', 1), size('M', 2)]));
    expect(viewOf(found).surface!.panels!.spans.map(({ label, copies }) => [label, copies])).toEqual([
      ['S', 1],
      ['M', 2],
    ]);
    expect(planReport(found).surface).toMatchObject({
      kind: 'garment',
      designs: [
        { label: 'S', copies: 1 },
        { label: 'M', copies: 2 },
      ],
    });
    expect((await printJob(found, 'pattern', 'svg')).length).toBeGreaterThan(500);
  });

  it.each([
    [
      'ADA, 7\nBRAM; 12\n',
      [
        ['ADA', '7'],
        ['BRAM', '12'],
      ],
    ],
    ['Name,Number\nADA,7', [['ADA', '7']]],
    [
      '7 ADA\n12\tBRAM',
      [
        ['ADA', '7'],
        ['BRAM', '12'],
      ],
    ],
    [
      'ADA LOU 7\n"DE WIT, JR",9',
      [
        ['ADA LOU', '7'],
        ['DE WIT, JR', '9'],
      ],
    ],
    [
      'ADA\n13',
      [
        ['ADA', ''],
        ['', '13'],
      ],
    ],
    [
      'Name,Number,Size\nADA,7,xl\nM,8\nXL,M,9\n,12,128',
      [
        ['ADA', '7', 'XL'],
        ['M', '8'],
        ['XL', '9', 'M'],
        ['', '12', '128'],
      ],
    ],
    ['', []],
  ])('reads the list %j', (text, members) =>
    expect(readTeam(text)).toEqual({
      members: members.map(([name, number, size = '']) => ({ name, number, size })),
      problems: [],
    }),
  );

  it('takes nothing of a list with a line that cannot be read, and says which', () => {
    expect(readTeam('ADA, 7\nBRAM, 12, huge')).toEqual({ members: [], problems: [expect.stringContaining('Line 2')] });
    expect(readTeam(Array.from({ length: 61 }, (_, i) => String(i)).join('\n')).problems).toHaveLength(1);
  });
});

describe('figures that cannot be', () => {
  it.each([
    ['cylinder', { cylinder: { ...begun.cylinder, lipMm: 80, footMm: 20 } }, 'lipMm'],
    ['cylinder', { cylinder: { ...begun.cylinder, gapMm: 300 } }, 'gapMm'],
    ['taper', { taper: { ...begun.taper, d1Mm: 65 } }, 'd1Mm'],
    ['taper', { taper: { ...begun.taper, d1Mm: 60 } }, 'd1Mm'],
    ['taper', { taper: { ...begun.taper, d1Mm: 400 } }, 'd1Mm'],
    ['taper', { taper: { ...begun.taper, lipMm: 200 } }, 'lipMm'],
    ['compound', { compound: { ...begun.compound, across: { chordMm: 10, heightMm: 20 } } }, 'across'],
    ['flat', { flat: { ...begun.flat, marginMm: { top: 200, right: 10, bottom: 10, left: 10 } } }, 'margins'],
  ] as const)('on a %s are told at their field, stop the job, and lose nothing', async (kind, figures, field) => {
    const patch = surface({ kind, ...figures });
    const found = await planOf(SIGN, patch);
    expect(found.findings.filter(({ stage, severity }) => stage === 'surface' && severity === 'blocker')).toHaveLength(
      1,
    );
    const recipe = parseRecipe(patchRecipe(emptyRecipe('Figures'), patch));
    expect([...sayFieldTroubles(recipe).keys()]).toEqual([field]);
    expect(recipe.surface).toMatchObject(figures);
    expect(measureTroubles(recipe)).toHaveLength(1);
  });
});

describe('what the surface asks for', () => {
  it('is said: matter, paint, contrast, glue', async () => {
    const found = await planOf(
      SIGN,
      surface({
        kind: 'flat',
        flat: { ...begun.flat, widthMm: 300, heightMm: 200 },
        ground: { matter: 'low-energy plastic', colour: '#1b4a85' },
        freshPaint: 'vehicle',
        size: { mode: 'width', mm: 100 },
      }),
    );
    expect(codes(found)).toEqual(expect.arrayContaining(['low-energy', 'fresh-paint', 'low-contrast', 'glue']));
    // Only what borders on the surface must stand out from it.
    expect(found.findings.filter(({ code }) => code === 'low-contrast')).toHaveLength(1);
    expect(
      codes(await planOf(SIGN, surface({ kind: 'flat', ground: { matter: 'glass', colour: '#ffffff' } }))).filter(
        (code) => ['low-contrast', 'glue', 'holds-less'].includes(code),
      ),
    ).toEqual([]);
  });

  it('is how large letters must be, and where the smallest are', async () => {
    const words = (id: string, capHeightMm: number, yMm: number): ArtworkPart => ({
      ...letteringPart(id, { ...newLettering(id), capHeightMm }),
      place: { ...AT_ORIGIN, yMm },
    });
    const recipe = parseRecipe(
      patchRecipe(emptyRecipe('Far'), {
        artworks: [words('LARGE', 60, 0), words('small', 12, 60)],
        surface: { readFromMm: 9000 },
      }),
    );
    const found = await new Planner(resourcesInNode).plan({ recipe, shop: BENCH_SHOP, sources: new Map() });
    const finding = found.findings.find(({ code }) => code === 'letters-too-small')!;
    expect([said(found, 'surface.letters')!.value, finding.where!.minY > 30]).toEqual([expect.closeTo(12, 6), true]);
    const helped = await new Planner(resourcesInNode).plan({
      recipe: patchRecipe(recipe, finding.remedies![0]!.patch),
      shop: BENCH_SHOP,
      sources: new Map(),
    });
    expect(codes(helped)).not.toContain('letters-too-small');
  });

  it('is strokes and counters that can be seen from there', async () => {
    const words = (font: string): ArtworkPart => ({
      ...letteringPart('w', { ...newLettering('Boathouse'), font, capHeightMm: 60 }),
    });
    const from = async (font: string, readFromMm: number) =>
      codes(
        await new Planner(resourcesInNode).plan({
          recipe: parseRecipe(patchRecipe(emptyRecipe('Far'), { artworks: [words(font)], surface: { readFromMm } })),
          shop: BENCH_SHOP,
          sources: new Map(),
        }),
      );
    // 60 mm high: a bold one is read from 20 m, a script with hairlines is not.
    expect((await from('alfa-slab-one', 3000)).filter((code) => code.endsWith('-afar'))).toEqual([]);
    expect(await from('great-vibes', 20_000)).toContain('strokes-afar');
    expect(await from('alfa-slab-one', 20_000)).toContain('counters-afar');
  });

  it('is a safe size on what bends both ways, by what the film bears', async () => {
    const onDome = surface({
      kind: 'compound',
      compound: {
        widthMm: 200,
        heightMm: 200,
        across: { chordMm: 100, heightMm: 14 },
        down: { chordMm: 100, heightMm: 14 },
      },
      size: { mode: 'width', mm: 90 },
    });
    const found = await planOf(SIGN, onDome);
    const stiff = found.findings.filter(({ code }) => code === 'stretches-too-far');
    // Lock-gate red is calendered, the others are cast: only it asks.
    expect(stiff.map(({ message }) => message.split(' stretches')[0])).toEqual(['Lock-gate red']);
    expect(planReport(found).surface!.strainPct).toBeGreaterThan(1);
    const helped = await planOf(SIGN, { surface: { ...onDome.surface, ...stiff[0]!.remedies![0]!.patch.surface } });
    expect(codes(helped)).not.toContain('stretches-too-far');
  });

  it('is two copies of what goes on both sides', async () => {
    const both = surface({ kind: 'cylinder', cylinder: { ...begun.cylinder, side: 'both' }, size: { mode: 'fit' } });
    const found = await planOf(SIGN, both);
    const finding = found.findings.find(({ code }) => code === 'both-sides')!;
    expect(codes(await planOf(SIGN, { ...both, ...finding.remedies![0]!.patch }))).not.toContain('both-sides');
  });
});

it('a surface that is changed keeps every decision of the others', () => {
  const decided = parseRecipe(
    patchRecipe(
      emptyRecipe('Figures'),
      surface({ kind: 'taper', taper: { ...begun.taper, d1Mm: 123 }, cylinder: { ...begun.cylinder, hand: 'left' } }),
    ),
  );
  const back = patchRecipe(patchRecipe(decided, surface({ kind: 'cylinder' })), surface({ kind: 'taper' }));
  expect(back).toEqual(decided);
});

it('a blank gives what was read of it, the smallest of each, and what it is made of', () => {
  const read = (what: 'circumference' | 'diameter' | 'straight height', mm: number) => ({
    what,
    mm,
    on: '2026-01-01',
    by: '',
    with: 'tape' as const,
  });
  const blank = {
    id: 'mug',
    name: 'Mug',
    kind: 'cylinder' as const,
    matter: 'ceramic' as const,
    colour: '#fafafa',
    photo: null,
    readings: [
      read('circumference', 258),
      read('circumference', 256),
      read('diameter', 82),
      read('straight height', 88),
    ],
    trials: [],
    note: '',
    retired: false,
  };
  expect(fromBlank(blank, { surface: begun }).surface).toMatchObject({
    kind: 'cylinder',
    ground: { matter: 'ceramic', colour: '#fafafa' },
    cylinder: { girthBy: 'circumference', girthMm: 256, straightHeightMm: 88, gapMm: 0 },
  });
  // 80 mm across is less than the tape says.
  expect(
    fromBlank({ ...blank, readings: [...blank.readings, read('diameter', 80)] }, { surface: begun }).surface!.cylinder,
  ).toMatchObject({ girthBy: 'diameter', girthMm: 80 });
});

it('what is measured for a job can be written down with its blank, and is read from there again', () => {
  const surfaces: Partial<Recipe['surface']>[] = [
    { kind: 'cylinder', cylinder: { ...begun.cylinder, girthBy: 'diameter', girthMm: 81.5, gapMm: 44 } },
    { kind: 'taper', taper: { ...begun.taper, wide: 'foot', d1Mm: 140, d2Mm: 90, sideMm: 130, gapMm: 0 } },
    { kind: 'flat', flat: { ...begun.flat, widthMm: 620, heightMm: 155 } },
    {
      kind: 'compound',
      compound: { ...begun.compound, widthMm: 190, heightMm: 140, across: { chordMm: 120, heightMm: 16 } },
    },
  ];
  for (const measured of surfaces) {
    const taken = readingsOf({ surface: { ...begun, ...measured } });
    const blank = {
      ...newBlank('b'),
      kind: measured.kind as 'flat',
      readings: taken.map((one) => ({ ...one, on: '2026-01-01', by: 'Ilse' })),
    };
    expect(fromBlank(blank, { surface: begun }).surface).toMatchObject({
      kind: measured.kind,
      [measured.kind!]: measured[measured.kind as 'flat'],
    });
    expect(newReadings(taken, blank)).toEqual([]);
    expect(newReadings(taken, newBlank('b'))).toEqual(taken);
  }
});

describe('prints at true scale', () => {
  it.each(PRINTS.flatMap((what) => PRINT_ON.map((on) => [what, on] as const)))('of the %s, %s', async (what, on) => {
    const found = await planOf(SIGN, surface({ kind: 'cylinder', size: { mode: 'fit' } }));
    const bytes = await printJob(found, what, on);
    const head = new TextDecoder().decode(bytes.slice(0, 5));
    expect(head).toMatch(on === 'svg' ? /^<svg/ : on === 'dxf' ? /^0\nSEC/ : /^%PDF/);
    if (on === 'svg' && what === 'wrap') {
      const lines = [...new TextDecoder().decode(bytes).matchAll(/stroke="[^"]+"[^>]* d="([^"]+)"/g)].flatMap(([, d]) =>
        [...d!.matchAll(/[ML](-?[\d.]+) /g)].map(([, x]) => Number(x)),
      );
      // From tab to tab: all the way round but for a hair on each side.
      expect(Math.max(...lines) - Math.min(...lines)).toBeCloseTo(begun.cylinder.girthMm - 2, 3);
    }
  });

  it('of a taper are bent as the design is', async () => {
    const drawing = wrapTemplate({
      kind: 'taper',
      cone: { d1Mm: 100, d2Mm: 80, slantMm: 100, wide: 'top' },
      lipMm: 5,
      footMm: 5,
      gapMm: 0,
      wraps: false,
      at: null,
    });
    const outline = drawing.items.find(({ name }) => name === 'outline')!;
    if (outline.kind !== 'lines') throw new Error('An outline is a line.');
    const points = outline.lines[0]!.points;
    // The upper edge lies on the outer radius about one middle: 100 · 100/20.
    const [x0, y0] = [points[0]!, points[1]!];
    const middle = { x: (Math.PI * 90) / 2, y: y0 + 0 };
    const apexY = y0 + Math.sqrt(500 ** 2 - (x0 - middle.x) ** 2);
    for (let i = 0; i < 60; i += 2)
      expect(Math.hypot(points[i]! - middle.x, points[i + 1]! - apexY)).toBeCloseTo(500, 2);
  });

  it('of what is not round is refused with a sentence', async () =>
    await expect(printJob(await planOf(SIGN), 'wrap', 'svg')).rejects.toThrow('round things'));
});

describe('several designs on one thing', () => {
  const NAME =
    '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="30mm" viewBox="0 0 80 30"><path fill="#1d4e89" d="M0 0h80v30H0z"/><path fill="#f2b632" d="M10 8h25v14H10z M45 8h25v14H45z"/></svg>';
  const ANCHOR =
    '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><circle fill="#1d4e89" cx="20" cy="20" r="20"/><path fill="#f2b632" d="M16 6h8v28h-8z"/></svg>';
  const part = (id: string, svg: string, yMm = 0) => ({
    ...drawingPart({ id, fileName: `${id}.svg`, sha256: shaOf(svg) }),
    place: { ...AT_ORIGIN, yMm },
  });
  const two = (patch: Partial<Recipe['surface']>, rest: RecipePatch = {}) =>
    twoWith(patch, rest, new Planner(resourcesInNode));
  const twoWith = (patch: Partial<Recipe['surface']>, rest: RecipePatch, planner: Planner) => {
    const recipe = parseRecipe(
      patchRecipe(emptyRecipe('Two'), {
        artworks: [part('name', NAME), part('anchor', ANCHOR, 60)],
        ...rest,
        surface: {
          size: { mode: 'fit' },
          several: { others: [{ parts: ['anchor'], widthMm: null }], copies: 1, betweenMm: null },
          ...patch,
        },
      }),
    );
    return planner.plan({
      recipe,
      shop: BENCH_SHOP,
      taken: {},
      sources: new Map([
        ['name', new TextEncoder().encode(NAME)],
        ['anchor', new TextEncoder().encode(ANCHOR)],
      ]),
    });
  };
  const mug = {
    kind: 'cylinder',
    cylinder: { ...begun.cylinder, girthMm: 257, straightHeightMm: 90, gapMm: 30, side: 'holder' },
  } as const;

  it('goes round a mug: one to its holder, one to the room, each cut with its own marks, and nothing of either is lost', async () => {
    const plan = await two(mug);
    expect(codes(plan).filter((code) => code !== 'blank-measure')).not.toContain('designs-meet');
    expect(plan.panels!.along).toBe('apart');
    expect(plan.prepare!.panels.map(({ label, marks }) => [label, marks !== null])).toEqual([
      ['name.svg', true],
      ['anchor.svg', true],
    ]);
    // By its own sums: middles a quarter and three quarters of the way round.
    const { xMm, yMm } = plan.surface!.design;
    const middles = plan.panels!.panels.map(({ box }) => xMm + (box.minX + box.maxX) / 2);
    expect(middles).toEqual([expect.closeTo((257 * 3) / 4, 1), expect.closeTo(257 / 4, 1)]);
    for (const { box } of plan.panels!.panels)
      expect([yMm + box.minY >= 12, yMm + box.maxY <= 85]).toEqual([true, true]);
    // Every layer is on the panels exactly once.
    for (const layer of plan.build!.layers) {
      const onPanels = plan
        .prepare!.layers.filter((one) => one.layer.film.id === layer.film.id)
        .flatMap((one) => one.layer.cut);
      expect(areaOf(subtract(layer.cut, onPanels)) + areaOf(subtract(onPanels, layer.cut))).toBeLessThan(0.01);
    }
    const [name, anchor] = plan.panels!.panels.map(({ box }) => box);
    // At one scale: 80 wide to 40 wide.
    expect((name!.maxX - name!.minX) / (anchor!.maxX - anchor!.minX)).toBeCloseTo(2, 6);
    expect(said(plan, 'surface.several')!.because.slice(0, 2)).toEqual([
      expect.stringMatching(/^name\.svg: .*, faces its holder, its middle 192\.8 mm/),
      expect.stringMatching(/^anchor\.svg: .*, faces the room, its middle 64\.3 mm/),
    ]);
    expect(planReport(plan).surface).toMatchObject({
      kind: 'cylinder',
      designs: [{ label: 'name.svg' }, { label: 'anchor.svg' }],
    });
  });

  it('turns the first to the room, and leaves a width of its own alone', async () => {
    const plan = await two({
      ...mug,
      cylinder: { ...mug.cylinder, side: 'room' },
      several: { others: [{ parts: ['anchor'], widthMm: 22 }], copies: 1, betweenMm: null },
    });
    const { xMm } = plan.surface!.design;
    const [name, anchor] = plan.panels!.panels.map(({ box }) => box);
    expect(xMm + (name!.minX + name!.maxX) / 2).toBeCloseTo(257 / 4, 1);
    expect(anchor!.maxX - anchor!.minX).toBeCloseTo(22, 6);
  });

  it('stands on a board as often as is wanted, balanced, and alike ones share what is cut', async () => {
    const plan = await two({
      kind: 'flat',
      flat: { ...begun.flat, widthMm: 500, heightMm: 300 },
      size: { mode: 'own' },
      several: { others: [{ parts: ['anchor'], widthMm: null }], copies: 2, betweenMm: null },
    });
    expect(plan.panels!.panels.map(({ label }) => label)).toEqual([
      'name.svg, 1 of 2',
      'name.svg, 2 of 2',
      'anchor.svg, 1 of 2',
      'anchor.svg, 2 of 2',
    ]);
    const at = plan.panels!.panels.map(({ box }) => box);
    for (const [i, a] of at.entries())
      for (const b of at.slice(i + 1))
        expect(Math.max(a.minX - b.maxX, b.minX - a.maxX, a.minY - b.maxY, b.minY - a.maxY)).toBeGreaterThan(19.99);
    const prints = plan.sheets!.toCut.filter(({ panel }) => panel.label?.startsWith('name'));
    expect(new Set(prints.map(({ film, fingerprint }) => `${film.id} ${fingerprint}`)).size).toBe(prints.length / 2);
  });

  it('stops when what is built of them would touch, and each remedy ends it', async () => {
    const build = {
      outlines: [{ id: 'rim', filmId: 'tar', widthMm: 9, each: 'all', around: null, join: 'round', fillBelowMm: 0 }],
    } as unknown as NonNullable<RecipePatch['build']>;
    const patch = {
      kind: 'flat',
      flat: { ...begun.flat, widthMm: 260, heightMm: 90 },
      size: { mode: 'width', mm: 130 },
      several: { others: [{ parts: ['anchor'], widthMm: 70 }], copies: 1, betweenMm: 0 },
    } as const;
    const plan = await two(patch, { build });
    const meet = plan.findings.find(({ code }) => code === 'designs-meet')!;
    expect(meet.severity).toBe('blocker');
    expect(meet.remedies!.length).toBe(2);
    for (const remedy of meet.remedies!)
      expect(codes(await two({ ...patch, ...(remedy.patch.surface as object) }, { build }))).not.toContain(
        'designs-meet',
      );
  });

  it('is one design again on what carries one, and says so', async () => {
    const plan = await two({ kind: 'taper' });
    expect(plan.panels!.along).toBeNull();
    expect(codes(plan)).toContain('several-as-one');
    expect(codes(await two({ kind: 'unmeasured' }))).not.toContain('several-as-one');
    expect(codes(await two({ ...mug, cylinder: { ...mug.cylinder, wraps: true } }))).toContain('several-as-one');
  });

  it('loses no part: what stands in no design is the first, what stands in two the earlier, what is gone nothing', () => {
    const parts = (others: readonly (readonly string[])[]) =>
      partsInDesigns(
        {
          surface: {
            ...begun,
            several: { others: others.map((one) => ({ parts: one, widthMm: null })), copies: 1, betweenMm: null },
          },
        },
        ['a', 'b', 'c'],
      ).map((one) => one.parts);
    expect(parts([])).toEqual([['a', 'b', 'c']]);
    expect(parts([['b'], ['b', 'c']])).toEqual([['a'], ['b'], ['c']]);
    expect(parts([['gone'], ['a', 'b', 'c']])).toEqual([['a', 'b', 'c']]);
  });
});
