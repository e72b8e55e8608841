/*
 * What helps to pull the waste off: the weeding border, relief lines and the strips they leave, the map of what comes out, and how long it takes.
 */
export { groupsFilmMm2, weedingBorder, weedingBorders } from './border.js';
export { BORDER_KINDS, type BorderKind } from './border-kinds.js';
export { layerWeeding, type LayerWeeding, type LayerWeedingWish } from './layer-weeding.js';
export { WEEDING_FIGURES, unitsOf, weedingMinutes, type WeedingFigures, type WeedingWork } from './minutes.js';
export { pullOrder, type Pull } from './pull.js';
export { reliefLines } from './relief.js';
export { RELIEF, type ReliefLine, type ReliefWish } from './relief-wish.js';
export { NECK_MM, stripsOf, type Strip } from './strips.js';
export { wasteOf, type Waste } from './waste.js';
export { loosePartsOf, weedMap, type LoosePart, type WeedMap, type WeedSpot } from './weed-map.js';
