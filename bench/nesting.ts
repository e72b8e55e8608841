import { regionsOf, unite } from '../core/geometry/index.js';
import { nest, nestingFaults, type NestItem, type NestRequest } from '../core/engines/nesting/index.js';
import { blob, disc, rectangle, seeded } from '../core/testing/seeded.js';
import { drawingPart } from '../core/stations/artwork/index.js';
import { emptyRecipe, patchRecipe } from '../core/recipe/index.js';
import { Planner } from '../core/plan/index.js';
import { BENCH_SHOP } from '../core/testing/bench-shop.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { ms, percent, print, times } from './measure.js';

const TURNS = [0, 90, 180, 270];
const item = (id: string, ring: Float64Array, quantity: number): NestItem => ({ id, quantity, rotations: TURNS, group: regionsOf(unite([ring])) });
const roll = { id: 'roll', widthMm: 590, lengthMm: null, quantity: 1 };

function cases(): readonly (readonly [string, NestRequest])[] {
  const random = seeded(11);
  const stickers = Array.from({ length: 12 }, (_, i) => item(`blob-${i}`, blob(random, 0, 0, 30 + 40 * random()), 3));
  const labels = Array.from({ length: 10 }, (_, i) => item(`label-${i}`, rectangle(0, 0, 40 + 12 * i, 25 + 7 * ((i * 3) % 5)), 4));
  return [
    ['40 labels, rectangles of ten sizes', { sheets: [roll], spacingMm: 3, items: labels }],
    ['60 round stickers', { sheets: [roll], spacingMm: 3, items: [item('round', disc(0, 0, 35, 96), 60)] }],
    ['36 bumpy stickers of twelve kinds', { sheets: [roll], spacingMm: 3, items: stickers }],
    ['24 triangles', { sheets: [roll], spacingMm: 3, items: [item('triangle', Float64Array.of(0, 0, 120, 0, 0, 90), 24)] }],
  ];
}

export async function nestingBench(): Promise<void> {
  const rows: [string, string][] = [];
  for (const [name, request] of cases()) {
    const start = performance.now();
    const { density, placements } = await nest(request);
    const faults = nestingFaults(request, placements).length;
    rows.push([name, `${percent(density)} in ${ms(performance.now() - start)}${faults ? `, ${faults} FAULTS` : ''}`]);
  }
  print('Nesting: share of the film taken that is covered, spacing 3 mm', rows);
  print('A whole plan of 500 copies of 300 pieces, beside 50 copies (it may take a minute at most)', [await manyCopies(true), await manyCopies(false)]);
}

const DOTS = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="50mm" viewBox="0 0 60 50">${Array.from({ length: 300 }, (_, i) => `<circle cx="${2 + (i % 20) * 2.9}" cy="${2 + Math.floor(i / 20) * 3.2}" r="1.1" fill="#16181a"/>`).join('')}</svg>`;

async function manyCopies(border: boolean): Promise<[string, string]> {
  const shop = { ...BENCH_SHOP, pieces: BENCH_SHOP.pieces.map((piece) => ({ ...piece, lengthMm: piece.kind === 'roll' ? 60_000 : piece.lengthMm })) };
  const timeOf = async (copies: number) => {
    const recipe = patchRecipe(emptyRecipe('Bench'), { artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })], surface: { size: { mode: 'own' } }, sheets: { copies }, preparation: { border: border ? 'box' : 'none' } });
    const start = performance.now();
    const { sheets } = await new Planner(resourcesInNode).plan({ recipe, shop, sources: new Map([['a', new TextEncoder().encode(DOTS)]]) });
    if (sheets!.sheets.reduce((sum, sheet) => sum + sheet.groups.length, 0) !== copies) throw new Error('Not all copies were laid out.');
    return performance.now() - start;
  };
  const [few, many] = [await timeOf(50), await timeOf(500)];
  return [border ? 'with a weeding border each' : 'by their outlines', `${(many / 1000).toFixed(1)} s, ${times(many / few)} that of 50`];
}
