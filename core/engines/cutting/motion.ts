/** How far a path may be rounded off at a joint without slowing to a stop: sets the speed through corners. */
const JOINT_DEVIATION_MM = 0.05;

/** One straight move with its speeds: it speeds up from `entry`, cruises at `peak` and slows to `exit`, all mm/s. */
export interface PlannedMove {
  readonly lengthMm: number;
  readonly entry: number;
  readonly peak: number;
  readonly exit: number;
  readonly seconds: number;
}

/**
 * Speeds along a polyline that starts at `entrySpeedMmS` and ends at rest, with a limited speed and acceleration. The speed through a joint is the one
 * at which a circle of the allowed deviation can be driven with that acceleration: v² = a·δ·k/(1 − k), k = sin(half the inner angle).
 * A backward and a forward pass make every move reachable from its neighbours. Moves without length are left out.
 */
export function planMoves(
  points: ArrayLike<number>,
  speedMmS: number,
  accelerationMmS2: number,
  entrySpeedMmS = 0,
): PlannedMove[] {
  const moves: { length: number; dx: number; dy: number }[] = [];
  for (let i = 2; i < points.length; i += 2) {
    const [dx, dy] = [points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!];
    const length = Math.hypot(dx, dy);
    if (length > 1e-9) moves.push({ length, dx: dx / length, dy: dy / length });
  }
  const n = moves.length;
  // joint[i] is the speed between move i - 1 and move i; the last is at rest.
  const joint = new Float64Array(n + 1);
  joint[0] = Math.min(entrySpeedMmS, speedMmS);
  for (let i = 1; i < n; i += 1) {
    const [p, q] = [moves[i - 1]!, moves[i]!];
    const cosTurn = Math.min(1, Math.max(-1, p.dx * q.dx + p.dy * q.dy));
    const k = Math.sqrt((1 + cosTurn) / 2);
    joint[i] =
      k > 0.9999999 ? speedMmS : Math.min(speedMmS, Math.sqrt((accelerationMmS2 * JOINT_DEVIATION_MM * k) / (1 - k)));
  }
  for (let i = n - 1; i > 0; i -= 1)
    joint[i] = Math.min(joint[i]!, reachable(joint[i + 1]!, moves[i]!.length, accelerationMmS2));
  for (let i = 1; i < n; i += 1)
    joint[i] = Math.min(joint[i]!, reachable(joint[i - 1]!, moves[i - 1]!.length, accelerationMmS2));
  return moves.map((move, i) => {
    const [entry, exit] = [joint[i]!, joint[i + 1]!];
    const peak = Math.min(speedMmS, Math.sqrt((entry * entry + exit * exit) / 2 + accelerationMmS2 * move.length));
    const rampMm = (2 * peak * peak - entry * entry - exit * exit) / (2 * accelerationMmS2);
    const seconds = (2 * peak - entry - exit) / accelerationMmS2 + Math.max(0, move.length - rampMm) / peak;
    return { lengthMm: move.length, entry, peak, exit, seconds };
  });
}

/** How far along a planned move one is after `seconds`, in mm. */
export function distanceAt(move: PlannedMove, seconds: number, accelerationMmS2: number): number {
  const up = (move.peak - move.entry) / accelerationMmS2;
  const down = (move.peak - move.exit) / accelerationMmS2;
  const cruise = Math.max(0, move.seconds - up - down);
  if (seconds <= up) return move.entry * seconds + (accelerationMmS2 * seconds * seconds) / 2;
  const upMm = ((move.entry + move.peak) / 2) * up;
  if (seconds <= up + cruise) return upMm + move.peak * (seconds - up);
  const left = Math.max(0, move.seconds - seconds);
  return Math.max(0, move.lengthMm - (move.exit * left + (accelerationMmS2 * left * left) / 2));
}

/** Time to drive the polyline from rest to rest. */
export function driveSeconds(points: ArrayLike<number>, speedMmS: number, accelerationMmS2: number): number {
  return planMoves(points, speedMmS, accelerationMmS2).reduce((sum, move) => sum + move.seconds, 0);
}

function reachable(speed: number, length: number, acceleration: number): number {
  return Math.sqrt(speed * speed + 2 * acceleration * length);
}
