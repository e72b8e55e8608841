import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { IDENTITY, ringsToPathData } from '../../../core/geometry/index.js';
import type { FrozenSheet } from '../../../core/records/index.js';
import { ask } from '../../api/client.js';
import type { DrawnSheet } from '../../plan/plan-view.js';

/** Outlines in mm and holder positions in 1/40 mm, y up, as they were frozen. */
export interface FrozenDrawing {
  readonly outlines: readonly (readonly number[])[];
  readonly runs: readonly (readonly number[])[];
}

/** What lies on a frozen sheet: it never changes, so it is fetched once. */
export function useFrozenDrawing(sheet: FrozenSheet | null): FrozenDrawing | undefined {
  return useQuery({ queryKey: ['drawing', sheet?.id], queryFn: () => ask<FrozenDrawing>(`/api/sheets/${sheet!.id}/drawing`), enabled: sheet !== null, staleTime: Infinity }).data;
}

/** A frozen sheet as it is drawn; without its shapes while they are fetched. */
export function useDrawnSheet(sheet: FrozenSheet | null, drawing: FrozenDrawing | undefined): DrawnSheet | null {
  return useMemo(() => {
    if (!sheet) return null;
    const { film, piece, mat, usedLengthMm } = sheet;
    const down = (rings: FrozenDrawing['outlines']) => ringsToPathData(rings.map((ring) => Float64Array.from(ring, (v, i) => (i % 2 === 1 ? usedLengthMm - v : v))), 2);
    let first = 0;
    const shapes = (drawing ? sheet.groups : []).map(({ contours, marks, borders }) => {
      const [from, to] = [first, first + contours + marks + borders];
      first = to;
      return { contours: down(drawing!.outlines.slice(from, to - borders)), borders: down(drawing!.outlines.slice(to - borders, to)), places: [IDENTITY] };
    });
    return { film, piece, mat, usedLengthMm, edges: null, shapes };
  }, [sheet, drawing]);
}
