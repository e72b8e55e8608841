import { useMemo } from 'react';
import styled from 'styled-components';
import { filmsToChoose, leftOfFilms, type Film } from '../../../core/shop/index.js';
import { useJobContext } from '../../job/job-context.js';
import { type } from '../../tokens.js';
import { FilmPicker } from '../../ui/film-picker.js';

/** A film chosen among some; one that is no longer among them is said to be gone. */
export function FilmChoice(props: {
  readonly label: string;
  readonly films: readonly Film[];
  readonly value: string;
  readonly onChange: (id: string) => void;
}) {
  const { stock } = useJobContext().shop;
  const left = useMemo(() => leftOfFilms(stock), [stock]);
  return <FilmPicker {...props} films={filmsToChoose(props.films, props.value)} left={left} />;
}

/** A decision as a sentence with fields in it. */
export const Said = styled.p`
  font-size: ${type.small};
  line-height: 2.1;
  button[aria-haspopup] {
    min-height: 26px;
    padding: 1px 6px;
  }
`;
