import styled from 'styled-components';
import type { Film } from '../../../core/shop/index.js';
import { type } from '../../tokens.js';
import { Select } from '../../ui/plain-fields.js';

/** A film chosen among some; one that is no longer among them is said to be gone. */
export function FilmChoice({ label, films, value, onChange }: { readonly label: string; readonly films: readonly Film[]; readonly value: string; readonly onChange: (id: string) => void }) {
  return (
    <Select aria-label={label} value={value} onChange={(event) => onChange(event.target.value)}>
      {!films.some((film) => film.id === value) && <option value={value}>a film that is no longer here</option>}
      {films.map((film) => (
        <option key={film.id} value={film.id}>
          {film.name}
        </option>
      ))}
    </Select>
  );
}

/** A decision as a sentence with fields in it. */
export const Said = styled.p`font-size: ${type.small}; line-height: 2.1; select { min-height: 26px; padding: 1px 4px; }`;
