import { ENDED, type Run, type RunProgress } from '../../../core/stations/cut/index.js';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';

/** A run as it goes, told by the server; null while nothing is told. Once it has ended, the sheets of `cutsKey` are asked for anew. The browser itself reconnects when the line breaks. */
export function useRunProgress(cutsKey: readonly string[], run: Run | null): RunProgress | null {
  const client = useQueryClient();
  const [progress, setProgress] = useState<RunProgress | null>(null);
  const id = run?.id;
  const follow = run !== null && !ENDED.includes(run.state) && run.state !== 'interrupted';
  useEffect(() => {
    setProgress(null);
    if (!id || !follow) return undefined;
    const events = new EventSource(`/api/runs/${id}/events`);
    events.addEventListener('progress', (event) =>
      setProgress(JSON.parse((event as MessageEvent<string>).data) as RunProgress),
    );
    events.addEventListener('ended', () => {
      events.close();
      void client.invalidateQueries({ queryKey: cutsKey.slice() });
    });
    return () => events.close();
    // The key is compared by what it says.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [client, cutsKey.join(' '), id, follow]);
  return progress;
}
