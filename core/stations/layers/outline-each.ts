import type { ArtworkPart } from '../artwork/index.js';
import type { SurfaceDecisions } from '../surface/index.js';
import type { OutlineEach } from './decisions.js';

/**
 * What a new outline goes round: each part by itself where parts are laid by themselves, or are copies that stand beside each other; all together else. Copies with words of
 * their own are copies; a group holds together.
 */
export function ruledOutlineEach(
  artworks: readonly ArtworkPart[],
  { panels: { split } }: Pick<SurfaceDecisions['surface'], 'panels'>,
): OutlineEach {
  const [first, ...others] = artworks;
  if (!first || others.length === 0 || artworks.some(({ group }) => group !== null)) return 'all';
  return split === 'parts' || others.every((part) => isCopyOf(part, first)) ? 'part' : 'all';
}

function isCopyOf(part: ArtworkPart, other: ArtworkPart): boolean {
  if (part.kind === 'lettering' || other.kind === 'lettering')
    return (
      part.kind === 'lettering' &&
      other.kind === 'lettering' &&
      part.lettering.font === other.lettering.font &&
      part.lettering.capHeightMm * part.place.scale === other.lettering.capHeightMm * other.place.scale
    );
  return part.source.sha256 === other.source.sha256 && part.place.scale === other.place.scale;
}
