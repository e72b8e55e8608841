import { parseArgs } from 'node:util';
import { databaseFile } from '../db/open-database.js';
import { backupName, copyDatabase } from '../db/copy-database.js';
import { DATA_FOLDERS, findData } from './find-data.js';

const { values } = parseArgs({ options: { data: { type: 'string' }, to: { type: 'string', default: 'backups' } } });
const folder = findData(values.data);
if (folder === null) {
  console.error(
    `There is nothing to back up: neither ${DATA_FOLDERS.join(' nor ')} holds a database. Name the folder with --data.`,
  );
  process.exitCode = 2;
} else {
  const target = backupName(values.to, folder.replace(/[^a-z0-9]+/gi, '-').replace(/^-+/, ''));
  copyDatabase(databaseFile(folder), target);
  console.log(
    `Backed up ${databaseFile(folder)} to ${target}. To restore it: npm run restore -- ${target}${values.data === undefined ? '' : ` --data ${folder}`}`,
  );
}
