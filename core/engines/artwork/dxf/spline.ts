/** Points a span of the spline gets: enough for a hundredth of a millimetre at the size of a hand. */
const PER_SPAN = 24;

/**
 * A rational B-spline as points, ends included (de Boor's algorithm). `control` is x0, y0, x1, y1, …; missing weights are 1, a missing or
 * wrong knot vector is taken as clamped and even.
 */
export function splinePoints(degree: number, control: readonly number[], knots: readonly number[], weights: readonly number[]): number[] {
  const n = control.length / 2;
  const p = Math.min(Math.max(1, Math.round(degree)), n - 1);
  if (n < 2) return [...control];
  const u = knots.length === n + p + 1 && knots.every((k, i) => i === 0 || k >= knots[i - 1]!) ? knots : clampedKnots(n, p);
  const out: number[] = [];
  for (let span = p; span < n; span += 1) {
    const [from, to] = [u[span]!, u[span + 1]!];
    if (!(to > from)) continue;
    for (let s = out.length === 0 ? 0 : 1; s <= PER_SPAN; s += 1) out.push(...pointAt(from + ((to - from) * s) / PER_SPAN, span, p, u, control, weights));
  }
  return out;
}

function clampedKnots(n: number, p: number): number[] {
  return Array.from({ length: n + p + 1 }, (_, i) => Math.min(Math.max(i - p, 0), n - p));
}

function pointAt(t: number, span: number, p: number, u: readonly number[], control: readonly number[], weights: readonly number[]): [number, number] {
  const d = Array.from({ length: p + 1 }, (_, j) => {
    const i = span - p + j;
    const w = weights[i] ?? 1;
    return [control[2 * i]! * w, control[2 * i + 1]! * w, w];
  });
  for (let r = 1; r <= p; r += 1) {
    for (let j = p; j >= r; j -= 1) {
      const i = span - p + j;
      const wide = u[i + p - r + 1]! - u[i]!;
      const a = wide > 0 ? (t - u[i]!) / wide : 0;
      d[j] = d[j]!.map((v, k) => (1 - a) * d[j - 1]![k]! + a * v);
    }
  }
  const [x, y, w] = d[p]!;
  return [x! / (w || 1), y! / (w || 1)];
}
