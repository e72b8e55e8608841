import { uniteMoved } from './kernel.js';
import { movedOutline } from './offset.js';
import { pointCell, type Box, type Ring, type Rings } from './rings.js';

/** A corner that moves further than this many times the distance is a spike: its sides are at less than 23 degrees. */
const SPIKE = 5;

/** An area grown or shrunk, and where its outline did not follow. */
export interface GrownOutline {
  readonly grown: Ring[];
  /** Round each run of edges of the outline that, moved by the distance, do not wholly bound the grown area. */
  readonly lost: readonly Box[];
}

/**
 * The area (kernel-clean) grown by `d` mm, shrunk when negative, round corners true to `arcMm`; and the stretches of its outline that are
 * lost in it. When an area is shrunk, an edge is lost where something else of the outline is nearer than 2·|d| across it: at thin parts
 * at tips too round to come to a point, and at spikes. Where nothing is lost, shrinking and growing back gives the outline again but for its
 * corners, so the opening test need not be made.
 *
 * Now and then an edge is called lost that is not, when rounding moves its end to another cell; never the other way.
 */
export function growTracingLost(rings: Rings, d: number, arcMm: number): GrownOutline {
  const outlines = rings.map((ring) => movedOutline(ring, d, 'round', arcMm));
  const grown = uniteMoved(outlines.map((outline) => outline.moved).filter((ring) => ring.length >= 6));
  const next = new NextCells(grown.reduce((sum, ring) => sum + ring.length / 2, 0));
  for (const ring of grown) {
    let before = cellAt(ring, ring.length / 2 - 1);
    for (let i = 0; i < ring.length / 2; i += 1) {
      const here = cellAt(ring, i);
      next.set(before, here);
      before = here;
    }
  }
  const lost: Box[] = [];
  for (const { points, moved, first } of outlines) {
    const n = points.length / 2;
    // A corner so sharp that its edges meet far off is a spike, though it comes to a point.
    for (let i = 0; i < n; i += 1) {
      const [x, y, far] = [points[2 * i]!, points[2 * i + 1]!, first[i]!];
      const [mx, my] = [moved[2 * far]!, moved[2 * far + 1]!];
      if (Math.hypot(mx - x, my - y) > SPIKE * Math.abs(d))
        lost.push({ minX: Math.min(x, mx), minY: Math.min(y, my), maxX: Math.max(x, mx), maxY: Math.max(y, my) });
    }
    let run: { minX: number; minY: number; maxX: number; maxY: number } | null = null;
    // A run that goes round the beginning of the ring is found as two, which do no harm but for being tested together.
    for (let i = 0; i < n; i += 1) {
      const j = i + 1 === n ? 0 : i + 1;
      const stays = moved.length > 0 && next.get(cellAt(moved, first[i + 1]! - 1)) === cellAt(moved, first[j]!);
      if (stays) {
        run = null;
        continue;
      }
      if (!run) lost.push((run = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity }));
      for (const k of [i, j]) {
        run.minX = Math.min(run.minX, points[2 * k]!);
        run.minY = Math.min(run.minY, points[2 * k + 1]!);
        run.maxX = Math.max(run.maxX, points[2 * k]!);
        run.maxY = Math.max(run.maxY, points[2 * k + 1]!);
      }
    }
  }
  return { grown, lost };
}

/** Which cell comes after a cell. A Map does the same at four times the cost: cells are too large for its short numbers. */
class NextCells {
  readonly #mask: number;
  readonly #cells: Float64Array;
  readonly #next: Float64Array;

  constructor(count: number) {
    const size = 2 ** Math.ceil(Math.log2(2 * count + 2));
    this.#mask = size - 1;
    this.#cells = new Float64Array(size).fill(NaN);
    this.#next = new Float64Array(size);
  }

  set(cell: number, next: number): void {
    const slot = this.#slotOf(cell);
    this.#cells[slot] = cell;
    this.#next[slot] = next;
  }

  /** NaN when there is none. */
  get(cell: number): number {
    const slot = this.#slotOf(cell);
    return this.#cells[slot] === cell ? this.#next[slot]! : NaN;
  }

  /** Where a cell stands, or the free place for it. */
  #slotOf(cell: number): number {
    let slot = (Math.imul(cell | 0, 0x9e3779b1) >>> 7) & this.#mask;
    slot = (slot ^ Math.imul((cell / 4_294_967_296) | 0, 0x85ebca6b)) & this.#mask;
    while (!Number.isNaN(this.#cells[slot]!) && this.#cells[slot] !== cell) slot = (slot + 1) & this.#mask;
    return slot;
  }
}

function cellAt(ring: Ring, i: number): number {
  return pointCell(ring[2 * i]!, ring[2 * i + 1]!);
}
