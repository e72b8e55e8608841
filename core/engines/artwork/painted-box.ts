import { boundsOf, boxesTouch, boxRing, compose, stretchOf, subtract, transformRing, widenBox, type Box, type Rings } from '../../geometry/index.js';
import type { Artwork, Paint } from './artwork.js';
import { paintPlaced, type PaintPlace } from './paint-regions.js';

/** Something painted whose area is worked out only when it is asked for. */
interface PaintedThing {
  readonly colour: string;
  /** As it is painted, before anything lies over it. */
  readonly rings: Rings;
  /** Holds it; perhaps with room to spare. */
  readonly reach: Box;
}

/**
 * The box round what an artwork paints, strokes and clips and the artboard's edge counted, mm where it is placed; null when nothing of it is painted.
 * What `isBare` says of a paint's area counts as bare surface: it is not painted, and hides what lies under it. Null when nothing is bare.
 * Most paints lie well inside, so only those that may reach furthest to one side are made an area.
 */
export function paintedBox(artwork: Artwork, place: PaintPlace, isBare: ((area: Pick<PaintedThing, 'colour' | 'rings'>) => boolean) | null): Box | null {
  const things = thingsOf(artwork, place);
  const bare = new Map<number, boolean>();
  const isBareAt = (i: number) => {
    const known = bare.get(i) ?? isBare!(things[i]!);
    bare.set(i, known);
    return known;
  };
  const boxes = new Map<number, Box | null>();
  const boxAt = (i: number) => {
    if (!boxes.has(i)) boxes.set(i, shownBox(i));
    return boxes.get(i)!;
  };
  const shownBox = (i: number): Box | null => {
    const { rings, reach } = things[i]!;
    if (!isBare) return boundsOf(rings);
    if (isBareAt(i)) return null;
    const covers = things.flatMap((thing, j) => (j > i && boxesTouch(thing.reach, reach) && isBareAt(j) ? thing.rings : []));
    return boundsOf(covers.length > 0 ? subtract(rings, covers) : rings);
  };
  const farthest = (reaches: (box: Box) => number): number => {
    let best = -Infinity;
    const order = things.map((thing, i) => ({ i, far: reaches(thing.reach) })).sort((a, b) => b.far - a.far);
    for (const { i, far } of order) {
      if (far <= best) break;
      const box = boxAt(i);
      if (!box) continue;
      // A flattened curve lies inside the true one: where that could reach as far, it does.
      const reached = reaches(box);
      best = Math.max(best, far - reached <= place.toleranceMm ? far : reached);
    }
    return best;
  };
  const maxX = farthest((box) => box.maxX);
  if (maxX === -Infinity) return null;
  return { minX: -farthest((box) => -box.minX), minY: -farthest((box) => -box.minY), maxX, maxY: farthest((box) => box.maxY) };
}

function thingsOf(artwork: Artwork, place: PaintPlace): PaintedThing[] {
  // Hairlines that are filled may close only together.
  if (place.repair.hairlines === 'fill') return paintPlaced(artwork, place).regions.map(({ colour, rings }) => ({ colour, rings, reach: boundsOf(rings)! }));
  const edge = place.repair.beyondArtboard === 'take' ? null : boundsOf([transformRing(boxRing({ minX: 0, minY: 0, maxX: artwork.widthMm, maxY: artwork.heightMm }), place.matrix)])!;
  return artwork.paints.flatMap((paint): PaintedThing[] => {
    const reach = reachOf(paint, place);
    if (!reach || (edge && !boxesTouch(reach, edge))) return [];
    return [new LatePaint(paint.colour, edge ? commonBox(reach, edge) : reach, () => paintPlaced({ ...artwork, paints: [paint] }, place).regions.flatMap((region) => region.rings))];
  });
}

class LatePaint implements PaintedThing {
  #rings: Rings | null = null;

  constructor(
    readonly colour: string,
    readonly reach: Box,
    readonly paint: () => Rings,
  ) {}

  get rings(): Rings {
    return (this.#rings ??= this.paint());
  }
}

function commonBox(a: Box, b: Box): Box {
  return { minX: Math.max(a.minX, b.minX), minY: Math.max(a.minY, b.minY), maxX: Math.min(a.maxX, b.maxX), maxY: Math.min(a.maxY, b.maxY) };
}

/** A box that holds all of a paint: its curves lie within their control points, its stroke within its width. */
function reachOf({ curves, matrix: own, how }: Paint, place: PaintPlace): Box | null {
  const matrix = compose(place.matrix, own);
  const points: number[] = [];
  let at = 0;
  for (const op of curves.ops) {
    const [x = 0, y = 0, rx = 0, ry = 0] = curves.coords.slice(at, at + 4);
    if (op === 'A') {
      const far = Math.max(Math.abs(rx), Math.abs(ry));
      points.push(x - far, y - far, x + far, y - far, x + far, y + far, x - far, y + far);
    } else {
      for (let i = 0; i < COORDS[op]; i += 1) points.push(curves.coords[at + i]!);
    }
    at += COORDS[op];
  }
  const box = boundsOf([transformRing(Float64Array.from(points), matrix)]);
  if (!box || how.kind === 'fill') return box;
  // A square cap's corner is √2 times half the width away; a mitred corner as far as its limit lets it.
  const { width, cap, join, miterLimit } = how.style;
  const by = (width / 2) * stretchOf(matrix) * Math.max(cap === 'square' ? Math.SQRT2 : 1, join === 'miter' ? miterLimit : 1);
  return widenBox(box, by);
}

const COORDS = { M: 2, L: 2, C: 6, A: 7, Z: 0 } as const;
