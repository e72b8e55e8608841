import { sayColour as named, startWithColour } from '../artwork/index.js';
import { FILM_FAMILIES, type Film } from '../../shop/index.js';
import { listed, type Finding, type Ruling } from '../../words/index.js';
import type { FilmsDecisions, FilmsPatch, PatternPlace } from './decisions.js';

/** Above this the eye sees another colour, and the maker is told (CIEDE2000). */
const FAR_COLOUR = 10;

/** The figures behind the film of a colour. */
export interface ColourFigures {
  readonly colour: string;
  readonly film: Film;
  /** What the app would take. */
  readonly nearest: Film;
  /** CIEDE2000 between the colour and the film. */
  readonly difference: number;
  readonly isChosen: boolean;
  /** It stays since part of the job is cut from it. */
  readonly isCut: boolean;
  /** A film was chosen that is not in stock any more. */
  readonly isGone: boolean;
  /** A chosen film that the others should be put on like; null when films that stick by themselves are looked for. */
  readonly like: Film | null;
}

/** The film of a colour, and what there is to say against it. */
export function sayColour({ colour, film, nearest, difference, isChosen, isCut, isGone, like }: ColourFigures): {
  readonly findings: Finding<FilmsPatch>[];
  readonly ruling: Ruling<FilmsPatch>;
} {
  const findings: Finding<FilmsPatch>[] = [];
  if (isGone)
    findings.push({
      code: 'film-unknown',
      severity: 'warning',
      stage: 'films',
      message: `The film chosen for ${named(colour)} is no longer in stock. ${nearest.name} is used for now.`,
    });
  if (isChosen && film.retired)
    findings.push({
      code: 'film-retired',
      severity: 'note',
      stage: 'films',
      message: `${film.name}, chosen for ${named(colour)}, is retired. What is left of it can still be cut.`,
    });
  if (!isChosen && difference > FAR_COLOUR) {
    findings.push({
      code: 'colour-far',
      severity: 'warning',
      stage: 'films',
      message: `No film in stock is close to ${named(colour)}. ${film.name} differs by ${difference.toFixed(0)}, and everyone will see that.`,
    });
  }
  return {
    findings,
    ruling: {
      id: `films.${colour}`,
      stage: 'films',
      subject: `Film for ${named(colour)}`,
      sentence: `${startWithColour(colour)} is cut from {value}.`,
      value: film.name,
      unit: '',
      because: isChosen
        ? ['You chose it.', `Its colour differs by ${difference.toFixed(1)} (CIEDE2000; docs/films.md).`]
        : isCut
          ? [
              `Part of this job is cut from it, so it stays. Its colour differs by ${difference.toFixed(1)} (CIEDE2000; docs/films.md).`,
            ]
          : [
              `It is the closest colour in stock. They differ by ${difference.toFixed(1)} (CIEDE2000; about 1 can just be seen; docs/films.md).`,
              ...(like ? [`You chose ${like.name}, so films that are put on in the same way come first.`] : []),
            ],
      overridden: isChosen && film.id !== nearest.id,
      proposed: nearest.name,
    },
  };
}

export function sayNoFilms(): Finding<FilmsPatch> {
  return {
    code: 'no-films',
    severity: 'blocker',
    stage: 'films',
    message: 'The shop has no film in stock, so nothing can be cut.',
  };
}

export function sayFewerFilms({
  small,
  large,
  difference,
  byColour,
}: {
  readonly small: Film;
  readonly large: Film;
  readonly difference: number;
  readonly byColour: FilmsDecisions['films']['byColour'];
}): Finding<FilmsPatch> {
  return {
    code: 'fewer-films',
    severity: 'note',
    stage: 'films',
    message: `${small.name} and ${large.name} differ by ${difference.toFixed(1)}. One film for both saves a sheet and an alignment.`,
    remedies: [{ label: `Cut ${small.name} from ${large.name} too`, patch: { films: { byColour } } }],
  };
}

export function sayMixedWays(one: Film, other: Film): Finding<FilmsPatch> {
  const named = (film: Film) => `${film.name} (${FILM_FAMILIES[film.family].name})`;
  return {
    code: 'families-mixed',
    severity: 'warning',
    stage: 'films',
    message: `${named(one)} and ${named(other)} are put on in different ways. They can go on one surface, but not on each other.`,
  };
}

/** How a film's pattern lies on the design. */
export function sayPattern({
  id,
  name,
  repeatMm,
  place,
}: {
  readonly id: string;
  readonly name: string;
  readonly repeatMm: number;
  readonly place: PatternPlace | null;
}): Ruling<FilmsPatch> {
  return {
    id: `films.pattern.${id}`,
    stage: 'films',
    subject: `Pattern of ${name}`,
    sentence: `The pattern of ${name} is shown at its true scale. It begins anew every {value}.`,
    value: repeatMm,
    unit: 'mm',
    because: [
      'So wide is its repeat on the film, as the shop has it. It is seen before film is spent; what is cut is the same wherever it lies.',
      ...(place ? ['You placed it on the design.'] : ['It begins where the design does, until you place it.']),
    ],
    ...(place ? { overridden: true } : {}),
  };
}

export function sayShared(film: Film, colours: readonly string[]): Ruling<FilmsPatch> {
  return {
    id: `films.join.${film.id}`,
    stage: 'films',
    subject: `Colours on ${film.name}`,
    sentence: `${listed([startWithColour(colours[0]!), ...colours.slice(1).map(named)])} are joined into one layer of {value}.`,
    value: film.name,
    unit: '',
    because: ['They are cut from one film: one sheet and one alignment less, and no cut between them.'],
  };
}
