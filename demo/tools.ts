import {
  newCutter,
  newMaker,
  type Blade,
  type Blank,
  type CutterCard,
  type Maker,
  type MatCard,
  type Press,
  type Tape,
} from '../core/shop/index.js';

/* What else Halyard & Wick has on its bench and its shelves, made up. */

const mat = (id: string, name: string, widthMm: number, lengthMm: number, usesBefore: number): MatCard => ({
  id,
  name,
  widthMm,
  lengthMm,
  edgeMm: 5,
  usesBefore,
  retired: false,
});

export const DEMO_MATS: readonly MatCard[] = [
  mat('mat-short', 'short mat', 300, 300, 34),
  mat('mat-long', 'long mat', 300, 600, 12),
  mat('mat-new', 'new short mat', 300, 300, 0),
];

export const DEMO_BLADES: readonly Blade[] = [
  {
    id: 'blade-45',
    name: 'everyday blade',
    angleDeg: '45',
    offsetMm: 0.25,
    metresBefore: 310,
    note: '',
    retired: false,
  },
  {
    id: 'blade-60',
    name: 'steep blade for thick film',
    angleDeg: '60',
    offsetMm: 0.5,
    metresBefore: 84,
    note: 'For glitter, flock and the blasting mask.',
    retired: false,
  },
  { id: 'blade-30', name: 'fine blade', angleDeg: '30', offsetMm: 0.25, metresBefore: 22, note: '', retired: false },
];

export const DEMO_CUTTERS: readonly CutterCard[] = [
  { ...newCutter('bench'), name: 'bench cutter', host: '127.0.0.1', port: 9310, bladeId: 'blade-45' },
  { ...newCutter('shed'), name: 'wide cutter in the shed', widthMm: 1220, travelSpeedMmS: 800, bladeId: 'blade-60' },
];

export const DEMO_TAPES: readonly Tape[] = [
  {
    id: 'tape-paper',
    name: 'paper tape',
    tack: 'medium',
    matter: 'paper',
    widthMm: 300,
    uses: 0,
    lastsUses: 1,
    costPerM2: 1.1,
    note: '',
    retired: false,
  },
  {
    id: 'tape-clear',
    name: 'clear tape for layers',
    tack: 'low',
    matter: 'clear',
    widthMm: 305,
    uses: 4,
    lastsUses: 8,
    costPerM2: 2.6,
    note: 'With a grid of 10 mm.',
    retired: false,
  },
];

export const DEMO_PRESSES: readonly Press[] = [
  {
    id: 'press-flat',
    name: 'flat press',
    kind: 'platen',
    widthMm: 380,
    lengthMm: 380,
    mostC: 220,
    note: '',
    retired: false,
  },
  {
    id: 'press-mug',
    name: 'mug press',
    kind: 'mug',
    widthMm: 240,
    lengthMm: 120,
    mostC: 210,
    note: 'For mugs of 75 to 90 mm.',
    retired: false,
  },
];

export const DEMO_MAKERS: readonly Maker[] = [
  { ...newMaker('ilse'), name: 'Ilse', placementWithMarksMm: 0.2, placementByEyeMm: 0.4 },
  { ...newMaker('oren'), name: 'Oren', hand: 'left' },
];

type Sketch = Pick<Blank, 'id' | 'name' | 'kind' | 'matter' | 'colour'> & Partial<Blank>;
const blank = (sketch: Sketch): Blank => ({
  photo: null,
  readings: [],
  trials: [],
  note: '',
  retired: false,
  ...sketch,
});
const read = (
  what: Blank['readings'][number]['what'],
  mm: number,
  on: string,
  by = 'Ilse',
  tool: Blank['readings'][number]['with'] = 'tape',
): Blank['readings'][number] => ({ what, mm, on, by, with: tool });

