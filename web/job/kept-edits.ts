import { NOTHING_KEPT, type EditPorts, type Kept } from './edit-queue.js';

/*
 * Where unconfirmed edits outlive the page: the browser's own storage, by job and by tab, so that two tabs do not send each other's. What a tab
 * left behind when it was closed is taken over by the next one that opens the job; a tab that is open holds a lock of its name.
 */

const PREFIX = 'lantern.edits.';

const tab = crypto.randomUUID();
void navigator.locks?.request(`lantern.tab.${tab}`, () => new Promise<never>(() => {}));

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

/** Makes the edits that closed tabs left of a job this tab's own. Call before the job's queue is made. */
export async function adoptEdits(jobId: string): Promise<void> {
  const open = new Set((await navigator.locks?.query())?.held?.map((lock) => lock.name));
  for (const name of Object.keys(localStorage)) {
    const owner = name.startsWith(`${PREFIX}${jobId}.`) ? name.slice(nameOf(jobId, '').length) : null;
    if (owner === null || owner === tab || open.has(`lantern.tab.${owner}`)) continue;
    const [left, mine] = [read(name), read(nameOf(jobId, tab)) ?? NOTHING_KEPT];
    // One closed tab's at a time: what each made stands on a revision of its own.
    if (!left || mine.pending.length > 0 || mine.refusal) continue;
    localStorage.setItem(nameOf(jobId, tab), JSON.stringify(left));
    localStorage.removeItem(name);
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
