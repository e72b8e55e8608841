import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { areaOf, countPieces, intersect, subtract, unite } from '../../../geometry/index.js';
import { DEFAULT_TRACING } from '../../../stations/artwork/index.js';
import { seeded } from '../../../testing/seeded.js';
import { paintRegions } from '../index.js';
import type { Pixels } from './pixels.js';
import type { Tracing } from './tracing.js';
import { MM_PER_PIXEL, reducePicture, tracePicture } from './trace-picture.js';
import { seeds } from '../../../testing/long-run.js';

/* Lines a few pixels wide beside areas of the same colour, as logos have them: held against the drawing that the picture was made of. */

/** Each pixel is the mean of sixteen: a renderer by itself draws lines of a pixel paler than they are. */
const FINER = 4;

function pictureOf(svg: string): Pixels {
  const { width: wide, height: high, pixels } = new Resvg(svg, { fitTo: { mode: 'zoom', value: FINER } }).render();
  const fine = new Uint8Array(pixels);
  const [width, height] = [wide / FINER, high / FINER];
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      for (let c = 0; c < 4; c += 1) {
        let sum = 0;
        for (let v = 0; v < FINER; v += 1)
          for (let u = 0; u < FINER; u += 1) sum += fine[4 * ((FINER * y + v) * wide + FINER * x + u) + c]!;
        data[4 * (y * width + x) + c] = Math.round(sum / FINER ** 2);
      }
  return { width, height, data };
}

const INKS = ['#000000', '#16181a', '#1d4e89', '#b3262b'];
const SIZES = [240, 480, 1000];

/** A disc and a bar at the left, and a line or a ring at the right: its area in pixels, and where it is drawn. */
function logo(seed: number) {
  const random = seeded(seed);
  const size = SIZES[seed % SIZES.length]!;
  const widthPx = 1 + (Math.floor(seed / SIZES.length) % 6);
  const ink = INKS[Math.floor(random() * INKS.length)]!;
  const angle = random() * Math.PI;
  const isRing = random() < 0.4;
  const [cx, cy, half, r] = [size * 0.66, size * 0.36, size * 0.22, size * 0.16];
  const [dx, dy] = [half * Math.cos(angle), half * Math.sin(angle)];
  const line = isRing
    ? `<circle cx="${cx}" cy="${cy}" r="${r}" fill="none"/>`
    : `<path d="M${cx - dx} ${cy - dy}L${cx + dx} ${cy + dy}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size * 0.75}"><rect width="${size}" height="${size}" fill="#fff"/><g fill="${ink}"><circle cx="${size * 0.2}" cy="${size * 0.55}" r="${size * 0.13}"/><rect x="${size * 0.05}" y="${size * 0.05}" width="${size * 0.2}" height="${size * 0.1}"/></g><g stroke="${ink}" stroke-width="${widthPx}">${line}</g></svg>`;
  return { svg, ink, size, areaPx: isRing ? 2 * Math.PI * r * widthPx : 2 * half * widthPx };
}

async function traced(svg: string, tracing: Partial<Tracing> = {}) {
  const reduced = await reducePicture(pictureOf(svg), { ...DEFAULT_TRACING, ...tracing });
  const { paints, noticed, ...frame } = await tracePicture(reduced, 0);
  const { regions } = paintRegions({ ...frame, paints, noticed }, 1);
  const all = unite(regions.flatMap(({ rings }) => [...rings]));
  return { reduced, noticed, colours: new Set(regions.map(({ colour }) => colour)), all };
}

