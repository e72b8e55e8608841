import type { TraceStep } from '../engines/artwork/index.js';

/** What is being done that takes its time. */
export type StageStep = TraceStep | 'weeding';

/** Where a stage may pause, and whom it tells how far along it is. Nothing of what it makes depends on them. */
export interface StageHooks {
  /** Told what is being done and how far along that is, 0 to 1. */
  readonly onStep?: (step: StageStep, done: number) => void;
  /** Awaited between steps; throwing from it cancels. */
  readonly breathe?: () => Promise<void>;
}

/**
 * One step of a plan. `read` picks from what there is all that `run` may look at, as plain data; `run` is given that and nothing else, so
 * what a stage makes can be kept under what it read. What earlier stages made is handed on whole, never in part or copied: it stands for
 * itself in the key.
 */
export interface Stage<Context, Read, Out> {
  /** Stages of one name share their place in the cache. */
  readonly name: string;
  readonly read: (context: Context) => Read;
  readonly run: (read: Read, hooks: StageHooks) => Out | Promise<Out>;
}
