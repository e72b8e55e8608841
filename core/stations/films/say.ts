import { sayColour as named, startWithColour } from '../artwork/index.js';
import { familyToBuy, FILM_FAMILIES, isFoil, type Film, type FilmWay, type Ground } from '../../shop/index.js';
import { listed, type Finding, type Ruling } from '../../words/index.js';
import type { RuledFilm } from './ruled-film.js';
import type { FilmsDecisions, FilmsPatch, PatternPlace } from './decisions.js';

/** Above this the eye sees another colour, and the maker is told (CIEDE2000). */
const FAR_COLOUR = 10;

/** The figures behind the film of a colour. */
export interface ColourFigures {
  readonly colour: string;
  readonly film: Film;
  /** What the app would take. */
  readonly ruled: RuledFilm;
  /** CIEDE2000 between the colour and the film. */
  readonly difference: number;
  readonly isChosen: boolean;
  /** It stays since part of the job is cut from it. */
  readonly isCut: boolean;
  /** A film was chosen that is not in stock any more. */
  readonly isGone: boolean;
  /** A chosen film that the others should be put on like; null when films that stick by themselves are looked for. */
  readonly like: Film | null;
  /** What it goes on. */
  readonly on: Ground;
}

/** Why the film of a colour was taken that nobody chose. */
const CLOSEST: Readonly<Record<RuledFilm['kind'], string>> = {
  plain: 'It is the closest of the plain films in stock.',
  special: 'No plain film that suits is in stock, so it is the closest of the special ones.',
  strange: 'No film that suits is in stock. This one is the closest in colour, so that you can see the job.',
};

/** The film of a colour, and what there is to say against it. */
export function sayColour({ colour, film, ruled, difference, isChosen, isCut, isGone, like, on }: ColourFigures): {
  readonly findings: Finding<FilmsPatch>[];
  readonly ruling: Ruling<FilmsPatch>;
} {
  const findings: Finding<FilmsPatch>[] = [];
  if (isGone)
    findings.push({
      code: 'film-unknown',
      severity: 'warning',
      stage: 'films',
      message: `The film chosen for ${named(colour)} is no longer in stock. ${ruled.film.name} is used for now.`,
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
      sentence: isFoil(film)
        ? `${startWithColour(colour)} is {value}, laid on heat adhesive that is cut.`
        : `${startWithColour(colour)} is cut from {value}.`,
      value: film.name,
      unit: '',
      because: isChosen
        ? ['You chose it.', `Its colour differs by ${difference.toFixed(1)} (CIEDE2000; docs/films.md).`]
        : isCut
          ? [
              `Part of this job is cut from it, so it stays. Its colour differs by ${difference.toFixed(1)} (CIEDE2000; docs/films.md).`,
            ]
          : [
              ...(SUITS[on] && ruled.kind !== 'strange' ? [SUITS[on]] : []),
              `${CLOSEST[ruled.kind]} They differ by ${difference.toFixed(1)} (CIEDE2000; about 1 can just be seen; docs/films.md).`,
              ...(like ? [`You chose ${like.name}, so films that are put on in the same way come first.`] : []),
            ],
      overridden: isChosen && film.id !== ruled.film.id,
      proposed: ruled.film.name,
    },
  };
}

/** Which films a ground bears. */
const SUITS: Readonly<Record<Ground, string>> = {
  cloth: 'It goes on cloth, and on cloth films are pressed.',
  hard: 'It goes on a hard surface, and there films stick by themselves.',
  unknown: '',
};

const ON: Readonly<Record<Ground, string>> = {
  cloth: 'This goes on cloth, which wants a film that is pressed on.',
  hard: 'This goes on a hard surface, which wants a film that sticks by itself.',
  unknown: 'Nobody has said what this goes on, so a film that sticks by itself is looked for.',
};

/** Nothing in stock suits what the job goes on: what to buy. */
export function sayNoneSuits(colours: readonly string[], way: FilmWay, on: Ground): Finding<FilmsPatch> {
  return {
    code: 'no-film-suits',
    severity: 'blocker',
    stage: 'films',
    message: `${ON[on]} The shop has none. Buy ${familyToBuy(way)} film in ${listed(colours.map(named))}${on === 'unknown' ? ', say on Surface what it goes on,' : ','} or choose a film for each colour.`,
  };
}

/** A film that only a maker chooses is all that there is. */
export function saySpecial(film: Film, colours: readonly string[], way: FilmWay): Finding<FilmsPatch> {
  return {
    code: 'special-film',
    severity: 'warning',
    stage: 'films',
    message: `${film.name} (${FILM_FAMILIES[film.family].name}) is not a plain film, and nobody chose it. The shop has no plain ${familyToBuy(way)} film, so it is used for ${listed(colours.map(named))}. Choose it if you want it, or buy a plain film.`,
  };
}

/** Colours that are painted only in parts that no blade can cut. */
export function sayTooFine(colours: readonly string[]): Finding<FilmsPatch> {
  const [first, ...others] = colours;
  return {
    code: 'too-fine',
    severity: 'warning',
    stage: 'films',
    message: `${listed([startWithColour(first!), ...others.map(named)])} ${others.length > 0 ? 'are' : 'is'} painted only in parts finer than a tenth of a millimetre, which no blade can cut. ${others.length > 0 ? 'They get' : 'It gets'} no film. What borders on another colour is cut with that.`,
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

const CUT_ALL: Readonly<Record<FilmWay, string>> = {
  press: 'Cut all of it from films that are pressed on',
  adhesive: 'Cut all of it from films that stick by themselves',
  stencil: 'Cut all of it from stencil masks',
};

/** Films that are put on in different ways, and for each way by which all could be, the films of the colours then. */
export function sayMixedWays(
  one: Film,
  other: Film,
  toOne: readonly { readonly way: FilmWay; readonly byColour: FilmsDecisions['films']['byColour'] }[],
): Finding<FilmsPatch> {
  const named = (film: Film) => `${film.name} (${FILM_FAMILIES[film.family].name})`;
  return {
    code: 'families-mixed',
    severity: 'warning',
    stage: 'films',
    message: `${named(one)} and ${named(other)} are put on in different ways. They can go on one surface, but not on each other.`,
    remedies: toOne.map(({ way, byColour }) => ({ label: CUT_ALL[way], patch: { films: { byColour } } })),
  };
}

const UNSUITED = {
  'stuck-on-cloth': 'sticks by itself, and comes off cloth in the wash',
  'pressed-on-hard': 'is pressed on in heat: it can hold on wood, canvas or leather, and a test tells',
  'dye-on-no-polyester': 'takes on polyester only',
} as const;

/** Films that a maker chose and that do not suit what the job goes on; `remedy` makes all of them suit, null when the stock cannot. */
export function sayUnsuited<P>(
  all: readonly { readonly film: Film; readonly why: keyof typeof UNSUITED }[],
  remedy: { readonly way: FilmWay; readonly patch: P } | null,
): Finding<P> {
  return {
    code: 'film-unsuited',
    severity: 'warning',
    stage: 'films',
    message: `${listed(all.map(({ film, why }) => `${film.name} ${UNSUITED[why]}`))}. You chose ${all.length === 1 ? 'it' : 'them'}, so this does not stop the cut.`,
    ...(remedy ? { remedies: [{ label: CUT_ALL[remedy.way], patch: remedy.patch }] } : {}),
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
