import { createContext, useCallback, useContext, useEffect, useRef } from 'react';
import { ApiProblem } from '../api/client.js';
import { useShopWrites, type RecordWrite, type ShopWrites } from '../plan/shop-writes.js';
import type { KnownShop } from '../plan/use-shop.js';
import { useNotify } from '../ui/notices.js';

export const ShopContext = createContext<KnownShop | null>(null);

/** The shop, on its own screens. */
export function useKnownShop(): KnownShop {
  return useContext(ShopContext)!;
}

export interface ShopActs {
  readonly writes: ShopWrites;
  /** Writes records, says so, and offers the way back. @throws ApiProblem */
  readonly save: (changes: readonly RecordWrite[], revision: number, said: string) => Promise<void>;
  /** Does something, and says what went wrong. True when it was done. */
  readonly attempt: (act: () => Promise<unknown>, said?: string) => Promise<boolean>;
  readonly undo: () => void;
  readonly redo: () => void;
}

/** What can be done with the shop's records. */
export function useShopActs(): ShopActs {
  const shop = useKnownShop();
  const writes = useShopWrites();
  const notify = useNotify();
  const revision = useRef(shop.revision);
  useEffect(() => {
    revision.current = shop.revision;
  }, [shop.revision]);
  const attempt = useCallback(
    async (act: () => Promise<unknown>, said?: string) => {
      try {
        await act();
        if (said) notify(said);
        return true;
      } catch (error) {
        notify(error instanceof ApiProblem ? error.message : 'That was not done.');
        return false;
      }
    },
    [notify],
  );
  const undo = useCallback(
    () => void attempt(() => writes.undo(revision.current), 'The last change was undone.'),
    [attempt, writes],
  );
  const redo = useCallback(
    () => void attempt(() => writes.redo(revision.current), 'It was made again.'),
    [attempt, writes],
  );
  const save = useCallback(
    async (changes: readonly RecordWrite[], from: number, said: string) => {
      await writes.save(changes, from);
      notify(said, { label: 'Undo', run: undo });
    },
    [writes, notify, undo],
  );
  return { writes, save, attempt, undo, redo };
}
