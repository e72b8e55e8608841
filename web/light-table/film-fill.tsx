import type { Film } from '../../core/shop/index.js';
import type { PatternPlace } from '../../core/stations/films/index.js';
import { pictureUrl } from '../ui/swatch.js';

const idOf = (filmId: string) => `film-pattern-${filmId}`;

/** What a shape of a film is filled with: its colour, or its pattern at true scale. The page must have FilmPatterns in it. */
export function fillOf({ id, colour, pattern }: Pick<Film, 'id' | 'colour' | 'pattern'>): string {
  return pattern ? `url(#${idOf(id)}) ${colour}` : colour;
}

/** The pictures of pattern films, each repeated as it is on the film, for all pictures of a page. */
export function FilmPatterns({
  films,
  places,
}: {
  readonly films: readonly Film[];
  readonly places: Readonly<Record<string, PatternPlace>>;
}) {
  const patterned = films.filter((film) => film.pattern);
  if (patterned.length === 0) return null;
  return (
    <svg width="0" height="0" aria-hidden style={{ position: 'absolute' }}>
      <defs>
        {patterned.map(({ id, pattern }) => {
          const { picture, repeatMm, ratio } = pattern!;
          return (
            <pattern
              key={id}
              id={idOf(id)}
              patternUnits="userSpaceOnUse"
              width={repeatMm}
              height={repeatMm * ratio}
              patternTransform={transformOf(places[id])}
            >
              <image href={pictureUrl(picture)} width={repeatMm} height={repeatMm * ratio} preserveAspectRatio="none" />
            </pattern>
          );
        })}
      </defs>
    </svg>
  );
}

/** Moves a pattern on every picture while a hand drags it, without drawing anything anew. */
export function showPatternAt(filmId: string, place: PatternPlace): void {
  document.getElementById(idOf(filmId))?.setAttribute('patternTransform', transformOf(place));
}

function transformOf(place: PatternPlace | undefined): string {
  return `translate(${place?.xMm ?? 0} ${place?.yMm ?? 0})`;
}
