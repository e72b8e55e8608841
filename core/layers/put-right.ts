import { areaOf, boundsOf, regionsOf, ringsOf, signedArea, simplifyRing, subtract, tolerances, unite, type Box, type Ring, type Rings } from '../geometry/index.js';
import type { Recipe } from '../job/index.js';
import { boxIndex, shapeKey } from './separate.js';
import { narrowGaps, thicken } from './thin-parts.js';

/** A painted area of the artwork, as much as putting right has to know of it. */
export interface ColouredArea {
  readonly colour: string;
  readonly rings: Rings;
}

/**
 * The painted areas after the maker's remedies, in the order in which they mean something: colours first, then what is left out, then
 * outlines. Nothing of the artwork itself is changed; an empty `repair` gives the same areas back.
 */
export function putRight<T extends ColouredArea>(areas: readonly T[], repair: Recipe['repair']): T[] {
  let out: T[] = areas.map((area) => (repair.recolour[area.colour] ? { ...area, colour: repair.recolour[area.colour]! } : area));
  if (repair.tidy) out = withoutUnseen(out);
  const reshape = (rings: Rings) => reshaped(rings, repair);
  if (repair.speckMm2 > 0 || repair.thickenMm > 0 || repair.closeGapsMm > 0 || repair.simplifyMm > 0) out = out.map((area) => ({ ...area, rings: reshape(area.rings) }));
  return out.filter((area) => area.rings.length > 0);
}

function reshaped(rings: Rings, { speckMm2, thickenMm, closeGapsMm, simplifyMm }: Recipe['repair']): Rings {
  let out = rings;
  if (simplifyMm > 0) out = unite(out.map((ring) => simplifyRing(ring, simplifyMm)));
  if (speckMm2 > 0) out = withoutSpecks(out, speckMm2);
  if (closeGapsMm > 0) out = unite([...out, ...narrowGaps(out, closeGapsMm).flatMap((gap) => [gap.outer, ...gap.holes])]);
  if (thickenMm > 0) out = thicken(out, thickenMm);
  return out;
}

/** Pieces smaller than `leastMm2` are dropped, holes smaller than it filled. */
function withoutSpecks(rings: Rings, leastMm2: number): Ring[] {
  const large = regionsOf(rings).filter((region) => areaOf([region.outer, ...region.holes]) >= leastMm2);
  return ringsOf(large.map((region) => ({ outer: region.outer, holes: region.holes.filter((hole) => -signedArea(hole) >= leastMm2) })));
}

/** Leaves out what nothing shows of: areas wholly under others, and those painted twice. */
function withoutUnseen<T extends ColouredArea>(areas: readonly T[]): T[] {
  const unseen = new Set(unseenAreas(areas).map(({ index }) => index));
  return areas.filter((_, i) => !unseen.has(i));
}

/** So many of the areas above one are looked at, the largest first: more than these together hardly ever hide what none of them does. */
const MOST_COVERS = 48;

/** Which areas nothing shows of, and whether an equal one of the same colour is what lies over them. */
export function unseenAreas(areas: readonly ColouredArea[]): { readonly index: number; readonly doubled: boolean }[] {
  if (areas.length === 0) return [];
  const boxed = areas.map((area) => ({ ...area, box: boundsOf(area.rings)!, size: areaOf(area.rings) }));
  const touching = boxIndex(boxed.map((area) => area.box));
  // From the top down, so that of many equal ones the uppermost is the one that stays.
  const shapes = new Set<string>();
  const gone = new Set<number>();
  const out: { index: number; doubled: boolean }[] = [];
  for (let index = areas.length - 1; index >= 0; index -= 1) {
    const area = boxed[index]!;
    const shape = `${area.colour} ${shapeKey(area)}`;
    if (shapes.has(shape)) {
      gone.add(index);
      out.push({ index, doubled: true });
      continue;
    }
    shapes.add(shape);
    const above = touching(area.box, (j) => j > index && !gone.has(j));
    if (above.length === 0 || !reachesRound(area.box, above.map((j) => boxed[j]!.box))) continue;
    const covers = above.sort((a, b) => boxed[b]!.size - boxed[a]!.size).slice(0, MOST_COVERS);
    const left = subtract(area.rings, covers.flatMap((j) => [...boxed[j]!.rings])).reduce((sum, ring) => sum + signedArea(ring), 0);
    if (left <= tolerances.CRUMB_MM2) out.push({ index, doubled: false });
  }
  return out.reverse();
}

/** Boxes can only hide another together if they reach all its sides. */
function reachesRound(box: Box, others: readonly Box[]): boolean {
  const slack = 1e-6;
  return others.some((b) => b.minX <= box.minX + slack) && others.some((b) => b.maxX >= box.maxX - slack) && others.some((b) => b.minY <= box.minY + slack) && others.some((b) => b.maxY >= box.maxY - slack);
}
