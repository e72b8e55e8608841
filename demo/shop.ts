import { FILM_FAMILIES, type Film, type FilmFamily, type FilmPiece, type Shop } from '../core/shop/index.js';

/** The stock of Halyard & Wick, made up: fourteen films in eight families, what lies in the rack, two mats and the cutter. */
function film(
  id: string,
  name: string,
  family: FilmFamily,
  colour: string,
  more: Partial<Film> & Pick<Film, 'costPerM2' | 'forceG' | 'speedMmS'>,
): Film {
  const { name: _name, way, ...typical } = FILM_FAMILIES[family];
  const glue = way === 'press' ? ({ adhesive: null, adhesiveColour: null } as const) : ({ adhesive: way === 'stencil' ? 'removable' : 'permanent', adhesiveColour: 'clear' } as const);
  return { id, name, family, colour, finish: 'gloss', directional: false, ...typical, ...glue, ...more };
}

const films: readonly Film[] = [
  film('chalk', 'Chalk white', 'polymeric', '#f7f5ef', { costPerM2: 8.9, forceG: 95, speedMmS: 200 }),
  film('tar', 'Tar black', 'polymeric', '#16181a', { costPerM2: 8.9, forceG: 95, speedMmS: 200 }),
  film('lock-gate', 'Lock-gate red', 'calendered', '#b3262b', { costPerM2: 6.6, forceG: 95, speedMmS: 200 }),
  film('towpath', 'Towpath green', 'calendered', '#1f6b45', { costPerM2: 6.6, forceG: 95, speedMmS: 200 }),
  film('narrow-blue', 'Narrow blue', 'cast', '#1d4e89', { costPerM2: 14.8, forceG: 80, speedMmS: 180 }),
  film('wick-yellow', 'Wick yellow', 'cast', '#f2b632', { costPerM2: 14.8, forceG: 80, speedMmS: 180 }),
  film('ember', 'Ember orange', 'cast', '#dd6b20', { costPerM2: 14.8, forceG: 80, speedMmS: 180 }),
  film('heron', 'Heron grey', 'cast', '#8b949c', { costPerM2: 13.9, forceG: 80, speedMmS: 180, finish: 'matt' }),
  film('reed', 'Reed brown', 'cast', '#6b4a2b', { costPerM2: 13.9, forceG: 80, speedMmS: 180, finish: 'matt' }),
  film('mist', 'Morning mist', 'translucent', '#dfe9ec', { costPerM2: 11.5, forceG: 90, speedMmS: 180, finish: 'translucent' }),
  film('bollard', 'Bollard silver', 'reflective', '#c3c8cc', { costPerM2: 27.0, forceG: 150, speedMmS: 120 }),
  film('brass', 'Brushed brass', 'textured', '#b08d3f', { costPerM2: 31.0, forceG: 170, speedMmS: 100, finish: 'textured', directional: true }),
  film('apron-cream', 'Apron cream', 'heatTransfer', '#efe3c8', { costPerM2: 18.4, forceG: 85, speedMmS: 160, finish: 'matt' }),
  film('grainy-mask', 'Grain-boat mask', 'stencil', '#7fb7d6', { costPerM2: 5.1, forceG: 70, speedMmS: 200 }),
];

/** Roll widths are usable ones: what the pinch rollers need is already off. */
const roll = (filmId: string, widthMm: number, lengthMm: number): FilmPiece => ({ id: `${filmId}-roll`, filmId, kind: 'roll', widthMm, lengthMm, quantity: 1, edgeMm: 5 });
const sheets = (filmId: string, quantity: number, widthMm = 290, lengthMm = 290): FilmPiece => ({ id: `${filmId}-sheets`, filmId, kind: 'sheet', widthMm, lengthMm, quantity, edgeMm: 5 });
const offcut = (filmId: string, widthMm: number, lengthMm: number): FilmPiece => ({ id: `${filmId}-offcut`, filmId, kind: 'offcut', widthMm, lengthMm, quantity: 1, edgeMm: 5 });

const pieces: readonly FilmPiece[] = [
  roll('chalk', 590, 18_400),
  offcut('chalk', 280, 210),
  roll('tar', 590, 22_000),
  roll('lock-gate', 590, 9_300),
  sheets('lock-gate', 3),
  roll('towpath', 590, 6_100),
  roll('narrow-blue', 590, 12_800),
  sheets('narrow-blue', 2),
  roll('wick-yellow', 590, 7_700),
  offcut('wick-yellow', 290, 590),
  roll('ember', 590, 4_200),
  roll('heron', 590, 5_000),
  roll('reed', 590, 3_600),
  roll('mist', 590, 8_000),
  sheets('bollard', 4),
  roll('bollard', 590, 2_400),
  sheets('brass', 5),
  roll('brass', 590, 1_900),
  roll('apron-cream', 480, 10_000),
  roll('grainy-mask', 590, 15_000),
];

export const DEMO_SHOP: Shop = {
  films,
  pieces,
  mats: [
    { id: 'mat-short', name: 'short mat', widthMm: 300, lengthMm: 300, edgeMm: 5 },
    { id: 'mat-long', name: 'long mat', widthMm: 300, lengthMm: 600, edgeMm: 5 },
  ],
  cutter: {
    id: 'bench',
    name: 'bench cutter',
    host: '127.0.0.1',
    port: 9310,
    widthMm: 610,
    accelerationMmS2: 2500,
    travelSpeedMmS: 500,
    liftSeconds: 0.06,
    bladeOffsetMm: 0.25,
    overcutMm: 0.5,
    repeatabilityMm: 0.05,
  },
};
