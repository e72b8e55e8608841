import { chmodSync, mkdirSync } from 'node:fs';

/** A folder, made if need be, that nobody but its owner may look into: it holds customers' names and artwork. */
export function makePrivateFolder(folder: string): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  try {
    chmodSync(folder, 0o700);
  } catch (error) {
    // One that belongs to somebody else, as on a mounted drive, is theirs to close.
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') throw error;
  }
}
