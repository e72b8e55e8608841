import type { StageStep } from '../stage.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import { reordered } from './arrangement.js';
import { nameOfPart, type ArtworkPart, type LetteringPart, type PicturePart } from './artwork-part.js';
import type { ArtworkPatch } from './decisions.js';

/** Nothing to begin with: nothing is wrong, the station invites. */
export const NO_ARTWORK: Finding<ArtworkPatch> = {
  code: 'no-artwork',
  severity: 'note',
  stage: 'artwork',
  message: 'There is no artwork yet. Add a file, or write some words.',
};

export const NOTHING_PAINTED: Finding<ArtworkPatch> = {
  code: 'nothing-painted',
  severity: 'blocker',
  stage: 'artwork',
  message: 'Nothing in this artwork has an area that can be cut.',
};

export function sayMissingFile(fileName: string): { readonly code: string; readonly message: string } {
  return {
    code: 'file-missing',
    message: `The file ${fileName} could not be loaded. Load the page again, or add the file once more.`,
  };
}

/** A finding of one part among several, which says whose it is. */
export function sayOfPart(
  finding: Finding<ArtworkPatch>,
  part: ArtworkPart,
  parts: readonly ArtworkPart[],
): Finding<ArtworkPatch> {
  return { ...finding, message: `${nameOfPart(part, parts)}: ${finding.message}` };
}

/** A part that lies completely behind others: the ways to have it seen, or to be rid of it. */
export function sayHiddenPart(part: ArtworkPart, parts: readonly ArtworkPart[]): Finding<ArtworkPatch> {
  const name = nameOfPart(part, parts);
  return {
    code: 'part-hidden',
    severity: 'warning',
    stage: 'artwork',
    message: `${name} lies completely behind other artwork, so nothing of it shows. Move it, or bring it to the front.`,
    remedies: [
      { label: `Bring ${name} to the front`, patch: { artworks: reordered(parts, part.id, parts.length) } },
      { label: `Remove ${name}`, patch: { artworks: parts.filter(({ id }) => id !== part.id) } },
    ],
  };
}

const STEPS: Readonly<Record<StageStep, string>> = {
  unpacking: 'Opening the picture',
  'laying-out': 'Preparing the picture',
  colours: 'Looking for its colours',
  pixels: 'Giving each pixel a colour',
  patches: 'Finding areas of one colour',
  specks: 'Dropping specks',
  edges: 'Following the edges',
  outlines: 'Smoothing the outlines',
  weeding: 'Parting the waste',
};

/** What is being done that takes its time. */
export function sayStep(step: StageStep): string {
  return STEPS[step];
}

/** The figures behind how a picture was traced. */
export interface TracedFigures {
  /** How many colours the app would take. */
  readonly ruledColours: number;
  readonly background: 'transparent' | 'colour' | 'none';
  /** A pixel of the picture at the size it is made, mm. */
  readonly pixelMm: number;
}

const BACKGROUNDS = {
  everywhere: 'The colour at its edge is bare surface everywhere',
  around: 'The colour at its edge is bare surface where it reaches the edge',
  keep: 'All of it is film',
} as const;
const OTHER_BACKGROUNDS = {
  everywhere: 'Bare everywhere',
  around: 'Bare only around the outside',
  keep: 'All of it is film',
} as const;

/** What the app ruled in tracing a picture, with the other ways it could go. */
export function sayTracing(
  part: PicturePart,
  parts: readonly ArtworkPart[],
  { ruledColours, background, pixelMm }: TracedFigures,
): Ruling<ArtworkPatch>[] {
  const { tracing } = part;
  const retraced = (change: Partial<PicturePart['tracing']>) => ({
    artworks: parts.map((other) => (other.id === part.id ? { ...part, tracing: { ...tracing, ...change } } : other)),
  });
  const name = nameOfPart(part, parts);
  const colours = tracing.colours ?? ruledColours;
  return [
    {
      id: `artwork.trace.colours.${part.id}`,
      stage: 'artwork',
      subject: `Colours of ${name}`,
      sentence: `${name} is traced in {value}${colours === 1 ? ' colour' : ' colours'}.`,
      value: colours,
      unit: '',
      because: [
        tracing.colours === null
          ? 'The picture has this many flat colours. Mixed colours along edges do not count.'
          : 'You chose this number.',
        `One of its pixels is ${pixelMm.toFixed(2)} mm wide at this size.`,
      ],
      overridden: tracing.colours !== null,
      proposed: ruledColours,
      alternatives: [
        ...(tracing.colours === null ? [] : [{ label: 'Let the app decide', patch: retraced({ colours: null }) }]),
      ],
    },
    {
      id: `artwork.trace.background.${part.id}`,
      stage: 'artwork',
      subject: `Background of ${name}`,
      sentence: '{value}.',
      value:
        background === 'none' && tracing.background !== 'keep'
          ? 'Its edge has no even colour, so all of it is film'
          : background === 'transparent'
            ? 'Transparent areas are bare surface'
            : BACKGROUNDS[tracing.background],
      unit: '',
      because: [
        tracing.background === 'keep'
          ? 'You chose it.'
          : background === 'colour'
            ? 'Most of its edge is one colour, like paper.'
            : background === 'transparent'
              ? 'Most of its edge is transparent.'
              : 'Its edge has many colours.',
      ],
      alternatives: (['everywhere', 'around', 'keep'] as const)
        .filter((way) => way !== tracing.background && background !== 'transparent')
        .map((way) => ({ label: OTHER_BACKGROUNDS[way], patch: retraced({ background: way }) })),
    },
  ];
}

/** The words of a lettering whose letters were moved together; `scale` is from its own mm to those that are cut. */
export function sayJoinedWords(
  part: LetteringPart,
  parts: readonly ArtworkPart[],
  joined: readonly { readonly word: string; readonly byMm: number }[],
  scale: number,
): Ruling<ArtworkPatch>[] {
  if (!part.lettering.joinWords) return [];
  const apart = {
    artworks: parts.map((other) =>
      other.id === part.id ? { ...part, lettering: { ...part.lettering, joinWords: false } } : other,
    ),
  };
  const most = Math.max(0, ...joined.map(({ byMm }) => byMm));
  return [
    {
      id: `artwork.joined.${part.id}`,
      stage: 'artwork',
      subject: `Words of ${nameOfPart(part, parts)} in one piece`,
      sentence:
        joined.length === 0
          ? 'Every word holds together as it is set.'
          : 'The letters of each word stand closer, by {value} at most, so that the word is one piece.',
      value: joined.length === 0 ? '' : most * scale,
      unit: joined.length === 0 ? '' : 'mm',
      because: [
        ...joined
          .slice(0, 6)
          .map(
            ({ word, byMm }) =>
              `“${word.slice(0, 24)}”: ${formatLength(byMm * scale)} mm closer, the least at which all its letters run into their neighbours.`,
          ),
        'Dots and accents that stand apart from their letter stay apart.',
      ],
      alternatives: [{ label: 'Leave the letters as they are set', patch: apart }],
    },
  ];
}
