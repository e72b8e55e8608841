import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { PieceCard, ShopKind, ShopRecords, StockAct } from '../../core/shop/index.js';
import { ask } from '../api/client.js';
import { newId } from '../api/new-id.js';

/** A record to be written whole. */
export type RecordWrite = { readonly [K in ShopKind]: { readonly kind: K; readonly value: ShopRecords[K] } }[ShopKind];

export interface ShopWrites {
  /** Writes records as one step; `revision` is that which was looked at when they began to be changed. @throws ApiProblem */
  readonly save: (changes: readonly RecordWrite[], revision: number) => Promise<void>;
  readonly undo: (revision: number) => Promise<void>;
  readonly redo: (revision: number) => Promise<void>;
  /** A new piece; gives the number to write on an offcut. */
  readonly receive: (
    piece: Omit<PieceCard, 'number'>,
    line: {
      readonly amount: number;
      readonly why: 'received' | 'returned';
      readonly note: string;
      readonly sheetId: string | null;
    },
    revision: number,
  ) => Promise<number | null>;
  readonly book: (
    pieceId: string,
    line: { readonly act: StockAct; readonly figure: number | null; readonly note: string },
    revision: number,
  ) => Promise<void>;
  /** What is left of a sheet goes back to the rack, and what is not named is thrown away. */
  readonly putBack: (
    sheetId: string,
    back: readonly {
      readonly leftover: number;
      readonly widthMm: number;
      readonly lengthMm: number;
      readonly place: string;
    }[],
    revision: number,
  ) => Promise<void>;
  readonly takeBack: (lineId: number, revision: number) => Promise<void>;
}

/** Writes of the shop. Each has a name of its own, so that one whose answer is lost can be sent again and is not done twice. */
export function useShopWrites(): ShopWrites {
  const client = useQueryClient();
  return useMemo(() => {
    const send = async <T>(path: string, json: object): Promise<T> => {
      const edit = newId();
      const post = () => ask<T>(path, { method: 'POST', json: { ...json, edit } });
      try {
        return await post();
      } finally {
        // Also when it was refused: what it was made from is another by now.
        await Promise.all([['shop'], ['stock-lines']].map((queryKey) => client.invalidateQueries({ queryKey })));
      }
    };
    return {
      save: (changes, revision) => send('/api/shop/changes', { changes, revision }),
      undo: (revision) => send('/api/shop/undo', { revision }),
      redo: (revision) => send('/api/shop/redo', { revision }),
      receive: async (piece, line, revision) =>
        (await send<{ number: number | null }>('/api/shop/pieces', { piece, ...line, revision })).number,
      book: (pieceId, line, revision) => send(`/api/shop/pieces/${pieceId}/lines`, { ...line, revision }),
      putBack: (sheetId, back, revision) => send(`/api/sheets/${sheetId}/leftovers`, { back, revision }),
      takeBack: (lineId, revision) => send(`/api/shop/lines/${lineId}/take-back`, { revision }),
    };
  }, [client]);
}
