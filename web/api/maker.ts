import { useSyncExternalStore } from 'react';

/* Who is at work on this device: chosen once, kept in this browser, told to the server with every request. */

const KEY = 'lantern.maker';
const listeners = new Set<() => void>();

export function makerAtWork(): string | null {
  // A test has no browser around it.
  return globalThis.localStorage?.getItem(KEY) ?? null;
}

export function setMakerAtWork(id: string | null): void {
  if (id === null) localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, id);
  for (const listener of listeners) listener();
}

/** The id of the maker who is at work here; null when nobody said. */
export function useMakerAtWork(): string | null {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, makerAtWork);
}
