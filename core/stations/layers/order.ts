import { colourLightness } from '../../engines/artwork/index.js';
import { areaOf } from '../../geometry/index.js';
import type { Neighbours, Separation } from '../../engines/layers/index.js';
import type { Film } from '../../shop/index.js';
import { ALIKE_LIGHTNESS } from './pairs.js';

/** The order of the layers, and how it came about. */
export interface LayerOrder {
  /** Film ids from the surface upwards. */
  readonly keys: readonly string[];
  /** What the app proposes, when that is not the artwork's own order; null when it is. */
  readonly proposed: readonly string[] | null;
  /** Layers that lie over and under each other by turns. */
  readonly byTurns: readonly string[];
  /** Films on which nothing sticks. */
  readonly bare: readonly string[];
  /** Those were moved to the top against the order that was wished or proposed. */
  readonly isMovedToTop: boolean;
}

/** What the order looks at besides the artwork. */
export interface OrderRules {
  readonly filmOf: (key: string) => Film;
  /** The film that lies in one piece under all others, if one does. */
  readonly baseId: string | null;
  /** Films that lie behind even the base: outlines round all there is. */
  readonly behind: ReadonlySet<string>;
}

/**
 * The order of the layers from the surface upwards: the maker's wish as far as it can be laid, else the artwork's where layers overlap and
 * the app's where they only abut (docs/order.md).
 */
export function stackingOrder(
  separation: Separation,
  neighbours: Neighbours,
  wished: readonly string[],
  { filmOf, baseId, behind }: OrderRules,
): LayerOrder {
  const { keys: proposed, byTurns } = proposedOrder(separation, neighbours, filmOf);
  const asArtwork = separation.layers.map((layer) => layer.key);
  const rank = new Map(wished.map((key, i) => [key, i]));
  const place = (key: string) => rank.get(key) ?? wished.length;
  const asWished = [...proposed].sort((a, b) => place(a) - place(b) || proposed.indexOf(a) - proposed.indexOf(b));
  const bare = asWished.filter((key) => !filmOf(key).takesOnTop);
  const sticks = asWished.filter((key) => filmOf(key).takesOnTop);
  // A base shows on top as well as below; as one film it lies where it has to.
  const others = sticks.filter((key) => key !== baseId);
  const keys = [
    ...(baseId !== null && sticks.includes(baseId)
      ? [...others.filter((key) => behind.has(key)), baseId, ...others.filter((key) => !behind.has(key))]
      : sticks),
    ...bare,
  ];
  return {
    keys,
    proposed: proposed.join() === asArtwork.join() && byTurns.length === 0 ? null : proposed,
    byTurns: [...new Set(byTurns)],
    bare,
    isMovedToTop: bare.length > 0 && [...sticks, ...bare].join() !== asWished.join(),
  };
}

/** The order that the artwork asks for where layers overlap; where they only abut, as lowestOf says. */
function proposedOrder(
  { layers }: Separation,
  { overlaps }: Neighbours,
  filmOf: (key: string) => Film,
): { keys: string[]; byTurns: string[] } {
  const area = new Map(layers.map((layer) => [layer.key, areaOf(layer.visible)]));
  const asArtwork = layers.map((layer) => layer.key);
  const under = new Map(asArtwork.map((key) => [key, new Set<string>()]));
  for (const [lower, upper] of overlaps) under.get(upper)?.add(lower);
  const keys: string[] = [];
  const left = new Set(asArtwork);
  const byTurns: string[] = [];
  while (left.size > 0) {
    const free = [...left].filter((key) => [...under.get(key)!].every((below) => !left.has(below) || below === key));
    // Layers that lie over and under each other: as whole films either can lie lower, and the artwork's own order is as good as any.
    if (free.length === 0)
      byTurns.push(
        ...[...left].filter((key) =>
          [...under.get(key)!].some((below) => left.has(below) && under.get(below)!.has(key)),
        ),
      );
    const next = free.length > 0 ? lowestOf(free, area, filmOf) : [...left][0]!;
    keys.push(next);
    left.delete(next);
  }
  return { keys, byTurns };
}

/**
 * Which of some layers that only abut belongs nearest the surface: a translucent one, since what runs under it shows; then the lightest, since
 * the darker hides a lap that runs under it; of those about as light as the lightest the one with most area.
 */
function lowestOf(keys: readonly string[], area: ReadonlyMap<string, number>, filmOf: (key: string) => Film): string {
  const translucent = keys.filter((key) => filmOf(key).finish === 'translucent');
  const among = translucent.length > 0 ? translucent : keys;
  const lightness = (key: string) => colourLightness(filmOf(key).colour);
  const lightest = Math.max(...among.map(lightness));
  const alike = among.filter((key) => lightest - lightness(key) < ALIKE_LIGHTNESS);
  return alike.reduce((best, key) => (area.get(key)! > area.get(best)! ? key : best));
}
