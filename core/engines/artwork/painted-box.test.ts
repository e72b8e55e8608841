import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { rotation, scaling, type Box } from '../../geometry/index.js';
import { NO_REPAIR } from '../../stations/artwork/index.js';
import { seeded } from '../../testing/seeded.js';
import { EVERYWHERE } from '../../words/index.js';
import { paintedBox, readSvg, type PaintRepair } from './index.js';

const svg = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 80" width="100mm" height="80mm">${body}</svg>`;
const read = (body: string) => readSvg(new TextEncoder().encode(svg(body)), 'test.svg');
const boxOf = (body: string, repair: Partial<PaintRepair> = {}, matrix = scaling(1), bare: string | null = null) =>
  paintedBox(
    read(body),
    { matrix, toleranceMm: 0.001, repair: { ...NO_REPAIR, ...repair }, rules: EVERYWHERE },
    bare === null ? null : (area) => area.colour === bare,
  );

const PX_PER_MM = 12;

/** Round all pixels that a renderer colours, other than with `bare`, mm. */
function drawnBox(body: string, bare: readonly number[] | null): Box | null {
  const { width, height, pixels } = new Resvg(svg(body), {
    fitTo: { mode: 'width', value: 100 * PX_PER_MM },
    shapeRendering: 0,
  }).render();
  let box = null as Box | null;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const i = 4 * (y * width + x);
      if (pixels[i + 3]! < 128 || bare?.every((v, k) => v === pixels[i + k])) continue;
      box = {
        minX: Math.min(box?.minX ?? Infinity, x),
        minY: Math.min(box?.minY ?? Infinity, y),
        maxX: Math.max(box?.maxX ?? 0, x + 1),
        maxY: Math.max(box?.maxY ?? 0, y + 1),
      };
    }
  }
  return (
    box && {
      minX: box.minX / PX_PER_MM,
      minY: box.minY / PX_PER_MM,
      maxX: box.maxX / PX_PER_MM,
      maxY: box.maxY / PX_PER_MM,
    }
  );
}

/** Holds a drawn box to a pixel; a sharp tip, thinner than a pixel, may reach a little further. */
function holds(got: Box | null, drawn: Box | null): void {
  expect(got === null).toBe(drawn === null);
  if (!got || !drawn) return;
  const further = [drawn.minX - got.minX, drawn.minY - got.minY, got.maxX - drawn.maxX, got.maxY - drawn.maxY];
  expect(Math.min(...further)).toBeGreaterThan(-1.5 / PX_PER_MM);
  expect(Math.max(...further)).toBeLessThan(TIP_MM);
}

const TIP_MM = 0.75;

function randomBody(seed: number): string {
  const random = seeded(seed);
  const at = (most: number) => (random() * most).toFixed(2);
  const colours = ['#b3262b', '#1f6b45', '#ffffff'];
  const shape = () => {
    const paint =
      random() < 0.5
        ? `fill="${colours[Math.floor(random() * 3)]}"`
        : `fill="none" stroke="${colours[Math.floor(random() * 3)]}" stroke-width="${(1 + 6 * random()).toFixed(2)}" stroke-linejoin="${['miter', 'round', 'bevel'][Math.floor(random() * 3)]}" stroke-linecap="${['butt', 'round', 'square'][Math.floor(random() * 3)]}"`;
    const turn = `transform="rotate(${at(360)} 50 40)"`;
    const clip = random() < 0.3 ? 'clip-path="url(#c)"' : '';
    const kind = Math.floor(random() * 3);
    if (kind === 0)
      return `<rect x="${at(70)}" y="${at(60)}" width="${at(50)}" height="${at(30)}" ${paint} ${turn} ${clip}/>`;
    if (kind === 1)
      return `<ellipse cx="${at(100)}" cy="${at(80)}" rx="${at(30)}" ry="${at(20)}" ${paint} ${turn} ${clip}/>`;
    return `<path d="M${at(100)} ${at(80)}C${at(100)} ${at(80)} ${at(100)} ${at(80)} ${at(100)} ${at(80)}S${at(100)} ${at(80)} ${at(100)} ${at(80)}" ${paint} ${clip}/>`;
  };
  return `<clipPath id="c"><circle cx="${at(100)}" cy="${at(80)}" r="${(10 + 30 * random()).toFixed(2)}"/></clipPath>${Array.from({ length: 1 + Math.floor(5 * random()) }, shape).join('')}`;
}

describe('the box round what is painted', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'seed %i: is the box round what a renderer draws, strokes, clips and the edge of the artboard counted',
    (seed) => {
      const body = randomBody(seed);
      holds(boxOf(body), drawnBox(body, null));
    },
  );

  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'seed %i: leaves out what is bare, and what bare areas cover',
    (seed) => {
      const body = randomBody(1000 + seed);
      holds(boxOf(body, {}, scaling(1), '#ffffff'), drawnBox(body, [255, 255, 255, 255]));
    },
  );

  it('is exact where curves end and strokes turn', () => {
    expect(boxOf('<circle cx="50" cy="40" r="20"/>')).toEqual({
      minX: expect.closeTo(30, 2),
      minY: expect.closeTo(20, 2),
      maxX: expect.closeTo(70, 2),
      maxY: expect.closeTo(60, 2),
    });
    expect(boxOf('<path d="M20 60L50 20 80 60" fill="none" stroke="#000" stroke-width="4"/>')!.minY).toBeCloseTo(
      20 - 2 / Math.sin(Math.atan(30 / 40)),
      2,
    );
  });
  it('reaches beyond the artboard when all that is drawn is taken', () => {
    const body = '<rect x="-20" y="10" width="60" height="20"/>';
    expect([boxOf(body)!.minX, boxOf(body, { beyondArtboard: 'take' })!.minX]).toEqual([0, -20]);
  });
  it('is that of the turned drawing', () => {
    const { minX, maxX } = boxOf('<circle cx="50" cy="40" r="20"/>', {}, rotation(30))!;
    expect(maxX - minX).toBeCloseTo(40, 1);
  });
  it('knows hairlines as the maker wants them', () => {
    const body =
      '<rect x="40" y="30" width="10" height="10"/><rect x="5" y="5" width="80" height="60" fill="none" stroke="#000" stroke-width=".1"/>';
    const width = (hairlines: PaintRepair['hairlines']) => {
      const { minX, maxX } = boxOf(body, { hairlines })!;
      return maxX - minX;
    };
    expect([width('keep'), width('drop'), width('fill')]).toEqual([expect.closeTo(80.1, 3), 10, 80]);
  });
  it('is none when nothing is painted, or all of it is bare', () =>
    expect([boxOf(''), boxOf('<rect width="9" height="9" fill="#ffffff"/>', {}, scaling(1), '#ffffff')]).toEqual([
      null,
      null,
    ]));
});
