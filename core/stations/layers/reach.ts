import { markGapMm } from '../../engines/marks/index.js';
import type { BorderKind } from '../../engines/weeding/index.js';
import { wayOf, type Film } from '../../shop/index.js';

/** What is known of how the layers will be prepared before they are built. */
export interface PreparationWanted {
  readonly marks: boolean;
  /** Null for as the films want it. */
  readonly markSizeMm: number | null;
  readonly border: BorderKind | 'ruled' | 'shared';
  readonly borderGapMm: number | null;
  /** How much larger the lowest layer's border is at each side; null for as the app rules. */
  readonly lowestMoreMm: number | null;
}

/** A border stands clear of the work by this share of its diagonal, within bounds, mm. */
const BORDER_SHARE = 1 / 60;
const BORDER_MM = { least: 3, most: 8 };

/** The gap of a weeding border that the app would take, mm. */
export function ruledBorderMm({ widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number }): number {
  return Math.max(BORDER_MM.least, Math.min(BORDER_MM.most, Math.round(Math.hypot(widthMm, heightMm) * BORDER_SHARE)));
}

/** A stencil wants so much of its film round it, mm: paint and grit go beyond the edge of what is masked. Source: trade practice, 30 to 50. */
const STENCIL_MARGIN_MM = 40;

/** The same for the films of a job: stencils want a wide margin. */
export function ruledGapMm(
  size: { readonly widthMm: number; readonly heightMm: number },
  films: readonly Pick<Film, 'family'>[],
): number {
  return films.some((film) => wayOf(film) === 'stencil') ? STENCIL_MARGIN_MM : ruledBorderMm(size);
}

/** Across a mark, mm, and how many of a film's thinnest strokes it is across at least: marks of thick films come off in one piece. */
const MARK = { mm: 6, strokes: 4 };

/** How large marks are that are cut into some films, mm, where the maker did not say. */
export function markSizeOf(
  { markSizeMm }: { readonly markSizeMm: number | null },
  films: Iterable<Pick<Film, 'thinnestMm'>>,
): number {
  return markSizeMm ?? Math.max(MARK.mm, ...[...films].map(({ thinnestMm }) => MARK.strokes * thinnestMm));
}

/** The lowest layer's border is so much larger at each side, mm, as the app rules. */
export const LOWEST_MORE_MM = 5;

/** How far marks and border reach beyond what is cut at each side, mm, where marks stand as near as they may. */
export function reachOfPreparation(
  { marks, border, borderGapMm, lowestMoreMm, ...own }: PreparationWanted,
  films: readonly Film[],
  size: { readonly widthMm: number; readonly heightMm: number },
): number {
  const layers = films.length;
  const sizeMm = markSizeOf(own, films);
  return (
    (marks && layers > 1 ? markGapMm(sizeMm) + sizeMm : 0) +
    (border !== 'none'
      ? (borderGapMm ?? ruledGapMm(size, films)) + (layers > 1 ? (lowestMoreMm ?? LOWEST_MORE_MM) : 0)
      : 0)
  );
}
