import {
  boundsOf,
  boxesTouch,
  boxRing,
  clipRingToBox,
  grow,
  growTracingLost,
  intersect,
  joinBoxes,
  regionsOf,
  signedArea,
  subtract,
  tolerances,
  unite,
  widenBox,
  type Box,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';

/** Shorter than this many widths a part is the tip of a corner, or rounding. */
const SHORT = 1.5;
/** What rounding leaves along an edge is thinner than this. */
const HAIR_MM = tolerances.HAIRLINE_MM / 2;
/** Corners of the tests are true to this share of the width: finer ones cost twice the time and find the same. */
const ARC_SHARE = 0.02;
/** Up to this many widths a part that hangs on by one end is the tip of an acute corner: every leaf and star has them. */
const LONG_TIP = 4;

/** Only stretches longer than this many widths can be a part's: shorter ones come of small round corners. */
const SUSPECT = 0.6;
/** More spots than this are tested all together, with everything round them. */
const MOST_SPOTS = 48;

/**
 * The parts of an area (kernel-clean rings, mm) that are thinner than `widthMm`: what an erosion by half of it and a dilation back do not
 * bring back (opening test). Tips of corners are left out. Nothing for a width of 0.
 *
 * Cost: one offset of the whole; the rest of the test is made only where that lost a stretch of the outline.
 */
export function thinParts(rings: Rings, widthMm: number): Region[] {
  if (!(widthMm > 0) || rings.length === 0) return [];
  // A hair less, so that what is exactly as wide as asked for stays.
  const half = (widthMm / 2) * 0.999;
  const arc = ARC_SHARE * widthMm;
  const { grown: eroded, lost } = growTracingLost(rings, -half, arc);
  const spots = suspectSpots(rings, lost, widthMm);
  if (spots.length === 0) return [];
  // Brought back by a little more than was taken: coarse corners and rounding would else leave hairs along every edge.
  const opened = grow(clippedTo(eroded, spots, widthMm), half + arc + HAIR_MM, arc);
  return longParts(subtract(clippedTo(rings, spots, 0), opened), () => opened, widthMm);
}

/** The gaps of an area that are narrower than `widthMm`, between its parts or within one: what the opposite test fills. */
export function narrowGaps(rings: Rings, widthMm: number): Region[] {
  if (!(widthMm > 0) || rings.length === 0) return [];
  const half = (widthMm / 2) * 0.999;
  const arc = ARC_SHARE * widthMm;
  const { grown: dilated, lost } = growTracingLost(rings, half, arc);
  const spots = suspectSpots(rings, lost, widthMm);
  if (spots.length === 0) return [];
  const closed = grow(clippedTo(dilated, spots, widthMm), -half - arc - HAIR_MM, arc);
  return longParts(
    subtract(closed, clippedTo(rings, spots, widthMm)),
    () =>
      subtract(
        spots.map((spot) => boxRing(widenBox(spot, widthMm))),
        closed,
      ),
    widthMm,
  );
}

/** Boxes that hold every part which can have lost a stretch, far enough from each other to be tested by themselves; with all round them when there are many. */
function suspectSpots(rings: Rings, lost: readonly Box[], widthMm: number): Box[] {
  const suspects = lost
    .filter((box) => Math.hypot(box.maxX - box.minX, box.maxY - box.minY) > SUSPECT * widthMm)
    .map((box) => widenBox(box, widthMm));
  if (suspects.length === 0) return [];
  if (suspects.length > MOST_SPOTS) return [widenBox(boundsOf(rings)!, widthMm)];
  const spots: Box[] = [];
  for (let spot of suspects) {
    // Each gathers up those it reaches, until none is left within reach.
    for (
      let i = spots.findIndex((other) => boxesTouch(other, spot, 2 * widthMm));
      i >= 0;
      i = spots.findIndex((other) => boxesTouch(other, spot, 2 * widthMm))
    ) {
      spot = joinBoxes(spot, spots.splice(i, 1)[0]!)!;
    }
    spots.push(spot);
  }
  // A part lies between its lost stretches: where all of them together are shorter than a part that counts, there is none.
  return spots.filter((spot) => {
    const stretches = lost.filter((box) => boxesTouch(box, spot)).reduce<Box | null>(joinBoxes, null)!;
    return Math.hypot(stretches.maxX - stretches.minX, stretches.maxY - stretches.minY) > SHORT * widthMm;
  });
}

/** What of an area lies in the spots, each widened by `roomMm`. */
function clippedTo(rings: Rings, spots: readonly Box[], roomMm: number): Ring[] {
  const boxed = rings.map((ring) => ({ ring, box: boundsOf([ring])! }));
  return spots.flatMap((spot) => {
    const room = widenBox(spot, roomMm);
    return boxed
      .filter(({ box }) => boxesTouch(box, room))
      .map(({ ring, box }) => clipRingToBox(ring, room, box))
      .filter((ring) => ring.length >= 6);
  });
}

/** Of what a test left over, the parts that matter: those that stand alone or join two bodies, and very long tips. */
function longParts(rings: Rings, bodyOf: () => Rings, widthMm: number): Region[] {
  const parts = regionsOf(rings.filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2)).map((part) => {
    const box = boundsOf([part.outer])!;
    return { part, box, long: Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / widthMm };
  });
  if (parts.every(({ long }) => long <= SHORT)) return [];
  const body = bodyOf().map((ring) => ({ ring, box: boundsOf([ring])! }));
  return parts
    .filter(({ part, box, long }) => long > LONG_TIP || (long > SHORT && contacts(part, box, body) !== 1))
    .map(({ part }) => part);
}

