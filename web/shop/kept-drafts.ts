import type { ShopKind } from '../../core/shop/index.js';

/* What was typed into a record and not saved is kept while this tab lives: also through another page, and a reload. */

export interface KeptDraft {
  readonly texts: Readonly<Record<string, string>>;
  /** What stood in the fields before. */
  readonly base: Readonly<Record<string, string>>;
  /** The revision of the shop that it was begun from. */
  readonly revision: number;
}

const key = (kind: ShopKind, id: string) => `lantern.draft.${kind}.${id}`;

export function keptDraft(kind: ShopKind, id: string): KeptDraft | null {
  try {
    return JSON.parse(sessionStorage.getItem(key(kind, id)) ?? 'null') as KeptDraft | null;
  } catch {
    return null;
  }
}

export function keepDraft(kind: ShopKind, id: string, draft: KeptDraft | null): void {
  try {
    if (draft) sessionStorage.setItem(key(kind, id), JSON.stringify(draft));
    else sessionStorage.removeItem(key(kind, id));
  } catch {
    // A browser that keeps nothing still has the form on the page.
  }
}
