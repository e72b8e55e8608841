import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import styled from 'styled-components';
import { FILM_FAMILIES, leftOfFilms, newFilm, type Film, type FilmFamily } from '../../core/shop/index.js';
import { SHOP_FIELDS, valueAt, writeField } from '../../core/shop/fields/index.js';
import { count } from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { colour, space, type } from '../tokens.js';
import { Button } from '../ui/button.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';
import { sayPiece, saySize } from '../ui/say-piece.js';
import { Card } from './list-and-card.js';
import { PatternField } from './pattern-field.js';
import { RecordForm } from './record-form.js';
import { sayAmount, sayLeft } from './say.js';
import { useKnownShop, useShopActs } from './shop-context.js';
import { newId } from '../api/new-id.js';

interface FilmCardProps {
  /** Null for a new one. */
  readonly film: Film | null;
  /** Of a new one, to begin with. */
  readonly family: FilmFamily;
  readonly onClose: () => void;
}

const FIELDS = SHOP_FIELDS.films.flatMap((group) => group.fields);

/** A film, all that is known of it, its pieces, and the jobs that use it. */
export function FilmCard({ film, family, onClose }: FilmCardProps) {
  const shop = useKnownShop();
  const { save, attempt } = useShopActs();
  const navigate = useNavigate();
  const { unit } = useSettings();
  const copied = (useLocation().state as { copyOf?: string } | null)?.copyOf;
  const [fresh] = useState((): Film => {
    const from = shop.films.find(({ id }) => id === copied);
    const id = newId();
    return from ? { ...from, id, name: `${from.name} (copy)`.slice(0, 80), retired: false } : newFilm(id, family);
  });
  const record = film ?? fresh;
  const [pattern, setPattern] = useState<Film['pattern'] | undefined>(undefined);
  const left = useMemo(() => leftOfFilms(shop.stock).get(record.id) ?? 0, [shop.stock, record.id]);
  /** Another family brings its own figures, where what stands there is only what was typical of the one before. */
  const followFamily = (path: string, texts: Readonly<Record<string, string>>): Readonly<Record<string, string>> => {
    const next = texts['family'] as FilmFamily;
    if (path !== 'family') return {};
    const [was, is] = [newFilm('', shown), newFilm('', next)];
    setShown(next);
    return Object.fromEntries(
      FIELDS.filter((field) => !['name', 'family', 'colour'].includes(field.path)).flatMap((field) => {
        const [before, after] = [was, is].map((one) =>
          writeField(field, valueAt(one as unknown as Record<string, unknown>, field.path), unit),
        ) as [string, string];
        return before !== after && (texts[field.path] ?? '') === before ? [[field.path, after]] : [];
      }),
    );
  };
  const [shown, setShown] = useState(record.family);
  const retire = (retired: boolean) =>
    void attempt(() =>
      save(
        [{ kind: 'films', value: { ...record, retired } }],
        shop.revision,
        retired ? `${record.name} is retired: it is not offered any more.` : `${record.name} is offered again.`,
      ),
    );
  return (
    <Card
      title={film ? film.name : 'New film'}
      lead={
        film
          ? `${FILM_FAMILIES[film.family].name}; ${sayLeft(left, 0)} left${film.retired ? '; retired' : ''}`
          : 'Its family fills in what is typical. The film maker’s sheet wins.'
      }
      mark={<Swatch film={{ ...record, ...(pattern === undefined ? {} : { pattern }) }} size={44} />}
      onClose={onClose}
    >
      <RecordForm
        kind="films"
        record={record}
        revision={shop.revision}
        isNew={!film}
        onText={followFamily}
        {...(pattern === undefined ? {} : { more: { pattern }, hasMore: true })}
        onSave={async (value, revision) => {
          await save(
            [{ kind: 'films', value }],
            revision,
            film ? `${value.name} is saved.` : `${value.name} is added.`,
          );
          setPattern(undefined);
          if (!film) void navigate(`/shop/films/${value.id}`, { replace: true });
        }}
        onLeave={onClose}
        acts={
          film && (
            <>
              <Button onPress={() => void navigate('/shop/films/new', { state: { copyOf: film.id } })}>Copy</Button>
              <Button onPress={() => retire(!film.retired)}>{film.retired ? 'Offer it again' : 'Retire'}</Button>
            </>
          )
        }
      >
        <PatternField pattern={pattern === undefined ? record.pattern : pattern} onChange={setPattern} />
        {film && <Pieces film={film} />}
        {film && <Uses film={film} />}
      </RecordForm>
    </Card>
  );
}

function Pieces({ film }: { readonly film: Film }) {
  const { stock } = useKnownShop();
  const { unit } = useSettings();
  const pieces = stock.filter((piece) => piece.filmId === film.id && !piece.retired && piece.left > 0);
  return (
    <Told>
      <h3>In stock</h3>
      <ul>
        {pieces.map((piece) => (
          <li key={piece.id}>
            <Link to={`/shop/stock/${piece.id}`}>{sayPiece(piece)}</Link>, {saySize(piece, unit)}:{' '}
            {sayAmount(piece, piece.left)} left
          </li>
        ))}
      </ul>
      <p>
        {pieces.length === 0 && 'Nothing of it is in stock. '}
        <Link to="/shop/stock/new" state={{ filmId: film.id }}>
          Receive a piece
        </Link>
      </p>
    </Told>
  );
}

function Uses({ film }: { readonly film: Film }) {
  const { data } = useQuery({
    queryKey: ['film-uses', film.id],
    queryFn: () => ask<{ jobs: { id: string; title: string }[]; sheets: number }>(`/api/shop/films/${film.id}/jobs`),
  });
  if (!data || (data.jobs.length === 0 && data.sheets === 0)) return null;
  return (
    <Told>
      <h3>Where it is used</h3>
      <ul>
        {data.jobs.map((job) => (
          <li key={job.id}>
            <Link to={`/jobs/${job.id}/films`}>{job.title}</Link>
          </li>
        ))}
      </ul>
      {data.sheets > 0 && (
        <p>
          {count(data.sheets, 'sheet')} of it {data.sheets === 1 ? 'was' : 'were'} cut.
        </p>
      )}
    </Told>
  );
}

const Told = styled.section`
  font-size: ${type.small};
  h3 {
    font-size: ${type.body};
    margin-bottom: ${space.xs};
  }
  ul {
    list-style: none;
    display: grid;
    gap: 3px;
  }
  p {
    color: ${colour.quiet};
    padding-top: 3px;
  }
  a {
    color: ${colour.accent};
  }
`;
