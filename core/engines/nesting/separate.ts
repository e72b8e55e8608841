import { isConvexRing, type Region, type Rings } from '../../geometry/index.js';
import type { NoFits } from './no-fit.js';
import type { Orientation } from './shape.js';

/*
 * Groups laid over each other are drawn apart until nothing overlaps. How deep two of them lie in each other is how far one has to be moved to be free of the other: the distance of its place from the
 * edge of their no-fit outline. A group at a time goes where it lies least deep in all others, and pairs that stay in each other weigh more from round to round, so that the search is not caught.
 */

/** A group where it lies: its box corner. */
export interface Lying {
  readonly orientation: Orientation;
  readonly x: number;
  readonly y: number;
}

/** What the groups lie on, from 0, 0: and what of it is taken already. */
export interface Room {
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly spacingMm: number;
  readonly fixed: readonly Lying[];
  /** The outline of an irregular piece. */
  readonly outline?: Region;
}

/** Groups that lie in each other by less touch: over an edge of 100 mm that is 0.002 mm². */
const EPS_MM = 0.00002;
/** Rounding at the edges of the room. */
const EDGE_MM = 1e-6;
/** Places that are looked at for each turn of a group, how many of the best are improved, and by how many trials. */
const SAMPLES = 14;
const IMPROVED = 3;
const TRIALS = 40;
/** Of more turns than this, some are looked at each time. */
const MOST_TURNS = 4;

/** A no-fit outline that is asked a million times. For each edge: of a convex one its normal and distance; else its corner, the way to the next, and 1 / its length². */
interface Outline {
  readonly isConvex: boolean;
  readonly edges: Float64Array;
}

export class Separation {
  readonly #noFits: NoFits;
  readonly #random: () => number;
  readonly #room: Room;
  /** All orientations of all groups; a group's own are known by their numbers in it. */
  readonly #orientations: readonly Orientation[];
  readonly #turns: readonly (readonly number[])[];
  readonly #widths: Float64Array;
  readonly #heights: Float64Array;
  /** By the one that lies there × the number of orientations + the one that is laid. */
  readonly #outlines: (Outline | undefined)[];
  readonly #beyond: (Outline | undefined)[] = [];
  #lengthMm: number;
  /** So many groups move; those that lie fast come behind them. */
  readonly #n: number;
  readonly #count: number;
  readonly #turn: Int32Array;
  readonly #x: Float64Array;
  readonly #y: Float64Array;
  readonly #weights: Float64Array;
  readonly #depths: Float64Array;

