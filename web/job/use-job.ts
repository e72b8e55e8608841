import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { patchRecipe, type Job, type Recipe, type RecipePatch } from '../../core/recipe/index.js';
import type { OtherSize } from '../../core/plan/index.js';
import { ApiProblem, ask } from '../api/client.js';
import { keepDrafts } from '../ui/draft.js';
import { EditQueue, type Change, type Refusal, type SavingState } from './edit-queue.js';
import { adoptEdits, keptEdits } from './kept-edits.js';
import { sendEdit, untilBack } from './send-edit.js';
import { newId } from '../api/new-id.js';

/** What a change came to, and another size that the maker may choose for what was put in. */
export interface JobNotice {
  readonly text: string;
  readonly otherSize: OtherSize | null;
}

export interface JobHandle {
  readonly job: Job | null;
  /** What the page shows: the saved recipe with what is not confirmed yet, or the one being tried under a hand. */
  readonly recipe: Recipe | null;
  /** The same without what is being tried. */
  readonly decided: Recipe | null;
  readonly loadError: string | null;
  readonly saving: SavingState;
  /** Changes that were not taken, with the reason. */
  readonly refusal: Refusal | null;
  readonly layOver: () => void;
  readonly leaveOut: () => void;
  readonly notice: JobNotice | null;
  readonly dismissNotice: () => void;
  /** Saves a change as one step that can be undone. */
  readonly change: (change: Change) => void;
  /** Shows what `owner` tries without saving it; `null` ends that, if nobody else tries something by now (see useTrial). */
  readonly preview: (owner: object, patch: RecipePatch | null) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Gives the job a file: as one more part of the design, or in the place of one. */
  readonly upload: (file: File, replaces?: string) => Promise<Job | null>;
}

/** One queue a job for as long as the page lives: what is on its way goes on when another job is looked at. */
const queues = new Map<string, EditQueue>();

function queueOf(jobId: string): EditQueue {
  let queue = queues.get(jobId);
  if (!queue) {
    queue = new EditQueue({
      send: (edit, job) => sendEdit(jobId, edit, job),
      keep: keptEdits(jobId),
      untilBack,
      newId: () => newId(),
    });
    queues.set(jobId, queue);
    adoptEdits(jobId, queue);
  }
  return queue;
}

/** Asks for a job again when what the page holds of it is older than `revision`; what is on its way is waited for, since its answer may be newer. */
export async function jobHasChanged(client: QueryClient, jobId: string, revision: number): Promise<void> {
  const queue = queues.get(jobId);
  await queue?.settled();
  const known = queue?.state.job?.revision ?? client.getQueryData<Job>(['job', jobId])?.revision;
  if (known !== undefined && known < revision) await client.invalidateQueries({ queryKey: ['job', jobId] });
}

/** A job being worked on: edits show at once and are sent one after the other. They are kept by the browser until the server has them. */
export function useJob(id: string): JobHandle {
  const client = useQueryClient();
  const queue = queueOf(id);
  const query = useQuery({ queryKey: ['job', id], queryFn: () => ask<Job>(`/api/jobs/${id}`) });
  const state = useSyncExternalStore(
    useCallback((listener: () => void) => queue.listen(listener), [queue]),
    () => queue.state,
  );
  const [trial, setTrial] = useState<{ readonly owner: object; readonly patch: RecipePatch } | null>(null);
  const [notice, setNotice] = useState<JobNotice | null>(null);
  useEffect(() => {
    if (query.data) queue.told(query.data);
  }, [queue, query.data]);
  const preview = useCallback(
    (owner: object, patch: RecipePatch | null) =>
      setTrial((before) => (patch ? { owner, patch } : before?.owner === owner ? null : before)),
    [],
  );
  const { recipe } = state;
  const shown = useMemo(() => (trial && recipe ? patchRecipe(recipe, trial.patch) : recipe), [trial, recipe]);
  const forgetList = () => void client.invalidateQueries({ queryKey: ['jobs'], refetchType: 'none' });
  const step = (way: 'undo' | 'redo') => {
    // What is being typed was done before this: it is what is taken back.
    keepDrafts();
    queue[way]();
    forgetList();
  };
  return {
    job: state.job,
    recipe: shown,
    decided: recipe,
    loadError: query.error && !state.job ? query.error.message : null,
    saving: state.saving,
    refusal: state.refusal,
    layOver: () => queue.layOver(),
    leaveOut: () => queue.leaveOut(),
    notice,
    dismissNotice: () => setNotice(null),
    change: (change) => {
      queue.change(change);
      forgetList();
    },
    preview,
    undo: () => step('undo'),
    redo: () => step('redo'),
    upload: async (file, replaces) => {
      // A file is made part of what is saved; it is too large to be kept by the browser.
      await queue.settled();
      const revision = queue.state.job?.revision ?? 0;
      const query = new URLSearchParams({
        fileName: file.name.slice(0, 200),
        revision: String(revision),
        edit: newId(),
        ...(replaces === undefined ? {} : { replaces }),
      });
      try {
        const { notes, otherSize, ...job } = await ask<
          Job & { readonly notes: readonly string[]; readonly otherSize: OtherSize | null }
        >(`/api/jobs/${id}/artwork?${query}`, { method: 'POST', bytes: file });
        queue.told(job);
        client.setQueryData(['job', id], job);
        forgetList();
        setNotice(notes.length > 0 ? { text: notes.join(' '), otherSize } : null);
        return job;
      } catch (error) {
        setNotice({ text: error instanceof ApiProblem ? error.message : 'That did not work.', otherSize: null });
        await client.invalidateQueries({ queryKey: ['job', id] });
        return null;
      }
    },
  };
}
