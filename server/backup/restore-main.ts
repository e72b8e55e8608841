import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { databaseFile } from '../db/open-database.js';
import { DATA_FOLDERS, findData } from './find-data.js';
import { restoreDatabase, RestoreRefused } from './restore-database.js';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { data: { type: 'string' }, backups: { type: 'string', default: 'backups' } },
});
const [file] = positionals;
if (file === undefined) {
  const there = existsSync(values.backups)
    ? readdirSync(values.backups).filter((name) => name.endsWith('.sqlite'))
    : [];
  console.error(
    `Say which backup: npm run restore -- FILE${there.length > 0 ? `\nThere are:\n${there.map((name) => `  ${join(values.backups, name)}`).join('\n')}` : ''}`,
  );
  process.exitCode = 2;
} else {
  const folder = findData(values.data) ?? DATA_FOLDERS[0];
  try {
    const before = restoreDatabase(file, folder, values.backups);
    console.log(
      `${databaseFile(folder)} is restored from ${file}.${before ? ` What was there is kept in ${before}.` : ''}`,
    );
  } catch (error) {
    if (!(error instanceof RestoreRefused)) throw error;
    console.error(`${error.message} Nothing was changed.`);
    process.exitCode = 2;
  }
}
