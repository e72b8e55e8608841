import { mkdir, readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { Ajv } from 'ajv';
import { describeSchemaError } from '../core/recipe/index.js';
import { InputError } from '../core/words/index.js';

/** Files above this are refused before they are read. */
const LARGEST_BYTES = 64 * 1024 * 1024;

/** Reads a file for a command. @throws InputError when it is a folder or too large; system errors as they come */
export async function readInput(path: string): Promise<Uint8Array> {
  const found = await stat(path);
  if (found.isDirectory())
    throw new InputError('is-folder', 'It is a folder. Name one file in it.', { source: basename(path) });
  const { size } = found;
  if (size > LARGEST_BYTES)
    throw new InputError('file-too-large', `It is ${Math.round(size / 1e6)} MB; at most 64 MB are read.`, {
      source: basename(path),
    });
  return readFile(path);
}

/** Reads and parses a JSON file. @throws InputError `not-json` */
export async function readJson(path: string): Promise<unknown> {
  const bytes = await readInput(path);
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch (error) {
    throw new InputError('not-json', `It is not JSON: ${(error as Error).message}`, {
      source: basename(path),
      cause: error,
    });
  }
}

/** What a JSON file of a command has to be. */
interface JsonKind {
  readonly schema: object;
  /** The code of the refusal. */
  readonly code: string;
  /** What such a file is called. */
  readonly what: string;
}

/** Reads a JSON file and holds it against its schema. @throws InputError `not-json`, or `code` with the place and what is wrong there */
export async function readJsonOf<T>(path: string, { schema, code, what }: JsonKind): Promise<T> {
  const given = await readJson(path);
  const validate = new Ajv({ strict: false, allErrors: false }).compile<T>(schema);
  if (validate(given)) return given;
  const { path: place, reason } = describeSchemaError(validate.errors ?? []);
  throw new InputError(code, `${place || 'It'} ${reason}. See docs/command-line.md for what ${what} holds.`, {
    source: basename(path),
  });
}

/** The one file a command works on. @throws InputError when there is none or more than one */
export function onlyFile(positionals: readonly string[], command: string, what: string): string {
  if (positionals.length !== 1)
    throw new InputError('usage', `Expected one file, ${what}, but got ${positionals.length}.`, { source: command });
  return positionals[0]!;
}

/** A required option. @throws InputError */
export function required(value: string | undefined, command: string, option: string): string {
  if (!value) throw new InputError('usage', `The option --${option} is missing.`, { source: command });
  return value;
}

/** A number given on the command line. @throws InputError unless it is finite and at least `min` */
export function numberOption(value: string | undefined, option: string, min: number, command: string): number | null {
  if (value === undefined) return null;
  const number = Number(value);
  if (value.trim() === '' || !Number.isFinite(number) || number < min || number > 1e6) {
    throw new InputError('usage', `--${option} must be a number from ${min} to 1000000, but is “${value}”.`, {
      source: command,
    });
  }
  return number;
}

export async function makeFolder(path: string): Promise<void> {
  await mkdir(path, { recursive: true });
}