export const DEMO_BLANKS: readonly Blank[] = [
  blank({
    id: 'mug-white',
    name: 'White mug, straight',
    kind: 'cylinder',
    matter: 'ceramic',
    colour: '#fafafa',
    readings: [
      read('circumference', 258, '2026-02-11'),
      read('circumference', 256.5, '2026-09-03', 'Oren'),
      read('straight height', 88, '2026-02-11'),
      read('handle gap', 46, '2026-02-11'),
    ],
    trials: [{ what: 'a name', widthMm: 84, heightMm: 42, on: '2026-02-14', held: 'well', note: '' }],
  }),
  blank({
    id: 'flask-blue',
    name: 'Blue flask, half a litre',
    kind: 'cylinder',
    matter: 'powder coat',
    colour: '#2d4f7c',
    readings: [read('circumference', 229, '2026-04-20'), read('straight height', 142, '2026-04-20', 'Ilse', 'rule')],
    trials: [
      {
        what: 'a name',
        widthMm: 110,
        heightMm: 38,
        on: '2026-04-22',
        held: 'well',
        note: 'Sat well, seen whole from the front.',
      },
      {
        what: 'a badge',
        widthMm: 60,
        heightMm: 60,
        on: '2026-05-02',
        held: 'edges lift',
        note: 'Rubbed twice and warmed the second time: held.',
      },
    ],
  }),
  blank({
    id: 'tin-tea',
    name: 'Tapered tea tin',
    kind: 'taper',
    matter: 'gloss paint',
    colour: '#21452f',
    readings: [
      read('diameter at the top', 102, '2026-03-18', 'Oren', 'calliper'),
      read('diameter at the foot', 86, '2026-03-18', 'Oren', 'calliper'),
      read('slant', 118, '2026-03-18', 'Oren', 'rule'),
    ],
  }),
  blank({
    id: 'tumbler',
    name: 'Steel tumbler',
    kind: 'taper',
    matter: 'metal',
    colour: '#c4c8ca',
    readings: [
      read('diameter at the top', 88, '2026-06-01', 'Ilse', 'calliper'),
      read('diameter at the foot', 70, '2026-06-01', 'Ilse', 'calliper'),
      read('slant', 170, '2026-06-01', 'Ilse', 'rule'),
    ],
  }),
  blank({
    id: 'helmet',
    name: 'Cycle helmet',
    kind: 'compound',
    matter: 'plastic',
    colour: '#e8e8e8',
    readings: [
      read('chord', 120, '2026-05-20', 'Ilse', 'template'),
      read('height of the chord', 16, '2026-05-20', 'Ilse', 'template'),
    ],
  }),
  blank({
    id: 'apron',
    name: 'Canvas apron',
    kind: 'garment',
    matter: 'cotton',
    colour: '#3b3a36',
    readings: [read('width', 620, '2026-01-30'), read('height', 820, '2026-01-30')],
    trials: [
      {
        what: 'a logo on the chest',
        widthMm: 180,
        heightMm: 90,
        on: '2026-02-02',
        held: 'well',
        note: 'Washed twelve times.',
      },
    ],
  }),
  blank({
    id: 'jersey',
    name: 'Rowing jersey, M',
    kind: 'garment',
    matter: 'polyester',
    colour: '#f5f5f5',
    readings: [read('width', 520, '2026-07-04'), read('height', 700, '2026-07-04')],
  }),
  blank({
    id: 'door-tearoom',
    name: 'Tea-room door, glass',
    kind: 'glass',
    matter: 'glass',
    colour: '#33403f',
    readings: [read('width', 620, '2026-08-12'), read('height', 1410, '2026-08-12')],
    note: 'Sealed pane: no large dark films inside.',
  }),
  blank({
    id: 'box-tackle',
    name: 'Tackle box lid',
    kind: 'flat',
    matter: 'low-energy plastic',
    colour: '#3d4b35',
    readings: [read('width', 310, '2026-09-15', 'Oren', 'rule'), read('height', 205, '2026-09-15', 'Oren', 'rule')],
    trials: [
      {
        what: 'a badge',
        widthMm: 240,
        heightMm: 150,
        on: '2026-09-16',
        held: 'came off',
        note: 'Ordinary glue. High-tack since.',
      },
    ],
  }),
  blank({
    id: 'board-oak',
    name: 'Oak board',
    kind: 'flat',
    matter: 'wood',
    colour: '#a97c4f',
    readings: [read('width', 600, '2026-10-02', 'Oren', 'rule'), read('height', 180, '2026-10-02', 'Oren', 'rule')],
  }),
];
