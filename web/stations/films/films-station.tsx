import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { filmsToChoose, leftOfFilms, type Film } from '../../../core/shop/index.js';
import type { ColourUse } from '../../../core/stations/films/index.js';
import { FindingPlaces } from '../../job/finding-places.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { fillOf } from '../../light-table/film-fill.js';
import { LightTable } from '../../light-table/light-table.js';
import { Shape } from '../../light-table/shape.js';
import { colour, space, type } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { FilmPicker } from '../../ui/film-picker.js';
import { Small } from '../../ui/plain-fields.js';
import { count, sayArea } from '../../../core/words/index.js';
import { Swatch } from '../../ui/swatch.js';
import { designBox } from '../../light-table/design-box.js';
import { LayerPicture } from '../../light-table/layer-picture.js';
import { usePaints } from '../../job/use-paints.js';
import { PatternHandle, PatternPlacing } from './pattern-placing.js';

/** Which film each colour of the artwork is cut from. */
export function FilmsStation() {
  const { plan, unit, lookAt } = useJobContext();
  const { findings, rulings } = useSaid('films');
  const colours = plan?.colours ?? [];
  const [tried, setTried] = useState<Tried | null>(null);
  const patterned = [...new Set(colours.map((use) => use.film))].filter((film) => film.pattern);
  const paints = usePaints(tried ? 'after' : null);
  const filmOf = new Map(colours.map((use) => [use.colour, fillOf(use.film)]));
  if (tried) filmOf.set(tried.colour, fillOf(tried.film));
  return (
    <StationLayout
      title="Films"
      lead={
        colours.length === 0
          ? 'No colour of the artwork has a film yet.'
          : `${count(colours.length, 'colour')} of the artwork, cut from ${count(plan?.layers?.length ?? 0, 'film')} in stock.`
      }
      docket={
        <>
          <Findings findings={findings} />
          <Matches aria-label="Colours and their films">
            {colours.map((use) => (
              <Match key={use.colour} use={use} onTry={setTried} />
            ))}
          </Matches>
          {patterned.map((film) => (
            <PatternPlacing key={film.id} film={film} />
          ))}
          <Rulings
            rulings={rulings.filter(
              (ruling) => ruling.id.startsWith('films.join.') || ruling.id.startsWith('films.pattern.'),
            )}
          />
        </>
      }
    >
      <LightTable
        label="The artwork in its films"
        box={designBox(plan)}
        unit={unit}
        lookAt={lookAt}
        {...(patterned.length > 0
          ? {
              handles: (view) => (
                <div>
                  {patterned.map((film) => (
                    <PatternHandle key={film.id} film={film} view={view} />
                  ))}
                </div>
              ),
            }
          : {})}
        caption={
          tried
            ? `as it would look with ${tried.film.name} for ${plan?.colourNames?.[tried.colour] ?? tried.colour}`
            : 'in the colours of the films'
        }
      >
        {tried && paints.length > 0 ? (
          paints.map((paint, i) => <Shape key={i} path={paint.path} fill={filmOf.get(paint.colour) ?? paint.colour} />)
        ) : (
          <LayerPicture layers={plan?.layers ?? []} />
        )}
        <FindingPlaces />
      </LightTable>
    </StationLayout>
  );
}

/** A film that is looked at in place of a colour's own, before it is taken. */
interface Tried {
  readonly colour: string;
  readonly film: Film;
}

interface MatchProps {
  readonly use: ColourUse;
  readonly onTry: (tried: Tried | null) => void;
}

function Match({ use, onTry }: MatchProps) {
  const { handle, recipe, shop, plan } = useJobContext();
  const left = useMemo(() => leftOfFilms(shop.stock), [shop.stock]);
  const name = plan?.colourNames?.[use.colour] ?? use.colour;
  const chosenId = recipe.films.byColour[use.colour] ?? use.film.id;
  const choose = (filmId: string) =>
    handle.change({ films: { byColour: { ...recipe.films.byColour, [use.colour]: filmId } } });
  const letApp = () =>
    handle.change({
      films: { byColour: Object.fromEntries(Object.entries(recipe.films.byColour).filter(([c]) => c !== use.colour)) },
    });
  return (
    <Row>
      <Pair aria-hidden>
        <Swatch film={{ colour: use.colour, finish: 'matt' }} size={34} />
        <Swatch film={use.film} size={34} />
      </Pair>
      <div>
        <Line>
          <strong>{name}</strong>
          <Small as="span">
            {use.colour}, {sayArea(use.areaMm2)}, {count(use.pieces, 'piece')}
          </Small>
        </Line>
        <FilmPicker
          label={`Film for ${name} ${use.colour}`}
          films={filmsToChoose(shop.films, chosenId)}
          left={left}
          colour={use.colour}
          value={chosenId}
          onChange={choose}
        />
        <Small>
          {use.chosen ? 'Your choice' : 'Nearest that suits'}; differs by {use.difference.toFixed(1)} (about 1 can just
          be seen). {use.chosen && <WordButton onPress={letApp}>Let the app decide</WordButton>}
        </Small>
        <Others role="group" aria-label={`Other films for ${name} ${use.colour}`}>
          or{' '}
          {use.others.map(({ film, difference }) => (
            <Other
              key={film.id}
              aria-label={`${film.name}, differs by ${difference.toFixed(0)}`}
              onPress={() => {
                onTry(null);
                choose(film.id);
              }}
              onLook={(isLooked) => onTry(isLooked ? { colour: use.colour, film } : null)}
            >
              <Swatch film={film} size={20} />
              <span aria-hidden>{difference.toFixed(0)}</span>
            </Other>
          ))}
        </Others>
      </div>
    </Row>
  );
}

const Others = styled.div`
  display: flex;
  align-items: center;
  gap: ${space.s};
  font-size: ${type.small};
  color: ${colour.quiet};
`;
const Other = styled(Button)`
  padding: 1px 6px;
  min-height: 26px;
  gap: 4px;
  font-variant-numeric: tabular-nums;
  color: ${colour.quiet};
`;

const Matches = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.l};
`;
const Row = styled.li`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: ${space.m};
  align-items: start;
  button[aria-haspopup] {
    width: 100%;
    margin: 3px 0;
  }
`;
const Pair = styled.span`
  display: flex;
  padding-top: 2px;
  span + span {
    margin-left: -9px;
    margin-top: 9px;
  }
`;
const Line = styled.p`
  display: grid;
  padding-bottom: 2px;
  font-size: ${type.small};
  strong {
    font-variant-numeric: tabular-nums;
    color: ${colour.ink};
  }
`;
