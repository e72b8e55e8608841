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

export function sayNoSuchLayer(isWholeBuild: boolean): string {
  return isWholeBuild ? 'This job has no layers yet.' : 'This job has no layer of that film.';
}

export function sayNothingToPrint(): string {
  return 'There is nothing to print yet: this job has no layers.';
}

export function sayNothingSized(): string {
  return 'There is nothing to wrap yet: this job has no design.';
}
