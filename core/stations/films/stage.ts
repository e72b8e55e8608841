import { colourDifference } from '../../engines/artwork/index.js';
import { BARE, separate, withoutCrumbs, withoutFineParts, type Separation } from '../../engines/layers/index.js';
import { areaOf, countPieces } from '../../geometry/index.js';
import {
  isHeatAdhesive,
  isSpecial,
  wayOf,
  wayOn,
  whyUnsuited,
  type Film,
  type FilmWay,
  type Ground,
} from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Regions } from '../artwork/index.js';
import type { Stage } from '../stage.js';
import type { BuiltWith } from './built-with.js';
import type { FilmsDecisions, FilmsPatch } from './decisions.js';
import { ruledFilm, type RuledFilm } from './ruled-film.js';
import {
  sayColour,
  sayFewerFilms,
  sayMixedWays,
  sayNoFilms,
  sayNoneSuits,
  sayShared,
  saySpecial,
  sayTooFine,
} from './say.js';

/** A colour of the artwork and the film it will be cut from. */
export interface ColourUse {
  readonly colour: string;
  readonly areaMm2: number;
  readonly pieces: number;
  readonly film: Film;
  /** CIEDE2000 between the artwork's colour and the film's. */
  readonly difference: number;
  readonly chosen: boolean;
  /** Other films of the stock that are near, the nearest first. */
  readonly others: readonly { readonly film: Film; readonly difference: number }[];
}

export interface FilmsOut {
  readonly colours: readonly ColourUse[];
  /** The artwork taken apart by colour, before colours share films. */
  readonly byColour: Separation;
  readonly findings: readonly Finding<FilmsPatch>[];
  readonly rulings: readonly Ruling<FilmsPatch>[];
}

interface FilmsContext {
  readonly regions: Regions;
  readonly recipe: FilmsDecisions;
  readonly stock: readonly Film[];
  /** What the job is cut with already; null while nothing is. */
  readonly built: BuiltWith | null;
  /** What it goes on. */
  readonly ground: Ground;
}

interface FilmsRead {
  readonly regions: Regions;
  readonly byColour: FilmsDecisions['films']['byColour'];
  readonly stock: readonly Film[];
  /** The films of colours that were cut; they stay unless the maker chooses others. */
  readonly held: BuiltWith['byColour'];
  readonly ground: Ground;
}

/** Films nearer to each other than this may stand for one another (CIEDE2000). */
const NEAR_FILMS = 14;
/** So many other films are offered for a colour. */
const OTHERS = 4;

/** Every colour found, what shows of it, and its film: the maker's choice, or the nearest in stock (CIEDE2000) of those that what it goes on bears. */
export const filmsStage: Stage<FilmsContext, FilmsRead, FilmsOut> = {
  name: 'films',
  read: ({ regions, recipe, stock, built, ground }) => ({
    regions,
    byColour: recipe.films.byColour,
    stock,
    held: built?.byColour ?? {},
    ground,
  }),
  run({ regions: { regions }, byColour: decided, stock, held, ground }) {
    const whole = separate(regions.map((region) => ({ layer: region.colour, rings: region.rings })));
    const { tooFine, ...byColour } = withoutFineParts(whole);
    const shown = byColour.layers.filter(({ key }) => key !== BARE);
    // A retired film is cut where it was chosen, and not proposed any more.
    const offered = stock.filter((film) => !film.retired);
    if (offered.length === 0 && Object.keys(held).length === 0)
      return { colours: [], byColour, findings: shown.length > 0 ? [sayNoFilms()] : [], rulings: [] };
    const first = [...Object.values(decided), ...Object.values(held)].flatMap(
      (id) => stock.find((film) => film.id === id) ?? [],
    )[0];
    // While nobody said what it goes on, the first film that the maker chose says how the job is made to stick.
    const led = ground === 'unknown' && first && wayOf(first) !== wayOn(ground) ? first : null;
    const way = led ? wayOf(led) : wayOn(ground);
    const said = shown.map(({ key: colour, visible }) => {
      const chosen = stock.find((film) => film.id === decided[colour]);
      const cut = stock.find((film) => film.id === held[colour]);
      const ruled = ruledFilm(colour, offered.length > 0 ? offered : stock, way, led ? wayOn(ground) : null);
      const film = chosen ?? cut ?? ruled.film;
      const difference = colourDifference(colour, film.colour);
      const use: ColourUse = {
        colour,
        areaMm2: areaOf(visible),
        pieces: countPieces(withoutCrumbs(visible).rings).pieces,
        film,
        difference,
        chosen: chosen !== undefined,
        others: othersNear(colour, film, offered, ground),
      };
      return {
        use,
        ruled: (chosen ?? cut) ? null : ruled,
        ...sayColour({
          colour,
          film,
          ruled,
          difference,
          isChosen: chosen !== undefined,
          isCut: chosen === undefined && cut !== undefined,
          isGone: decided[colour] !== undefined && !chosen,
          like: led,
          on: ground,
        }),
      };
    });
    const colours = said.map(({ use }) => use);
    return {
      colours: [...colours].sort((a, b) => b.areaMm2 - a.areaMm2),
      byColour,
      findings: [
        ...said.flatMap(({ findings }) => findings),
        ...(tooFine.length > 0 ? [sayTooFine(tooFine)] : []),
        ...unplainFilms(said, way, ground),
        ...fewerFilms(colours, decided),
        ...mixedWays(colours, offered),
      ],
      rulings: [
        ...said.map(({ ruling }) => ruling),
        ...sharedFilms(colours).map(([film, group]) =>
          sayShared(
            film,
            group.map((use) => use.colour),
          ),
        ),
      ],
    };
  },
};

