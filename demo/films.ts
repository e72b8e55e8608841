import { newFilm, type Film, type FilmFamily } from '../core/shop/index.js';

/* The films of Halyard & Wick, made up: of every family, with what the shop wrote down about them. */

type Own = Partial<Film> & Pick<Film, 'costPerM2'>;

function film(id: string, name: string, family: FilmFamily, colour: string, own: Own): Film {
  return { ...newFilm(id, family), name, colour, ...own };
}

/** Suppliers, made up like all the rest. */
const TOWPATH_SUPPLY = 'Towpath Sign Supply';
const LOCKSIDE_MILL = 'Lockside Paper & Film';

const MATT = { finish: 'matt' } as const;
const cast = (id: string, name: string, colour: string, own: Partial<Film> = {}) =>
  film(id, name, 'cast', colour, { costPerM2: 14.8, supplier: LOCKSIDE_MILL, ...own });
const calendered = (id: string, name: string, colour: string, own: Partial<Film> = {}) =>
  film(id, name, 'calendered', colour, { costPerM2: 6.6, supplier: TOWPATH_SUPPLY, ...own });
const polymeric = (id: string, name: string, colour: string, own: Partial<Film> = {}) =>
  film(id, name, 'polymeric', colour, { costPerM2: 8.9, supplier: TOWPATH_SUPPLY, ...own });
const pressed = (id: string, name: string, colour: string, own: Partial<Film> = {}) =>
  film(id, name, 'heatTransfer', colour, { costPerM2: 18.4, supplier: LOCKSIDE_MILL, ...MATT, ...own });

