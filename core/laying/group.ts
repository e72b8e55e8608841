import {
  boundsOf,
  boxRing,
  fingerprintOf,
  keyOf,
  regionsOf,
  transformRing,
  translateRings,
  type Matrix,
  type Region,
  type Ring,
  type Rings,
} from '../geometry/index.js';
import { isOutline, thereAndBack } from '../engines/cutting/index.js';
import { turned, type Placement } from '../engines/nesting/index.js';
import type { Film } from '../shop/index.js';
import type { LayerToLay, PanelToLay } from './job-to-lay.js';
import type { PlacedGroup } from './sheet-plan.js';

/** A layer's group as it lies before it is placed: y up, mirrored if its film or the surface asks for it. */
export interface Group {
  readonly film: Film;
  readonly fingerprint: string;
  readonly contours: Rings;
  readonly borders: Rings;
  /** How far its border keeps clear of its contours, mm. */
  readonly borderGapMm: number;
  readonly marks: number;
  readonly partOf: readonly number[];
  readonly flip: Matrix;
  /** How many copies of the design it holds. */
  readonly perStrip: number;
}

/** How often a panel's layers are cut for so many copies of a job: a strip of a gang holds several of them. */
export function groupsFor({ copies, perStrip }: Pick<PanelToLay, 'copies' | 'perStrip'>, wanted: number): number {
  return Math.ceil((wanted * copies) / perStrip);
}

/** A prepared layer as it is laid out, on the film that is cut for it: foil's is its adhesive. */
export function groupOf(
  { layer: { film, cut }, panel, border, borderGapMm, relief, labels }: LayerToLay,
  isMirrored: boolean,
  cutFilm: Film = film,
): Group {
  const { box } = panel;
  const flip: Matrix = isMirrored ? [-1, 0, 0, -1, box.maxX, box.maxY] : [1, 0, 0, -1, -box.minX, box.maxY];
  const map = (rings: Rings) => rings.map((ring) => transformRing(ring, flip));
  const marks = panel.marks?.marks.map((mark) => mark.ring) ?? [];
  // One of several designs is what it is wherever the others leave it room.
  const fingerprint = keyOf(
    film.id,
    isMirrored,
    fingerprintOf(
      panel.corner ? translateRings([...cut, ...marks], -panel.corner.xMm, -panel.corner.yMm) : [...cut, ...marks],
    ),
  );
  return {
    film: cutFilm,
    fingerprint,
    contours: map([...cut, ...marks]),
    borders: map([...border, ...[...relief, ...labels].map(thereAndBack)]),
    borderGapMm,
    marks: marks.length,
    partOf: [...partsOf(cut), ...marks.map(() => -1)],
    flip,
    perStrip: panel.perStrip,
  };
}

/** For each ring, the piece it belongs to. */
function partsOf(cut: Rings): number[] {
  const of = new Map<Ring, number>();
  regionsOf(cut).forEach(({ outer, holes }, part) => {
    for (const ring of [outer, ...holes]) of.set(ring, part);
  });
  return cut.map((ring) => of.get(ring) ?? -1);
}

/** With a border the box is the outline; without, the pieces themselves are. */
export function outlinesOf(group: Group): Region[] {
  const freed = regionsOf(group.borders);
  return freed.length > 0 ? freed : regionsOf(group.contours);
}

/** Copies that lie on one sheet with one box round all of them, instead of one round each: the first of them carries it. */
export function inOneBox<G extends PlacedGroup>(groups: readonly G[]): readonly G[] {
  const box = boundsOf(groups.flatMap(({ borders }) => borders));
  return box
    ? groups.map((group, i) => ({
        ...group,
        borders: [...(i === 0 ? [boxRing(box)] : []), ...group.borders.filter((ring) => !isOutline(ring))],
      }))
    : groups;
}

/** How wide and high a group is, mm. */
export function sizeOf(group: Pick<Group, 'contours' | 'borders'>): {
  readonly widthMm: number;
  readonly lengthMm: number;
} {
  const box = boundsOf([...group.contours, ...group.borders])!;
  return { widthMm: box.maxX - box.minX, lengthMm: box.maxY - box.minY };
}

export function placed(group: Group, placement: Placement): PlacedGroup {
  const move = (ring: Ring) =>
    turned(ring, placement.rotation).map((v, i) => v + (i % 2 === 0 ? placement.x : placement.y));
  const [cos, sin] = [...turned(Float64Array.of(1, 0), placement.rotation)] as [number, number];
  const [a, b, c, d, e, f] = group.flip;
  return {
    filmId: group.film.id,
    copy: placement.copy,
    fingerprint: group.fingerprint,
    matrix: [
      cos * a - sin * b,
      sin * a + cos * b,
      cos * c - sin * d,
      sin * c + cos * d,
      cos * e - sin * f + placement.x,
      sin * e + cos * f + placement.y,
    ],
    contours: group.contours.map(move),
    borders: group.borders.map(move),
    marks: group.marks,
    perStrip: group.perStrip,
    partOf: group.partOf,
  };
}
