import { writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { Ajv } from 'ajv';
import { regionsOf, unite, type Ring } from '../core/geometry/index.js';
import { describeSchemaError } from '../core/recipe/index.js';
import { InputError } from '../core/words/index.js';
import { nest } from '../core/engines/nesting/index.js';
import { makeFolder, numberOption, onlyFile, readJson, required } from './input.js';

interface NestFile {
  readonly unit: 'mm';
  readonly sheets: readonly { readonly id: string; readonly width: number; readonly length?: number | null; readonly quantity?: number | null }[];
  readonly spacing: number;
  readonly items: readonly { readonly id: string; readonly quantity: number; readonly rotations?: readonly number[] | 'free'; readonly rings: readonly (readonly (readonly [number, number])[])[] }[];
}

const positive = { type: 'number', exclusiveMinimum: 0, maximum: 1e6 };
const positiveOrNull = { anyOf: [positive, { type: 'null' }] };
const count = { type: 'integer', minimum: 0, maximum: 100_000 };
const point = { type: 'array', minItems: 2, maxItems: 2, items: { type: 'number', minimum: -1e6, maximum: 1e6 } };

/** JSON schema of the nest command's input (docs/command-line.md). */
const NEST_SCHEMA = {
  type: 'object',
  required: ['unit', 'sheets', 'spacing', 'items'],
  additionalProperties: false,
  properties: {
    unit: { const: 'mm' },
    sheets: {
      type: 'array',
      minItems: 1,
      items: {
        type: 'object',
        required: ['id', 'width'],
        additionalProperties: false,
        properties: { id: { type: 'string' }, width: positive, length: positiveOrNull, quantity: { anyOf: [count, { type: 'null' }] } },
      },
    },
    spacing: { type: 'number', minimum: 0, maximum: 1e4 },
    items: {
      type: 'array',
      items: {
        type: 'object',
        required: ['id', 'quantity', 'rings'],
        additionalProperties: false,
        properties: {
          id: { type: 'string' },
          quantity: count,
          rotations: { anyOf: [{ type: 'array', minItems: 1, items: { type: 'number' } }, { const: 'free' }] },
          rings: { type: 'array', minItems: 1, items: { type: 'array', minItems: 3, items: point } },
        },
      },
    },
  },
};

/** Places items on sheets and writes `nest.json`. Lengths in mm, x right, y up. */
export async function nestCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' }, seconds: { type: 'string' } } });
  const file = onlyFile(positionals, 'nest', 'the items');
  const out = required(values.out, 'nest', 'out');
  const seconds = numberOption(values.seconds, 'seconds', 0, 'nest');
  const source = basename(file);
  const json = await readJson(file);
  const validate = new Ajv({ strict: false }).compile<NestFile>(NEST_SCHEMA);
  if (!validate(json)) {
    const { path, reason } = describeSchemaError(validate.errors ?? []);
    throw new InputError('nest-invalid', `${path} ${reason}.`, { source });
  }
  for (const [list, name] of [[json.sheets, 'sheet'], [json.items, 'item']] as const) {
    const ids = list.map((entry) => entry.id);
    const twice = ids.find((id, i) => ids.indexOf(id) !== i);
    if (twice !== undefined) throw new InputError('nest-invalid', `Two ${name}s are called “${twice}”; every ${name} needs an id of its own.`, { source });
  }
  const items = json.items.map((item) => {
    const group = regionsOf(unite(item.rings.map(toRing), 'evenodd'));
    if (group.length === 0) throw new InputError('nest-invalid', `The item “${item.id}” has no area.`, { source });
    return { id: item.id, quantity: item.quantity, rotations: item.rotations ?? [0], group };
  });
  const deadline = performance.now() + (seconds ?? 0) * 1000;
  const result = await nest(
    {
      sheets: json.sheets.map((s) => ({ id: s.id, widthMm: s.width, lengthMm: s.length ?? null, quantity: s.quantity ?? null })),
      spacingMm: json.spacing,
      items,
    },
    seconds === null ? {} : { mayTryMore: () => performance.now() < deadline },
  );
  await makeFolder(out);
  await writeFile(join(out, 'nest.json'), JSON.stringify(result, null, 2) + '\n');
}

function toRing(points: readonly (readonly [number, number])[]): Ring {
  return Float64Array.from(points.flat());
}
