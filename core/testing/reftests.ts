import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A drawing and a picture of how it must look, as PNG. */
export interface Reftest {
  readonly name: string;
  readonly svg: Uint8Array;
  readonly reference: Uint8Array;
}

const FOLDER = 'usr/libexec/installed-tests/RSVG/fixtures/reftests';

/** The tests of the SVG standard, and of faults once found, that Debian ships as a package of its own. It is fetched and unpacked, not installed. */
export function fetchReftests(): Reftest[] {
  const folder = mkdtempSync(join(tmpdir(), 'reftests-'));
  execFileSync('apt-get', ['download', 'librsvg2-tests'], { cwd: folder, stdio: 'ignore' });
  const [archive] = readdirSync(folder);
  execFileSync('dpkg', ['-x', archive!, 'unpacked'], { cwd: folder });
  return ['svg1.1', 'svg2', 'bugs', '.'].flatMap((part) => {
    const files = join(folder, 'unpacked', FOLDER, part);
    return readdirSync(files)
      .filter((file) => file.endsWith('.svg') && existsSync(join(files, file.replace(/\.svg$/, '-ref.png'))))
      .map((file) => ({
        name: join(part, file),
        svg: new Uint8Array(readFileSync(join(files, file))),
        reference: new Uint8Array(readFileSync(join(files, file.replace(/\.svg$/, '-ref.png')))),
      }));
  });
}
