import Flatbush from 'flatbush';
import {
  boundsOf,
  boxRing,
  containsPoint,
  grow,
  regionsOf,
  signedArea,
  unite,
  widenBox,
  type Box,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { BorderKind } from './border-kinds.js';

/** Parts nearer to each other than this many gaps of the border are one group, and at least so many mm: borders of two groups must not meet. */
const TOGETHER = { gaps: 3, least: 12 };
/** A contour bends outwards and inwards by no smaller a radius, mm: film tears at sharp corners. */
const SMOOTH_MM = 6;
/** A contour that is to hold far-apart parts together is closed over wider and wider gaps, up to this share of what it goes round. */
const WIDEST_SHARE = 1;
/** Contours are true to this, mm: nobody sees more, and blades need few points. */
const ARC_MM = 0.05;

/** The weeding border: a box round the artwork and its marks, `gapMm` clear of both; the waste between comes off in one pull. */
export function weedingBorder(artworkAndMarks: Box, gapMm: number): Ring {
  return boxRing(widenBox(artworkAndMarks, gapMm));
}

/** The weeding border of a kind round what stays, marks with it (kernel-clean rings), `gapMm` clear of all of it; outer rings, none of them in another. Nothing for none, or round nothing. */
export function weedingBorders(kind: BorderKind, stays: Rings, gapMm: number): Ring[] {
  const box = boundsOf(stays);
  if (!box) return [];
  switch (kind) {
    case 'none':
      return [];
    case 'box':
      return [boxRing(widenBox(box, gapMm))];
    case 'contour':
      return contourRound(stays, gapMm);
    case 'groups':
      return merged(
        groupsOf(stays, Math.max(TOGETHER.least, TOGETHER.gaps * gapMm)).map((group) => contourRound(group, gapMm)),
      );
  }
}

/** One smooth line round everything. */
function contourRound(stays: Rings, gapMm: number): Ring[] {
  const filled = unite(stays.filter((ring) => signedArea(ring) > 0));
  const { minX, minY, maxX, maxY } = boundsOf(filled)!;
  const widest = Math.max(maxX - minX, maxY - minY) * WIDEST_SHARE;
  for (let close = SMOOTH_MM; ; close *= 2) {
    // Grown and shrunk back, gaps and bays are bridged by arcs.
    const closed = outersOf(grow(grownFar(filled, gapMm + close), -close, ARC_MM));
    if (closed.length === 1) return closed;
    if (close > widest) return [boxRing(widenBox({ minX, minY, maxX, maxY }, gapMm))];
  }
}

/** The first step outwards, mm: the next are twice as far each. */
const FIRST_STEP_MM = 0.4;
/** Chords of all steps together stay within what a contour may be off. */
const STEP_ARC_MM = ARC_MM / 5;

/** Grown by much more than what is between its parts, without its holes. Step by step: what has grown together is few points by the time it is grown far, while all at once every arc crosses all that are near. */
function grownFar(rings: Rings, byMm: number, arcMm = STEP_ARC_MM): Ring[] {
  let grown = outersOf(rings);
  for (let [done, step] = [0, FIRST_STEP_MM]; done < byMm; done += step, step *= 2)
    grown = outersOf(grow(grown, Math.min(step, byMm - done), arcMm));
  return grown;
}

const outersOf = (rings: Rings) => unite(rings.filter((ring) => signedArea(ring) > 0));

/** Contours of groups that meet after all are one. */
function merged(contours: readonly (readonly Ring[])[]): Ring[] {
  return outersOf(contours.flat());
}

/** Parts of an area by how near they lie to each other. */
function groupsOf(stays: Rings, reachMm: number): Ring[][] {
  const near = regionsOf(grownFar(stays, reachMm / 2, ARC_MM * 4));
  const boxes = near.map(({ outer }) => boundsOf([outer])!);
  const index = new Flatbush(near.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  const groups = near.map((): Ring[] => []);
  for (const { outer, holes } of regionsOf(stays)) {
    const [x, y] = [outer[0]!, outer[1]!];
    const home = index.search(x, y, x, y).find((i) => containsPoint([near[i]!.outer], x, y));
    if (home !== undefined) groups[home]!.push(outer, ...holes);
  }
  return groups.filter((group) => group.length > 0);
}
