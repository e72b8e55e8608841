import { parseArgs } from 'node:util';
import { learnWeeding } from '../core/engines/learning/index.js';
import { weedingMinutes, type WeedingWork } from '../core/engines/weeding/index.js';
import { figure, object, whole } from '../core/words/schema.js';
import { onlyFile, readJsonOf } from './input.js';

const length = figure(0, 1e9);
const many = whole(0, 1_000_000);
const WORK = {
  sheets: many,
  counters: many,
  looseParts: many,
  smallParts: many,
  strips: many,
  outlineMm: length,
  thinMm: length,
};
/** Small parts and strips may be left out. */
const work = (more: Readonly<Record<string, object>>) => ({
  ...object({ ...WORK, ...more }),
  required: ['sheets', 'counters', 'looseParts', 'outlineMm', 'thinMm', ...Object.keys(more)],
});
const HISTORY_SCHEMA = object({
  weeds: {
    type: 'array',
    maxItems: 100_000,
    items: work({ minutes: { type: 'number', exclusiveMinimum: 0, maximum: 1e6 } }),
  },
  predict: { type: 'array', maxItems: 100_000, items: work({}) },
});

type Given = Omit<WeedingWork, 'smallParts' | 'strips'> & Partial<WeedingWork>;

interface History {
  readonly weeds: readonly (Given & { readonly minutes: number })[];
  readonly predict: readonly Given[];
}

const withAll = (given: Given): WeedingWork => ({
  ...given,
  smallParts: given.smallParts ?? 0,
  strips: given.strips ?? 0,
});

/** Learns figures of weeding from a history of it, and prints them with the minutes that they make of other work. @throws InputError `not-a-history` */
export async function learnCommand(args: string[]): Promise<void> {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const file = onlyFile(positionals, 'learn', 'the history');
  const given = await readJsonOf<History>(file, { schema: HISTORY_SCHEMA, code: 'not-a-history', what: 'a history' });
  const weeding = learnWeeding(given.weeds.map(({ minutes, ...one }) => ({ ...withAll(one), minutes })));
  console.log(
    JSON.stringify({ weeding, minutes: given.predict.map((one) => weedingMinutes(withAll(one), weeding)) }, null, 2),
  );
}
