import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { boundsOf, inverse, ringsToPathData, transformRing, type Box } from '../../core/geometry/index.js';
import type { Film } from '../../core/shop/index.js';
import {
  contoursOfGroups,
  copiesOnFilm,
  filmOfGroup,
  keyOfPlace,
  openPlaces,
  type CopyOnFilm,
  type FrozenSheet,
  type WeedPlace,
} from '../../core/stations/cut/index.js';
import { ask } from '../api/client.js';
import { useJobContext } from './job-context.js';
import { NOTHING_DRAWN, type DrawnPath } from '../../core/plan/page/drawn-path.js';
import { useNotify } from '../ui/notices.js';
import { useFrozenDrawing } from './use-frozen-drawing.js';

/** A copy of a layer on film, as far as it is whole there: what is weeded and ticked off. */
export interface CutCopy extends CopyOnFilm {
  readonly key: string;
  readonly film: Film;
}

/** Copies of this job that are on film and were not given up, the newest first. */
export function useCutCopies(): readonly CutCopy[] {
  const { cuts, job } = useJobContext();
  return useMemo(
    () =>
      copiesOnFilm(cuts, job.id)
        .filter(({ group }) => group.revision !== null)
        .map((copy) => ({
          ...copy,
          key: `${copy.sheet.id}.${copy.position}`,
          film: filmOfGroup(copy.sheet, copy.group),
        }))
        .reverse(),
    [cuts, job.id],
  );
}

/** A copy as it was cut, laid back onto the design: path data in mm, y down, and the box round it; null until it is fetched. */
export function useCutPicture(
  copy: CutCopy | null,
): { readonly cut: DrawnPath; readonly border: string; readonly box: Box } | null {
  const drawing = useFrozenDrawing(copy?.sheet ?? null);
  return useMemo(() => {
    if (!copy || !drawing) return null;
    const sizes = contoursOfGroups(copy.sheet.groups);
    const from = sizes.slice(0, copy.position).reduce((sum, size) => sum + size, 0);
    const back = inverse(copy.group.matrix)!;
    const rings = drawing.outlines.slice(from, from + sizes[copy.position]!).map((ring) => transformRing(ring, back));
    const contours = copy.group.contours + copy.group.marks;
    return {
      cut: { ...NOTHING_DRAWN, fine: [ringsToPathData(rings.slice(0, contours), 3)] },
      border: ringsToPathData(rings.slice(contours), 3),
      box: boundsOf(rings)!,
    };
  }, [copy, drawing]);
}

/** Puts a sheet among the job's in the place of what was known of it. */
export function usePutSheet(): (sheet: FrozenSheet) => void {
  const { job } = useJobContext();
  const client = useQueryClient();
  return (sheet) =>
    client.setQueryData<FrozenSheet[]>(['cuts', job.id], (all) =>
      all?.map((one) => (one.id === sheet.id ? sheet : one)),
    );
}

/** Places of one copy. */
export interface PlacesOfCopy {
  readonly copy: CutCopy;
  readonly places: readonly WeedPlace[];
}

/** Ticks places of copies off, or takes the ticks back; shown at once, and taken back with a word when the server does not keep them. */
export function useTicking(): (of: readonly PlacesOfCopy[], ticked: boolean) => void {
  const { job } = useJobContext();
  const client = useQueryClient();
  const notify = useNotify();
  const key = ['cuts', job.id];
  const put = usePutSheet();
  const tick = useMutation({
    mutationFn: ({ sheetId, of, ticked }: SheetTicks) =>
      ask<FrozenSheet>(`/api/sheets/${sheetId}/ticks`, {
        method: 'PUT',
        json: {
          ticked,
          places: of.flatMap(({ copy, places }) =>
            places.map(({ kind, xMm, yMm }) => ({ position: copy.position, kind, xMm, yMm })),
          ),
        },
      }),
    onMutate: ({ sheetId, of, ticked }) => {
      const now = client.getQueryData<FrozenSheet[]>(key)?.find((sheet) => sheet.id === sheetId);
      if (!now) return;
      const changed = new Map(of.map(({ copy, places }) => [copy.position, places]));
      put({
        ...now,
        groups: now.groups.map((group, i) => {
          const places = changed.get(i);
          if (!places) return group;
          const named = new Set(places.map(keyOfPlace));
          const others = group.ticked.filter((other) => !named.has(keyOfPlace(other)));
          return { ...group, ticked: ticked ? [...others, ...places] : others };
        }),
      });
    },
    onSuccess: put,
    onError: (error) => {
      notify(`The tick was not kept. ${error.message}`);
      return client.invalidateQueries({ queryKey: key });
    },
  });
  return (of, ticked) => {
    const bySheet = new Map<string, PlacesOfCopy[]>();
    for (const one of of)
      if (one.places.length > 0) bySheet.set(one.copy.sheet.id, [...(bySheet.get(one.copy.sheet.id) ?? []), one]);
    for (const [sheetId, some] of bySheet) tick.mutate({ sheetId, of: some, ticked });
  };
}

/** Says of copies that all of them are weeded, in one press, and can be taken back as one. */
export function useWeeded(): (copies: readonly CutCopy[], what: string) => void {
  const tick = useTicking();
  const notify = useNotify();
  return (copies, what) => {
    const of = copies.map((copy) => ({ copy, places: openPlaces(copy) }));
    tick(of, true);
    notify(`${what} is weeded.`, { label: 'Take the ticks back', run: () => tick(of, false) });
  };
}

interface SheetTicks {
  readonly sheetId: string;
  readonly of: readonly PlacesOfCopy[];
  readonly ticked: boolean;
}
