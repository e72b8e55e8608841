import { createContext, useContext, useEffect } from 'react';

/** Something a maker can have done by name or by key. */
export interface Command {
  readonly name: string;
  /** "Ctrl+Z", "Alt+1". */
  readonly keys?: string;
  readonly run: () => void;
}

export const OfferedContext = createContext<readonly Command[]>([]);
export const OfferContext = createContext<(commands: readonly Command[]) => void>(() => {});

/** What the screen in view has offered. */
export function useCommands(): readonly Command[] {
  return useContext(OfferedContext);
}

/** What the screen in view can do, for the command search and the keys; give a list that is memoised. */
export function useOffer(commands: readonly Command[]): void {
  const offer = useContext(OfferContext);
  useEffect(() => {
    offer(commands);
    return () => offer([]);
  }, [offer, commands]);
}
