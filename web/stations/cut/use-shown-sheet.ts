import { useState } from 'react';
import type { BatchSheetView } from '../../../core/batch/index.js';
import type { FrozenSheet } from '../../../core/stations/cut/index.js';
import type { Cuts } from './use-cuts.js';

/** The sheet that is shown: one that is yet to be cut, or one that was sent to the cutter. */
export interface Shown {
  readonly id: string | undefined;
  readonly planned: BatchSheetView | null;
  readonly frozen: FrozenSheet | null;
  /** Chooses a planned sheet by its key, or a frozen one by its id. */
  readonly choose: (keyOrId: string) => void;
}

interface Sheets {
  readonly sheets: readonly BatchSheetView[];
  readonly cuts: readonly FrozenSheet[];
  readonly atCutter: Cuts;
}

/** What is in the cutter, else what was chosen, else what waits for a word, else the next sheet to cut, else the last that was cut. */
export function useShownSheet({ sheets, cuts, atCutter: { inCutter, undecided, done } }: Sheets): Shown {
  const [chosen, choose] = useState<string | null>(null);
  // A sheet that is yet to be cut is known by its pieces: what lies on it changes while it is looked at.
  const id =
    inCutter?.id ??
    sheets.find(({ key }) => key === chosen)?.id ??
    [...undecided, ...cuts].find((sheet) => sheet.id === chosen)?.id ??
    undecided[0]?.id ??
    sheets[0]?.id ??
    done[0]?.id;
  const planned = sheets.find((sheet) => sheet.id === id) ?? null;
  return { id, planned, frozen: planned ? null : (cuts.find((sheet) => sheet.id === id) ?? null), choose };
}

/** What sends a sheet of a batch to the cutter. */
export function cutOf(
  batch: { readonly id: string; readonly revision: number },
  sheetId: string,
  loadedFilmIds: readonly string[],
): { readonly path: string; readonly json: unknown } {
  return {
    path: `/api/batches/${batch.id}/sheets/${sheetId}/cut`,
    json: { revision: batch.revision, loadedFilmIds },
  };
}
