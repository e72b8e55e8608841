/*
 * The words every stage shares: the recipe and its schema, findings, rulings, films, lengths, refusals.
 * plan(), which calls the stages in their order, is in plan/ so that a stage can know these words and nothing later.
 */
export {
  aligned,
  ALIGNMENTS,
  atTrueSize,
  distributed,
  moved,
  placedBox,
  placementMatrix,
  reordered,
  repeated,
  snapped,
  withPlaces,
  type Alignment,
  type OwnSize,
  type PlacedPart,
  type SnapLine,
} from './arrangement.js';
export {
  AT_ORIGIN,
  carryAlternates,
  DEFAULT_TRACING,
  drawingPart,
  nameOfPart,
  newLettering,
  picturePart,
  sourcesOf,
  type ArtworkPart,
  type DrawingPart,
  type Lettering,
  type LetteringPart,
  type PicturePart,
  type Placement,
  type Source,
  type Tracing,
} from './artwork-part.js';
export { FILM_FAMILIES, type CutterProfile, type Film, type FilmFamily, type FilmPiece, type Mat, type Shop } from './film.js';
export { atPlaces, countFindings, STAGES, type Finding, type Remedy, type Stage } from './finding.js';
export { InputError } from './input-error.js';
export type { Job, JobState, JobSummary } from './job.js';
export { formatLength, readLength, type LengthRead, type LengthUnit } from './length.js';
export {
  besidesSpared,
  EVERYWHERE,
  placeOf,
  placeRules,
  spared,
  sparedNoMore,
  takenAt,
  takenBack,
  takenEverywhere,
  type ArtworkPlace,
  type PlaceRemedy,
  type PlaceRules,
  type SparedPlace,
} from './places.js';
export { emptyRecipe, NO_REPAIR, patchRecipe, type BlockOut, type Contour, type KnockOut, type Outline, type PairDecision, type Recipe, type RecipePatch } from './recipe.js';
export { describeSchemaError, parseRecipe, RECIPE_SCHEMA } from './recipe-schema.js';
export type { Ruling } from './ruling.js';
