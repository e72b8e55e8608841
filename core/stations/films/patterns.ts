import type { Film } from '../../shop/index.js';
import type { Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { FilmsDecisions, FilmsPatch } from './decisions.js';
import { sayPattern } from './say.js';
import type { FilmsOut } from './stage.js';

interface PatternsContext {
  readonly films: FilmsOut;
  readonly recipe: FilmsDecisions;
}

interface PatternsRead {
  readonly places: FilmsDecisions['films']['patterns'];
  readonly films: readonly Pick<Film, 'id' | 'name' | 'pattern'>[];
}

export interface PatternsOut {
  readonly rulings: readonly Ruling<FilmsPatch>[];
}

/** Where the patterns of the films lie on the design: what is cut is the same wherever that is. */
export const patternsStage: Stage<PatternsContext, PatternsRead, PatternsOut> = {
  name: 'patterns',
  read: ({ films, recipe }) => ({
    places: recipe.films.patterns,
    films: [
      ...new Map(
        films.colours
          .filter(({ film }) => film.pattern)
          .map(({ film: { id, name, pattern } }) => [id, { id, name, pattern }]),
      ).values(),
    ],
  }),
  run: ({ places, films }) => ({
    rulings: films.map(({ id, name, pattern }) =>
      sayPattern({ id, name, repeatMm: pattern!.repeatMm, place: places[id] ?? null }),
    ),
  }),
};
