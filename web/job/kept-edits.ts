import { NOTHING_KEPT, type EditPorts, type EditQueue, type Kept } from './edit-queue.js';
import { newId } from '../api/new-id.js';

/*
 * Where unconfirmed edits outlive the page: the browser's own storage, by job and by tab, so that two tabs do not send each other's. What a tab
 * left behind when it was closed is taken over by the next one that opens the job; a tab that is open holds a lock of its name.
 */

const PREFIX = 'lantern.edits.';

const tab = newId();
const lockOf = (owner: string) => `lantern.tab.${owner}`;
void navigator.locks?.request(lockOf(tab), () => new Promise<never>(() => {}));

const nameOf = (jobId: string, owner: string) => `${PREFIX}${jobId}.${owner}`;

/** The place for a job's edits of this tab. */
export function keptEdits(jobId: string): EditPorts['keep'] {
  const name = nameOf(jobId, tab);
  return {
    load: () => read(name) ?? NOTHING_KEPT,
    store: (kept) => {
      if (kept.pending.length === 0 && kept.refusal === null) localStorage.removeItem(name);
      else localStorage.setItem(name, JSON.stringify(kept));
    },
  };
}

/** Gives the queue the edits that closed tabs left of its job, now or when such a tab is closed; one tab's after the other, when it has nothing of its own under way. */
export function adoptEdits(jobId: string, queue: EditQueue): void {
  for (const name of Object.keys(localStorage)) {
    const owner = name.startsWith(nameOf(jobId, '')) ? name.slice(nameOf(jobId, '').length) : null;
    if (owner === null || owner === tab) continue;
    // Granted once the tab that holds it is gone.
    void navigator.locks?.request(lockOf(owner), async () => {
      await queue.idle();
      const left = read(name);
      if (left) queue.adopt(left);
      localStorage.removeItem(name);
    });
  }
}

function read(name: string): Kept | null {
  try {
    const stored = JSON.parse(localStorage.getItem(name) ?? 'null') as Kept | null;
    return stored && Array.isArray(stored.pending) ? stored : null;
  } catch {
    return null;
  }
}
