/*
 * What comes in: files, pictures and lettering as the maker arranged them, read, painted at the size of the job, and put right.
 */
export {
  aligned,
  ALIGNMENTS,
  atTrueSize,
  boxRound,
  distributed,
  moved,
  placedBox,
  placementMatrix,
  reordered,
  snapped,
  spaced,
  withGroups,
  withPlaces,
  type Alignment,
  type OwnSize,
  type PartExtent,
  type PlacedPart,
  type SnapLine,
} from './arrangement.js';
export { countOf, inColour, MOST_COPIES, setOut, variantsOf, wordsOf, type Repeat } from './copies.js';
export {
  AT_ORIGIN,
  carryAlternates,
  DEFAULT_TRACING,
  drawingPart,
  nameOfPart,
  letteringPart,
  newLettering,
  picturePart,
  sourcesOf,
  type ArtworkPart,
  type DrawingPart,
  type LetteringPart,
  type PicturePart,
  type Placement,
  type Source,
} from './artwork-part.js';
export { comparePartStage } from './compare-part.js';
export { artworkSlice, PLACEMENT_SCHEMA, type ArtworkDecisions, type ArtworkPatch } from './decisions.js';
export { designOf, partMatrix, type Design } from './design.js';
export { inWords } from './in-words.js';
export { paintPartStage, placedFinding, type PaintedPart } from './paint-part.js';
export { partExtentStage, type SizeOf } from './part-extent.js';
export {
  placeOf,
  placeRules,
  spared,
  sparedFor,
  sparedNoMore,
  spotsOf,
  takenAt,
  takenBack,
  takenEverywhere,
  withRecipePlaces,
  type PlaceSpots,
} from './places.js';
export { putRightStage, type Regions } from './put-right.js';
export { readPartStage, type PartAsRead, type ReadPart } from './read-part.js';
export { NO_REPAIR, type Repair } from './repair.js';
export { sayColour, startWithColour } from './say-colour.js';
export { sayLayerTroubles, sayPaintTroubles } from './say-checks.js';
export { sayNoticed } from './say-noticed.js';
export { NO_ARTWORK, NOTHING_PAINTED, sayHiddenPart, sayJoinedWords, sayOfPart, sayStep, sayTracing } from './say.js';
export { tracePartStage } from './trace-part.js';
export { tracedFigures } from './traced-figures.js';
