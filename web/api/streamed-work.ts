/** How far work on the server is. */
export interface Told {
  /** 0 to 1. */
  readonly done: number;
  /** What is worked on instead, while it waits for its turn. */
  readonly waitsFor: readonly string[];
}

export const AT_FIRST: Told = { done: 0, waitsFor: [] };

interface Streamed {
  /** The name of the event that brings what came of it. */
  readonly event: string;
  readonly signal: AbortSignal;
  readonly tell: (how: (before: Told) => Told) => void;
  /** What is said when the server goes away. */
  readonly away: string;
}

/** What an event brings. */
export function readEvent<T>(event: Event): T {
  return JSON.parse((event as MessageEvent<string>).data) as T;
}

/** Asks for work that tells how far it is, or what it waits for, and gives what came of it. Aborted, it is given up on the server, too. @throws Error with what the server said */
export function streamedWork<T>(path: string, { event, signal, tell, away }: Streamed): Promise<T> {
  return new Promise((resolve, reject) => {
    const events = new EventSource(path);
    const end = (act: () => void) => {
      events.close();
      act();
    };
    signal.addEventListener('abort', () => end(() => reject(signal.reason as Error)));
    events.addEventListener('progress', (said) => {
      const { done } = readEvent<{ done: number }>(said);
      tell(() => ({ done, waitsFor: [] }));
    });
    events.addEventListener('waits', (said) => {
      const { waitsFor } = readEvent<{ waitsFor: readonly string[] }>(said);
      tell(({ done }) => ({ done, waitsFor }));
    });
    events.addEventListener(event, (said) => end(() => resolve(readEvent<T>(said))));
    events.addEventListener('failed', (said) => end(() => reject(new Error(readEvent<{ title: string }>(said).title))));
    // A line that breaks is not mended by itself: the browser would ask for all of it again and again.
    events.onerror = () => end(() => reject(new Error(away)));
  });
}
