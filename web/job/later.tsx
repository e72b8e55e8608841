import { useDeferredValue, type ReactNode } from 'react';
import { JobContext, useJobContext } from './job-context.js';

/**
 * What stands beside a picture that a hand is moving: it follows as soon as there is time, in pieces that can be broken off, so that it
 * never holds the picture up. Its children must keep their identity from one drawing to the next, or they are drawn at once all the same.
 */
export function Later({ children }: { readonly children: ReactNode }) {
  const later = useDeferredValue(useJobContext());
  return <JobContext value={later}>{children}</JobContext>;
}
