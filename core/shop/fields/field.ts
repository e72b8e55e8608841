import { readLength, sayUnclear, type LengthUnit } from '../../words/index.js';

/** What a person reads and writes of a record: how a field is called, and how what is typed becomes what is kept. */
export interface Field {
  /** Where it stands in the record; `press.tempC` within another. */
  readonly path: string;
  readonly label: string;
  readonly kind: 'text' | 'note' | 'figure' | 'count' | 'length' | 'yes' | 'choice' | 'colour';
  /** Of a figure; lengths are shown in the shop's unit. */
  readonly unit?: string;
  readonly options?: readonly (readonly [value: string, label: string])[];
  /** It may be left empty, which is then null. */
  readonly orNull?: boolean;
  readonly help?: string;
}

export interface FieldGroup {
  readonly title: string;
  readonly fields: readonly Field[];
  /** Whether it is asked of this record at all; always when absent. */
  readonly isAsked?: (record: Readonly<Record<string, unknown>>) => boolean;
}

export type FieldRead = { readonly value: unknown } | { readonly wrong: string };

/** What a field holds, as text that `readField` reads back. */
export function writeField({ kind }: Field, value: unknown, unit: LengthUnit = 'mm'): string {
  if (value === null || value === undefined) return '';
  if (kind === 'yes') return value ? 'yes' : 'no';
  if (kind === 'length' && unit !== 'mm')
    return String(Number(((value as number) / (unit === 'in' ? 25.4 : 10)).toFixed(5)));
  return String(value);
}

/** What somebody wrote in a field, or a sentence that says what is wrong with it. Lengths without a unit are in `unit`. */
export function readField(field: Field, text: string, unit: LengthUnit = 'mm'): FieldRead {
  const tidy = text.trim();
  const { kind } = field;
  if (tidy === '' && field.orNull) return { value: null };
  switch (kind) {
    case 'text':
    case 'note':
      return { value: kind === 'note' ? text : tidy };
    case 'yes':
      return /^(yes|no)$/i.test(tidy)
        ? { value: tidy.toLowerCase() === 'yes' }
        : { wrong: `Write yes or no${said(tidy)}.` };
    case 'choice': {
      const found = field.options!.find(
        ([value, label]) => value.toLowerCase() === tidy.toLowerCase() || label.toLowerCase() === tidy.toLowerCase(),
      );
      return found
        ? { value: found[0] }
        : { wrong: `It must be one of these: ${field.options!.map(([, label]) => label).join('; ')}${said(tidy)}.` };
    }
    case 'colour':
      return /^#?[0-9a-f]{6}$/i.test(tidy)
        ? { value: `#${tidy.replace('#', '').toLowerCase()}` }
        : { wrong: `Write a colour as # and six signs, such as #b3262b${said(tidy)}.` };
    case 'length': {
      const length = readLength(tidy, unit);
      if ('mm' in length) return { value: length.mm };
      return {
        wrong:
          length.problem === 'unclear'
            ? sayUnclear(tidy, length.either)
            : `Write a length such as 120, 12 cm or 4 3/4"${said(tidy)}.`,
      };
    }
    case 'figure':
    case 'count': {
      const figure = /^-?\d*[.,]?\d+$/.test(tidy) ? Number(tidy.replace(',', '.')) : NaN;
      if (/^\d{1,3},\d{3}$/.test(tidy))
        return { wrong: sayUnclear(tidy, [tidy.replace(',', '.'), tidy.replace(',', '')]) };
      if (!Number.isFinite(figure)) return { wrong: `Write a number${said(tidy)}.` };
      return kind === 'count' && !Number.isInteger(figure)
        ? { wrong: `Write a whole number${said(tidy)}.` }
        : { value: figure };
    }
    default:
      return assertNever(kind);
  }
}

/** The value at a field's place in a record. */
export function valueAt(record: Readonly<Record<string, unknown>>, path: string): unknown {
  const [outer, inner] = path.split('.') as [string, string | undefined];
  const value = record[outer];
  return inner === undefined ? value : (value as Record<string, unknown> | null | undefined)?.[inner];
}

function said(text: string): string {
  return text === '' ? '; it is empty' : `, not “${text.slice(0, 40)}”`;
}

function assertNever(value: never): never {
  throw new Error(`Not a kind of field: ${String(value)}`);
}
