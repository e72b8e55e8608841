import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { CopyVerdict, FrozenSheet } from '../../core/stations/cut/index.js';
import { ask } from '../api/client.js';
import { useNotify } from '../ui/notices.js';

/** What is said of copies of a sheet, by their positions. */
export interface Judgement {
  readonly sheetId: string;
  readonly positions: readonly number[];
  readonly verdict: CopyVerdict | null;
}

/** All that a verdict changes: what is cut, what is left to cut, and how far jobs are. */
const CHANGES = ['cuts', 'batch-cuts', 'batch-plan', 'batches', 'waiting', 'job', 'jobs'];

/** Says of copies how they turned out. `then` is called once it is kept. */
export function useJudging(): {
  readonly judge: (of: Judgement, then?: () => void) => void;
  readonly isBusy: boolean;
} {
  const client = useQueryClient();
  const notify = useNotify();
  const { mutate, isPending } = useMutation({
    mutationFn: ({ sheetId, ...json }: Judgement) =>
      ask<FrozenSheet>(`/api/sheets/${sheetId}/verdicts`, { method: 'PUT', json }),
    onError: (error) => notify(error.message),
    onSettled: () => Promise.all(CHANGES.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
  return { judge: (of, then) => mutate(of, then ? { onSuccess: then } : {}), isBusy: isPending };
}
