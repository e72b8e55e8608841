import { writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { boundsOf, regionsOf, unite, type Ring } from '../core/geometry/index.js';
import { InputError } from '../core/words/index.js';
import {
  nest,
  nestingFaults,
  type NestRequest,
  type NestSheet,
  type Placement,
} from '../core/engines/nesting/index.js';
import { makeFolder, numberOption, onlyFile, readJsonOf, required } from './input.js';
import { stepBudget } from './step-budget.js';

type Points = readonly (readonly [number, number])[];

/** A rectangle, or a piece of any outline: even-odd rings. */
interface SheetEntry {
  readonly id: string;
  readonly width?: number;
  readonly length?: number | null;
  readonly rings?: readonly Points[];
  readonly quantity?: number | null;
}

interface NestFile {
  readonly unit: 'mm';
  readonly sheets: readonly SheetEntry[];
  readonly spacing: number;
  readonly items: readonly {
    readonly id: string;
    readonly quantity: number;
    readonly rotations?: readonly number[] | 'free';
    readonly rings: readonly Points[];
  }[];
  readonly pinned?: readonly {
    readonly item: string;
    readonly copy?: number;
    readonly sheet: string;
    readonly sheetIndex?: number;
    readonly x: number;
    readonly y: number;
    readonly rotation?: number;
  }[];
}

const positive = { type: 'number', exclusiveMinimum: 0, maximum: 1e6 };
const positiveOrNull = { anyOf: [positive, { type: 'null' }] };
const count = { type: 'integer', minimum: 0, maximum: 100_000 };
const point = { type: 'array', minItems: 2, maxItems: 2, items: { type: 'number', minimum: -1e6, maximum: 1e6 } };

const rings = { type: 'array', minItems: 1, items: { type: 'array', minItems: 3, items: point } };
const coordinate = { type: 'number', minimum: -1e6, maximum: 1e6 };

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
        required: ['id'],
        oneOf: [{ required: ['width'] }, { required: ['rings'], not: { required: ['length'] } }],
        additionalProperties: false,
        properties: {
          id: { type: 'string' },
          width: positive,
          length: positiveOrNull,
          rings,
          quantity: { anyOf: [count, { type: 'null' }] },
        },
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
          rings,
        },
      },
    },
    pinned: {
      type: 'array',
      items: {
        type: 'object',
        required: ['item', 'sheet', 'x', 'y'],
        additionalProperties: false,
        properties: {
          item: { type: 'string' },
          copy: count,
          sheet: { type: 'string' },
          sheetIndex: { type: 'integer', minimum: 0, maximum: 999 },
          x: coordinate,
          y: coordinate,
          rotation: { type: 'number', minimum: -360, maximum: 360 },
        },
      },
    },
  },
};

/** Places items on sheets and writes `nest.json`. Lengths in mm, x right, y up. */
export async function nestCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { out: { type: 'string' }, seconds: { type: 'string' }, steps: { type: 'string' } },
  });
  const file = onlyFile(positionals, 'nest', 'the items');
  const out = required(values.out, 'nest', 'out');
  const seconds = numberOption(values.seconds, 'seconds', 0, 'nest');
  const most = numberOption(values.steps, 'steps', 0, 'nest');
  const items = await readJsonOf<NestFile>(file, {
    schema: NEST_SCHEMA,
    code: 'nest-invalid',
    what: 'a list of items',
  });
  const request = requestOf(items, basename(file));
  const endsAt = seconds === null ? null : performance.now() + seconds * 1000;
  const result = await nest(
    request,
    seconds === null && most === null ? {} : { mayTryMore: stepBudget(most ?? Infinity, endsAt) },
  );
  await makeFolder(out);
  await writeFile(join(out, 'nest.json'), JSON.stringify(result, null, 2) + '\n');
}

function requestOf(json: NestFile, source: string): NestRequest {
  const refuse = (message: string) => new InputError('nest-invalid', message, { source });
  for (const [list, name] of [
    [json.sheets, 'sheet'],
    [json.items, 'item'],
  ] as const) {
    const ids = list.map((entry) => entry.id);
    const twice = ids.find((id, i) => ids.indexOf(id) !== i);
    if (twice !== undefined) throw refuse(`Two ${name}s are called “${twice}”; every ${name} needs an id of its own.`);
  }
  const items = json.items.map((item) => {
    const group = regionsOf(unite(item.rings.map(toRing), 'evenodd'));
    if (group.length === 0) throw refuse(`The item “${item.id}” has no area.`);
    return { id: item.id, quantity: item.quantity, rotations: item.rotations ?? [0], group };
  });
  const sheets = json.sheets.map(({ id, width, length, rings: outlines, quantity }): NestSheet => {
    if (!outlines) return { id, widthMm: width!, lengthMm: length ?? null, quantity: quantity ?? null };
    const [outline, second] = regionsOf(unite(outlines.map(toRing), 'evenodd'));
    if (!outline || second)
      throw refuse(`The sheet “${id}” has to be one piece; its rings make ${outline ? 'several' : 'none'}.`);
    const box = boundsOf([outline.outer])!;
    if (box.minX < 0 || box.minY < 0)
      throw refuse(`The sheet “${id}” has points below 0; move its rings so that all are at 0 or above.`);
    return { id, widthMm: box.maxX, lengthMm: box.maxY, quantity: quantity ?? null, outline };
  });
  const used = new Map<string, number>();
  const pinned = (json.pinned ?? []).map(
    ({ item: id, copy, sheet: sheetId, sheetIndex = 0, x, y, rotation = 0 }): Placement => {
      const item = items.find((one) => one.id === id);
      const sheet = sheets.find((one) => one.id === sheetId);
      if (!item) throw refuse(`“${id}” is pinned, and there is no item of that name.`);
      if (!sheet) throw refuse(`“${id}” is pinned on the sheet “${sheetId}”, which there is not.`);
      if (sheetIndex >= (sheet.quantity ?? Infinity))
        throw refuse(
          `“${id}” is pinned on number ${sheetIndex} of the sheet “${sheetId}”, counted from 0; there ${sheet.quantity === 1 ? 'is' : 'are'} ${sheet.quantity}.`,
        );
      const own = copy ?? used.get(id) ?? 0;
      used.set(id, own + 1);
      if (own >= item.quantity)
        throw refuse(
          `Copy ${own} of “${id}” is pinned, counted from 0; ${item.quantity} of it ${item.quantity === 1 ? 'is' : 'are'} wanted.`,
        );
      return { item: id, copy: own, sheet: sheetId, sheetIndex, x, y, rotation };
    },
  );
  const twice = pinned.find(
    (one, i) => pinned.findIndex(({ item, copy }) => item === one.item && copy === one.copy) !== i,
  );
  if (twice) throw refuse(`Copy ${twice.copy} of “${twice.item}” is pinned twice.`);
  const request: NestRequest = { sheets, spacingMm: json.spacing, items, pinned };
  const [fault] = nestingFaults(request, pinned);
  if (fault) throw refuse(`What is pinned cannot lie so: ${fault}`);
  return request;
}

function toRing(points: Points): Ring {
  return Float64Array.from(points.flat());
}
