import Papa from 'papaparse';
import { FILM_FAMILIES, newFilm, type Film, type FilmFamily } from '../film.js';
import { readField, valueAt, writeField, type Field } from './field.js';
import { FILM_FIELDS, isPressed } from './film-fields.js';

/** What is wrong with one line of a file. */
export interface CsvProblem {
  /** As an editor counts them, the head being line 1. */
  readonly line: number;
  readonly message: string;
}

/** A film, and the line it stands in. */
export interface CsvFilm {
  readonly line: number;
  readonly film: Film;
}

const ID = 'id';
const RETIRED: Field = { path: 'retired', label: 'Retired', kind: 'yes' };
const COLUMNS: readonly {
  readonly head: string;
  readonly field: Field;
  readonly isAsked: (record: Readonly<Record<string, unknown>>) => boolean;
}[] = [
  ...FILM_FIELDS.flatMap(({ fields, title, isAsked = () => true }) =>
    fields.map((field) => ({
      head: `${title === 'Under the press' ? 'press: ' : ''}${field.label.toLowerCase()}${field.kind === 'length' ? ' mm' : field.unit ? ` ${field.unit}` : ''}`,
      field,
      isAsked,
    })),
  ),
  { head: 'retired', field: RETIRED, isAsked: () => true },
];
/** Heads as they are written, whatever hand wrote them. */
const HEADS = new Map([ID, ...COLUMNS.map(({ head }) => head)].map((head) => [head.toLowerCase(), head]));
/** Without these a line is no film. */
const NEEDED = ['name', 'family'];
const MOST_LINES = 5000;

/** Films as a file that any table program opens: a line a film, in the order of its form, lengths in mm. */
export function writeFilmsCsv(films: readonly Film[]): string {
  const rows = films.map((film) => [
    film.id,
    ...COLUMNS.map(({ field }) => writeField(field, valueAt(film as unknown as Record<string, unknown>, field.path))),
  ]);
  return Papa.unparse({ fields: [ID, ...COLUMNS.map(({ head }) => head)], data: rows });
}

/**
 * Films out of such a file. A line whose id is known changes that film, and leaves of it what has no column; one without an id is a new film, and what has no
 * column, or stands empty, is what is typical of its family. Nothing is taken when anything is wrong: every wrong line is told.
 */
export function readFilmsCsv(
  text: string,
  known: readonly Film[],
  newId: () => string,
): { readonly films: readonly CsvFilm[]; readonly problems: readonly CsvProblem[] } {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const problems: CsvProblem[] = errors
    .filter(({ code }) => code !== 'UndetectableDelimiter')
    .map(({ row, message }) => ({ line: (row ?? 0) + 1, message: `This line cannot be read as a table: ${message}.` }));
  const [head = [], ...lines] = data;
  const heads = head.map((name) => HEADS.get(name.trim().toLowerCase()) ?? name.trim().toLowerCase());
  const unknown = heads.filter((name) => name !== ID && !COLUMNS.some((column) => column.head === name));
  const twice = heads.filter((name, i) => name !== '' && heads.indexOf(name) !== i);
  const missing = NEEDED.filter((name) => !heads.includes(name));
  if (unknown.length > 0)
    problems.push({
      line: 1,
      message: `These columns are not known: ${unknown
        .map((name) => `“${name.slice(0, 40)}”`)
        .slice(0, 8)
        .join(', ')}. Known are: ${[ID, ...COLUMNS.map((column) => column.head)].join(', ')}.`,
    });
  if (twice.length > 0) problems.push({ line: 1, message: `These columns stand there twice: ${twice.join(', ')}.` });
  if (missing.length > 0) problems.push({ line: 1, message: `These columns are missing: ${missing.join(', ')}.` });
  if (lines.length === 0)
    problems.push({ line: 1, message: 'There is no film in this file: it has no line under its head.' });
  if (lines.length > MOST_LINES)
    problems.push({ line: MOST_LINES + 2, message: `At most ${MOST_LINES} films can come in one file.` });
  if (problems.length > 0) return { films: [], problems };
  const ids = new Set<string>();
  const films: CsvFilm[] = [];
  for (const [i, cells] of lines.entries()) {
    const line = lineOf(text, data, i + 1);
    if (cells.length > heads.length) {
      problems.push({ line, message: `It has ${cells.length} cells, and the head has ${heads.length} columns.` });
      continue;
    }
    const cell = (name: string) => (cells[heads.indexOf(name)] ?? '').trim();
    const id = heads.includes(ID) ? cell(ID) : '';
    const before = id === '' ? null : known.find((film) => film.id === id);
    if (before === undefined)
      problems.push({ line, message: `No film has the id “${id.slice(0, 40)}”. Leave the id empty for a new film.` });
    if (id !== '' && ids.has(id)) problems.push({ line, message: `The id “${id}” stands in two lines.` });
    ids.add(id);
    const family = readField(FAMILY, cell('family'));
    if ('wrong' in family) {
      problems.push({ line, message: `family: ${family.wrong}` });
      continue;
    }
    const fresh = newFilm(before?.id ?? newId(), family.value as FilmFamily);
    const film: Record<string, unknown> = structuredClone({ ...(before ?? fresh), family: family.value });
    const pressed = isPressed(film);
    if (pressed !== (film['press'] !== null))
      Object.assign(film, {
        press: fresh.press,
        adhesive: fresh.adhesive,
        adhesiveColour: fresh.adhesiveColour,
        layingMinC: fresh.layingMinC,
      });
    for (const { head: name, field, isAsked } of COLUMNS) {
      const written = heads.includes(name) ? cell(name) : '';
      if (!isAsked(film)) {
        if (written !== '' && name.startsWith('press: '))
          problems.push({
            line,
            message: `${name}: ${FILM_FAMILIES[family.value as FilmFamily].name} is not pressed. Leave it empty.`,
          });
        continue;
      }
      // An empty cell of a new film is what is typical; of a known one, it is empty, where that is allowed.
      if (
        !heads.includes(name) ||
        (written === '' && (!before || !(field.orNull || field.kind === 'text' || field.kind === 'note')))
      )
        continue;
      const read = readField(field, written);
      if ('wrong' in read) problems.push({ line, message: `${name}: ${read.wrong}` });
      else put(film, field.path, read.value);
    }
    films.push({ line, film: film as unknown as Film });
  }
  return problems.length > 0 ? { films: [], problems } : { films, problems };
}

const FAMILY = COLUMNS.find(({ head }) => head === 'family')!.field;

function put(record: Record<string, unknown>, path: string, value: unknown): void {
  const [outer, inner] = path.split('.') as [string, string | undefined];
  if (inner === undefined) record[outer] = value;
  else (record[outer] as Record<string, unknown>)[inner] = value;
}

/** The column of a field of a film, as a file names it. */
export function columnOf(path: string): string {
  return COLUMNS.find(({ field }) => field.path === path)?.head ?? path;
}

/** Where a record begins in its file: a cell may hold line ends, and empty lines are no records. */
function lineOf(text: string, records: readonly (readonly string[])[], index: number): number {
  let line = 1;
  const all = text.split(/\r\n|\n|\r/);
  for (let i = 0; i <= index; i += 1) {
    while (line - 1 < all.length && all[line - 1]!.replace(/[\s,;\t]/g, '') === '') line += 1;
    if (i === index) return line;
    line += 1 + records[i]!.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);
  }
  return line;
}
