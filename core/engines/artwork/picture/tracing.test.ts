import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import {
  areaOf,
  boundsOf,
  countPieces,
  flatten,
  intersect,
  pointCount,
  subtract,
  unite,
  type Rings,
} from '../../../geometry/index.js';
import { inWords, DEFAULT_TRACING } from '../../../stations/artwork/index.js';
import { ArtworkReader, paintRegions, type Tracing } from '../index.js';
import { InputError } from '../../../words/index.js';
import { seeded } from '../../../testing/seeded.js';
import { decodePicture } from './decode-picture.js';
import { readSvg } from '../read-artwork.js';
import { reducePicture, tracePicture, MM_PER_PIXEL } from './trace-picture.js';
import type { Pixels } from './pixels.js';

const svgOf = (body: string, ground = '#ffffff') =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300"><rect width="400" height="300" fill="${ground}"/>${body}</svg>`;

/** A drawing as a picture of `scale` times its 400 × 300 pixels. */
function photographed(svg: string, scale = 1): Pixels & { png: Uint8Array } {
  const drawn = new Resvg(svg, { fitTo: { mode: 'zoom', value: scale } }).render();
  return {
    width: drawn.width,
    height: drawn.height,
    data: new Uint8ClampedArray(drawn.pixels),
    png: new Uint8Array(drawn.asPng()),
  };
}

async function traced(pixels: Pixels, tracing: Partial<Tracing> = {}, speckMm = 0) {
  const reduced = await reducePicture(pixels, { ...DEFAULT_TRACING, ...tracing });
  const artwork = await tracePicture(reduced, speckMm);
  const { regions } = paintRegions(artwork, 1);
  // Back into the picture's pixels.
  const inPixels = regions.map((region) => ({
    colour: region.colour,
    rings: region.rings.map((ring) =>
      ring.map((v, i) => v / MM_PER_PIXEL + (i % 2 === 0 ? reduced.frame.x : reduced.frame.y)),
    ),
  }));
  return { reduced, artwork, regions: inPixels, findings: artwork.noticed.map((f) => f.code) };
}

/** The furthest that any point of the one outline lies from the other, both ways. */
function apart(a: Rings, b: Rings): number {
  const from = (p: Rings, q: Rings) => {
    let worst = 0;
    for (const ring of p) {
      for (let i = 0; i < ring.length; i += 2) {
        let near = Infinity;
        for (const other of q) {
          for (let k = 0, j = other.length - 2; k < other.length; j = k, k += 2) {
            const [ax, ay] = [other[j]!, other[j + 1]!];
            const [dx, dy] = [other[k]! - ax, other[k + 1]! - ay];
            const t = Math.min(
              1,
              Math.max(0, ((ring[i]! - ax) * dx + (ring[i + 1]! - ay) * dy) / (dx * dx + dy * dy || 1)),
            );
            near = Math.min(near, Math.hypot(ring[i]! - ax - t * dx, ring[i + 1]! - ay - t * dy));
          }
        }
        worst = Math.max(worst, near);
      }
    }
    return worst;
  };
  return Math.max(from(a, b), from(b, a));
}

/** The true outline of what a drawing shows in one colour over its ground, in pixels. */
function truth(svg: string, colour: string): Rings {
  const artwork = readSvg(new TextEncoder().encode(svg), 'truth.svg');
  const paints = artwork.paints.map((paint) => ({
    colour: paint.colour,
    rings: unite(flatten(paint.curves, paint.matrix, 0.001).map((line) => line.points)),
  }));
  const inPx = (rings: Rings) => rings.map((ring) => ring.map((v) => v / MM_PER_PIXEL));
  return inPx(
    paints.reduce<Rings>(
      (area, paint) => (paint.colour === colour ? unite([...area, ...paint.rings]) : subtract(area, paint.rings)),
      [],
    ),
  );
}

