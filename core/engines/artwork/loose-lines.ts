import { type Polyline, type Rings } from '../../geometry/index.js';
import type { Paint } from './artwork.js';
import { joinLoops, type OpenLine } from './join-loops.js';
import { areaOfLines } from './sane-lines.js';

/** What loose lines of one colour come to. */
interface Closed {
  readonly paint: Paint;
  /** Before which painted region it belongs. */
  readonly at: number;
  readonly rings: Rings;
  /** Chains whose ends did not meet; they are filled all the same, along a straight line. */
  readonly open: readonly OpenLine[];
}

/** Hairlines that do not close by themselves. Drawings made of single strokes close only when those of one colour are put end to end. */
export class LooseLines {
  readonly #byColour = new Map<string, { readonly paint: Paint; readonly at: number; readonly lines: OpenLine[] }>();

  add(paint: Paint, lines: readonly Polyline[], at: number): void {
    const group = this.#byColour.get(paint.colour) ?? { paint, at, lines: [] };
    this.#byColour.set(paint.colour, group);
    for (const { points } of lines) if (points.length >= 4) group.lines.push([...points]);
  }

  /** Per colour what the lines enclose, nested by even-odd, once ends within `toleranceMm` are joined; the last colour first. */
  closed(toleranceMm: number): Closed[] {
    const closed = [...this.#byColour.values()].flatMap(({ paint, at, lines }): Closed[] => {
      if (lines.length === 0) return [];
      const { loops, open } = joinLoops(lines, toleranceMm);
      const rings = areaOfLines(
        [...loops, ...open].map((line) => ({ points: Float64Array.from(line), closed: true })),
        'evenodd',
      );
      return [{ paint, at, rings, open }];
    });
    return closed.reverse();
  }
}
