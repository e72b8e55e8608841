import { existsSync } from 'node:fs';
import { databaseFile } from '../db/open-database.js';

/** The shop's data folder, and the demo's. */
export const DATA_FOLDERS = ['data', 'data/demo'] as const;

/** The data folder that is meant: the one that is named, else the shop's, else the demo's; null when there is none. */
export function findData(named: string | undefined): string | null {
  if (named !== undefined) return named;
  return DATA_FOLDERS.find((folder) => existsSync(databaseFile(folder))) ?? null;
}
