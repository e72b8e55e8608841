/*
 * What a person reads and writes of the shop's records, field by field: forms and files of films are made of it.
 */
import type { ShopKind } from '../shop.js';
import { BLANK_FIELDS } from './blank-fields.js';
import type { FieldGroup } from './field.js';
import { FILM_FIELDS } from './film-fields.js';
import {
  BLADE_FIELDS,
  CUTTER_FIELDS,
  MAKER_FIELDS,
  MAT_FIELDS,
  PIECE_FIELDS,
  PRESS_FIELDS,
  SETTINGS_FIELDS,
  TAPE_FIELDS,
} from './tool-fields.js';

export { readField, valueAt, writeField, type Field, type FieldGroup } from './field.js';
export { isPressed } from './film-fields.js';
export { columnOf, readFilmsCsv, writeFilmsCsv, type CsvProblem } from './film-csv.js';
export { sayFault, worst, type Fault } from './say-fault.js';

export const SHOP_FIELDS: Readonly<Record<ShopKind, readonly FieldGroup[]>> = {
  settings: SETTINGS_FIELDS,
  films: FILM_FIELDS,
  pieces: PIECE_FIELDS,
  mats: MAT_FIELDS,
  blades: BLADE_FIELDS,
  cutters: CUTTER_FIELDS,
  tapes: TAPE_FIELDS,
  presses: PRESS_FIELDS,
  makers: MAKER_FIELDS,
  blanks: BLANK_FIELDS,
};
