import { takesSeveral } from '../../engines/surface/index.js';
import { measuredOf, type SurfaceDecisions } from './decisions.js';

/** One of the designs that artwork is divided into. */
export interface DesignParts {
  /** What of the artwork it is, by the parts' ids. */
  readonly parts: readonly string[];
  /** Which of the others it is, from 0; null for the first. */
  readonly other: number | null;
}

/** The same as it stands on a thing. */
export interface DesignOnThing extends DesignParts {
  /** Which of how many alike, from 1. */
  readonly copy: number;
  readonly copies: number;
}

/** The designs that stand on one thing, the first design first and copies beside each other; null where there is one. */
export function designsOnOne(recipe: SurfaceDecisions, ids: readonly string[]): readonly DesignOnThing[] | null {
  const surface = measuredOf(recipe);
  if (!takesSeveral(surface)) return null;
  // Round a thing every design has its side.
  const copies = surface.kind === 'cylinder' ? 1 : recipe.surface.several.copies;
  const all = partsInDesigns(recipe, ids).flatMap((design) =>
    Array.from({ length: copies }, (_, i) => ({ ...design, copy: i + 1, copies })),
  );
  return all.length > 1 ? all : null;
}

/**
 * The designs that artwork is divided into, whatever it goes on. A part that stands in two is of the earlier one; what is not there any more is left out, and
 * so are designs that nothing is left of.
 */
export function partsInDesigns(
  { surface: { several } }: SurfaceDecisions,
  ids: readonly string[],
): readonly DesignParts[] {
  const left = new Set(ids);
  const others = several.others.map(({ parts }, other): DesignParts => ({
    parts: parts.filter((id) => left.delete(id)),
    other,
  }));
  return [{ parts: [...left], other: null }, ...others].filter(({ parts }) => parts.length > 0);
}