/** Other films that are near to a colour; those that suit the ground by themselves come first. */
function othersNear(colour: string, film: Film, stock: readonly Film[], ground: Ground): ColourUse['others'] {
  const others = stock
    .filter((other) => other !== film && !isHeatAdhesive(other))
    .map((other) => ({ film: other, difference: colourDifference(colour, other.colour) }));
  const rank = (one: Film) => (whyUnsuited(one, ground, null) === null ? 0 : 1);
  return others.sort((a, b) => rank(a.film) - rank(b.film) || a.difference - b.difference).slice(0, OTHERS);
}

/** Colours for which nothing plain is in stock, or nothing at all that suits. */
function unplainFilms(
  all: readonly { readonly use: ColourUse; readonly ruled: RuledFilm | null }[],
  way: FilmWay,
  ground: Ground,
): Finding<FilmsPatch>[] {
  const of = (kind: RuledFilm['kind']) => all.filter(({ ruled }) => ruled?.kind === kind).map(({ use }) => use);
  const [special, strange] = [of('special'), of('strange')];
  return [
    ...(strange.length > 0
      ? [
          sayNoneSuits(
            strange.map(({ colour }) => colour),
            way,
            ground,
          ),
        ]
      : []),
    ...[...new Set(special.map(({ film }) => film))].map((film) =>
      saySpecial(
        film,
        special.filter((use) => use.film === film).map(({ colour }) => colour),
        way,
      ),
    ),
  ];
}

/** Films so near to each other that one may do for both: a sheet and an alignment fewer. The smaller gives way. A pattern is like no other film. */
function fewerFilms(
  colours: readonly ColourUse[],
  decided: FilmsDecisions['films']['byColour'],
): Finding<FilmsPatch>[] {
  return colours.flatMap((one, i) =>
    colours.slice(i + 1).flatMap((other) => {
      if (
        one.film === other.film ||
        one.film.pattern ||
        other.film.pattern ||
        isSpecial(one.film) !== isSpecial(other.film) ||
        one.film.finish !== other.film.finish ||
        wayOf(one.film) !== wayOf(other.film)
      )
        return [];
      const difference = colourDifference(one.film.colour, other.film.colour);
      if (difference > NEAR_FILMS) return [];
      const [large, small] = one.areaMm2 >= other.areaMm2 ? [one, other] : [other, one];
      return [
        sayFewerFilms({
          small: small.film,
          large: large.film,
          difference,
          byColour: { ...decided, [small.colour]: large.film.id },
        }),
      ];
    }),
  );
}

/** Films of which some are pressed on and others stick by themselves cannot lie on each other. One press makes them all of one way. */
function mixedWays(colours: readonly ColourUse[], offered: readonly Film[]): Finding<FilmsPatch>[] {
  const ways = new Map<FilmWay, Film>();
  for (const { film } of colours) if (!ways.has(wayOf(film))) ways.set(wayOf(film), film);
  const [one, other] = [...ways.values()];
  if (!one || !other) return [];
  const toOne = [...ways.keys()].flatMap((way) => {
    const films = colours.map(({ colour, film }) => {
      const ruled = wayOf(film) === way ? { film, kind: 'plain' } : ruledFilm(colour, offered, way);
      return { colour, ...ruled };
    });
    return offered.length === 0 || films.some(({ kind }) => kind === 'strange')
      ? []
      : [{ way, byColour: Object.fromEntries(films.map(({ colour, film }) => [colour, film.id])) }];
  });
  return [sayMixedWays(one, other, toOne)];
}

function sharedFilms(colours: readonly ColourUse[]): [Film, ColourUse[]][] {
  const groups = new Map<Film, ColourUse[]>();
  for (const use of colours) groups.set(use.film, [...(groups.get(use.film) ?? []), use]);
  return [...groups].filter(([, group]) => group.length > 1);
}
