import {
  areaOf,
  boundsOf,
  boxRing,
  containsPoint,
  edgeIndex,
  edgesOf,
  joinBoxes,
  squareToEdge,
  translateRings,
  widenBox,
  type Box,
  type Edge,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { Mark } from './marks.js';
import type { MarkSchool } from './schools.js';
import { markRing, type MarkShape, type PlainShape } from './shapes.js';

/** What is wanted of the marks. */
export interface MarksWish {
  readonly school: MarkSchool;
  /** Of all marks but the one without mirror symmetry. */
  readonly shape: PlainShape;
  readonly sizeMm: number;
  /** Clear of all artwork on every layer, and of each other. */
  readonly gapMm: number;
  /** How truly a hand lays one mark on another: three standard deviations. */
  readonly placementErrorMm: number;
  /** Two far apart, and the farthest two of three, are so far apart at least; as far as the artwork is long unless it is said. */
  readonly apartMm?: number;
}

export interface PlacedMarks {
  readonly marks: readonly Mark[];
  /** Between the two that lie furthest apart; the length of a single bar. */
  readonly distanceMm: number;
  /** How much the boxes of all layers grow by them. */
  readonly extraFilmMm2: number;
  /** How far the farthest corner of the artwork slips when the marks are laid as truly as a hand can. */
  readonly slipMm: number;
  /** The next best places, by what they cost. */
  readonly others: readonly { readonly extraFilmMm2: number; readonly slipMm: number }[];
}

/** Positions are looked at on a grid of about so many steps along the artwork, and no finer than this, mm; then the best are moved by ever smaller steps. */
const STEPS = 44;
const LEAST_STEP_MM = 0.5;
const FINEST_MM = 0.1;
/** So many of the best are moved closer. */
const CLOSER = 36;
/** Two marks stand so far apart at least, as a share of the artwork's longer side; along one edge, and the length of a single bar. */
const APART = { ends: 1, edge: 0.8, bar: 0.5 };
/** A third mark lies so far from the line of the others at least, as a share of their distance, and no two sides of the triangle are nearer alike than this. */
const SCALENE = { off: 0.1, unlike: 0.1 };

/**
 * The marks that cost the least film over all layers, clear of the artwork on every one of them, also in free corners inside it. Two are as far apart as the
 * artwork is long, so that they hold its angle as well as marks at its ends; one of them has no mirror symmetry, or three stand in a triangle of unlike sides.
 * Null for no marks, or no artwork. Cost: about the square of the steps along the artwork, for every layer; feasibility by the edges near a place only.
 */
export function placeMarks(layers: readonly Rings[], wish: MarksWish): PlacedMarks | null {
  const art = layers.reduce<Box | null>((box, rings) => joinBoxes(box, boundsOf(rings)), null);
  if (!art || wish.school === 'none') return null;
  const found = new MarkSearch(layers, art, wish).best();
  const [best, ...others] = found;
  if (!best) return null;
  return { ...best, others: others.slice(0, 3).map(({ extraFilmMm2, slipMm }) => ({ extraFilmMm2, slipMm })) };
}

/** A kind of mark that is placed, about its middle. */
interface Stamp {
  readonly shape: MarkShape;
  readonly ring: Ring;
  readonly box: Box;
}

type Place = readonly [number, number];
type Found = Omit<PlacedMarks, 'others'> & { readonly places: readonly Place[] };

class MarkSearch {
  readonly #boxes: readonly { readonly box: Box; readonly area: number }[];
  readonly #isClear: (stamp: Stamp, x: number, y: number) => boolean;
  readonly #long: number;
  readonly #apart: number;
  readonly #step: number;

  constructor(
    layers: readonly Rings[],
    private readonly art: Box,
    private readonly wish: MarksWish,
  ) {
    this.#boxes = layers.flatMap((rings) => {
      const box = boundsOf(rings);
      return box ? [{ box, area: areaOf([boxRing(box)]) }] : [];
    });
    this.#isClear = clearOf(layers.flat(), wish.gapMm);
    this.#long = Math.max(art.maxX - art.minX, art.maxY - art.minY);
    this.#apart = wish.apartMm ?? APART.ends * this.#long;
    this.#step = Math.max(LEAST_STEP_MM, this.#long / STEPS);
  }

  best(): Found[] {
    const { shape, sizeMm } = this.wish;
    const plain = stamp(shape, sizeMm);
    const notched = stamp('notched bar', sizeMm);
    const least = this.#apart ** 2;
    const isAcross = ([ax, ay]: Place, [bx, by]: Place) => (bx - ax) ** 2 + (by - ay) ** 2 >= least;
    switch (this.wish.school) {
      case 'ends':
        return this.#pairs([plain, notched], isAcross);
      case 'edge':
        return this.#pairs(
          [plain, notched],
          ([ax, ay], [bx, by]) =>
            (Math.abs(ay - by) < 1e-6 || Math.abs(ax - bx) < 1e-6) &&
            Math.hypot(bx - ax, by - ay) >= APART.edge * this.#long,
          true,
        );
      case 'bar': {
        const length = Math.max(3 * sizeMm, APART.bar * this.#long);
        return [...this.#singles(longBar(sizeMm, length, false)), ...this.#singles(longBar(sizeMm, length, true))].sort(
          (a, b) => a.extraFilmMm2 - b.extraFilmMm2,
        );
      }
      default: {
        const alike = this.#pairs([plain, plain], isAcross);
        return alike
          .slice(0, 6)
          .flatMap((pair) => this.#third(pair, plain))
          .sort((a, b) => a.extraFilmMm2 - b.extraFilmMm2);
      }
    }
  }

  /** By how much the layers' boxes grow to hold a box too. */
  #cost({ minX, minY, maxX, maxY }: Box): number {
    return this.#costOf(minX, minY, maxX, maxY);
  }

  /** The same without a box being made: it is asked for every pair of places. */
  #costOf(minX: number, minY: number, maxX: number, maxY: number): number {
    let sum = 0;
    for (const { box, area } of this.#boxes)
      sum +=
        ((box.maxX > maxX ? box.maxX : maxX) - (box.minX < minX ? box.minX : minX)) *
          ((box.maxY > maxY ? box.maxY : maxY) - (box.minY < minY ? box.minY : minY)) -
        area;
    return sum;
  }

  /** Places by what a mark there costs alone; of those alike the outer ones first, since far apart is better. */
  #cheapestFirst(
    places: readonly Place[],
    of: Stamp,
  ): { readonly place: Place; readonly cost: number; readonly out: number }[] {
    const [midX, midY] = [(this.art.minX + this.art.maxX) / 2, (this.art.minY + this.art.maxY) / 2];
    return places
      .map((place) => ({
        place,
        cost: this.#cost(movedBox(of.box, place)),
        out: Math.hypot(place[0] - midX, place[1] - midY),
      }))
      .sort((a, b) => a.cost - b.cost || b.out - a.out);
  }

  /** Places where a mark is clear, on a grid that reaches as far as any mark needs to go. */
  #places(of: Stamp): Place[] {
    const { gapMm } = this.wish;
    const reach = gapMm + Math.max(of.box.maxX, of.box.maxY);
    const { minX, minY, maxX, maxY } = widenBox(this.art, reach);
    const along = (low: number, high: number) => {
      const count = Math.max(2, Math.ceil((high - low) / this.#step) + 1);
      return Array.from({ length: count }, (_, i) => low + (i * (high - low)) / (count - 1));
    };
    const ys = along(minY, maxY);
    return along(minX, maxX).flatMap((x) => ys.flatMap((y): Place[] => (this.#isClear(of, x, y) ? [[x, y]] : [])));
  }

  #pairs(stamps: readonly [Stamp, Stamp], holds: (a: Place, b: Place) => boolean, isAligned = false): Found[] {
    const [firsts, seconds] = stamps.map((one) => this.#places(one)) as [Place[], Place[]];
    const best: { readonly places: readonly [Place, Place]; readonly cost: number }[] = [];
    let bound = Infinity;
    const [{ box: p }, { box: q }] = stamps;
    const consider = (a: Place, b: Place) => {
      const cost = this.#costOf(
        Math.min(p.minX + a[0], q.minX + b[0]),
        Math.min(p.minY + a[1], q.minY + b[1]),
        Math.max(p.maxX + a[0], q.maxX + b[0]),
        Math.max(p.maxY + a[1], q.maxY + b[1]),
      );
      if (cost > bound || (cost === bound && best.length >= CLOSER)) return;
      best.push({ places: [a, b], cost });
      if (best.length > 4 * CLOSER) {
        best.sort((p, q) => p.cost - q.cost || distanceOf(q.places) - distanceOf(p.places));
        best.length = CLOSER;
        bound = best.at(-1)!.cost;
      }
    };
    // A pair costs at least what either of it costs alone: the cheapest first, nothing dearer than the best so far needs to be looked at.
    const [one, other] = [this.#cheapestFirst(firsts, stamps[0]), this.#cheapestFirst(seconds, stamps[1])];
    // From the middle nothing may be far enough away.
    const far = boundsOf([Float64Array.from(seconds.flat())]);
    const least = isAligned || !far ? 0 : this.#apart ** 2;
    for (const { place: a, cost } of one) {
      if (cost > bound) break;
      if (
        least > 0 &&
        Math.max(a[0] - far!.minX, far!.maxX - a[0]) ** 2 + Math.max(a[1] - far!.minY, far!.maxY - a[1]) ** 2 < least
      )
        continue;
      for (const { place: b, cost: second } of other) {
        if (second > bound) break;
        if (holds(a, b)) consider(a, b);
      }
    }
    best.sort((p, q) => p.cost - q.cost || distanceOf(q.places) - distanceOf(p.places));
    const moved = apart(best.slice(0, CLOSER), this.#step).map(({ places }) =>
      this.#closer(places, stamps, ([a, b]) => holds(a!, b!), isAligned),
    );
    return distinct(
      moved
        .map((places) => this.#found(places, stamps))
        .sort((a, b) => a.extraFilmMm2 - b.extraFilmMm2 || b.distanceMm - a.distanceMm),
      this.#step,
    );
  }

  #singles(of: Stamp): Found[] {
    const best = this.#places(of)
      .map((place) => ({ place, cost: this.#cost(movedBox(of.box, place)) }))
      .sort((a, b) => a.cost - b.cost)
      .slice(0, CLOSER);
    return distinct(
      best
        .map(({ place }) =>
          this.#found(
            this.#closer([place], [of], () => true, false),
            [of],
          ),
        )
        .sort((a, b) => a.extraFilmMm2 - b.extraFilmMm2),
      this.#step,
    );
  }

  #third({ places }: Found, of: Stamp): Found[] {
    const [a, b] = [places[0]!, places[1]!];
    const isScalene = (corners: readonly Place[]) => {
      const [p, q, r] = corners as readonly [Place, Place, Place];
      const sides = [distanceOf([p, q]), distanceOf([q, r]), distanceOf([r, p])].sort((one, other) => one - other);
      const off = Math.abs((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])) / sides[2]!;
      return (
        sides[2]! >= this.#apart &&
        off >= SCALENE.off * sides[2]! &&
        sides[1]! >= sides[0]! * (1 + SCALENE.unlike) &&
        sides[2]! >= sides[1]! * (1 + SCALENE.unlike)
      );
    };
    const pair = joinBoxes(movedBox(of.box, a), movedBox(of.box, b))!;
    const best = this.#places(of)
      .filter((c) => isScalene([a, b, c]))
      .map((c) => ({ c, cost: this.#cost(joinBoxes(pair, movedBox(of.box, c))!) }))
      .sort((p, q) => p.cost - q.cost)
      .slice(0, 6);
    return best.map(({ c }) => this.#found(this.#closer([a, b, c], [of, of, of], isScalene, false), [of, of, of]));
  }

  /** Moved by smaller and smaller steps while that saves film. */
  #closer(
    start: readonly Place[],
    stamps: readonly Stamp[],
    holds: (places: readonly Place[]) => boolean,
    isAligned: boolean,
  ): readonly Place[] {
    const costOf = (places: readonly Place[]) =>
      this.#cost(places.reduce<Box | null>((box, place, i) => joinBoxes(box, movedBox(stamps[i]!.box, place)), null)!);
    let places = start;
    let cost = costOf(places);
    for (let step = this.#step; step >= FINEST_MM / 2; step /= 2) {
      for (let isBetter = true; isBetter;) {
        isBetter = false;
        for (const next of movesOf(places, step, isAligned)) {
          const nextCost = costOf(next);
          if (
            nextCost >= cost - 1e-9 ||
            !holds(next) ||
            !next.every(([x, y], i) =>
              places[i]![0] === x && places[i]![1] === y ? true : this.#isClear(stamps[i]!, x, y),
            ) ||
            touch(next, stamps, this.wish.gapMm)
          )
            continue;
          [places, cost, isBetter] = [next, nextCost, true];
        }
      }
    }
    return places;
  }

  #found(places: readonly Place[], stamps: readonly Stamp[]): Found {
    const marks = places.map(([xMm, yMm], i): Mark => ({
      shape: stamps[i]!.shape,
      xMm,
      yMm,
      ring: translateRings([stamps[i]!.ring], xMm, yMm)[0]!,
    }));
    const box = boundsOf(marks.map(({ ring }) => ring))!;
    const pairs = places.flatMap((a, i) => places.slice(i + 1).map((b) => ({ a, b, apart: distanceOf([a, b]) })));
    const far = pairs.reduce<(typeof pairs)[number] | null>(
      (most, pair) => (most && most.apart >= pair.apart ? most : pair),
      null,
    );
    const { minX, minY, maxX, maxY } = this.art;
    const single = stamps[0]!.box;
    const distanceMm = far ? far.apart : Math.max(single.maxX - single.minX, single.maxY - single.minY);
    const [midX, midY] = far ? [(far.a[0] + far.b[0]) / 2, (far.a[1] + far.b[1]) / 2] : places[0]!;
    const reachMm = Math.max(...[minX, maxX].flatMap((x) => [minY, maxY].map((y) => Math.hypot(x - midX, y - midY))));
    return {
      marks,
      places,
      distanceMm,
      extraFilmMm2: this.#cost(box),
      slipMm: Math.hypot(
        this.wish.placementErrorMm / Math.SQRT2,
        (Math.SQRT2 * this.wish.placementErrorMm * reachMm) / distanceMm,
      ),
    };
  }
}

function stamp(shape: MarkShape, sizeMm: number): Stamp {
  const ring = markRing(shape, 0, 0, sizeMm);
  return { shape, ring, box: boundsOf([ring])! };
}

/** A notched bar as long as is wanted, lying or standing. */
function longBar(sizeMm: number, lengthMm: number, isUpright: boolean): Stamp {
  const lying = markRing('notched bar', 0, 0, sizeMm, lengthMm);
  const ring = isUpright ? lying.map((_, i) => (i % 2 === 0 ? -lying[i + 1]! : lying[i - 1]!)) : lying;
  return { shape: 'notched bar', ring, box: boundsOf([ring])! };
}

const movedBox = ({ minX, minY, maxX, maxY }: Box, [x, y]: Place): Box => ({
  minX: minX + x,
  minY: minY + y,
  maxX: maxX + x,
  maxY: maxY + y,
});

function distanceOf([a, b]: readonly Place[]): number {
  return b ? Math.hypot(b[0] - a![0], b[1] - a![1]) : 0;
}

function movesOf(places: readonly Place[], step: number, isAligned: boolean): Place[][] {
  const ways = [
    [step, 0],
    [-step, 0],
    [0, step],
    [0, -step],
    [step, step],
    [-step, -step],
    [step, -step],
    [-step, step],
  ] as const;
  const by = (moves: readonly (readonly [number, number])[]) =>
    places.map(([x, y], i): Place => [x + (moves[i]?.[0] ?? 0), y + (moves[i]?.[1] ?? 0)]);
  const still = [0, 0] as const;
  const together = ways.map((way) => by(places.map(() => way)));
  if (!isAligned)
    return [
      ...together,
      ...places.flatMap((_, i) => ways.map((way) => by(places.map((_, k) => (k === i ? way : still))))),
    ];
  // Two along an edge stay on one line.
  const isLevel = Math.abs(places[0]![1] - places[1]![1]) < 1e-6;
  return [
    ...together,
    ...places.flatMap((_, i) =>
      ways
        .filter(([x, y]) => (isLevel ? y === 0 : x === 0))
        .map((way) => by(places.map((_, k) => (k === i ? way : still)))),
    ),
  ];
}

/** Whether two marks come nearer than they may. */
function touch(places: readonly Place[], stamps: readonly Stamp[], gapMm: number): boolean {
  return places.some((a, i) =>
    places.some((b, k) => {
      if (k <= i) return false;
      const [one, other] = [movedBox(stamps[i]!.box, a), movedBox(stamps[k]!.box, b)];
      return (
        Math.max(other.minX - one.maxX, one.minX - other.maxX, other.minY - one.maxY, one.minY - other.maxY) < gapMm
      );
    }),
  );
}

/** Neighbours on the grid are moved to the same places: so many that do not lie side by side are enough. */
const MOVED = 14;

function apart<T extends { readonly places: readonly Place[] }>(found: readonly T[], stepMm: number): T[] {
  const chosen: T[] = [];
  for (const one of found) {
    if (chosen.length === MOVED) break;
    if (!chosen.some((other) => other.places.every((place, i) => distanceOf([place, one.places[i]!]) < 1.5 * stepMm)))
      chosen.push(one);
  }
  return chosen;
}

/** The first of those that lie nearly alike. */
function distinct(found: readonly Found[], withinMm: number): Found[] {
  return found.reduce<Found[]>(
    (some, one) =>
      some.some((other) => other.places.every((place, i) => distanceOf([place, one.places[i]!]) < withinMm))
        ? some
        : [...some, one],
    [],
  );
}

/** Tells whether a mark at a place stays so far from all artwork, and does not lie on it. */
function clearOf(rings: Rings, gapMm: number): (stamp: Stamp, x: number, y: number) => boolean {
  const edges = edgesOf(rings, []);
  const index = edgeIndex(edges);
  const least = gapMm * gapMm;
  return ({ ring, box }, x, y) => {
    const { minX, minY, maxX, maxY } = widenBox(movedBox(box, [x, y]), gapMm);
    const own: Ring = ring.map((v, i) => v + (i % 2 === 0 ? x : y));
    for (const i of index.search(minX, minY, maxX, maxY)) if (squareBetween(own, edges[i]!) < least) return false;
    return !containsPoint(rings, x, y);
  };
}

/** The square of the distance from a mark's outline to an edge; 0 where they cross. */
export function squareBetween(ring: Ring, [x0, y0, x1, y1]: Edge): number {
  let square = Infinity;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    if (
      cross(ax, ay, bx, by, x0, y0) > 0 !== cross(ax, ay, bx, by, x1, y1) > 0 &&
      cross(x0, y0, x1, y1, ax, ay) > 0 !== cross(x0, y0, x1, y1, bx, by) > 0
    )
      return 0;
    square = Math.min(
      square,
      squareToEdge(ax, ay, x0, y0, x1, y1),
      squareToEdge(x0, y0, ax, ay, bx, by),
      squareToEdge(x1, y1, ax, ay, bx, by),
    );
  }
  return square;
}

const cross = (ax: number, ay: number, bx: number, by: number, x: number, y: number) =>
  (bx - ax) * (y - ay) - (by - ay) * (x - ax);
