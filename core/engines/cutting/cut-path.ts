/** A run of the knife in mm on the sheet, x right, y up. Closed contours end on the point they began with. */
export interface CutPath {
  readonly points: Float64Array;
  readonly closed: boolean;
  /** Which of the contours it was given this belongs to; absent for what belongs to none. */
  readonly contour?: number;
}

/** Settings of one sheet's cut. */
export interface CutSettings {
  readonly forceG: number;
  readonly speedMmS: number;
  readonly bladeOffsetMm: number;
  readonly overcutMm: number;
}

/** How a cutter moves: what its time depends on. */
export interface Motion {
  readonly accelerationMmS2: number;
  readonly travelSpeedMmS: number;
  readonly liftSeconds: number;
}

/** Length along a path in mm. */
export function pathLength(points: Float64Array): number {
  let sum = 0;
  for (let i = 2; i < points.length; i += 2)
    sum += Math.hypot(points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!);
  return sum;
}
