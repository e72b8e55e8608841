import { useSyncExternalStore } from 'react';
import { width } from '../tokens.js';

const PHONE = `(max-width: ${width.phone})`;

/** Whether the window is as narrow as a phone's. */
export function useIsPhone(): boolean {
  return useSyncExternalStore(
    (listener) => {
      const media = window.matchMedia(PHONE);
      media.addEventListener('change', listener);
      return () => media.removeEventListener('change', listener);
    },
    () => window.matchMedia(PHONE).matches,
  );
}
