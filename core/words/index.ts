/*
 * What is said to people, and about what: findings, rulings, remedies and the places they act at, lengths, refusals. Generic over
 * the changes that they propose, so that no word knows the recipe.
 */
export { count, firstNamed, listed, sayArea, sayDuration } from './amounts.js';
export { atPlaces, type Finding, type Remedy } from './finding.js';
export { InputError } from './input-error.js';
export { formatLength, readLength, sayUnclear, type LengthRead, type LengthUnit } from './length.js';
export {
  EVERYWHERE,
  PLACE_REMEDIES,
  type ArtworkPlace,
  type PlaceLists,
  type PlaceRemedy,
  type PlaceRules,
  type SparedPlace,
} from './place.js';
export type { Ruling } from './ruling.js';
export { STATION_NAMES, STATIONS, type StationName } from './station.js';
