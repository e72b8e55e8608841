import type { QueryClient } from '@tanstack/react-query';
import { jobHasChanged } from '../job/use-job.js';
import type { StoredShop } from '../plan/use-shop.js';

/** As the server tells it; "missed" when it cannot say what was changed while the line was broken. */
type Told =
  | { readonly of: 'shop'; readonly revision: number }
  | { readonly of: 'batches' }
  | { readonly of: 'job'; readonly jobId: string; readonly revision: number }
  | { readonly of: 'missed' };

const NAME = 'lantern.changes';

/**
 * Follows what is changed elsewhere, in another tab or on another device. One tab listens to the server and tells the others, since a browser
 * opens only a few lines to one server; when it is closed, another one takes over.
 */
export function followChanges(client: QueryClient): void {
  const others = new BroadcastChannel(NAME);
  const hear = (told: Told) => void take(client, told);
  others.onmessage = (event: MessageEvent<Told>) => hear(event.data);
  // Over plain HTTP, as on a phone at the bench, a browser has no locks: then every tab listens for itself.
  const alone = (listen: () => Promise<never>) => (navigator.locks ? navigator.locks.request(NAME, listen) : listen());
  void alone(() => {
    const events = new EventSource('/api/changes');
    const tell = (told: Told) => {
      others.postMessage(told);
      hear(told);
    };
    events.addEventListener('change', (event) => tell(JSON.parse((event as MessageEvent<string>).data) as Told));
    events.addEventListener('missed', () => tell({ of: 'missed' }));
    // For as long as this page lives.
    return new Promise<never>(() => {});
  });
}

async function take(client: QueryClient, told: Told): Promise<void> {
  if (told.of === 'shop') {
    void client.invalidateQueries({ queryKey: ['batch-plan'] });
    if ((client.getQueryData<StoredShop>(['shop'])?.revision ?? 0) < told.revision)
      await client.invalidateQueries({ queryKey: ['shop'] });
  } else if (told.of === 'job') {
    for (const queryKey of [['jobs'], ['batch-plan'], ['waiting', told.jobId]])
      void client.invalidateQueries({ queryKey });
    await jobHasChanged(client, told.jobId, told.revision);
  } else if (told.of === 'batches') {
    for (const queryKey of [['batches'], ['batch-plan']]) await client.invalidateQueries({ queryKey });
  } else {
    for (const queryKey of [['shop'], ['jobs'], ['job'], ['batches'], ['batch-plan'], ['waiting']])
      await client.invalidateQueries({ queryKey });
  }
}
