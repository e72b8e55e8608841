import survey from 'color-name-lists/lib/colors/nbs-iscc.json' with { type: 'json' };
import screen from 'color-name-lists/lib/colors/basic.json' with { type: 'json' };
import { nearestIn } from './colour.js';

/** Colours of a screen that are purer than any sample that the survey's names were given to. */
const PURE: ReadonlySet<string> = new Set(['red', 'blue', 'yellow', 'cyan', 'magenta', 'orange', 'white', 'black']);

/** So far a colour still goes by the plain name of a pure one (CIEDE2000). */
const PURE_REACH = 6;

const nearestNamed = nearestIn(survey.map(({ name, hex }) => ({ name: plainly(name), hex })));
const nearestPure = nearestIn(screen.filter(({ name }) => PURE.has(name)));

const known = new Map<string, string>();

/**
 * What a colour is called, in plain words: "strong red", "dark greyish blue". The nearest by CIEDE2000 of the names that the US National
 * Bureau of Standards and the Inter-Society Color Council gave to 267 parts of the colour space, and of eight pure colours of a screen.
 */
export function colourName(hex: string): string {
  let name = known.get(hex);
  if (name === undefined) {
    const pure = nearestPure(hex);
    name = pure.difference <= PURE_REACH ? pure.nearest.name : nearestNamed(hex).nearest.name;
    known.set(hex, name);
  }
  return name;
}

/** "Moderate Red" is red to everyone, and what follows a comma or "see" is for the reader of the list. */
function plainly(name: string): string {
  return name
    .replace(/,.*| see .*/, '')
    .toLowerCase()
    .replace(/^moderate /, '')
    .replace(/^brilliant /, 'bright ')
    .replaceAll('gray', 'grey');
}
