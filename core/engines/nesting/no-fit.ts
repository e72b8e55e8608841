import {
  boundsOf,
  boxRing,
  convexParts,
  growMitred,
  intersect,
  longestSide,
  mirrored,
  noFitOfParts,
  noFitOutline,
  reversed,
  roomInside,
  signedArea,
  simplifyRing,
  unite,
  widenBox,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { turned, type Orientation, type Shape } from './shape.js';

/**
 * The no-fit outlines of pairs of shapes. Each pair is worked out once for every turn against each other, whatever both are turned by, and once for both ways round: copies and quarter turns
 * cost nothing.
 */
export class NoFits {
  readonly #known = new Map<string, Rings>();
  readonly #parts = new Map<string, readonly Rings[]>();
  readonly #keepOuts = new Map<Shape, readonly Rings[]>();
  readonly #outside = new Map<Orientation, Rings>();
  readonly #between = new Map<Orientation, Map<Orientation, Rings>>();

  /** Positions of `moving`'s box corner, with the corner of `fixed` at 0, 0, at which the two would come too near. Holes are places inside of one of them where the other has room. */
  between(fixed: Orientation, moving: Orientation): Rings {
    let row = this.#between.get(fixed);
    if (!row) this.#between.set(fixed, (row = new Map()));
    let rings = row.get(moving);
    if (!rings) {
      rings = this.#turnedBetween(fixed, moving);
      row.set(moving, rings);
    }
    return rings;
  }

  /** Positions of the box corner at which an orientation is not wholly inside of an irregular piece. */
  outsideOf(outline: Region, orientation: Orientation): Rings {
    let own = this.#outside.get(orientation);
    if (!own) this.#outside.set(orientation, (own = outsideOf(outline, orientation)));
    return own;
  }

  #turnedBetween(fixed: Orientation, moving: Orientation): Rings {
    // A pair is kept as its shape of the lower number sees the other.
    const isSwapped = fixed.shape.number > moving.shape.number;
    const [a, b] = isSwapped ? [moving, fixed] : [fixed, moving];
    const against = (((b.rotation - a.rotation) % 360) + 360) % 360;
    const key = `${a.shape.number} ${b.shape.number} ${against}`;
    let own = this.#known.get(key);
    if (!own) this.#known.set(key, (own = this.#noFitOf(a.shape, b.shape, against)));
    const sign = isSwapped ? -1 : 1;
    const [dx, dy] = [moving.originX - fixed.originX, moving.originY - fixed.originY];
    return own.map((ring) => turned(ring, a.rotation).map((v, i) => sign * v + (i % 2 === 0 ? dx : dy)));
  }

  /** Positions of the origin of `b`, turned by so much, against that of `a`. */
  #noFitOf(a: Shape, b: Shape, turn: number): Rings {
    const parts = this.#partsOf(b, turn);
    const keepOut = this.#keepOutOf(a);
    const outlines = keepOut.flatMap((own) => parts.flatMap((other) => noFitOfParts(own, other)));
    const outside = (outlines.length > 1 ? unite(outlines) : outlines).flatMap(withFewerPoints);
    const inA =
      a.rooms.length > 0
        ? a.rooms.flatMap((room) =>
            insideOf(
              room,
              b.shells.map((ring) => turned(ring, turn)),
            ),
          )
        : [];
    const inB = b.rooms.flatMap((room) => insideOf(turned(room, turn), a.shells)).map(mirrored);
    return [...outside, ...[...inA, ...inB].map(reversed)];
  }

  #partsOf(shape: Shape, turn: number): readonly Rings[] {
    const key = `${shape.number} ${turn}`;
    let parts = this.#parts.get(key);
    if (!parts) this.#parts.set(key, (parts = shape.shells.map((ring) => convexParts(mirrored(turned(ring, turn))))));
    return parts;
  }

  #keepOutOf(shape: Shape): readonly Rings[] {
    let parts = this.#keepOuts.get(shape);
    if (!parts) this.#keepOuts.set(shape, (parts = shape.keepOut.map(convexParts)));
    return parts;
  }
}

/** Outlines of more points cost more than the film they save: they get fewer, and grow by this at most, mm. */
const MANY_POINTS = 300;
const GROWS_MM = 0.05;

/** A no-fit outline with fewer points, if it has many; nothing that was forbidden becomes free. */
function withFewerPoints(ring: Ring): Ring[] {
  // A place inside of another stays as it is.
  if (ring.length / 2 <= MANY_POINTS || signedArea(ring) < 0) return [ring];
  return growMitred([ring], GROWS_MM).map((grown) => simplifyRing(grown, GROWS_MM));
}

/** Positions at which all of some outlines lie inside of a room; none unless there is a single one, which is what is laid into counters. */
function insideOf(room: Ring, shells: readonly Ring[]): Ring[] {
  const [own, inner] = [boundsOf([room])!, boundsOf(shells)!];
  if (
    shells.length !== 1 ||
    inner.maxX - inner.minX > own.maxX - own.minX ||
    inner.maxY - inner.minY > own.maxY - own.minY
  )
    return [];
  return roomInside(room, shells[0]!);
}

function outsideOf({ outer, holes }: Region, { shape, rotation, originX, originY }: Orientation): Rings {
  const shells = shape.shells.map((ring) =>
    turned(ring, rotation).map((v, i) => v - (i % 2 === 0 ? originX : originY)),
  );
  const inside = shells.map((shell) => roomInside(outer, shell)).reduce((both, one) => intersect(both, one));
  const box = boundsOf([outer])!;
  const reach = 1 + longestSide(box) + longestSide(boundsOf(shells)!);
  const onHoles = holes.flatMap((hole) => shells.flatMap((shell) => noFitOutline(reversed(hole), shell)));
  return unite([boxRing(widenBox(box, reach)), ...inside.map(reversed), ...onHoles]);
}
