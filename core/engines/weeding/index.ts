/*
 * What helps to pull the waste off: the weeding border, relief lines and the strips they leave, the map of what comes out, and how long it takes.
 */
export { weedingBorder, weedingBorders } from './border.js';
export { BORDER_KINDS, type BorderKind } from './border-kinds.js';
export { centreTicks, labelLines, type LabelWish } from './labels.js';
export { layerWeeding, type LayerWeeding, type LayerWeedingWish } from './layer-weeding.js';
export { WEEDING_FIGURES, type WeedingFigures } from './figures.js';
export { unitsOf, weedingMinutes, type WeedingWork } from './minutes.js';
export { pullOrder, type Pull } from './pull.js';
export { reliefLines } from './relief.js';
export { RELIEF, type ReliefLine, type ReliefWish } from './relief-wish.js';
export { spotGroups, type SpotGroup } from './spot-groups.js';
export { NECK_MM, stripsOf, type Strip } from './strips.js';
export { wasteOf, type Waste } from './waste.js';
export { comesOut, SPOT_KINDS, type SpotKind } from './spot-kinds.js';
export { loosePartsOf, weedMap, type LoosePart, type WeedMap, type WeedSpot } from './weed-map.js';
