import { useQuery } from '@tanstack/react-query';
import { wholeShop, type ShopFile, type WholeShop } from '../../core/shop/index.js';
import { ask } from '../api/client.js';

/** The shop as the server keeps it, with the revision that a write of it must name. */
export type StoredShop = ShopFile & { readonly revision: number; readonly canUndo: boolean; readonly canRedo: boolean };

/** The same, with what a plan needs of it. */
export type KnownShop = StoredShop & WholeShop;

const whole = (stored: StoredShop): KnownShop => ({ ...stored, ...wholeShop(stored) });

/** The shop; fetched anew when the server tells that it has changed. */
export function useShop(): KnownShop | undefined {
  return useQuery({
    queryKey: ['shop'],
    queryFn: () => ask<StoredShop>('/api/shop'),
    staleTime: Infinity,
    select: whole,
  }).data;
}
