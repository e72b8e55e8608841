import styled from 'styled-components';
import type { Film, Picture } from '../../core/shop/index.js';
import { colour, radius } from '../tokens.js';

/** A cutting of film: its colour, and its finish as a sign that reads without colour; of a pattern film its picture. */
export function Swatch({
  film,
  size = 22,
}: {
  readonly film: Pick<Film, 'colour' | 'finish'> & Partial<Pick<Film, 'pattern'>>;
  readonly size?: number;
}) {
  const look = film.pattern
    ? { backgroundImage: `url(${pictureUrl(film.pattern.picture)})`, backgroundSize: 'cover' }
    : { backgroundImage: FINISH[film.finish] };
  return <Chip aria-hidden $size={size} style={{ backgroundColor: film.colour, ...look }} />;
}

/** The films of a sheet, each as a cutting. */
export function Swatches({ films }: { readonly films: readonly Parameters<typeof Swatch>[0]['film'][] }) {
  return (
    <Chips>
      {films.map((film, i) => (
        <Swatch key={i} film={film} size={18} />
      ))}
    </Chips>
  );
}

/** Where a picture of the shop is to be had. */
export function pictureUrl({ id }: Picture): string {
  return `/api/shop/pictures/${encodeURIComponent(id)}`;
}

const FINISH: Readonly<Record<Film['finish'], string>> = {
  gloss: 'linear-gradient(135deg, rgba(255,255,255,.5) 0 18%, transparent 19%)',
  matt: 'none',
  textured: 'repeating-linear-gradient(90deg, rgba(0,0,0,.22) 0 1px, transparent 1px 4px)',
  translucent: 'repeating-linear-gradient(45deg, rgba(255,255,255,.75) 0 2px, transparent 2px 5px)',
};

const Chips = styled.i`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  max-width: 62px;
  flex: none;
`;
const Chip = styled.span<{ $size: number }>`
  display: inline-block;
  flex: none;
  width: ${(p) => p.$size}px;
  height: ${(p) => p.$size}px;
  vertical-align: -5px;
  /* A film's colour is what it is, whatever the system paints everything else with. */
  forced-color-adjust: none;
  border: 1px solid ${colour.quiet};
  border-radius: ${radius.s} ${radius.s} ${radius.s} 8px;
`;
