import { containsPoint, translateRings, unite, type Ring, type Rings } from '../../geometry/index.js';
import type { NestSheet } from './nest-request.js';
import type { NoFits } from './no-fit.js';
import type { Orientation } from './shape.js';

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Rounding of positions that touch the sheet's edge. */
const EDGE = 1e-6;

/** What is known of the filling of a whole arrangement. */
export interface FillOptions {
  readonly spacingMm: number;
  /** So many groups lie beside each other before what is below them is closed: the cost of a place grows with them. */
  readonly closedAfter: number;
}

/**
 * One sheet being filled from its lower edge, and what may no longer be covered for each orientation tried on it. After many groups the part they lie on is
 * closed and filling goes on above it, so that hundreds of copies cost hardly more each than dozens do.
 */
export class OpenSheet {
  #placed: { orientation: Orientation; x: number; y: number }[] = [];
  /** Nothing is placed below this any more. */
  #floor = 0;
  readonly #forbidden = new Map<Orientation, { rings: Rings; upTo: number }>();
  usedLength = 0;

  constructor(
    readonly sheet: NestSheet,
    readonly index: number,
    private readonly noFits: NoFits,
    private readonly fill: FillOptions,
  ) {}

  /**
   * The place at which the group's top edge is lowest, then leftmost; null when there is none. Every candidate lies on the boundary of
   * what is forbidden or in a corner of the sheet, so neighbours touch at exactly the spacing.
   */
  bestSpot(orientation: Orientation): Spot | null {
    return this.#firstSpot(
      orientation,
      this.sheet.lengthMm ?? Infinity,
      (spot, best) => spot.y < best.y - EDGE || (spot.y < best.y + EDGE && spot.x < best.x),
    );
  }

  /** The same within the length that is used already: the place at which its right edge is farthest to the left, then lowest. */
  spotAside(orientation: Orientation): Spot | null {
    return this.#firstSpot(
      orientation,
      this.usedLength,
      (spot, best) => spot.x < best.x - EDGE || (spot.x < best.x + EDGE && spot.y < best.y),
    );
  }

  #firstSpot(orientation: Orientation, lengthMm: number, isBefore: (spot: Spot, best: Spot) => boolean): Spot | null {
    const roomX = this.sheet.widthMm - orientation.width;
    const roomY = lengthMm - orientation.height;
    const floor = this.#floor;
    if (roomX < -EDGE || roomY < floor - EDGE) return null;
    const forbidden = this.#forbiddenFor(orientation);
    let best: Spot | null = null;
    const offer = (x: number, y: number) => {
      if (x < -EDGE || y < floor - EDGE || x > roomX + EDGE || y > roomY + EDGE) return;
      if (!best || isBefore({ x, y }, best)) {
        best = { x: Math.min(Math.max(x, 0), Math.max(roomX, 0)), y: Math.min(Math.max(y, floor), Math.max(roomY, 0)) };
      }
    };
    for (const [x, y] of [
      [0, floor],
      [Math.max(roomX, 0), floor],
    ] as const)
      if (!containsPoint(forbidden, x, y)) offer(x, y);
    for (const ring of forbidden) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [x, y] = [ring[i]!, ring[i + 1]!];
        const [px, py] = [ring[j]!, ring[j + 1]!];
        offer(x, y);
        for (const edge of [0, Math.max(roomX, 0)]) {
          if (px < edge !== x < edge) offer(edge, py + ((y - py) * (edge - px)) / (x - px));
        }
        if (py < floor !== y < floor) offer(px + ((x - px) * (floor - py)) / (y - py), floor);
        if (Number.isFinite(roomY) && py < roomY !== y < roomY) offer(px + ((x - px) * (roomY - py)) / (y - py), roomY);
      }
    }
    return best;
  }

  place(orientation: Orientation, spot: Spot): void {
    this.#placed.push({ orientation, ...spot });
    this.usedLength = Math.max(this.usedLength, spot.y + orientation.height);
    if (this.#placed.length < this.fill.closedAfter) return;
    this.#floor = this.usedLength + this.fill.spacingMm;
    this.#placed = [];
    this.#forbidden.clear();
  }

  #forbiddenFor(orientation: Orientation): Rings {
    const known = this.#forbidden.get(orientation) ?? {
      rings: this.sheet.outline ? this.noFits.outsideOf(this.sheet.outline, orientation) : [],
      upTo: 0,
    };
    if (known.upTo === this.#placed.length) return known.rings;
    const fresh: Ring[] = this.#placed
      .slice(known.upTo)
      .flatMap((p) => translateRings(this.noFits.between(p.orientation, orientation), p.x, p.y));
    const rings = unite([...known.rings, ...fresh]);
    this.#forbidden.set(orientation, { rings, upTo: this.#placed.length });
    return rings;
  }
}