const RED = '#b3262b';
const FIGURES: readonly (readonly [string, string])[] = [
  ['a disc', `<circle cx="200" cy="150" r="100" fill="${RED}"/>`],
  ['a ring', `<circle cx="200" cy="150" r="100" fill="${RED}"/><circle cx="205" cy="150" r="60" fill="#fff"/>`],
  ['a turned square', `<rect x="120" y="70" width="160" height="130" fill="${RED}" transform="rotate(17 200 150)"/>`],
  ['a star', `<path fill="${RED}" d="M200 30l28 86h90l-73 53 28 86-73-53-73 53 28-86-73-53h90z"/>`],
  ['a leaf', `<path fill="${RED}" d="M60 150C120 40 280 40 340 150C280 260 120 260 60 150z"/>`],
  [
    'an arch of straight and bent edges',
    `<path fill="${RED}" d="M80 240V140A120 120 0 0 1 320 140V240H260V140A60 60 0 0 0 140 140V240z"/>`,
  ],
  [
    'small things',
    [...Array(12)].map((_, i) => `<circle cx="${50 + 25 * i}" cy="150" r="${3 + 0.7 * i}" fill="${RED}"/>`).join(''),
  ],
];

describe('a traced picture', () => {
  it.each(FIGURES)('of %s lies within 0.6 px of what was drawn', async (_, body) => {
    const svg = svgOf(body);
    const { regions } = await traced(photographed(svg));
    expect(regions).toHaveLength(1);
    expect(apart(regions[0]!.rings, truth(svg, RED))).toBeLessThan(0.6);
  });

  it.each(FIGURES)('of %s is smooth: few curves, and no more corners than were drawn', async (_, body) => {
    const { artwork } = await traced(photographed(svgOf(body)));
    const { ops } = artwork.paints[0]!.curves;
    expect(ops.length).toBeLessThan(60 + ops.filter((op) => op === 'M').length * 12);
  });

  it('takes sharp corners back to their tips', async () => {
    const svg = svgOf(`<rect x="100" y="80" width="200" height="140" fill="${RED}"/>`);
    const { regions, artwork } = await traced(photographed(svg));
    expect(artwork.paints[0]!.curves.ops.filter((op) => op === 'L').length).toBe(4);
    expect(areaOf(regions[0]!.rings)).toBeCloseTo(200 * 140, -1);
  });

  it('of several colours has neighbours that share their edges: no gap, no overlap', async () => {
    const svg = svgOf(
      '<rect x="40" y="40" width="320" height="220" fill="#1d4e89"/><circle cx="150" cy="150" r="80" fill="#f2b632"/><path d="M150 150h170v80z" fill="#b3262b"/><circle cx="150" cy="150" r="30" fill="#fff"/>',
    );
    const { regions, reduced } = await traced(photographed(svg), { background: 'around' });
    expect(reduced.inks).toBe(3);
    expect(regions).toHaveLength(4);
    const all = unite(regions.flatMap((r) => [...r.rings]));
    expect(countPieces(all)).toEqual({ pieces: 1, holes: 0 });
    expect(areaOf(all)).toBeCloseTo(
      regions.reduce((sum, r) => sum + areaOf(r.rings), 0),
      0,
    );
    for (const [i, a] of regions.entries())
      for (const b of regions.slice(i + 1)) expect(areaOf(intersect(a.rings, b.rings))).toBeLessThan(1);
  });

  it('leaves its background bare everywhere, only around, or not at all', async () => {
    const pixels = photographed(
      svgOf(`<circle cx="200" cy="150" r="100" fill="${RED}"/><circle cx="200" cy="150" r="60" fill="#fff"/>`),
    );
    const area = async (background: Tracing['background']) =>
      (await traced(pixels, { background })).regions.map((r) => [r.colour, Math.round(areaOf(r.rings) / 100)]);
    const [ring, hole] = [Math.round((Math.PI * 6400) / 100), Math.round((Math.PI * 3600) / 100)];
    expect(await area('everywhere')).toEqual([[RED, ring]]);
    expect(await area('around')).toEqual([
      ['#ffffff', hole],
      [RED, ring],
    ]);
    expect((await area('keep')).map(([colour]) => colour)).toEqual(['#ffffff', RED]);
  });

  it('takes what is transparent for bare, whatever colour it has', async () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><circle cx="100" cy="100" r="70" fill="#fff"/></svg>`;
    const { regions, reduced } = await traced(photographed(svg));
    expect(reduced.background).toBe('transparent');
    expect(areaOf(regions[0]!.rings)).toBeCloseTo(Math.PI * 4900, -2);
  });

  it('drops specks and pinholes below the size that is stated, and keeps those above', async () => {
    const dots = [1, 2, 3, 4, 5, 6]
      .map(
        (r, i) =>
          `<circle cx="${40 + 50 * i}" cy="40" r="${r}" fill="${RED}"/><circle cx="${60 + 50 * i}" cy="180" r="${r}" fill="#fff"/>`,
      )
      .join('');
    const pixels = photographed(svgOf(`<rect x="20" y="100" width="360" height="160" fill="${RED}"/>${dots}`));
    // 7 px across: discs of radius 4 and more are larger.
    const { regions, findings } = await traced(pixels, {}, 7 * MM_PER_PIXEL);
    expect(countPieces(regions[0]!.rings)).toEqual({ pieces: 4, holes: 3 });
    expect(findings).toEqual(['picture-specks']);
  });

  it.each([1, 2, 3])('tells inks apart under the noise of a photograph, seed %i', async (seed) => {
    const random = seeded(seed);
    const clean = photographed(
      svgOf(
        '<rect x="40" y="40" width="150" height="220" fill="#1f6b45"/><circle cx="290" cy="150" r="70" fill="#f2b632"/>',
        '#f4f1ea',
      ),
    );
    const data = clean.data.map((v, i) => (i % 4 === 3 ? v : v + (random() - 0.5) * 18));
    const { regions, reduced } = await traced({ ...clean, data }, {}, 4 * MM_PER_PIXEL);
    expect(reduced.inks).toBe(2);
    expect(regions.map((r) => countPieces(r.rings))).toEqual([
      { pieces: 1, holes: 0 },
      { pieces: 1, holes: 0 },
    ]);
    expect(areaOf(regions[0]!.rings)).toBeCloseTo(150 * 220, -3);
  });

  it('takes two blacks that look alike for one ink, and a dark grey for another', async () => {
    const inksBeside = async (dark: string) => {
      const body = `<rect x="40" y="40" width="150" height="220" fill="#000000"/><rect x="190" y="40" width="150" height="220" fill="${dark}"/>`;
      return (await traced(photographed(svgOf(body)))).reduced.inks;
    };
    expect(await inksBeside('#0a0a0a')).toBe(1);
    expect(await inksBeside('#333333')).toBe(2);
  });

  it('takes as many colours as it is told', async () => {
    const pixels = photographed(
      svgOf(
        [...Array(6)]
          .map((_, i) => `<rect x="${20 + 60 * i}" y="40" width="50" height="200" fill="hsl(${60 * i} 70% 45%)"/>`)
          .join(''),
      ),
    );
    for (const colours of [1, 3, 6]) expect((await traced(pixels, { colours })).regions).toHaveLength(colours);
    expect((await traced(pixels)).reduced.inks).toBe(6);
  });

  it('is the same every time', async () => {
    const pixels = photographed(svgOf(FIGURES[3]![1]));
    expect((await traced(pixels)).artwork).toEqual((await traced(pixels)).artwork);
  });

  it('fills its frame', async () => {
    const { artwork, regions, reduced } = await traced(photographed(svgOf(FIGURES[0]![1])));
    const box = boundsOf(regions[0]!.rings)!;
    expect(box.minX - reduced.frame.x).toBeLessThan(6);
    expect(artwork.widthMm / MM_PER_PIXEL).toBeLessThan(210);
  });

  it('grows with its outlines, not its pixels', async () => {
    const small = await traced(photographed(svgOf(FIGURES[4]![1])));
    const large = await traced(photographed(svgOf(FIGURES[4]![1]), 3));
    expect(pointCount(large.regions[0]!.rings)).toBeLessThan(3 * pointCount(small.regions[0]!.rings));
  });

  it('of one even colour is empty, and says what to do', async () =>
    expect((await traced(photographed(svgOf('')))).findings).toEqual(['picture-empty']));

  /** A picture of one colour a pixel, nothing mixed on its edges. */
  const dotted = (width: number, height: number, at: (x: number, y: number) => string): Pixels => {
    const data = new Uint8ClampedArray(4 * width * height);
    for (let y = 0; y < height; y += 1) {
      for (let x = 0; x < width; x += 1)
        data.set([...[1, 3, 5].map((i) => parseInt(at(x, y).slice(i, i + 2), 16)), 255], 4 * (y * width + x));
    }
    return { width, height, data };
  };

  it.each([
    ['aslant', (x: number, y: number) => x === y],
    ['aslant the other way', (x: number, y: number) => x === 59 - y],
    ['shallow', (x: number, y: number) => y === Math.round(x / 3)],
    ['steep', (x: number, y: number) => x === Math.round(y / 4)],
  ])('keeps a line one pixel wide that runs %s whole, and in one piece', async (_, isOn) => {
    const on = (x: number, y: number) => x >= 10 && x < 50 && y >= 3 && y < 57 && isOn(x, y);
    const { regions } = await traced(dotted(60, 60, (x, y) => (on(x, y) ? '#16181a' : '#ffffff')));
    const count = Array.from({ length: 3600 }, (_, p) => on(p % 60, Math.floor(p / 60))).filter(Boolean).length;
    expect(countPieces(regions[0]!.rings).pieces).toBe(1);
    expect(Math.abs(areaOf(regions[0]!.rings) / count - 1)).toBeLessThan(0.05);
  });

  it.each([
    [
      'beside a shape of another',
      (x: number, y: number) =>
        y === 80 && x > 10 && x < 110 ? '#1d4e89' : x > 20 && x < 80 && y > 20 && y < 60 ? RED : '#ffffff',
      99,
    ],
    [
      'on a shape of another',
      (x: number, y: number) =>
        y === 40 && x > 25 && x < 75 ? '#1d4e89' : x > 20 && x < 80 && y > 20 && y < 60 ? RED : '#ffffff',
      49,
    ],
    [
      'half way between two others',
      (x: number, y: number) =>
        y === 40 && x > 25 && x < 75 ? '#8c8c8c' : x > 20 && x < 80 && y > 20 && y < 60 ? '#161616' : '#ffffff',
      49,
    ],
  ])('keeps a line of one colour, one pixel wide, %s', async (_, at, px) => {
    const { regions, findings } = await traced(dotted(120, 100, at));
    expect(regions).toHaveLength(2);
    expect(areaOf(regions.at(-1)!.rings)).toBeGreaterThan(0.95 * px);
    expect(findings).toEqual([]);
  });

  it('says where a line was too little for a colour of its own', async () => {
    const { regions, artwork, reduced } = await traced(
      dotted(400, 400, (x, y) =>
        y === 380 && x > 10 && x < 40 ? '#1d4e89' : x > 20 && x < 380 && y > 20 && y < 360 ? RED : '#ffffff',
      ),
    );
    expect(regions).toHaveLength(1);
    const [noticed, ...others] = artwork.noticed;
    expect(others).toEqual([]);
    expect(noticed).toMatchObject({ code: 'picture-hairs-lost', count: 1 });
    const where = noticed!.where!;
    expect([where.minX / MM_PER_PIXEL + reduced.frame.x, where.minY / MM_PER_PIXEL + reduced.frame.y]).toEqual([
      expect.closeTo(11, 6),
      expect.closeTo(380, 6),
    ]);
    const more = await traced(
      dotted(400, 400, (x, y) =>
        y === 380 && x > 10 && x < 40 ? '#1d4e89' : x > 20 && x < 380 && y > 20 && y < 360 ? RED : '#ffffff',
      ),
      { colours: 2 },
    );
    expect(more.regions.map(({ colour }) => colour)).toEqual([RED, '#1d4e89']);
  });

  it.each(['#b3262b', '#16181a', '#f2b632', '#ffffff'])(
    'of one disc of %s on nothing has one ink, whatever its edges are mixed with',
    async (colour) => {
      for (const r of [6, 20, 70]) {
        const { regions, reduced } = await traced(
          photographed(
            `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><circle cx="100" cy="100" r="${r}" fill="${colour}"/></svg>`,
          ),
        );
        expect(reduced.inks).toBe(1);
        expect(regions.map((region) => region.colour)).toEqual([colour]);
      }
    },
  );

  it('of fine lines alone has their colour, not that of their mixtures', async () => {
    const { regions } = await traced(
      photographed(
        svgOf(`<path d="M20 40L380 90M20 120Q200 20 380 160" fill="none" stroke="#1d4e89" stroke-width="1.5"/>`),
      ),
    );
    expect(regions.map(({ colour }) => colour)).toEqual(['#1d4e89']);
  });

  it('can be stopped between steps', async () => {
    const reader = new ArtworkReader(resourcesInNode);
    const stopped = reader.picture(photographed(svgOf('')).png, 'a.png', DEFAULT_TRACING, {
      breathe: () => Promise.reject(new Error('stopped')),
    });
    await expect(stopped).rejects.toThrow('stopped');
  });
});

describe('files of pictures', () => {
  const decode = (bytes: Uint8Array) => decodePicture(bytes, 'logo', resourcesInNode.unpackerOf);
  const { png } = photographed(svgOf(FIGURES[0]![1]), 0.1);

  it('are unpacked to the pixels that were packed', async () => {
    const { width, height, data } = await decode(png);
    expect([width, height]).toEqual([40, 30]);
    expect([...data.slice(0, 4)]).toEqual([255, 255, 255, 255]);
  });

  it.each(['jpeg', 'webp'] as const)('are read as %s too', async (kind) => {
    const encoder = (await import(`@jsquash/${kind}/encode.js`)) as unknown as {
      init: (wasm: unknown) => Promise<void>;
      default: (pixels: unknown, options: unknown) => Promise<ArrayBuffer>;
    };
    const { readFile } = await import('node:fs/promises');
    const { createRequire } = await import('node:module');
    const file = { jpeg: 'codec/enc/mozjpeg_enc.wasm', webp: 'codec/enc/webp_enc.wasm' }[kind];
    await encoder.init(
      await WebAssembly.compile(await readFile(createRequire(import.meta.url).resolve(`@jsquash/${kind}/${file}`))),
    );
    const pixels = photographed(svgOf(FIGURES[0]![1]));
    const packed = new Uint8Array(
      await encoder.default(
        { width: pixels.width, height: pixels.height, data: pixels.data, colorSpace: 'srgb' },
        { quality: 90 },
      ),
    );
    // Part of it is missing: what an unpacker fills in would be cut as grey film.
    const cut = (share: number) => packed.slice(0, Math.floor(packed.length * share));
    for (const share of [0.3, 0.6, 0.95])
      await expect(decode(cut(share)), String(share)).rejects.toMatchObject({ code: 'picture-damaged' });
    if (kind === 'jpeg') {
      const hole = new Uint8Array([...cut(0.6), ...packed.slice(Math.floor(packed.length * 0.8))]);
      await expect(decode(hole)).rejects.toMatchObject({ code: 'picture-damaged' });
    }
    const { regions } = await traced(await decode(packed));
    expect(apart(regions[0]!.rings, truth(svgOf(FIGURES[0]![1]), regions[0]!.colour === RED ? RED : RED))).toBeLessThan(
      1,
    );
  });

  const head = (width: number, height: number) => {
    const bytes = png.slice();
    new DataView(bytes.buffer).setUint32(16, width);
    new DataView(bytes.buffer).setUint32(20, height);
    return bytes;
  };
  it.each([
    ['no picture', new TextEncoder().encode('GIF89a and more'), 'not-a-picture'],
    ['cut off in its head', png.slice(0, 18), 'picture-damaged'],
    ['cut off later', png.slice(0, 60), 'picture-damaged'],
    ['of a hundred megapixels', head(10_000, 10_000), 'picture-too-large'],
    ['of no size', head(0, 10), 'picture-damaged'],
    [
      'a JPEG in printing colours',
      Uint8Array.of(0xff, 0xd8, 0xff, 0xc0, 0, 20, 8, 0, 10, 0, 10, 4, ...Array<number>(20).fill(0)),
      'picture-cmyk',
    ],
    ['a JPEG without a frame', Uint8Array.of(0xff, 0xd8, 0xff, 0xd9, 0, 0, 0, 0), 'picture-damaged'],
  ])('are refused with a sentence when %s', async (_, bytes, code) => {
    const refusal = await inWords(() => decode(bytes)).catch((error: unknown) => error);
    expect(refusal).toBeInstanceOf(InputError);
    expect((refusal as InputError).code).toBe(code);
  });
});
