/** A list longer than this is worked through area by area. */
const MOST_AT_ONCE = 24;

/** What lies together on a weed map. */
export interface SpotGroup<T> {
  readonly spots: readonly T[];
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/** Places of a weed map by the area that they lie in, each of so few that a hand keeps them in view; from left to right and from top to bottom. Every place is in one of them. */
export function spotGroups<T extends { readonly xMm: number; readonly yMm: number }>(
  spots: readonly T[],
): SpotGroup<T>[] {
  if (spots.length === 0) return [];
  const [xs, ys] = [spots.map(({ xMm }) => xMm), spots.map(({ yMm }) => yMm)];
  const box = { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
  if (spots.length <= MOST_AT_ONCE) return [{ spots, ...box }];
  // Halved across its longer side, as evenly as it goes.
  const isWide = box.maxX - box.minX >= box.maxY - box.minY;
  const sorted = [...spots].sort((a, b) => (isWide ? a.xMm - b.xMm : a.yMm - b.yMm));
  const half = Math.ceil(sorted.length / 2);
  return [...spotGroups(sorted.slice(0, half)), ...spotGroups(sorted.slice(half))];
}