export const DEMO_FILMS: readonly Film[] = [
  polymeric('chalk', 'Chalk white', '#f7f5ef', { article: 'P-001', reorderM2: 4 }),
  polymeric('tar', 'Tar black', '#16181a', { article: 'P-002', reorderM2: 4 }),
  calendered('lock-gate', 'Lock-gate red', '#b3262b', { article: 'C-114', reorderM2: 2 }),
  calendered('towpath', 'Towpath green', '#1f6b45', { article: 'C-131', reorderM2: 2 }),
  cast('narrow-blue', 'Narrow blue', '#1d4e89', { article: 'K-40', reorderM2: 3 }),
  cast('wick-yellow', 'Wick yellow', '#f2b632', { article: 'K-12', reorderM2: 2 }),
  cast('ember', 'Ember orange', '#dd6b20', { article: 'K-15', reorderM2: 3 }),
  cast('heron', 'Heron grey', '#8b949c', { costPerM2: 13.9, ...MATT, article: 'K-71' }),
  cast('reed', 'Reed brown', '#6b4a2b', { costPerM2: 13.9, ...MATT, article: 'K-66', reorderM2: 3 }),
  film('mist', 'Morning mist', 'translucent', '#dfe9ec', { costPerM2: 11.5, supplier: TOWPATH_SUPPLY }),
  film('bollard', 'Bollard silver', 'reflective', '#c3c8cc', {
    costPerM2: 27,
    supplier: LOCKSIDE_MILL,
    note: 'Prismatic: lay it dry.',
  }),
  film('brass', 'Brushed brass', 'textured', '#b08d3f', { costPerM2: 31, directional: true, supplier: LOCKSIDE_MILL }),
  pressed('apron-cream', 'Apron cream', '#efe3c8', { article: 'H-03' }),
  film('grainy-mask', 'Grain-boat mask', 'stencil', '#7fb7d6', { costPerM2: 5.1, supplier: TOWPATH_SUPPLY }),
  calendered('thrift-pink', 'Thrift pink', '#de7fa3', { article: 'C-122' }),
  calendered('teasel', 'Teasel lilac', '#9a86c4', { article: 'C-150' }),
  calendered('primrose', 'Primrose', '#f8ec9a', { article: 'C-104', adhesive: 'removable' }),
  polymeric('kingfisher', 'Kingfisher teal', '#12859a', { article: 'P-038' }),
  polymeric('duckweed', 'Duckweed lime', '#a6c63c', { article: 'P-044' }),
  polymeric('slate', 'Wharf slate', '#4b535b', { ...MATT, article: 'P-072', adhesive: 'air-channel' }),
  polymeric('blackout', 'Backing white, grey glue', '#e6e4de', {
    article: 'P-005',
    adhesiveColour: 'grey',
    opacityPct: 100,
    costPerM2: 10.2,
  }),
  cast('sky', 'Lock-keeper’s sky', '#86b9e0', { article: 'K-33' }),
  cast('plum', 'Damson', '#5c2347', { article: 'K-58', adhesive: 'high-tack' }),
  cast('crate', 'Crate sand', '#cdb08a', { ...MATT, article: 'K-62', costPerM2: 13.9 }),
  film('fog', 'Etched fog', 'translucent', '#eef1ef', { costPerM2: 12.2, supplier: TOWPATH_SUPPLY, opacityPct: 30 }),
  film('lamp-amber', 'Lamp amber, see-through', 'translucent', '#e9a23b', {
    costPerM2: 12.9,
    supplier: TOWPATH_SUPPLY,
  }),
  film('lamp-yellow', 'Lamp yellow, reflective', 'reflective', '#efd02f', { costPerM2: 29.5, supplier: LOCKSIDE_MILL }),
  film('bramble', 'Bramble glitter', 'textured', '#6a2350', { costPerM2: 24, supplier: LOCKSIDE_MILL }),
  film('hull-weave', 'Hull weave', 'textured', '#2c2f33', {
    costPerM2: 26,
    directional: true,
    thicknessUm: 160,
    supplier: LOCKSIDE_MILL,
  }),
  calendered('quay-tiles', 'Quay tiles', '#cfc9b6', {
    article: 'C-901',
    directional: true,
    costPerM2: 19.5,
    note: 'Printed with tiles of 30 mm.',
  }),
  pressed('galley-black', 'Galley black', '#1b1c1f', { article: 'H-01', reorderM2: 2 }),
  pressed('pennant-red', 'Pennant red', '#c01f2e', { article: 'H-14' }),
  pressed('jersey-blue', 'Jersey blue', '#22427c', { article: 'H-40' }),
  film('frost-glitter', 'Frost glitter', 'heatGlitter', '#d9dee4', { costPerM2: 29, supplier: LOCKSIDE_MILL }),
  film('moss-flock', 'Moss flock', 'flock', '#3f4d2b', { costPerM2: 27, ...MATT, supplier: LOCKSIDE_MILL }),
  film('foam-puff', 'Weir foam', 'puff', '#f3f2ec', { costPerM2: 30, ...MATT, supplier: LOCKSIDE_MILL }),
  film('heat-glue', 'Heat adhesive', 'heatAdhesive', '#e8e4da', {
    costPerM2: 16,
    supplier: LOCKSIDE_MILL,
  }),
  film('copper-foil', 'Copper foil', 'foil', '#b86a3d', { costPerM2: 22, supplier: LOCKSIDE_MILL }),
  film('shimmer-foil', 'Shimmer foil', 'foil', '#c7ccd8', {
    costPerM2: 26,
    press: { tempC: 150, seconds: 6, pressure: 'medium', peel: 'cold', tackSeconds: 2, bearsSeconds: 20, leastC: 140 },
    supplier: LOCKSIDE_MILL,
    note: 'Dulls after 20 s under the press.',
  }),
  film('dye-sheet', 'Dye sheet, printed blue', 'dyeTransfer', '#3f6fb5', {
    costPerM2: 9.5,
    ...MATT,
    supplier: TOWPATH_SUPPLY,
  }),
  film('blast-mask', 'Blasting mask', 'stencil', '#9aa590', {
    costPerM2: 14,
    thicknessUm: 400,
    thinnestMm: 2.5,
    forceG: 220,
    speedMmS: 80,
    supplier: TOWPATH_SUPPLY,
  }),
];
