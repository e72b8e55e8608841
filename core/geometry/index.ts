/*
 * Areas of the plane in mm: rings, Boolean operations and offsets on one polygon kernel, curves to polylines, strokes to areas.
 * Knows nothing of films, jobs or files. y points down, as in the artwork; cutting turns it over at the very end.
 */
export { clipRingToBox } from './clip-to-box.js';
export { convexParts, convexSum, isConvexRing } from './convex-parts.js';
export { edgeIndex, edgesOf, type Edge, type Edges } from './edges.js';
export { fingerprintOf } from './fingerprint.js';
export { keyOf } from './key.js';
export { flatten, CurvesBuilder, type Curves, type Polyline } from './curves.js';
export {
  grow,
  growBevelled,
  growMitred,
  intersect,
  isKernelFailure,
  KernelError,
  loadKernel,
  roomInside,
  subtract,
  unite,
  type FillRule,
} from './kernel.js';
export { growTracingLost, type GrownOutline } from './lost-stretches.js';
export { compose, IDENTITY, inverse, rotation, scaling, stretchOf, translation, type Matrix } from './matrix.js';
export { outerBoundary } from './outer-boundary.js';
export { noFitOfParts, noFitOutline } from './no-fit-outline.js';
export { regionsOf, ringsOf, type Region } from './regions.js';
export {
  areaOf,
  backwards,
  boundsOf,
  boxesTouch,
  boxRing,
  commonBox,
  containsPoint,
  countPieces,
  crossingsAt,
  holdsBox,
  isBoxRing,
  joinBoxes,
  lineLength,
  longestSide,
  mirrored,
  perimeter,
  pointCell,
  pointCount,
  reversed,
  ringsToPathData,
  signedArea,
  squareToEdge,
  transformBox,
  transformRing,
  translateRings,
  turnedOver,
  widenBox,
  type Box,
  type Ring,
  type Rings,
} from './rings.js';
export { simplifyLine, simplifyRing } from './simplify.js';
export { strokeArea, type StrokeStyle } from './stroke.js';
export * as tolerances from './tolerances.js';
