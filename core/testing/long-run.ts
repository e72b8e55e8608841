import { seeded } from './seeded.js';

/** The long run (`npm run test:long`) tries everything; `npm test` tries a sample of what takes long. */
const IS_LONG = Boolean(process.env['LANTERN_LONG']);

/** All of some cases in the long run, else `few` of them: chosen by a seed, so always the same ones, and in their order. */
export function sampled<T>(all: readonly T[], few: number): readonly T[] {
  if (IS_LONG || all.length <= few) return all;
  const random = seeded(all.length);
  const chosen = new Set<number>();
  while (chosen.size < few) chosen.add(Math.floor(random() * all.length));
  return all.filter((_, i) => chosen.has(i));
}

/** Seeds from 0: `long` of them in the long run, else the first `few`. */
export function seeds(few: number, long: number): readonly number[] {
  return Array.from({ length: IS_LONG ? long : few }, (_, seed) => seed);
}
