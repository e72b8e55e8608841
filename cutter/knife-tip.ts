/** Steps in which the tip is dragged, mm: well under a cutter's own step. */
const DRAG_STEP_MM = 0.01;

/** The drag knife's tip: it hangs `offsetMm` behind its holder and is pulled after it while it is down. */
export class KnifeTip {
  #heading: readonly [number, number] = [1, 0];
  #line: number[] | null = null;
  readonly lines: Float64Array[] = [];

  constructor(private readonly offsetMm: number) {}

  /** The run being cut, if the knife is down. */
  get current(): readonly number[] {
    return this.#line ?? [];
  }

  lower(x: number, y: number): void {
    this.#line ??= [x - this.offsetMm * this.#heading[0], y - this.offsetMm * this.#heading[1]];
  }

  lift(): void {
    if (this.#line && this.#line.length >= 4) this.lines.push(Float64Array.from(this.#line));
    this.#line = null;
  }

  /** The holder went straight from one point to another; a lifted knife keeps its heading. */
  drag(x0: number, y0: number, x1: number, y1: number): void {
    const line = this.#line;
    if (!line) return;
    const steps = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / DRAG_STEP_MM));
    let [tx, ty] = [line.at(-2)!, line.at(-1)!];
    for (let s = 1; s <= steps; s += 1) {
      const x = x0 + ((x1 - x0) * s) / steps;
      const y = y0 + ((y1 - y0) * s) / steps;
      const gap = Math.hypot(x - tx, y - ty);
      if (gap > 1e-9) this.#heading = [(x - tx) / gap, (y - ty) / gap];
      tx = x - this.offsetMm * this.#heading[0];
      ty = y - this.offsetMm * this.#heading[1];
      if (Math.hypot(tx - line.at(-2)!, ty - line.at(-1)!) >= DRAG_STEP_MM) line.push(tx, ty);
    }
  }

  /** A hand turned the knife, which is up. */
  turn(radians: number): void {
    this.#heading = [Math.cos(radians), Math.sin(radians)];
  }

  /** The film is gone or the power was: what was cut is forgotten. */
  reset(): void {
    this.#line = null;
    this.lines.length = 0;
  }
}
