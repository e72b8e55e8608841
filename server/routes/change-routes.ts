import { lastEventOf, openEventStream } from '../event-stream.js';
import type { NumberedChange } from '../changes.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';

/** What open pages are told without asking. */
export function changeRoutes({ changes }: Services): Route[] {
  return [
    {
      method: 'get',
      path: '/api/changes',
      summary:
        'Changes as they are made: “change” events that name the shop or a job and its new revision. A page that comes back with Last-Event-ID is told what it missed, or “missed” when that is not known any more',
      answers: 'Server-sent events',
      handle: ({ ctx }) => {
        const last = lastEventOf(ctx);
        const missed = last === null ? [] : changes.since(last);
        const tell = ({ id, change }: NumberedChange) => stream.send('change', change, { id });
        const stop = changes.listen(tell);
        const stream = openEventStream(ctx, stop);
        if (missed === null) stream.send('missed', {}, { id: changes.newest });
        else if (last === null) stream.send('from', {}, { id: changes.newest });
        else for (const change of missed) tell(change);
        return Promise.resolve(undefined);
      },
    },
  ];
}
