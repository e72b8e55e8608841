import { formatLength } from '../words/index.js';
import { sayColour, startWithColour } from '../stations/artwork/index.js';

/** What became of the decisions about a colour that is gone; `heir` is the new colour that they hold for, if there is one. */
export function sayHeir(colour: string, heir: string | null): string {
  return heir
    ? `Your decisions for ${sayColour(colour)} now apply to ${sayColour(heir)}.`
    : `${startWithColour(colour)} is gone, and so are your decisions for it.`;
}

export function sayFresh(colours: readonly string[]): string {
  return `New colours: ${colours.map(sayColour).join(', ')}.`;
}

interface Artboards {
  readonly was: { readonly widthMm: number; readonly heightMm: number };
  readonly is: { readonly widthMm: number; readonly heightMm: number };
}
const sides = ({ widthMm, heightMm }: Artboards['was']) => `${formatLength(widthMm)} × ${formatLength(heightMm)} mm`;

/** A new version was drawn on another artboard, and was made as large as the old one. */
export function sayFitted({ was, is }: Artboards): string {
  return `The artboard was ${sides(was)} and is ${sides(is)} now. The new version is made as large as the old one was.`;
}

/** The same, at the scale of the old one. */
export function sayKeptScale({ was, is }: Artboards): string {
  return `The artboard was ${sides(was)} and is ${sides(is)} now. The new version keeps its scale, so a millimetre is as long as before.`;
}

export const KEEP_SCALE = 'Keep its scale instead';
export const FIT_TO_OLD = 'Make it as large as the old one';

export function sayNoSuchLayer(isWholeBuild: boolean): string {
  return isWholeBuild ? 'This job has no layers yet.' : 'This job has no layer of that film.';
}

export function sayNothingToPrint(): string {
  return 'There is nothing to print yet: this job has no layers.';
}

export function sayNothingSized(): string {
  return 'There is nothing to wrap yet: this job has no design.';
}
