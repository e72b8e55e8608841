import { createRequire } from 'node:module';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import subsetFont from 'subset-font';

/** What every page is written in: what stands on a keyboard, and the signs of the trade. Accents and other scripts come with their own files when they are met. */
const BASIC = `${Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join('')}\u00a0×·°µ²¼½¾“”‘’–—…−`;

/** `features`: what is set apart from plain letters: kerning, and figures of one width. Ligatures and other forms are not used, and their letters would come along. */
const FACES = [
  {
    file: '@fontsource-variable/public-sans/files/public-sans-latin-wght-normal.woff2',
    family: 'Public Sans Variable',
    weight: '400 750',
    features: ['kern', 'tnum'],
  },
  {
    file: '@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-700-normal.woff2',
    family: 'Bricolage Grotesque',
    weight: '700',
    features: ['kern'],
  },
] as const;

/**
 * Writes the two typefaces with the basic letters alone, and the style sheet that names them: half of what a first visit would fetch of them else.
 * Of faces for the same letter the last one named is taken, so it must come after those of the packages. Gives the sheet's path.
 */
export async function writeFaces(folder: string): Promise<string> {
  const require = createRequire(import.meta.url);
  mkdirSync(folder, { recursive: true });
  const range = [...new Set(BASIC)].map((letter) => `U+${letter.codePointAt(0)!.toString(16)}`).join(', ');
  const rules: string[] = [];
  for (const { file, family, weight, features } of FACES) {
    const name = `${family.toLowerCase().replace(/ /g, '-')}-basic.woff2`;
    const [min, max] = weight.split(' ').map(Number);
    // A package may hide its files from being asked for by name; it names itself.
    const full = join(
      dirname(require.resolve(`${file.split('/').slice(0, 2).join('/')}/package.json`)),
      file.split('/').slice(2).join('/'),
    );
    writeFileSync(
      join(folder, name),
      await subsetFont(readFileSync(full), BASIC, {
        targetFormat: 'woff2',
        keepFeatures: features,
        ...(max === undefined ? {} : { variationAxes: { wght: { min: min!, max } } }),
      }),
    );
    rules.push(
      `@font-face { font-family: '${family}'; font-style: normal; font-display: swap; font-weight: ${weight}; src: url(./${name}) format('woff2'); unicode-range: ${range}; }`,
    );
  }
  const sheet = join(folder, 'faces.css');
  writeFileSync(sheet, `${rules.join('\n')}\n`);
  return sheet;
}
