import { colour, object, text } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface FilmsDecisions {
  /** The film of a colour, by the colour; a colour that is not named gets the nearest in stock. */
  readonly films: { readonly byColour: Readonly<Record<string, string>> };
}

export type FilmsPatch = Patch<FilmsDecisions>;

export const filmsSlice: Slice<FilmsDecisions> = {
  schema: { films: object({ byColour: { type: 'object', propertyNames: { pattern: colour.pattern }, additionalProperties: text, required: [] } }) },
  beginning: { films: { byColour: {} } },
  upgrades: {},
};
