import { colourName } from '../../engines/artwork/index.js';

/** A colour as it is said: by its name, and by what it is in the file, since two may share a name. */
export function sayColour(hex: string): string {
  return `${colourName(hex)} (${hex})`;
}

/** The same where a sentence begins with it. */
export function startWithColour(hex: string): string {
  const said = sayColour(hex);
  return said[0]!.toUpperCase() + said.slice(1);
}
