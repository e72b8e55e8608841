import { areaOf, boundsOf, boxesTouch, regionsOf, ringsOf, signedArea, simplifyRing, subtract, tolerances, unite, type Ring, type Rings } from '../geometry/index.js';
import type { Recipe } from '../job/index.js';
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
export function withoutUnseen<T extends ColouredArea>(areas: readonly T[]): T[] {
  const unseen = new Set(unseenAreas(areas).map(({ index }) => index));
  return areas.filter((_, i) => !unseen.has(i));
}

/** Which areas nothing shows of, and whether an equal one of the same colour is what lies over them. */
export function unseenAreas(areas: readonly ColouredArea[]): { readonly index: number; readonly doubled: boolean }[] {
  const boxes = areas.map((area) => boundsOf(area.rings)!);
  const out: { index: number; doubled: boolean }[] = [];
  areas.forEach((area, index) => {
    const above: number[] = [];
    for (let j = index + 1; j < areas.length; j += 1) if (boxesTouch(boxes[j]!, boxes[index]!)) above.push(j);
    // No one of them or all together can cover it unless their boxes do.
    const [box, cover] = [boxes[index]!, above.map((j) => boxes[j]!)];
    if (cover.length === 0 || !cover.some((b) => b.minX <= box.minX + 1e-6) || !cover.some((b) => b.maxX >= box.maxX - 1e-6) || !cover.some((b) => b.minY <= box.minY + 1e-6) || !cover.some((b) => b.maxY >= box.maxY - 1e-6)) return;
    const left = subtract(area.rings, above.flatMap((j) => [...areas[j]!.rings])).reduce((sum, ring) => sum + signedArea(ring), 0);
    if (left > tolerances.CRUMB_MM2) return;
    const doubled = above.some((j) => areas[j]!.colour === area.colour && Math.abs(areaOf(areas[j]!.rings) - areaOf(area.rings)) < 0.001 * areaOf(area.rings) + tolerances.CRUMB_MM2);
    out.push({ index, doubled });
  });
  return out;
}