/** In how many places a part meets the body it was left over from. */
function contacts(part: Region, box: Box, body: readonly { readonly ring: Ring; readonly box: Box }[]): number {
  // The body may be large and the part small: only what lies round the part is handed to the kernel.
  const round = widenBox(box, 1);
  const near = body
    .filter((other) => boxesTouch(other.box, round))
    .map((other) => clipRingToBox(other.ring, round, other.box))
    .filter((ring) => ring.length >= 6);
  return regionsOf(intersect(grow([part.outer, ...part.holes], 4 * tolerances.HAIRLINE_MM), near)).filter(
    (piece) => signedArea(piece.outer) > tolerances.CRUMB_MM2,
  ).length;
}

/** A part's width is told to this, mm. */
const WIDTH_STEP_MM = 0.1;
/** Widths that are tried one after the other, mm: how long a part must be to count grows with the width, so a wide test does not find what a narrow one does. */
const WIDTHS_MM = [0.3, 0.6, 1, 1.5, 2.2, 3.2, 4.5, 6];

/** The thinnest part of an area, if it is thinner than 6 mm: how wide it is, to a tenth, and where; null when there is none. */
export function thinnestPart(rings: Rings): { readonly mm: number; readonly where: Box } | null {
  const first = WIDTHS_MM.findIndex((width) => thinParts(rings, width).length > 0);
  if (first < 0) return null;
  let [low, high] = [
    Math.round((WIDTHS_MM[first - 1] ?? 0) / WIDTH_STEP_MM),
    Math.round(WIDTHS_MM[first]! / WIDTH_STEP_MM),
  ];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (thinParts(rings, middle * WIDTH_STEP_MM).length > 0) high = middle;
    else low = middle;
  }
  const [part] = thinParts(rings, high * WIDTH_STEP_MM);
  return { mm: Number((high * WIDTH_STEP_MM).toFixed(1)), where: boundsOf([part!.outer])! };
}

/**
 * What has to be added to an area to make one of its thin parts `widthMm` wide: the part grown by the least amount, found by halving, at
 * which the opening test no longer finds it. The rest of the area keeps its exact edge.
 */
export function thickening(rings: Rings, part: Region, widthMm: number): Rings {
  const thin = [part.outer, ...part.holes];
  // Only the neighbourhood is tested: a part is widened by half the width at most.
  const inner = boundsOf(thin)!;
  const nearby = intersect(rings, [boxRing(widenBox(inner, 2 * widthMm))]);
  const isThick = (by: number) =>
    thinParts(unite([...nearby, ...grow(thin, by)]), widthMm).every(
      (left) => !boxOverlaps(boundsOf([left.outer])!, inner),
    );
  let [low, high] = [0, widthMm / 2];
  for (let i = 0; i < 5; i += 1) {
    const middle = (low + high) / 2;
    if (isThick(middle)) high = middle;
    else low = middle;
  }
  return grow(thin, high);
}

function boxOverlaps(a: Box, b: Box): boolean {
  return a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;
}
