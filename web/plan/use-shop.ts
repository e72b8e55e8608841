import { useQuery } from '@tanstack/react-query';
import type { Shop } from '../../core/shop/index.js';
import { ask } from '../api/client.js';

/** The shop as the server keeps it, with the revision that a write of it must name. */
export type StoredShop = Shop & { readonly revision: number };

/** The shop; fetched anew when the server tells that it has changed. */
export function useShop(): StoredShop | undefined {
  return useQuery({ queryKey: ['shop'], queryFn: () => ask<StoredShop>('/api/shop'), staleTime: Infinity }).data;
}
