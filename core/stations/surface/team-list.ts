import papaparse from 'papaparse';
import { GARMENT_SIZES } from '../../engines/surface/index.js';
import { LONGEST_NAME, MOST_MEMBERS, type TeamMember } from './decisions.js';
import { sayLongName, sayManyMembers, sayMoreCells } from './say-garment.js';

/** What was read of a list; lines that could not be read are named, and nothing of the list is taken then. */
export interface TeamRead {
  readonly members: readonly TeamMember[];
  readonly problems: readonly string[];
}

const NUMBER = /^\d{1,6}$/;

/**
 * A list of names and numbers, pasted or from a file: one a line, in either order, parted by a comma, a semicolon, a tab, or a blank before or after
 * the number. Of three cells or more, the last that says a size of garments is the size. A head such as “Name, Number” is known by having no number. A name, a number or a size may be missing.
 */
export function readTeam(text: string): TeamRead {
  const lines = text.split(/\r?\n/);
  const problems: string[] = [];
  const members: TeamMember[] = [];
  lines.forEach((line, i) => {
    if (line.trim() === '') return;
    const cells = cellsOf(line);
    const numberAt = cells.findIndex((cell) => NUMBER.test(cell));
    const number = cells[numberAt] ?? '';
    // Two cells are a name and a number: somebody may be called M.
    const sizeAt = cells.length > 2 ? cells.findLastIndex((cell, k) => k !== numberAt && sizeOf(cell) !== null) : -1;
    const names = cells.filter((cell, k) => k !== numberAt && k !== sizeAt && cell !== '');
    if (number === '' && /^(name|number|size|no\.?|nr\.?)$/i.test(cells[0] ?? '') && members.length === 0) return;
    if (names.length > 1) problems.push(sayMoreCells(i + 1, line));
    else if ((names[0] ?? '').length > LONGEST_NAME) problems.push(sayLongName(i + 1, LONGEST_NAME));
    else members.push({ name: names[0] ?? '', number, size: sizeOf(cells[sizeAt] ?? '') ?? '' });
  });
  if (members.length > MOST_MEMBERS) problems.push(sayManyMembers(members.length, MOST_MEMBERS));
  return { members: problems.length > 0 ? [] : members, problems };
}

/** A size of garments as it is written here; null for what is none. */
function sizeOf(cell: string): string | null {
  return Object.keys(GARMENT_SIZES).find((size) => size.toLowerCase() === cell.toLowerCase()) ?? null;
}

function cellsOf(line: string): string[] {
  const [row = []] = papaparse.parse<string[]>(line, { delimiter: /[;\t,]/.exec(line)?.[0] ?? '\u0000' }).data;
  const cells = row.map((cell) => cell.trim());
  if (cells.length > 1) return cells;
  // A number before or after a name.
  const parted = /^(\d{1,6})\s+(.+)$/.exec(cells[0] ?? '') ?? /^(.+?)\s+(\d{1,6})$/.exec(cells[0] ?? '');
  return parted ? [parted[1]!, parted[2]!] : cells;
}
