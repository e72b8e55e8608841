import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import { type Job, patchRecipe, type Recipe, type RecipePatch } from '../../core/job/index.js';
import { ApiProblem, ask } from '../api/client.js';

export interface JobHandle {
  readonly job: Job | null;
  /** What the page shows: the saved recipe, or the one being tried under a hand. */
  readonly recipe: Recipe | null;
  readonly loadError: string | null;
  readonly notice: string | null;
  readonly dismissNotice: () => void;
  /** Saves a change as one step that can be undone. */
  readonly change: (patch: RecipePatch) => void;
  /** Shows a change without saving it, while a hand is moving something; `null` gives it up. */
  readonly preview: (patch: RecipePatch | null) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Gives the job a file: as one more part of the design, or in the place of one. */
  readonly upload: (file: File, replaces?: string) => Promise<Job | null>;
}

/** A job being worked on: changes show at once, are saved one after the other, and a refusal puts the saved state back with a word about it. */
export function useJob(id: string): JobHandle {
  const client = useQueryClient();
  const key = ['job', id];
  const query = useQuery({ queryKey: key, queryFn: () => ask<Job>(`/api/jobs/${id}`) });
  const [unsaved, setUnsaved] = useState<Recipe | null>(null);
  const [tried, setTried] = useState<RecipePatch | null>(null);
  const [notice, setNotice] = useState<string | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const job = query.data ?? null;

  const settle = useCallback(
    (request: () => Promise<Job>) => {
      const step = queue.current.then(async () => {
        try {
          client.setQueryData(key, await request());
          setNotice(null);
        } catch (error) {
          setNotice(error instanceof ApiProblem ? error.message : 'That did not work.');
          await client.invalidateQueries({ queryKey: key });
        }
      });
      queue.current = step.then(() => {
        if (queue.current === last) setUnsaved(null);
      });
      const last = queue.current;
      void client.invalidateQueries({ queryKey: ['jobs'], refetchType: 'none' });
      return step;
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [client, id],
  );

  const saved = () => client.getQueryData<Job>(key)!;
  return {
    job,
    recipe: (tried && (unsaved ?? job?.recipe) ? patchRecipe((unsaved ?? job?.recipe)!, tried) : (unsaved ?? job?.recipe)) ?? null,
    loadError: query.error ? query.error.message : null,
    notice,
    dismissNotice: () => setNotice(null),
    change: (patch) => {
      setTried(null);
      setUnsaved((before) => patchRecipe(before ?? saved().recipe, patch));
      void settle(() => ask<Job>(`/api/jobs/${id}/recipe`, { method: 'PUT', json: { recipe: patchRecipe(saved().recipe, patch), revision: saved().revision } }));
    },
    preview: setTried,
    undo: () => void settle(() => ask<Job>(`/api/jobs/${id}/undo`, { method: 'POST' })),
    redo: () => void settle(() => ask<Job>(`/api/jobs/${id}/redo`, { method: 'POST' })),
    upload: async (file, replaces) => {
      const query = new URLSearchParams({ fileName: file.name.slice(0, 200), ...(replaces === undefined ? {} : { replaces }) });
      let given: (Job & { notes: readonly string[] }) | null = null;
      await settle(async () => {
        given = await ask<Job & { notes: readonly string[] }>(`/api/jobs/${id}/artwork?${query}`, { method: 'POST', bytes: file });
        const { notes: _, ...job } = given;
        return job;
      });
      const done = given as (Job & { notes: readonly string[] }) | null;
      if (done && done.notes.length > 0) setNotice(done.notes.join(' '));
      return done;
    },
  };
}
