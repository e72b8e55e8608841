import { useMemo } from 'react';
import { colourDifference } from '../../core/engines/artwork/colour.js';
import { FILM_FAMILIES, type Film } from '../../core/shop/index.js';
import type { FilmPickerProps } from './film-picker.js';
import { PickerList } from './picker-list.js';
import type { PickOption } from './picker.js';
import { Swatch } from './swatch.js';

interface FilmPickerListProps extends Pick<FilmPickerProps, 'label' | 'films' | 'value' | 'left' | 'colour'> {
  readonly button: HTMLButtonElement;
  readonly onPick: (id: string) => void;
  readonly onClose: () => void;
}

/** The films behind a button, the nearest in colour first when one is looked for. */
export function FilmPickerList({ films, left, colour, value, ...rest }: FilmPickerListProps) {
  const options = useMemo(() => {
    const offered = films.filter((film) => !film.retired || film.id === value);
    const far = new Map(
      colour === undefined ? [] : offered.map((film) => [film.id, colourDifference(colour, film.colour)]),
    );
    const order = (a: Film, b: Film) => (far.get(a.id) ?? 0) - (far.get(b.id) ?? 0) || a.name.localeCompare(b.name);
    return [...offered].sort(order).map((film): PickOption => ({
      id: film.id,
      text: film.name,
      hint: said(film, far.get(film.id), left),
      mark: <Swatch film={film} size={20} />,
    }));
  }, [films, left, colour, value]);
  return <PickerList {...rest} value={value} options={options} />;
}

function said(film: Film, far: number | undefined, left: ReadonlyMap<string, number> | undefined): string {
  const family = FILM_FAMILIES[film.family].name.replace(/ adhesive,?/, '').replace(/, adhesive/, '');
  const area = left?.get(film.id) ?? 0;
  return [
    family,
    ...(far === undefined ? [] : [`off by ${far.toFixed(0)}`]),
    ...(left ? [area > 0 ? `${area < 1 ? area.toFixed(2) : area.toFixed(1)} m²` : 'none left'] : []),
  ].join(' · ');
}
