import styled from 'styled-components';
import type { Film } from '../../core/shop/index.js';
import { colour, radius } from '../tokens.js';

/** A cutting of film: its colour, and its finish as a sign that reads without colour. */
export function Swatch({ film, size = 22 }: { readonly film: Pick<Film, 'colour' | 'finish'>; readonly size?: number }) {
  return <Chip aria-hidden $size={size} style={{ background: film.colour, backgroundImage: FINISH[film.finish] }} />;
}

const FINISH: Readonly<Record<Film['finish'], string>> = {
  gloss: 'linear-gradient(135deg, rgba(255,255,255,.5) 0 18%, transparent 19%)',
  matt: 'none',
  textured: 'repeating-linear-gradient(90deg, rgba(0,0,0,.22) 0 1px, transparent 1px 4px)',
  translucent: 'repeating-linear-gradient(45deg, rgba(255,255,255,.75) 0 2px, transparent 2px 5px)',
};

const Chip = styled.span<{ $size: number }>`
  display: inline-block; flex: none; width: ${(p) => p.$size}px; height: ${(p) => p.$size}px; vertical-align: -5px;
  /* A film's colour is what it is, whatever the system paints everything else with. */
  forced-color-adjust: none; border: 1px solid ${colour.quiet}; border-radius: ${radius.s} ${radius.s} ${radius.s} 8px;
`;
