import { useMutation, useQueryClient, type UseMutationResult } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  ENDED,
  standings,
  type FrozenSheet,
  type Run,
  type RunProgress,
  type SheetStanding,
} from '../../../core/stations/cut/index.js';
import { ask } from '../../api/client.js';
import { useCutterBusy, type Busy } from './cutter-busy.js';
import { useRunProgress } from './use-run-progress.js';

interface CutsOf {
  /** Every sheet that says how those shown stand, the oldest first. */
  readonly cuts: readonly FrozenSheet[];
  /** Those of them that are shown. */
  readonly own: readonly FrozenSheet[];
  /** Where the sheets are kept, and what else is another once something is cut. */
  readonly cutsKey: readonly string[];
  readonly changes: readonly (readonly string[])[];
  /** Whether the cutter is at one of them, though its sheet is not known yet. */
  readonly isOwn?: (busy: Busy) => boolean;
}

export interface Cuts {
  readonly how: ReadonlyMap<string, SheetStanding>;
  readonly inCutter: FrozenSheet | null;
  readonly active: Run | null;
  readonly progress: RunProgress | null;
  /** What the cutter is at, when that is something else. */
  readonly elsewhere: Busy | null;
  /** Sheets that failed, and wait for a word. */
  readonly undecided: readonly FrozenSheet[];
  /** What was cut, the newest first. */
  readonly done: readonly FrozenSheet[];
  /** Asks the server for something of a sheet or a run. */
  readonly act: UseMutationResult<Run | FrozenSheet, Error, { readonly path: string; readonly json?: unknown }>;
}

/** What is in the cutter, what failed and waits for a word, and what is cut, of a job or of a batch. */
export function useCuts({ cuts, own, cutsKey, changes, isOwn = () => false }: CutsOf): Cuts {
  const client = useQueryClient();
  const how = useMemo(() => standings(cuts), [cuts]);
  const inCutter = own.find((sheet) => sheet.runs.some((run) => !ENDED.includes(run.state))) ?? null;
  const active = inCutter?.runs.at(-1) ?? null;
  const progress = useRunProgress(cutsKey, active);
  const busy = useCutterBusy();
  const isHere = busy !== null && (isOwn(busy) || own.some((sheet) => sheet.runs.some((run) => run.id === busy.runId)));
  const undecided = own.filter((sheet) => how.get(sheet.id) === 'undecided');
  const done = own
    .filter((sheet) => sheet !== inCutter && !undecided.includes(sheet) && how.get(sheet.id) !== 'untouched')
    .reverse();
  const act = useMutation({
    mutationFn: ({ path, json }: { readonly path: string; readonly json?: unknown }) =>
      ask<Run | FrozenSheet>(path, { method: 'POST', ...(json ? { json } : {}) }),
    onSettled: () =>
      Promise.all(
        [cutsKey, ['cutter'], ['shop'], ['jobs'], ...changes].map((queryKey) => client.invalidateQueries({ queryKey })),
      ),
  });
  return { how, inCutter, active, progress, elsewhere: isHere ? null : busy, undecided, done, act };
}
