import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the checkout, whether this runs from its sources or from what was built of them. */
function projectFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'package.json'))) folder = dirname(folder);
  return folder;
}

/** A file or folder of the checkout that is no program: pages, drawings. */
export function projectPath(...path: string[]): string {
  return join(projectFolder(), ...path);
}
