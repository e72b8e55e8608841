import { patchRecipe, type Job } from '../../core/recipe/index.js';
import { ApiProblem, ask } from '../api/client.js';
import { isServerAway, onPresence } from '../api/presence.js';
import type { Edit, SendOutcome } from './edit-queue.js';

/** A server that answered, but not to this, is asked again after so long. */
const AGAIN_MS = 1000;

/** Sends an edit made from `job`. Never throws: what is not understood is refused, and waits for the maker’s word. */
export async function sendEdit(jobId: string, edit: Edit, job: Job): Promise<SendOutcome> {
  const json = { revision: job.revision, edit: edit.id };
  try {
    const taken =
      edit.kind === 'change'
        ? await ask<Job>(`/api/jobs/${jobId}/recipe`, {
            method: 'PUT',
            json: { ...json, recipe: patchRecipe(job.recipe, edit.patch) },
          })
        : await ask<Job>(`/api/jobs/${jobId}/${edit.kind}`, { method: 'POST', json });
    return { outcome: 'taken', job: taken };
  } catch (error) {
    if (!(error instanceof ApiProblem)) return { outcome: 'refused', reason: 'This change could not be sent.' };
    if (error.isAway) return { outcome: 'away' };
    if (error.code !== 'job-changed') return { outcome: 'refused', reason: error.message };
    const reason = error.message;
    return ask<Job>(`/api/jobs/${jobId}`).then(
      (now): SendOutcome => ({ outcome: 'changed', job: now, reason }),
      (): SendOutcome => ({ outcome: 'away' }),
    );
  }
}

/** Resolves when the server has been heard again. */
export function untilBack(): Promise<void> {
  if (!isServerAway()) return new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
  return new Promise((resolve) => {
    const stop = onPresence(() => {
      if (isServerAway()) return;
      stop();
      resolve();
    });
  });
}
