import type { PlanState } from '../plan/use-plan.js';

/** Why there is no newer plan, what that means for the job, and what to do. */
export function sayFailure(failure: NonNullable<PlanState['failure']>): string {
  switch (failure.why) {
    case 'not-started':
      return 'The part of this page that makes the plan could not be started. Your job is safe. Load the page again; if that does not help, start Wry Lantern again.';
    case 'died':
      return 'The plan broke off unexpectedly, twice. Your job is safe, and the last picture stays. Take the last change back, or try again.';
    case 'too-long':
      return 'The plan took longer than a minute and was stopped. What you decided is kept, and the last picture stays. Make the artwork simpler, or try again.';
    case 'stopped':
      return 'It was stopped, and the last picture stays. What you decided is kept.';
    case 'refused':
      return `The plan could not be made: ${failure.message} What you decided is kept; change it or go back a step.`;
  }
}
