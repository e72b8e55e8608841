import type { StationName } from '../words/index.js';
import type { Recipe } from './recipe.js';

/** The parts of a recipe that decide what is cut, by their stations. Names, days, copies, patterns and assembly are not among them. */
const PARTS: readonly (readonly [StationName, (recipe: Recipe) => unknown])[] = [
  ['artwork', ({ artworks, repair: { letBe: _, ...repair } }) => [artworks, repair]],
  ['films', ({ films: { byColour, renewals } }) => [byColour, renewals]],
  ['surface', ({ surface: { ground: _g, freshPaint: _p, readFromMm: _r, blankId: _b, ...surface } }) => surface],
  ['build', ({ build }) => build],
  ['prepare', ({ preparation }) => preparation],
];

/** The stations at which two recipes decide differently what is cut. */
export function changedStations(before: Recipe, now: Recipe): readonly StationName[] {
  return PARTS.filter(([, of]) => JSON.stringify(of(before)) !== JSON.stringify(of(now))).map(([station]) => station);
}

/** A recipe that cuts what an earlier one did, with all else as it is now: heading, copies, what is let be, assembly. */
export function asItWasCut(now: Recipe, cut: Recipe): Recipe {
  const { artworks, repair, films, surface, build, preparation } = cut;
  return {
    ...now,
    artworks,
    repair: { ...repair, letBe: now.repair.letBe },
    films: { ...films, patterns: now.films.patterns },
    surface,
    build,
    preparation,
  };
}
