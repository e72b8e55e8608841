import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { Ajv } from 'ajv';
import { learnWeeding } from '../core/engines/learning/index.js';
import { weedingMinutes, type WeedingWork } from '../core/engines/weeding/index.js';
import { describeSchemaError } from '../core/recipe/index.js';
import { figure, object, whole } from '../core/words/schema.js';
import { InputError } from '../core/words/index.js';
import { onlyFile, readJson } from './input.js';

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
  const given = await readJson(file);
  const validate = new Ajv({ allErrors: false }).compile<History>(HISTORY_SCHEMA);
  if (!validate(given)) {
    const { path, reason } = describeSchemaError(validate.errors ?? []);
    throw new InputError(
      'not-a-history',
      `${path || 'It'} ${reason}. See docs/command-line.md for what a history holds.`,
      { source: basename(file) },
    );
  }
  const weeding = learnWeeding(given.weeds.map(({ minutes, ...one }) => ({ ...withAll(one), minutes })));
  console.log(
    JSON.stringify({ weeding, minutes: given.predict.map((one) => weedingMinutes(withAll(one), weeding)) }, null, 2),
  );
}
