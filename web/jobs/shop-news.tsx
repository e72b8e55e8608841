import { Link } from 'react-router';
import styled from 'styled-components';
import { shortFilms } from '../../core/shop/index.js';
import { useShop } from '../plan/use-shop.js';
import { colour, radius, space, type } from '../tokens.js';
import { Swatch } from '../ui/swatch.js';

/** So many are named; the rest is counted. */
const NAMED = 5;

/** What of the shop must be known before work begins: films that run short, or that there are none yet. */
export function ShopNews() {
  const shop = useShop();
  if (!shop) return null;
  if (shop.films.length === 0) {
    return (
      <Band aria-label="The shop">
        <strong>This shop has no films yet.</strong>
        <span>A job can be begun, but nothing can be cut of it.</span>
        <Link to="/shop/begin">Set the shop up</Link>
      </Band>
    );
  }
  const short = shortFilms(shop.films, shop.stock);
  if (short.length === 0) return null;
  return (
    <Band aria-label="Short in stock">
      <strong>Short in stock</strong>
      <ul>
        {short.slice(0, NAMED).map(({ film, leftM2 }) => (
          <li key={film.id}>
            <Swatch film={film} size={16} /> <Link to={`/shop/films/${film.id}`}>{film.name}</Link>{' '}
            <span>
              {leftM2 === 0 ? 'none' : leftM2.toFixed(1)} of {film.reorderM2} m²
            </span>
          </li>
        ))}
      </ul>
      {short.length > NAMED && <Link to="/shop/films">and {short.length - NAMED} more</Link>}
    </Band>
  );
}

const Band = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.xs} ${space.l};
  margin-bottom: ${space.l};
  padding: ${space.s} ${space.m};
  font-size: ${type.small};
  background: ${colour.warnWash};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.s};
  ul {
    list-style: none;
    display: flex;
    flex-wrap: wrap;
    gap: ${space.xs} ${space.l};
  }
  span {
    color: ${colour.quiet};
    font-variant-numeric: tabular-nums;
  }
  a {
    color: ${colour.ink};
  }
`;