  /** `turns` are the orientations that each of the groups may have. */
  constructor(turns: readonly (readonly Orientation[])[], room: Room, noFits: NoFits, random: () => number) {
    this.#noFits = noFits;
    this.#random = random;
    this.#room = room;
    this.#lengthMm = room.lengthMm;
    this.#orientations = [...new Set([...turns.flat(), ...room.fixed.map(({ orientation }) => orientation)])];
    const numbers = new Map(this.#orientations.map((orientation, i) => [orientation, i]));
    this.#turns = turns.map((own) => own.map((orientation) => numbers.get(orientation)!));
    this.#widths = Float64Array.from(this.#orientations, ({ width }) => width);
    this.#heights = Float64Array.from(this.#orientations, ({ height }) => height);
    this.#outlines = new Array<Outline | undefined>(this.#orientations.length ** 2);
    this.#n = turns.length;
    this.#count = turns.length + room.fixed.length;
    this.#turn = new Int32Array(this.#count);
    this.#x = new Float64Array(this.#count);
    this.#y = new Float64Array(this.#count);
    room.fixed.forEach(({ orientation, x, y }, k) => {
      [this.#turn[this.#n + k], this.#x[this.#n + k], this.#y[this.#n + k]] = [numbers.get(orientation)!, x, y];
    });
    this.#weights = new Float64Array(this.#n * this.#count);
    this.#depths = new Float64Array(this.#n * this.#count);
  }

  get layout(): readonly Lying[] {
    return Array.from({ length: this.#n }, (_, i) => ({
      orientation: this.#orientations[this.#turn[i]!]!,
      x: this.#x[i]!,
      y: this.#y[i]!,
    }));
  }

  /** Begins anew from a layout in a room of this length; what sticks out of it is pushed in. */
  begin(layout: readonly Lying[], lengthMm: number): void {
    this.#lengthMm = lengthMm;
    layout.forEach(({ orientation, x, y }, i) => this.#put(i, this.#orientations.indexOf(orientation), x, y));
    this.#weights.fill(1);
  }

  /** Whether all can lie in a room of this length at all. */
  holds(lengthMm: number): boolean {
    return this.#turns.every((own) =>
      own.some(
        (turn) => this.#widths[turn]! <= this.#room.widthMm + EDGE_MM && this.#heights[turn]! <= lengthMm + EDGE_MM,
      ),
    );
  }

  /** Exchanges the places of two groups, as far as the room lets them. */
  exchange(i: number, j: number): void {
    const [x, y] = [this.#x[i]!, this.#y[i]!];
    this.#put(i, this.#turn[i]!, this.#x[j]!, this.#y[j]!);
    this.#put(j, this.#turn[j]!, x, y);
  }

  #put(i: number, turn: number, x: number, y: number): void {
    this.#turn[i] = turn;
    this.#x[i] = Math.max(0, Math.min(x, this.#room.widthMm - this.#widths[turn]!));
    this.#y[i] = Math.max(0, Math.min(y, this.#lengthMm - this.#heights[turn]!));
  }

  /** One round: each group that lies in another goes where it lies least deep. Gives how deep all lie in each other, 0 when nothing does. */
  round(): number {
    const colliding: number[] = [];
    for (let i = 0; i < this.#n; i += 1) if (this.#isIn(i)) colliding.push(i);
    for (let k = colliding.length - 1; k > 0; k -= 1) {
      const m = Math.floor(this.#random() * (k + 1));
      [colliding[k], colliding[m]] = [colliding[m]!, colliding[k]!];
    }
    for (const i of colliding) if (this.#isIn(i)) this.#settle(i);
    return this.#reweigh();
  }

  #isIn(i: number): boolean {
    const turn = this.#turn[i]!;
    // One that was turned into a shorter room may stick out of it.
    if (this.#heights[turn]! > this.#lengthMm + EDGE_MM) return true;
    return this.#cost(i, turn, this.#x[i]!, this.#y[i]!, 1e-9) > 0;
  }

  /** All depths summed; pairs that are in each other weigh more from now on, the others less again. */
  #reweigh(): number {
    const count = this.#count;
    let [sum, deepest] = [0, 0];
    for (let i = 0; i < this.#n; i += 1) {
      const turn = this.#turn[i]!;
      // The place of a group itself in the table is for what its sheet does not allow.
      for (let j = i; j < count; j += 1) {
        const depth =
          j === i ? this.#outside(turn, this.#x[i]!, this.#y[i]!) : this.#depth(turn, this.#x[i]!, this.#y[i]!, j);
        const counted = depth > EPS_MM ? depth : 0;
        this.#depths[i * count + j] = counted;
        sum += counted;
        if (counted > deepest) deepest = counted;
      }
      if (this.#heights[turn]! > this.#lengthMm + EDGE_MM) sum += this.#heights[turn]! - this.#lengthMm;
    }
    if (sum === 0) return 0;
    for (let i = 0; i < this.#n; i += 1) {
      for (let j = i; j < count; j += 1) {
        const depth = this.#depths[i * count + j]!;
        const was = this.#weights[i * count + j]!;
        const weight = depth > 0 ? was * (1.2 + 0.8 * (depth / deepest)) : Math.max(1, was * 0.95);
        this.#weights[i * count + j] = weight;
        if (j < this.#n) this.#weights[j * count + i] = weight;
      }
    }
    return sum;
  }

  /** Puts a group where it lies least deep in the others: among where it is and places taken by chance, the best ones improved step by step. */
  #settle(i: number): void {
    const fitting = this.#turns[i]!.filter(
      (turn) => this.#widths[turn]! <= this.#room.widthMm + EDGE_MM && this.#heights[turn]! <= this.#lengthMm + EDGE_MM,
    );
    const own = this.#turn[i]!;
    const turns =
      fitting.length <= MOST_TURNS
        ? fitting
        : [
            own,
            ...Array.from({ length: MOST_TURNS - 1 }, () => fitting[Math.floor(this.#random() * fitting.length)]!),
          ].filter((turn) => fitting.includes(turn));
    const best: Trial[] = [];
    const offer = (turn: number, x: number, y: number) => {
      const limit = best.length < IMPROVED ? Infinity : best[best.length - 1]!.cost;
      const cost = this.#cost(i, turn, x, y, limit);
      if (cost >= limit) return;
      let at = best.length;
      while (at > 0 && best[at - 1]!.cost > cost) at -= 1;
      best.splice(at, 0, { turn, x, y, cost });
      if (best.length > IMPROVED) best.pop();
    };
    if (fitting.includes(own)) offer(own, this.#x[i]!, this.#y[i]!);
    for (const turn of turns) {
      const [roomX, roomY] = [
        Math.max(0, this.#room.widthMm - this.#widths[turn]!),
        Math.max(0, this.#lengthMm - this.#heights[turn]!),
      ];
      for (let s = 0; s < SAMPLES; s += 1) offer(turn, this.#random() * roomX, this.#random() * roomY);
    }
    let found: Trial | null = null;
    for (const trial of best) {
      const improved = this.#improved(i, trial);
      if (!found || improved.cost < found.cost) found = improved;
      if (found.cost === 0) break;
    }
    if (found) this.#put(i, found.turn, found.x, found.y);
  }

  #improved(i: number, from: Trial): Trial {
    const { turn } = from;
    const [roomX, roomY] = [
      Math.max(0, this.#room.widthMm - this.#widths[turn]!),
      Math.max(0, this.#lengthMm - this.#heights[turn]!),
    ];
    let [x, y, cost] = [from.x, from.y, from.cost];
    let [stepX, stepY] = [this.#widths[turn]! / 4, this.#heights[turn]! / 4];
    for (let trial = 0; trial < TRIALS && cost > 0 && (stepX > EPS_MM || stepY > EPS_MM); trial += 1) {
      const kind = this.#random();
      const dx = kind < 0.33 ? 0 : kind < 0.66 ? stepX : Math.SQRT1_2 * stepX;
      const dy = kind < 0.33 ? stepY : kind < 0.66 ? 0 : kind < 0.83 ? Math.SQRT1_2 * stepY : -Math.SQRT1_2 * stepY;
      let isBetter = false;
      for (let sign = 1; sign >= -1 && !isBetter; sign -= 2) {
        const nx = Math.min(roomX, Math.max(0, x + sign * dx));
        const ny = Math.min(roomY, Math.max(0, y + sign * dy));
        const now = this.#cost(i, turn, nx, ny, cost);
        if (now < cost) {
          [x, y, cost] = [nx, ny, now];
          isBetter = true;
        }
      }
      const by = isBetter ? 1.1 : 0.6;
      if (dx !== 0) stepX *= by;
      if (dy !== 0) stepY *= by;
    }
    return { turn, x, y, cost };
  }

  /** How deep a group would lie in all others, weighed; given up beyond the limit. This is where the time goes: everything is looked up once. */
  #cost(i: number, turn: number, x: number, y: number, limit: number): number {
    const count = this.#count;
    const weights = this.#weights;
    const row = i * count;
    let cost = 0;
    if (this.#room.outline) {
      const outside = this.#outside(turn, x, y);
      if (outside > EPS_MM) cost = outside * weights[row + i]!;
    }
    const turns = this.#turn;
    const xs = this.#x;
    const ys = this.#y;
    const widths = this.#widths;
    const heights = this.#heights;
    const outlines = this.#outlines;
    const kinds = widths.length;
    // Boxes that do not meet need no outline; mitred corners reach twice as far.
    const reach = 2 * this.#room.spacingMm;
    const [ownWidth, ownHeight] = [widths[turn]! + reach, heights[turn]! + reach];
    for (let j = 0; j < count; j += 1) {
      const dx = x - xs[j]!;
      const dy = y - ys[j]!;
      if (-dx >= ownWidth || -dy >= ownHeight || j === i) continue;
      const other = turns[j]!;
      if (dx >= widths[other]! + reach || dy >= heights[other]! + reach) continue;
      const outline = outlines[other * kinds + turn] ?? this.#outlineOf(other, turn);
      const depth = outline.isConvex ? depthInConvex(outline, dx, dy) : depthIn(outline, dx, dy);
      if (depth > EPS_MM) {
        cost += depth * weights[row + j]!;
        if (cost >= limit) return cost;
      }
    }
    return cost;
  }

  #depth(turn: number, x: number, y: number, j: number): number {
    if (!this.#boxesMeet(turn, x, y, j)) return 0;
    const other = this.#turn[j]!;
    const outline = this.#outlines[other * this.#widths.length + turn] ?? this.#outlineOf(other, turn);
    return outline.isConvex
      ? depthInConvex(outline, x - this.#x[j]!, y - this.#y[j]!)
      : depthIn(outline, x - this.#x[j]!, y - this.#y[j]!);
  }

  #boxesMeet(turn: number, x: number, y: number, j: number): boolean {
    const [other, dx, dy, reach] = [this.#turn[j]!, x - this.#x[j]!, y - this.#y[j]!, 2 * this.#room.spacingMm];
    return (
      dx < this.#widths[other]! + reach &&
      dy < this.#heights[other]! + reach &&
      -dx < this.#widths[turn]! + reach &&
      -dy < this.#heights[turn]! + reach
    );
  }

  #outlineOf(other: number, turn: number): Outline {
    const made = outlineOf(this.#noFits.between(this.#orientations[other]!, this.#orientations[turn]!));
    this.#outlines[other * this.#widths.length + turn] = made;
    return made;
  }

  #outside(turn: number, x: number, y: number): number {
    const { outline } = this.#room;
    if (!outline) return 0;
    return depthIn(
      (this.#beyond[turn] ??= outlineOf(this.#noFits.outsideOf(outline, this.#orientations[turn]!), false)),
      x,
      y,
    );
  }
}

interface Trial {
  readonly turn: number;
  readonly x: number;
  readonly y: number;
  readonly cost: number;
}

function outlineOf(rings: Rings, mayBeConvex = true): Outline {
  const isConvex = mayBeConvex && rings.length === 1 && isConvexRing(rings[0]!);
  const edges: number[] = [];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      const [dx, dy] = [ring[j]! - ring[i]!, ring[j + 1]! - ring[i + 1]!];
      const length = Math.hypot(dx, dy);
      if (length === 0) continue;
      if (isConvex) edges.push(-dy / length, dx / length, (dy * ring[i]! - dx * ring[i + 1]!) / length);
      else edges.push(ring[i]!, ring[i + 1]!, dx, dy, 1 / (length * length));
    }
  }
  return { isConvex, edges: Float64Array.from(edges) };
}

/** How far a point inside of a convex outline is from its edge; 0 outside. */
function depthInConvex({ edges }: Outline, px: number, py: number): number {
  let nearest = Infinity;
  for (let k = 0; k < edges.length; k += 3) {
    const depth = edges[k]! * px + edges[k + 1]! * py + edges[k + 2]!;
    if (depth <= 0) return 0;
    if (depth < nearest) nearest = depth;
  }
  return nearest;
}

/** How far a point inside of an outline is from its edge; 0 outside. */
function depthIn({ edges }: Outline, px: number, py: number): number {
  let isInside = false;
  for (let k = 0; k < edges.length; k += 5) {
    const ay = py - edges[k + 1]!;
    const dy = edges[k + 3]!;
    if (ay < 0 !== ay < dy && px - edges[k]! < (edges[k + 2]! * ay) / dy) isInside = !isInside;
  }
  if (!isInside) return 0;
  let nearest = Infinity;
  for (let k = 0; k < edges.length; k += 5) {
    const ax = px - edges[k]!;
    const ay = py - edges[k + 1]!;
    const dx = edges[k + 2]!;
    const dy = edges[k + 3]!;
    let t = (ax * dx + ay * dy) * edges[k + 4]!;
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const ex = ax - t * dx;
    const ey = ay - t * dy;
    const square = ex * ex + ey * ey;
    if (square < nearest) nearest = square;
  }
  return Math.sqrt(nearest);
}
