import papaparse from 'papaparse';
import { MOST_MEMBERS, type TeamMember } from './decisions.js';

/** What was read of a list; lines that could not be read are named, and nothing of the list is taken then. */
export interface TeamRead {
  readonly members: readonly TeamMember[];
  readonly problems: readonly string[];
}

const NUMBER = /^\d{1,6}$/;

/**
 * A list of names and numbers, pasted or from a file: one a line, in either order, parted by a comma, a semicolon, a tab, or a blank before or after
 * the number. A head such as “Name, Number” is known by having no number. A name or a number may be missing.
 */
export function readTeam(text: string): TeamRead {
  const lines = text.split(/\r?\n/);
  const problems: string[] = [];
  const members: TeamMember[] = [];
  lines.forEach((line, i) => {
    if (line.trim() === '') return;
    const cells = cellsOf(line);
    const number = cells.find((cell) => NUMBER.test(cell)) ?? '';
    const names = cells.filter((cell) => cell !== number && cell !== '');
    if (number === '' && /^(name|number|no\.?|nr\.?)$/i.test(cells[0] ?? '') && members.length === 0) return;
    if (names.length > 1) problems.push(`Line ${i + 1} has more than a name and a number: “${line.trim().slice(0, 40)}”.`);
    else if ((names[0] ?? '').length > 60) problems.push(`The name in line ${i + 1} is longer than 60 letters.`);
    else members.push({ name: names[0] ?? '', number });
  });
  if (members.length > MOST_MEMBERS) problems.push(`That is ${members.length} lines; one job takes ${MOST_MEMBERS}. Make a second job for the others.`);
  return { members: problems.length > 0 ? [] : members, problems };
}

function cellsOf(line: string): string[] {
  const [row = []] = papaparse.parse<string[]>(line, { delimiter: /[;\t,]/.exec(line)?.[0] ?? '\u0000' }).data;
  const cells = row.map((cell) => cell.trim());
  if (cells.length > 1) return cells;
  // A number before or after a name.
  const parted = /^(\d{1,6})\s+(.+)$/.exec(cells[0] ?? '') ?? /^(.+?)\s+(\d{1,6})$/.exec(cells[0] ?? '');
  return parted ? [parted[1]!, parted[2]!] : cells;
}
