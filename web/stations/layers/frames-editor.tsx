import styled from 'styled-components';
import { filmsToRule, wayOf, wayOn } from '../../../core/shop/index.js';
import { newKnockOut, newOutline, ruledOutlineEach } from '../../../core/stations/layers/index.js';
import { ruledFilm } from '../../../core/stations/films/index.js';
import { groundOf } from '../../../core/stations/surface/index.js';
import { useJobContext } from '../../job/job-context.js';
import { lightOf } from '../../light-table/light-of.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { FilmChoice, Said } from './film-choice.js';
import { fetchedLate, Part } from '../../ui/part.js';
import { newId } from '../../api/new-id.js';

// Most jobs have none of them: each is fetched with the first.
const KnockOutEditor = fetchedLate(
  () => import('./knock-out-editor.js'),
  (m) => m.KnockOutEditor,
);
const OutlineEditor = fetchedLate(
  () => import('./outline-editor.js'),
  (m) => m.OutlineEditor,
);
const PrintEditor = fetchedLate(
  () => import('./print-editor.js'),
  (m) => m.PrintEditor,
);

/** What is made of the artwork besides itself: outlines round it, shapes knocked out, a film laid beneath. */
export function FramesEditor() {
  const { recipe, plan, shop, handle, unit } = useJobContext();
  const { outlines, knockOuts, blockOut, base, contour } = recipe.build;
  const films = plan?.layers?.map((layer) => layer.film) ?? [];
  const change = handle.change;
  const plain = shop.films.filter((film) => film.finish !== 'translucent');
  // What frames the artwork is put on as the artwork is.
  const ground = groundOf(recipe.surface);
  const way = ground === 'unknown' && films[0] ? wayOf(films[0]) : wayOn(ground);
  const suiting = filmsToRule(shop.films, way).films;
  const freeFilm =
    suiting.find((film) => !films.some((used) => used.id === film.id)) ?? suiting[0] ?? films[0] ?? shop.films[0]!;
  const whitest = shop.films.length > 0 ? ruledFilm('#ffffff', shop.films, way).film : freeFilm;
  // What is cut out is mostly the smaller: words out of a ground.
  const byArea = [...(plan?.layers ?? [])].sort((a, b) => b.areaMm2 - a.areaMm2);
  // A dark base hides what lies under it, and is seen least between lighter films.
  const darkest = films
    .filter((film) => film.takesOnTop)
    .reduce(
      (best, film) => (lightOf(film.colour) < lightOf(best.colour) ? film : best),
      films.find((film) => film.takesOnTop) ?? freeFilm,
    );
  const outlineOf = (filmId: string) => ({
    ...newOutline(newId(), filmId),
    each: ruledOutlineEach(recipe.artworks, recipe.surface),
  });
  return (
    <section aria-label="Outlines, cut-outs and backing film">
      <h3>Outlines, cut-outs, backing film</h3>
      <Part name="This editor" fallback={<p role="status">Fetching …</p>}>
        {outlines.map((outline) => (
          <OutlineEditor key={outline.id} outline={outline} plain={plain} films={films} />
        ))}
        {knockOuts.map((_, at) => (
          <KnockOutEditor key={at} at={at} films={films} />
        ))}
        {contour && <PrintEditor contour={contour} plain={plain} />}
      </Part>
      {base && (
        <Said>
          <FilmChoice
            label="Film that lies under everything"
            films={plain}
            value={base.filmId}
            onChange={(filmId) => change({ build: { base: { filmId } } })}
          />{' '}
          lies in one piece under everything.{' '}
          <WordButton onPress={() => change({ build: { base: null } })}>Build without a base</WordButton>
        </Said>
      )}
      {blockOut && (
        <Said>
          <FilmChoice
            label="Film of the backing"
            films={plain}
            value={blockOut.filmId}
            onChange={(filmId) => change({ build: { blockOut: { ...blockOut, filmId } } })}
          />{' '}
          lies under{' '}
          <FilmChoice
            label="Film that is backed"
            films={films.filter((film) => film.id !== blockOut.filmId)}
            value={blockOut.underFilmId}
            onChange={(underFilmId) => change({ build: { blockOut: { ...blockOut, underFilmId } } })}
          />
          ,{' '}
          <FigureField
            label="Backing inside the edge"
            mm={blockOut.insetMm}
            unit={unit}
            max={50}
            stepMm={0.1}
            onChange={(insetMm) => change({ build: { blockOut: { ...blockOut, insetMm } } })}
          />{' '}
          within its edge.{' '}
          <WordButton onPress={() => change({ build: { blockOut: null } })}>Remove the backing</WordButton>
        </Said>
      )}
      <Adds>
        <WordButton onPress={() => change({ build: { outlines: [...outlines, outlineOf(freeFilm.id)] } })}>
          Add an outline
        </WordButton>
        {films.length > 1 && (
          <WordButton
            onPress={() =>
              change({ build: { knockOuts: [...knockOuts, newKnockOut(byArea.at(-1)!.film.id, byArea[0]!.film.id)] } })
            }
          >
            Cut one film out of another
          </WordButton>
        )}
        {!base && films.length > 1 && (
          <WordButton onPress={() => change({ build: { base: { filmId: (contour ? whitest : darkest).id } } })}>
            Lay one film under everything
          </WordButton>
        )}
        {!contour && (
          <WordButton
            onPress={() => change({ build: { contour: { filmId: whitest.id, side: 'inside', byMm: null } } })}
          >
            It is printed: only cut around it
          </WordButton>
        )}
        {!blockOut && films.length > 0 && (
          <WordButton
            onPress={() =>
              change({ build: { blockOut: { filmId: freeFilm.id, underFilmId: films.at(-1)!.id, insetMm: 0.3 } } })
            }
          >
            Put a backing under a film
          </WordButton>
        )}
      </Adds>
    </section>
  );
}

const Adds = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.m};
  font-size: ${type.small};
`;
