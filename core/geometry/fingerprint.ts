import type { Ring, Rings } from './rings.js';

/** Coordinates are told apart in steps of this, mm: well under a cutter's own step. */
const STEP_MM = 0.001;

/**
 * A short name of an area's outlines: the same outlines have the same name, whichever ring comes first, wherever a ring begins and however
 * each coordinate ends behind its thousandth of a millimetre. Moving, turning or scaling gives another. Four runs of 32-bit FNV-1a; 32
 * hexadecimal digits. No rings have a name too.
 */
export function fingerprintOf(rings: Rings): string {
  const names = rings.map(nameOf).sort(byWords);
  return hex(hashed(names.flatMap((name) => [...name])));
}

type Words = readonly [number, number, number, number];

function nameOf(ring: Ring): Words {
  const n = ring.length / 2;
  const at = (i: number) => Math.round(ring[i]! / STEP_MM);
  let first = 0;
  for (let i = 1; i < n; i += 1)
    if (at(2 * i) < at(2 * first) || (at(2 * i) === at(2 * first) && at(2 * i + 1) < at(2 * first + 1))) first = i;
  const numbers = new Array<number>(2 * n);
  for (let i = 0; i < n; i += 1) {
    const k = (first + i) % n;
    numbers[2 * i] = at(2 * k);
    numbers[2 * i + 1] = at(2 * k + 1);
  }
  return hashed(numbers);
}

const SEEDS: Words = [0x811c9dc5, 0x2f0b4c47, 0x1b873593, 0x5bd1e995];

function hashed(numbers: readonly number[]): Words {
  let [a, b, c, d] = SEEDS as [number, number, number, number];
  for (let i = 0; i < numbers.length; i += 1) {
    const v = numbers[i]! | 0;
    a = Math.imul(a ^ v, 0x01000193);
    b = Math.imul(b ^ (v + i), 0x01000193);
    c = Math.imul(c ^ ((v << 16) | (v >>> 16)), 0x85ebca6b);
    d = Math.imul((d ^ v) + i, 0xc2b2ae35);
  }
  return [a >>> 0, b >>> 0, c >>> 0, d >>> 0];
}

function byWords(a: Words, b: Words): number {
  return a[0] - b[0] || a[1] - b[1] || a[2] - b[2] || a[3] - b[3];
}

function hex(words: Words): string {
  return words.map((word) => word.toString(16).padStart(8, '0')).join('');
}
