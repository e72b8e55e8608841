/*
 * Every colour of the artwork and the film it is cut from.
 */
export {
  builtWithNow,
  panelsAsBuilt,
  shopAsBuilt,
  shopDifferences,
  type BuiltWith,
  type ShopDifference,
} from './built-with.js';
export { filmsSlice, type FilmsDecisions, type FilmsPatch, type PatternPlace } from './decisions.js';
export { filmsBetween, newColour } from './film-way.js';
export { patternsStage } from './patterns.js';
export { ruledFilm, type RuledFilm } from './ruled-film.js';
export { sayUnsuited } from './say.js';
export { sayShopDiffers } from './say-shop-differs.js';
export { filmsStage, type ColourUse, type FilmsOut } from './stage.js';
