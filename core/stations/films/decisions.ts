import { colour, coordinate, object, text, whole } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';

export interface FilmsDecisions {
  readonly films: {
    /** The film of a colour, by the colour; a colour that is not named gets the nearest in stock. */
    readonly byColour: Readonly<Record<string, string>>;
    /** Where the pattern of a film begins on the design, by the film's id; one that is not named begins where the design does. */
    readonly patterns: Readonly<Record<string, PatternPlace>>;
    /** How often the maker took the shop's films and figures of the day although part of the job was cut with earlier ones. */
    readonly renewals: number;
  };
}

/** How far a pattern is moved across the design and down it. */
export interface PatternPlace {
  readonly xMm: number;
  readonly yMm: number;
}

export type FilmsPatch = Patch<FilmsDecisions>;

export const filmsSlice: Slice<FilmsDecisions> = {
  schema: {
    films: object({
      byColour: {
        type: 'object',
        propertyNames: { pattern: colour.pattern },
        additionalProperties: text,
        required: [],
      },
      patterns: {
        type: 'object',
        propertyNames: text,
        additionalProperties: object({ xMm: coordinate, yMm: coordinate }),
        required: [],
      },
      renewals: whole(0, 10_000),
    }),
  },
  beginning: { films: { byColour: {}, patterns: {}, renewals: 0 } },
  upgrades: {
    // Version 7 knew no films with a pattern.
    7: ({ films }) => (typeof films === 'object' ? { films: { ...films, patterns: {} } } : {}),
    // Version 14 built every job with the shop of the day.
    14: ({ films }) => (typeof films === 'object' ? { films: { ...films, renewals: 0 } } : {}),
  },
};
