import type { LayWish } from '../laying/index.js';

/** Jobs that are cut together, and what is decided of that. */
export interface Batch {
  readonly id: string;
  /** What it is called; null for a job that is cut alone, whose batch has the job’s own id. */
  readonly number: number | null;
  readonly revision: number;
  readonly createdAt: string;
  readonly wish: LayWish;
  /** In the order in which they were put together. */
  readonly jobs: readonly {
    readonly id: string;
    readonly title: string;
    readonly customer: string;
    readonly due: string | null;
  }[];
}
