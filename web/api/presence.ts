import { useSyncExternalStore } from 'react';

/** How often an absent server is looked for. */
const LOOK_MS = 2000;

let awaySince: Date | null = null;
let looking: ReturnType<typeof setInterval> | null = null;
const listeners = new Set<() => void>();

function set(since: Date | null): void {
  if ((since === null) === (awaySince === null)) return;
  awaySince = since;
  if (since && !looking) looking = setInterval(() => void fetch('/api/health').then(heard, () => {}), LOOK_MS);
  if (!since && looking) {
    clearInterval(looking);
    looking = null;
  }
  for (const listener of listeners) listener();
}

/** The server answered. */
export function heard(): void {
  set(null);
}

/** It did not; it is looked for until it does. */
export function unheard(): void {
  set(new Date());
}

/** Calls back whenever the server goes away or comes back; gives a function that ends that. */
export function onPresence(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function isServerAway(): boolean {
  return awaySince !== null;
}

/** Since when the server has not answered; null while it does. */
export function useServerAway(): Date | null {
  return useSyncExternalStore(onPresence, () => awaySince);
}