describe('thin lines of a picture', () => {
  it.each(seeds(12, 54))(
    'have the colour of the areas beside them, one piece and their area, seed %i',
    async (seed) => {
      const { svg, ink, size, areaPx } = logo(seed);
      const { reduced, noticed, colours, all } = await traced(svg);
      expect([...colours]).toEqual([ink]);
      expect(noticed).toEqual([]);
      // The disc, the bar and the line.
      expect(countPieces(all).pieces).toBe(3);
      const at = (x: number, y: number) => [(x - reduced.frame.x) * MM_PER_PIXEL, (y - reduced.frame.y) * MM_PER_PIXEL];
      const right = Float64Array.from([
        ...at(size * 0.4, -9),
        ...at(size + 9, -9),
        ...at(size + 9, size),
        ...at(size * 0.4, size),
      ]);
      expect(Math.abs(areaOf(intersect(all, [right])) / MM_PER_PIXEL ** 2 / areaPx - 1)).toBeLessThan(0.1);
    },
  );

  it.each(seeds(9, 36))(
    'of the background are gaps in what they run through, of no colour of their own, seed %i',
    async (seed) => {
      const random = seeded(1000 + seed);
      const size = SIZES[seed % SIZES.length]!;
      const widthPx = 1 + (Math.floor(seed / SIZES.length) % 6);
      const ink = INKS[Math.floor(random() * INKS.length)]!;
      const angle = random() * Math.PI;
      const isRing = random() < 0.5;
      const [cx, cy, r] = [size * 0.5, size * 0.37, size * 0.15];
      const [dx, dy] = [size * Math.cos(angle), size * Math.sin(angle)];
      const gap = isRing
        ? `<circle cx="${cx}" cy="${cy}" r="${r}" fill="none"/>`
        : `<path d="M${cx - dx} ${cy - dy}L${cx + dx} ${cy + dy}"/>`;
      const disc = size * 0.3;
      const { reduced, colours, noticed, all } = await traced(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size * 0.75}"><rect width="${size}" height="${size}" fill="#fff"/><circle cx="${cx}" cy="${cy}" r="${disc}" fill="${ink}"/><g stroke="#fff" stroke-width="${widthPx}">${gap}</g></svg>`,
      );
      expect([...colours]).toEqual([ink]);
      expect(noticed).toEqual([]);
      // A gap across parts the disc; a ring leaves a disc within a ring.
      expect(countPieces(all).pieces).toBe(2);
      // Within the disc, away from its own edge.
      const inner = 0.9 * disc;
      const round = Float64Array.from({ length: 720 }, (_, i) => {
        const turn = (Math.floor(i / 2) / 180) * Math.PI;
        const at =
          i % 2 === 0 ? cx + inner * Math.cos(turn) - reduced.frame.x : cy + inner * Math.sin(turn) - reduced.frame.y;
        return at * MM_PER_PIXEL;
      });
      const openPx = areaOf(subtract([round], all)) / MM_PER_PIXEL ** 2;
      expect(Math.abs(openPx / ((isRing ? 2 * Math.PI * r : 2 * inner) * widthPx) - 1)).toBeLessThan(0.1);
    },
  );

  it.each(seeds(9, 36))(
    'that cross, each of its own width, are one piece with all of its counters, seed %i',
    async (seed) => {
      const random = seeded(2000 + seed);
      const size = SIZES[seed % SIZES.length]!;
      const [widthPx, ringPx] = [1 + (seed % 3), 1 + (Math.floor(seed / 3) % 3)];
      const ink = INKS[Math.floor(random() * INKS.length)]!;
      const angle = random() * Math.PI;
      const [cx, cy, half, r] = [size * 0.5, size * 0.37, size * 0.32, size * 0.16];
      const off = 0.7 * r * (2 * random() - 1);
      const [ox, oy] = [cx - off * Math.sin(angle), cy + off * Math.cos(angle)];
      const [dx, dy] = [half * Math.cos(angle), half * Math.sin(angle)];
      const { colours, noticed, all } = await traced(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size * 0.75}"><rect width="${size}" height="${size}" fill="#fff"/><rect x="1" y="1" width="20" height="20" fill="${ink}"/><g fill="none" stroke="${ink}"><circle cx="${cx}" cy="${cy}" r="${r}" stroke-width="${ringPx}"/><path d="M${ox - dx} ${oy - dy}L${ox + dx} ${oy + dy}" stroke-width="${widthPx}"/></g></svg>`,
      );
      expect([...colours]).toEqual([ink]);
      expect(noticed).toEqual([]);
      // The square; and the ring with the line, on either side of which it is open. Pinholes of a pixel at a sharp fork are another matter.
      const closed = all.filter((ring) => areaOf([ring]) > 0 || areaOf([ring]) < -4 * MM_PER_PIXEL ** 2);
      expect(countPieces(closed)).toEqual({ pieces: 2, holes: 2 });
      const areaPx = 400 + 2 * Math.PI * r * ringPx + 2 * half * widthPx - 2 * ringPx * widthPx;
      expect(Math.abs(areaOf(all) / MM_PER_PIXEL ** 2 / areaPx - 1)).toBeLessThan(0.1);
    },
  );

  it('are not seen in what is left of the background round a picture that is cropped closely', async () => {
    for (const margin of [0, 1, 2, 3]) {
      const { all } = await traced(
        `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="120"><rect width="200" height="120" fill="#fff"/><rect x="${margin}" y="${margin}" width="60" height="${120 - 2 * margin}" fill="#1d4e89"/></svg>`,
      );
      expect(countPieces(all), `${margin} px`).toEqual({ pieces: 1, holes: 0 });
      const whole = 60 * (120 - 2 * margin);
      expect(Math.abs(areaOf(all) / MM_PER_PIXEL ** 2 / whole - 1), `${margin} px`).toBeLessThan(0.01);
    }
  });

  it('of the background’s colour are film where only what is round the picture is bare', async () => {
    const { colours, all } = await traced(
      `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" fill="#fff"/><circle cx="150" cy="100" r="80" fill="#1d4e89"/><path d="M100 90L200 121" stroke="#fff" stroke-width="2"/></svg>`,
      { background: 'around' },
    );
    expect([...colours].sort()).toEqual(['#1d4e89', '#ffffff']);
    expect(countPieces(all)).toEqual({ pieces: 1, holes: 0 });
  });

  it('that end in an area are one piece with it', async () => {
    for (const widthPx of [1, 2, 3]) {
      const { all, colours } = await traced(
        `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" fill="#fff"/><circle cx="70" cy="90" r="40" fill="#1d4e89"/><path d="M70 90L260 131M200 118L230 40" stroke="#1d4e89" stroke-width="${widthPx}"/></svg>`,
      );
      expect([...colours], `${widthPx} px`).toEqual(['#1d4e89']);
      expect(countPieces(all).pieces, `${widthPx} px`).toBe(1);
    }
  });
});
