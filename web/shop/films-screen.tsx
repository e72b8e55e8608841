import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { FILM_FAMILIES, leftOfFilms, type Film, type FilmFamily } from '../../core/shop/index.js';
import { Button, MainButton } from '../ui/button.js';
import { Picker } from '../ui/picker.js';
import { Swatch } from '../ui/swatch.js';
import { FilmCard } from './film-card.js';
import { FilmsFile } from './films-file.js';
import { ListAndCard } from './list-and-card.js';
import { RetiredToo } from './retired-too.js';
import { useKnownShop } from './shop-context.js';
import { ShopTable, type ShopColumn } from './shop-table.js';
import { sayLeft } from './say.js';

const ALL = 'all';
const FAMILIES = Object.entries(FILM_FAMILIES).map(([id, { name }]) => ({ id, text: name }));
const idOf = ({ id }: Film) => id;
const wordsOf = ({ name, family, finish, supplier, article, colour }: Film) =>
  [name, FILM_FAMILIES[family].name, finish, supplier, article, colour].join(' ');

/** The films of the shop: what each is, and what is left of it. */
export function FilmsScreen() {
  const { id } = useParams();
  const shop = useKnownShop();
  const navigate = useNavigate();
  const [family, setFamily] = useState(ALL);
  const [retired, setRetired] = useState(false);
  const left = useMemo(() => leftOfFilms(shop.stock), [shop.stock]);
  const columns = useMemo(
    (): readonly ShopColumn<Film>[] => [
      {
        id: 'name',
        head: 'Film',
        share: 2.2,
        value: ({ name }) => name,
        cell: (film) => (
          <>
            <Swatch film={film} /> {film.name}
            {film.retired ? ' (retired)' : ''}
          </>
        ),
      },
      { id: 'family', isExtra: true, head: 'Family', share: 2, value: (film) => FILM_FAMILIES[film.family].name },
      {
        id: 'left',
        head: 'Left',
        isFigure: true,
        value: (film) => left.get(film.id) ?? 0,
        cell: (film) => sayLeft(left.get(film.id) ?? 0, film.reorderM2),
      },
      {
        id: 'cost',
        isExtra: true,
        head: 'Per m²',
        isFigure: true,
        value: ({ costPerM2 }) => costPerM2,
        cell: ({ costPerM2 }) => costPerM2.toFixed(2),
      },
    ],
    [left],
  );
  const rows = useMemo(
    () => shop.films.filter((film) => (retired || !film.retired) && (family === ALL || film.family === family)),
    [shop.films, family, retired],
  );
  const film = shop.films.find((one) => one.id === id);
  const isNew = id === 'new';
  return (
    <ListAndCard
      list={
        <ShopTable
          label="Films"
          columns={columns}
          rows={rows}
          idOf={idOf}
          wordsOf={wordsOf}
          searchLabel="Search films by name, family, supplier or article"
          sortBy={{ column: 'name', direction: 'ascending' }}
          openId={id}
          onOpen={(opened) => void navigate(`/shop/films/${opened}`)}
          tools={
            <>
              <Picker
                label="Show of the films"
                value={family}
                options={[{ id: ALL, text: 'all families' }, ...FAMILIES]}
                onChange={setFamily}
              />
              <RetiredToo isOn={retired} onChange={setRetired} />
              <FilmsFile />
              <MainButton onPress={() => void navigate('/shop/films/new')}>New film</MainButton>
            </>
          }
          empty={
            <>
              <p>{shop.films.length === 0 ? 'The shop has no films yet.' : 'No film of this family.'}</p>
              {shop.films.length === 0 && (
                <Button onPress={() => void navigate('/shop/begin')}>Begin with a set of films</Button>
              )}
            </>
          }
        />
      }
      card={
        film || isNew ? (
          <FilmCard
            key={id}
            film={film ?? null}
            family={family === ALL ? 'calendered' : (family as FilmFamily)}
            onClose={() => void navigate('/shop/films')}
          />
        ) : null
      }
    />
  );
}
