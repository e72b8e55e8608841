import { regionsOf, unite } from '../core/geometry/index.js';
import { nest, nestingFaults, type NestItem, type NestRequest } from '../core/nesting/index.js';
import { blob, disc, rectangle, seeded } from '../core/testing/seeded.js';
import { ms, percent, print } from './measure.js';

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
}
