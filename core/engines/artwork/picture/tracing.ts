/** How a picture becomes outlines. */
export interface Tracing {
  /** Colours besides the background; null lets the app rule. */
  readonly colours: number | null;
  /** What is taken for bare surface: the colour at the picture's edge wherever it is, only where it reaches the edge, or nothing. */
  readonly background: 'everywhere' | 'around' | 'keep';
  /** Specks and pinholes less than this across are left out, mm at the size of the job. */
  readonly speckMm: number;
}

/** What is being done while a picture is read. */
export type TraceStep = 'unpacking' | 'laying-out' | 'colours' | 'pixels' | 'patches' | 'specks' | 'edges' | 'outlines';

export interface TraceHooks {
  /** Told what is being done and how far along the whole is, 0 to 1. */
  readonly onStep?: (step: TraceStep, done: number) => void;
  /** Awaited between steps; throwing from it cancels. */
  readonly breathe?: () => Promise<void>;
}
