import { useEffect, useState } from 'react';
import { useJobContext } from './job-context.js';
import { planner } from '../plan/planner.js';
import type { Answer, PlanWorkerApi } from '../plan/worker-api.js';

/**
 * Asks something of the plan that is shown, and again whenever another one is; `key` names what is asked. The last answer stays until there is a
 * newer one. Nothing is asked while `question` is null.
 */
export function useAsked<T>(
  question: ((api: PlanWorkerApi, plan: number) => Promise<Answer<T>>) | null,
  nothing: T,
  key: string,
  pauseMs = 0,
): T {
  const id = useJobContext().plan?.id;
  const [answer, setAnswer] = useState(nothing);
  useEffect(() => {
    if (!question) setAnswer(() => nothing);
    if (!question || id === undefined) return undefined;
    let current = true;
    const ask = () =>
      planner
        .ask((api) => question(api, id))
        .then(
          (found) => current && found && setAnswer(() => found.value),
          // Why there is no plan is said where plans are asked for.
          () => {},
        );
    const pause = pauseMs > 0 ? setTimeout(() => void ask(), pauseMs) : void ask();
    return () => {
      current = false;
      clearTimeout(pause);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, key]);
  return answer;
}
