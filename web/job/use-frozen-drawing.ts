import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { IDENTITY, ringsToPathData, turnedOver, type Rings } from '../../core/geometry/index.js';
import { filmOfGroup, unpackLists, type FrozenSheet } from '../../core/stations/cut/index.js';
import { askBytes } from '../api/client.js';
import type { DrawnSheet } from '../../core/plan/page/plan-view.js';

/** Outlines in mm and holder positions in 1/40 mm, y up, as they were frozen. */
export interface FrozenDrawing {
  readonly outlines: Rings;
  readonly runs: readonly Int32Array[];
}

/** Outlines are kept in thousandths of a millimetre. */
const PER_MM = 1000;

/** What lies on a frozen sheet: it never changes, so it is fetched once. */
export function useFrozenDrawing(sheet: FrozenSheet | null): FrozenDrawing | undefined {
  const queryFn = async (): Promise<FrozenDrawing> => {
    const [outlines, runs] = await Promise.all(
      (['outlines', 'runs'] as const).map((what) => askBytes(`/api/sheets/${sheet!.id}/${what}`)),
    );
    return {
      outlines: unpackLists(outlines!).map((list) => Float64Array.from(list, (v) => v / PER_MM)),
      runs: unpackLists(runs!),
    };
  };
  return useQuery({ queryKey: ['drawing', sheet?.id], queryFn, enabled: sheet !== null, staleTime: Infinity }).data;
}

/** A frozen sheet as it is drawn; without its shapes while they are fetched. */
export function useDrawnSheet(sheet: FrozenSheet | null, drawing: FrozenDrawing | undefined): DrawnSheet | null {
  return useMemo(() => {
    if (!sheet) return null;
    const { film, piece, mat, zones, usedLengthMm } = sheet;
    const down = (rings: FrozenDrawing['outlines']) => ringsToPathData(turnedOver(rings, usedLengthMm), 2);
    let first = 0;
    const shapes = (drawing ? sheet.groups : []).map((group) => {
      const { contours, marks, borders } = group;
      const [from, to] = [first, first + contours + marks + borders];
      first = to;
      return {
        film: filmOfGroup(sheet, group),
        contours: down(drawing!.outlines.slice(from, to - borders)),
        borders: down(drawing!.outlines.slice(to - borders, to)),
        places: [IDENTITY],
      };
    });
    return { film, piece, mat, zones, usedLengthMm, edges: null, shapes };
  }, [sheet, drawing]);
}
