/** A cut through the waste only: x, y, x, y, … mm. It begins on the border, and ends on it or just before an outline. */
export type ReliefLine = readonly number[];

/** How relief lines are wanted. */
export interface ReliefWish {
  /** A strip is comfortable while no wider circle fits into it, mm. */
  readonly bulkMm: number;
  /** Lines keep so clear of what stays, mm. */
  readonly clearMm: number;
}

/** Source: trade practice. A neck of 0.25 mm counts as cut, so a line that ends this far before an outline parts the film. */
export const RELIEF: ReliefWish = { bulkMm: 80, clearMm: 0.2 };
