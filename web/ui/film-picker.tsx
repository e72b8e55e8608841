import type { Film } from '../../core/shop/index.js';
import { fetchedLate } from './part.js';
import { PickerButton } from './picker.js';
import { Swatch } from './swatch.js';

export interface FilmPickerProps {
  readonly label: string;
  /** Those that can be picked; retired ones among them are offered only while they are picked. */
  readonly films: readonly Film[];
  readonly value: string;
  /** What is left of each, m², by id. */
  readonly left?: ReadonlyMap<string, number>;
  /** The colour that a film is looked for: the nearest come first. */
  readonly colour?: string;
  readonly placeholder?: string;
  readonly onChange: (filmId: string) => void;
}

const FilmPickerList = fetchedLate(
  () => import('./film-picker-list.js'),
  (m) => m.FilmPickerList,
);

/** A film picked out of the shop's: by swatch, family, how far its colour is off, and what is left of it. */
export function FilmPicker({
  label,
  films,
  value,
  left,
  colour,
  placeholder = 'choose a film …',
  onChange,
}: FilmPickerProps) {
  const chosen = films.find((film) => film.id === value);
  return (
    <PickerButton
      label={label}
      said={chosen?.name ?? (value === '' ? placeholder : 'a film that is no longer here')}
      mark={chosen && <Swatch film={chosen} size={18} />}
    >
      {({ button, close }) => (
        <FilmPickerList
          label={label}
          films={films}
          value={value}
          button={button}
          onClose={close}
          onPick={(id) => {
            close();
            onChange(id);
          }}
          {...(left ? { left } : {})}
          {...(colour === undefined ? {} : { colour })}
        />
      )}
    </PickerButton>
  );
}
