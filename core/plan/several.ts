import type { Recipe } from '../recipe/index.js';
import { designOf, nameOfPart, type PartAsRead } from '../stations/artwork/index.js';
import { designsOnOne, sayDesignName, type OwnDesign } from '../stations/surface/index.js';

/** Several designs on one thing, each at its own size; null for one. */
export function eachOf(parts: readonly PartAsRead[], recipe: Recipe): OwnDesign[] | null {
  const several = designsOnOne(
    recipe,
    parts.map(({ part }) => part.id),
  );
  return (
    several &&
    several.map((one): OwnDesign => {
      const own = parts.filter(({ part }) => one.parts.includes(part.id));
      const { widthMm, heightMm } = designOf(own, recipe.surface.sizeOf);
      return {
        ...one,
        widthMm,
        heightMm,
        label: sayDesignName(
          own.map(({ part }) => nameOfPart(part, recipe.artworks)),
          one,
        ),
      };
    })
  );
}
