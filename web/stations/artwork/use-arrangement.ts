import { useCallback, useMemo, useState } from 'react';
import {
  atTrueSize,
  boxRound,
  nameOfPart,
  placedBox,
  withGroups,
  withPlaces,
  type ArtworkPart,
  type PlacedPart,
  type Placement,
} from '../../../core/stations/artwork/index.js';
import type { Recipe, RecipePatch } from '../../../core/recipe/index.js';
import { transformBox, translation, type Box } from '../../../core/geometry/index.js';
import { useJobContext } from '../../job/job-context.js';

/** Parts may be set to overlap by up to this, mm, as letters of a script do. */
export const MOST_OVERLAP_MM = 500;

/** A part as it can be arranged: its place in the recipe and on the design. */
export interface ArrangedPart extends PlacedPart {
  readonly part: ArtworkPart;
  readonly name: string;
  /** On the design at its final size, mm. */
  readonly shown: Box;
  /** How far it has been moved since the plan that is shown was made, mm. */
  readonly lag: { readonly x: number; readonly y: number };
  /** Its size in its own file, or as it was set. */
  readonly own: { readonly widthMm: number; readonly heightMm: number };
}

export interface Arrangement {
  /** The lowest first. */
  readonly parts: readonly ArrangedPart[];
  /** A part that was just added is still being read: where the design ends is not known yet. */
  readonly isUnread: boolean;
  readonly chosen: readonly ArrangedPart[];
  readonly choose: (ids: readonly string[]) => void;
  /** From the arrangement's mm to those that are cut. */
  readonly scale: number;
  /** Saves other parts; what was given as a figure stays true from then on. */
  readonly change: (to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]) => void;
  /** The same as a change that is only tried. */
  readonly asPatch: (to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]) => RecipePatch;
  readonly place: (places: ReadonlyMap<string, Placement>) => void;
  /** What the margins of the surface leave, in the arrangement's mm; null where nothing was measured. */
  readonly room: Box | null;
  /** The same as `place`; all else stays where it lies on the surface. */
  readonly placeOnSurface: (places: ReadonlyMap<string, Placement>) => void;
  /** Where the parts that would move would go, shown before it is decided; null when nothing is looked at. */
  readonly tried: ReadonlyMap<string, Box> | null;
  readonly tryOut: (places: ReadonlyMap<string, Placement> | null) => void;
}

/** Whether two parts are taken hold of and let go together. */
export function isOneWith(a: PlacedPart, b: PlacedPart): boolean {
  return a.id === b.id || (a.group !== null && a.group === b.group);
}

