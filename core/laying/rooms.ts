import {
  boundsOf,
  boxRing,
  containsPoint,
  grow,
  holdsBox,
  intersect,
  regionsOf,
  reversed,
  signedArea,
  subtract,
  unite,
  type Region,
  type Rings,
} from '../geometry/index.js';
import { isOutline } from '../engines/cutting/index.js';
import { wayOf } from '../shop/index.js';
import type { Group } from './group.js';

/** What lies in a counter is cut out with a knife before the layer round it is lifted: in a place narrower than this, mm, no hand would do it. */
const LEAST_ROOM_MM = 30;
/** Nothing is laid in a room with a hole: it is opened by so narrow a slit, mm. */
const SLIT_MM = 0.1;

/** How clear of a layer's counter what lies in it is, mm: as its border is; without one, at the spacing between copies. */
export function gapInCounters({ borders, borderGapMm }: Pick<Group, 'borders' | 'borderGapMm'>): number {
  return borders.some(isOutline) ? borderGapMm : 0;
}

/**
 * Where in the counters of a layer other copies have room: so clear of what stays round them and in them. No line parts the waste of a counter, and nothing is written there. Nothing in a stencil,
 * whose counters stay.
 */
export function roomsOf(group: Pick<Group, 'film' | 'contours' | 'borders' | 'borderGapMm'>): Rings {
  const { film, contours } = group;
  if (wayOf(film) === 'stencil') return [];
  const gapMm = gapInCounters(group);
  const least = LEAST_ROOM_MM + 2 * gapMm;
  // A hole runs the other way round; most layers have none that is large enough, and are done with at once.
  const counters = contours
    .filter((ring) => signedArea(ring) < 0)
    .flatMap((hole) => {
      const box = boundsOf([hole])!;
      return box.maxX - box.minX >= least && box.maxY - box.minY >= least ? [{ ring: reversed(hole), box }] : [];
    });
  return counters.flatMap(({ ring, box }) => {
    const within = contours.filter(
      (other) =>
        signedArea(other) > 0 && holdsBox(box, boundsOf([other])!) && containsPoint([ring], other[0]!, other[1]!),
    );
    const clear = subtract(gapMm > 0 ? grow([ring], -gapMm) : [ring], gapMm > 0 ? grow(unite(within), gapMm) : within);
    const wide = grow(grow(clear, -LEAST_ROOM_MM / 2), LEAST_ROOM_MM / 2);
    // What is wide enough comes out with round corners: those of a right angle are 0.2 of its width off.
    return intersect(clear, grow(wide, LEAST_ROOM_MM / 4));
  });
}

/** Rooms by so much larger all round; one that goes round something is slit from there up, so that it has no hole. */
export function widened(rooms: Rings, byMm: number): Rings {
  return regionsOf(byMm > 0 ? grow(rooms, byMm) : rooms).flatMap(slit);
}

function slit({ outer, holes }: Region): Rings {
  if (holes.length === 0) return [outer];
  const top = boundsOf([outer])!.maxY + 1;
  const slits = holes.map((hole) => {
    const { minX, maxX, minY, maxY } = boundsOf([hole])!;
    return boxRing({
      minX: (minX + maxX) / 2 - SLIT_MM / 2,
      maxX: (minX + maxX) / 2 + SLIT_MM / 2,
      minY: (minY + maxY) / 2,
      maxY: top,
    });
  });
  return subtract([outer, ...holes], slits);
}
