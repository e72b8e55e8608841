import { boundsOf, boxesTouch, commonBox, subtract, transformBox, type Box, type Rings } from '../../geometry/index.js';
import type { Artwork } from './artwork.js';
import { paintReach } from './paint-reach.js';
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
export function paintedBox(
  artwork: Artwork,
  place: PaintPlace,
  isBare: ((area: Pick<PaintedThing, 'colour' | 'rings'>) => boolean) | null,
): Box | null {
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
    const covers = things.flatMap((thing, j) =>
      j > i && boxesTouch(thing.reach, reach) && isBareAt(j) ? thing.rings : [],
    );
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
  return {
    minX: -farthest((box) => -box.minX),
    minY: -farthest((box) => -box.minY),
    maxX,
    maxY: farthest((box) => box.maxY),
  };
}

function thingsOf(artwork: Artwork, place: PaintPlace): PaintedThing[] {
  // Hairlines that are filled may close only together.
  if (place.repair.hairlines === 'fill')
    return paintPlaced(artwork, place).regions.map(({ colour, rings }) => ({ colour, rings, reach: boundsOf(rings)! }));
  const edge =
    artwork.isPicture === true || place.repair.beyondArtboard === 'take'
      ? null
      : transformBox({ minX: 0, minY: 0, maxX: artwork.widthMm, maxY: artwork.heightMm }, place.matrix);
  return artwork.paints.flatMap((paint): PaintedThing[] => {
    const reach = paintReach(paint, place.matrix);
    if (!reach || (edge && !boxesTouch(reach, edge))) return [];
    return [
      new LatePaint(paint.colour, edge ? commonBox(reach, edge) : reach, () =>
        paintPlaced({ ...artwork, paints: [paint] }, place).regions.flatMap((region) => region.rings),
      ),
    ];
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
