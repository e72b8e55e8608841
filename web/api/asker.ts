import { useQuery } from '@tanstack/react-query';
import { ask } from './client.js';

/** The name of the let-in device that this page is shown on; null on the bench computer itself, and while it is not known. */
export function useDeviceName(): string | null {
  return (
    useQuery({ queryKey: ['asker'], queryFn: () => ask<{ device: string | null }>('/api/asker'), staleTime: Infinity })
      .data?.device ?? null
  );
}