/** The parts of the design with those that the maker has taken hold of. */
export function useArrangement(): Arrangement {
  const { recipe, decided, plan, plannedFrom, handle } = useJobContext();
  const [ids, setIds] = useState<readonly string[]>([]);
  const [triedPlaces, setTried] = useState<ReadonlyMap<string, Placement> | null>(null);
  const plannedScale = plan?.surface?.scale ?? 1;
  // At its own size a design is not scaled, also where the plan is of when it was.
  const scale = recipe.surface.size.mode === 'own' ? 1 : plannedScale;
  const views = plan?.artwork?.parts;
  const isUnread = recipe.artworks.some((part) => !views?.some(({ id }) => id === part.id));
  // How large the whole is made of it is known once it is planned.
  const isScaleKnown =
    recipe.surface.size.mode === 'own' ||
    (plannedFrom !== null &&
      JSON.stringify([plannedFrom.artworks, plannedFrom.surface]) ===
        JSON.stringify([recipe.artworks, recipe.surface]));
  const parts = useMemo(() => {
    // Where the recipe has them, also while the plan with it is still being made; their own sizes are the plan's.
    const placed = recipe.artworks.flatMap((part) => {
      const own = views?.find((other) => other.id === part.id);
      return own ? [{ part, own, box: placedBox(part.place, own.extent) }] : [];
    });
    const planned = boxRound(views ?? []);
    const frame = boxRound(placed);
    const isAmong = plan?.surface?.isAmong ?? false;
    return placed.map(({ part, own: view, box }): ArrangedPart => {
      const own = {
        widthMm: view.extent.box.maxX - view.extent.box.minX,
        heightMm: view.extent.box.maxY - view.extent.box.minY,
      };
      const { matrix } = view.artboard;
      if (isAmong && matrix) {
        // Designs beside each other on one thing are shown where they lie there.
        const planned = transformBox(view.extent.box, matrix);
        const lag = {
          x: box.minX * scale - view.box.minX * plannedScale,
          y: box.minY * scale - view.box.minY * plannedScale,
        };
        return {
          id: part.id,
          group: part.group,
          part,
          lag,
          name: nameOfPart(part, recipe.artworks),
          place: part.place,
          box,
          shown: transformBox(planned, translation(lag.x, lag.y)),
          own,
        };
      }
      const shown = {
        minX: (box.minX - frame!.minX) * scale,
        minY: (box.minY - frame!.minY) * scale,
        maxX: (box.maxX - frame!.minX) * scale,
        maxY: (box.maxY - frame!.minY) * scale,
      };
      const lag = {
        x: shown.minX - (view.box.minX - planned!.minX) * plannedScale,
        y: shown.minY - (view.box.minY - planned!.minY) * plannedScale,
      };
      return {
        id: part.id,
        group: part.group,
        part,
        lag,
        name: nameOfPart(part, recipe.artworks),
        place: part.place,
        box,
        shown,
        own,
      };
    });
  }, [recipe.artworks, views, scale, plannedScale, plan?.surface?.isAmong]);
  const patchOf = useCallback(
    ({ artworks }: Recipe, to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]): RecipePatch => {
      const next = to(artworks);
      return isScaleKnown && (next.length > 1 || artworks.length > 1)
        ? { artworks: atTrueSize(next, scale), surface: { size: { mode: 'own' } } }
        : { artworks: next };
    },
    [scale, isScaleKnown],
  );
  const change = useCallback(
    (to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]) => handle.change((now) => patchOf(now, to)),
    [handle, patchOf],
  );
  const asPatch = useCallback(
    (to: (parts: readonly ArtworkPart[]) => readonly ArtworkPart[]) => patchOf(decided, to),
    [decided, patchOf],
  );
  const chosen = parts.filter((part) => ids.includes(part.id));
  const place = (places: ReadonlyMap<string, Placement>) => {
    setTried(null);
    change((all) => withPlaces(all, places));
  };
  const frame = boxRound(parts);
  const { surface } = recipe;
  const lies = plan?.surface;
  const isMeasured =
    (surface.kind === 'flat' || surface.kind === 'glass') && frame !== null && lies !== undefined && !lies.isAmong;
  const { top, right, bottom, left } = surface.flat.marginMm;
  const [toX, toY] = [
    (mm: number) => frame!.minX + (mm - lies!.xMm) / scale,
    (mm: number) => frame!.minY + (mm - lies!.yMm) / scale,
  ];
  const room = isMeasured
    ? {
        minX: toX(left),
        minY: toY(top),
        maxX: toX(surface.flat.widthMm - right),
        maxY: toY(surface.flat.heightMm - bottom),
      }
    : null;
  const placeOnSurface = (places: ReadonlyMap<string, Placement>) => {
    if (!isMeasured) return;
    setTried(null);
    // The design's corner moves with its parts; on the surface it has to move as far.
    const after = boxRound(
      parts.map(({ id, box, place }) => ({ box: shiftedBox(box, place, places.get(id) ?? place) })),
    )!;
    const at = { xMm: lies.xMm + (after.minX - frame.minX) * scale, yMm: lies.yMm + (after.minY - frame.minY) * scale };
    handle.change((now) => {
      const patch = patchOf(now, (all) => withPlaces(all, places));
      return { ...patch, surface: { ...patch.surface, at } };
    });
  };
  const tried = triedPlaces && new Map(parts.flatMap((part) => triedBox(part, triedPlaces.get(part.id), scale)));
  // Who takes hold of a part takes hold of its group; parts that were just added are not planned yet.
  const choose = (wanted: readonly string[]) => setIds([...new Set([...withGroups(parts, wanted), ...wanted])]);
  return {
    parts,
    isUnread,
    chosen,
    choose,
    scale,
    change,
    asPatch,
    place,
    room,
    placeOnSurface,
    tried,
    tryOut: setTried,
  };
}

/** Where a box would be when its part goes from one place to another; `scale` is from the arrangement's mm to the box's. */
function shiftedBox(box: Box, from: Placement, to: Placement, scale = 1): Box {
  return transformBox(box, translation((to.xMm - from.xMm) * scale, (to.yMm - from.yMm) * scale));
}

/** Nobody sees that a part moves by less, mm. */
const STAYS_MM = 0.005;

/** Where a part would stand on the design, which is as large as it is now, when it is moved to another place; none when it stays. */
function triedBox({ id, place, shown }: ArrangedPart, to: Placement | undefined, scale: number): [string, Box][] {
  if (!to) return [];
  const isMoved = Math.hypot(to.xMm - place.xMm, to.yMm - place.yMm) * scale >= STAYS_MM;
  return isMoved ? [[id, shiftedBox(shown, place, to, scale)]] : [];
}
