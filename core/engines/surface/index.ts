/*
 * Surfaces and what they leave for a design. Each kind has its geometry in a file of its own; all are placed on as the flat they roll out to.
 */
export { APART_MM, setBeside } from './apart.js';
export { bentLine, partsOfAreas, type LineRoom } from './bent-line.js';
export { radiusOf, safeScale, strainAt, strainHolds, strainPct, type Bend } from './compound.js';
export { SEEN_SHARE, seenAtOnceMm, sidesOf, spanRad, type Hand } from './cylinder.js';
export { roomOf, type Developed, type Margins } from './developed.js';
export { boxOfFree, MOST_FREE_PLACES, ringOfFree, type FreePlace } from './free-places.js';
export {
  condensed,
  GARMENT_SIZES,
  GARMENTS,
  LEAST_CONDENSED,
  measuredFrom,
  SPOTS,
  widthOnSize,
  type Garments,
  type Spot,
} from './garment.js';
export { garmentOutline, printOnGarment, sizeFactor } from './garment-outline.js';
export {
  MOST_PANELS,
  PANEL_LAP_MM,
  tile,
  tileBending,
  type PanelSpan,
  type Tiling,
  type TilingWish,
} from './panels.js';
export {
  BELOW_LIMIT,
  developedOf,
  facesBothSides,
  hasSides,
  limitsOf,
  circumferenceAt,
  placeOn,
  sideMiddleMm,
  widestOn,
  type Compound,
  type Cylinder,
  type Flat,
  type Garment,
  type Side,
  type Surface,
  type LiesAt,
  type Taper,
} from './surface.js';
export {
  BETWEEN_MM,
  MOST_DESIGNS,
  placeSeveral,
  sidesInOrder,
  takesSeveral,
  type OneOfSeveral,
  type PlacedSeveral,
  type SeveralWish,
} from './several.js';
export { handleOf, rimOf, seenLine, seenPoint, seenRings, type Outlook, type Solid } from './projection.js';
export type { PlacedDesign, Placing, Size, SizeWish } from './surface-kind.js';
export { sectorOf, slantOf, uprightOf, whyNoCone, type Cone, type NoCone, type Sector } from './taper.js';
export {
  movedMap,
  stretchAt,
  taperMap,
  unwarpBox,
  unwarpPoint,
  WARP_MM,
  warpBox,
  warpLine,
  warpPoint,
  warpRings,
  type TaperMap,
} from './warp.js';
