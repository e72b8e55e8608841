import type { BuildDecisions } from './decisions.js';

type Framing = Pick<BuildDecisions['build'], 'outlines' | 'base' | 'contour' | 'blockOut'>;

/** The films of what is laid besides the artwork: outlines, a base, what is printed, a backing. By their ids. */
export function framingFilms({ outlines, base, contour, blockOut }: Framing): string[] {
  return [...outlines, base, contour, blockOut].flatMap((one) => (one ? [one.filmId] : []));
}

/** The same laid from other films. */
export function withFramingFilms(
  { outlines, base, contour, blockOut }: Framing,
  filmFor: (filmId: string) => string,
): Framing {
  const other = <T extends { readonly filmId: string }>(one: T | null): T | null =>
    one && { ...one, filmId: filmFor(one.filmId) };
  return {
    outlines: outlines.map((one) => ({ ...one, filmId: filmFor(one.filmId) })),
    base: other(base),
    contour: other(contour),
    blockOut: other(blockOut),
  };
}
