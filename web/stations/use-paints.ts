import { useEffect, useState } from 'react';
import { useJobContext } from '../job/job-context.js';
import type { PaintView } from '../plan/plan-view.js';
import { planWorker } from '../plan/use-plan.js';

/** Asked of the worker anew whenever it has made another plan; what is asked is named by the key. */
export function useAsked<T>(ask: () => Promise<T>, nothing: T, key: string): T {
  const { plan } = useJobContext();
  const [answer, setAnswer] = useState(nothing);
  useEffect(() => {
    let current = true;
    void ask().then((value) => current && setAnswer(() => value));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [plan, key]);
  return answer;
}

const NO_PAINTS: readonly PaintView[] = [];

/** The design's painted areas, bottom first, before or after they are put right. Nothing while they are not wanted. */
export function usePaints(when: 'before' | 'after' | null): readonly PaintView[] {
  return useAsked<readonly PaintView[]>(() => (when ? planWorker().paints(when) : Promise.resolve(NO_PAINTS)), NO_PAINTS, String(when));
}
