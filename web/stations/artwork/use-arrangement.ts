import { useCallback, useMemo, useState } from 'react';
import { atTrueSize, nameOfPart, withPlaces, type ArtworkPart, type PlacedPart, type Placement } from '../../../core/job/index.js';
import type { Box } from '../../../core/geometry/index.js';
import { useJobContext } from '../../job/job-context.js';

/** A part as it can be arranged: its place in the recipe and on the design. */
export interface ArrangedPart extends PlacedPart {
  readonly part: ArtworkPart;
  readonly name: string;
  /** On the design at its final size, mm. */
  readonly shown: Box;
  /** Its size in its own file, or as it was set. */
  readonly own: { readonly widthMm: number; readonly heightMm: number };
}

export interface Arrangement {
  /** The lowest first. */
  readonly parts: readonly ArrangedPart[];
  readonly chosen: readonly ArrangedPart[];
  readonly choose: (ids: readonly string[]) => void;
  /** From the arrangement's mm to those that are cut. */
  readonly scale: number;
  /** Saves other parts; what was given as a figure stays true from then on. */
  readonly change: (to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]) => void;
  readonly place: (places: ReadonlyMap<string, Placement>) => void;
}

/** The parts of the design with those that the maker has taken hold of. */
export function useArrangement(): Arrangement {
  const { recipe, plan, handle } = useJobContext();
  const [ids, setIds] = useState<readonly string[]>([]);
  const scale = plan?.surface?.scale ?? 1;
  const views = plan?.artwork?.parts;
  const frame = plan?.artwork?.frame;
  const parts = useMemo(() => {
    return recipe.artworks.flatMap((part): ArrangedPart[] => {
      const view = views?.find((other) => other.id === part.id);
      if (!view || !frame) return [];
      const { box } = view;
      const shown = { minX: (box.minX - frame.minX) * scale, minY: (box.minY - frame.minY) * scale, maxX: (box.maxX - frame.minX) * scale, maxY: (box.maxY - frame.minY) * scale };
      return [{ id: part.id, part, name: nameOfPart(part), place: part.place, box, shown, own: view }];
    });
  }, [recipe.artworks, views, frame, scale]);
  const change = useCallback(
    (to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]) => {
      const next = to(recipe.artworks);
      const several = next.length > 1 || recipe.artworks.length > 1;
      handle.change(several ? { artworks: atTrueSize(next, scale), surface: { size: { mode: 'own' } } } : { artworks: next });
    },
    [recipe.artworks, handle, scale],
  );
  const chosen = parts.filter((part) => ids.includes(part.id));
  return { parts, chosen, choose: setIds, scale, change, place: (places) => change((all) => withPlaces(all, places)) };
}
