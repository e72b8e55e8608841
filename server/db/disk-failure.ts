/** What is wrong with the disk or the database file, as SQLite and the system say it. */
export type DiskFailure = 'full' | 'unwritable' | 'damaged';

const FULL = ['SQLITE_FULL', 'ENOSPC', 'EDQUOT', 'EFBIG'];
const UNWRITABLE = ['SQLITE_READONLY', 'SQLITE_CANTOPEN', 'SQLITE_IOERR', 'EROFS', 'EACCES', 'EPERM', 'ENOTDIR'];
const DAMAGED = ['SQLITE_CORRUPT', 'SQLITE_NOTADB'];

/** Whether an error is the disk's fault and how; null when it is not. Extended codes (SQLITE_IOERR_WRITE) count as what they begin with. */
export function diskFailureOf(error: unknown): DiskFailure | null {
  const code = String((error as { code?: unknown } | null)?.code ?? '');
  const is = (codes: readonly string[]) => codes.some((one) => code === one || code.startsWith(`${one}_`));
  return is(FULL) ? 'full' : is(DAMAGED) ? 'damaged' : is(UNWRITABLE) ? 'unwritable' : null;
}
