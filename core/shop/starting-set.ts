import { newFilm, type Film, type FilmFamily } from './film.js';

/** Plain colours that most shops have, by family: names and how they look. Each is a film to keep, to change, or to leave out. */
const COLOURS: Readonly<Partial<Record<FilmFamily, readonly (readonly [name: string, colour: string])[]>>> = {
  calendered: [
    ['White', '#f7f7f5'],
    ['Black', '#161617'],
    ['Red', '#b8232f'],
    ['Blue', '#1f4f9c'],
    ['Green', '#1d7a46'],
    ['Yellow', '#f3c22b'],
    ['Grey', '#8d9296'],
  ],
  polymeric: [
    ['White', '#f7f7f5'],
    ['Black', '#161617'],
    ['Red', '#b8232f'],
    ['Blue', '#1f4f9c'],
  ],
  cast: [
    ['White', '#f7f7f5'],
    ['Black', '#161617'],
    ['Red', '#b8232f'],
    ['Blue', '#1f4f9c'],
    ['Yellow', '#f3c22b'],
  ],
  translucent: [['Frosted', '#eef1f1']],
  reflective: [
    ['White reflective', '#dfe3e6'],
    ['Yellow reflective', '#edc92f'],
  ],
  textured: [
    ['Gold glitter', '#c2a04c'],
    ['Silver glitter', '#b9bdc2'],
  ],
  heatTransfer: [
    ['White', '#f6f6f3'],
    ['Black', '#18181a'],
    ['Red', '#bd2331'],
    ['Navy', '#1f2d52'],
  ],
  heatGlitter: [['Silver glitter', '#d4d8dd']],
  flock: [
    ['White', '#f3f2ee'],
    ['Black', '#1a1a1b'],
  ],
  puff: [['White', '#f4f3ef']],
  heatAdhesive: [['Heat adhesive', '#e8e4da']],
  foil: [['Gold', '#c9a24b']],
  dyeTransfer: [['Printed sheet', '#ffffff']],
  stencil: [['Mask', '#7fb7d6']],
};

/** Films to begin with, of some families. `nameId` gives each its id. */
export function startingSet(families: readonly FilmFamily[], nameId: () => string): Film[] {
  return families.flatMap((family) =>
    (COLOURS[family] ?? []).map(([name, colour]): Film => ({
      ...newFilm(nameId(), family),
      name: `${name}, ${SHORT[family]}`,
      colour,
    })),
  );
}

/** As a film of the family is called in its name. */
const SHORT: Readonly<Record<FilmFamily, string>> = {
  calendered: 'calendered',
  polymeric: 'polymeric',
  cast: 'cast',
  translucent: 'translucent',
  reflective: 'adhesive',
  textured: 'adhesive',
  heatTransfer: 'heat-transfer',
  heatGlitter: 'heat-transfer',
  flock: 'flock',
  puff: 'puff',
  heatAdhesive: 'for foil',
  foil: 'foil',
  dyeTransfer: 'dye',
  stencil: 'stencil',
};
